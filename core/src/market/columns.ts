/**
 * The regression's columns: which coefficients a price touches, and by how much. Variants are kept apart from all
 * others: every price touches at most one of them, so that they can be solved for by themselves (normal.ts).
 */
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
  | 'material'
  | 'scarcity'
  | 'age'
  | 'condition'
  | 'box'
  | 'papers'
  | 'sheath'
  | 'alterations'
  | 'venue'
  | 'time'
  | 'price kind'
  | 'premium not told';

/** Coefficients whose spread is learned together. */
export type Spread = 'maker' | 'pattern' | 'venue' | 'material';
export interface Column {
  readonly family: string;
  readonly name: string;
  readonly line: Line;
  readonly prior: Prior;
  readonly spread?: Spread;
}
/** Neighbouring columns that walk: each differs from the one before by a step. */
export interface RandomWalk {
  readonly start: number;
  readonly count: number;
  readonly kind: 'tide' | 'maker tide' | 'ask tide';
}
/** Everything a second copy of the server needs to describe a price in the same columns: plain data. */
export interface ColumnPlan {
  readonly columns: readonly Column[];
  readonly walks: readonly RandomWalk[];
  readonly variants: readonly string[];
  /** number of the first half-year */
  readonly firstKnot: number;
  readonly knots: number;
  /** index of the usual condition, 0–1 */
  readonly usual: number;
}

export interface Described {
  readonly pattern: string;
  readonly variant: string | undefined;
  readonly conditionIndex: number | undefined;
  readonly box: ItemState | undefined;
  readonly papers: ItemState | undefined;
  readonly sheath: ItemState | undefined;
  readonly alterations: readonly string[];
  readonly venueKind: VenueKind;
  readonly venue: string | undefined;
  readonly day: number;
  readonly priceKind: Comparable['priceKind'];
  readonly premiumTold: boolean;
}

/** One price in columns. */
export interface Sparse {
  readonly columns: readonly number[];
  readonly values: readonly number[];
  /** number of the variant among the plan's, −1 for none or one that was never sold */
  readonly variant: number;
  /** coefficients no price has touched: what their prior means add, by line */
  readonly untouched: readonly { readonly line: Line; readonly log: number }[];
  /** their sum */
  readonly beyond: number;
  /** their variances, and that of time beyond the last price */
  readonly beyondVariance: number;
}

export class Columns {
  readonly #columns: Column[] = [];
  readonly #families = new Map<string, Map<string, number>>();
  readonly #variants = new Map<string, number>();
  readonly #walks: RandomWalk[] = [];
  #growing = true;

  private constructor(
    readonly reference: MarketReference,
    readonly settings: ValueSettings,
    readonly firstKnot: number,
    readonly knots: number,
    readonly usual: number,
  ) {}

