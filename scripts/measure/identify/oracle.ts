/**
 * The Bayes answer of the generating process: knows how worlds are made and with which true rates and customs, and of
 * this world how often each thing comes to a bench and what the reference tells (a maker's habit is its expectation given
 * what is told; so is a pattern nobody described). Enumerates month by month and donor by donor, sharing no code with the engine. The last cell of an answer is
 * "unlisted".
 */
import type { Observation } from '@jutbank/core/bench';
import type { Construction, Feature, NominalMeasure, Variant } from '@jutbank/core/reference';
import { applicable, customShare, genuineShares, monthsOfWindow, sharesOf, tickStamp } from './piece.ts';
import {
  activeOf,
  PARAMETERS,
  STRANGER_MONTHS,
  TICK_STAMPS,
  type Certainty,
  type Found,
  type Truth,
  type World,
} from './world.ts';

type FeatureReading = Extract<Observation, { feature: string }>;
interface Era {
  readonly id: string;
  readonly from: number;
  readonly to: number;
}
interface Reading {
  readonly feature: Feature;
  readonly observation: FeatureReading;
}

const isFeature = (o: Observation): o is FeatureReading => 'feature' in o;
const certaintyOf = (o: Observation): Certainty => ('certainty' in o ? o.certainty : undefined) ?? 'sure';

/** Habits are Dirichlet with half a choice for each value; every value a succession begins or changes to is a draw. */
function toldHabits(world: World): Float64Array[][] {
  return world.habits.map((features, maker) =>
    features.map((habit, f) => {
      const feature = world.features[f];
      const counts = new Float64Array(habit.length).fill(0.5);
      const before = new Map<string, string>();
      for (const truth of world.truths) {
        if (truth.maker !== maker || !feature) continue;
        if (truth.variant.kind === 'counterfeit' || truth.variant.kind === 'commercial-twin') continue;
        const listed = truth.variant.features?.[feature.id];
        if (!listed || before.get(truth.variant.pattern) === String(listed)) continue;
        before.set(truth.variant.pattern, String(listed));
        for (const value of listed) {
          const at = feature.values?.findIndex((v) => v.id === value) ?? -1;
          counts[at] = (counts[at] ?? 0) + 1 / listed.length;
        }
      }
      const total = counts.reduce((a, b) => a + b, 0);
      return counts.map((x) => x / total);
    }),
  );
}

