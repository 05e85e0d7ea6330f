/**
 * What a reference pack says (`jutbank.reference/1`): the vocabulary of makers, patterns, variants, features,
 * marks, codes, dated windows and sources. Optional fields may be absent or null.
 */
type Maybe<T> = T | null | undefined;

export const CONSTRUCTIONS = [
  'slipjoint',
  'locking-folder',
  'fixed',
  'bayonet',
  'multi-tool',
  'automatic',
  'balisong',
] as const;
export type Construction = (typeof CONSTRUCTIONS)[number];

export const SOURCE_KINDS = [
  'factory-record',
  'specification',
  'catalogue',
  'book',
  'advertisement',
  'collector-site',
  'examined-piece',
  'hearsay',
] as const;
export type SourceKind = (typeof SOURCE_KINDS)[number];

export const VARIANT_KINDS = [
  'production',
  'exclusive',
  'limited',
  'prototype',
  'service',
  'commercial-twin',
  'reissue',
  'licensed-copy',
  'reproduction',
  'counterfeit',
] as const;
/** Kinds that are made after something else: bought as one, a piece stays one through listing and sale. */
export const MADE_AFTER = [
  'reissue',
  'licensed-copy',
  'reproduction',
] as const satisfies readonly (typeof VARIANT_KINDS)[number][];
export type MadeAfter = (typeof MADE_AFTER)[number];
export type VariantKind = (typeof VARIANT_KINDS)[number];

/** How easily a part is exchanged, and what it takes to see a feature. */
export const SWAP_CLASSES = ['never', 'hard', 'moderate', 'easy'] as const;
export type SwapClass = (typeof SWAP_CLASSES)[number];
export const EFFORTS = ['glance', 'open', 'loupe', 'gauge', 'strip'] as const;
export type Effort = (typeof EFFORTS)[number];

export interface Source {
  id: string;
  title: string;
  kind: SourceKind;
  published?: Maybe<string>;
  /** 0–1: how often a statement of this source holds */
  reliability?: Maybe<number>;
  note?: Maybe<string>;
}

export interface Maker {
  id: string;
  name: string;
  place?: Maybe<string>;
  active?: Maybe<string>;
  aliases?: Maybe<string[]>;
  /** varieties that left the works side by side: hold for every form that records nothing else */
  features?: Maybe<Record<string, FeatureReading[]>>;
}

export interface FeatureValue {
  id: string;
  label: string;
  /** a material that gives off vapour with age: it is kept apart from its neighbours */
  vapour?: Maybe<boolean>;
  /** what the value looks like: slots of the drawing and their styles, as “bolster: grooved” */
  draws?: Maybe<Record<string, string | null>>;
}

/** A length as a measure of the pattern, or a share of one. */
export interface LengthOf {
  of: string;
  share?: Maybe<number>;
}
/** How a pattern is drawn where its variants say nothing else; every style is kept, those unknown here are not drawn. */
export interface PatternDrawing {
  handle?: Maybe<{
    profile?: Maybe<string>;
    height?: Maybe<number>;
    length?: Maybe<LengthOf>;
    /** its outline from the mark side, closed, mm: the butt at the least x, the back at the least y; it replaces the profile */
    outline?: Maybe<[number, number][]>;
  }>;
  blades?: Maybe<
    {
      role: string;
      end?: Maybe<string>;
      shape?: Maybe<string>;
      length?: Maybe<number | LengthOf>;
      height?: Maybe<number>;
      /** layer from the mark side, 0 first */
      layer?: Maybe<number>;
    }[]
  >;
  styles?: Maybe<Record<string, string | null>>;
}

export type FeatureKind = 'category' | 'count' | 'measure' | 'text';
export interface Feature {
  id: string;
  label: string;
  part: string;
  kind: FeatureKind;
  values?: Maybe<FeatureValue[]>;
  unit?: Maybe<'mm' | 'g' | 'deg'>;
  wear?: Maybe<'none' | 'shrinks' | 'grows'>;
  swap?: Maybe<SwapClass>;
  effort?: Maybe<Effort>;
  constructions?: Maybe<Construction[]>;
  ask?: Maybe<string>;
}

