/** One penalised regression of log prices for the whole shop: (XᵀWX + Λ)θ = XᵀWy + Λm, V = (XᵀWX + Λ)⁻¹. */
import { CholeskyDecomposition, Matrix } from 'ml-matrix';
import type { Comparable, MarketReference, RateOn } from './comparable.ts';
import { Design, describeSale, type Sparse } from './design.ts';
import { VALUE_SETTINGS, type ValueSettings } from './settings.ts';

export interface FittedRow {
  readonly sale: Comparable;
  /** base currency, all the buyer paid, postage not */
  readonly converted: number;
  readonly y: number;
  readonly x: Sparse;
  /** precision of the row in the last round */
  readonly weight: number;
}
export interface ExcludedRow {
  readonly sale: Comparable;
  readonly reason: 'no-rate' | 'unknown-pattern';
}

export interface Market {
  readonly design: Design;
  readonly theta: Float64Array;
  /** covariance of the coefficients */
  readonly covariance: Matrix;
  readonly rows: readonly FittedRow[];
  readonly excluded: readonly ExcludedRow[];
  readonly noise: number;
  readonly variantSd: number;
  readonly settings: ValueSettings;
}

/**
 * @param sales those dated up to the day of the estimate; later ones must not be passed
 * @param lastDay the day at which the tide is anchored, days since 1970
 */
export function fitMarket(
  sales: readonly Comparable[],
  reference: MarketReference,
  rateOn: RateOn,
  lastDay: number,
  settings: ValueSettings = VALUE_SETTINGS,
): Market {
  const firstDay = sales.reduce((first, s) => Math.min(first, s.day), lastDay);
  const design = new Design(reference, settings, firstDay, lastDay);
  const excluded: ExcludedRow[] = [];
  const rows: { sale: Comparable; converted: number; y: number; x: Sparse }[] = [];
  for (const sale of sales) {
    const rate = rateOn(sale.price.currency, sale.day);
    if (!reference.patterns.has(sale.pattern)) excluded.push({ sale, reason: 'unknown-pattern' });
    else if (rate === undefined) excluded.push({ sale, reason: 'no-rate' });
    else {
      const paid = (Number(sale.price.amount) / rate) * (1 + (sale.buyerPremiumPct ?? 0) / 100);
      const converted = Math.max(paid * 0.2, paid - (sale.shippingIncluded ? settings.postage : 0));
      rows.push({ sale, converted, y: Math.log(converted), x: design.describe(describeSale(sale)) });
    }
  }
  // a market without a sale still has its level
  if (rows.length === 0) design.describe({ ...NOTHING, day: lastDay });
  return solve(design, rows, excluded, settings);
}

const NOTHING = {
  pattern: '',
  variant: undefined,
  conditionIndex: undefined,
  box: 'not-applicable' as const,
  papers: 'not-applicable' as const,
  sheath: 'not-applicable' as const,
  alterations: [],
  venueKind: 'fair' as const,
  priceKind: 'sold' as const,
  premiumUntold: false,
};

