/**
 * A fitted market brought up to date for a few prices that came in, or were taken out, since: exactly what the normal
 * equations give for the weights, spreads and noise that were learned before, without touching all other prices. A
 * whole new fit follows in its own time.
 */
import type { Comparable, MarketReference, RateOn } from './comparable.ts';
import { Columns, describeSale, type Sparse } from './columns.ts';
import { askingVarianceInflation, askingKey, doubtOf, paidInBase, UNASKED, withoutPostage } from './fit.ts';
import type { AskingCount, ExcludedSale, FittedMarket } from './fitted.ts';
import { Market } from './market.ts';
import { noiseLevels, scaleAt, soundness } from './noise.ts';
import { VALUE_SETTINGS, type ValueSettings } from './settings.ts';
import { studentDensityAt0 } from './studentT.ts';

/** More changes than this are better fitted anew, whatever the market. */
export const MOST_AMENDED = 100;
const FROM_PRICES = 800;
const SHARE_AMENDED = 150;
/**
 * How many changes a market of so many prices takes before it is better fitted anew: what was learned of spreads and
 * noise must stand, so that the amended answer and the next fit's agree to a hundredth. A small market learns from
 * every price, and is fitted anew at once.
 */
export const mostAmended = (prices: number): number =>
  prices < FROM_PRICES ? 0 : Math.min(MOST_AMENDED, Math.floor(prices / SHARE_AMENDED));

/** Rounds in which prices find their weight: it hangs on how far off they are, and that on the weight. */
const WEIGHT_ROUNDS = 8;
/** A weight that would move by less than this share stands. */
const SETTLED = 0.02;

/** @param removed prices that were in the fit, as they were then */
export function amendMarket(
  fitted: FittedMarket,
  added: readonly Comparable[],
  removed: readonly Comparable[],
  reference: MarketReference,
  rateOn: RateOn,
  settings: ValueSettings = VALUE_SETTINGS,
): FittedMarket {
  const before = new Market(fitted, reference, rateOn, settings);
  const columns = Columns.growing(fitted.plan, reference, settings);
  const asked = { ...fitted.asked };
  const excluded: ExcludedSale[] = fitted.excluded.filter((e) => !removed.some((r) => r.id === e.id));
  const incoming: { sale: Comparable; paid: number; x: Sparse }[] = [];
  for (const sale of added) {
    const paid = paidInBase(sale, rateOn);
    if (!reference.patterns.has(sale.pattern))
      excluded.push({ id: sale.id, pattern: sale.pattern, reason: 'unknown-pattern' });
    else if (paid === undefined) excluded.push({ id: sale.id, pattern: sale.pattern, reason: 'no-rate' });
    else {
      incoming.push({ sale, paid, x: columns.describe(describeSale(sale)) });
    }
  }
  opinionsWith(asked, incoming, before);
  const plan = columns.freeze();
  const work = new Amending(fitted, plan);
  const ownSales = new Int32Array(plan.variants.length);
  ownSales.set(fitted.ownSales);
  let prices = fitted.prices;
  const count = (sale: Comparable, variant: number, sign: 1 | -1) => {
    prices += sign;
    if (variant >= 0 && sale.priceKind === 'sold') ownSales[variant] = (ownSales[variant] ?? 0) + sign;
  };
  for (const sale of removed) {
    const row = reference.patterns.has(sale.pattern) ? before.price(sale) : undefined;
    if (!row) continue;
    work.put(row.x, Math.log(row.converted), () => -row.weight);
    if (sale.priceKind === 'asking') {
      const group = asked[askingKey(sale)] ?? UNASKED;
      asked[askingKey(sale)] = { ...group, count: Math.max(0, group.count - 1) };
    }
    count(sale, row.x.variant, -1);
  }
  const nu = fitted.noise.df;
  const at0 = studentDensityAt0(nu);
  const arrivals = incoming.map(({ sale, paid, x }) => {
    const levels = noiseLevels({ ...sale, premiumTold: sale.buyerPremiumPct !== undefined }, reference);
    const s2 = scaleAt(fitted.noise, levels) ** 2 + x.beyondVariance;
    const crowd = askingVarianceInflation(sale, asked, fitted.noise, settings);
    const weight = (off: number) => {
      const r2 = off ** 2;
      return (soundness(r2, s2, fitted.noise, at0, settings) * (nu + 1)) / (nu + r2 / s2) / (s2 * crowd);
    };
    const y = Math.log(withoutPostage(paid, sale.shippingIncluded, fitted.postage)) - x.beyond;
    count(sale, x.variant, 1);
    return { x, y, weight, w: 1 / (s2 * crowd) };
  });
  // all believed at first, as in a whole fit
  for (const row of arrivals) work.put(row.x, row.y, () => row.w);
  for (let round = 0; round < WEIGHT_ROUNDS; round++)
    for (const row of arrivals)
      work.put(row.x, row.y, (off) => {
        const more = row.weight(off) - row.w;
        if (Math.abs(more) < SETTLED * row.w) return 0;
        row.w += more;
        return more;
      });
  return { ...fitted, ...work.outcome(), plan, asked, ownSales, prices, excluded };
}

