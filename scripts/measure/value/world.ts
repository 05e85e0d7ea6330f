/**
 * Simulated markets for the valuation engine: a reference, the truth behind its prices, and what a shop gets to see
 * of them. The parameters below are the whole of the generator's assumptions. What is drawn for a world – curve of
 * condition, worth of a box, noise of each venue – is drawn around the engine's defaults, never set to them.
 */
import { chance, type Chance } from '@jutbank/core/chance';
import { money } from '@jutbank/core/money';
import type {
  Alteration,
  Comparable,
  EstimateSubject,
  ItemState,
  MarketPattern,
  MarketReference,
  MarketVariant,
  PriceKind,
  VenueKind,
} from '@jutbank/core/value';

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
  sd: {
    construction: 0.3,
    maker: 0.35,
    pattern: 0.35,
    variant: 0.25,
    venue: 0.06,
    kind: 0.3,
    material: 0.12,
  },
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
  conditionKnown: { index: 0.6, grade: 0.2 },
  /** how far a grade word lies from the index behind it */
  gradeSpread: 5,
  itemStated: 0.75,
  premiumTold: 0.7,
  premium: 22,
  postageIncluded: 0.3,
  postage: 9,
  currencies: { EUR: 0.55, GBP: 0.2, SEK: 0.15, USD: 0.1 } as Record<string, number>,
  rates: { EUR: 1, GBP: 0.85, SEK: 11.3, USD: 1.1 } as Record<string, number>,
  rateStep: 0.004,
  days: 3300,
  /** sales per variant fall as a power of its rank */
  uneven: 1.1,
} as const;

export const TODAY = 20_600;
const BANDS = [30, 50, 62, 72, 82, 91, 97] as const;
export const VENUE_KINDS = Object.keys(PARAMETERS.venueKinds) as VenueKind[];
export const KNOTS = [0.5, 0.7, 0.85, 0.95] as const;
export const DAYS_PER_STEP = 182.625;
/** Half-years before today that the market knows. */
export const STEPS = Math.ceil(PARAMETERS.days / DAYS_PER_STEP) + 1;

/** The constants of one world: what the oracle knows. */
export interface Constants {
  readonly slope: number;
  readonly bends: readonly number[];
  readonly box: number;
  readonly papers: number;
  readonly sheath: number;
  readonly later: number;
  readonly quantity: number;
  readonly decade: number;
  readonly tideStep: number;
  readonly asking: number;
  readonly alterations: Readonly<Record<Alteration, number>>;
  readonly venueKinds: Readonly<Record<VenueKind, number>>;
  readonly noise: Readonly<Record<VenueKind, number>>;
  readonly kinds: Readonly<Record<string, number>>;
  readonly materials: Readonly<Record<string, number>>;
  readonly constructions: Readonly<Record<string, number>>;
}
export interface World {
  readonly reference: MarketReference;
  readonly constants: Constants;
  readonly sales: readonly Comparable[];
  readonly rateOn: (currency: string, day: number) => number | undefined;
  /** a sound sale of today, never among the sales */
  ask(): Question;
}
export interface Question {
  readonly subject: EstimateSubject;
  readonly venueKind: VenueKind;
  readonly variant: MarketVariant;
  /** ln of what the buyer really paid */
  readonly outcome: number;
}

