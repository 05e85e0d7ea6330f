/**
 * Simulated worlds for the identification engine: a reference pack, and the truth behind it that the pack does not
 * tell. The parameters below are the whole of the generator's assumptions; true rates are drawn anew for every
 * world around the engine's defaults, so that the engine is never measured against its own constants.
 */
import { random, type Random } from '@jutbank/core/random';
import {
  emptyContents,
  type Construction,
  type DatedWindow,
  type Feature,
  type Mark,
  type PackContents,
  type SwapClass,
  type Variant,
  type VariantKind,
} from '@jutbank/core/reference';

export const PARAMETERS = {
  makers: 7,
  patternsPerMaker: [2, 5],
  formsPerPattern: [1, 7],
  /** features that a form changes against the one before */
  changesPerForm: [1, 3],
  /** share of a pattern's features that its variants record */
  recorded: 0.7,
  /** share of recorded features for which a variant lists two values */
  twoValues: 0.06,
  /** features whose value follows the maker's custom of the time and is dated by windows, not by variants */
  customs: 4,
  /** share of customs about whose change two sources disagree */
  disputed: 0.2,
  /** share of variants whose quantity the reference knows, and how much patterns differ in it (sd of ln) */
  quantityKnown: 0.5,
  quantitySpread: 1.1,
  yearlyFigures: 0.3,
  /** share of patterns whose last form has a commercial twin; share of limited forms with a counterfeit */
  twins: 0.3,
  counterfeits: 0.5,
  /** true rates are the defaults times exp(N(0, jitter²)) */
  jitter: 0.25,
  misreading: { sure: 0.02, likely: 0.1, unsure: 0.3 },
  exchange: { never: 0.01, hard: 0.02, moderate: 0.08, easy: 0.2 },
  donorSameMaker: 0.8,
  /** frequency at a bench: a power of what is left, drawn for each maker, times what nobody could know (sd of ln) */
  exponent: [0.6, 0.12],
  apart: { kind: 0.35, maker: 0.4, pattern: 0.5, variant: 0.25 },
  /** share of limited forms that are small numbered runs, and their sizes */
  smallRuns: 0.5,
  smallRun: [10, 300],
  /** the right signs of a year stamp taken for the other row's */
  mistakenArrangement: 0.06,
  unlisted: 0.05,
  unlistedKinds: { relative: 0.5, stranger: 0.3, anything: 0.2 },
  relativeDiffers: 0.15,
  /** patterns of a maker that the reference does not describe */
  strangersPerMaker: [1, 3],
  counterfeitShare: { 'specialist-dealer': 0.02, estate: 0.03, fair: 0.08, online: 0.15, unknown: 0.06 },
  /** half-life of surviving, in years */
  halfLife: 80,
  worn: 0.5,
  wearMean: 0.025,
  simplyOff: 0.02,
  observed: [3, 13],
} as const;

export type Certainty = 'sure' | 'likely' | 'unsure';
export type Found = keyof typeof PARAMETERS.counterfeitShare;

/** A maker's custom about one feature: values in order, each from its month on, old stock used up for a while. */
export interface Custom {
  readonly values: readonly string[];
  /** month at which values[i] begins; the first is −∞ */
  readonly since: readonly number[];
  readonly carryOver: number;
  /** what the other source says, with the odds that it is right */
  readonly disputed?: { readonly since: readonly number[]; readonly share: number };
}

export interface Truth {
  readonly variant: Variant;
  readonly maker: number;
  readonly construction: Construction;
  /** months in which it was made, with the share of the production in each */
  readonly months: { readonly from: number; readonly share: Float64Array };
  readonly quantity: number;
  readonly quantityKnown: boolean;
  /** how often it comes to a bench, relative; a counterfeit's before the place it is found */
  readonly met: number;
  /** whose dates its stamps show: the imitated variant for a counterfeit */
  readonly judgedAs: number;
}

