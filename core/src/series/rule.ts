/** What a collector follows, as a rule over the reference, and the slots that the rule asks to be filled. */
import { dayOf, calendarOf, hullOf, intersectAll, isEmpty, periodOf, type Span } from '../dates/index.ts';
import {
  quantityMade,
  type Edition,
  type Feature,
  type Mark,
  type Pattern,
  type Variant,
  type VariantKind,
} from '../reference/index.ts';

export type SeriesRule =
  /** every variant of these patterns or models */
  | {
      readonly kind: 'patterns';
      readonly patterns: readonly string[];
      readonly kinds?: readonly VariantKind[] | undefined;
    }
  /** everything that bears this stamp */
  | { readonly kind: 'stamp'; readonly mark: string }
  /** one of each value of a feature, whichever variant has it */
  | { readonly kind: 'values'; readonly patterns: readonly string[]; readonly feature: string }
  /** one of every year in which they were made */
  | { readonly kind: 'years'; readonly patterns: readonly string[] }
  /** chosen one by one */
  | { readonly kind: 'picked'; readonly variants: readonly string[] };
export const SERIES_RULES = [
  'patterns',
  'stamp',
  'values',
  'years',
  'picked',
] as const satisfies readonly SeriesRule['kind'][];

/** Kinds that nobody collects as the thing itself; a rule may ask for them by name. */
const IMITATIONS: ReadonlySet<VariantKind> = new Set(['licensed-copy', 'reproduction', 'counterfeit']);

export interface SeriesSlot {
  /** stays the same while the reference grows: a variant, a value of a feature, or a year */
  readonly key: string;
  readonly name: string;
  /** variants of which one fills it, in order; drawn as the first */
  readonly variants: readonly string[];
  /** EDTF; undefined where nobody knows when they were made */
  readonly window?: string | undefined;
  readonly kind: VariantKind;
  readonly edition?: Edition | undefined;
  /** how many were made, where that is told */
  readonly made?: number | undefined;
  /** of a slot that asks for a year: only pieces made within it fill it */
  readonly year?: number | undefined;
  /** of a slot that asks for a value: only pieces that show it fill it, where the variant had several */
  readonly value?: { readonly feature: string; readonly value: string | number } | undefined;
}

export interface SeriesReference {
  readonly variants: readonly Variant[];
  readonly features: readonly Feature[];
}

/** Of a rule that names things: those that the reference does not have. */
export function unknownInRule(
  rule: SeriesRule,
  known: {
    readonly patterns: ReadonlyMap<string, Pattern>;
    readonly marks: ReadonlyMap<string, Mark>;
    readonly features: ReadonlyMap<string, Feature>;
    readonly variants: ReadonlyMap<string, unknown>;
  },
): { pointer: string; message: string }[] {
  const of = (ids: readonly string[], where: ReadonlyMap<string, unknown>, field: string, what: string) =>
    ids.flatMap((id, i) =>
      where.has(id)
        ? []
        : [{ pointer: `/rule/${field}/${i}`, message: `the reference has no ${what} “${id}”` }],
    );
  switch (rule.kind) {
    case 'patterns':
    case 'years':
      return of(rule.patterns, known.patterns, 'patterns', 'pattern');
    case 'stamp':
      return known.marks.has(rule.mark)
        ? []
        : [{ pointer: '/rule/mark', message: `the reference has no stamp “${rule.mark}”` }];
    case 'values': {
      const patterns = of(rule.patterns, known.patterns, 'patterns', 'pattern');
      return known.features.has(rule.feature)
        ? patterns
        : [
            ...patterns,
            { pointer: '/rule/feature', message: `the reference has no feature “${rule.feature}”` },
          ];
    }
    case 'picked':
      return of(rule.variants, known.variants, 'variants', 'variant');
  }
}

/** The slots of a rule in the order in which they were made; what has no date comes last. @param asOf the year of today */
export function slotsOf(rule: SeriesRule, reference: SeriesReference, asOf: number): SeriesSlot[] {
  const all = reference.variants;
  switch (rule.kind) {
    case 'patterns':
      return inOrder(all.filter((v) => rule.patterns.includes(v.pattern) && wantedKind(v, rule.kinds))).map(
        slotOf,
      );
    case 'stamp':
      return inOrder(all.filter((v) => v.marks?.includes(rule.mark) && wantedKind(v))).map(slotOf);
    case 'picked':
      return inOrder(all.filter((v) => rule.variants.includes(v.id))).map(slotOf);
    case 'values':
      return slotsOfValues(
        inOrder(all.filter((v) => rule.patterns.includes(v.pattern) && wantedKind(v))),
        reference.features.find((f) => f.id === rule.feature),
        rule.feature,
      );
    case 'years':
      return slotsOfYears(
        inOrder(all.filter((v) => rule.patterns.includes(v.pattern) && wantedKind(v))),
        asOf,
      );
  }
}

