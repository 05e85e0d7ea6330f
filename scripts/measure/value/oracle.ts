/**
 * What can be known of a simulated market at best: the posterior of its random effects – makers, patterns, variants,
 * venues, tides, shared opinions of sellers – for somebody who knows every constant it was made with: curve of
 * condition, worth of what comes along, noise of each venue, share of gross errors. It sees the same prices as the
 * engine does, and knows no more of a piece than its row tells.
 */
import { CholeskyDecomposition, Matrix } from 'ml-matrix';
import {
  studentDensityAt0,
  studentQuantile,
  type Comparable,
  type MarketVariant,
  type VenueKind,
} from '@jutbank/core/market';
import type { MarketParameters } from './parameters.ts';
import { fixedPart, stepOf, TODAY, type Question, type World } from './world.ts';

const ROUNDS = 12;
const Z90 = 1.2815515655446004;

interface Row {
  readonly columns: number[];
  readonly values: number[];
  readonly y: number;
  readonly scale: number;
  /** variance of what the row does not tell */
  readonly untold: number;
}

export interface Prediction {
  readonly location: number;
  readonly half: number;
}

export class Oracle {
  readonly #index = new Map<string, number>();
  readonly #sd: number[] = [];
  readonly #theta: Float64Array;
  readonly #inverse: Matrix;
  readonly #spread: { mean: number; variance: number }[];
  readonly #p: MarketParameters;

