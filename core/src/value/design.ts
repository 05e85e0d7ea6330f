/** The regression's columns: which coefficients a sale or a subject touches, and by how much. */
import type { Comparable, EstimateSubject, ItemState, MarketReference, VenueKind } from './comparable.ts';
import type { Prior, ValueSettings } from './settings.ts';

/** A group of coefficients that one line of the adjustment grid stands for. */
export type Line =
  | 'level'
  | 'construction'
  | 'maker'
  | 'pattern'
  | 'variant'
  | 'kind'
  | 'condition'
  | 'box'
  | 'papers'
  | 'sheath'
  | 'alterations'
  | 'venue'
  | 'time'
  | 'price kind'
  | 'premium';

export interface Coefficient {
  readonly key: string;
  readonly line: Line;
  readonly prior: Prior;
}
/** [index of the coefficient, value] */
export type Sparse = readonly (readonly [number, number])[];

export interface Described {
  readonly pattern: string;
  readonly variant: string | undefined;
  readonly conditionIndex: number | undefined;
  readonly box: ItemState | undefined;
  readonly papers: ItemState | undefined;
  readonly sheath: ItemState | undefined;
  readonly alterations: readonly string[];
  readonly venueKind: VenueKind;
  readonly day: number;
  readonly priceKind: Comparable['priceKind'];
  readonly premiumUntold: boolean;
}

/** Hands out coefficients as they are first touched; the same key is always the same coefficient. */
export class Design {
  readonly coefficients: Coefficient[] = [];
  readonly #index = new Map<string, number>();

  constructor(
    readonly reference: MarketReference,
    readonly settings: ValueSettings,
    /** the market's first and last day: the span of its tide */
    readonly firstDay: number,
    readonly lastDay: number,
  ) {}

  #at(line: Line, key: string, prior: Prior): number {
    const known = this.#index.get(key);
    if (known !== undefined) return known;
    this.coefficients.push({ key, line, prior });
    this.#index.set(key, this.coefficients.length - 1);
    return this.coefficients.length - 1;
  }

  /** The coefficient of a variant, or undefined when no sale touched it. */
  variantIndex(id: string): number | undefined {
    return this.#index.get(`variant ${id}`);
  }

  describe(of: Described): Sparse {
    const s = this.settings;
    const out: [number, number][] = [];
    const add = (line: Line, key: string, prior: Prior, value = 1) => {
      if (value !== 0) out.push([this.#at(line, key, prior), value]);
    };
    add('level', 'level', { mean: 4.5, sd: 3 });
    const pattern = this.reference.patterns.get(of.pattern);
    if (pattern) {
      add('construction', `construction ${pattern.construction}`, s.construction);
      add('maker', `maker ${pattern.maker}`, { mean: 0, sd: s.maker });
    }
    add('pattern', `pattern ${of.pattern}`, { mean: 0, sd: s.pattern });
    const variant = of.variant === undefined ? undefined : this.reference.variants.get(of.variant);
    if (variant) {
      add('kind', `kind ${variant.kind}`, s.kind);
      add('variant', `variant ${variant.id}`, { mean: 0, sd: s.variant });
    }
    const x = (of.conditionIndex ?? s.usualCondition) / 100;
    const usual = s.usualCondition / 100;
    add('condition', 'condition', s.conditionSlope, x - usual);
    for (const knot of s.conditionKnots)
      add(
        'condition',
        `condition from ${knot}`,
        s.conditionBend,
        Math.max(0, x - knot) - Math.max(0, usual - knot),
      );
    this.#item(add, 'box', of.box, s.boxOriginal);
    this.#item(add, 'papers', of.papers, s.papersOriginal);
    this.#item(add, 'sheath', of.sheath, s.sheathOriginal);
    for (const alteration of of.alterations) {
      const known = s.alterations[alteration as keyof typeof s.alterations];
      add('alterations', `alteration ${alteration}`, known);
    }
    add('venue', `venue ${of.venueKind}`, s.venues[of.venueKind]);
    if (of.priceKind === 'asking') add('price kind', 'asking', s.asking);
    if (of.priceKind === 'offer') add('price kind', 'offer', s.offer);
    if (of.premiumUntold) add('premium', 'premium untold', s.premiumUntold);
    this.#tide(add, of.day);
    return out;
  }

  #item(
    add: (line: Line, key: string, prior: Prior, value?: number) => void,
    item: 'box' | 'papers' | 'sheath',
    state: ItemState | undefined,
    original: Prior,
  ): void {
    if (state === 'original') add(item, `${item} original`, original);
    else if (state === 'later') add(item, `${item} later`, this.settings.later);
    else if (state === undefined) add(item, `${item} not stated`, this.settings.notStated);
  }

  /** A random walk in half-yearly steps counted back from the last day, linear within a step. */
  #tide(add: (line: Line, key: string, prior: Prior, value?: number) => void, day: number): void {
    const { daysPerStep, tideStep } = this.settings;
    const back = Math.max(0, (this.lastDay - day) / daysPerStep);
    for (let step = 0; step < back; step++)
      add('time', `tide ${step}`, { mean: 0, sd: tideStep }, -Math.min(1, back - step));
  }
}

export const describeSale = (c: Comparable): Described => ({
  pattern: c.pattern,
  variant: c.variant,
  conditionIndex: c.conditionIndex,
  box: c.box,
  papers: c.papers,
  sheath: c.sheath,
  alterations: c.alterations,
  venueKind: c.venueKind,
  day: c.day,
  priceKind: c.priceKind,
  premiumUntold: c.buyerPremiumPct === undefined && c.venueKind === 'auction',
});

export const describeSubject = (
  s: EstimateSubject,
  variant: string | undefined,
  venueKind: VenueKind,
  day: number,
): Described => ({
  pattern: s.pattern,
  variant,
  conditionIndex: s.conditionIndex,
  box: s.box,
  papers: s.papers,
  sheath: s.sheath,
  alterations: s.alterations,
  venueKind,
  day,
  priceKind: 'sold',
  premiumUntold: false,
});