/** The generating process with everything that does not hang on one question worked out beforehand. */
export class Oracle {
  readonly #applies: readonly ReadonlySet<string>[];
  readonly #patterns;
  readonly #marks: readonly (readonly Era[])[];
  /** the stamps of each maker */
  readonly #eras: readonly (readonly Era[])[];
  /** per maker, per feature: what the reference lets one expect of a pattern's choice */
  readonly #habits: readonly (readonly Float64Array[])[];
  constructor(readonly world: World) {
    this.#habits = toldHabits(world);
    const marks = new Map(world.contents.marks.map((k) => [k.id, { id: k.id, ...monthsOfWindow(k.window) }]));
    this.#marks = world.truths.map((t) => (t.variant.marks ?? []).flatMap((id) => marks.get(id) ?? []));
    this.#eras = world.contents.makers.map((maker) =>
      world.contents.marks.flatMap((k) => (k.maker === maker.id ? (marks.get(k.id) ?? []) : [])),
    );
    this.#applies = world.truths.map((t) => new Set(applicable(world, t).map((f) => f.id)));
    this.#patterns = new Map(world.contents.patterns.map((p) => [p.id, p]));
  }

  /** Joint probability of each truth, and of "unlisted", with what was seen; not normalised. */
  joint(observations: readonly Observation[], found: Found): Float64Array {
    const { truths, rates } = this.world;
    const readings = observations.filter(isFeature).flatMap((observation): Reading[] => {
      const feature = this.world.features.find((f) => f.id === observation.feature);
      return feature ? [{ feature, observation }] : [];
    });
    const stamps = observations.filter((o) => !isFeature(o));
    const parts = [...new Set(readings.map((r) => r.feature.part))].map((part) => {
      const own = readings.filter((r) => r.feature.part === part);
      const s = rates.exchange[own[0]?.feature.swap ?? 'hard'];
      return { readings: own, s, donor: this.#donors(own) };
    });
    const prior = sharesOf(this.world, found);
    const answer = new Float64Array(truths.length + 1);
    truths.forEach((truth, v) => {
      if (readings.some((r) => !this.#applies[v]?.has(r.feature.id))) return;
      const judged = truths[truth.judgedAs] ?? truth;
      const stampedApart =
        truth === judged
          ? 1
          : overMonths(judged, (t) =>
              this.#stampsChance(stamps, judged, truth, t, this.#marks[judged.judgedAs] ?? []),
            );
      if (stampedApart === 0) return;
      const owns = parts.map((part) => ({
        own: this.#together(part.readings, truth),
        s: part.s,
        donor: part.donor.get(`${truth.maker} ${truth.construction}`) ?? 0,
      }));
      const whole = overMonths(truth, (t) => {
        let p =
          truth === judged
            ? this.#stampsChance(stamps, judged, truth, t, this.#marks[judged.judgedAs] ?? [])
            : 1;
        for (const part of owns) {
          if (p === 0) break;
          p *= (1 - part.s) * part.own(t) + part.s * part.donor;
        }
        return p;
      });
      answer[v] = (1 - PARAMETERS.unlisted) * (prior[v] ?? 0) * whole * stampedApart;
    });
    answer[truths.length] = PARAMETERS.unlisted * this.#unlisted(readings, stamps);
    return answer;
  }

  posterior(observations: readonly Observation[], found: Found): Float64Array {
    const joint = this.joint(observations, found);
    const total = joint.reduce((a, b) => a + b, 0);
    return joint.map((x) => x / total);
  }

  /** P(reading | truth, month), the part being the piece's own. */
  #chance({ feature, observation }: Reading, truth: Truth, month: number): number {
    if ('measure' in observation)
      return this.#density(truth, feature, observation.measure, observation.resolution ?? 0.1);
    if (!('value' in observation)) return 1;
    const e = this.world.rates.misreading[certaintyOf(observation)];
    const n = feature.values?.length ?? 2;
    const share = this.#share(truth, feature, String(observation.value), month);
    return share * (1 - e) + ((1 - share) * e) / (n - 1);
  }

  /** The chance of several readings by month; worked out once where the maker's customs do not date them. */
  #together(readings: readonly Reading[], truth: Truth): (month: number) => number {
    const dated = readings.filter((r) => this.#isDated(r, truth));
    const fixed = readings
      .filter((r) => !dated.includes(r))
      .reduce((p, r) => p * this.#chance(r, truth, 0), 1);
    if (dated.length === 0) return () => fixed;
    return (month) => dated.reduce((p, r) => p * this.#chance(r, truth, month), fixed);
  }

  #isDated({ feature }: Reading, truth: Truth): boolean {
    return (
      truth.variant.features?.[feature.id] === undefined &&
      this.world.customs[truth.maker]?.has(feature.id) === true
    );
  }

  #share(truth: Truth, feature: Feature, value: string, month: number): number {
    const listed = truth.variant.features?.[feature.id];
    if (listed && listed.length > 0) return listed.includes(value) ? 1 / listed.length : 0;
    const custom = this.world.customs[truth.maker]?.get(feature.id);
    if (custom) {
      const told = customShare(custom, custom.since, value, month);
      if (!custom.disputed) return told;
      const other = customShare(custom, custom.disputed.since, value, month);
      return (1 - custom.disputed.share) * told + custom.disputed.share * other;
    }
    const at = feature.values?.findIndex((v) => v.id === value) ?? -1;
    return this.#habits[truth.maker]?.[this.world.features.indexOf(feature)]?.[at] ?? 0;
  }

  #density(truth: Truth, feature: Feature, read: number, resolution: number): number {
    const nominal = this.#patterns.get(truth.variant.pattern)?.measures?.[feature.id] ?? {
      value: 100,
      tolerance: 1,
    };
    return this.#densityAt(nominal, feature, read, resolution);
  }

  #densityAt(nominal: NominalMeasure, feature: Feature, read: number, resolution: number): number {
    const gauge = feature.unit === 'g' ? 0.8 : 0.08;
    const sigma = Math.sqrt(((nominal.tolerance ?? 1) / 2) ** 2 + gauge ** 2 + resolution ** 2 / 12);
    const normal = (x: number) => Math.exp(-0.5 * (x / sigma) ** 2) / (sigma * Math.sqrt(2 * Math.PI));
    const distance = read - nominal.value;
    let core = normal(distance);
    if (feature.wear === 'shrinks') {
      let worn = 0;
      for (let q = 0; q < 60; q++)
        worn += normal(distance - Math.log(1 - (q + 0.5) / 60) * PARAMETERS.wearMean * nominal.value) / 60;
      core = (1 - PARAMETERS.worn) * core + PARAMETERS.worn * worn;
    }
    const even = Math.abs(distance) <= 0.25 * nominal.value ? 1 / (0.5 * nominal.value) : 0;
    return (1 - PARAMETERS.simplyOff) * core + PARAMETERS.simplyOff * even;
  }

  /** The mean chance of a part's readings over the donors of each maker and construction. */
  #donors(readings: readonly Reading[]): ReadonlyMap<string, number> {
    const { truths } = this.world;
    const each = truths.map((truth, v) =>
      readings.some((r) => !this.#applies[v]?.has(r.feature.id))
        ? 0
        : overMonths(truth, this.#together(readings, truth)),
    );
    const mean = (of: (t: Truth) => boolean) => {
      let total = 0;
      let n = 0;
      truths.forEach((t, v) => {
        if (!of(t)) return;
        total += each[v] ?? 0;
        n++;
      });
      return n > 0 ? total / n : 0;
    };
    const known = new Map<string, number>();
    for (const truth of truths) {
      const key = `${truth.maker} ${truth.construction}`;
      if (known.has(key)) continue;
      const same = (t: Truth) => t.construction === truth.construction;
      known.set(
        key,
        PARAMETERS.donorSameMaker * mean((t) => same(t) && t.maker === truth.maker) +
          (1 - PARAMETERS.donorSameMaker) * mean(same),
      );
    }
    return known;
  }

  /** @param truth undefined for a pattern nobody described, which has no numbers that anybody knows */
  #stampsChance(
    stamps: readonly Observation[],
    judged: { readonly maker: number; readonly variant?: Variant },
    truth: Truth | undefined,
    month: number,
    borne: readonly Era[],
  ): number {
    const { contents, rates } = this.world;
    let p = 1;
    for (const o of stamps) {
      const e = rates.misreading[certaintyOf(o)];
      if ('mark' in o) {
        const own = borne.find((k) => k.from <= month && month <= k.to)?.id;
        const n = contents.marks.length;
        p *= own === undefined ? 1 / n : own === o.mark ? 1 - e : e / (n - 1);
      } else if ('reads' in o) {
        if (o.code !== `m${judged.maker}-ticks`) return 0;
        const right = tickStamp(this.world, judged.maker, Math.floor(month / 12));
        if (right === undefined) return 0;
        const read = Number(o.reads['ticks']) + (o.reads['row'] === 'above' ? 0 : 10);
        const a = rates.mistakenArrangement;
        const otherRow = (right + TICK_STAMPS / 2) % TICK_STAMPS;
        p *=
          (read === right ? (1 - e) * (1 - a) : e / (TICK_STAMPS - 1)) +
          (read === otherRow ? (1 - e) * a : 0);
      } else if ('text' in o && 'code' in o) {
        if (!truth || o.code !== `${truth.variant.pattern}-serial`) return 0;
        const run = judged.variant?.edition?.run;
        if (run === undefined || run === null) return 0;
        const number = Number(o.text.slice(2));
        const inRun = number >= 1 && number <= run ? 1 / run : 0;
        if (truth.variant.kind === 'counterfeit') p *= 0.7 * inRun + (number <= 9999 ? 0.3 / 9999 : 0);
        else p *= truth.variant.kind === 'limited' ? inRun : 0;
      }
    }
    return p;
  }

  #unlisted(readings: readonly Reading[], stamps: readonly Observation[]): number {
    const { truths, contents } = this.world;
    const m = PARAMETERS.relativeDiffers;
    const anyMeasure = new Map(
      readings.flatMap(({ feature, observation }) =>
        'measure' in observation
          ? [
              [
                feature.id,
                truths.reduce(
                  (a, t) => a + this.#density(t, feature, observation.measure, observation.resolution ?? 0.1),
                  0,
                ) / truths.length,
              ] as const,
            ]
          : [],
      ),
    );
    let relatives = 0;
    const shares = genuineShares(this.world);
    truths.forEach((truth, v) => {
      if ((shares[v] ?? 0) === 0) return;
      if (readings.some((r) => !this.#applies[v]?.has(r.feature.id))) return;
      const judged = truths[truth.judgedAs] ?? truth;
      const mixed = readings.map((r) => {
        const own = this.#together([r], truth);
        // a relative differs only in what the form chose for itself
        if ('value' in r.observation && truth.variant.features?.[r.feature.id] === undefined) return own;
        const isDated = this.#isDated(r, truth);
        const other = anyMeasure.get(r.feature.id) ?? (isDated ? undefined : this.#otherThanOwn(r, truth, 0));
        const fixed = isDated || other === undefined ? undefined : (1 - m) * own(0) + m * other;
        return (t: number) => fixed ?? (1 - m) * own(t) + m * (other ?? this.#otherThanOwn(r, truth, t));
      });
      relatives +=
        (shares[v] ?? 0) *
        overMonths(judged, (t) => {
          let p = this.#stampsChance(stamps, judged, truth, t, this.#marks[judged.judgedAs] ?? []);
          for (const of of mixed) {
            if (p === 0) break;
            p *= of(t);
          }
          return p;
        });
    });
    let background = stamps.some((o) => 'mark' in o) ? 1 / contents.marks.length : 1;
    for (const r of readings) background *= anyMeasure.get(r.feature.id) ?? this.#anybodys(r);
    // just any piece takes each value from somebody's habit; its marks are anybody's, it has no codes
    const bare = stamps.every((o) => 'mark' in o) ? 1 : 0;
    const kinds = PARAMETERS.unlistedKinds;
    return (
      kinds.relative * relatives +
      kinds.stranger * this.#strangers(readings, stamps) +
      kinds.anything * bare * background
    );
  }

  /** A pattern nobody described, over its maker, its months, its sizes and its choices. */
  #strangers(readings: readonly Reading[], stamps: readonly Observation[]): number {
    const { truths } = this.world;
    const shares = genuineShares(this.world);
    const groups = new Map<string, { maker: number; construction: Construction; share: number }>();
    truths.forEach((truth, v) => {
      const key = `${truth.maker} ${truth.construction}`;
      const group = groups.get(key) ?? { maker: truth.maker, construction: truth.construction, share: 0 };
      groups.set(key, { ...group, share: group.share + (shares[v] ?? 0) });
    });
    let sum = 0;
    for (const { maker, construction, share } of groups.values()) {
      const fits = ({ feature }: Reading) =>
        feature.constructions == null || feature.constructions.includes(construction);
      if (!readings.every(fits)) continue;
      const size = this.#sizeChance(readings);
      const weights = strangerMonths(this.world, maker);
      let over = 0;
      weights.share.forEach((w, i) => {
        if (w === 0) return;
        const t = weights.from + i;
        let p = this.#stampsChance(stamps, { maker }, undefined, t, this.#eras[maker] ?? []);
        for (const r of readings) {
          if (p === 0) break;
          if ('value' in r.observation) p *= this.#strangerShows(r, maker, t);
        }
        over += w * p;
      });
      sum += share * size * over;
    }
    return sum;
  }

  #strangerShows({ feature, observation }: Reading, maker: number, month: number): number {
    if (!('value' in observation)) return 1;
    const e = this.world.rates.misreading[certaintyOf(observation)];
    const value = String(observation.value);
    const custom = this.world.customs[maker]?.get(feature.id);
    const at = feature.values?.findIndex((v) => v.id === value) ?? -1;
    const told = custom && customShare(custom, custom.since, value, month);
    const other = custom?.disputed && customShare(custom, custom.disputed.since, value, month);
    const share =
      told === undefined
        ? (this.#habits[maker]?.[this.world.features.indexOf(feature)]?.[at] ?? 0)
        : other === undefined
          ? told
          : (1 - (custom?.disputed?.share ?? 0)) * told + (custom?.disputed?.share ?? 0) * other;
    return share * (1 - e) + ((1 - share) * e) / ((feature.values?.length ?? 2) - 1);
  }

  /** The sizes of an undescribed pattern, over how long and how heavy it may be. */
  #sizeChance(readings: readonly Reading[]): number {
    const measured = readings.filter((r) => 'measure' in r.observation);
    if (measured.length === 0) return 1;
    let sum = 0;
    for (let i = 0; i < SIZES; i++) {
      const closed = 75 + (55 * (i + 0.5)) / SIZES;
      let p = 1;
      for (const { feature, observation } of measured) {
        if (!('measure' in observation)) continue;
        const one = (value: number, tolerance: number) =>
          this.#densityAt({ value, tolerance }, feature, observation.measure, observation.resolution ?? 0.1);
        if (feature.id === 'closed') p *= one(closed, 1);
        else if (feature.id === 'blade') p *= one(closed * 0.76, 0.8);
        else {
          let mass = 0;
          for (let k = 0; k < MASSES; k++)
            mass += one(closed * (0.6 + (0.4 * (k + 0.5)) / MASSES), 4) / MASSES;
          p *= mass;
        }
      }
      sum += p / SIZES;
    }
    return sum;
  }

  #otherThanOwn({ feature, observation }: Reading, truth: Truth, month: number): number {
    if (!('value' in observation)) return 1;
    const e = this.world.rates.misreading[certaintyOf(observation)];
    const values = (feature.values ?? []).map((v) => v.id);
    const habit = this.#habits[truth.maker]?.[this.world.features.indexOf(feature)] ?? [];
    let p = 0;
    values.forEach((own, i) => {
      const chance = this.#share(truth, feature, own, month);
      if (chance === 0) return;
      const rest = 1 - (habit[i] ?? 0);
      values.forEach((x, j) => {
        if (j === i) return;
        const read = x === observation.value ? 1 - e : e / (values.length - 1);
        p += (chance * (habit[j] ?? 0) * read) / rest;
      });
    });
    return p;
  }

  #anybodys({ feature, observation }: Reading): number {
    if (!('value' in observation)) return 1;
    const e = this.world.rates.misreading[certaintyOf(observation)];
    const at = feature.values?.findIndex((v) => v.id === observation.value) ?? -1;
    const f = this.world.features.indexOf(feature);
    const share =
      this.world.truths.reduce((a, t) => a + (this.#habits[t.maker]?.[f]?.[at] ?? 0), 0) /
      this.world.truths.length;
    return share * (1 - e) + ((1 - share) * e) / ((feature.values?.length ?? 2) - 1);
  }
}

function overMonths(truth: Truth, of: (month: number) => number): number {
  const { from, share } = truth.months;
  let sum = 0;
  for (let t = 0; t < share.length; t++) sum += (share[t] ?? 0) * of(from + t);
  return sum;
}

/** Steps over the length and the mass of an undescribed pattern. */
const SIZES = 220;
const MASSES = 24;

/** In which months a piece of an undescribed pattern of the maker was made. */
function strangerMonths(world: World, maker: number): { from: number; share: Float64Array } {
  const { from, to } = activeOf(world.contents, maker);
  const [shortest, longest] = STRANGER_MONTHS;
  const share = new Float64Array(to - from + longest);
  const starts = to - longest - from + 1;
  for (let s = 0; s < starts; s++)
    for (let length = shortest; length <= longest; length += 6)
      for (let t = 0; t < length; t++) share[s + t] = (share[s + t] ?? 0) + 1 / length;
  const total = share.reduce((a, b) => a + b, 0);
  return { from, share: share.map((x) => x / total) };
}
