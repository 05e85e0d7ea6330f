/** Recipes from what the reference records: the variant, else its pattern, else the usual of its construction. */
import { isOutline, tracedHeight } from './tracedHandle.ts';
import type {
  Code,
  Construction,
  Feature,
  FeatureReading,
  Mark,
  NominalMeasure,
  Pattern,
  PatternDrawing,
  Variant,
} from '../../reference/index.ts';
import { letteringOf } from '../stamp.ts';
import { readStyles } from './readStyles.ts';
import {
  SIGN_PLACES,
  type BladeRecipe,
  type DrawingRecipe,
  type PartState,
  type SignPlace,
  type StampRecipe,
} from './recipe.ts';
import {
  drawsOn,
  isSlot,
  SLOTS,
  stylesOf,
  USUAL,
  type BladeForm,
  type SlotName,
  type Styles,
} from './vocabulary.ts';

export interface Records {
  readonly pattern: Pick<Pattern, 'name' | 'construction' | 'measures' | 'features' | 'drawing' | 'outline'>;
  readonly variant?: Pick<Variant, 'name' | 'features' | 'measures' | 'marks'> | undefined;
  readonly features: readonly Feature[];
  readonly marks?: readonly Mark[];
  readonly codes?: readonly Code[];
}

/** What something is drawn as: a variant, else its pattern, else any piece of its construction. */
export interface DrawnAs {
  readonly construction: Construction;
  readonly variant?: string | null | undefined;
  readonly pattern?: string | null | undefined;
}
/** A reference whose things are found by their ids. */
export interface DrawnReference {
  readonly patterns: ReadonlyMap<string, Records['pattern']>;
  readonly variants: ReadonlyMap<
    string,
    { readonly pattern: Records['pattern']; readonly variant: NonNullable<Records['variant']> }
  >;
  readonly contents: Pick<Required<Records>, 'features' | 'marks' | 'codes'>;
}
/** What something is drawn from, in a reference as it stands. */
export function recipeIn(
  { patterns, variants, contents }: DrawnReference,
  { construction, variant, pattern }: DrawnAs,
): DrawingRecipe {
  const row = variants.get(variant ?? '');
  return recipeOfRecords({
    pattern: row?.pattern ?? patterns.get(pattern ?? '') ?? anyPattern(construction),
    variant: row?.variant,
    features: contents.features,
    marks: contents.marks,
    codes: contents.codes,
  });
}
/** The pattern that stands in where none is known. */
export const anyPattern = (construction: Construction): Records['pattern'] => ({
  name: 'A piece',
  construction,
});