export interface World {
  readonly contents: PackContents;
  readonly truths: readonly Truth[];
  /** pieces of patterns nobody described, by makers that are */
  readonly strangers: readonly Stranger[];
  readonly features: readonly Feature[];
  /** per maker, per feature: how its patterns choose among the values */
  readonly habits: readonly (readonly Float64Array[])[];
  readonly customs: readonly ReadonlyMap<string, Custom>[];
  readonly rates: {
    readonly misreading: Readonly<Record<Certainty, number>>;
    readonly exchange: Readonly<Record<SwapClass, number>>;
    readonly mistakenArrangement: number;
    readonly counterfeits: Readonly<Record<Found, number>>;
  };
  readonly serialPatterns: ReadonlySet<string>;
  /** per maker: first year of its tick-mark stamp, undefined when it has none */
  readonly tickBases: readonly (number | undefined)[];
}

/** An undescribed pattern: sizes, months and stamps of its own. */
export interface Stranger {
  readonly maker: number;
  readonly construction: Construction;
  readonly sizes: Sizes;
  readonly months: { readonly from: number; readonly share: Float64Array };
  readonly shown: ReadonlyMap<string, string>;
  readonly marks: readonly string[];
  readonly met: number;
}
export type Sizes = Readonly<Record<'closed' | 'blade' | 'mass', { value: number; tolerance: number }>>;

export const TODAY = 2026 * 12;
const SWAPS: readonly SwapClass[] = ['never', 'hard', 'hard', 'moderate', 'moderate', 'easy', 'easy', 'hard'];
const edtfMonth = (month: number) => `${Math.floor(month / 12)}-${String((month % 12) + 1).padStart(2, '0')}`;
const span = (from: number, to: number) => `${edtfMonth(from)}/${edtfMonth(to)}`;

/** Median yearly production of a pattern, and the sd of ln by which its forms differ from it. */
const YEARLY = 1000;
const FORM_SPREAD = 0.3;

/** How many ways there are of a tick-mark year stamp: two arrangements of ten counts. */
export const TICK_STAMPS = 20;

export function makeWorld(seed: number, size: { readonly makers: number } = PARAMETERS): World {
  const luck = random(seed);
  const contents = emptyContents();
  const features = makeFeatures(luck);
  contents.features = features;
  contents.sources = [
    { id: 'ledger', title: 'Works ledger', kind: 'factory-record', reliability: 0.9 },
    { id: 'list', title: 'Trade list', kind: 'catalogue', reliability: 0.7 },
  ];
  const jittered = (x: number) => Math.min(0.6, x * Math.exp(PARAMETERS.jitter * luck.normal()));
  const ofEach = <K extends string>(table: Readonly<Record<K, number>>) =>
    Object.fromEntries(Object.entries<number>(table).map(([k, x]) => [k, jittered(x)])) as Record<K, number>;
  const rates = {
    misreading: ofEach(PARAMETERS.misreading),
    exchange: ofEach(PARAMETERS.exchange),
    mistakenArrangement: jittered(PARAMETERS.mistakenArrangement),
    counterfeits: ofEach(PARAMETERS.counterfeitShare),
  };
  const truths: Truth[] = [];
  const habits: Float64Array[][] = [];
  const customs: Map<string, Custom>[] = [];
  const serialPatterns = new Set<string>();
  for (let m = 0; m < size.makers; m++)
    makeMaker(m, luck, { contents, features, truths, habits, customs, serialPatterns });
  const encounters = makeEncounters(luck, size.makers);
  const met = encounters(truths);
  truths.forEach((truth, i) => (truths[i] = { ...truth, met: met[i] ?? 0 }));
  const strangers = Array.from({ length: size.makers }, (_, m) =>
    Array.from({ length: luck.whole(...PARAMETERS.strangersPerMaker) }, () =>
      makeStranger(m, luck, { contents, features, truths, habits, customs, serialPatterns }),
    ),
  ).flat();
  contents.variants = truths.map((t) => t.variant);
  const tickBases = contents.makers.map(({ id }) => {
    const code = contents.codes.find((c) => c.id === `${id}-ticks`);
    const rule = code?.kind === 'date' ? code.rules[0]?.year : undefined;
    return rule && 'plus' in rule ? rule.base : undefined;
  });
  return { contents, truths, strangers, features, habits, customs, rates, serialPatterns, tickBases };
}

