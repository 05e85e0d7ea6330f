/**
 * How long a piece stands at a price, and what patience pays. The chance to sell within a week at ask ÷ estimate r is
 * λ(r) = λ₀·e^(−k(r−1)) (engines.md, Money: ask and patience); λ₀ and k have gamma priors that the shop's own days on
 * the market move.
 */

/** One piece that stood, or stands, on the market. */
export interface Standing {
  /** ask ÷ estimate */
  readonly ratio: number;
  readonly weeks: number;
  readonly sold: boolean;
}

export interface Hazard {
  /** chance to sell within a week at the estimate */
  readonly base: number;
  /** how fast it falls as more is asked */
  readonly steepness: number;
  /** pieces it was learned from */
  readonly learnedFrom: number;
}

export const PATIENCE_SETTINGS = {
  /** gamma: shape, and rate in weeks; one in eight sells within a week at its estimate */
  base: { shape: 2, rate: 16 },
  steepness: { shape: 4, rate: 0.8 },
  /** what a year of waiting costs of the money bound, percent: a dealer's money is meant to be in the next piece */
  capitalPct: 25,
} as const;

const STEEPEST = 20;
const GRID = 80;

/** Posterior means, by a grid over the steepness: for each of its values the base has a gamma posterior of its own. */
export function learnHazard(standings: readonly Standing[], settings = PATIENCE_SETTINGS): Hazard {
  const { base, steepness } = settings;
  const sold = standings.filter((s) => s.sold).length;
  const rows = Array.from({ length: GRID }, (_, i) => {
    const k = ((i + 0.5) * STEEPEST) / GRID;
    const factor = (s: Standing) => Math.exp(-k * (s.ratio - 1));
    const exposure = standings.reduce((sum, s) => sum + s.weeks * factor(s), 0);
    const logs = standings.reduce((sum, s) => sum + (s.sold ? -k * (s.ratio - 1) : 0), 0);
    const shape = base.shape + sold;
    const rate = base.rate + exposure;
    return {
      k,
      mean: shape / rate,
      log: (steepness.shape - 1) * Math.log(k) - steepness.rate * k + logs - shape * Math.log(rate),
    };
  });
  const highest = Math.max(...rows.map((r) => r.log));
  const total = rows.reduce((sum, r) => sum + Math.exp(r.log - highest), 0);
  const mean = (of: (r: (typeof rows)[number]) => number) =>
    rows.reduce((sum, r) => sum + of(r) * Math.exp(r.log - highest), 0) / total;
  return { base: mean((r) => r.mean), steepness: mean((r) => r.k), learnedFrom: standings.length };
}

export const weeklyChance = (hazard: Hazard, ratio: number): number => 1 - Math.exp(-rateAt(hazard, ratio));

export interface AskPoint {
  readonly ratio: number;
  readonly price: number;
  /** expected weeks until it sells */
  readonly weeks: number;
  readonly net: number;
  /** expected net, less what waiting costs */
  readonly value: number;
}

/**
 * What asking brings in the long run: V(r) = (λ·net − h)/(λ + δ), selling at rate λ, paying h a week, with money that
 * costs δ a week.
 * @param left of the ask, once sold; @param holding a week, in the same currency
 */
export function valueOfAsking(
  ratio: number,
  left: number,
  hazard: Hazard,
  holding: number,
  settings = PATIENCE_SETTINGS,
): number {
  const rate = rateAt(hazard, ratio);
  return (rate * left - holding) / (rate + settings.capitalPct / 100 / 52);
}
const rateAt = (hazard: Hazard, ratio: number): number =>
  hazard.base * Math.exp(-hazard.steepness * (ratio - 1));

/**
 * The value of each ask around an estimate, and the best of them.
 * @param net what is left of a price
 * @param holding a week, in the same currency
 */
export function askCurve(
  estimate: number,
  hazard: Hazard,
  net: (price: number) => number,
  holding: number,
  settings = PATIENCE_SETTINGS,
): { readonly points: readonly AskPoint[]; readonly best: AskPoint } {
  const points = Array.from({ length: 27 }, (_, i): AskPoint => {
    const ratio = Math.round((0.7 + i * 0.03) * 100) / 100;
    const price = estimate * ratio;
    const left = net(price);
    const value = valueOfAsking(ratio, left, hazard, holding, settings);
    return { ratio, price, weeks: 1 / rateAt(hazard, ratio), net: left, value };
  });
  const best = points.reduce((a, b) => (b.value > a.value ? b : a));
  return { points, best };
}

export type OfferAdvice = 'take' | 'counter' | 'wait';
export interface OfferJudgement {
  readonly advice: OfferAdvice;
  /** what is left of the offer, and what waiting is worth in money of today */
  readonly net: number;
  readonly waiting: number;
  /** a price to counter at; the offer's own when it is to be taken */
  readonly counter: number;
}

/** Below this share of what waiting is worth there is nothing to talk about. */
const TALK_FROM = 0.7;

/** @param floor not below, where the shop has said so */
export function judgeOffer(
  offer: number,
  ask: number,
  best: AskPoint,
  net: (price: number) => number,
  floor: number | undefined,
): OfferJudgement {
  const left = net(offer);
  // whoever waits gets what is asked, and no more
  const waiting = Math.min(best.value, net(ask));
  const least = floor ?? 0;
  const enough = offer >= ask || (left >= waiting && offer >= least);
  // between the offer and the ask, where what is left is at least what waiting is worth
  const middle = Math.min(ask, Math.max(least, offer, (offer + ask) / 2));
  const counter = enough
    ? offer
    : net(middle) >= waiting
      ? middle
      : Math.min(ask, Math.max(least, best.price));
  return {
    advice: enough ? 'take' : left < TALK_FROM * waiting ? 'wait' : 'counter',
    net: left,
    waiting,
    counter,
  };
}