/** Styles as they are read, each with how it is known; what a construction cannot have is not taken. */
class Reading {
  readonly styles: Partial<Record<SlotName, string>>;
  readonly known: Partial<Record<SlotName, PartState>> = {};
  readonly #construction: Construction;
  constructor(construction: Construction, styles: Styles) {
    this.#construction = construction;
    this.styles = { ...styles };
  }
  take(slot: string, style: string, state: PartState = 'recorded'): void {
    if (!isSlot(slot) || !drawsOn(slot, this.#construction)) return;
    if (!stylesOf(slot, this.#construction).includes(style)) return;
    this.styles[slot] = style;
    this.known[slot] = state;
  }
  takeValue(feature: Feature, value: FeatureReading, state?: PartState): void {
    for (const [slot, style] of Object.entries(readStyles(feature, value, this.#construction)))
      this.take(slot, style, state);
  }
  finish(records: Records): DrawingRecipe {
    // a bolster that is recorded is there
    const { styles, known } = this;
    if (known.bolster && !known['bolster-set'] && styles['bolster-set'] === 'none')
      styles['bolster-set'] = 'front';
    return finishRecipe(records, styles as Styles, known);
  }
}

export function recipeOfRecords(records: Records): DrawingRecipe {
  return readRecords(records).finish(records);
}
function readRecords({ pattern, variant, features }: Records): Reading {
  const reading = new Reading(pattern.construction, USUAL[pattern.construction]);
  for (const [slot, style] of Object.entries(pattern.drawing?.styles ?? {}))
    if (style != null) reading.take(slot, style);
  if (pattern.drawing?.handle?.profile != null) reading.take('profile', pattern.drawing.handle.profile);
  for (const read of [pattern.features, variant?.features])
    for (const [id, [value]] of Object.entries(read ?? {})) {
      const feature = features.find((f) => f.id === id);
      if (feature && value !== undefined) reading.takeValue(feature, value);
    }
  return reading;
}

/** A piece as far as it has been looked at: what was seen is drawn as seen, the rest as its nearest form is recorded, dashed. */
export interface Seen {
  readonly value?: FeatureReading;
  readonly measure?: number;
  readonly state: PartState;
}
export function recipeOfPiece(records: Records, seen: Readonly<Record<string, Seen>>): DrawingRecipe {
  const { construction } = records.pattern;
  const reading = new Reading(construction, readRecords(records).styles as Styles);
  const measures: Record<string, NominalMeasure> = {
    ...records.pattern.measures,
    ...records.variant?.measures,
  };
  const counts: Record<string, FeatureReading[]> = {};
  let measured = false;
  for (const [id, { value, measure, state }] of Object.entries(seen)) {
    const feature = records.features.find((f) => f.id === id);
    if (!feature) continue;
    if (measure !== undefined) {
      measures[id] = { value: measure };
      measured = true;
    }
    if (value !== undefined && feature.kind === 'count') counts[id] = [value];
    if (value !== undefined) reading.takeValue(feature, value, state);
    if (state === 'not-there')
      for (const slot of slotsOf(feature, construction)) {
        reading.known[slot] = 'not-there';
        reading.take(slot, 'none', 'not-there');
      }
  }
  const { known } = reading;
  const made = reading.finish({
    ...records,
    variant: {
      name: records.pattern.name,
      ...records.variant,
      measures,
      features: { ...records.variant?.features, ...counts },
    },
  });
  const looked = Object.keys(counts).length > 0 || BLADE_SLOTS.some((slot) => known[slot] !== undefined);
  return {
    ...made,
    stamp: made.stamp && { ...made.stamp, state: 'assumed' },
    handleState: measured ? 'measured' : 'assumed',
    blades: made.blades.map((blade) => ({ ...blade, state: looked ? 'recorded' : 'assumed' })),
  };
}
/** Who has read one of these has looked at the blades. */
const BLADE_SLOTS = ['blade-form', 'pull', 'finish'] as const satisfies readonly SlotName[];

/** Slots that some value of a feature draws. */
export const slotsOf = (feature: Feature, construction: Construction): SlotName[] => [
  ...new Set(
    (feature.values ?? []).flatMap((v) =>
      Object.keys(readStyles(feature, v.id, construction)).filter(isSlot),
    ),
  ),
];
/** Whether a feature decides how a drawn part looks: a bolster's form both bolsters, a count of blades each of them. */
export function decides(feature: Feature, construction: Construction, part: string): boolean {
  if (feature.kind === 'count') return feature.part === 'blade' && part.split(':')[0] === 'blade';
  const own = slotsOf(feature, construction).flatMap((slot): readonly string[] => SLOTS[slot].parts);
  return own.some((p) => part === p || part.startsWith(`${p}:`));
}
/** The features that decide a drawn part: what a click on it takes in hand. */
export const featuresOfPart = (
  part: string,
  features: readonly Feature[],
  construction: Construction,
): Feature[] =>
  features.filter(
    (feature) =>
      (feature.constructions?.includes(construction) ?? true) && decides(feature, construction, part),
  );

/** Share of the length that a handle is high, where nothing is recorded; of a straight knife the grip's length and height, mm. */
const PROPORTION: Readonly<
  Record<Construction, { readonly height: number; readonly length: number; readonly blade: number }>
> = {
  slipjoint: { height: 0.163, length: 95, blade: 0.73 },
  'multi-tool': { height: 0.235, length: 91, blade: 0.72 },
  'locking-folder': { height: 0.245, length: 112, blade: 0.74 },
  automatic: { height: 0.19, length: 115, blade: 0.76 },
  balisong: { height: 0.23, length: 125, blade: 0.8 },
  fixed: { height: 0.24, length: 112, blade: 1.05 },
  bayonet: { height: 0.21, length: 125, blade: 2 },
};

function finishRecipe(records: Records, styles: Styles, known: DrawingRecipe['known']): DrawingRecipe {
  const { pattern, variant, features } = records;
  const { construction, drawing } = pattern;
  const usual = PROPORTION[construction];
  const measureOf = (id: string | undefined) =>
    id === undefined ? undefined : (variant?.measures?.[id]?.value ?? pattern.measures?.[id]?.value);
  const straight = construction === 'fixed' || construction === 'bayonet';
  const bladeLength = measureOf(lengthFeature(features, 'blade'));
  const overall = measureOf(lengthFeature(features, 'overall'));
  const told =
    measureOf(drawing?.handle?.length?.of) ??
    (straight ? undefined : measureOf(lengthFeature(features, 'closed')));
  const handleLength =
    told ??
    (straight && overall !== undefined && bladeLength !== undefined ? overall - bladeLength : undefined);
  const usualLength = straight || bladeLength === undefined ? usual.length : bladeLength / usual.blade;
  const length = within(HANDLE, handleLength ?? usualLength);
  // a straight knife's handle is its grip, which is made of parts
  const traced = straight || construction === 'balisong' ? undefined : drawing?.handle?.outline;
  const outline = isOutline(traced) ? traced : undefined;
  return {
    name: variant && variant.name !== pattern.name ? `${pattern.name}, ${variant.name}` : pattern.name,
    construction,
    styles,
    known,
    handleLength: length,
    handleHeight: within(
      [length * 0.05, length * 0.6],
      (outline && tracedHeight(outline, length)) ?? drawing?.handle?.height ?? length * usual.height,
    ),
    ...(outline && { handleOutline: outline }),
    handleState: handleLength === undefined ? 'assumed' : 'recorded',
    blades: bladesOf(records, styles, known, length, bladeLength, measureOf),
    stamp: stampOfVariant(records),
    bladeOutline: drawing?.blades?.some((b) => b.shape != null) ? undefined : (pattern.outline ?? undefined),
  };
}
/** What is drawn, mm: a measure beyond it is a slip of the pen, and would fill the sheet. */
const HANDLE = [15, 600] as const;
const BLADE = 1500;
const within = ([low, high]: readonly [number, number], value: number): number =>
  Number.isFinite(value) ? Math.max(low, Math.min(high, value)) : low;

/** The measure that tells a length, by what it is called. */
function lengthFeature(
  features: readonly Feature[],
  which: 'closed' | 'blade' | 'overall',
): string | undefined {
  const said = { closed: /closed/, blade: /blade.*length|length.*blade/, overall: /over.?all|total.*length/ }[
    which
  ];
  return features.find(
    (f) => f.kind === 'measure' && (f.unit ?? 'mm') === 'mm' && said.test(`${f.id} ${f.label}`.toLowerCase()),
  )?.id;
}

type MeasureOf = (id: string | undefined) => number | undefined;
function bladesOf(
  { pattern, variant, features }: Records,
  styles: Styles,
  known: DrawingRecipe['known'],
  handleLength: number,
  bladeLength: number | undefined,
  measureOf: MeasureOf,
): BladeRecipe[] {
  const { construction, drawing } = pattern;
  const counted = features.find((f) => f.kind === 'count' && f.part === 'blade');
  const count =
    counted &&
    [variant?.features, pattern.features]
      .map((read) => read?.[counted.id]?.[0])
      .find((n) => typeof n === 'number');
  const many = construction === 'slipjoint' || construction === 'multi-tool';
  const written = drawing?.blades ?? [];
  const limit = construction === 'multi-tool' ? 2 : 5;
  const n = many
    ? Math.max(construction === 'multi-tool' ? 1 : 0, Math.min(limit, Number(count ?? (written.length || 1))))
    : 1;
  // what folds is hardly longer than its handle; a straight blade may be as long as it is told
  const longest = construction === 'fixed' || construction === 'bayonet' ? BLADE : handleLength * 1.2;
  const main = bladeLength ?? handleLength * PROPORTION[construction].blade;
  return Array.from({ length: n }, (_, i): BladeRecipe => {
    const record = written[i];
    const form = i === 0 && known['blade-form'] ? styles['blade-form'] : formNamed(record?.shape);
    const length = lengthOf(record?.length, measureOf);
    return {
      role: record?.role ?? ROLES[i] ?? `blade ${i + 1}`,
      end:
        record?.end === 'rear' || (!record && i === 1 && n !== 2) || (!record && i >= 2) ? 'rear' : 'front',
      form: form ?? (i === 0 ? (styles['blade-form'] ?? 'spear') : 'pen'),
      length: within(
        [handleLength * 0.1, longest],
        length ?? (i === 0 ? main : main * (i === 1 ? 0.74 : 0.7)),
      ),
      ...(record?.height != null && { height: within([2, handleLength], record.height) }),
      layer: record?.layer ?? i,
      state: form ? 'recorded' : 'assumed',
    };
  });
}
const ROLES = ['master', 'pen', 'third', 'fourth', 'fifth'];
const formNamed = (shape: string | null | undefined): BladeForm | undefined =>
  shape != null && stylesOf('blade-form').includes(shape) ? (shape as BladeForm) : undefined;
type Length = NonNullable<NonNullable<PatternDrawing['blades']>[number]['length']>;
function lengthOf(length: Length | null | undefined, measureOf: MeasureOf): number | undefined {
  if (length == null || typeof length === 'number') return length ?? undefined;
  const whole = measureOf(length.of);
  return whole === undefined ? undefined : whole * (length.share ?? 1);
}

function stampOfVariant({ variant, marks, codes }: Records): StampRecipe | undefined {
  const mark = marks?.find((m) => variant?.marks?.includes(m.id));
  return mark && stampOf(mark, codes);
}
/** A stamp of the reference; the signs a code counts stand where its rules put them, three of them where none is counted. */
export function stampOf(
  mark: Pick<Mark, 'lines' | 'lettering' | 'codes'>,
  codes: readonly Code[] = [],
  counted?: { readonly count: number; readonly where: string },
): StampRecipe {
  const words = mark.lettering?.toLowerCase() ?? '';
  const code = codes.find(
    (c) => c.kind === 'date' && mark.codes?.includes(c.id) && c.reads.some((r) => r.type === 'count'),
  );
  const row = code?.kind === 'date' ? code.reads.find((r) => r.type === 'choice')?.values?.[0] : undefined;
  const where = counted?.where ?? row;
  const count = counted?.count ?? (code ? SIGNS_SHOWN : 0);
  return {
    lines: mark.lines.slice(0, MOST_LINES),
    lettering: letteringOf(mark),
    painted: /paint|filled/.test(words),
    framed: /frame|oval|cartouche/.test(words),
    ...(where !== undefined &&
      count > 0 && { signs: { count, form: code ? signForm(code) : 'tick', where: placeOf(where) } }),
  };
}
/** A tang has no room for more. */
const MOST_LINES = 6;
/** So many signs stand for “counted here” where nobody counted any. */
const SIGNS_SHOWN = 3;
const signForm = (code: Code): NonNullable<StampRecipe['signs']>['form'] => {
  const title = `${code.title ?? ''} ${code.id}`.toLowerCase();
  const forms = {
    dot: /dot/,
    ring: /ring|circle/,
    star: /star/,
    cross: /cross|plus/,
    diamond: /diamond|lozenge/,
  } as const;
  return (Object.keys(forms) as (keyof typeof forms)[]).find((form) => forms[form].test(title)) ?? 'tick';
};
export function placeOf(words: string): SignPlace {
  const said = words.toLowerCase();
  if (/arc|arch/.test(said)) return 'arc';
  if (/above|over|top/.test(said)) return 'above';
  if (/below|under|bottom/.test(said)) return 'below';
  if (/left|before|front/.test(said)) return 'before';
  if (/right|after|behind/.test(said)) return 'after';
  return SIGN_PLACES.find((place) => said.includes(place)) ?? 'beside';
}
