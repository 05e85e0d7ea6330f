/** Drills that are made from the reference alone. Wrong choices are the mistakes that people make. */
import type { ReferenceIndex, Row } from '../bench/index.ts';
import { letteringOf } from '../drawing/index.ts';
import {
  calendarOf,
  edtfInWords,
  hullOf,
  intersectAll,
  isEmpty,
  periodOf,
  type Span,
} from '../dates/index.ts';
import {
  codeTable,
  impliedValues,
  otherArrangements,
  quantityMade,
  readDateCode,
  stampInWords,
  type DateCode,
  type DatedWindow,
  type Feature,
  type FeatureReading,
  type ImpliedFeature,
  type Mark,
  type Variant,
} from '../reference/index.ts';
import { luckOf, questionOf, shuffled, type DrillQuestion } from './question.ts';

/** Stamps of one code that are asked, the rest is found by those who know these. */
const MOST_STAMPS_OF_CODE = 60;
/** A form of which nobody knows how many were made counts as so many. */
const UNKNOWN_MADE = 500;

export function questionsOfReference(index: ReferenceIndex): DrillQuestion[] {
  const ground = new Ground(index);
  return [
    ...index.contents.marks.flatMap((mark) => ground.stamp(mark)),
    ...index.contents.codes.flatMap((code) =>
      code.kind === 'date'
        ? ground.dateCode(code)
        : code.kind === 'pattern-number'
          ? ground.number(code)
          : [],
    ),
    ...index.rows.flatMap((row) => [
      ...ground.bracket(row),
      ...ground.belongs(row),
      ...ground.imitation(row),
    ]),
    ...ground.differences(),
  ];
}

type Code = ReferenceIndex['contents']['codes'][number];

/** A reference as questions are made from it. */
class Ground {
  readonly #index: ReferenceIndex;
  readonly #features: ReadonlyMap<string, Feature>;
  readonly #sources: ReadonlyMap<string, string>;
  readonly #bearers: ReadonlyMap<string, readonly Row[]>;
  readonly #ofPattern: ReadonlyMap<string, readonly Row[]>;

  constructor(index: ReferenceIndex) {
    this.#index = index;
    this.#features = new Map(index.contents.features.map((f) => [f.id, f]));
    this.#sources = new Map(index.contents.sources.map((s) => [s.id, s.title]));
    const bearers = new Map<string, Row[]>();
    const ofPattern = new Map<string, Row[]>();
    const add = (to: Map<string, Row[]>, key: string, row: Row) => to.set(key, [...(to.get(key) ?? []), row]);
    for (const row of index.rows) {
      add(ofPattern, row.pattern.id, row);
      for (const mark of row.variant.marks ?? []) add(bearers, mark, row);
    }
    this.#bearers = bearers;
    this.#ofPattern = ofPattern;
  }

  /** Read the drawn stamp: whose, and when struck. */
  stamp(mark: Mark): DrillQuestion[] {
    if (mark.window == null || mark.lines.join('').trim() === '') return [];
    const told = (m: Mark) => `${this.#makerOf(m.maker)}, ${edtfInWords(m.window ?? '../..')}`;
    // what is drawn alike cannot be told apart
    const others = this.#index.contents.marks.filter((m) => m.window != null && looks(m) !== looks(mark));
    // nearest first: one text in another lettering or place, then the same maker's, then anybody's
    const near = (m: Mark) => (m.lines.join() === mark.lines.join() ? 0 : m.maker === mark.maker ? 1 : 2);
    const ranked = shuffled(others, luckOf(mark.id)).sort((a, b) => near(a) - near(b));
    const twins = this.#index.contents.marks.filter((m) => m !== mark && looks(m) === looks(mark));
    if (twins.some((m) => told(m) !== told(mark))) return [];
    return one({
      id: `stamp:${mark.id}`,
      kind: 'stamp',
      maker: mark.maker ?? null,
      ask: 'Whose stamp is this, and when was it struck?',
      drawn: { what: 'stamp', mark: mark.id },
      answer: told(mark),
      mistakes: ranked.map(told),
      because: `${raised(letteringOf(mark))} lettering${mark.place == null ? '' : `, on the ${mark.place.replaceAll('-', ' ')}`}: ${told(mark)}.`,
      source: this.#cited(mark),
      opens: this.#opensMark(mark),
      commonness: this.#made(this.#bearers.get(mark.id) ?? []),
    });
  }

