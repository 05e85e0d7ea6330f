/**
 * One penalised regression of log prices for the whole shop (engines.md, Valuation): fitted once for a list of prices,
 * in rounds of reweighting, learning on the way how far variants, makers and venues differ, how each kind of price
 * scatters and what postage costs. The outcome is plain data: it can be stored, and sent from thread to thread.
 */
import type { Comparable, MarketReference, RateOn } from './comparable.ts';
import { calibrationFactors } from './calibrate.ts';
import type { AskingCount, ExcludedSale, FittedMarket, Suspect } from './fitted.ts';
import { Columns, describeSale, type ColumnPlan, type Sparse } from './columns.ts';
import { freshNoise, NOISE_GROUPS, nextNoise, noiseLevels, scaleAt, soundness, type Noise } from './noise.ts';
import {
  rowsOf,
  solve,
  stepSd,
  type PseudoObservation,
  type Deviations,
  type Rows,
  type Solution,
} from './normal.ts';
import { covarianceOf, reducedTo, timesCovariance, variancesOf, type Touched } from './predict.ts';
import { VALUE_ENGINE_VERSION, VALUE_SETTINGS, type ValueSettings } from './settings.ts';
import { studentDensityAt0 } from './studentT.ts';
import { inverse } from './symmetric.ts';
import { nextTails } from './tails.ts';

/** A market shows no more of them. */
const MOST_SUSPECTS = 500;

/** Where a fit may begin: what was learned before. */
export type Start = Pick<
  FittedMarket,
  'plan' | 'theta' | 'effect' | 'noise' | 'sd' | 'postage' | 'stretch' | 'learnedFrom'
>;

export interface FitOptions {
  readonly settings?: ValueSettings;
  /** begins from here, with fewer rounds */
  readonly start?: Start | undefined;
  /** learns nothing but the coefficients: the deviations and the noise are as given */
  readonly fixed?: { readonly sd: Deviations; readonly noise: Noise } | undefined;
}

/** Base currency: all the buyer paid; undefined without a rate. Postage, where the price contains it, is still inside. */
export function paidInBase(sale: Comparable, rateOn: RateOn): number | undefined {
  const rate = rateOn(sale.price.currency, sale.day);
  return rate === undefined
    ? undefined
    : (Number(sale.price.amount) / rate) * (1 + (sale.buyerPremiumPct ?? 0) / 100);
}

/** Postage is an amount: it comes off, but never more than most of a small price. */
const LEAST_LEFT = 0.2;
export const withoutPostage = (paid: number, included: boolean, postage: number): number =>
  included ? Math.max(LEAST_LEFT * paid, paid - postage) : paid;

export const askingKey = (s: Pick<Comparable, 'variant' | 'pattern'>): string =>
  s.variant === undefined ? `pattern ${s.pattern}` : `variant ${s.variant}`;

/**
 * Asking prices are one opinion repeated: by how much each of n of a variant counts less. Where all of them together
 * stand farther from what is known than one opinion does, they count less again: an opinion has heavy tails of its own.
 * And the more sales of the same there are, the less is news in what is asked after them.
 */
export const askingVarianceInflation = (
  sale: Comparable,
  asked: Readonly<Record<string, AskingCount>>,
  { common }: Pick<Noise, 'common'>,
  { askingFade }: Pick<ValueSettings, 'askingFade'>,
): number => {
  if (sale.priceKind !== 'asking') return 1;
  const { count, sold, doubt } = asked[askingKey(sale)] ?? UNASKED;
  return doubt * (1 + common * (count - 1)) * (1 + sold / askingFade);
};
export const UNASKED: AskingCount = { count: 1, sold: 0, doubt: 1 };

/** Degrees of freedom of what the asking prices of one variant have in common. */
const OPINION_DF = 3;
/** @param mean of how far off they are from all else, @param s2 variance of one of them, @param other variance of all else */
export function doubtOf(mean: number, count: number, s2: number, common: number, other: number): number {
  const z2 = mean ** 2 / (s2 * (common + (1 - common) / count) + other);
  return Math.max(1, (OPINION_DF + z2) / (OPINION_DF + 1));
}

/**
 * @param sales those dated up to the day of the estimate; later ones must not be passed
 * @param rateOn units of a currency for one of the base on a day
 */