function solve(
  design: Design,
  rows: readonly { sale: Comparable; converted: number; y: number; x: Sparse }[],
  excluded: readonly ExcludedRow[],
  settings: ValueSettings,
): Market {
  const p = design.coefficients.length;
  const sd = design.coefficients.map((c) => c.prior.sd);
  const crowd = crowdFactors(
    rows.map((r) => r.sale),
    settings,
  );
  let noise = settings.noise;
  let weights = rows.map((_, i) => (crowd[i] ?? 1) / noise ** 2);
  let theta = new Float64Array(p);
  let covariance = Matrix.eye(p, p);
  let variantSd = settings.variant;
  const nu = settings.degreesOfFreedom;
  for (let round = 0; round < settings.rounds; round++) {
    const a = Matrix.zeros(p, p);
    const b = new Float64Array(p);
    design.coefficients.forEach((c, j) => {
      const s = c.line === 'variant' ? variantSd : (sd[j] ?? 1);
      a.set(j, j, 1 / s ** 2);
      b[j] = c.prior.mean / s ** 2;
    });
    rows.forEach((row, i) => {
      const w = weights[i] ?? 0;
      for (const [j, xj] of row.x) {
        b[j] = (b[j] ?? 0) + w * xj * row.y;
        for (const [k, xk] of row.x) if (k >= j) a.set(j, k, a.get(j, k) + w * xj * xk);
      }
    });
    for (let j = 0; j < p; j++) for (let k = j + 1; k < p; k++) a.set(k, j, a.get(j, k));
    const cholesky = new CholeskyDecomposition(a);
    theta = Float64Array.from(cholesky.solve(Matrix.columnVector([...b])).to1DArray());
    if (round === settings.rounds - 1) {
      covariance = cholesky.solve(Matrix.eye(p, p));
      break;
    }
    const residuals = rows.map((row) => row.y - dot(row.x, theta));
    noise = scaleOf(residuals, crowd, noise, p, settings);
    weights = residuals.map((r, i) => {
      const s2 = noise ** 2 / (crowd[i] ?? 1);
      const sound = soundness(r, s2);
      return (sound * ((nu + 1) / (nu + (r * r) / s2))) / s2;
    });
    variantSd = reestimated(design, theta, variantSd, settings);
  }
  return {
    design,
    theta,
    covariance,
    rows: rows.map((row, i) => ({ ...row, weight: weights[i] ?? 0 })),
    excluded,
    noise,
    variantSd,
    settings,
  };
}

export const dot = (x: Sparse, theta: Float64Array): number => {
  let sum = 0;
  for (const [j, value] of x) sum += value * (theta[j] ?? 0);
  return sum;
};

/** Many asking prices for one variant are one opinion repeated: n of them weigh n/(1 + .35(n−1)). */
function crowdFactors(sales: readonly Comparable[], settings: ValueSettings): number[] {
  const key = (s: Comparable) => s.variant ?? s.pattern;
  const asked = new Map<string, number>();
  for (const s of sales) if (s.priceKind === 'asking') asked.set(key(s), (asked.get(key(s)) ?? 0) + 1);
  return sales.map((s) =>
    s.priceKind === 'sold'
      ? 1
      : 1 / settings.askingNoise ** 2 / (1 + settings.askingCrowd * ((asked.get(key(s)) ?? 1) - 1)),
  );
}

/** Share of gross errors (a price in the wrong currency, a lot taken for a piece) and how wide they fall. */
const GROSS_SHARE = 0.04;
const GROSS_SD = 1.5;
function soundness(residual: number, s2: number): number {
  const density = (v: number) => Math.exp(-0.5 * ((residual * residual) / v)) / Math.sqrt(v);
  const sound = (1 - GROSS_SHARE) * density(s2 * 1.5);
  const gross = GROSS_SHARE * density(GROSS_SD ** 2 + s2);
  return sound / Math.max(sound + gross, 1e-300);
}

/** Scale of the t noise, held to its prior by twenty sales, the model's degrees of freedom taken off. */
function scaleOf(
  residuals: readonly number[],
  crowd: readonly number[],
  before: number,
  p: number,
  settings: ValueSettings,
): number {
  const nu = settings.degreesOfFreedom;
  let sum = 0;
  let n = 0;
  residuals.forEach((r, i) => {
    const c = crowd[i] ?? 1;
    const s2 = before ** 2 / c;
    const sound = soundness(r, s2);
    sum += sound * ((nu + 1) / (nu + (r * r) / s2)) * r * r * c;
    n += sound;
  });
  const spent = Math.min(p, n) * 0.4;
  const hold = settings.varianceHold;
  return Math.sqrt((sum + hold * settings.noise ** 2) / Math.max(1, n - spent + hold));
}

/** τ² = (Σu² + kτ₀²)/(n + k) over the variants. */
function reestimated(design: Design, theta: Float64Array, before: number, settings: ValueSettings): number {
  let sum = 0;
  let n = 0;
  design.coefficients.forEach((c, j) => {
    if (c.line !== 'variant') return;
    // the posterior spread of a variant seen once is close to its prior; half of it is a fair stand-in for V
    sum += (theta[j] ?? 0) ** 2 + 0.5 * before ** 2;
    n++;
  });
  const hold = settings.varianceHold;
  return Math.sqrt((sum + hold * settings.variant ** 2) / (n + hold));
}