/** A value of a feature: the id of one of its values, or a number for a count. */
export type FeatureReading = string | number;

export interface DatedWindow {
  id: string;
  maker?: Maybe<string>;
  pattern?: Maybe<string>;
  feature: string;
  value: FeatureReading;
  window: string;
  source?: Maybe<string>;
  page?: Maybe<string>;
  /** ISO 8601 duration by which old stock may have been used up later */
  carryOver?: Maybe<string>;
  note?: Maybe<string>;
}

export const STAMPED_AFTERWARDS = ['re-issue', 're-work', 'conversion'] as const;
/** A stamp struck later than the piece was made tells what was done to it: history, not damage. */
export interface MarkHistory {
  what: (typeof STAMPED_AFTERWARDS)[number];
  /** features that were changed with it, and so no longer speak for the piece as it was made */
  changes?: Maybe<string[]>;
}

export interface Mark {
  id: string;
  maker?: Maybe<string>;
  place?: Maybe<string>;
  lines: string[];
  lettering?: Maybe<string>;
  window?: Maybe<string>;
  carryOver?: Maybe<string>;
  source?: Maybe<string>;
  page?: Maybe<string>;
  codes?: Maybe<string[]>;
  /** struck when a finished piece came back to the maker or an arsenal */
  history?: Maybe<MarkHistory>;
}

export interface CodeRead {
  id: string;
  label: string;
  type: 'count' | 'choice';
  min?: Maybe<number>;
  max?: Maybe<number>;
  values?: Maybe<string[]>;
}

export type YearRule =
  | { base: number; plus: string }
  | { base: number; minus: string }
  | { letters: string; base: number; read: string }
  | { digits: string; century: number }
  | { ranges: { from: number; to: number; window: string }[]; read: string }
  | { table: Record<string, string>; read: string };

/** Which month of the year: a read that counts 1 to 12, or letters in order from January. */
export type MonthRule = { read: string } | { letters: string; read: string };

export interface CodeRule {
  when?: Maybe<Record<string, string | number>>;
  year: YearRule;
  /** narrows the year to one month where its read was given */
  month?: Maybe<MonthRule>;
}

/** What a sign stands for: one value of a feature, or any of several. */
export type ImpliedFeature =
  { feature: string; value: FeatureReading } | { feature: string; values: FeatureReading[] };
export const impliedValues = (implied: ImpliedFeature): readonly FeatureReading[] =>
  'values' in implied ? implied.values : [implied.value];

export interface Segment {
  id: string;
  table?: Maybe<Record<string, ImpliedFeature>>;
  /** what stands there in every stamp and means nothing by itself, such as "-" */
  literal?: Maybe<string>;
  digits?: Maybe<number | string>;
  feature?: Maybe<string>;
  pattern?: Maybe<boolean>;
  repeat?: Maybe<boolean>;
  optional?: Maybe<boolean>;
}

interface CodeCommon {
  id: string;
  maker?: Maybe<string>;
  title?: Maybe<string>;
  source?: Maybe<string>;
  page?: Maybe<string>;
}
export interface DateCode extends CodeCommon {
  kind: 'date';
  reads: CodeRead[];
  rules: CodeRule[];
}
export interface PatternNumberCode extends CodeCommon {
  kind: 'pattern-number';
  segments: Segment[];
}
export interface SerialCode extends CodeCommon {
  kind: 'serial';
  pattern?: Maybe<string>;
  /** regular expression of the whole serial */
  format: string;
  /** the capture group that holds the number */
  number: number;
  /** the capture group that holds the size of the run as it is told on the piece ("88 of 1,200") */
  runGroup?: Maybe<number>;
  runFromVariant?: Maybe<boolean>;
}
export type Code = DateCode | PatternNumberCode | SerialCode;

