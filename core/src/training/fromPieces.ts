/** Drills that are made from what the shop itself has inspected and priced. */
import { findingInWords, type Finding } from '../condition/index.ts';
import { formatMoney, money, type Money } from '../money/index.ts';
import { questionOf, type DrillQuestion } from './question.ts';

export interface DrillPiece {
  readonly id: string;
  /** what it was decided to be, by name */
  readonly name: string;
  readonly maker: string | null;
  readonly variant: string;
  readonly findings: readonly Finding[];
  /** as it is graded in the school it is quoted in; null where it was not inspected */
  readonly grade: string | null;
  /** grades of that school, the best first */
  readonly grades: readonly string[];
  /** why it has no better one */
  readonly capped: string | null;
  /** what it would bring; null where nothing supports a price */
  readonly worth: { readonly low: Money; readonly estimate: Money; readonly high: Money } | null;
}

/** Prices that are plainly outside: so many times the end of the range. */
const BEYOND = [0.55, 1.7, 0.3, 2.6];

export function questionsOfPiece(piece: DrillPiece): DrillQuestion[] {
  return [gradeQuestion(piece), priceQuestion(piece)].flatMap((question) => question ?? []);
}

function gradeQuestion({
  id,
  name,
  maker,
  findings,
  grade,
  grades,
  capped,
}: DrillPiece): DrillQuestion | undefined {
  const at = grades.indexOf(grade ?? '');
  if (grade === null || at < 0) return undefined;
  const near = [...grades.keys()].filter((i) => i !== at).sort((a, b) => Math.abs(a - at) - Math.abs(b - at));
  return questionOf({
    id: `grade:${id}`,
    kind: 'grade',
    maker,
    ask: `${name}. Found: ${findings.length === 0 ? 'nothing' : findings.map((f) => findingInWords(f)).join('; ')}. Which grade?`,
    drawn: null,
    answer: grade,
    mistakes: near.flatMap((i) => grades[i] ?? []),
    because: capped ?? `Deduction by deduction it comes to ${grade}.`,
    source: null,
    opens: `/pieces/${id}/condition`,
    commonness: 1,
  });
}

function priceQuestion({ id, name, maker, variant, grade, worth }: DrillPiece): DrillQuestion | undefined {
  if (!worth || !(Number(worth.low.amount) > 0)) return undefined;
  const { currency } = worth.estimate;
  const said = (amount: number) => formatMoney(money(twoFigures(amount), currency), { whole: true });
  const [low, high] = [Number(worth.low.amount), Number(worth.high.amount)];
  // rounded a price must still lie where it is said to lie
  const estimate = twoFigures(Number(worth.estimate.amount));
  if (estimate < low || estimate > high) return undefined;
  const outside = BEYOND.map((times) => (times < 1 ? low : high) * times).filter((amount) => {
    const rounded = twoFigures(amount);
    return rounded >= 1 && (rounded < low || rounded > high);
  });
  return questionOf({
    id: `price:${id}`,
    kind: 'price',
    maker,
    ask: `${name}${grade === null ? '' : `, graded ${grade}`}. What would it bring?`,
    drawn: { what: 'forms', variants: [variant] },
    answer: said(Number(worth.estimate.amount)),
    mistakes: outside.map(said),
    because: `By comparable sales between ${said(low)} and ${said(high)}.`,
    source: null,
    opens: `/pieces/${id}/worth`,
    commonness: 1,
  });
}

/** 1,834 is asked as 1,800. */
const twoFigures = (amount: number): number => Number(amount.toPrecision(2));
