/** Prior means and deviations of the price regression, on natural logs (engines.md, Valuation). */
import type { Alteration, VenueKind } from './comparable.ts';

export const VALUE_ENGINE_VERSION = 'value-4';

export interface Prior {
  readonly mean: number;
  readonly sd: number;
}
const prior = (mean: number, sd: number): Prior => ({ mean, sd });

export const VALUE_SETTINGS = {
  level: prior(4.5, 3),
  construction: prior(0, 0.3),
  conditionKnots: [0.5, 0.7, 0.85, 0.95],
  conditionSlope: prior(1, 0.5),
  conditionBend: prior(0.4, 0.6),
  constructionSlope: prior(0, 0.2),
  /** what is sold without a word on its condition */
  conditionUntold: prior(0, 0.1),
  /** index assumed where none is stated and no row states one */
  usualCondition: 75,
  boxOriginal: prior(0.12, 0.1),
  papersOriginal: prior(0.06, 0.1),
  sheathOriginal: prior(0.15, 0.1),
  later: prior(0.03, 0.1),
  notStated: prior(0.04, 0.1),
  alterations: {
    reground: prior(-0.3, 0.12),
    refinished: prior(-0.22, 0.12),
    replaced: prior(-0.18, 0.12),
    repaired: prior(-0.15, 0.12),
    engraved: prior(-0.12, 0.12),
    polished: prior(-0.1, 0.12),
    named: prior(-0.05, 0.12),
  } satisfies Record<Alteration, Prior>,
  venues: {
    auction: prior(-0.1, 0.1),
    retail: prior(0.1, 0.1),
    private: prior(-0.15, 0.1),
    online: prior(-0.03, 0.1),
    fair: prior(0, 0.1),
  } satisfies Record<VenueKind, Prior>,
  /** asking prices say how they stand to sales, not how high sales are: their distance to sales is left free */
  asking: prior(0.35, 30),
  offer: prior(-0.35, 0.2),
  /** an auction that does not tell its buyer's premium; elsewhere there is hardly one */
  premiumUntold: prior(-0.09, 0.06),
  premiumUntoldElsewhere: prior(0, 0.02),
  kind: prior(0, 0.4),
  quantity: prior(-0.06, 0.08),
  /** per decade */
  decade: prior(0, 0.05),
  /** deviations that are learned, held to these by `varianceHold` members */
  sd: { maker: 0.35, pattern: 0.35, variant: 0.25, venue: 0.06, material: 0.12 },
  varianceHold: 8,
  /** members by which a learned deviation is held to these: a market may differ much from what is expected */
  spreadHold: 3,
  /** steps of the market as a whole and of one maker's, each half-year */
  tideStep: 0.04,
  makerTideStep: 0.03,
  /** steps of what sellers hope for above what buyers pay */
  askTideStep: 0.05,
  daysPerStep: 182.625,
  /** a maker's own tide from so many prices on, for so many makers */
  makerTideFrom: 80,
  makerTides: 20,
  /** a venue's own coefficient from so many prices on, for so many venues */
  venueFrom: 6,
  mostVenues: 60,
  noise: 0.25,
  degreesOfFreedom: 6,
  /** sd of the log of the degrees of freedom from market to market */
  dfSpread: 0.5,
  /** noise of asking prices and offers against that of sales, before anything is learned */
  askingNoise: 1.5,
  /** sales by which a group's noise is held to that of all */
  noiseHold: 40,
  /** n asking prices for one variant weigh n/(1 + crowd·(n−1)) */
  askingCrowd: 0.35,
  /** sales of a variant by which what is asked for it counts half: sellers have seen them too */
  askingFade: 3,
  /** asking prices by which their correlation is held to that */
  opinionHold: 20,
  grossShare: 0.04,
  /** prices by which the share of gross errors is held to that */
  grossHold: 100,
  grossSd: 1.5,
  rounds: 30,
  /** what each of so many says hardly moves what all say: fewer rounds settle it */
  manyPrices: 5000,
  roundsOfMany: 14,
  /** rounds from a solution that is nearly right */
  warmRounds: 4,
  /** what the buyer pays for postage, in base currency, where the price contains it; learned from such prices */
  postage: prior(8, 4),
  share: 0.8,
  /** leave-one-out cases by which the interval's stretch is held to 1 */
  stretchHold: 50,
  /** sold pieces by which the house's own record is held to 1 */
  houseHold: 120,
  /** what ranges are multiplied by besides, from how those that the house stated have held */
  houseStretch: 1,
  thinBelow: 3,
} as const;

type Loose<T> = T extends number
  ? number
  : T extends readonly number[]
    ? readonly number[]
    : T extends object
      ? { readonly [K in keyof T]: Loose<T[K]> }
      : T;
export type ValueSettings = Loose<typeof VALUE_SETTINGS>;