  /** Which year is this code: the same signs in another arrangement are the classic mistake. */
  dateCode(code: DateCode): DrillQuestion[] {
    const bearing = this.#index.contents.marks.filter((m) => m.codes?.includes(code.id));
    const [mark] = bearing;
    const commonness = this.#made(bearing.flatMap((m) => this.#bearers.get(m.id) ?? []));
    const stamps = (codeTable(code) ?? []).filter(
      (s) => s.windows.length === 1 && fitsEra(s.windows, bearing),
    );
    return shuffled(stamps, luckOf(code.id))
      .slice(0, MOST_STAMPS_OF_CODE)
      .flatMap(({ reads, windows: [window = ''] }) => {
        const read = (other: typeof reads) => {
          const result = readDateCode(code, other);
          return result.ok ? result.value.map((r) => r.window) : [];
        };
        const arranged = otherArrangements(code, reads).flatMap((other) => read({ ...other }));
        const miscounted = Object.entries(reads).flatMap(([id, value]) =>
          typeof value === 'number'
            ? [read({ ...reads, [id]: value + 1 }), read({ ...reads, [id]: value - 1 })].flat()
            : [],
        );
        const year = yearIn(window);
        const beside = year === undefined ? [] : [10, -10, 5, -1, 2].map((by) => String(year + by));
        const words = stampInWords(code, reads);
        return one({
          id: `code:${code.id}:${words}`,
          kind: 'code',
          maker: code.maker ?? null,
          ask: `${this.#makerOf(code.maker)}, ${code.title ?? 'date code'}: ${words}. Which year?`,
          drawn: mark ? { what: 'stamp', mark: mark.id, code: code.id, reads } : null,
          answer: edtfInWords(window),
          // a wrong answer that holds the right year would not be wrong
          mistakes: [...arranged, ...miscounted, ...beside]
            .filter((w) => areApart(w, window))
            .map((w) => edtfInWords(w)),
          because:
            arranged.length > 0
              ? `${words} is ${edtfInWords(window)}; in the other arrangement the same signs are ${[...new Set(arranged)].map((w) => edtfInWords(w)).join(' or ')}.`
              : `${words} is ${edtfInWords(window)}.`,
          source: this.#cited(code),
          opens: mark ? this.#opensMark(mark) : '/reference',
          commonness: commonness / Math.max(1, stamps.length),
        });
      });
  }

  /** Decode the pattern number, sign by sign. */
  number(code: Extract<Code, { kind: 'pattern-number' }>): DrillQuestion[] {
    const maker = this.#makerOf(code.maker);
    return code.segments.flatMap((segment) => {
      const table = Object.entries(segment.table ?? {});
      const said = ([, implied]: (typeof table)[number]) =>
        `${this.#features.get(implied.feature)?.label ?? implied.feature}: ${impliedValues(implied)
          .map((v) => this.#value(implied.feature, v))
          .join(' or ')}`;
      return table.flatMap((entry) =>
        one({
          id: `number:${code.id}:${segment.id}:${entry[0]}`,
          kind: 'number',
          maker: code.maker ?? null,
          ask: `In a pattern number of ${maker} the ${segment.id.replaceAll('-', ' ')} is “${entry[0]}”. What does it say?`,
          drawn: null,
          answer: said(entry),
          mistakes: shuffled(
            table.filter((other) => saysOtherwise(other[1], entry[1])),
            luckOf(`${code.id} ${entry[0]}`),
          ).map(said),
          because: `“${entry[0]}” there stands for ${said(entry)}.`,
          source: this.#cited(code),
          opens: '/reference',
          commonness: UNKNOWN_MADE,
        }),
      );
    });
  }