/** Asking prices that came in, with those there were: how many, and whether they stand far off together. */
function opinionsWith(
  asked: Record<string, AskingCount>,
  incoming: readonly { readonly sale: Comparable }[],
  before: Market,
): void {
  const groups = new Map<string, { off: number; s2: number; counted: number; n: number }>();
  for (const { sale } of incoming) {
    if (sale.priceKind !== 'asking') continue;
    const key = askingKey(sale);
    const group = groups.get(key) ?? { off: 0, s2: 0, counted: 0, n: 0 };
    groups.set(key, group);
    group.n++;
    const row = before.price(sale);
    if (!row) continue;
    group.off += row.sound * row.residual;
    group.s2 += row.sound * row.variance;
    group.counted += row.sound;
  }
  const openOf = (key: string): number => {
    const v = key.startsWith('variant ') ? before.variantNumber(key.slice('variant '.length)) : undefined;
    return v === undefined ? before.fitted.sd.variant ** 2 : 1 / (before.fitted.diagonal[v] ?? 1);
  };
  const soldOf = (key: string): number => {
    const v = key.startsWith('variant ') ? before.variantNumber(key.slice('variant '.length)) : undefined;
    return v === undefined ? 0 : (before.fitted.ownSales[v] ?? 0);
  };
  for (const [key, { off, s2, counted, n }] of groups)
    asked[key] = {
      sold: soldOf(key),
      count: (asked[key]?.count ?? 0) + n,
      doubt:
        counted > 0 ? doubtOf(off / counted, n, s2 / counted, before.fitted.noise.common, openOf(key)) : 1,
    };
}

interface VariantBlock {
  readonly columns: number[];
  readonly values: number[];
}

/** The posterior, one price at a time: Sherman and Morrison's formula on the block that is left once variants are out. */
class Amending {
  readonly #p: number;
  readonly #theta: Float64Array;
  readonly #covariance: Float64Array;
  readonly #effect: Float64Array;
  readonly #diagonal: Float64Array;
  readonly #blocks: VariantBlock[];

