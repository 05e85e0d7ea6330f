/**
 * The assumptions of the simulated markets, and the kinds of market that are drawn. What is drawn for a world – curve of
 * condition, worth of a box, noise of each venue – is drawn around these, never set to them; a kind draws some of them
 * from ranges in which real markets differ. The engine is tried on every kind with one set of settings.
 */
import type { Random } from '@jutbank/core/random';

export const PARAMETERS = {
  constructions: ['slipjoint', 'locking-folder', 'fixed', 'bayonet'],
  makers: 9,
  patternsPerMaker: [2, 6],
  variantsPerPattern: [2, 9],
  kinds: ['production', 'limited', 'service', 'exclusive'],
  materials: ['scale-material horn', 'scale-material bone', 'scale-material fibre', 'scale-material wood'],
  steels: ['blade-steel carbon', 'blade-steel stainless'],
  /** ln of what an ordinary piece brings in base currency */
  level: 4.7,
  constructionSd: 0.3,
  makerSd: 0.35,
  patternSd: 0.35,
  variantSd: 0.25,
  venueSd: 0.06,
  kindSd: 0.3,
  materialSd: 0.12,
  /** drawn for every world: mean and deviation */
  quantity: [-0.06, 0.03],
  decade: [-0.03, 0.02],
  tideStep: [0.04, 0.01],
  makerTideStep: 0.03,
  slope: [1, 0.3],
  bends: [0.3, 0.25],
  box: [0.12, 0.05],
  papers: [0.06, 0.02],
  sheath: [0.15, 0.05],
  later: [0.03, 0.02],
  alterations: {
    reground: -0.3,
    refinished: -0.22,
    replaced: -0.18,
    repaired: -0.15,
    engraved: -0.12,
    polished: -0.1,
    named: -0.05,
  },
  alterationSd: 0.06,
  altered: 0.12,
  venueKinds: { auction: -0.1, retail: 0.1, fair: 0, private: -0.15, online: -0.03 },
  venueKindSd: 0.05,
  venueKindShare: { auction: 0.25, retail: 0.15, fair: 0.15, private: 0.1, online: 0.35 },
  venuesPerKind: 5,
  venueTold: 0.8,
  asking: [0.35, 0.08],
  askingShare: 0.25,
  /** share of an asking price's noise that all asking prices for one variant have in common */
  askingCommon: 0.35,
  askingNoise: 1.4,
  offerShare: 0.03,
  offer: -0.35,
  /** Student t with so many degrees of freedom, and its scale by venue, drawn around this */
  degreesOfFreedom: 6,
  noise: 0.2,
  noiseSpread: 0.25,
  grossShare: 0.03,
  grossSd: 1.5,
  /** share of prices whose condition is told as an index, and as a grade word */
  conditionAsIndex: 0.6,
  conditionAsGrade: 0.2,
  /** how far a grade word lies from the index behind it */
  gradeSpread: 5,
  itemStated: 0.75,
  /** at auctions; and elsewhere, where nothing is to be added */
  premiumTold: 0.7,
  noPremiumTold: 1,
  premium: 22,
  postageIncluded: 0.3,
  postage: 9,
  currencies: { EUR: 0.55, GBP: 0.2, SEK: 0.15, USD: 0.1 },
  rates: { EUR: 1, GBP: 0.85, SEK: 11.3, USD: 1.1 },
  rateStep: 0.004,
  /** sales per variant fall as a power of its rank */
  uneven: 1.1,
  /** how many sales are known, where the kind of market says so */
  sales: undefined as number | undefined,
} as const;

type Widened<T> = T extends number
  ? number
  : T extends readonly [number, number]
    ? readonly [number, number]
    : T extends readonly string[]
      ? T
      : { readonly [K in keyof T]: Widened<T[K]> };
export type MarketParameters = {
  readonly [K in keyof typeof PARAMETERS]: K extends 'sales'
    ? number | undefined
    : Widened<(typeof PARAMETERS)[K]>;
};

type Draw = (luck: Random) => Partial<MarketParameters>;

/** What market differs from market in; each draws its own parameters for every world. */
export const KINDS = {
  'as expected': () => ({}),
  'premium empty outside auctions': (luck) => ({
    noPremiumTold: luck.between(0, 0.15),
    premiumTold: luck.between(0.4, 0.9),
    premium: luck.between(15, 30),
  }),
  'heavy tails': (luck) => ({ degreesOfFreedom: luck.between(2.6, 3.6) }),
  'light tails': (luck) => ({ degreesOfFreedom: luck.between(15, 40), grossShare: luck.between(0, 0.01) }),
  'many gross errors': (luck) => ({ grossShare: luck.between(0.08, 0.14), grossSd: luck.between(1, 2) }),
  'strong venues': (luck) => ({ venueSd: luck.between(0.12, 0.2), venueKindSd: luck.between(0.1, 0.2) }),
  'weak venues': (luck) => ({ venueSd: luck.between(0.005, 0.02), venueKindSd: 0.02 }),
  'asks far above': (luck) => ({
    asking: [luck.between(0.6, 0.9), 0.08],
    askingNoise: luck.between(1.8, 2.6),
    askingCommon: luck.between(0.5, 0.8),
    askingShare: luck.between(0.35, 0.6),
  }),
  'asks near sales': (luck) => ({
    asking: [luck.between(0, 0.12), 0.04],
    askingNoise: luck.between(0.8, 1.1),
    askingCommon: luck.between(0, 0.2),
  }),
  sparse: (luck) => ({ sales: luck.whole(200, 400), uneven: luck.between(0.6, 1) }),
  rich: (luck) => ({ sales: luck.whole(5000, 7000), uneven: luck.between(1, 1.4) }),
  quiet: (luck) => ({ noise: luck.between(0.06, 0.1), noiseSpread: luck.between(0.1, 0.3) }),
  noisy: (luck) => ({ noise: luck.between(0.38, 0.5), noiseSpread: luck.between(0.3, 0.5) }),
  'little told': (luck) => ({
    conditionAsIndex: luck.between(0.1, 0.25),
    conditionAsGrade: luck.between(0.3, 0.5),
    itemStated: luck.between(0.2, 0.5),
    venueTold: luck.between(0.2, 0.5),
  }),
  'forms far apart': (luck) => ({
    variantSd: luck.between(0.4, 0.6),
    patternSd: luck.between(0.5, 0.7),
    makerSd: luck.between(0.5, 0.7),
  }),
  'fast prices': (luck) => ({
    tideStep: [luck.between(0.07, 0.11), 0.01],
    makerTideStep: luck.between(0.05, 0.08),
  }),
} satisfies Record<string, Draw>;
export type Kind = keyof typeof KINDS;
export const KIND_NAMES = Object.keys(KINDS) as Kind[];

/** A kind that the engine was never run on while it was made: looked at last. */
export const KEPT_FOR_LAST: Draw = (luck) => ({
  noPremiumTold: luck.between(0, 1),
  degreesOfFreedom: luck.between(3, 12),
  grossShare: luck.between(0.01, 0.08),
  venueSd: luck.between(0.02, 0.14),
  noise: luck.between(0.12, 0.32),
  noiseSpread: luck.between(0.2, 0.5),
  asking: [luck.between(0.1, 0.7), 0.1],
  askingCommon: luck.between(0.1, 0.7),
  askingShare: luck.between(0.1, 0.5),
  variantSd: luck.between(0.15, 0.45),
  slope: [luck.between(0.7, 1.8), 0.2],
  bends: [luck.between(0, 0.8), 0.3],
  sales: luck.whole(400, 5000),
  uneven: luck.between(0.7, 1.3),
});