function makeFeatures(luck: Random): Feature[] {
  const categories = Array.from({ length: 18 }, (_, f): Feature => {
    const part = f % 8;
    return {
      id: `f${f}`,
      label: `Feature ${f}`,
      part: `part${part}`,
      kind: 'category',
      swap: SWAPS[part] ?? 'hard',
      values: Array.from({ length: luck.whole(2, 6) }, (_, v) => ({ id: `v${v}`, label: `Value ${v}` })),
      ...(f >= 15 ? { constructions: [f % 2 ? 'slipjoint' : 'fixed'] } : {}),
    };
  });
  const measures: Feature[] = [
    { id: 'closed', label: 'Closed length', part: 'frame', kind: 'measure', unit: 'mm', wear: 'none' },
    { id: 'blade', label: 'Blade length', part: 'blade', kind: 'measure', unit: 'mm', wear: 'shrinks' },
    { id: 'mass', label: 'Mass', part: 'frame', kind: 'measure', unit: 'g', wear: 'none' },
  ];
  return [
    ...categories,
    ...measures.map((f): Feature => ({ ...f, swap: f.part === 'blade' ? 'moderate' : 'never' })),
  ];
}

interface Making {
  readonly contents: PackContents;
  readonly features: readonly Feature[];
  readonly truths: Truth[];
  readonly habits: Float64Array[][];
  readonly customs: Map<string, Custom>[];
  readonly serialPatterns: Set<string>;
}

/** A symmetric Dirichlet draw of concentration one half, by squared normals (gamma of shape ½). */
function habit(luck: Random, n: number): Float64Array {
  const raw = Float64Array.from({ length: n }, () => luck.normal() ** 2 + 0.02);
  const total = raw.reduce((a, b) => a + b, 0);
  return raw.map((x) => x / total);
}
export function drawFrom(luck: Random, shares: ArrayLike<number>): number {
  let left = luck.next();
  for (let i = 0; i < shares.length; i++) {
    left -= shares[i] ?? 0;
    if (left < 0) return i;
  }
  return shares.length - 1;
}

function makeMaker(m: number, luck: Random, making: Making): void {
  const { contents, features } = making;
  const id = `m${m}`;
  const from = luck.whole(1880, 1940) * 12;
  const to = from + luck.whole(40, 80) * 12;
  contents.makers.push({ id, name: `Maker ${m}`, active: span(from, to - 1) });
  making.habits.push(features.map((f) => habit(luck, f.values?.length ?? 1)));
  making.customs.push(makeCustoms(id, luck, making, from, to));
  const marks = makeMarks(id, luck, from, to);
  contents.marks.push(...marks);
  if (luck.yes(0.6)) addTickCode(id, contents, marks, Math.floor((from + to) / 24));
  const constructions = luck.yes(0.5) ? ['slipjoint'] : ['slipjoint', 'fixed'];
  const patterns = luck.whole(...PARAMETERS.patternsPerMaker);
  for (let p = 0; p < patterns; p++)
    makePattern(m, `${id}p${p}`, constructions[p % constructions.length] as Construction, luck, making, {
      from,
      to,
      marks,
    });
}

function makeCustoms(
  maker: string,
  luck: Random,
  { contents, features }: Making,
  from: number,
  to: number,
): Map<string, Custom> {
  const customs = new Map<string, Custom>();
  for (let c = 0; c < PARAMETERS.customs; c++) {
    const feature = features[luck.whole(0, 14)];
    if (!feature || customs.has(feature.id)) continue;
    const values = [...(feature.values ?? [])].map((v) => v.id).sort(() => luck.next() - 0.5);
    const used = values.slice(0, Math.min(values.length, luck.whole(2, 4)));
    const since = used.map((_, i) =>
      i === 0 ? -Infinity : from + Math.floor(((to - from) * (i + luck.between(-0.3, 0.3))) / used.length),
    );
    const carryOver = luck.pick([0, 0, 6, 12, 18]);
    const isDisputed = luck.yes(PARAMETERS.disputed);
    const custom: Custom = {
      values: used,
      since,
      carryOver,
      ...(isDisputed
        ? { disputed: { since: since.map((s) => s - luck.whole(12, 36)), share: 7 / 3 / (9 + 7 / 3) } }
        : {}),
    };
    customs.set(feature.id, custom);
    const add = (source: string, starts: readonly number[]) =>
      used.forEach((value, i) => {
        const begin = Math.max(from, starts[i] ?? from);
        const end = (starts[i + 1] ?? to) - 1;
        if (end < begin) return;
        const window: DatedWindow = {
          id: `w-${maker}-${feature.id}-${i}-${source}`,
          maker,
          feature: feature.id,
          value,
          window: span(begin, end),
          source,
          ...(carryOver > 0 && i < used.length - 1 ? { carryOver: `P${carryOver}M` } : {}),
        };
        contents.windows.push(window);
      });
    add('ledger', since);
    if (custom.disputed) add('list', custom.disputed.since);
  }
  return customs;
}

