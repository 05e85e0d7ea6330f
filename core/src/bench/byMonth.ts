/**
 * The likelihood of a row month by month: every part whole or exchanged with all that was seen of it, dated customs and
 * stamps included. Exact where the quick pass takes each date by itself, and so dear that only leading rows get it.
 */
import type { ReferenceIndex } from './compile.ts';
import { exchangeOf, type PartWeight } from './parts.ts';
import type { ObservationEvidence } from './observationEvidence.ts';

/** A part with dated observations among its signs. */
interface DatedPartOf {
  readonly part: PartWeight;
  readonly dated: readonly { classOf: Int32Array; factors: readonly Float64Array[] }[];
  /** per group: what the part would show as a donor's, the donor's own months included */
  readonly donors: Float64Array;
}

/**
 * @param alone per sign: a row's mean of its date factor over its months, 1 where the date says nothing
 * @returns ln of the likelihood of a row, its months included; undefined where no observation is dated
 */
export function byMonth(
  index: ReferenceIndex,
  signs: readonly ObservationEvidence[],
  parts: readonly PartWeight[],
  alone: readonly (((row: number) => number) | undefined)[],
  donorMeans: (whole: Float64Array) => Float64Array,
): ((row: number) => number) | undefined {
  const split = parts.map((part): DatedPartOf | PartWeight => {
    const dated = part.signs.flatMap((i) => {
      const own = signs[i]?.dated;
      return own ? [{ classOf: own.classOf, factors: own.unmixed ?? own.factors }] : [];
    });
    if (dated.length === 0) return part;
    const shown = part.whole.slice();
    for (const i of part.signs) {
      const of = alone[i];
      if (of) for (let r = 0; r < shown.length; r++) shown[r] = (shown[r] ?? 0) * of(r);
    }
    return { part, dated, donors: donorMeans(shown) };
  });
  const dated = split.filter((p): p is DatedPartOf => 'dated' in p);
  const plain = split.filter((p): p is PartWeight => !('dated' in p));
  if (dated.length === 0) return undefined;
  const { groupOf, judgedAs } = index;

  const over = (r: number, months: number): number => {
    const g = groupOf[r] ?? 0;
    const terms = dated.map(({ part, dated: of, donors }) => {
      const s = exchangeOf(part, r);
      return {
        own: (1 - s) * (part.whole[r] ?? 0),
        donor: s * (donors[g] ?? 0),
        factors: of.flatMap((d) => d.factors[d.classOf[r] ?? -1] ?? []),
      };
    });
    const { madeAt, madeFrom, madeTo, madeShare } = index;
    let sum = 0;
    for (let i = madeAt[months] ?? 0, end = madeAt[months + 1] ?? 0; i < end; i++) {
      const from = madeFrom[i] ?? 0;
      const to = madeTo[i] ?? 0;
      let share = 0;
      for (let m = from; m <= to; m++) {
        let p = 1;
        for (const { own, donor, factors } of terms) {
          let part = own;
          for (const factor of factors) part *= factor[m] ?? 0;
          p *= part + donor;
        }
        share += p;
      }
      sum += ((madeShare[i] ?? 0) * share) / (to - from + 1);
    }
    return sum;
  };

  return (r) => {
    let log = 0;
    for (const part of plain) {
      const s = exchangeOf(part, r);
      log += Math.log(
        Math.max((1 - s) * (part.whole[r] ?? 0) + s * (part.donors[groupOf[r] ?? 0] ?? 0), 1e-300),
      );
    }
    // an imitation shows what its original showed, stamps and customs alike
    return log + Math.log(Math.max(over(r, judgedAs[r] ?? r), 1e-300));
  };
}
