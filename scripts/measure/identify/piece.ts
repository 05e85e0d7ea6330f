/** Draws one piece from a world and lets somebody look at it: the generating process, step by step. */
import type { Observation } from '@jutbank/core/bench';
import type { Random } from '@jutbank/core/random';
import type { Feature, NominalMeasure, SwapClass } from '@jutbank/core/reference';
import {
  drawFrom,
  PARAMETERS,
  TICK_STAMPS,
  type Certainty,
  type Custom,
  type Found,
  type Stranger,
  type Truth,
  type World,
} from './world.ts';

export interface Piece {
  /** index among the world's truths, or undefined for something the reference does not list */
  readonly truth: number | undefined;
  readonly found: Found;
  readonly observations: readonly Observation[];
  /** nothing was exchanged and nothing misread */
  readonly asMade: boolean;
  readonly genuine: boolean;
}
const UNLISTED = ['relative', 'stranger', 'anything'] as const;

/** The share of each truth among what turns up; counterfeits as a share of what they imitate, by place. */
export function sharesOf(world: World, found: Found): Float64Array {
  const share = world.rates.counterfeits[found];
  const odds = share / (1 - share);
  const weight = Float64Array.from(
    world.truths,
    (t) => t.met * (t.variant.kind === 'counterfeit' ? odds : 1),
  );
  const total = weight.reduce((a, b) => a + b, 0);
  return weight.map((w) => w / total);
}

/** As above, of what is genuine alone. */
export function genuineShares(world: World): Float64Array {
  const weight = Float64Array.from(world.truths, (t) => (t.variant.kind === 'counterfeit' ? 0 : t.met));
  const total = weight.reduce((a, b) => a + b, 0);
  return weight.map((w) => w / total);
}

/** P(value | month) under a custom: old and new halve the time in which old stock was used up. */
export function customShare(custom: Custom, since: readonly number[], value: string, month: number): number {
  let now = 0;
  since.forEach((s, i) => {
    if (month >= s) now = i;
  });
  const before = now > 0 && month < (since[now] ?? 0) + custom.carryOver ? now - 1 : undefined;
  if (before === undefined) return custom.values[now] === value ? 1 : 0;
  return (custom.values[now] === value ? 0.5 : 0) + (custom.values[before] === value ? 0.5 : 0);
}

const valuesOf = (f: Feature) => (f.values ?? []).map((v) => v.id);

export function drawPiece(world: World, luck: Random): Piece {
  const found = luck.pick(Object.keys(PARAMETERS.counterfeitShare) as Found[]);
  if (luck.yes(PARAMETERS.unlisted)) {
    const { relative, stranger, anything } = PARAMETERS.unlistedKinds;
    const kind = UNLISTED[drawFrom(luck, [relative, stranger, anything])] ?? 'anything';
    const observations =
      kind === 'stranger' ? lookAtStranger(world, luck) : lookAtUnlisted(world, luck, kind === 'relative');
    return { truth: undefined, found, observations, asMade: false, genuine: true };
  }
  const truth = drawFrom(luck, sharesOf(world, found));
  const genuine = world.truths[truth]?.variant.kind !== 'counterfeit';
  return { truth, found, genuine, ...lookAt(world, luck, truth) };
}

const drawMonth = (truth: Pick<Truth, 'months'>, luck: Random) =>
  truth.months.from + drawFrom(luck, truth.months.share);

/** What the feature shows on a piece of this truth made in this month, when nothing was exchanged. */
function shownValue(
  world: World,
  truth: Truth,
  feature: Feature,
  month: number,
  luck: Random,
): string | number {
  const listed = truth.variant.features?.[feature.id];
  if (listed && listed.length > 0) return luck.pick(listed);
  const custom = world.customs[truth.maker]?.get(feature.id);
  if (custom) {
    const values = valuesOf(feature);
    return (
      values[
        drawFrom(
          luck,
          values.map((v) => customShare(custom, custom.since, v, month)),
        )
      ] ?? 'v0'
    );
  }
  const habit = world.habits[truth.maker]?.[world.features.indexOf(feature)] ?? [1];
  return valuesOf(feature)[drawFrom(luck, habit)] ?? 'v0';
}

function shownMeasure(truth: Truth, feature: Feature, world: World, luck: Random): number {
  const pattern = world.contents.patterns.find((p) => p.id === truth.variant.pattern);
  return shownSize(pattern?.measures?.[feature.id] ?? { value: 100, tolerance: 1 }, feature, luck);
}

function shownSize(nominal: NominalMeasure, feature: Feature, luck: Random): number {
  if (luck.yes(PARAMETERS.simplyOff)) return nominal.value * luck.between(0.75, 1.25);
  const made = nominal.value + ((nominal.tolerance ?? 1) / 2) * luck.normal();
  const lost =
    feature.wear === 'shrinks' && luck.yes(PARAMETERS.worn)
      ? -Math.log(1 - luck.next()) * PARAMETERS.wearMean * nominal.value
      : 0;
  return made - lost;
}

