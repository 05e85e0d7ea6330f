/** What a piece would bring: a predictive range, and the grid by which a person can check it. */
import type { Comparable, EstimateSubject, VenueKind } from './comparable.ts';
import { describeSubject, type Line, type Sparse } from './design.ts';
import { type FittedRow, type Market } from './fit.ts';
import { bisect, studentCdf, studentQuantile } from './studentT.ts';

export interface Adjustment {
  readonly name: string;
  readonly percent: number;
}
export interface GridRow {
  readonly sale: Comparable;
  /** base currency */
  readonly converted: number;
  readonly adjusted: number;
  readonly weight: number;
  readonly adjustments: readonly Adjustment[];
  readonly excluded: string | null;
}
export interface VariantEstimate {
  /** null: an unlisted variant */
  readonly variant: string | null;
  readonly probability: number;
  readonly estimate: number;
  readonly low: number;
  readonly high: number;
  readonly effectiveComparables: number;
  readonly predictive: {
    readonly kind: 'log-student-t';
    readonly location: number;
    readonly scale: number;
    readonly df: number;
  };
}
/** All amounts in the base currency at the rate of `asOf`; the caller converts. */
export interface Estimate {
  readonly estimate: number;
  readonly low: number;
  readonly high: number;
  readonly level: number;
  readonly byVariant: readonly VariantEstimate[];
  readonly comparables: readonly GridRow[];
  readonly rest: { readonly weight: number; readonly adjusted: number; readonly count: number };
  readonly methods: readonly {
    readonly name: 'adjustment-grid' | 'fixed-percentages' | 'median-of-raw';
    readonly estimate: number;
  }[];
  readonly thin: boolean;
  readonly notes: readonly string[];
}

const MOST_ROWS = 50;

export function estimateWorth(
  market: Market,
  subject: EstimateSubject,
  venueKind: VenueKind,
  day: number,
): Estimate {
  const { settings } = market;
  const given = subject.variants.reduce((sum, v) => sum + v.probability, 0);
  const parts: { variant: string | undefined; probability: number }[] = [
    ...subject.variants,
    ...(1 - given > 1e-9 ? [{ variant: undefined, probability: 1 - given }] : []),
  ];
  const grids = parts.map((part) => gridFor(market, subject, part.variant, venueKind, day));
  const byVariant = parts.map((part, i): VariantEstimate => {
    const grid = grids[i] ?? raise();
    const { location, scale, df } = grid.predictive;
    const reach = scale * studentQuantile(0.5 + settings.level / 2, df);
    return {
      variant: part.variant ?? null,
      probability: part.probability,
      estimate: Math.exp(location),
      low: Math.exp(location - reach),
      high: Math.exp(location + reach),
      effectiveComparables: grid.effective,
      predictive: grid.predictive,
    };
  });
  const at = (share: number) => Math.exp(mixtureQuantile(byVariant, share));
  const comparables = grids
    .flatMap((grid, i) =>
      grid.rows.map((row) => ({ ...row, weight: row.weight * (parts[i]?.probability ?? 0) })),
    )
    .sort((a, b) => b.weight - a.weight);
  const listed = comparables.slice(0, MOST_ROWS);
  const rest = restOf(parts, grids, comparables.slice(MOST_ROWS));
  const gridEstimate = Math.exp(
    listed.reduce((sum, row) => sum + row.weight * Math.log(row.adjusted), 0) +
      rest.weight * Math.log(rest.adjusted),
  );
  const effective = parts.reduce((sum, part, i) => sum + part.probability * (grids[i]?.effective ?? 0), 0);
  const thin = effective < settings.thinBelow;
  const excluded = market.excluded
    .filter((row) => row.sale.pattern === subject.pattern)
    .map((row): GridRow => ({
      sale: row.sale,
      converted: NaN,
      adjusted: NaN,
      weight: 0,
      adjustments: [],
      excluded: row.reason,
    }));
  return {
    estimate: at(0.5),
    low: at((1 - settings.level) / 2),
    high: at((1 + settings.level) / 2),
    level: settings.level,
    byVariant,
    comparables: [...listed, ...excluded],
    rest: { ...rest, count: market.rows.length - listed.length },
    methods: [{ name: 'adjustment-grid', estimate: gridEstimate }, ...plainMethods(market, subject)],
    thin,
    notes: notesOn(market, subject, thin, effective, 1 - given),
  };
}