  /** Bracket the date from three features: the latest start to the earliest end. */
  bracket({ variant, pattern, maker }: Row): DrillQuestion[] {
    const windows = this.#windowsOf(variant, pattern.id, maker.id);
    const three = tightest(windows, 3);
    if (three.length < 3) return [];
    const spans = three.map((w) => periodOf(w.window).strict);
    const together = spans.reduce((all, span) => intersectAll(all, span));
    const [span] = together;
    if (together.length !== 1 || !span || isEmpty(span)) return [];
    const said = yearsOf(span);
    if (said === undefined) return [];
    const hulls = spans.flatMap((of) => hullOf(of) ?? []);
    const starts = hulls.map((h) => h.from);
    const ends = hulls.map((h) => h.to);
    const pair = (from: number, to: number) =>
      from <= to ? yearsOf({ from: from as Span['from'], to: to as Span['to'] }) : undefined;
    const mistakes = [
      // everything that any of them allows
      pair(Math.min(...starts), Math.max(...ends)),
      // the floor taken for the ceiling, and the other way round
      pair(Math.min(...starts), span.from),
      pair(span.to, Math.max(...ends)),
      ...hulls.map((hull) => yearsOf(hull)),
    ].flatMap((text) => text ?? []);
    return one({
      id: `bracket:${variant.id}`,
      kind: 'bracket',
      maker: maker.id,
      ask: `${pattern.name}: ${three.map((w) => `${this.#feature(w)} (${edtfInWords(w.window)})`).join(', ')}. What is the tightest bracket of its making?`,
      drawn: null,
      answer: said,
      mistakes,
      because: `Not before the latest start, ${startOf(three, span)}, and not after the earliest end, ${endOf(three, span)}: ${said}.`,
      source: this.#cited(three[0]),
      opens: `/reference/variants/${variant.id}`,
      commonness: this.#made([{ variant }]),
    });
  }

  /** Which sign does not belong to this form: one that only other forms of the pattern have. */
  belongs({ variant, pattern, maker, imitation }: Row): DrillQuestion[] {
    if (imitation || variant.window == null) return [];
    const own = Object.entries(variant.features ?? {}).filter(
      ([id]) => this.#features.get(id)?.kind === 'category',
    );
    const strange = own.flatMap(([id, values]) => {
      const others = (this.#ofPattern.get(pattern.id) ?? []).flatMap(
        (row) => row.variant.features?.[id] ?? [],
      );
      return [...new Set(others)].filter((v) => !values.includes(v)).map((value) => ({ feature: id, value }));
    });
    const luck = luckOf(`belongs ${variant.id}`);
    const [odd] = shuffled(strange, luck);
    if (!odd) return [];
    const right = shuffled(
      own.filter(([id]) => id !== odd.feature),
      luck,
    );
    return one({
      id: `belongs:${variant.id}:${odd.feature}`,
      kind: 'belongs',
      maker: maker.id,
      ask: `${pattern.name}, ${variant.name} (${edtfInWords(variant.window)}). Which of these does not belong on it?`,
      drawn: { what: 'forms', variants: [variant.id] },
      answer: this.#feature(odd),
      mistakes: right.flatMap(([feature, [value]]) =>
        value === undefined ? [] : [this.#feature({ feature, value })],
      ),
      because: `It has ${this.#labelled(odd.feature, variant)}.`,
      source: this.#cited(variant.claims?.[0]),
      opens: `/reference/variants/${variant.id}`,
      commonness: this.#made([{ variant }]),
    });
  }

  /** Original or imitation: which sign only the imitation has. */
  imitation({ variant, pattern, maker }: Row): DrillQuestion[] {
    const original = this.#index.variants.get(variant.twinOf ?? '');
    if (!original || (variant.kind !== 'counterfeit' && variant.kind !== 'reproduction')) return [];
    const those = original.variant.features ?? {};
    const speaks = Object.entries(variant.features ?? {}).flatMap(([feature, values]) =>
      those[feature] === undefined
        ? []
        : values.filter((v) => !those[feature]?.includes(v)).map((value) => ({ feature, value })),
    );
    const shared = Object.entries(those).flatMap(([feature, values]) =>
      values.filter((v) => variant.features?.[feature]?.includes(v)).map((value) => ({ feature, value })),
    );
    const only = Object.entries(those).flatMap(([feature, values]) =>
      variant.features?.[feature] === undefined
        ? []
        : values
            .filter((v) => !variant.features?.[feature]?.includes(v))
            .map((value) => ({ feature, value })),
    );
    return speaks.flatMap((sign) =>
      one({
        id: `imitation:${variant.id}:${sign.feature}:${sign.value}`,
        kind: 'imitation',
        maker: original.maker.id,
        ask: `${original.pattern.name}, ${original.variant.name}, and its imitation by ${maker.name} (${pattern.name}, ${variant.name}). Which sign speaks for the imitation?`,
        drawn: { what: 'forms', variants: [original.variant.id, variant.id] },
        answer: this.#feature(sign),
        mistakes: [...only, ...shuffled(shared, luckOf(variant.id))].map((s) => this.#feature(s)),
        because: `The original has ${this.#labelled(sign.feature, original.variant)}.`,
        source: this.#cited(original.variant.claims?.[0]),
        opens: `/reference/variants/${variant.id}`,
        commonness: this.#made([original]),
      }),
    );
  }

  /** Two forms that follow each other: what differs. */
  differences(): DrillQuestion[] {
    return [...this.#ofPattern.values()].flatMap((rows) => {
      const dated = rows
        .filter((row) => row.variant.window != null && !row.imitation)
        .sort((a, b) => startDay(a.variant) - startDay(b.variant));
      return dated.slice(1).flatMap((row, i) => {
        const before = dated[i];
        return before ? this.#differ(before, row) : [];
      });
    });
  }

  #differ(before: Row, after: Row): DrillQuestion[] {
    const both = Object.keys(before.variant.features ?? {}).filter(
      (id) => after.variant.features?.[id] !== undefined,
    );
    const values = (row: Row, id: string) => JSON.stringify([...(row.variant.features?.[id] ?? [])].sort());
    const label = (id: string) => this.#features.get(id)?.label ?? id;
    const same = both.filter((id) => values(before, id) === values(after, id));
    const differ = both.filter((id) => !same.includes(id));
    const [feature] = shuffled(differ, luckOf(`${before.variant.id} ${after.variant.id}`));
    if (feature === undefined) return [];
    return one({
      id: `differ:${before.variant.id}:${after.variant.id}:${feature}`,
      kind: 'differ',
      maker: after.maker.id,
      ask: `${after.pattern.name}: ${before.variant.name}, then ${after.variant.name}. What changed?`,
      // drawn they would tell it
      drawn: null,
      answer: label(feature),
      mistakes: shuffled(
        // two features of one name would both be right
        same.filter((id) => !differ.some((other) => label(other) === label(id))),
        luckOf(feature + after.variant.id),
      ).map(label),
      because: `${before.variant.name} has ${this.#labelled(feature, before.variant)}, ${after.variant.name} has ${this.#labelled(feature, after.variant)}.`,
      source: this.#cited(after.variant.claims?.[0]),
      opens: `/reference/patterns/${after.pattern.id}`,
      commonness: this.#made([after]),
    });
  }

  #windowsOf(variant: Variant, pattern: string, maker: string): DatedWindow[] {
    return this.#index.contents.windows.filter(
      (w) =>
        (w.pattern === pattern || (w.pattern == null && w.maker === maker)) &&
        variant.features?.[w.feature]?.length === 1 &&
        variant.features[w.feature]?.[0] === w.value,
    );
  }

  #made = (rows: readonly Pick<Row, 'variant'>[]): number =>
    rows.reduce((sum, row) => sum + (quantityMade(row.variant) ?? UNKNOWN_MADE), 0);
  #makerOf = (id: string | null | undefined): string =>
    this.#index.makers.get(id ?? '')?.name ?? 'Nobody known';
  #value = (feature: string, value: FeatureReading): string =>
    this.#features.get(feature)?.values?.find((v) => v.id === value)?.label ?? String(value);
  #feature = ({ feature, value }: { feature: string; value: FeatureReading }): string =>
    `${this.#features.get(feature)?.label ?? feature}: ${this.#value(feature, value)}`;
  #labelled = (feature: string, of: Variant): string =>
    `${(this.#features.get(feature)?.label ?? feature).toLowerCase()} ${(of.features?.[feature] ?? [])
      .map((v) => this.#value(feature, v).toLowerCase())
      .join(' or ')}`;
  #cited = (
    of:
      { readonly source?: string | null | undefined; readonly page?: string | null | undefined } | undefined,
  ): DrillQuestion['source'] => {
    const title = this.#sources.get(of?.source ?? '');
    return title === undefined ? null : { title, page: of?.page ?? null };
  };
  #opensMark = (mark: Mark): string => {
    const [bearer] = this.#bearers.get(mark.id) ?? [];
    return bearer ? `/reference/variants/${bearer.variant.id}` : '/reference';
  };
}