export function fitMarket(
  sales: readonly Comparable[],
  reference: MarketReference,
  rateOn: RateOn,
  options: FitOptions = {},
): FittedMarket {
  const settings = options.settings ?? VALUE_SETTINGS;
  const excluded: ExcludedSale[] = [];
  const used: Comparable[] = [];
  const paid: number[] = [];
  for (const sale of sales) {
    const base = paidInBase(sale, rateOn);
    if (!reference.patterns.has(sale.pattern))
      excluded.push({ id: sale.id, pattern: sale.pattern, reason: 'unknown-pattern' });
    else if (base === undefined) excluded.push({ id: sale.id, pattern: sale.pattern, reason: 'no-rate' });
    else {
      used.push(sale);
      paid.push(base);
    }
  }
  const start =
    options.start ?? (options.fixed ? undefined : startFromSome(used, reference, rateOn, settings));
  const columns = Columns.for(used, reference, settings);
  const described = used.map((sale) => columns.describe(describeSale(sale)));
  // a market without a price still has its level
  if (used.length === 0) columns.describe({ ...describeSale(NOTHING), day: 0 });
  const plan = columns.freeze();
  const work = new Fitting(used, paid, described, plan, reference, settings, { ...options, start });
  work.run();
  return work.market(excluded);
}

/** Beyond so many prices, spreads and noise are learned from some of them first: all would say the same. */
const LEARN_FROM = 6000;
function startFromSome(
  sales: readonly Comparable[],
  reference: MarketReference,
  rateOn: RateOn,
  settings: ValueSettings,
): Start | undefined {
  if (sales.length < 2 * LEARN_FROM) return undefined;
  const some = sales.filter(
    (_, i) =>
      Math.floor((i * LEARN_FROM) / sales.length) !== Math.floor(((i - 1) * LEARN_FROM) / sales.length),
  );
  return { ...fitMarket(some, reference, rateOn, { settings }), learnedFrom: sales.length };
}

const NOTHING: Comparable = {
  id: '',
  day: 0,
  price: { amount: '1', currency: 'EUR' },
  priceKind: 'sold',
  venueKind: 'fair',
  pattern: '',
  variant: undefined,
  conditionIndex: undefined,
  box: 'not-applicable',
  papers: 'not-applicable',
  sheath: 'not-applicable',
  alterations: [],
  buyerPremiumPct: 0,
  shippingIncluded: false,
};

/** Asking prices of one variant that are compared with each other. */
const MOST_OPINIONS = 12;
/** Variants that are looked at for it. */
const MOST_HEARD = 120;
export const touchedBy = (rows: Rows, i: number): Touched => {
  const [from, to] = [rows.start[i] ?? 0, rows.start[i + 1] ?? 0];
  return {
    columns: rows.column.subarray(from, to),
    values: rows.value.subarray(from, to),
    variant: rows.variant[i] ?? -1,
  };
};
/** Rounds after which spreads are learned anew: they need the covariance, which costs. */
const SPREADS_EVERY = 4;
const TAILS_AT: readonly number[] = [5, 10];
/** Whatever is learned last needs a few rounds to show. */
const LEAST_ROUNDS = 16;
/** A coefficient that moves by less than this in a round stands. */
const STANDS = 2e-4;
const settled = (before: Float64Array | undefined, now: Float64Array): boolean =>
  before !== undefined && now.every((x, j) => Math.abs(x - (before[j] ?? 0)) < STANDS);
const POSTAGE_EVERY = 4;
/** The curve of condition may be as flat as this, never falling. */
const FLATTEST = 0.02;

class Fitting {
  readonly rows: Rows;
  readonly y: Float64Array;
  readonly weight: Float64Array;
  readonly levels: Uint8Array;
  readonly crowd: Float64Array;
  readonly asked: Record<string, AskingCount> = {};
  readonly opinions = new Map<string, number[]>();
  /** share of each price's variance that is left to its residual */
  readonly left: Float64Array;
  noise: Noise;
  sd: Deviations;
  postage: number;
  demands: PseudoObservation[] = [];
  solution!: Solution;
  covariance!: Float64Array;