function raise(): never {
  throw new Error('a variant without its grid');
}

interface Grid {
  readonly rows: readonly GridRow[];
  /** what pattern, maker and attributes say, and how much it weighs */
  readonly restLog: number;
  readonly restWeight: number;
  readonly effective: number;
  readonly predictive: VariantEstimate['predictive'];
}

function gridFor(
  market: Market,
  subject: EstimateSubject,
  variant: string | undefined,
  venueKind: VenueKind,
  day: number,
): Grid {
  const { design, theta, settings } = market;
  const x = design.describe(describeSubject(subject, variant, venueKind, day));
  const own = variant === undefined ? undefined : design.variantIndex(variant);
  const restLog = withoutVariant(x, own, theta, design);
  const rows = own === undefined ? [] : market.rows.filter((row) => row.sale.variant === variant);
  const total = rows.reduce((sum, row) => sum + row.weight, 0);
  const keep = total / (total + 1 / market.variantSd ** 2);
  const grid = rows.map((row) => gridRow(market, row, x, own, (keep * row.weight) / total));
  const location =
    grid.reduce((sum, row) => sum + row.weight * Math.log(row.adjusted), 0) + (1 - keep) * restLog;
  const squares = rows.reduce((sum, row) => sum + row.weight ** 2, 0);
  const df = settings.degreesOfFreedom + Math.min(20, rows.length / 2);
  const unlisted =
    variant === undefined ? 2 * market.variantSd ** 2 : own === undefined ? market.variantSd ** 2 : 0;
  const uncertainty = quadratic(x, market) + unlisted + settings.venueSd ** 2;
  return {
    rows: grid,
    restLog,
    restWeight: 1 - keep,
    effective: squares > 0 ? total ** 2 / squares : 0,
    predictive: { kind: 'log-student-t', location, scale: Math.sqrt(market.noise ** 2 + uncertainty), df },
  };
}

/** Coefficients that a description touches beyond the fitted ones keep their prior mean. */
const coefficient = (market: Market['design'], theta: Float64Array, j: number) =>
  theta[j] ?? market.coefficients[j]?.prior.mean ?? 0;

function withoutVariant(
  x: Sparse,
  own: number | undefined,
  theta: Float64Array,
  design: Market['design'],
): number {
  return x.reduce((sum, [j, value]) => (j === own ? sum : sum + value * coefficient(design, theta, j)), 0);
}

function gridRow(
  market: Market,
  row: FittedRow,
  subject: Sparse,
  own: number | undefined,
  weight: number,
): GridRow {
  const { design, theta } = market;
  const change = new Map<Line, number>();
  const count = (x: Sparse, sign: number) => {
    for (const [j, value] of x) {
      const line = design.coefficients[j]?.line ?? 'level';
      if (j !== own) change.set(line, (change.get(line) ?? 0) + sign * value * coefficient(design, theta, j));
    }
  };
  count(subject, 1);
  count(row.x, -1);
  const lines = [...change].filter(([, log]) => Math.abs(log) > 5e-5);
  const adjustments = lines.map(([name, log]) => ({ name, percent: 100 * (Math.exp(log) - 1) }));
  const adjusted = adjustments.reduce((price, a) => price * (1 + a.percent / 100), row.converted);
  return { sale: row.sale, converted: row.converted, adjusted, weight, adjustments, excluded: null };
}

function quadratic(x: Sparse, market: Market): number {
  let sum = 0;
  for (const [j, xj] of x)
    for (const [k, xk] of x) {
      const fitted = j < market.covariance.rows && k < market.covariance.rows;
      const v = fitted
        ? market.covariance.get(j, k)
        : j === k
          ? (market.design.coefficients[j]?.prior.sd ?? 0) ** 2
          : 0;
      sum += xj * xk * v;
    }
  return Math.max(0, sum);
}

