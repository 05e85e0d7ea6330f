/** What a piece would bring: a predictive range, and the grid by which a person can check it. */
import type { Comparable, EstimateSubject, VenueKind } from './comparable.ts';
import { describeSubject, type Line, type Sparse } from './columns.ts';
import { halfWidth, t90 } from './interval.ts';
import { sliceOf } from './calibrate.ts';
import {
  median,
  medianOfSorted,
  MOST_ROWS,
  NOTHING_GATHERED,
  type Evidence,
  type GatheredPrices,
  type PlainSale,
} from './evidence.ts';
import type { Market, PricedRow } from './market.ts';
import { varianceOf } from './predict.ts';
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
  /** whether some sale near it bears on the figure; without one it is a guess by kind and no headline */
  readonly supported: boolean;
  readonly notes: readonly string[];
}

/**
 * @param day of the estimate; nothing later may be among the evidence or in the fit
 * @param fixed the shop's own percentages, for the plain way beside it
 */
export function estimateWorth(
  market: Market,
  evidence: Evidence,
  subject: EstimateSubject,
  venueKind: VenueKind,
  day: number,
  fixed: FixedPercentages = FIXED_PERCENTAGES,
): Estimate {
  const { settings } = market;
  const given = subject.variants.reduce((sum, v) => sum + v.probability, 0);
  const parts: { variant: string | undefined; probability: number }[] = [
    ...subject.variants,
    ...(1 - given > 1e-9 ? [{ variant: undefined, probability: 1 - given }] : []),
  ];
  const grids = parts.map((part) =>
    gridFor(
      market,
      evidence.own.get(part.variant ?? '') ?? NOTHING_GATHERED,
      subject,
      part.variant,
      venueKind,
      day,
    ),
  );
  const byVariant = parts.map((part, i): VariantEstimate => {
    const grid = grids[i] ?? raise();
    const { location, scale, df } = grid.predictive;
    const reach = scale * studentQuantile(0.5 + settings.share / 2, df);
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
  const supported = isSupported(market, evidence, subject);
  const excluded = evidence.excluded.map(({ sale, reason }): GridRow => ({
    sale,
    converted: NaN,
    adjusted: NaN,
    weight: 0,
    adjustments: [],
    excluded: reason,
  }));
  return {
    estimate: at(0.5),
    low: at((1 - settings.share) / 2),
    high: at((1 + settings.share) / 2),
    level: settings.share,
    byVariant,
    comparables: [...listed, ...excluded],
    rest: { ...rest, count: market.fitted.prices - listed.length },
    methods: [
      { name: 'adjustment-grid', estimate: gridEstimate },
      ...plainMethods(market, evidence, subject, fixed),
    ],
    thin,
    supported,
    notes: notesOn(evidence, thin, effective, 1 - given, supported),
  };
}

/** Sales of the same maker and kind that stand in for one of the pattern itself. */
const NEAR_ENOUGH = 3;

/**
 * No price from nothing: some sale must be of the pattern or of one of the variants it may be, or a few of the same
 * maker and kind of thing.
 */
function isSupported(market: Market, evidence: Evidence, subject: EstimateSubject): boolean {
  if (evidence.pattern.sold.length > 0) return true;
  if ([...evidence.own.values()].some((prices) => prices.sold.length > 0)) return true;
  const { fitted, reference } = market;
  const maker = reference.patterns.get(subject.pattern)?.maker;
  const kinds = new Set(subject.variants.flatMap((v) => reference.variants.get(v.variant)?.kind ?? []));
  if (kinds.size === 0) kinds.add('production');
  let near = 0;
  fitted.plan.variants.forEach((id, v) => {
    const other = reference.variants.get(id);
    if (!other || !kinds.has(other.kind)) return;
    if (reference.patterns.get(other.pattern)?.maker === maker) near += fitted.ownSales[v] ?? 0;
  });
  return near >= NEAR_ENOUGH;
}

function raise(): never {
  throw new Error('a variant without its grid');
}

interface Grid {
  readonly rows: readonly GridRow[];
  /** what pattern, maker and attributes say, with the own prices that are not listed, and how much it weighs */
  readonly restLog: number;
  readonly restWeight: number;
  readonly effective: number;
  readonly predictive: VariantEstimate['predictive'];
}

function gridFor(
  market: Market,
  own: GatheredPrices,
  subject: EstimateSubject,
  variant: string | undefined,
  venueKind: VenueKind,
  day: number,
): Grid {
  const { fitted } = market;
  const described = describeSubject(subject, variant, venueKind, day);
  const x = market.describe(described);
  const without = market.withoutVariant(x);
  const { total } = own;
  const keep = total / (total + 1 / fitted.sd.variant ** 2);
  const rows = own.heaviest.map((row) => gridRow(market, row, x, (keep * row.weight) / total));
  const listed = rows.reduce((sum, row) => sum + row.weight * Math.log(row.adjusted), 0);
  const restWeight = 1 - rows.reduce((sum, row) => sum + row.weight, 0);
  // all own prices listed: the grid gives the figure by itself; otherwise the fit does, and the rest is what remains
  const location =
    own.count === rows.length
      ? listed + (1 - keep) * without
      : without + (x.variant < 0 ? 0 : (fitted.effect[x.variant] ?? 0));
  const restLog = own.count === rows.length ? without : (location - listed) / restWeight;
  // a variant that was never sold may lie anywhere about its pattern; one that is not listed, farther off
  const unlisted = x.variant >= 0 ? 0 : (variant === undefined ? 2 : 1) * fitted.sd.variant ** 2;
  const variance = varianceOf(fitted, x) + x.beyondVariance + unlisted + fitted.sd.venue ** 2;
  const { df } = fitted.noise;
  const sales = x.variant < 0 ? 0 : (fitted.ownSales[x.variant] ?? 0);
  const stretch = (fitted.stretch[sliceOf(sales)] ?? 1) * market.settings.houseStretch;
  const scale = (stretch * halfWidth(market.scale(described), variance, df)) / t90(df);
  return {
    rows,
    restLog,
    restWeight,
    effective: own.squares > 0 ? total ** 2 / own.squares : 0,
    predictive: { kind: 'log-student-t', location, scale, df },
  };
}

function gridRow(market: Market, row: PricedRow, subject: Sparse, weight: number): GridRow {
  const { plan, theta } = market.fitted;
  const change = new Map<Line, number>();
  const add = (line: Line, log: number) => change.set(line, (change.get(line) ?? 0) + log);
  const count = (x: Sparse, sign: number) => {
    x.columns.forEach((j, n) => {
      const column = plan.columns[j];
      if (column) add(column.line, sign * (x.values[n] ?? 0) * (theta[j] ?? 0));
    });
    for (const { line, log } of x.untouched) add(line, sign * log);
  };
  count(subject, 1);
  count(row.x, -1);
  const lines = [...change].filter(([, log]) => Math.abs(log) > 5e-5);
  // what was paid on top and what of it was carriage are lines as well: paid × rate is where a person begins to check
  const premium = row.sale.buyerPremiumPct ?? 0;
  const carriage = 100 * (row.converted / (row.stated * (1 + premium / 100)) - 1);
  const adjustments: Adjustment[] = [
    ...(premium > 0 ? [{ name: 'buyer premium', percent: premium }] : []),
    ...(Math.abs(carriage) > 0.005 ? [{ name: 'postage', percent: carriage }] : []),
    ...lines.map(([name, log]) => ({ name, percent: 100 * (Math.exp(log) - 1) })),
  ];
  const adjusted = adjustments.reduce((price, a) => price * (1 + a.percent / 100), row.stated);
  return { sale: row.sale, converted: row.stated, adjusted, weight, adjustments, excluded: null };
}

/** A point of the probability-weighted mixture, on the log scale. */
export function mixtureQuantile(
  parts: readonly Pick<VariantEstimate, 'probability' | 'predictive'>[],
  share: number,
): number {
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

/** A shop's plain percentages: per point of the index, for box and papers, for an alteration. */
export interface FixedPercentages {
  readonly perPoint: number;
  readonly box: number;
  readonly papers: number;
  readonly altered: number;
}
export const FIXED_PERCENTAGES: FixedPercentages = { perPoint: 1.2, box: 10, papers: 5, altered: -20 };

function plainMethods(
  market: Market,
  evidence: Evidence,
  subject: EstimateSubject,
  fixed: FixedPercentages,
): { name: 'fixed-percentages' | 'median-of-raw'; estimate: number }[] {
  const likely = subject.variants.reduce<{ variant: string; probability: number } | undefined>(
    (best, v) => (best && best.probability >= v.probability ? best : v),
    undefined,
  );
  const known = (prices: GatheredPrices | undefined) =>
    prices && prices.sold.length > 0 ? prices : undefined;
  const used =
    known(evidence.own.get(likely?.variant ?? '')) ??
    known(evidence.pattern) ??
    [...evidence.own.values()].find((prices) => prices.sold.length > 0) ??
    NOTHING_GATHERED;
  if (used.sold.length === 0) return [];
  const usual = 100 * market.fitted.plan.usual;
  const [box, papers] = [subject.box === 'original', subject.papers === 'original'];
  const percent = (sale: PlainSale): number =>
    fixed.perPoint * ((subject.conditionIndex ?? usual) - (sale.conditionIndex ?? usual)) +
    fixed.box * (Number(box) - Number(sale.box)) +
    fixed.papers * (Number(papers) - Number(sale.papers)) +
    fixed.altered * (Number(subject.alterations.length > 0) - Number(sale.altered));
  return [
    {
      name: 'fixed-percentages',
      estimate: median(used.sold.map((sale) => sale.converted * Math.max(0.1, 1 + percent(sale) / 100))),
    },
    { name: 'median-of-raw', estimate: medianOfSorted(used.soldPrices) },
  ];
}

function notesOn(
  evidence: Evidence,
  thin: boolean,
  effective: number,
  unlisted: number,
  supported: boolean,
): string[] {
  const notes: string[] = [];
  if (!supported)
    notes.push(
      'No sale near it is known: neither of its pattern nor enough of its maker and kind. The range is a guess by kind; a sale of anything like it would make it a figure.',
    );
  else if (thin)
    notes.push(
      effective < 0.5
        ? 'No sale of this variant is known; the figure leans on its pattern, maker and kind.'
        : `Few sales of this variant are known (about ${effective.toFixed(1)} count), so the range is wide.`,
    );
  if (unlisted > 0.02)
    notes.push(`${Math.round(unlisted * 100)} in 100 is priced as a variant not in the reference.`);
  const noRate = evidence.excluded.filter((row) => row.reason === 'no-rate').length;
  if (noRate > 0) notes.push(`${noRate} sales are left out because no exchange rate is known for their day.`);
  return notes;
}