const wantedKind = (v: Variant, kinds?: readonly VariantKind[]): boolean =>
  kinds === undefined || kinds.length === 0 ? !IMITATIONS.has(v.kind) : kinds.includes(v.kind);

const spanOf = (v: Variant): Span | undefined =>
  v.window == null ? undefined : hullOf(periodOf(v.window).strict);

function inOrder(variants: readonly Variant[]): Variant[] {
  const start = (v: Variant) => spanOf(v)?.from ?? Infinity;
  return [...variants].sort(
    (a, b) =>
      compared(start(a), start(b)) ||
      (a.edition?.index ?? 0) - (b.edition?.index ?? 0) ||
      a.name.localeCompare(b.name) ||
      a.id.localeCompare(b.id),
  );
}
/** Both may be infinite. */
const compared = (a: number, b: number): number => (a === b ? 0 : a < b ? -1 : 1);

const slotOf = (v: Variant): SeriesSlot => ({
  key: v.id,
  name: v.name,
  variants: [v.id],
  window: v.window ?? undefined,
  kind: v.kind,
  edition: v.edition ?? undefined,
  made: quantityMade(v),
});

function slotsOfValues(variants: readonly Variant[], feature: Feature | undefined, id: string): SeriesSlot[] {
  const having = new Map<string | number, Variant[]>();
  for (const v of variants)
    for (const value of v.features?.[id] ?? []) having.set(value, [...(having.get(value) ?? []), v]);
  return [...having].map(([value, those]): SeriesSlot => {
    const [first] = those;
    return {
      key: `${id}=${value}`,
      name: feature?.values?.find((v) => v.id === value)?.label ?? String(value),
      variants: those.map((v) => v.id),
      window: togetherIn(those),
      kind: first?.kind ?? 'production',
      value: { feature: id, value },
    };
  });
}

/** From the first year of the first to the last of the last, as EDTF; undefined where none is dated. */
function togetherIn(variants: readonly Variant[]): string | undefined {
  const hull = hullOf(variants.flatMap((v) => spanOf(v) ?? []));
  if (!hull) return undefined;
  const year = (day: Span['from'], open: string) =>
    Number.isFinite(day) ? String(calendarOf(day).year) : open;
  const [from, to] = [year(hull.from, '..'), year(hull.to, '..')];
  return from === to ? from : `${from}/${to}`;
}

function slotsOfYears(variants: readonly Variant[], asOf: number): SeriesSlot[] {
  const dated = variants.flatMap((v) => (v.window == null ? [] : [{ v, spans: periodOf(v.window).strict }]));
  const hull = hullOf(dated.flatMap((d) => d.spans));
  if (!hull || !Number.isFinite(hull.from)) return [];
  const first = calendarOf(hull.from).year;
  const last = Number.isFinite(hull.to) ? Math.min(asOf, calendarOf(hull.to).year) : asOf;
  return Array.from({ length: Math.max(0, last - first + 1) }, (_, i) => first + i).flatMap(
    (year): SeriesSlot[] => {
      const those = dated.filter(({ spans }) =>
        intersectAll(spans, [yearSpan(year)]).some((s) => !isEmpty(s)),
      );
      const [only] = those;
      // a year in which nothing was made is no gap in a collection
      if (!only) return [];
      const one = those.length === 1 && isOfOneYear(only.spans) ? only.v : undefined;
      return [
        {
          key: String(year),
          name: one ? one.name : String(year),
          variants: those.map((d) => d.v.id),
          window: String(year),
          kind: only.v.kind,
          edition: one?.edition ?? undefined,
          made: one && quantityMade(one),
          year,
        },
      ];
    },
  );
}

export const yearSpan = (year: number): Span => ({
  from: dayOf(year),
  to: (dayOf(year + 1) - 1) as Span['to'],
});
const isOfOneYear = (spans: readonly Span[]): boolean => {
  const hull = hullOf(spans);
  return (
    hull !== undefined && Number.isFinite(hull.from) && hull.to <= yearSpan(calendarOf(hull.from).year).to
  );
};
/** The year in which all of a period lies; undefined where it spans more than one. */
export function yearOf(edtf: string | null | undefined): number | undefined {
  if (edtf == null) return undefined;
  const spans = periodOf(edtf).strict;
  const hull = hullOf(spans);
  return hull && isOfOneYear(spans) ? calendarOf(hull.from).year : undefined;
}