/** @param grown how many further sales there are for one that was drawn: markets of 100,000 have more variants too */
export function makeWorld(seed: number, sales: number, makers: number = PARAMETERS.makers): World {
  const luck = chance(seed);
  const around = ([mean, sd]: readonly [number, number] | readonly number[]) =>
    (mean ?? 0) + (sd ?? 0) * luck.normal();
  const sd = PARAMETERS.sd;
  const drawn = <K extends string>(keys: readonly K[], of: (key: K) => number) =>
    Object.fromEntries(keys.map((key) => [key, of(key)])) as Record<K, number>;
  const alterationNames = Object.keys(PARAMETERS.alterations) as Alteration[];
  const constants: Constants = {
    slope: Math.max(0.3, around(PARAMETERS.slope)),
    bends: KNOTS.map(() => Math.max(0, around(PARAMETERS.bends))),
    box: around(PARAMETERS.box),
    papers: around(PARAMETERS.papers),
    sheath: around(PARAMETERS.sheath),
    later: around(PARAMETERS.later),
    quantity: around(PARAMETERS.quantity),
    decade: around(PARAMETERS.decade),
    tideStep: Math.max(0.01, around(PARAMETERS.tideStep)),
    asking: around(PARAMETERS.asking),
    alterations: drawn(
      alterationNames,
      (a) => PARAMETERS.alterations[a] + PARAMETERS.alterationSd * luck.normal(),
    ),
    venueKinds: drawn(VENUE_KINDS, (v) => PARAMETERS.venueKinds[v] + PARAMETERS.venueKindSd * luck.normal()),
    noise: drawn(VENUE_KINDS, () => PARAMETERS.noise * Math.exp(PARAMETERS.noiseSpread * luck.normal())),
    kinds: drawn(PARAMETERS.kinds, () => sd.kind * luck.normal()),
    materials: drawn([...PARAMETERS.materials, ...PARAMETERS.steels], () => sd.material * luck.normal()),
    constructions: drawn(PARAMETERS.constructions, () => sd.construction * luck.normal()),
  };
  const patterns: MarketPattern[] = [];
  const variants: MarketVariant[] = [];
  const effects = new Map<string, number>();
  const makerTides = new Map<string, Float64Array>();
  for (let m = 0; m < makers; m++) {
    effects.set(`m${m}`, sd.maker * luck.normal());
    makerTides.set(`m${m}`, walk(luck, PARAMETERS.makerTideStep));
    const count = luck.whole(PARAMETERS.patternsPerMaker[0], PARAMETERS.patternsPerMaker[1]);
    for (let p = 0; p < count; p++) {
      const pattern = {
        id: `m${m}-p${p}`,
        maker: `m${m}`,
        construction: luck.pick(PARAMETERS.constructions),
      };
      patterns.push(pattern);
      effects.set(pattern.id, sd.pattern * luck.normal());
      const forms = luck.whole(PARAMETERS.variantsPerPattern[0], PARAMETERS.variantsPerPattern[1]);
      for (let v = 0; v < forms; v++) {
        const id = `${pattern.id}-v${v}`;
        variants.push({
          id,
          pattern: pattern.id,
          kind: luck.pick(PARAMETERS.kinds),
          materials: [luck.pick(PARAMETERS.materials), luck.pick(PARAMETERS.steels)],
          quantity: luck.yes(0.6) ? Math.round(Math.exp(6 + 2.5 * luck.normal())) + 20 : undefined,
          year: luck.yes(0.9) ? luck.whole(1905, 2015) : undefined,
        });
        effects.set(id, sd.variant * luck.normal());
      }
    }
  }
  const reference: MarketReference = {
    patterns: new Map(patterns.map((p) => [p.id, p])),
    variants: new Map(variants.map((v) => [v.id, v])),
  };
  const venues = new Map(
    VENUE_KINDS.flatMap((kind) =>
      Array.from({ length: PARAMETERS.venuesPerKind }, (_, k) => [
        `${kind} house ${k}`,
        sd.venue * luck.normal(),
      ]),
    ),
  );
  const tide = walk(luck, constants.tideStep);
  const askingOpinion = new Map(variants.map((v) => [v.id, luck.normal()]));
  const rates = rateWalks(luck);
  const rateOn = (currency: string, day: number) =>
    rates[currency]?.[Math.max(0, Math.min(PARAMETERS.days, day - (TODAY - PARAMETERS.days)))];
  // an uneven market: the share of the r-th variant falls with its rank
  const order = [...variants].sort(() => luck.next() - 0.5);
  const cumulative: number[] = [];
  order.forEach((_, r) => cumulative.push((cumulative[r - 1] ?? 0) + (r + 2) ** -PARAMETERS.uneven));
  const byShare = () => {
    const at = luck.next() * (cumulative.at(-1) ?? 1);
    let [low, high] = [0, cumulative.length - 1];
    while (low < high) {
      const middle = (low + high) >> 1;
      if ((cumulative[middle] ?? 0) < at) low = middle + 1;
      else high = middle;
    }
    return order[low] ?? order[0];
  };

  /** ln of what a sound buyer pays, without noise */
  const truth = (variant: MarketVariant, index: number, s: Seen, venue: string, day: number): number => {
    const pattern = reference.patterns.get(variant.pattern);
    return (
      PARAMETERS.level +
      fixedPart(constants, variant, pattern, index, s) +
      (effects.get(pattern?.maker ?? '') ?? 0) +
      (effects.get(variant.pattern) ?? 0) +
      (effects.get(variant.id) ?? 0) +
      (venues.get(venue) ?? 0) +
      along(tide, day) +
      along(makerTides.get(pattern?.maker ?? '') ?? tide, day)
    );
  };
  const t = () => studentDraw(luck, PARAMETERS.degreesOfFreedom);
  const seen = (): Seen => ({
    venueKind: byWeight(luck, PARAMETERS.venueKindShare),
    box: luck.yes(0.3) ? 'original' : luck.yes(0.15) ? 'later' : 'none',
    papers: luck.yes(0.2) ? 'original' : 'none',
    sheath: luck.yes(0.5) ? 'not-applicable' : luck.yes(0.5) ? 'original' : 'none',
    alterations: luck.yes(PARAMETERS.altered) ? [luck.pick(alterationNames)] : [],
  });
  const bandOf = (index: number) =>
    BANDS.reduce((a, b) => (Math.abs(b - index) < Math.abs(a - index) ? b : a));
  const drawIndex = () => Math.round(Math.min(100, Math.max(15, 78 + 14 * luck.normal())));

  const made = Array.from({ length: sales }, (_, i): Comparable => {
    const variant = byShare() ?? variants[0];
    if (!variant) throw new Error('a world without variants');
    const s = seen();
    const index = drawIndex();
    const day = TODAY - Math.floor(luck.next() ** 1.3 * PARAMETERS.days);
    const venue = `${s.venueKind} house ${luck.whole(0, PARAMETERS.venuesPerKind - 1)}`;
    const priceKind: PriceKind = luck.yes(PARAMETERS.askingShare)
      ? 'asking'
      : luck.yes(PARAMETERS.offerShare)
        ? 'offer'
        : 'sold';
    const scale = constants.noise[s.venueKind];
    let y = truth(variant, index, s, venue, day);
    if (priceKind === 'asking') {
      const own = Math.sqrt(1 - PARAMETERS.askingCommon) * t();
      const common = Math.sqrt(PARAMETERS.askingCommon) * (askingOpinion.get(variant.id) ?? 0);
      y += constants.asking + PARAMETERS.askingNoise * scale * (own + common);
    } else y += (priceKind === 'offer' ? PARAMETERS.offer : 0) + scale * t();
    if (luck.yes(PARAMETERS.grossShare)) y += PARAMETERS.grossSd * luck.normal();
    const paid = Math.exp(y);
    const shippingIncluded = luck.yes(PARAMETERS.postageIncluded);
    const premium = s.venueKind === 'auction' && priceKind === 'sold' ? PARAMETERS.premium : 0;
    const told = premium === 0 || luck.yes(PARAMETERS.premiumTold);
    const currency = byWeight(luck, PARAMETERS.currencies);
    const inBase = paid / (1 + premium / 100) + (shippingIncluded ? PARAMETERS.postage : 0);
    const amount = Math.max(0.5, inBase * (rateOn(currency, day) ?? 1));
    const known = luck.next();
    const shownIndex =
      known < PARAMETERS.conditionKnown.index
        ? index
        : known < PARAMETERS.conditionKnown.index + PARAMETERS.conditionKnown.grade
          ? bandOf(Math.min(100, Math.max(0, index + PARAMETERS.gradeSpread * luck.normal())))
          : undefined;
    const stated = (state: ItemState) => (luck.yes(PARAMETERS.itemStated) ? state : undefined);
    return {
      id: `s${String(i).padStart(7, '0')}`,
      day,
      price: money(amount.toFixed(2), currency),
      priceKind,
      venueKind: s.venueKind,
      venue: luck.yes(PARAMETERS.venueTold) ? venue : undefined,
      pattern: variant.pattern,
      variant: luck.yes(0.95) ? variant.id : undefined,
      conditionIndex: shownIndex,
      ...(shownIndex !== undefined && known >= PARAMETERS.conditionKnown.index
        ? { conditionBy: 'grade' as const }
        : {}),
      box: stated(s.box),
      papers: stated(s.papers),
      sheath: s.sheath === 'not-applicable' ? s.sheath : stated(s.sheath),
      alterations: s.alterations,
      buyerPremiumPct: told ? premium : undefined,
      shippingIncluded,
    };
  });
  return {
    reference,
    constants,
    sales: made,
    rateOn,
    ask: () => {
      // half as the market sells, half evenly over all variants, so that the rare ones are asked for too
      const variant = (luck.yes(0.5) ? byShare() : luck.pick(variants)) ?? luck.pick(variants);
      const s = seen();
      const index = drawIndex();
      const venue = `${s.venueKind} house ${luck.whole(0, PARAMETERS.venuesPerKind - 1)}`;
      return {
        subject: {
          pattern: variant.pattern,
          variants: [{ variant: variant.id, probability: 1 }],
          conditionIndex: index,
          box: s.box,
          papers: s.papers,
          sheath: s.sheath,
          alterations: s.alterations,
        },
        venueKind: s.venueKind,
        variant,
        outcome: truth(variant, index, s, venue, TODAY) + constants.noise[s.venueKind] * t(),
      };
    },
  };
}