  constructor(readonly world: World) {
    this.#p = world.parameters;
    const densityAt0 = studentDensityAt0(this.#p.degreesOfFreedom);
    this.#spread = curveMoments(world);
    const rows = world.sales.map((s) => this.#row(s));
    const q = this.#sd.length;
    let theta: Float64Array = new Float64Array(q);
    let inverse = new Matrix(1, 1);
    const weight = rows.map((r) => 1 / (r.scale ** 2 + r.untold));
    for (let round = 0; round < ROUNDS; round++) {
      const a = Matrix.zeros(q, q);
      const b = Matrix.zeros(q, 1);
      this.#priors(a);
      rows.forEach((r, i) => {
        const w = weight[i] ?? 0;
        r.columns.forEach((j, n) => {
          const x = w * (r.values[n] ?? 0);
          b.set(j, 0, b.get(j, 0) + x * r.y);
          r.columns.forEach((k, m) => {
            if (k <= j) a.set(j, k, a.get(j, k) + x * (r.values[m] ?? 0));
          });
        });
      });
      for (let j = 0; j < q; j++) for (let k = 0; k < j; k++) a.set(k, j, a.get(j, k));
      const cholesky = new CholeskyDecomposition(a);
      theta = Float64Array.from(cholesky.solve(b).getColumn(0));
      if (round === ROUNDS - 1) inverse = cholesky.solve(Matrix.eye(q));
      rows.forEach((r, i) => {
        const off = r.y - r.columns.reduce((sum, j, n) => sum + (r.values[n] ?? 0) * (theta[j] ?? 0), 0);
        weight[i] = weightOf(off, r, { parameters: this.#p, densityAt0 });
      });
    }
    this.#theta = theta;
    this.#inverse = inverse;
  }

  predict(question: Question): Prediction {
    const { reference, constants } = this.world;
    const pattern = reference.patterns.get(question.subject.pattern);
    const { columns, values, beyond } = this.#effects(
      pattern?.maker ?? '',
      question.subject.pattern,
      question.variant,
      TODAY,
      undefined,
      question.venueKind,
    );
    const fixed = fixedPart(constants, question.variant, pattern, question.subject.conditionIndex ?? 75, {
      venueKind: question.venueKind,
      box: question.subject.box ?? 'none',
      papers: question.subject.papers ?? 'none',
      sheath: question.subject.sheath ?? 'none',
      alterations: question.subject.alterations,
    });
    let variance = beyond + this.#p.venueSd ** 2;
    columns.forEach((j, n) =>
      columns.forEach((k, m) => {
        variance += (values[n] ?? 0) * (values[m] ?? 0) * this.#inverse.get(j, k);
      }),
    );
    const location =
      this.#p.level +
      fixed +
      columns.reduce((sum, j, n) => sum + (values[n] ?? 0) * (this.#theta[j] ?? 0), 0);
    const scale = constants.noise[question.venueKind];
    return {
      location,
      half: Math.sqrt((studentQuantile(0.9, this.#p.degreesOfFreedom) * scale) ** 2 + Z90 ** 2 * variance),
    };
  }

  #column(name: string, sd: number): number {
    let at = this.#index.get(name);
    if (at === undefined) {
      this.#index.set(name, (at = this.#sd.length));
      this.#sd.push(sd);
    }
    return at;
  }

  /** Columns of the random effects; once the rows are read, what no row touched adds its variance. */
  #effects(
    maker: string,
    pattern: string,
    variant: MarketVariant | undefined,
    day: number,
    venue: string | undefined,
    _kind: VenueKind,
  ): { columns: number[]; values: number[]; beyond: number } {
    const frozen = this.#inverse !== undefined;
    const columns: number[] = [];
    const values: number[] = [];
    let beyond = 0;
    const add = (name: string, sd: number, value = 1) => {
      if (frozen && !this.#index.has(name)) {
        beyond += (value * sd) ** 2;
        return;
      }
      columns.push(this.#column(name, sd));
      values.push(value);
    };
    add(`maker ${maker}`, this.#p.makerSd);
    add(`pattern ${pattern}`, this.#p.patternSd);
    if (variant) add(`variant ${variant.id}`, this.#p.variantSd);
    if (venue !== undefined) add(`venue ${venue}`, this.#p.venueSd);
    const { step, share } = stepOf(day);
    // walks by their increments: each an effect of its own, summed up to the day
    for (let k = 1; k <= step + 1; k++) {
      const value = k <= step ? 1 : share;
      add(`tide ${k}`, this.world.constants.tideStep, value);
      add(`tide ${maker} ${k}`, this.#p.makerTideStep, value);
    }
    return { columns, values, beyond };
  }

  #row(s: Comparable): Row {
    const { reference, constants } = this.world;
    const pattern = reference.patterns.get(s.pattern);
    const variant = s.variant === undefined ? undefined : reference.variants.get(s.variant);
    const { columns, values } = this.#effects(
      pattern?.maker ?? '',
      s.pattern,
      variant,
      s.day,
      s.venue,
      s.venueKind,
    );
    const scale = constants.noise[s.venueKind] * (s.priceKind === 'asking' ? this.#p.askingNoise : 1);
    const spread = this.#spread[s.conditionIndex === undefined ? 1 : 0];
    let untold = s.venue === undefined ? this.#p.venueSd ** 2 : 0;
    let fixed = fixedPart(constants, variant, pattern, s.conditionIndex ?? 75, {
      venueKind: s.venueKind,
      box: s.box ?? 'none',
      papers: s.papers ?? 'none',
      sheath: s.sheath ?? 'none',
      alterations: s.alterations,
    });
    if (s.conditionIndex === undefined) {
      fixed += spread?.mean ?? 0;
      untold += spread?.variance ?? 0;
    } else if (s.conditionBy === 'grade') untold += ((this.#p.gradeSpread / 100) * constants.slope) ** 2;
    const unstated = (state: unknown, share: number, worth: number) => {
      if (state !== undefined) return;
      fixed += share * worth;
      untold += share * (1 - share) * worth ** 2;
    };
    unstated(s.box, 0.3, constants.box);
    unstated(s.papers, 0.2, constants.papers);
    unstated(s.sheath, 0.5, constants.sheath);
    if (!variant) untold += this.#p.variantSd ** 2 + 0.09;
    let y = Math.log(paidOf(s, this.world));
    if (s.priceKind === 'asking') {
      y -= constants.asking;
      columns.push(this.#column(`opinion ${s.variant ?? s.pattern}`, 1));
      values.push(Math.sqrt(this.#p.askingCommon) * scale);
    }
    if (s.priceKind === 'offer') y -= this.#p.offer;
    const own = s.priceKind === 'asking' ? Math.sqrt(1 - this.#p.askingCommon) * scale : scale;
    return { columns, values, y: y - this.#p.level - fixed, scale: own, untold };
  }

  #priors(a: Matrix): void {
    this.#sd.forEach((sd, j) => a.set(j, j, a.get(j, j) + 1 / sd ** 2));
  }
}

/** All the buyer paid without postage, by the constants: an untold premium at an auction is the usual one. */
function paidOf(s: Comparable, { rateOn, parameters: p }: World): number {
  const inBase = Number(s.price.amount) / (rateOn(s.price.currency, s.day) ?? 1);
  const untoldAt = s.venueKind === 'auction' && s.priceKind === 'sold' ? p.premium : 0;
  const premium = s.buyerPremiumPct ?? untoldAt;
  return Math.max(0.2 * inBase, (inBase - (s.shippingIncluded ? p.postage : 0)) * (1 + premium / 100));
}

interface Noisy {
  readonly parameters: MarketParameters;
  /** of the unit t */
  readonly densityAt0: number;
}

/** E[weight] of a row whose noise is a t plus what is untold, with its chance of being no gross error. */
function weightOf(off: number, r: Row, { parameters: p, densityAt0 }: Noisy): number {
  const nu = p.degreesOfFreedom;
  const s2 = r.scale ** 2 + r.untold;
  const density = (densityAt0 * Math.pow(1 + off ** 2 / (nu * s2), -(nu + 1) / 2)) / Math.sqrt(s2);
  const wide = s2 + p.grossSd ** 2;
  const gross = (p.grossShare * Math.exp(-(off ** 2) / (2 * wide))) / Math.sqrt(2 * Math.PI * wide);
  const sound = ((1 - p.grossShare) * density) / ((1 - p.grossShare) * density + gross);
  return (sound * (nu + 1)) / (nu + off ** 2 / s2) / s2;
}

/** Mean and variance of what condition adds, over the indices that pieces have, against the index of 75. */
function curveMoments({ constants }: World): { mean: number; variance: number }[] {
  const plain = { venueKind: 'fair', box: 'none', papers: 'none', sheath: 'none', alterations: [] } as const;
  const at = (index: number) =>
    fixedPart(constants, undefined, undefined, index, plain) -
    fixedPart(constants, undefined, undefined, 75, plain);
  const values: number[] = [];
  for (let z = -2.5; z <= 2.5; z += 0.05)
    for (let n = 0; n < Math.round(100 * Math.exp(-z * z * 0.5)); n++)
      values.push(at(Math.min(100, Math.max(15, 78 + 14 * z))));
  const mean = values.reduce((sum, x) => sum + x, 0) / values.length;
  const variance = values.reduce((sum, x) => sum + (x - mean) ** 2, 0) / values.length;
  return [
    { mean: 0, variance: 0 },
    { mean, variance },
  ];
}