/** A point of the probability-weighted mixture, on the log scale. */
function mixtureQuantile(parts: readonly VariantEstimate[], share: number): number {
  const total = parts.reduce((sum, part) => sum + part.probability, 0);
  const below = (at: number) =>
    parts.reduce(
      (sum, { probability, predictive }) =>
        sum +
        (probability / total) * studentCdf((at - predictive.location) / predictive.scale, predictive.df),
      0,
    );
  const locations = parts.map((p) => p.predictive.location);
  const widest = Math.max(...parts.map((p) => p.predictive.scale)) * 60;
  return bisect((at) => below(at) - share, Math.min(...locations) - widest, Math.max(...locations) + widest);
}

function restOf(
  parts: readonly { probability: number }[],
  grids: readonly Grid[],
  unlisted: readonly GridRow[],
): { weight: number; adjusted: number } {
  let weight = unlisted.reduce((sum, row) => sum + row.weight, 0);
  let log = unlisted.reduce((sum, row) => sum + row.weight * Math.log(row.adjusted), 0);
  grids.forEach((grid, i) => {
    const share = (parts[i]?.probability ?? 0) * grid.restWeight;
    weight += share;
    log += share * grid.restLog;
  });
  return { weight, adjusted: Math.exp(weight > 0 ? log / weight : 0) };
}

const median = (values: readonly number[]): number => {
  const sorted = [...values].sort((a, b) => a - b);
  const middle = sorted.length / 2;
  const [a, b] = [sorted[Math.ceil(middle) - 1], sorted[Math.floor(middle)]];
  return a === undefined || b === undefined ? NaN : (a + b) / 2;
};

/** The shop's plain percentages: per index point, for what is missing, for an alteration. */
const FIXED = { perPoint: 1.2, box: 10, papers: 5, altered: -20 };

function plainMethods(
  market: Market,
  subject: EstimateSubject,
): { name: 'fixed-percentages' | 'median-of-raw'; estimate: number }[] {
  const likely = subject.variants.reduce<{ variant: string; probability: number } | undefined>(
    (best, v) => (best && best.probability >= v.probability ? best : v),
    undefined,
  );
  const sold = market.rows.filter(
    (row) => row.sale.priceKind === 'sold' && row.sale.pattern === subject.pattern,
  );
  const same = sold.filter((row) => row.sale.variant === likely?.variant);
  const used = same.length > 0 ? same : sold;
  if (used.length === 0) return [];
  const { usualCondition } = market.settings;
  const percent = (row: FittedRow): number => {
    const points = (subject.conditionIndex ?? usualCondition) - (row.sale.conditionIndex ?? usualCondition);
    const has = (state: string | undefined) => (state === 'original' ? 1 : 0);
    const altered = (list: readonly string[]) => (list.length > 0 ? 1 : 0);
    return (
      FIXED.perPoint * points +
      FIXED.box * (has(subject.box) - has(row.sale.box)) +
      FIXED.papers * (has(subject.papers) - has(row.sale.papers)) +
      FIXED.altered * (altered(subject.alterations) - altered(row.sale.alterations))
    );
  };
  return [
    {
      name: 'fixed-percentages',
      estimate: median(used.map((row) => row.converted * Math.max(0.1, 1 + percent(row) / 100))),
    },
    { name: 'median-of-raw', estimate: median(used.map((row) => row.converted)) },
  ];
}

function notesOn(
  market: Market,
  subject: EstimateSubject,
  thin: boolean,
  effective: number,
  unlisted: number,
): string[] {
  const notes: string[] = [];
  if (thin)
    notes.push(
      effective < 0.5
        ? 'No sale of this variant is known; the figure leans on its pattern, maker and kind.'
        : `Few sales of this variant are known (about ${effective.toFixed(1)} count), so the range is wide.`,
    );
  if (unlisted > 0.02)
    notes.push(`${Math.round(unlisted * 100)} in 100 is priced as a variant not in the reference.`);
  const noRate = market.excluded.filter(
    (row) => row.reason === 'no-rate' && row.sale.pattern === subject.pattern,
  ).length;
  if (noRate > 0) notes.push(`${noRate} sales are left out because no exchange rate is known for their day.`);
  return notes;
}
