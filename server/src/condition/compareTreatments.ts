/** Leave it or treat it, keep it sealed or open it: the grade of each way, and what such a piece would bring. */
import {
  basePart,
  materialAdvice,
  OPENING,
  treatmentOptions,
  type Finding,
  type Outcome,
  type TreatmentKind,
  type TreatmentOption,
  type TreatmentPlan,
} from '@jutbank/core/condition';
import { addMoney, money, shareOfMoney, subtractMoney, type Money } from '@jutbank/core/money';
import type { PricedTreatment, ComparedTreatment } from '@jutbank/contract/condition';
import type { EstimateAnswer } from '@jutbank/contract/market';
import type { Queries } from '../db/index.ts';
import { gradeQuestion, isSealed, type PieceRecord, type Readers } from '../pieces/index.ts';
import { materialsOf, type SeenMaterial } from './materials.ts';
import { pricingSettingsOf } from '../shop/index.ts';

/** Every way, leaving it first; of a sealed piece only whether to open it, for nothing can be done to it before. */
export const compareTreatments = (
  db: Queries,
  readers: Readers,
  record: PieceRecord,
): Promise<PricedTreatment[]> =>
  isSealed(record) ? weighOpening(db, readers, record) : weighTreatments(readers, record);

async function weighTreatments(readers: Readers, record: PieceRecord): Promise<PricedTreatment[]> {
  const [{ made }, index] = await Promise.all([readers.assess(record), readers.library.index()]);
  const materials = materialsOf(index, record);
  const options = treatmentOptions(gradeQuestion(record, made), await readers.rules.inUse());
  const known = new Map<string, Money | null>();
  const way = async ({ findings, completeness, grade }: Outcome): Promise<ComparedTreatment> => {
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
  const weighed: PricedTreatment[] = [];
  for (const option of options) {
    const done = await way(option.done);
    const failed = option.failed ? await way(option.failed) : null;
    weighed.push({
      plan: withAdvice(option, record.findings, materials),
      sealed: false,
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

/** On a handle or a sheath, and with whatever runs into one: what its material asks for. */
const ON_MATERIAL: readonly string[] = ['scales', 'grip', 'sheath', 'frog'];
const RUNS: readonly TreatmentKind[] = ['degrease', 'oil', 'remove-rust'];
function withAdvice(
  { plan, removes }: TreatmentOption,
  findings: readonly Finding[],
  materials: readonly SeenMaterial[],
): TreatmentPlan | null {
  if (!plan) return null;
  const parts = removes.map((i) => basePart(findings[i]?.part ?? ''));
  const advice = materials
    .filter((m) => ON_MATERIAL.includes(m.part) && (RUNS.includes(plan.kind) || parts.includes(m.part)))
    .flatMap((m) => materialAdvice(m.label, m.vapour) ?? []);
  return { ...plan, cautions: [...plan.cautions, ...new Set(advice)] };
}

/**
 * Keep sealed: what such a piece would bring, with what a seal brings more. Open: without that, at worse odds of finding
 * something wrong, but knowing which variant it is: Σ p·estimate instead of the middle of the mixture.
 */
async function weighOpening(db: Queries, readers: Readers, record: PieceRecord): Promise<PricedTreatment[]> {
  const { grade } = await readers.assess(record);
  const { sealed } = (await pricingSettingsOf(db)).settings;
  const { grades, conditionIndex } = grade;
  const worth = (await readers.worth(record))?.answer;
  const way = (estimate: Money | undefined): ComparedTreatment => ({
    index: conditionIndex,
    grades: grades.map((g) => ({ scale: g.scale, grade: g.grade })),
    estimate: estimate ?? null,
  });
  const kept = worth && shareOfMoney(worth.estimate, 1 + sealed.premiumPct / 100);
  const known = worth && expectedOf(worth);
  const failure = sealed.faultPct / 100;
  const done = way(known);
  const failed = failure > 0 ? way(known && shareOfMoney(known, 1 - sealed.lossPct / 100)) : null;
  const leave = way(kept);
  const nothing = { removes: [], adds: [], expectedIndex: conditionIndex };
  return [
    {
      ...nothing,
      plan: null,
      sealed: true,
      failure: 0,
      done: leave,
      failed: null,
      newDisclosures: [],
      gain: kept ? money(0, kept.currency) : null,
    },
    {
      ...nothing,
      plan: OPENING,
      sealed: true,
      failure,
      done,
      failed,
      newDisclosures: ['The package was opened.'],
      gain: gainOf(OPENING.cost, failure, done, failed, leave),
    },
  ];
}

/** What the piece brings on average once it is known which it is. */
function expectedOf({ byVariant, estimate }: EstimateAnswer): Money {
  const total = byVariant.reduce((sum, v) => sum + v.probability, 0);
  return byVariant.reduce(
    (sum, v) => addMoney(sum, shareOfMoney(v.estimate, v.probability / total)),
    money(0, estimate.currency),
  );
}

/** (1−p)·done + p·failed − cost − now, rounded once at the end. */
function gainOf(
  cost: string,
  failure: number,
  done: ComparedTreatment,
  failed: ComparedTreatment | null,
  now: ComparedTreatment | undefined,
): Money | null {
  if (!done.estimate || !now?.estimate || (failed && !failed.estimate)) return null;
  const { currency } = done.estimate;
  const worst = failed?.estimate ?? done.estimate;
  const expected = addMoney(shareOfMoney(done.estimate, 1 - failure), shareOfMoney(worst, failure));
  return subtractMoney(subtractMoney(expected, now.estimate), money(cost, currency));
}