function makeMarks(maker: string, luck: Random, from: number, to: number): Mark[] {
  const eras = luck.whole(2, 5);
  const starts = Array.from({ length: eras }, (_, i) =>
    i === 0 ? from : from + Math.floor(((to - from) * (i + luck.between(-0.3, 0.3))) / eras),
  );
  return starts.map((start, i) => ({
    id: `${maker}-k${i}`,
    maker,
    place: 'tang-front',
    lines: [`${maker} ${i}`],
    window: span(start, (starts[i + 1] ?? to) - 1),
  }));
}

function addTickCode(maker: string, contents: PackContents, marks: Mark[], middle: number): void {
  const id = `${maker}-ticks`;
  contents.codes.push({
    id,
    maker,
    kind: 'date',
    title: 'Tick marks',
    reads: [
      { id: 'ticks', label: 'Ticks', type: 'count', min: 0, max: 9 },
      { id: 'row', label: 'Row', type: 'choice', values: ['above', 'below'] },
    ],
    rules: [
      { when: { row: 'above' }, year: { base: middle - 10, plus: 'ticks' } },
      { when: { row: 'below' }, year: { base: middle + 9, minus: 'ticks' } },
    ],
  });
  for (const mark of marks) mark.codes = [id];
}

/** Share of the production in each month; a rate that drifts from year to year. */
function production(luck: Random, from: number, to: number, flat: boolean): Float64Array {
  const share = new Float64Array(to - from + 1);
  let level = 0;
  for (let t = 0; t < share.length; t++) {
    if (t % 12 === 0 && !flat) level += 0.25 * luck.normal();
    share[t] = Math.exp(level);
  }
  const total = share.reduce((a, b) => a + b, 0);
  return share.map((x) => x / total);
}

export function sizesOf(luck: Random): Sizes {
  const closed = luck.between(75, 130);
  return {
    closed: { value: Math.round(closed * 10) / 10, tolerance: 1 },
    blade: { value: Math.round(closed * 7.6) / 10, tolerance: 0.8 },
    mass: { value: Math.round(closed * luck.between(0.6, 1)), tolerance: 4 },
  };
}

export function survivingOf(months: Truth['months']): number {
  const age = (TODAY - months.from - months.share.length / 2) / 12;
  return 2 ** (-Math.max(0, age) / PARAMETERS.halfLife);
}

/** Frequencies at a bench, with what is peculiar to each kind, maker and construction, pattern and variant. */
function makeEncounters(luck: Random, makers: number): (truths: readonly Truth[]) => Float64Array {
  const [mean, sd] = PARAMETERS.exponent;
  const { apart } = PARAMETERS;
  const exponents = Array.from({ length: makers }, () =>
    Math.min(1, Math.max(0.35, mean + sd * luck.normal())),
  );
  const drawn = new Map<string, number>();
  const of = (key: string, spread: number) => {
    const known = drawn.get(key) ?? spread * luck.normal();
    drawn.set(key, known);
    return known;
  };
  return (truths) => {
    const met = Float64Array.from(truths, ({ variant, maker, construction, quantity, months }) =>
      Math.exp(
        (exponents[maker] ?? mean) * Math.log(quantity * survivingOf(months)) +
          of(`kind ${variant.kind}`, apart.kind) +
          of(`maker ${maker} ${construction}`, apart.maker) +
          of(`pattern ${variant.pattern}`, apart.pattern) +
          apart.variant * luck.normal(),
      ),
    );
    // a counterfeit is as frequent as what it imitates is wanted
    return met.map((own, i) => {
      const truth = truths[i];
      return truth?.variant.kind === 'counterfeit' ? (met[truth.judgedAs] ?? own) : own;
    });
  };
}