/** What a price shows besides its variant, condition and day. */
export interface Seen {
  readonly venueKind: VenueKind;
  readonly box: ItemState;
  readonly papers: ItemState;
  readonly sheath: ItemState;
  readonly alterations: readonly Alteration[];
}

/** ln of what the constants of a world say of a piece, its random effects left out. @param index 0–100 */
export function fixedPart(
  constants: Constants,
  variant: MarketVariant | undefined,
  pattern: MarketPattern | undefined,
  index: number,
  s: Seen,
): number {
  const x = index / 100;
  const item = (state: ItemState, worth: number) =>
    state === 'original' ? worth : state === 'later' ? constants.later : 0;
  return (
    constants.slope * (x - 0.75) +
    KNOTS.reduce(
      (sum, knot, k) => sum + (constants.bends[k] ?? 0) * (Math.max(0, x - knot) - Math.max(0, 0.75 - knot)),
      0,
    ) +
    item(s.box, constants.box) +
    item(s.papers, constants.papers) +
    item(s.sheath, constants.sheath) +
    s.alterations.reduce((sum, a) => sum + constants.alterations[a], 0) +
    constants.venueKinds[s.venueKind] +
    (constants.constructions[pattern?.construction ?? ''] ?? 0) +
    (variant
      ? (constants.kinds[variant.kind] ?? 0) +
        (variant.materials ?? []).reduce((sum, m) => sum + (constants.materials[m] ?? 0), 0) +
        (variant.quantity === undefined ? 0 : constants.quantity * Math.log(variant.quantity / 1000)) +
        (variant.year === undefined ? 0 : (constants.decade * (variant.year - 1950)) / 10)
      : 0)
  );
}