const one = (draft: Parameters<typeof questionOf>[0]): DrillQuestion[] => {
  const question = questionOf(draft);
  return question ? [question] : [];
};

/** Two stamps that agree in this are drawn alike. */
const looks = (m: Mark): string =>
  JSON.stringify([m.lines, letteringOf(m), m.place ?? null, (m.codes ?? []).length > 0]);

/** A reading outside the years of every stamp that bears the code is none that anybody meets. */
function fitsEra(windows: readonly string[], bearing: readonly Mark[]): boolean {
  const eras = bearing.flatMap((m) => (m.window == null ? [] : periodOf(m.window).lenient));
  if (eras.length === 0) return true;
  return windows.some((w) => intersectAll(periodOf(w).strict, eras).some((s) => !isEmpty(s)));
}

const raised = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

const areApart = (a: string, b: string): boolean =>
  intersectAll(periodOf(a).strict, periodOf(b).strict).every((s) => isEmpty(s));

/** Two signs of which a piece cannot bear out both. */
const saysOtherwise = (a: ImpliedFeature, b: ImpliedFeature): boolean =>
  a.feature !== b.feature || impliedValues(a).every((value) => !impliedValues(b).includes(value));

const startDay = (v: Variant): number => hullOf(periodOf(v.window ?? '../..').strict)?.from ?? 0;

