/**
 * Scarcity as a range: made × surviving × in this condition or better (engines.md, "Scarcity"). Never one number, and
 * always what each part rests on.
 */
import { asDay, dayOf, hullOf, periodOf, type Span } from '../dates/index.ts';
import { daysOfYears, madeByYear, patternByYear } from './differences.ts';
import type { Pattern, Variant, VariantKind } from './pack.ts';
import { quantityMade } from './quantityMade.ts';

export interface Range {
  readonly low: number;
  readonly likely: number;
  readonly high: number;
}
export interface ScarcityPart extends Range {
  readonly restsOn: string;
}
export interface Scarcity {
  /** pieces; undefined where nothing lets one count */
  readonly made?: ScarcityPart | undefined;
  /** share 0–1 */
  readonly surviving: ScarcityPart;
  /** pieces still about */
  readonly left?: Range | undefined;
  /** share 0–1 of those in the condition asked for or better */
  readonly inCondition?: ScarcityPart | undefined;
  readonly leftSo?: Range | undefined;
}

/** What the reckoning takes for granted until a shop knows better. */
export const SCARCITY_SETTINGS = {
  /** half of what was made is gone after so many years; things made to be collected are kept */
  halfLife: { usual: 80, kept: 300 },
  /** pseudo-count behind the surviving share: how firmly the half-life is believed */
  survivalWeight: 8,
  /** an estimate may be out by so much either way */
  estimateFactor: 1.4,
  /** pseudo-count behind the share in a condition */
  conditionWeight: 6,
} as const;

const KEPT: ReadonlySet<VariantKind> = new Set(['limited', 'exclusive', 'prototype', 'reissue']);

export interface ScarcityQuestion {
  readonly variant: Variant;
  readonly pattern: Pattern;
  /** every variant of the pattern, this one included */
  readonly variants: readonly Variant[];
  readonly year: number;
  /** condition index 0–100 asked for, and those of the pieces and sales recorded of this variant and its class */
  readonly condition?: {
    readonly atLeast: number;
    readonly ofVariant: readonly number[];
    readonly ofClass: readonly number[];
  };
}

export function scarcityOf(question: ScarcityQuestion): Scarcity {
  const made = madeRange(question);
  const surviving = survivingShare(question);
  const left = made && times(made, surviving);
  const inCondition = conditionShare(question);
  return { made, surviving, left, inCondition, leftSo: left && inCondition && times(left, inCondition) };
}

const times = (a: Range, b: Range): Range => ({
  low: a.low * b.low,
  likely: a.likely * b.likely,
  high: a.high * b.high,
});

const COUNTED_APART: ReadonlySet<VariantKind> = new Set(['counterfeit', 'reproduction', 'licensed-copy']);

/** Nothing is made after the year asked about. */
const upTo = (spans: readonly Span[], year: number): Span[] => {
  const last = asDay(dayOf(year + 1) - 1);
  return spans.flatMap((s) => (s.from <= last ? [{ from: s.from, to: asDay(Math.min(s.to, last)) }] : []));
};

/**
 * What is left of a year's production for a form that was open for a part of it: what other forms are documented to
 * have made that year comes off first, the rest is shared among the undocumented forms by how long each was open. So a
 * year's production is counted once, however many forms overlap.
 */
function sharesOfYear(
  variants: readonly Variant[],
  years: ReadonlyMap<number, number>,
  asOf: number,
): (year: number, open: number) => number {
  const documented = new Map<number, number>();
  const openings = new Map<number, number>();
  const add = (to: Map<number, number>, year: number, n: number) => to.set(year, (to.get(year) ?? 0) + n);
  for (const other of variants) {
    if (COUNTED_APART.has(other.kind)) continue;
    const quantity = quantityMade(other);
    if (quantity !== undefined) {
      for (const { year, made } of madeByYear({
        ...other,
        made: { basis: 'unknown', ...other.made, quantity },
      }))
        add(documented, year, made);
      continue;
    }
    const hull = other.window == null ? undefined : hullOf(upTo(periodOf(other.window).strict, asOf));
    for (const { year, days, of } of hull ? daysOfYears(hull) : []) add(openings, year, days / of);
  }
  return (year, open) => {
    const rest = Math.max(0, (years.get(year) ?? 0) - (documented.get(year) ?? 0));
    // alone in its year a form has it all, for as long as it was open
    return (rest * open) / Math.max(1, openings.get(year) ?? open);
  };
}

