/** Condition index and grades: 100 × Π(1 − d), then each scale's bands and caps (engines.md, Condition). */
import {
  basePart,
  SEVERITIES,
  type Completeness,
  type Finding,
  type GradeQuestion,
  type Part,
  type Severity,
} from './finding.ts';
import { findingInWords } from './inWords.ts';
import { completenessDisclosures } from './completeness.ts';
import {
  SCALES,
  SHIPPED_RULES,
  type Cap,
  type DeductionRule,
  type IndexRules,
  type RuleSet,
  type ScaleId,
  type ScaleRules,
} from './rules.ts';

export interface AppliedCap {
  /** index of the finding, null where completeness caps */
  findingIndex: number | null;
  rule: string;
  says: string;
  to: string;
}
export interface ScaleGrade {
  scale: ScaleId;
  grade: string;
  /** what it would be without caps */
  would: string;
  caps: AppliedCap[];
  toNextUp: string;
  /** the number the grade was read from: condition index (age allowed for) or percent of original finish */
  from: number;
  rules: string;
}
export interface Deduction {
  findingIndex: number;
  /** share of the condition lost by this finding's part and defect together */
  share: number;
}
export interface GradeAnswer {
  conditionIndex: number;
  grades: ScaleGrade[];
  disclosures: string[];
  deductions: Deduction[];
}

/** Neither a severity nor a measure was noted: taken as moderate. */
const UNSTATED: Severity = 'moderate';
const MOST_LOST = 0.98;

export function gradeCondition(question: GradeQuestion, set: RuleSet = SHIPPED_RULES): GradeAnswer {
  const { findings } = question;
  const { index: rules, scales } = set;
  const deductions = findings.map((f, i) => ({ findingIndex: i, share: deductionOf(f, rules) }));
  const index = indexOf(findings, rules, () => 1);
  return {
    conditionIndex: round(index),
    grades: scales.map((scale) => gradeOn(scale, question, rules)),
    disclosures: [
      ...findings.map((f) => findingInWords(f)),
      ...completenessDisclosures(question.completeness),
    ],
    deductions,
  };
}

const round = (x: number) => Math.round(x * 10) / 10;

function deductionOf(f: Finding, rules: IndexRules): number {
  const rule = ruleFor(f, rules);
  if (!rule) return 0;
  const one = shareLost(f, rule);
  const repeats = Math.max(0, Math.floor(f.count ?? 1) - 1);
  return Math.min(MOST_LOST, one * (1 + rules.repeats * repeats));
}

function ruleFor(f: Finding, rules: IndexRules): DeductionRule | undefined {
  const part = basePart(f.part) as Part;
  const ofDefect = rules.deductions.filter((r) => r.defect === f.defect);
  return ofDefect.find((r) => r.parts?.includes(part)) ?? ofDefect.find((r) => r.parts === undefined);
}

function shareLost(f: Finding, rule: DeductionRule): number {
  const bySeverity =
    f.severity == null && f.measure != null && rule.byMeasure ? 0 : rule.bySeverity[f.severity ?? UNSTATED];
  const byMeasure = f.measure != null && rule.byMeasure ? piecewise(rule.byMeasure, f.measure) : 0;
  return Math.max(bySeverity, byMeasure);
}

function piecewise(points: readonly (readonly [number, number])[], x: number): number {
  const first = points[0];
  if (!first || x <= first[0]) return first?.[1] ?? 0;
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1], points[i]];
    if (a && b && x <= b[0]) return a[1] + ((b[1] - a[1]) * (x - a[0])) / (b[0] - a[0]);
  }
  return points.at(-1)?.[1] ?? 0;
}

/** Findings of one part and defect: the largest plus a share of the rest, so that ten scratches are not ten disasters. */
function indexOf(findings: readonly Finding[], rules: IndexRules, kept: (f: Finding) => number): number {
  const groups = new Map<string, number[]>();
  for (const f of findings) {
    const key = `${f.part} ${f.defect}`;
    const d = deductionOf(f, rules) * kept(f);
    groups.set(key, [...(groups.get(key) ?? []), d]);
  }
  let index = 100;
  // multiplied in a fixed order, so that the order of findings cannot move the last digit
  for (const key of [...groups.keys()].sort()) {
    const shares = [...(groups.get(key) ?? [])].sort((a, b) => b - a);
    const [largest = 0, ...rest] = shares;
    const together = largest + rules.repeats * rest.reduce((a, b) => a + b, 0);
    index *= 1 - Math.min(MOST_LOST, together);
  }
  return index;
}

function originalFinish(findings: readonly Finding[], scale: ScaleRules): number {
  let left = 100;
  for (const f of [...findings].sort((a, b) => (findingInWords(a) < findingInWords(b) ? -1 : 1))) {
    const table = scale.finishLost?.[f.defect];
    if (!table) continue;
    const lost = f.defect === 'finish-loss' && f.measure != null ? f.measure : table[f.severity ?? UNSTATED];
    left *= 1 - Math.min(100, Math.max(0, lost)) / 100;
  }
  return left;
}

function valueOn(
  scale: ScaleRules,
  question: GradeQuestion,
  rules: IndexRules,
  findings: readonly Finding[],
): number {
  if (scale.measures === 'original-finish') return originalFinish(findings, scale);
  const allowance =
    question.age != null && scale.ageAllowance ? piecewise(scale.ageAllowance, question.age) : 1;
  return indexOf(findings, rules, (f) => (rules.wear.includes(f.defect) ? allowance : 1));
}