  /** Columns for these prices: walks first, the rest as prices touch them. */
  static for(sales: readonly Comparable[], reference: MarketReference, settings: ValueSettings): Columns {
    const days = sales.reduce(
      ({ first, last }, s) => ({ first: Math.min(first, s.day), last: Math.max(last, s.day) }),
      { first: Infinity, last: -Infinity },
    );
    const told = sales.flatMap((s) => (s.conditionIndex === undefined ? [] : [s.conditionIndex]));
    const usual =
      told.length === 0 ? settings.usualCondition : told.reduce((sum, x) => sum + x, 0) / told.length;
    const lastKnot = Math.floor(days.last / settings.daysPerStep) + 1;
    // a date far off the others (a slipped digit) must not make the walk as long as history
    const firstKnot =
      sales.length === 0
        ? 0
        : Math.max(Math.floor(days.first / settings.daysPerStep), lastKnot + 1 - MOST_KNOTS);
    const knots = sales.length === 0 ? 1 : lastKnot + 1 - firstKnot;
    const made = new Columns(reference, settings, firstKnot, knots, Math.round(usual * 100) / 1e4);
    made.#walk('tide', '', 'tide');
    // sellers' hopes come and go: they are no news of what buyers pay
    if (sales.some((s) => s.priceKind === 'asking')) made.#walk('ask tide', '', 'ask tide');
    const makers = most(
      sales.flatMap((s) => reference.patterns.get(s.pattern)?.maker ?? []),
      settings.makerTideFrom,
      settings.makerTides,
    );
    for (const maker of makers) made.#walk('maker tide', maker, 'maker tide');
    const venues = most(
      sales.flatMap((s) => venueName(s.venueKind, s.venue) ?? []),
      settings.venueFrom,
      settings.mostVenues,
    );
    for (const venue of venues)
      made.#add({
        family: 'venue name',
        name: venue,
        line: 'venue',
        prior: { mean: 0, sd: settings.sd.venue },
        spread: 'venue',
      });
    return made;
  }

  /** The columns of a plan, to which what is described may add others. */
  static growing(plan: ColumnPlan, reference: MarketReference, settings: ValueSettings): Columns {
    const made = new Columns(reference, settings, plan.firstKnot, plan.knots, plan.usual);
    for (const column of plan.columns) made.#add(column);
    plan.variants.forEach((id, i) => made.#variants.set(id, i));
    made.#walks.push(...plan.walks);
    return made;
  }

  static from(plan: ColumnPlan, reference: MarketReference, settings: ValueSettings): Columns {
    const made = Columns.growing(plan, reference, settings);
    made.#growing = false;
    return made;
  }

  /** No further columns: what is described from now on and touches others gets their priors. */
  freeze(): ColumnPlan {
    this.#growing = false;
    return {
      columns: this.#columns,
      walks: this.#walks,
      variants: [...this.#variants.keys()],
      firstKnot: this.firstKnot,
      knots: this.knots,
      usual: this.usual,
    };
  }

  #add(column: Column): number {
    let family = this.#families.get(column.family);
    if (!family) this.#families.set(column.family, (family = new Map()));
    this.#columns.push(column);
    family.set(column.name, this.#columns.length - 1);
    return this.#columns.length - 1;
  }

  #walk(family: string, of: string, kind: RandomWalk['kind']): void {
    this.#walks.push({ start: this.#columns.length, count: this.knots, kind });
    for (let k = 0; k < this.knots; k++)
      this.#add({
        family: `${family} ${of}`,
        name: String(k),
        line: 'time',
        prior: { mean: 0, sd: WALK_BEGINS },
      });
  }

  describe(of: Described): Sparse {
    const s = this.settings;
    const columns: number[] = [];
    const values: number[] = [];
    const untouched: { line: Line; log: number }[] = [];
    let beyondVariance = 0;
    const add = (line: Line, family: string, name: string, prior: Prior, value = 1, spread?: Spread) => {
      if (value === 0) return;
      let at = this.#families.get(family)?.get(name);
      if (at === undefined && this.#growing)
        at = this.#add({ family, name, line, prior, ...(spread === undefined ? {} : { spread }) });
      if (at === undefined) {
        untouched.push({ line, log: value * prior.mean });
        beyondVariance += (value * prior.sd) ** 2;
        return;
      }
      columns.push(at);
      values.push(value);
    };
    add('level', 'level', '', s.level);
    const pattern = this.reference.patterns.get(of.pattern);
    if (pattern) {
      add('construction', 'construction', pattern.construction, s.construction);
      add('maker', 'maker', pattern.maker, { mean: 0, sd: s.sd.maker }, 1, 'maker');
    }
    add('pattern', 'pattern', of.pattern, { mean: 0, sd: s.sd.pattern }, 1, 'pattern');
    const variant = of.variant === undefined ? undefined : this.reference.variants.get(of.variant);
    let at = -1;
    if (variant) {
      add('kind', 'kind', variant.kind, s.kind);
      for (const material of variant.materials ?? [])
        add('material', 'material', material, { mean: 0, sd: s.sd.material }, 1, 'material');
      if (variant.quantity !== undefined && variant.quantity > 0)
        add('scarcity', 'quantity', '', s.quantity, Math.log(variant.quantity / 1000));
      if (variant.year !== undefined) add('age', 'decade', '', s.decade, (variant.year - 1950) / 10);
      const known = this.#variants.get(variant.id);
      if (known !== undefined) at = known;
      else if (this.#growing) this.#variants.set(variant.id, (at = this.#variants.size));
    }
    if (of.conditionIndex === undefined) add('condition', 'condition untold', '', s.conditionUntold);
    else {
      const x = of.conditionIndex / 100;
      add('condition', 'condition', '', s.conditionSlope, x - this.usual);
      for (const knot of s.conditionKnots)
        add(
          'condition',
          'condition from',
          String(knot),
          s.conditionBend,
          Math.max(0, x - knot) - Math.max(0, this.usual - knot),
        );
      if (pattern)
        add('condition', 'condition of', pattern.construction, s.constructionSlope, x - this.usual);
    }
    this.#item(add, 'box', of.box, s.boxOriginal);
    this.#item(add, 'papers', of.papers, s.papersOriginal);
    this.#item(add, 'sheath', of.sheath, s.sheathOriginal);
    for (const alteration of of.alterations) {
      const known = s.alterations[alteration as keyof typeof s.alterations];
      add('alterations', 'alteration', alteration, known);
    }
    add('venue', 'venue', of.venueKind, s.venues[of.venueKind]);
    const venue = venueName(of.venueKind, of.venue);
    const named = venue === undefined ? undefined : this.#families.get('venue name')?.get(venue);
    if (named !== undefined) {
      columns.push(named);
      values.push(1);
    }
    if (of.priceKind === 'asking') add('price kind', 'price kind', 'asking', s.asking);
    if (of.priceKind === 'offer') add('price kind', 'price kind', 'offer', s.offer);
    if (!of.premiumTold)
      if (of.venueKind === 'auction') add('premium not told', 'premium', 'auction', s.premiumUntold);
      else add('premium not told', 'premium', 'elsewhere', s.premiumUntoldElsewhere);
    // the walks: linear between half-years, level beyond them with the variance of the steps walked unseen
    const at0 = of.day / s.daysPerStep - this.firstKnot;
    const place = Math.min(this.knots - 1, Math.max(0, at0));
    const k = Math.min(this.knots - 2, Math.floor(place));
    const share = place - k;
    const unseen = Math.abs(at0 - place);
    const steps = (family: string, step: number) => {
      const walk = this.#families.get(family);
      const first = walk?.get('0');
      if (first === undefined) return;
      if (this.knots === 1) {
        columns.push(first);
        values.push(1);
      } else {
        if (share < 1) {
          columns.push(first + k);
          values.push(1 - share);
        }
        if (share > 0) {
          columns.push(first + k + 1);
          values.push(share);
        }
      }
      beyondVariance += unseen * step ** 2;
    };
    steps('tide ', s.tideStep);
    if (of.priceKind === 'asking') steps('ask tide ', s.askTideStep);
    if (pattern) steps(`maker tide ${pattern.maker}`, s.makerTideStep);
    const beyond = untouched.reduce((sum, { log }) => sum + log, 0);
    return { columns, values, variant: at, untouched, beyond, beyondVariance };
  }

  #item(
    add: (line: Line, family: string, name: string, prior: Prior) => void,
    item: 'box' | 'papers' | 'sheath',
    state: ItemState | undefined,
    original: Prior,
  ): void {
    if (state === 'original') add(item, item, 'original', original);
    else if (state === 'later') add(item, item, 'later', this.settings.later);
    else if (state === undefined) add(item, item, 'not stated', this.settings.notStated);
  }
}

/** Sixty years of half-years; older prices stand at the beginning of the walk. */
const MOST_KNOTS = 120;
/** Where a walk begins is the level's to say. */
const WALK_BEGINS = 0.1;

const venueName = (kind: VenueKind, venue: string | undefined): string | undefined =>
  venue === undefined || venue === '' ? undefined : `${kind} ${venue.trim().toLowerCase()}`;

/** The names that come up most, at least `from` times. */
function most(names: readonly string[], from: number, limit: number): string[] {
  const counts = new Map<string, number>();
  for (const name of names) counts.set(name, (counts.get(name) ?? 0) + 1);
  return [...counts]
    .filter(([, n]) => n >= from)
    .sort(([a, m], [b, n]) => n - m || (a < b ? -1 : 1))
    .slice(0, limit)
    .map(([name]) => name);
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
  venue: c.venue,
  day: c.day,
  priceKind: c.priceKind,
  premiumTold: c.buyerPremiumPct !== undefined,
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
  venue: undefined,
  day,
  priceKind: 'sold',
  premiumTold: true,
});