  constructor(fitted: FittedMarket, plan: FittedMarket['plan']) {
    const old = fitted.plan.columns.length;
    const p = plan.columns.length;
    this.#p = p;
    this.#theta = Float64Array.from(plan.columns, (column, j) => fitted.theta[j] ?? column.prior.mean);
    this.#covariance = new Float64Array(p * p);
    for (let j = 0; j < old; j++)
      this.#covariance.set(fitted.covariance.subarray(j * old, (j + 1) * old), j * p);
    for (let j = old; j < p; j++) {
      const column = plan.columns[j];
      const sd = column?.spread === undefined ? (column?.prior.sd ?? 1) : fitted.sd[column.spread];
      this.#covariance[j * p + j] = sd ** 2;
    }
    const variants = plan.variants.length;
    this.#effect = new Float64Array(variants);
    this.#effect.set(fitted.effect);
    this.#diagonal = new Float64Array(variants).fill(1 / fitted.sd.variant ** 2);
    this.#diagonal.set(fitted.diagonal);
    this.#blocks = plan.variants.map((_, v) => {
      const [from, to] = [fitted.listStart[v] ?? 0, fitted.listStart[v + 1] ?? fitted.listStart[v] ?? 0];
      return { columns: [...fitted.list.subarray(from, to)], values: [...fitted.cross.subarray(from, to)] };
    });
  }

  /** @param weigh its precision, from how far off it is; below zero takes it out */
  put(x: Sparse, y: number, weigh: (off: number) => number): void {
    const p = this.#p;
    const z = new Map<number, number>();
    x.columns.forEach((j, n) => z.set(j, (z.get(j) ?? 0) + (x.values[n] ?? 0)));
    const block = this.#blocks[x.variant];
    const d = this.#diagonal[x.variant] ?? 0;
    let said = block ? (this.#effect[x.variant] ?? 0) : 0;
    for (const [j, value] of z) said += value * (this.#theta[j] ?? 0);
    const off = y - said;
    const w = weigh(off);
    if (w === 0) return;
    block?.columns.forEach((j, n) => z.set(j, (z.get(j) ?? 0) - (block.values[n] ?? 0) / d));
    const spread = new Float64Array(p);
    for (const [j, value] of z)
      for (let k = 0, row = j * p; k < p; k++)
        spread[k] = (spread[k] ?? 0) + value * (this.#covariance[row + k] ?? 0);
    let variance = block ? 1 / d : 0;
    for (const [j, value] of z) variance += value * (spread[j] ?? 0);
    const share = 1 + w * variance;
    // taking out more than there is would turn the variance about: such a price is left to the next whole fit
    if (share < 1e-3) return;
    const k = w / share;
    for (let j = 0; j < p; j++) {
      const f = k * (spread[j] ?? 0);
      if (f === 0) continue;
      for (let m = 0, row = j * p; m < p; m++)
        this.#covariance[row + m] = (this.#covariance[row + m] ?? 0) - f * (spread[m] ?? 0);
    }
    const gain = k * off;
    this.#blocks.forEach((of, v) => {
      let sum = 0;
      of.columns.forEach((j, n) => {
        sum += (of.values[n] ?? 0) * (spread[j] ?? 0);
      });
      const own = v === x.variant ? 1 : 0;
      this.#effect[v] = (this.#effect[v] ?? 0) + (gain * (own - sum)) / (this.#diagonal[v] ?? 1);
    });
    for (let j = 0; j < p; j++) this.#theta[j] = (this.#theta[j] ?? 0) + gain * (spread[j] ?? 0);
    if (!block) return;
    this.#diagonal[x.variant] = d + w;
    x.columns.forEach((j, n) => {
      const at = block.columns.indexOf(j);
      const value = w * (x.values[n] ?? 0);
      if (at >= 0) block.values[at] = (block.values[at] ?? 0) + value;
      else {
        block.columns.push(j);
        block.values.push(value);
      }
    });
  }

  outcome(): Pick<
    FittedMarket,
    'theta' | 'covariance' | 'effect' | 'diagonal' | 'cross' | 'listStart' | 'list'
  > {
    const listStart = new Int32Array(this.#blocks.length + 1);
    this.#blocks.forEach((block, v) => {
      listStart[v + 1] = (listStart[v] ?? 0) + block.columns.length;
    });
    return {
      theta: this.#theta,
      covariance: this.#covariance,
      effect: this.#effect,
      diagonal: this.#diagonal,
      listStart,
      list: Int32Array.from(this.#blocks.flatMap((block) => block.columns)),
      cross: Float64Array.from(this.#blocks.flatMap((block) => block.values)),
    };
  }
}