const GAUGE = { mm: 0.08, g: 0.8, deg: 0.5 };
const RESOLUTION = { closed: 0.1, blade: 0.1, mass: 1 } as const;
const rounded = (x: number, step: number) => Math.round(x / step) * step;

export const applicable = (world: World, truth: Truth) =>
  world.features.filter((f) => !f.constructions || f.constructions.includes(truth.construction));

function lookAt(world: World, luck: Random, at: number): Pick<Piece, 'observations' | 'asMade'> {
  const truth = world.truths[at];
  if (!truth) throw new Error('no such truth');
  const month = drawMonth(truth, luck);
  const donors = new Map<string, Truth | undefined>();
  const donorMonths = new Map<string, number>();
  for (const feature of world.features) {
    if (donors.has(feature.part)) continue;
    const swap: SwapClass = feature.swap ?? 'hard';
    const donor = luck.yes(world.rates.exchange[swap]) ? drawDonor(world, truth, luck) : undefined;
    donors.set(feature.part, donor);
    donorMonths.set(feature.part, drawMonth(donor ?? truth, luck));
  }
  const looked = whatIsLookedAt(applicable(world, truth), luck);
  const observations = looked.map((feature): Observation => {
    const donor = donors.get(feature.part);
    const from = donor ?? truth;
    if (feature.kind === 'measure') return measured(feature, shownMeasure(from, feature, world, luck), luck);
    const when = donor ? (donorMonths.get(feature.part) ?? month) : month;
    return misread(world, feature, shownValue(world, from, feature, when, luck), luck);
  });
  const judged = world.truths[truth.judgedAs] ?? truth;
  const stamped = truth.judgedAs === at ? month : drawMonth(judged, luck);
  const stamps = stampsOf(world, luck, judged, truth, stamped);
  const agrees = (o: Observation) =>
    !('value' in o) ||
    !truth.variant.features?.[o.feature] ||
    truth.variant.features[o.feature]?.includes(o.value);
  return { observations: [...observations, ...stamps], asMade: observations.every(agrees) };
}

function whatIsLookedAt(features: readonly Feature[], luck: Random): Feature[] {
  const order = [...features].map((f) => ({ f, at: luck.next() })).sort((a, b) => a.at - b.at);
  return order.slice(0, luck.whole(...PARAMETERS.observed)).map(({ f }) => f);
}

function drawDonor(world: World, truth: Truth, luck: Random): Truth {
  const same = world.truths.filter((t) => t.construction === truth.construction);
  const own = same.filter((t) => t.maker === truth.maker);
  return luck.pick(luck.yes(PARAMETERS.donorSameMaker) ? own : same);
}

function certaintyOf(luck: Random): Certainty {
  return (['sure', 'likely', 'unsure'] as const)[drawFrom(luck, [0.7, 0.2, 0.1])] ?? 'sure';
}

function misread(world: World, feature: Feature, value: string | number, luck: Random): Observation {
  const certainty = certaintyOf(luck);
  const others = valuesOf(feature).filter((v) => v !== value);
  const wrong = others.length > 0 && luck.yes(world.rates.misreading[certainty]);
  return { feature: feature.id, value: wrong ? luck.pick(others) : value, certainty };
}

function measured(feature: Feature, size: number, luck: Random): Observation {
  const resolution = RESOLUTION[feature.id as keyof typeof RESOLUTION];
  const read = size + GAUGE[feature.unit ?? 'mm'] * luck.normal();
  return { feature: feature.id, measure: Math.round(rounded(read, resolution) * 10) / 10, resolution };
}

/** Stamps of a genuine piece show its month; those of a counterfeit a month of what it imitates. */
function stampsOf(world: World, luck: Random, judged: Truth, truth: Truth, month: number): Observation[] {
  const seen = eraStamps(world, luck, judged.maker, judged.variant.marks ?? [], month);
  const serial = `${truth.variant.pattern}-serial`;
  if (
    truth.variant.kind === 'limited' ||
    (truth.variant.kind === 'counterfeit' && world.serialPatterns.has(truth.variant.pattern))
  ) {
    if (luck.yes(0.7)) seen.push({ code: serial, text: `N-${serialNumber(judged, truth, luck)}` });
  }
  return seen;
}

/** The maker's stamp of the month and its year signs, each looked for or not. */
function eraStamps(
  world: World,
  luck: Random,
  maker: number,
  borne: readonly string[],
  month: number,
): Observation[] {
  const seen: Observation[] = [];
  const { marks } = world.contents;
  if (luck.yes(0.6)) {
    const own = borne.find((id) => holds(marks.find((k) => k.id === id)?.window, month));
    const certainty = certaintyOf(luck);
    const wrong = own === undefined || luck.yes(world.rates.misreading[certainty]);
    seen.push({ mark: wrong ? luck.pick(marks.filter((k) => k.id !== own)).id : own, certainty });
  }
  const ticks = world.contents.codes.find((c) => c.kind === 'date' && c.maker === `m${maker}`);
  if (ticks?.kind === 'date' && luck.yes(0.4)) {
    const certainty = certaintyOf(luck);
    const right = tickStamp(world, maker, Math.floor(month / 12));
    if (right !== undefined) {
      const otherRow = luck.yes(world.rates.mistakenArrangement);
      const wrong = luck.yes(world.rates.misreading[certainty]);
      const stamp =
        (wrong ? right + luck.whole(1, TICK_STAMPS - 1) : otherRow ? right + TICK_STAMPS / 2 : right) %
        TICK_STAMPS;
      seen.push({
        code: ticks.id,
        reads: { ticks: stamp % 10, row: stamp < 10 ? 'above' : 'below' },
        certainty,
      });
    }
  }
  return seen;
}