  constructor(
    readonly sales: readonly Comparable[],
    readonly paid: readonly number[],
    described: readonly Sparse[],
    readonly plan: ColumnPlan,
    reference: MarketReference,
    readonly settings: ValueSettings,
    readonly options: FitOptions,
  ) {
    const { start, fixed } = options;
    this.rows = rowsOf(described, plan.variants.length);
    this.left = new Float64Array(sales.length).fill(1);
    this.noise = fixed?.noise ?? start?.noise ?? freshNoise(settings);
    this.sd = fixed?.sd ??
      start?.sd ?? {
        ...settings.sd,
        tideStep: settings.tideStep,
        makerTideStep: settings.makerTideStep,
        askTideStep: settings.askTideStep,
      };
    this.postage = fixed ? settings.postage.mean : (start?.postage ?? settings.postage.mean);
    this.y = new Float64Array(sales.length);
    this.#sayPrices();
    this.levels = new Uint8Array(sales.length * NOISE_GROUPS.length);
    sales.forEach((sale, i) => {
      if (sale.priceKind === 'asking') {
        const key = askingKey(sale);
        const list = this.opinions.get(key);
        if (list) list.push(i);
        else this.opinions.set(key, [i]);
        this.asked[key] = { ...UNASKED, count: (this.asked[key]?.count ?? 0) + 1 };
      }
      noiseLevels({ ...sale, premiumTold: sale.buyerPremiumPct !== undefined }, reference).forEach(
        (level, g) => {
          this.levels[i * NOISE_GROUPS.length + g] = level;
        },
      );
    });
    for (const sale of sales) {
      const asked = this.asked[askingKey(sale)];
      if (asked && sale.variant !== undefined && sale.priceKind === 'sold')
        this.asked[askingKey(sale)] = { ...asked, sold: asked.sold + 1 };
    }
    this.crowd = Float64Array.from(sales, (sale) =>
      askingVarianceInflation(sale, this.asked, this.noise, settings),
    );
    this.weight = Float64Array.from(sales, (_, i) => 1 / (this.#variance(i) * (this.crowd[i] ?? 1)));
  }

  run(): void {
    const { start, fixed } = this.options;
    if (start) this.#reweigh(residualsFrom(start, this.plan, this.rows, this.y), false);
    const rounds = this.#rounds();
    for (let round = 1; round <= rounds; round++) {
      const before = this.solution?.theta;
      this.#solve();
      if (round === rounds || (round >= LEAST_ROUNDS && settled(before, this.solution.theta))) break;
      if (!fixed && round % SPREADS_EVERY === (start ? 2 : 0)) {
        this.covariance = inverse(this.solution.factor, this.plan.columns.length);
        this.#whatIsLeft();
        this.#learnOpinions();
        this.#learnSpreads();
      }
      const residuals = this.#residuals();
      if (!fixed && !start && TAILS_AT.includes(round)) this.#learnTails(residuals);
      if (!fixed && round % POSTAGE_EVERY === 2) this.#learnPostage(residuals);
      this.#reweigh(residuals, !fixed && round > 1);
    }
    this.#holdTheCurve();
    this.covariance = inverse(this.solution.factor, this.plan.columns.length);
  }

  #rounds(): number {
    const { rounds, roundsOfMany, manyPrices, warmRounds } = this.settings;
    const count = this.sales.length;
    if (this.options.start) return count >= 10 * manyPrices ? Math.ceil(warmRounds / 2) : warmRounds;
    return count >= manyPrices ? roundsOfMany : rounds;
  }

  market(excluded: readonly ExcludedSale[]): FittedMarket {
    const ownSales = new Int32Array(this.plan.variants.length);
    this.sales.forEach((sale, i) => {
      const v = this.rows.variant[i] ?? -1;
      if (v >= 0 && sale.priceKind === 'sold') ownSales[v] = (ownSales[v] ?? 0) + 1;
    });
    const fitted: FittedMarket = {
      engine: VALUE_ENGINE_VERSION,
      plan: this.plan,
      theta: this.solution.theta,
      covariance: this.covariance,
      effect: this.solution.effect,
      diagonal: this.solution.diagonal,
      cross: this.solution.cross,
      listStart: this.rows.listStart,
      list: this.rows.list,
      noise: this.noise,
      sd: this.sd,
      postage: this.postage,
      ownSales,
      asked: this.asked,
      stretch: [1, 1, 1, 1],
      suspects: this.#suspects(),
      prices: this.sales.length,
      learnedFrom: this.sales.length,
      excluded,
    };
    if (this.options.fixed) return fitted;
    if (this.options.start) {
      const { stretch, learnedFrom } = this.options.start;
      return { ...fitted, stretch, learnedFrom };
    }
    const scales = Float64Array.from(this.sales, (_, i) => Math.sqrt(this.#variance(i)));
    const sold = this.sales.map((s) => s.priceKind === 'sold');
    const venues = new Set(this.plan.columns.flatMap((c, j) => (c.family === 'venue name' ? [j] : [])));
    const venueOf = this.sales.map(
      (_, i) => Array.from(touchedBy(this.rows, i).columns).find((j) => venues.has(j)) ?? -1,
    );
    return {
      ...fitted,
      stretch: calibrationFactors(
        fitted,
        this.rows,
        this.y,
        this.weight,
        scales,
        sold,
        venueOf,
        this.settings,
      ),
    };
  }

  #suspects(): Suspect[] {
    const at0 = studentDensityAt0(this.noise.df);
    const found: Suspect[] = [];
    this.#residuals().forEach((off, i) => {
      const id = this.sales[i]?.id;
      if (id !== undefined && soundness(off ** 2, this.#variance(i), this.noise, at0, this.settings) < 0.5)
        found.push({ id, times: Math.exp(off) });
    });
    return found
      .sort((a, b) => Math.abs(Math.log(b.times)) - Math.abs(Math.log(a.times)))
      .slice(0, MOST_SUSPECTS);
  }

  #sayPrices(): void {
    this.sales.forEach((sale, i) => {
      this.y[i] = Math.log(withoutPostage(this.paid[i] ?? 1, sale.shippingIncluded, this.postage));
    });
  }

  /** of one price by itself: that others say the same takes off its weight, not its soundness */
  #variance(i: number): number {
    return scaleAt(this.noise, this.levels, i * NOISE_GROUPS.length) ** 2;
  }

