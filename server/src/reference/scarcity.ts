/** Scarcity of variants, with what the shop's own comparables tell of each. */
import { scarcityOf } from '@jutbank/core/reference';
import type { ReferenceIndex, Row } from '@jutbank/core/bench';
import type { VariantDetail } from '@jutbank/contract/reference';
import { todayIso } from '../clock/index.ts';
import { rowsBy, type Queries } from '../db/index.ts';
import { salesOfPatterns } from './queries.ts';

/** The index from which a collector calls a piece very good. */
const VERY_GOOD = 75;

export type ScarcityOfVariant = VariantDetail['scarcity'];

/** Of many variants, in one query for the sales of all their patterns. */
export async function scarcityOfVariants(
  db: Queries,
  index: ReferenceIndex,
  rows: readonly Row[],
): Promise<Map<string, ScarcityOfVariant>> {
  const year = Number(todayIso().slice(0, 4));
  const sales = rowsBy(
    await salesOfPatterns(db, [...new Set(rows.map((row) => row.pattern.id))]),
    (sale) => sale.pattern_id,
  );
  return new Map(
    rows.map(({ variant, pattern }) => {
      const ofPattern = sales.get(pattern.id) ?? [];
      const own = ofPattern.filter((s) => s.variant_id === variant.id);
      const indexOf = (list: typeof ofPattern) =>
        list.flatMap((s) => (s.condition_index === null ? [] : [Number(s.condition_index)]));
      const years = ofPattern.length === 0 ? 0 : year - Math.min(...ofPattern.map((s) => Number(s.year))) + 1;
      const scarcity = scarcityOf({
        variant,
        pattern,
        variants: index.rows.filter((r) => r.pattern === pattern).map((r) => r.variant),
        year,
        condition: { atLeast: VERY_GOOD, ofVariant: indexOf(own), ofClass: indexOf(ofPattern) },
      });
      return [variant.id, { ...scarcity, seen: { count: own.length, years } }];
    }),
  );
}

export async function scarcityOfVariant(
  db: Queries,
  index: ReferenceIndex,
  row: Row,
): Promise<ScarcityOfVariant> {
  const scarcity = (await scarcityOfVariants(db, index, [row])).get(row.variant.id);
  if (!scarcity) throw new Error(`no scarcity of ${row.variant.id}`);
  return scarcity;
}
