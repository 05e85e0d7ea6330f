/** The part of a fitted market that speaks of some makers: what a phone can carry. */
import type { MarketReference } from './comparable.ts';
import type { Column } from './columns.ts';
import type { FittedMarket } from './fitted.ts';

/**
 * The same market with the coefficients of other makers and their patterns left out. What is asked about these makers
 * is answered exactly as the whole market answers it, for a price touches no coefficient of another maker; what is
 * asked about others must not be asked of it.
 */
export function marketForMakers(
  fitted: FittedMarket,
  reference: MarketReference,
  makers: ReadonlySet<string>,
): FittedMarket {
  const ofMakers = (pattern: string | undefined): boolean =>
    makers.has(reference.patterns.get(pattern ?? '')?.maker ?? '');
  const { plan } = fitted;
  const kept = indicesOf(plan.columns, (column) => speaksOf(column, makers, ofMakers));
  const place = new Map(kept.map((from, to) => [from, to]));
  const variants = indicesOf(plan.variants, (id) => ofMakers(reference.variants.get(id)?.pattern));
  const listStart = new Int32Array(variants.length + 1);
  const list: number[] = [];
  const cross: number[] = [];
  variants.forEach((v, n) => {
    for (let at = fitted.listStart[v] ?? 0; at < (fitted.listStart[v + 1] ?? 0); at++) {
      const column = place.get(fitted.list[at] ?? -1);
      if (column === undefined) continue;
      list.push(column);
      cross.push(fitted.cross[at] ?? 0);
    }
    listStart[n + 1] = list.length;
  });
  const p = plan.columns.length;
  const covariance = new Float64Array(kept.length ** 2);
  kept.forEach((j, row) =>
    kept.forEach((k, column) => {
      covariance[row * kept.length + column] = fitted.covariance[j * p + k] ?? 0;
    }),
  );
  return {
    ...fitted,
    plan: {
      ...plan,
      columns: kept.flatMap((j) => plan.columns[j] ?? []),
      walks: plan.walks.flatMap((walk) => {
        const start = place.get(walk.start);
        return start === undefined ? [] : [{ ...walk, start }];
      }),
      variants: variants.flatMap((v) => plan.variants[v] ?? []),
    },
    theta: Float64Array.from(kept, (j) => fitted.theta[j] ?? 0),
    covariance,
    effect: Float64Array.from(variants, (v) => fitted.effect[v] ?? 0),
    diagonal: Float64Array.from(variants, (v) => fitted.diagonal[v] ?? 0),
    ownSales: Int32Array.from(variants, (v) => fitted.ownSales[v] ?? 0),
    listStart,
    list: Int32Array.from(list),
    cross: Float64Array.from(cross),
    asked: Object.fromEntries(
      Object.entries(fitted.asked).filter(([key]) => {
        const [of, id = ''] = key.split(' ');
        return ofMakers(of === 'variant' ? reference.variants.get(id)?.pattern : id);
      }),
    ),
    excluded: fitted.excluded.filter((e) => ofMakers(e.pattern)),
    suspects: [],
  };
}

const MAKER_TIDE = 'maker tide ';

function speaksOf(
  { family, name }: Column,
  makers: ReadonlySet<string>,
  ofMakers: (pattern: string) => boolean,
): boolean {
  if (family === 'maker') return makers.has(name);
  if (family === 'pattern') return ofMakers(name);
  return !family.startsWith(MAKER_TIDE) || makers.has(family.slice(MAKER_TIDE.length));
}

function indicesOf<T>(items: readonly T[], keep: (item: T) => boolean): number[] {
  return items.flatMap((item, i) => (keep(item) ? [i] : []));
}