  #solve(): void {
    this.solution = solve(this.rows, this.y, this.weight, this.plan, this.sd, this.demands);
  }

  #residuals(): Float64Array {
    return residualsOf(this.rows, this.y, this.solution.theta, this.solution.effect);
  }

  #reweigh(residuals: Float64Array, learn: boolean): void {
    const { settings } = this;
    const n = residuals.length;
    const nu = this.noise.df;
    const at0 = studentDensityAt0(nu);
    this.#weighOpinions(residuals);
    const share = new Float64Array(n);
    const sound = new Float64Array(n);
    for (let pass = learn ? 0 : 1; pass < 2; pass++) {
      for (let i = 0; i < n; i++) {
        const s2 = this.#variance(i);
        const r2 = (residuals[i] ?? 0) ** 2;
        const p = soundness(r2, s2, this.noise, at0, settings);
        const q = (p * (nu + 1)) / (nu + r2 / s2);
        share[i] = (q * r2) / s2;
        sound[i] = p;
        this.weight[i] = q / (s2 * (this.crowd[i] ?? 1));
      }
      if (pass === 0) this.noise = nextNoise(this.noise, this.levels, share, sound, this.left, settings);
    }
  }

  #covered() {
    const { diagonal, cross } = this.solution;
    return {
      covariance: this.covariance,
      diagonal,
      cross,
      listStart: this.rows.listStart,
      list: this.rows.list,
      plan: this.plan,
    };
  }

  #weighOpinions(residuals: Float64Array): void {
    const { noise } = this;
    const at0 = studentDensityAt0(noise.df);
    for (const [key, list] of this.opinions) {
      let [off, s2, counted, weight] = [0, 0, 0, 0];
      for (const i of list) {
        const r = residuals[i] ?? 0;
        const q = soundness(r * r, this.#variance(i), noise, at0, this.settings);
        off += q * r;
        s2 += q * this.#variance(i);
        counted += q;
        weight += this.weight[i] ?? 0;
      }
      // what the variant would be without them: they have drawn it to themselves
      const v = this.rows.variant[list[0] ?? 0] ?? -1;
      const own = 1 / this.sd.variant ** 2;
      const diagonal = v < 0 ? own : Math.max(own + weight, this.solution?.diagonal[v] ?? own + weight);
      const left = v < 0 ? 1 : 1 - weight / diagonal;
      const doubt =
        counted > 0
          ? doubtOf(off / counted / left, list.length, s2 / counted, noise.common, 1 / (diagonal * left))
          : 1;
      this.asked[key] = { ...UNASKED, ...this.asked[key], count: list.length, doubt };
    }
    this.sales.forEach((sale, i) => {
      if (sale.priceKind === 'asking')
        this.crowd[i] = askingVarianceInflation(sale, this.asked, noise, this.settings);
    });
  }

  #learnTails(residuals: Float64Array): void {
    const s2 = Float64Array.from(residuals, (_, i) => this.#variance(i));
    const r2 = residuals.map((r, i) => r ** 2 / (this.left[i] ?? 1));
    this.noise = nextTails(this.noise, r2, s2, this.settings);
  }

  /** E r² = s² − xᵀVx: what thin variants swallow is no proof of quiet prices. */
  #whatIsLeft(): void {
    variancesOf(this.#covered(), this.rows).forEach((v, i) => {
      this.left[i] = Math.max(0.2, 1 - v / this.#variance(i));
    });
  }

  /**
   * How far asking prices for one variant are one opinion: E rᵢrⱼ = τ² − xᵢᵀVxⱼ for two of them, in units of their
   * scales; each variant counts as one of its pairs for each price, held to what is expected by `varianceHold` prices.
   */
  #learnOpinions(): void {
    const asks = new Map<number, number[]>();
    this.sales.forEach((sale, i) => {
      const v = this.rows.variant[i] ?? -1;
      if (sale.priceKind !== 'asking' || v < 0) return;
      const list = asks.get(v);
      if (!list) asks.set(v, [i]);
      else if (list.length < MOST_OPINIONS) list.push(i);
    });
    const covered = this.#covered();
    const residuals = this.#residuals();
    const { df } = this.noise;
    const at0 = studentDensityAt0(df);
    let sum = 0;
    let count = 0;
    const several = [...asks.values()].filter((list) => list.length > 1);
    const every = Math.max(1, several.length / MOST_HEARD);
    for (let at = 0; at < several.length; at += every) {
      const list = several[Math.floor(at)] ?? [];
      const z = list.map((i) => reducedTo(covered, touchedBy(this.rows, i)));
      const s = list.map((i) => Math.sqrt(this.#variance(i)));
      const off = list.map((i, a) => {
        const r = (residuals[i] ?? 0) / (s[a] ?? 1);
        const q = soundness((residuals[i] ?? 0) ** 2, this.#variance(i), this.noise, at0, this.settings);
        return { r: r * Math.sqrt((q * (df + 1)) / (df + r * r)), q };
      });
      const spread = z.map((x) => timesCovariance(covered, x));
      let pairs = 0;
      let weight = 0;
      for (let a = 0; a < list.length; a++)
        for (let b = 0; b < a; b++) {
          const [row, x, y] = [spread[a], z[a], z[b]];
          if (!row || !x || !y) continue;
          const fitted = covarianceOf(row, x, y) / ((s[a] ?? 1) * (s[b] ?? 1));
          const sound = (off[a]?.q ?? 0) * (off[b]?.q ?? 0);
          pairs += (off[a]?.r ?? 0) * (off[b]?.r ?? 0) + sound * fitted;
          weight += sound;
        }
      // a variant's pairs are no more than its prices say
      const per = 2 / list.length;
      sum += per * pairs;
      count += per * weight;
    }
    const hold = this.settings.opinionHold;
    const common = (sum + hold * this.settings.askingCrowd) / (count + hold);
    this.noise = { ...this.noise, common: Math.min(0.95, Math.max(0.02, common)) };
    this.sales.forEach((sale, i) => {
      this.crowd[i] = askingVarianceInflation(sale, this.asked, this.noise, this.settings);
    });
  }

  /**
   * τ² = (Σu² + kτ₀²)/(Σ(1 − V_uu/τ²) + k) for every spread, and the same for the steps of what walks: the restricted
   * likelihood's fixed point. It has the same end as EM's Σ(u² + V_uu)/n, and is there in three rounds instead of dozens.
   */
  #learnSpreads(): void {
    const { plan, solution, settings, covariance } = this;
    const p = plan.columns.length;
    const variance = (j: number) => covariance[j * p + j] ?? 0;
    const hold = settings.spreadHold;
    const learned = (sum: number, n: number, prior: number) =>
      Math.sqrt((sum + hold * prior ** 2) / (n + hold));
    const known = (left: number, sd: number) => Math.max(0.02, 1 - left / sd ** 2);
    const sums = { maker: [0, 0], pattern: [0, 0], venue: [0, 0], material: [0, 0] };
    plan.columns.forEach((column, j) => {
      if (column.spread) {
        const sum = sums[column.spread];
        sum[0] = (sum[0] ?? 0) + (solution.theta[j] ?? 0) ** 2;
        sum[1] = (sum[1] ?? 0) + known(variance(j), this.sd[column.spread]);
      }
    });
    const steps = { tide: [0, 0], 'maker tide': [0, 0], 'ask tide': [0, 0] };
    for (const walk of plan.walks)
      for (let k = 1; k < walk.count; k++) {
        const j = walk.start + k;
        const step = (solution.theta[j] ?? 0) - (solution.theta[j - 1] ?? 0);
        const uncertain = variance(j) + variance(j - 1) - 2 * (covariance[j * p + j - 1] ?? 0);
        const sum = steps[walk.kind];
        sum[0] = (sum[0] ?? 0) + step ** 2;
        sum[1] = (sum[1] ?? 0) + known(uncertain, stepSd(walk.kind, this.sd));
      }
    let own = 0;
    let ownKnown = 0;
    const { listStart, list } = this.rows;
    plan.variants.forEach((_, v) => {
      const d = solution.diagonal[v] ?? 1;
      let spread = 1 / d;
      const [from, to] = [listStart[v] ?? 0, listStart[v + 1] ?? 0];
      for (let n = from; n < to; n++) {
        const row = (list[n] ?? 0) * p;
        let sum = 0;
        for (let m = from; m < to; m++)
          sum += (covariance[row + (list[m] ?? 0)] ?? 0) * (solution.cross[m] ?? 0);
        spread += (sum * (solution.cross[n] ?? 0)) / d ** 2;
      }
      own += (solution.effect[v] ?? 0) ** 2;
      ownKnown += known(spread, this.sd.variant);
    });
    const of = (name: keyof typeof sums) =>
      learned(sums[name][0] ?? 0, sums[name][1] ?? 0, settings.sd[name]);
    this.sd = {
      maker: of('maker'),
      pattern: of('pattern'),
      venue: of('venue'),
      material: of('material'),
      variant: learned(own, ownKnown, settings.sd.variant),
      tideStep: learned(steps.tide[0] ?? 0, steps.tide[1] ?? 0, settings.tideStep),
      makerTideStep: learned(
        steps['maker tide'][0] ?? 0,
        steps['maker tide'][1] ?? 0,
        settings.makerTideStep,
      ),
      askTideStep: learned(steps['ask tide'][0] ?? 0, steps['ask tide'][1] ?? 0, settings.askTideStep),
    };
  }

  /** The amount under which the prices with postage inside agree best with those without. */
  #learnPostage(residuals: Float64Array): void {
    const { postage: prior } = this.settings;
    const included = this.sales.flatMap((s, i) => (s.shippingIncluded ? [i] : []));
    if (included.length === 0) return;
    const loss = (amount: number) => {
      let sum = ((amount - prior.mean) / prior.sd) ** 2;
      for (const i of included) {
        const fitted = (this.y[i] ?? 0) - (residuals[i] ?? 0);
        const r = Math.log(withoutPostage(this.paid[i] ?? 1, true, amount)) - fitted;
        sum += (this.weight[i] ?? 0) * r * r;
      }
      return sum;
    };
    const most = 4 * prior.mean;
    let best = this.postage;
    for (let amount = 0; amount <= most; amount += most / 64) if (loss(amount) < loss(best)) best = amount;
    if (best === this.postage) return;
    this.postage = best;
    included.forEach((i) => {
      const before = this.y[i] ?? 0;
      this.y[i] = Math.log(withoutPostage(this.paid[i] ?? 1, true, best));
      residuals[i] = (residuals[i] ?? 0) + (this.y[i] ?? 0) - before;
    });
  }

  /** Better condition is never worth less: a stretch of the curve that falls is held level, and all is solved again. */
  #holdTheCurve(): void {
    for (let tries = 0; tries < 4; tries++) {
      const falling = fallingStretches(this.plan, this.solution.theta, this.settings);
      if (falling.length === 0) return;
      this.demands = [...this.demands, ...falling];
      this.#solve();
    }
  }
}

