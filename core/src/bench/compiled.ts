/**
 * A reference laid out for the engine: variants as rows, features as columns of small codes.
 */
import type { Day } from '../dates/index.ts';
import type { Month, MonthRange } from './months.ts';
import type {
  Code,
  Construction,
  DatedWindow,
  Feature,
  FeatureReading,
  Maker,
  Mark,
  PackContents,
  Pattern,
  Source,
  Variant,
} from '../reference/index.ts';

export const SILENT = -1;
export const NOT_APPLICABLE = -2;

/** When a variant was made: month ranges with their share of the production; shares add up to 1. */
export type MadeOver = readonly { readonly months: MonthRange; readonly share: number }[];

export interface Row {
  readonly index: number;
  readonly variant: Variant;
  readonly pattern: Pattern;
  readonly maker: Maker;
  readonly construction: Construction;
  /** rows of one maker and one construction share a background */
  readonly group: number;
  /** whose dates its stamps are judged by: an imitation's original, else its own */
  readonly judgedAs: number;
  readonly imitation: boolean;
  readonly madeOver: MadeOver;
  /** hull of the months it was made in */
  readonly window: MonthRange;
  /** made and still about; estimated from its kind, maker and pattern where unknown */
  readonly left: number;
}

export interface Column {
  readonly feature: Feature;
  /** distinct sets of values that variants list */
  readonly sets: readonly (readonly FeatureReading[])[];
  /** per row: index into `sets`, SILENT or NOT_APPLICABLE */
  readonly setOf: Int32Array;
  /** the values that can be told apart */
  readonly values: readonly FeatureReading[];
  readonly valueIndex: ReadonlyMap<FeatureReading, number>;
  /** per group, then for all: how often a pattern chose each value (several values of one variant share it) */
  readonly frequency: readonly Float64Array[];
  readonly frequencyOfAll: Float64Array;
  /** sums of the two above */
  readonly chosenIn: Float64Array;
  readonly chosenInAll: number;
}

export interface MeasureColumn {
  readonly feature: Feature;
  /** per row: nominal value, NaN where silent */
  readonly nominal: Float64Array;
  /** per row: standard deviation of new pieces */
  readonly spread: Float64Array;
  readonly notApplicable: Uint8Array;
}

export interface Group {
  readonly maker: string;
  readonly construction: Construction;
  readonly rows: readonly number[];
}

export interface DayHulls {
  readonly from: Float64Array;
  readonly to: Float64Array;
}

/** All that a reference says by itself; how often each row is met comes on top (`ReferenceIndex`). */
export interface CompiledReference {
  readonly revision: string;
  /** time ends here: nothing was made later */
  readonly today: Month;
  readonly lastDay: Day;
  readonly contents: PackContents;
  readonly sources: ReadonlyMap<string, Source>;
  readonly makers: ReadonlyMap<string, Maker>;
  readonly features: ReadonlyMap<string, Feature>;
  readonly patterns: ReadonlyMap<string, Pattern>;
  readonly codes: ReadonlyMap<string, Code>;
  readonly marks: ReadonlyMap<string, Mark>;
  readonly variants: ReadonlyMap<string, Row>;
  readonly rows: readonly Row[];
  readonly groups: readonly Group[];
  /** per row: its group */
  readonly groupOf: Int32Array;
  /** makers in order, and per row the number of the maker its stamps are judged by */
  readonly makerNumber: ReadonlyMap<string, number>;
  readonly bearerMaker: Int32Array;
  readonly makerOf: Int32Array;
  readonly patternOf: Int32Array;
  /** per row: the hull of its window, else of its maker's years, taken at the word and leniently; NaN without either */
  readonly windowHull: { readonly strict: DayHulls; readonly lenient: DayHulls };
  /** rows as columns, so that a pass over the reference touches no objects */
  readonly everyRow: Int32Array;
  readonly judgedAs: Int32Array;
  /** made and still about */
  readonly leftOf: Float64Array;
  readonly counterfeit: Uint8Array;
  readonly imitation: Uint8Array;
  readonly groupSize: Float64Array;
  /** per group: the number of its construction */
  readonly constructionOf: Int32Array;
  readonly constructionSize: Float64Array;
  /** months each row was made in: pieces `madeAt[r]` to `madeAt[r + 1]` of the lists, from the calendar's first month */
  readonly madeAt: Int32Array;
  readonly madeFrom: Int32Array;
  readonly madeTo: Int32Array;
  readonly madeShare: Float64Array;
  readonly columns: ReadonlyMap<string, Column>;
  readonly measures: ReadonlyMap<string, MeasureColumn>;
  /** the months in which some variant was made: the calendar all date factors share */
  readonly calendar: { readonly from: Month; readonly length: number };
  /** dated windows by feature */
  readonly windowsByFeature: ReadonlyMap<string, readonly DatedWindow[]>;
}
