/**
 * Simulated markets for the valuation engine: a reference, the truth behind its prices, and what a shop gets to see
 * of them. The parameters below are the whole of the generator's assumptions. What is drawn for a world – curve of
 * condition, worth of a box, noise of each venue – is drawn around the engine's defaults, never set to them.
 */
import { random, type Random } from '@jutbank/core/random';
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
} from '@jutbank/core/market';
import { PARAMETERS, type MarketParameters } from './parameters.ts';

export const TODAY = 20_600;
const BANDS = [30, 50, 62, 72, 82, 91, 97] as const;
export const VENUE_KINDS = Object.keys(PARAMETERS.venueKinds) as VenueKind[];
/** Days before today that the market knows. */
export const DAYS = 3300;
export const KNOTS = [0.5, 0.7, 0.85, 0.95] as const;
export const DAYS_PER_STEP = 182.625;
/** Half-years before today that the market knows. */
export const STEPS = Math.ceil(DAYS / DAYS_PER_STEP) + 1;

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
  readonly parameters: MarketParameters;
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
export function makeWorld(
  seed: number,
  usualSales: number,
  makers: number = PARAMETERS.makers,
  draw: (luck: Random) => Partial<MarketParameters> = () => ({}),
): World {
  const luck = random(seed);
  const p: MarketParameters = { ...PARAMETERS, ...draw(random(seed ^ 0x5bd1e995)) };
  const sales = p.sales ?? usualSales;
  const around = ([mean, sd]: readonly [number, number] | readonly number[]) =>
    (mean ?? 0) + (sd ?? 0) * luck.normal();
  const drawn = <K extends string>(keys: readonly K[], of: (key: K) => number) =>
    Object.fromEntries(keys.map((key) => [key, of(key)])) as Record<K, number>;
  const alterationNames = Object.keys(p.alterations) as Alteration[];
  const constants: Constants = {
    slope: Math.max(0.3, around(p.slope)),
    bends: KNOTS.map(() => Math.max(0, around(p.bends))),
    box: around(p.box),
    papers: around(p.papers),
    sheath: around(p.sheath),
    later: around(p.later),
    quantity: around(p.quantity),
    decade: around(p.decade),
    tideStep: Math.max(0.01, around(p.tideStep)),
    asking: around(p.asking),
    alterations: drawn(alterationNames, (a) => p.alterations[a] + p.alterationSd * luck.normal()),
    venueKinds: drawn(VENUE_KINDS, (v) => p.venueKinds[v] + p.venueKindSd * luck.normal()),
    noise: drawn(VENUE_KINDS, () => p.noise * Math.exp(p.noiseSpread * luck.normal())),
    kinds: drawn(p.kinds, () => p.kindSd * luck.normal()),
    materials: drawn([...p.materials, ...p.steels], () => p.materialSd * luck.normal()),
    constructions: drawn(p.constructions, () => p.constructionSd * luck.normal()),
  };
  const patterns: MarketPattern[] = [];
  const variants: MarketVariant[] = [];
  const effects = new Map<string, number>();
  const makerTides = new Map<string, Float64Array>();
  for (let m = 0; m < makers; m++) {
    effects.set(`m${m}`, p.makerSd * luck.normal());
    makerTides.set(`m${m}`, walk(luck, p.makerTideStep));
    const count = luck.whole(p.patternsPerMaker[0], p.patternsPerMaker[1]);
    for (let k = 0; k < count; k++) {
      const pattern = {
        id: `m${m}-p${k}`,
        maker: `m${m}`,
        construction: luck.pick(p.constructions),
      };
      patterns.push(pattern);
      effects.set(pattern.id, p.patternSd * luck.normal());
      const forms = luck.whole(p.variantsPerPattern[0], p.variantsPerPattern[1]);
      for (let v = 0; v < forms; v++) {
        const id = `${pattern.id}-v${v}`;
        variants.push({
          id,
          pattern: pattern.id,
          kind: luck.pick(p.kinds),
          materials: [luck.pick(p.materials), luck.pick(p.steels)],
          quantity: luck.yes(0.6) ? Math.round(Math.exp(6 + 2.5 * luck.normal())) + 20 : undefined,
          year: luck.yes(0.9) ? luck.whole(1905, 2015) : undefined,
        });
        effects.set(id, p.variantSd * luck.normal());
      }
    }
  }
  const reference: MarketReference = {
    patterns: new Map(patterns.map((p) => [p.id, p])),
    variants: new Map(variants.map((v) => [v.id, v])),
  };
  const venues = new Map(
    VENUE_KINDS.flatMap((kind) =>
      Array.from({ length: p.venuesPerKind }, (_, k) => [`${kind} house ${k}`, p.venueSd * luck.normal()]),
    ),
  );
  const tide = walk(luck, constants.tideStep);
  const askingOpinion = new Map(variants.map((v) => [v.id, luck.normal()]));
  const rates = rateWalks(luck, p);
  const rateOn = (currency: string, day: number) =>
    rates[currency]?.[Math.max(0, Math.min(DAYS, day - (TODAY - DAYS)))];
  // an uneven market: the share of the r-th variant falls with its rank
  const order = [...variants].sort(() => luck.next() - 0.5);
  const cumulative: number[] = [];
  order.forEach((_, r) => cumulative.push((cumulative[r - 1] ?? 0) + (r + 2) ** -p.uneven));
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
      p.level +
      fixedPart(constants, variant, pattern, index, s) +
      (effects.get(pattern?.maker ?? '') ?? 0) +
      (effects.get(variant.pattern) ?? 0) +
      (effects.get(variant.id) ?? 0) +
      (venues.get(venue) ?? 0) +
      along(tide, day) +
      along(makerTides.get(pattern?.maker ?? '') ?? tide, day)
    );
  };
  const t = () => studentDraw(luck, p.degreesOfFreedom);
  const seen = (): Seen => ({
    venueKind: byWeight(luck, p.venueKindShare),
    box: luck.yes(0.3) ? 'original' : luck.yes(0.15) ? 'later' : 'none',
    papers: luck.yes(0.2) ? 'original' : 'none',
    sheath: luck.yes(0.5) ? 'not-applicable' : luck.yes(0.5) ? 'original' : 'none',
    alterations: luck.yes(p.altered) ? [luck.pick(alterationNames)] : [],
  });
  const bandOf = (index: number) =>
    BANDS.reduce((a, b) => (Math.abs(b - index) < Math.abs(a - index) ? b : a));
  const drawIndex = () => Math.round(Math.min(100, Math.max(15, 78 + 14 * luck.normal())));

  const made = Array.from({ length: sales }, (_, i): Comparable => {
    const variant = byShare() ?? variants[0];
    if (!variant) throw new Error('a world without variants');
    const s = seen();
    const index = drawIndex();
    const day = TODAY - Math.floor(luck.next() ** 1.3 * DAYS);
    const venue = `${s.venueKind} house ${luck.whole(0, p.venuesPerKind - 1)}`;
    const priceKind: PriceKind = luck.yes(p.askingShare)
      ? 'asking'
      : luck.yes(p.offerShare)
        ? 'offer'
        : 'sold';
    const scale = constants.noise[s.venueKind];
    let y = truth(variant, index, s, venue, day);
    if (priceKind === 'asking') {
      const own = Math.sqrt(1 - p.askingCommon) * t();
      const common = Math.sqrt(p.askingCommon) * (askingOpinion.get(variant.id) ?? 0);
      y += constants.asking + p.askingNoise * scale * (own + common);
    } else y += (priceKind === 'offer' ? p.offer : 0) + scale * t();
    if (luck.yes(p.grossShare)) y += p.grossSd * luck.normal();
    const paid = Math.exp(y);
    const shippingIncluded = luck.yes(p.postageIncluded);
    const premium = s.venueKind === 'auction' && priceKind === 'sold' ? p.premium : 0;
    const told = luck.yes(premium === 0 ? p.noPremiumTold : p.premiumTold);
    const currency = byWeight(luck, p.currencies);
    const inBase = paid / (1 + premium / 100) + (shippingIncluded ? p.postage : 0);
    const amount = Math.max(0.5, inBase * (rateOn(currency, day) ?? 1));
    const known = luck.next();
    const shownIndex =
      known < p.conditionAsIndex
        ? index
        : known < p.conditionAsIndex + p.conditionAsGrade
          ? bandOf(Math.min(100, Math.max(0, index + p.gradeSpread * luck.normal())))
          : undefined;
    const stated = (state: ItemState) => (luck.yes(p.itemStated) ? state : undefined);
    return {
      id: `s${String(i).padStart(7, '0')}`,
      day,
      price: money(amount.toFixed(2), currency),
      priceKind,
      venueKind: s.venueKind,
      venue: luck.yes(p.venueTold) ? venue : undefined,
      pattern: variant.pattern,
      variant: luck.yes(0.95) ? variant.id : undefined,
      conditionIndex: shownIndex,
      ...(shownIndex !== undefined && known >= p.conditionAsIndex ? { conditionBy: 'grade' as const } : {}),
      box: stated(s.box),
      papers: stated(s.papers),
      sheath: s.sheath === 'not-applicable' ? s.sheath : stated(s.sheath),
      alterations: s.alterations,
      buyerPremiumPct: told ? premium : undefined,
      shippingIncluded,
    };
  });
  return {
    parameters: p,
    reference,
    constants,
    sales: made,
    rateOn,
    ask: () => {
      // half as the market sells, half evenly over all variants, so that the rare ones are asked for too
      const variant = (luck.yes(0.5) ? byShare() : luck.pick(variants)) ?? luck.pick(variants);
      const s = seen();
      const index = drawIndex();
      const venue = `${s.venueKind} house ${luck.whole(0, p.venuesPerKind - 1)}`;
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

function walk(luck: Random, step: number): Float64Array {
  const out = new Float64Array(STEPS + 1);
  for (let k = 1; k < out.length; k++) out[k] = (out[k - 1] ?? 0) + step * luck.normal();
  return out;
}
/** Where a day lies along the half-years: the step before it, and how far on. */
export function stepOf(day: number): { step: number; share: number } {
  const place = Math.max(0, (day - (TODAY - DAYS)) / DAYS_PER_STEP);
  const step = Math.min(STEPS - 1, Math.floor(place));
  return { step, share: place - step };
}
function along(values: Float64Array, day: number): number {
  const { step, share } = stepOf(day);
  return (1 - share) * (values[step] ?? 0) + share * (values[step + 1] ?? 0);
}

function rateWalks(luck: Random, p: MarketParameters): Record<string, Float64Array> {
  return Object.fromEntries(
    Object.entries(p.rates).map(([currency, start]) => {
      const days = new Float64Array(DAYS + 1);
      days[0] = start;
      for (let d = 1; d < days.length; d++)
        days[d] = (days[d - 1] ?? start) * (currency === 'EUR' ? 1 : Math.exp(p.rateStep * luck.normal()));
      return [currency, days];
    }),
  );
}

function byWeight<K extends string>(luck: Random, weights: Readonly<Record<K, number>>): K {
  const keys = Object.keys(weights) as K[];
  let at = luck.next() * keys.reduce((sum, key) => sum + weights[key], 0);
  for (const key of keys) {
    at -= weights[key];
    if (at < 0) return key;
  }
  return luck.pick(keys);
}

/** A draw from the unit t with any degrees of freedom (Bailey's polar method). */
function studentDraw(luck: Random, df: number): number {
  for (;;) {
    const [u, v] = [2 * luck.next() - 1, 2 * luck.next() - 1];
    const w = u * u + v * v;
    if (w > 0 && w < 1) return u * Math.sqrt((df * (Math.pow(w, -2 / df) - 1)) / w);
  }
}