/** The same world to one who knows what was made of everything, and has met none of it. */
export function bySupply(world: World): World {
  const supply = world.truths.map(
    ({ quantity, months }) => (quantity * survivingOf(months)) ** PARAMETERS.exponent[0],
  );
  return {
    ...world,
    truths: world.truths.map((truth, i) => ({
      ...truth,
      met: supply[truth.variant.kind === 'counterfeit' ? truth.judgedAs : i] ?? 0,
    })),
  };
}

function makeStranger(
  m: number,
  luck: Random,
  { contents, features, truths, habits, customs }: Making,
): Stranger {
  const own = truths.filter((t) => t.maker === m && t.variant.kind !== 'counterfeit');
  const { construction, met } = luck.pick(own);
  const { from: first, to: last } = activeOf(contents, m);
  const from = luck.whole(first, last - STRANGER_MONTHS[1]);
  const months = { from, share: production(luck, from, from + luck.whole(...STRANGER_MONTHS) - 1, true) };
  const shown = features
    .filter(
      (f) =>
        f.kind === 'category' &&
        !customs[m]?.has(f.id) &&
        (!f.constructions || f.constructions.includes(construction)),
    )
    .map((f) => [f.id, `v${drawFrom(luck, habits[m]?.[features.indexOf(f)] ?? [1])}`] as const);
  return {
    maker: m,
    construction,
    sizes: sizesOf(luck),
    months,
    shown: new Map(shown),
    marks: contents.marks.filter((k) => k.maker === `m${m}`).map((k) => k.id),
    met,
  };
}
/** How long an undescribed form was made, in months. */
export const STRANGER_MONTHS = [12, 150] as const;

export function activeOf(contents: PackContents, m: number): { from: number; to: number } {
  const [a = '', b = ''] = (contents.makers[m]?.active ?? '').split('/');
  const month = (text: string) => Number(text.slice(0, 4)) * 12 + Number(text.slice(5, 7)) - 1;
  return { from: month(a), to: month(b) };
}