function yearIn(window: string): number | undefined {
  const hull = hullOf(periodOf(window).strict);
  return hull && Number.isFinite(hull.from) ? calendarOf(hull.from).year : undefined;
}

/** A span in years; undefined where it is open at an end. */
function yearsOf({ from, to }: Span): string | undefined {
  if (!Number.isFinite(from) || !Number.isFinite(to)) return undefined;
  const [first, last] = [calendarOf(from).year, calendarOf(to).year];
  return first === last ? String(first) : `${first} to ${last}`;
}

/** The windows that bind: the latest to start, the earliest to end, and others until there are enough, each feature once. */
function tightest(windows: readonly DatedWindow[], n: number): DatedWindow[] {
  const hull = (w: DatedWindow) => hullOf(periodOf(w.window).strict);
  const usable = windows.filter((w) => hull(w));
  const byStart = [...usable].sort((a, b) => (hull(b)?.from ?? 0) - (hull(a)?.from ?? 0));
  const byEnd = [...usable].sort((a, b) => (hull(a)?.to ?? 0) - (hull(b)?.to ?? 0));
  const chosen: DatedWindow[] = [];
  for (const w of [byStart[0], byEnd[0], ...byStart])
    if (w && chosen.length < n && !chosen.some((c) => c.feature === w.feature)) chosen.push(w);
  return chosen;
}

const boundBy = (of: readonly DatedWindow[], day: number, end: 'from' | 'to'): string => {
  const bound = of.find((w) => hullOf(periodOf(w.window).strict)?.[end] === day);
  return bound ? edtfInWords(bound.window) : '';
};
const startOf = (of: readonly DatedWindow[], span: Span): string => boundBy(of, span.from, 'from');
const endOf = (of: readonly DatedWindow[], span: Span): string => boundBy(of, span.to, 'to');