function gradeOn(scale: ScaleRules, question: GradeQuestion, rules: IndexRules): ScaleGrade {
  const value = valueOn(scale, question, rules, question.findings);
  const would = unlifted(scale, question, rules, bandOf(scale, value));
  const caps = capsOn(scale, question.findings, question.completeness);
  const rank = (grade: string) => scale.grades.findIndex((g) => g.grade === grade);
  const worst = caps.reduce((lowest, cap) => Math.max(lowest, rank(cap.to)), rank(would));
  const grade = scale.grades[worst]?.grade ?? would;
  const binding = caps.filter((cap) => rank(cap.to) > rank(would));
  return {
    scale: scale.id,
    grade,
    would,
    caps: binding,
    toNextUp: nextUp(scale, question, rules, { value, grade, would, binding }),
    from: round(value),
    rules: `${scale.id}/${scale.version}`,
  };
}

/** Age forgives wear but never lifts into the top grade: a piece is there by itself or not at all. */
function unlifted(scale: ScaleRules, question: GradeQuestion, rules: IndexRules, band: string): string {
  const [top, next] = scale.grades;
  if (band !== top?.grade || question.age == null || !next) return band;
  const asNew = bandOf(scale, valueOn(scale, { ...question, age: null }, rules, question.findings));
  return asNew === top.grade ? band : next.grade;
}

const bandOf = (scale: ScaleRules, value: number): string =>
  (scale.grades.find((g) => round(value) >= g.from) ?? scale.grades.at(-1))?.grade ?? '';

function capsOn(
  scale: ScaleRules,
  findings: readonly Finding[],
  completeness: Completeness | null | undefined,
): AppliedCap[] {
  const byFinding = findings.flatMap((f, findingIndex) =>
    scale.caps
      .filter((cap) => capApplies(cap, f))
      .map((cap) => ({ findingIndex, rule: cap.id, says: cap.says, to: cap.to })),
  );
  const byCompleteness = scale.completenessCaps
    .filter((cap) => cap.states.includes(completeness?.[cap.item] ?? ''))
    .map((cap) => ({ findingIndex: null, rule: cap.id, says: cap.says, to: cap.to }));
  return [...byFinding, ...byCompleteness];
}

function capApplies(cap: Cap, f: Finding): boolean {
  if (!cap.defects.includes(f.defect)) return false;
  if (cap.parts && !cap.parts.includes(basePart(f.part) as Part)) return false;
  if (cap.aftermarketOnly && f.byMaker) return false;
  if (cap.from === undefined) return true;
  // without a severity the finding stands as moderate, as it does in the index
  return SEVERITIES.indexOf(f.severity ?? UNSTATED) >= SEVERITIES.indexOf(cap.from);
}

/** What is nearest to lifting the grade: the cap that holds it down, or the finding whose absence would do it. */
function nextUp(
  scale: ScaleRules,
  question: GradeQuestion,
  rules: IndexRules,
  now: { value: number; grade: string; would: string; binding: readonly AppliedCap[] },
): string {
  const rank = scale.grades.findIndex((g) => g.grade === now.grade);
  const better = scale.grades[rank - 1];
  if (!better) return 'This is the best grade of the scale.';
  const strongest = now.binding.filter((cap) => cap.to === now.grade);
  if (strongest.length > 0) {
    const why = [...new Set(strongest.map((cap) => cap.says))].join('; ');
    return `Held at ${now.grade} because ${why}; otherwise ${now.would}.`;
  }
  const lifting = question.findings
    .map((f, i) => ({
      f,
      value: valueOn(
        scale,
        question,
        rules,
        question.findings.filter((_, k) => k !== i),
      ),
    }))
    .filter(({ value }) => round(value) >= better.from)
    .sort((a, b) => a.value - b.value)[0];
  const short = round(better.from - now.value);
  return lifting
    ? `${short} short of ${better.grade}; without “${findingInWords(lifting.f)}” it would reach it.`
    : `${short} short of ${better.grade}.`;
}

/** From this age on a fixed blade or a modern folder is something to collect, whatever it was made for. */
const COLLECTED_FROM_YEARS = 40;

/**
 * The school a piece is quoted in unless somebody chose another: arms by their finish, traditional folders and whatever
 * is old as collectors do, modern ones as users do.
 * @param age in years, where known
 */
export function mainScale(construction: GradeQuestion['construction'], age?: number | null): ScaleId {
  if (construction === 'bayonet') return 'finish';
  if (construction === 'slipjoint' || (age ?? 0) >= COLLECTED_FROM_YEARS) return 'collector';
  if (construction === 'fixed' && age == null) return 'collector';
  return 'user';
}

/** The middle of a grade's band in index points, for a price row that gives only the word. */
export function middleOfGrade(
  scaleId: string,
  grade: string,
  scales: RuleSet['scales'] = SCALES,
): number | undefined {
  const scale = scales.find((s) => s.id === scaleId);
  const at = scale?.grades.findIndex((g) => g.grade === grade) ?? -1;
  const band = scale?.grades[at];
  if (!scale || !band) return undefined;
  const upper = scale.grades[at - 1]?.from ?? 100;
  return (band.from + upper) / 2;
}