function makePattern(
  m: number,
  id: string,
  construction: Construction,
  luck: Random,
  making: Making,
  maker: { from: number; to: number; marks: readonly Mark[] },
): void {
  const { contents, features, truths } = making;
  const size = sizesOf(luck);
  contents.patterns.push({
    id,
    maker: `m${m}`,
    name: `Pattern ${id}`,
    number: id,
    construction,
    measures: size,
  });
  const mine = features.filter(
    (f) =>
      f.kind === 'category' &&
      (!f.constructions || f.constructions.includes(construction)) &&
      !making.customs[m]?.has(f.id) &&
      luck.yes(PARAMETERS.recorded),
  );
  const value = (f: Feature) => `v${drawFrom(luck, making.habits[m]?.[features.indexOf(f)] ?? [1])}`;
  const shown = new Map(mine.map((f) => [f.id, value(f)]));
  const forms = luck.whole(...PARAMETERS.formsPerPattern);
  const yearly = YEARLY * Math.exp(PARAMETERS.quantitySpread * luck.normal());
  let from = luck.whole(maker.from, maker.from + Math.floor((maker.to - maker.from) / 2));
  for (let n = 0; n < forms && from < maker.to - 6; n++) {
    const to =
      n === forms - 1
        ? Math.min(maker.to - 1, from + 240)
        : Math.min(maker.to - 1, from + luck.whole(5, 150));
    if (n > 0)
      for (let k = luck.whole(...PARAMETERS.changesPerForm); k > 0 && mine.length > 0; k--) {
        const f = luck.pick(mine);
        shown.set(f.id, value(f));
      }
    const limited = luck.yes(0.12);
    const kind: VariantKind = limited ? 'limited' : 'production';
    const years = (to - from + 1) / 12;
    const small = limited && luck.yes(PARAMETERS.smallRuns);
    const [least, most] = PARAMETERS.smallRun;
    const quantity = small
      ? Math.round(least * (most / least) ** luck.next())
      : Math.max(
          20,
          Math.round(yearly * years * (limited ? 0.1 : 1) * Math.exp(FORM_SPREAD * luck.normal())),
        );
    const known = small || luck.yes(PARAMETERS.quantityKnown);
    const byYear = known && luck.yes(PARAMETERS.yearlyFigures);
    const share = production(luck, from, to, !byYear);
    const variant: Variant = {
      id: `${id}-${n}`,
      pattern: id,
      name: `${id}, form ${n + 1}`,
      kind,
      window: span(from, to),
      features: Object.fromEntries(
        [...shown].map(([f, v]) => [
          f,
          luck.yes(PARAMETERS.twoValues) ? [...new Set([v, `v${luck.whole(0, 1)}`])] : [v],
        ]),
      ),
      marks: maker.marks.filter((k) => overlaps(k.window ?? '', from, to)).map((k) => k.id),
      ...(known
        ? {
            made: {
              quantity,
              basis: 'documented',
              ...(byYear ? { byYear: yearsOf(share, from, quantity) } : {}),
            },
          }
        : {}),
      ...(limited ? { edition: { run: quantity, firstNumber: 1 } } : {}),
    };
    const common = { maker: m, construction, months: { from, share }, met: 0 };
    truths.push({ variant, ...common, quantity, quantityKnown: known, judgedAs: truths.length });
    const original = truths.length - 1;
    if (limited) addSerial(id, m, making);
    if (limited && luck.yes(PARAMETERS.counterfeits))
      truths.push({
        variant: imitation(variant, features, luck),
        ...common,
        quantity: Math.max(10, Math.round(quantity * luck.between(0.1, 1))),
        quantityKnown: false,
        judgedAs: original,
      });
    if (n === forms - 1 && luck.yes(PARAMETERS.twins)) {
      const twinQuantity = Math.round(quantity * luck.between(0.2, 2));
      const { edition, ...unnumbered } = variant;
      void edition;
      truths.push({
        variant: {
          ...unnumbered,
          id: `${variant.id}-twin`,
          name: `${variant.name}, sold to the trade`,
          kind: 'commercial-twin',
          twinOf: variant.id,
          made: { quantity: twinQuantity, basis: 'documented' },
        },
        ...common,
        months: { from, share: production(luck, from, to, true) },
        quantity: twinQuantity,
        quantityKnown: true,
        judgedAs: truths.length,
      });
    }
    from = to + 1;
  }
}

function addSerial(pattern: string, m: number, { contents, serialPatterns }: Making): void {
  if (serialPatterns.has(pattern)) return;
  serialPatterns.add(pattern);
  contents.codes.push({
    id: `${pattern}-serial`,
    maker: `m${m}`,
    kind: 'serial',
    pattern,
    format: '^N-(\\d+)$',
    number: 1,
    runFromVariant: true,
  });
}

/** A counterfeit shows the original's stamps and gets one to three features wrong. */
function imitation(original: Variant, features: readonly Feature[], luck: Random): Variant {
  const shown: Record<string, (string | number)[]> = { ...original.features };
  const ids = Object.keys(shown);
  for (let k = luck.whole(1, 3); k > 0 && ids.length > 0; k--) {
    const id = luck.pick(ids);
    const values = features.find((f) => f.id === id)?.values ?? [];
    shown[id] = [luck.pick(values).id];
  }
  return {
    id: `${original.id}-fake`,
    pattern: original.pattern,
    name: `${original.name}, counterfeit`,
    kind: 'counterfeit',
    twinOf: original.id,
    window: '2005/2020',
    features: shown,
    tells: ['wrong details'],
  };
}

function overlaps(window: string, from: number, to: number): boolean {
  const [a = '', b = ''] = window.split('/');
  const month = (text: string) => Number(text.slice(0, 4)) * 12 + Number(text.slice(5, 7)) - 1;
  return month(a) <= to && month(b) >= from;
}

function yearsOf(share: Float64Array, from: number, quantity: number): Record<string, number> {
  const years: Record<string, number> = {};
  share.forEach((s, t) => {
    const year = String(Math.floor((from + t) / 12));
    years[year] = (years[year] ?? 0) + s * quantity;
  });
  return Object.fromEntries(Object.entries(years).map(([y, n]) => [y, Math.max(1, Math.round(n))]));
}