function walk(luck: Chance, step: number): Float64Array {
  const out = new Float64Array(STEPS + 1);
  for (let k = 1; k < out.length; k++) out[k] = (out[k - 1] ?? 0) + step * luck.normal();
  return out;
}
/** Where a day lies along the half-years: the step before it, and how far on. */
export function stepOf(day: number): { step: number; share: number } {
  const place = Math.max(0, (day - (TODAY - PARAMETERS.days)) / DAYS_PER_STEP);
  const step = Math.min(STEPS - 1, Math.floor(place));
  return { step, share: place - step };
}
function along(values: Float64Array, day: number): number {
  const { step, share } = stepOf(day);
  return (1 - share) * (values[step] ?? 0) + share * (values[step + 1] ?? 0);
}

function rateWalks(luck: Chance): Record<string, Float64Array> {
  return Object.fromEntries(
    Object.entries(PARAMETERS.rates).map(([currency, start]) => {
      const days = new Float64Array(PARAMETERS.days + 1);
      days[0] = start;
      for (let d = 1; d < days.length; d++)
        days[d] =
          (days[d - 1] ?? start) * (currency === 'EUR' ? 1 : Math.exp(PARAMETERS.rateStep * luck.normal()));
      return [currency, days];
    }),
  );
}

function byWeight<K extends string>(luck: Chance, weights: Readonly<Record<K, number>>): K {
  const keys = Object.keys(weights) as K[];
  let at = luck.next() * keys.reduce((sum, key) => sum + weights[key], 0);
  for (const key of keys) {
    at -= weights[key];
    if (at < 0) return key;
  }
  return luck.pick(keys);
}

/** A draw from the unit t: a normal over the root of a mean of squares. */
function studentDraw(luck: Chance, df: number): number {
  let squares = 0;
  for (let k = 0; k < df; k++) squares += luck.normal() ** 2;
  return luck.normal() / Math.sqrt(squares / df);
}