export interface NominalMeasure {
  value: number;
  /** holds about 95 % of new pieces: two standard deviations */
  tolerance?: Maybe<number>;
}

export interface Pattern {
  id: string;
  maker: string;
  name: string;
  number?: Maybe<string>;
  construction: Construction;
  measures?: Maybe<Record<string, NominalMeasure>>;
  /** as for a maker, for this pattern alone */
  features?: Maybe<Record<string, FeatureReading[]>>;
  /** the main blade's outline when new, closed, in mm: the tang end at x = 0, the edge towards greater y */
  outline?: Maybe<[number, number][]>;
  drawing?: Maybe<PatternDrawing>;
  /** how many were made of the whole pattern in each year, where a source tells it */
  madeByYear?: Maybe<Record<string, number>>;
}

export interface Production {
  quantity?: Maybe<number>;
  basis: 'documented' | 'estimated' | 'unknown';
  byYear?: Maybe<Record<string, number>>;
}

export interface Edition {
  run?: Maybe<number>;
  firstNumber?: Maybe<number>;
  retailer?: Maybe<string>;
  /** of an annual series: first year + index − 1 is the year */
  index?: Maybe<number>;
  /** a run divided by hand, finish or shop, each share with its own numbers where it has them */
  split?: Maybe<RunShare[]>;
}

export const RUN_SPLITS = ['hand', 'finish', 'shop'] as const;
export interface RunShare {
  by: (typeof RUN_SPLITS)[number];
  /** “left hand”, “stonewashed”, the shop's name */
  of: string;
  run: number;
  firstNumber?: Maybe<number>;
}

export interface Claim {
  about: string;
  source: string;
  page?: Maybe<string>;
}

export interface Variant {
  id: string;
  pattern: string;
  name: string;
  kind: VariantKind;
  window?: Maybe<string>;
  issuedTo?: Maybe<string>;
  twinOf?: Maybe<string>;
  /** finished pieces of these variants were made into this one: shortened, re-hilted, opened up */
  convertedFrom?: Maybe<string[]>;
  made?: Maybe<Production>;
  features?: Maybe<Record<string, FeatureReading[]>>;
  measures?: Maybe<Record<string, NominalMeasure>>;
  marks?: Maybe<string[]>;
  edition?: Maybe<Edition>;
  tells?: Maybe<string[]>;
  claims?: Maybe<Claim[]>;
}

export const STORY_VERDICTS = ['open', 'supported', 'refuted'] as const;
export type StoryVerdict = (typeof STORY_VERDICTS)[number];
/** What is told about a maker, a pattern or a variant; a refuted story is kept, so that it is not told again. */
export interface Story {
  id: string;
  told: string;
  verdict: StoryVerdict;
  maker?: Maybe<string>;
  pattern?: Maybe<string>;
  variant?: Maybe<string>;
  because?: Maybe<string>;
  source?: Maybe<string>;
  page?: Maybe<string>;
}

/** The kinds of thing a pack is made of, in the order in which they may refer to each other. */
export interface PackContents {
  sources: Source[];
  makers: Maker[];
  features: Feature[];
  patterns: Pattern[];
  codes: Code[];
  marks: Mark[];
  windows: DatedWindow[];
  variants: Variant[];
  stories: Story[];
}
export const PACK_SECTIONS = [
  'sources',
  'makers',
  'features',
  'patterns',
  'codes',
  'marks',
  'windows',
  'variants',
  'stories',
] as const;
export type PackSection = (typeof PACK_SECTIONS)[number];

export interface ReferencePack extends Partial<PackContents> {
  format: 'jutbank.reference/1';
  id: string;
  title: string;
  revision: string;
}

export const emptyContents = (): PackContents => ({
  sources: [],
  makers: [],
  features: [],
  patterns: [],
  codes: [],
  marks: [],
  windows: [],
  variants: [],
  stories: [],
});