/** A firm demand, against which a few hundred prices say little. */
const FIRM = 1e6;

function fallingStretches(
  plan: ColumnPlan,
  theta: Float64Array,
  settings: ValueSettings,
): PseudoObservation[] {
  const at = new Map(plan.columns.map((c, j) => [`${c.family} ${c.name}`, j]));
  const base = at.get('condition ');
  if (base === undefined) return [];
  const kinds = plan.columns.flatMap((c, j) => (c.family === 'condition of' ? [j] : []));
  const bends = settings.conditionKnots.map((knot) => at.get(`condition from ${knot}`));
  const demands: PseudoObservation[] = [];
  for (const kind of kinds.length === 0 ? [undefined] : kinds)
    for (let stretch = 0; stretch <= bends.length; stretch++) {
      const columns = [base, kind, ...bends.slice(0, stretch)].filter((j) => j !== undefined);
      const slope = columns.reduce((sum, j) => sum + (theta[j] ?? 0), 0);
      if (slope < FLATTEST / 2)
        demands.push({ columns, values: columns.map(() => 1), target: FLATTEST, weight: FIRM });
    }
  return demands;
}

export function residualsOf(
  rows: Rows,
  y: Float64Array,
  theta: Float64Array,
  effect: Float64Array,
): Float64Array {
  const { start, column, value, variant } = rows;
  const out = new Float64Array(rows.count);
  for (let i = 0; i < rows.count; i++) {
    let r = y[i] ?? 0;
    for (let n = start[i] ?? 0, to = start[i + 1] ?? 0; n < to; n++)
      r -= (value[n] ?? 0) * (theta[column[n] ?? 0] ?? 0);
    const v = variant[i] ?? -1;
    out[i] = v < 0 ? r : r - (effect[v] ?? 0);
  }
  return out;
}

