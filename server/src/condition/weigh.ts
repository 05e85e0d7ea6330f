/** Leave it or treat it: the grade of each way by the rules in use, and what such a piece would bring. */
import { treatmentOptions, type Outcome } from '@jutbank/core/condition';
import { addMoney, money, shareOfMoney, subtractMoney, type Money } from '@jutbank/core/money';
import type { WeighedOption, WeighedWay } from '@jutbank/contract/condition';
import { gradeQuestion, identifyRecord, madeSpan, type PieceRecord, type Readers } from '../intake/index.ts';

export async function weighTreatments(readers: Readers, record: PieceRecord): Promise<WeighedOption[]> {
  const index = await readers.library.index();
  const made = madeSpan(index, record, identifyRecord(index, record));
  const options = treatmentOptions(gradeQuestion(record, made), await readers.rules.inUse());
  const known = new Map<string, Money | null>();
  const way = async ({ findings, completeness, grade }: Outcome): Promise<WeighedWay> => {
    const key = JSON.stringify([findings, completeness]);
    let estimate = known.get(key);
    if (estimate === undefined) {
      const worth = await readers.worth({ ...record, findings, completeness, inspected: true });
      estimate = worth?.answer.estimate ?? null;
      known.set(key, estimate);
    }
    return {
      index: grade.conditionIndex,
      grades: grade.grades.map((g) => ({ scale: g.scale, grade: g.grade })),
      estimate,
    };
  };
  const leave = options[0] && (await way(options[0].done));
  const weighed: WeighedOption[] = [];
  for (const option of options) {
    const done = await way(option.done);
    const failed = option.failed ? await way(option.failed) : null;
    weighed.push({
      plan: option.plan ?? null,
      removes: [...option.removes],
      adds: [...option.adds],
      failure: option.failure,
      done,
      failed,
      expectedIndex: option.expectedIndex,
      newDisclosures: [...option.newDisclosures],
      gain: gainOf(option.plan?.cost ?? '0', option.failure, done, failed, leave),
    });
  }
  return weighed;
}

/** (1−p)·done + p·failed − cost − now, rounded once at the end. */
function gainOf(
  cost: string,
  failure: number,
  done: WeighedWay,
  failed: WeighedWay | null,
  now: WeighedWay | undefined,
): Money | null {
  if (!done.estimate || !now?.estimate || (failed && !failed.estimate)) return null;
  const { currency } = done.estimate;
  const worst = failed?.estimate ?? done.estimate;
  const expected = addMoney(shareOfMoney(done.estimate, 1 - failure), shareOfMoney(worst, failure));
  return subtractMoney(subtractMoney(expected, now.estimate), money(cost, currency));
}