function madeRange({ variant, pattern, variants, year: asOf }: ScarcityQuestion): ScarcityPart | undefined {
  const { estimateFactor } = SCARCITY_SETTINGS;
  const quantity = quantityMade(variant);
  if (quantity !== undefined) {
    const told = variant.made?.basis !== 'estimated' && variant.made?.basis !== 'unknown';
    return told
      ? { low: quantity, likely: quantity, high: quantity, restsOn: 'a documented quantity' }
      : {
          low: quantity / estimateFactor,
          likely: quantity,
          high: quantity * estimateFactor,
          restsOn: 'an estimated quantity',
        };
  }
  if (variant.window == null) return undefined;
  const years = new Map(patternByYear(pattern, variants).map((y) => [y.year, y.made]));
  if (years.size === 0) return undefined;
  const shareOf = sharesOfYear(variants, years, asOf);
  const over = (spans: readonly Span[]) => {
    const hull = hullOf(upTo(spans, asOf));
    return (hull ? daysOfYears(hull) : []).reduce(
      (sum, day) => sum + shareOf(day.year, day.days / day.of),
      0,
    );
  };
  const period = periodOf(variant.window);
  const strict = over(period.strict);
  if (strict <= 0) return undefined;
  const lenient = Math.max(strict, over(period.lenient));
  return {
    low: strict / estimateFactor,
    likely: strict,
    high: lenient * estimateFactor,
    restsOn: `the pattern’s yearly figures over its window, shared among the forms of each year${lenient > strict ? ', its soft edges included' : ''}`,
  };
}

/** The surviving share is Beta(w·m, w·(1−m)) around the half-life's share m; its 10, 50 and 90 % points. */
function survivingShare({ variant, year }: ScarcityQuestion): ScarcityPart {
  const { halfLife, survivalWeight } = SCARCITY_SETTINGS;
  // an open window ends today: only what has been made can have been lost
  const span = variant.window == null ? undefined : hullOf(upTo(periodOf(variant.window).strict, year));
  const middle =
    span && Number.isFinite(span.from) && Number.isFinite(span.to)
      ? 1970 + (span.from + span.to) / 2 / 365.25
      : year - 50;
  const kept = KEPT.has(variant.kind);
  const age = Math.max(0, year - middle);
  const share = Math.min(0.98, 2 ** (-age / (kept ? halfLife.kept : halfLife.usual)));
  const [low = 0, likely = share, high = 1] = betaPoints(
    survivalWeight * share,
    survivalWeight * (1 - share),
    [0.1, 0.5, 0.9],
  );
  return {
    low,
    likely,
    high,
    restsOn: `${Math.round(age)} years, half gone after ${kept ? halfLife.kept : halfLife.usual} (a setting, not a count)`,
  };
}

function conditionShare({ condition }: ScarcityQuestion): ScarcityPart | undefined {
  if (!condition || condition.ofVariant.length + condition.ofClass.length === 0) return undefined;
  const atLeast = (list: readonly number[]) => list.filter((x) => x >= condition.atLeast).length;
  const { ofVariant, ofClass } = condition;
  const classShare = (atLeast(ofClass) + 0.5) / (ofClass.length + 1);
  const w = SCARCITY_SETTINGS.conditionWeight;
  const [low = 0, likely = classShare, high = 1] = betaPoints(
    atLeast(ofVariant) + w * classShare,
    ofVariant.length - atLeast(ofVariant) + w * (1 - classShare),
    [0.1, 0.5, 0.9],
  );
  return {
    low,
    likely,
    high,
    restsOn: `${ofVariant.length} of this variant and ${ofClass.length} of its class with a recorded condition`,
  };
}

const STEPS = 2000;
/** Quantiles of a Beta distribution by adding up its density; parameters above 0. */
export function betaPoints(a: number, b: number, points: readonly number[]): number[] {
  const logs = Array.from({ length: STEPS }, (_, i) => {
    const x = (i + 0.5) / STEPS;
    return (a - 1) * Math.log(x) + (b - 1) * Math.log(1 - x);
  });
  const top = Math.max(...logs);
  const weights = logs.map((l) => Math.exp(l - top));
  const total = weights.reduce((sum, w) => sum + w, 0);
  return points.map((p) => {
    let sum = 0;
    const at = weights.findIndex((w) => (sum += w) >= p * total);
    return (at + 0.5) / STEPS;
  });
}