/** Residuals by what was learned before, in whatever order its columns were. */
function residualsFrom(start: Start, plan: ColumnPlan, rows: Rows, y: Float64Array): Float64Array {
  const key = (c: { family: string; name: string }) => `${c.family} ${c.name}`;
  const shift = plan.firstKnot - start.plan.firstKnot;
  const known = new Map(start.plan.columns.map((c, j) => [key(c), start.theta[j] ?? 0]));
  const walks = (family: string) =>
    ['tide ', 'maker tide ', 'ask tide '].some((walk) => family.startsWith(walk));
  const theta = Float64Array.from(plan.columns, (c) => {
    if (!walks(c.family)) return known.get(key(c)) ?? c.prior.mean;
    const knot = Math.min(start.plan.knots - 1, Math.max(0, Number(c.name) + shift));
    return known.get(key({ family: c.family, name: String(knot) })) ?? 0;
  });
  const variants = new Map(start.plan.variants.map((id, v) => [id, start.effect[v] ?? 0]));
  const effect = Float64Array.from(plan.variants, (id) => variants.get(id) ?? 0);
  return centred(residualsOf(rows, y, theta, effect), rows);
}

/** A variant with fewer prices than this is taken as it was. */
const CENTRED_FROM = 3;

/**
 * Each variant's residuals about their own middle: where most of its prices have moved away since, the few old ones
 * are the odd ones, not the many new ones that the last solution did not know.
 */
function centred(residuals: Float64Array, rows: Rows): Float64Array {
  const ofVariant = new Map<number, number[]>();
  for (let i = 0; i < rows.count; i++) {
    const v = rows.variant[i] ?? -1;
    if (v < 0) continue;
    const list = ofVariant.get(v);
    if (list) list.push(i);
    else ofVariant.set(v, [i]);
  }
  for (const list of ofVariant.values()) {
    if (list.length < CENTRED_FROM) continue;
    const sorted = list.map((i) => residuals[i] ?? 0).sort((a, b) => a - b);
    const middle = sorted[sorted.length >> 1] ?? 0;
    for (const i of list) residuals[i] = (residuals[i] ?? 0) - middle;
  }
  return residuals;
}