function serialNumber(judged: Truth, truth: Truth, luck: Random): number {
  const run = judged.variant.edition?.run ?? 1000;
  if (truth.variant.kind === 'counterfeit' && luck.yes(0.3)) return luck.whole(1, 9999);
  return luck.whole(1, run);
}

export function monthsOfWindow(window: string | null | undefined): { from: number; to: number } {
  const [a = '', b = ''] = (window ?? '').split('/');
  const of = (text: string) => Number(text.slice(0, 4)) * 12 + Number(text.slice(5, 7)) - 1;
  return { from: of(a), to: of(b) };
}
const holds = (window: string | null | undefined, month: number): boolean => {
  const { from, to } = monthsOfWindow(window);
  return from <= month && month <= to;
};

/** 0–9 above, 10–19 below the name; undefined when the code does not reach that year. */
export function tickStamp(world: World, maker: number, year: number): number | undefined {
  const base = world.tickBases[maker];
  if (base === undefined) return undefined;
  const plus = year - base;
  if (plus >= 0 && plus <= 9) return plus;
  const minus = base + 19 - year;
  return minus >= 0 && minus <= 9 ? 10 + minus : undefined;
}

/** A piece of a pattern nobody described: its maker's habits, customs, stamps and months, its own sizes. */
function lookAtStranger(world: World, luck: Random): Observation[] {
  const { strangers } = world;
  const total = strangers.reduce((sum, s) => sum + s.met, 0);
  const stranger = strangers[
    drawFrom(
      luck,
      strangers.map((s) => s.met / total),
    )
  ] as Stranger;
  const month = drawMonth(stranger, luck);
  const features = world.features.filter(
    (f) => !f.constructions || f.constructions.includes(stranger.construction),
  );
  const observations = whatIsLookedAt(features, luck).map((feature): Observation => {
    if (feature.kind === 'measure') {
      const nominal = stranger.sizes[feature.id as keyof Stranger['sizes']];
      return measured(feature, shownSize(nominal, feature, luck), luck);
    }
    const custom = world.customs[stranger.maker]?.get(feature.id);
    const values = valuesOf(feature);
    const shown = custom
      ? values[
          drawFrom(
            luck,
            values.map((v) => customShare(custom, custom.since, v, month)),
          )
        ]
      : stranger.shown.get(feature.id);
    return misread(world, feature, shown ?? 'v0', luck);
  });
  return [...observations, ...eraStamps(world, luck, stranger.maker, stranger.marks, month)];
}

/** Half of what is unlisted is a near relative of something listed, a fifth is just any knife. */
function lookAtUnlisted(world: World, luck: Random, relative: boolean): Observation[] {
  const base = world.truths[drawFrom(luck, genuineShares(world))] as Truth;
  const judged = world.truths[base.judgedAs] ?? base;
  const month = drawMonth(judged, luck);
  const looked = whatIsLookedAt(applicable(world, base), luck);
  const observations = looked.map((feature): Observation => {
    // a relative follows its maker's customs; it differs in what a form chooses for itself
    const chosen = feature.kind === 'measure' || base.variant.features?.[feature.id] !== undefined;
    const other = !relative || (chosen && luck.yes(PARAMETERS.relativeDiffers));
    if (feature.kind === 'measure') {
      const from = other ? luck.pick(world.truths) : base;
      return measured(feature, shownMeasure(from, feature, world, luck), luck);
    }
    const own = shownValue(world, base, feature, month, luck);
    if (!other) return misread(world, feature, own, luck);
    const from = relative ? base : luck.pick(world.truths);
    const values = valuesOf(feature).filter((v) => !relative || v !== own);
    const habit = world.habits[from.maker]?.[world.features.indexOf(feature)] ?? [];
    const weights = values.map((v) => habit[valuesOf(feature).indexOf(v)] ?? 0);
    const total = weights.reduce((a, b) => a + b, 0);
    const value =
      values[
        drawFrom(
          luck,
          weights.map((w) => w / total),
        )
      ] ?? own;
    return misread(world, feature, value, luck);
  });
  if (!relative) {
    if (luck.yes(0.6)) observations.push({ mark: luck.pick(world.contents.marks).id });
    return observations;
  }
  return [...observations, ...stampsOf(world, luck, judged, base, month)];
}
