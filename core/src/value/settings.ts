/** Prior means and deviations of the price regression, on natural logs (engines.md, Valuation). */
import type { Alteration, VenueKind } from './comparable.ts';

export const VALUE_ENGINE_VERSION = 'value-1';

export interface Prior {
  readonly mean: number;
  readonly sd: number;
}
const prior = (mean: number, sd: number): Prior => ({ mean, sd });

export const VALUE_SETTINGS = {
  conditionKnots: [0.5, 0.7, 0.85, 0.95],
  conditionSlope: prior(1, 0.5),
  conditionBend: prior(0.4, 0.6),
  /** index assumed where none is stated */
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
  /** asking prices say how they stand to sales, not how high sales are: the discount is left free */
  asking: prior(0.35, 3),
  offer: prior(-0.35, 0.2),
  premiumUntold: prior(-0.09, 0.06),
  kind: prior(0, 0.4),
  construction: prior(0, 0.3),
  maker: 0.35,
  pattern: 0.35,
  variant: 0.25,
  venueSd: 0.06,
  /** half-yearly steps of the market as a whole */
  tideStep: 0.04,
  daysPerStep: 182.625,
  noise: 0.25,
  degreesOfFreedom: 5,
  askingNoise: 1.5,
  askingCrowd: 0.35,
  rounds: 14,
  /** sales by which a re-estimated variance is held to its prior */
  varianceHold: 20,
  /** what the buyer pays for postage, in base currency, where the price contains it */
  postage: 8,
  level: 0.8,
  thinBelow: 3,
};
export type ValueSettings = typeof VALUE_SETTINGS;
