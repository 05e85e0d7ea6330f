/**
 * What no schema can see: references that point nowhere, values outside their feature, windows that end before
 * they begin, loops of twins, and what is possible but worth a warning.
 */
import { calendarOf, covers, parseMonths, parsePeriod, periodOf } from '../dates/index.ts';
import type { InputProblem } from '../result/index.ts';
import {
  PACK_SECTIONS,
  type Code,
  type Feature,
  type FeatureReading,
  type NominalMeasure,
  type PackContents,
  type ReferencePack,
  type Variant,
} from './pack.ts';
import { ruleOverlaps } from './codeTable.ts';
import { whyNotAFormat } from './readSerial.ts';

export interface PackCheck {
  readonly errors: readonly InputProblem[];
  readonly warnings: readonly string[];
}

type KnownIds = { readonly [S in keyof PackContents]: ReadonlyMap<string, PackContents[S][number]> };

const merge = <T extends { id: string }>(known: readonly T[], added: readonly T[]): ReadonlyMap<string, T> =>
  new Map([...known, ...added].map((item) => [item.id, item]));

/** Errors are capped: a pack with ten thousand of one mistake is told so once it has seen a hundred. */
const MOST_ERRORS = 100;

/**
 * @param pack the pack to import, already of the right shape
 * @param rest everything the shop's other packs hold
 */
export function checkPack(pack: ReferencePack, rest: PackContents): PackCheck {
  const errors: InputProblem[] = [];
  const warnings: string[] = [];
  const report = (pointer: string, message: string) => {
    if (errors.length < MOST_ERRORS) errors.push({ pointer, message });
  };
  const known: KnownIds = {
    sources: merge(rest.sources, pack.sources ?? []),
    makers: merge(rest.makers, pack.makers ?? []),
    features: merge(rest.features, pack.features ?? []),
    patterns: merge(rest.patterns, pack.patterns ?? []),
    codes: merge(rest.codes, pack.codes ?? []),
    marks: merge(rest.marks, pack.marks ?? []),
    windows: merge(rest.windows, pack.windows ?? []),
    variants: merge(rest.variants, pack.variants ?? []),
    stories: merge(rest.stories, pack.stories ?? []),
  };
  const refers = (section: keyof PackContents, id: string | null | undefined, pointer: string) => {
    if (id != null && !known[section].has(id)) report(pointer, `there is no ${singular(section)} “${id}”`);
  };
  const period = (text: string | null | undefined, pointer: string) => {
    if (text == null) return;
    const parsed = parsePeriod(text);
    if (!parsed.ok) report(pointer, parsed.error.message);
  };
  const reading = (featureId: string, value: FeatureReading, pointer: string, featurePointer: string) => {
    const feature = known.features.get(featureId);
    if (!feature) report(featurePointer, `there is no feature “${featureId}”`);
    else {
      const wrong = whyNotAValue(feature, value);
      if (wrong) report(pointer, wrong);
    }
  };
  const measures = (of: Record<string, NominalMeasure> | null | undefined, pointer: string) => {
    for (const id of Object.keys(of ?? {})) {
      const feature = known.features.get(id);
      if (!feature) report(`${pointer}/${escape(id)}`, `there is no feature “${id}”`);
      else if (feature.kind !== 'measure') report(`${pointer}/${escape(id)}`, `“${id}” is not a measure`);
    }
  };

  for (const section of PACK_SECTIONS) {
    const seen = new Set<string>();
    pack[section]?.forEach((item, i) => {
      if (seen.has(item.id)) report(`/${section}/${i}/id`, `“${item.id}” stands here twice`);
      seen.add(item.id);
    });
  }
  pack.sources?.forEach((source, i) => period(source.published, `/sources/${i}/published`));
  const varieties = (of: Record<string, FeatureReading[]> | null | undefined, at: string) => {
    for (const [feature, values] of Object.entries(of ?? {})) {
      const place = `${at}/features/${escape(feature)}`;
      if (values.length === 0) report(place, 'name at least one value, or leave the feature out');
      values.forEach((value, j) => reading(feature, value, `${place}/${j}`, place));
    }
  };
  pack.makers?.forEach((maker, i) => {
    period(maker.active, `/makers/${i}/active`);
    varieties(maker.features, `/makers/${i}`);
  });
  pack.features?.forEach((feature, i) => {
    if (feature.kind === 'category' && !feature.values?.length)
      report(`/features/${i}/values`, 'a category needs its values');
    const ids = new Set<string>();
    feature.values?.forEach((value, j) => {
      if (ids.has(value.id)) report(`/features/${i}/values/${j}/id`, `“${value.id}” stands here twice`);
      ids.add(value.id);
    });
  });
  pack.patterns?.forEach((pattern, i) => {
    refers('makers', pattern.maker, `/patterns/${i}/maker`);
    measures(pattern.measures, `/patterns/${i}/measures`);
    varieties(pattern.features, `/patterns/${i}`);
    const handle = pattern.drawing?.handle?.outline;
    if (handle && (handle.length < 3 || new Set(handle.map(([x]) => x)).size < 2))
      report(
        `/patterns/${i}/drawing/handle/outline`,
        'an outline needs three points at least, along the handle',
      );
    if (pattern.outline && (pattern.outline.length < 3 || pattern.outline.every(([x]) => x <= 0)))
      report(`/patterns/${i}/outline`, 'an outline needs three points at least, the tang end at x = 0');
  });
  pack.codes?.forEach((code, i) => {
    refers('makers', code.maker, `/codes/${i}/maker`);
    refers('sources', code.source, `/codes/${i}/source`);
    checkCode(code, `/codes/${i}`, report, reading, refers);
    for (const overlap of code.kind === 'date' ? ruleOverlaps(code) : [])
      warnings.push(`code ${code.id}: ${overlap}`);
  });
  pack.marks?.forEach((mark, i) => {
    refers('makers', mark.maker, `/marks/${i}/maker`);
    refers('sources', mark.source, `/marks/${i}/source`);
    period(mark.window, `/marks/${i}/window`);
    duration(mark.carryOver, `/marks/${i}/carryOver`, report);
    mark.codes?.forEach((id, j) => refers('codes', id, `/marks/${i}/codes/${j}`));
    mark.history?.changes?.forEach((id, j) => refers('features', id, `/marks/${i}/history/changes/${j}`));
  });
  pack.windows?.forEach((window, i) => {
    refers('makers', window.maker, `/windows/${i}/maker`);
    refers('patterns', window.pattern, `/windows/${i}/pattern`);
    refers('sources', window.source, `/windows/${i}/source`);
    reading(window.feature, window.value, `/windows/${i}/value`, `/windows/${i}/feature`);
    period(window.window, `/windows/${i}/window`);
    duration(window.carryOver, `/windows/${i}/carryOver`, report);
  });
  pack.variants?.forEach((variant, i) => {
    const at = `/variants/${i}`;
    refers('patterns', variant.pattern, `${at}/pattern`);
    refers('variants', variant.twinOf, `${at}/twinOf`);
    period(variant.window, `${at}/window`);
    varieties(variant.features, at);
    measures(variant.measures, `${at}/measures`);
    variant.marks?.forEach((id, j) => refers('marks', id, `${at}/marks/${j}`));
    variant.claims?.forEach((claim, j) => refers('sources', claim.source, `${at}/claims/${j}/source`));
    variant.convertedFrom?.forEach((id, j) => refers('variants', id, `${at}/convertedFrom/${j}`));
    const circle = (field: string, of: (v: Variant) => readonly string[]) => {
      const path = circleFrom(variant, known.variants, of);
      if (path) report(`${at}/${field}`, `this goes round in a circle: ${path.join(' → ')}`);
    };
    circle('twinOf', (v) => (v.twinOf == null ? [] : [v.twinOf]));
    circle('convertedFrom', (v) => v.convertedFrom ?? []);
    const construction = known.patterns.get(variant.pattern)?.construction;
    for (const id of Object.keys(variant.features ?? {})) {
      const applies = known.features.get(id)?.constructions;
      if (applies && construction && !applies.includes(construction))
        warnings.push(`variant ${variant.id} records ${id}, which does not apply to a ${construction}`);
    }
    const outside = errors.length === 0 && outsideItsMaker(variant, known);
    if (outside) warnings.push(outside);
  });
  pack.stories?.forEach((story, i) => {
    const at = `/stories/${i}`;
    refers('makers', story.maker, `${at}/maker`);
    refers('patterns', story.pattern, `${at}/pattern`);
    refers('variants', story.variant, `${at}/variant`);
    refers('sources', story.source, `${at}/source`);
    if (story.maker == null && story.pattern == null && story.variant == null)
      report(`${at}/maker`, 'say what the story is about: a maker, a pattern or a variant');
  });
  if (errors.length === 0) warnings.push(...annualWarnings(pack, known));
  const peopled = new Set([...known.variants.values()].map((v) => v.pattern));
  for (const pattern of pack.patterns ?? [])
    if (!peopled.has(pattern.id)) warnings.push(`pattern ${pattern.id} has no variants`);
  return { errors, warnings };
}

const singular = (section: string) => section.replace(/ies$/, 'y').replace(/s$/, '');
const escape = (key: string) => key.replaceAll('~', '~0').replaceAll('/', '~1');

/** Why a value cannot be one of this feature's, or undefined when it can. */
export function whyNotAValue(feature: Feature, value: FeatureReading): string | undefined {
  switch (feature.kind) {
    case 'category': {
      const known = feature.values?.some((v) => v.id === value) ?? false;
      if (known) return undefined;
      const listed = (feature.values ?? []).map((v) => v.id).join(', ');
      return `“${value}” is not a value of ${feature.id}; its values are ${listed}`;
    }
    case 'count':
      return typeof value === 'number' && Number.isInteger(value) && value >= 0
        ? undefined
        : `${feature.id} is counted: give a whole number, not “${value}”`;
    case 'text':
      return typeof value === 'string' ? undefined : `${feature.id} is text, not a number`;
    case 'measure':
      return `${feature.id} is a measure; give it under measures`;
  }
}

function duration(
  text: string | null | undefined,
  pointer: string,
  report: (pointer: string, message: string) => void,
): void {
  if (text == null) return;
  const parsed = parseMonths(text);
  if (!parsed.ok) report(pointer, parsed.error.message);
}

function checkCode(
  code: Code,
  at: string,
  report: (pointer: string, message: string) => void,
  reading: (feature: string, value: FeatureReading, pointer: string, featurePointer: string) => void,
  refers: (section: keyof PackContents, id: string | null | undefined, pointer: string) => void,
): void {
  switch (code.kind) {
    case 'serial':
      refers('patterns', code.pattern, `${at}/pattern`);
      {
        const wrong = whyNotAFormat(code.format, 0);
        if (wrong) return report(`${at}/format`, wrong);
        for (const field of ['number', 'runGroup'] as const) {
          const missing = code[field] == null ? undefined : whyNotAFormat(code.format, code[field]);
          if (missing) report(`${at}/${field}`, missing);
        }
      }
      return;
    case 'pattern-number':
      code.segments.forEach((segment, j) => {
        for (const [key, implied] of Object.entries(segment.table ?? {})) {
          const place = `${at}/segments/${j}/table/${escape(key)}`;
          if ('value' in implied)
            reading(implied.feature, implied.value, `${place}/value`, `${place}/feature`);
          else
            implied.values.forEach((value, k) =>
              reading(implied.feature, value, `${place}/values/${k}`, `${place}/feature`),
            );
        }
        refers('features', segment.feature, `${at}/segments/${j}/feature`);
        if (segment.table == null && segment.digits == null && segment.literal == null)
          report(`${at}/segments/${j}`, 'a segment is read by a table, by digits, or is a literal');
        if (segment.digits != null && !/^\d+(-\d+)?$/.test(String(segment.digits)))
          report(`${at}/segments/${j}/digits`, 'digits is a number or a range such as 2-3');
      });
      return;
    case 'date':
      checkDateCode(code, at, report);
  }
}

function checkDateCode(
  code: Extract<Code, { kind: 'date' }>,
  at: string,
  report: (pointer: string, message: string) => void,
): void {
  const reads = new Map(code.reads.map((r) => [r.id, r]));
  code.reads.forEach((read, j) => {
    if (read.type === 'choice' && !read.values?.length)
      report(`${at}/reads/${j}/values`, 'a choice needs its values');
    if (read.min != null && read.max != null && read.min > read.max)
      report(`${at}/reads/${j}/max`, 'the greatest count is below the smallest');
  });
  code.rules.forEach((rule, j) => {
    const place = `${at}/rules/${j}`;
    for (const [id, value] of Object.entries(rule.when ?? {})) {
      const read = reads.get(id);
      if (!read) report(`${place}/when/${escape(id)}`, `there is no read “${id}”`);
      else if (read.type === 'choice' && !read.values?.includes(String(value)))
        report(`${place}/when/${escape(id)}`, `“${value}” is not among the values of ${id}`);
    }
    const uses = (id: string, field: string) => {
      if (!reads.has(id)) report(`${place}/year/${field}`, `there is no read “${id}”`);
    };
    const year = rule.year;
    if ('plus' in year) uses(year.plus, 'plus');
    else if ('minus' in year) uses(year.minus, 'minus');
    else if ('digits' in year) uses(year.digits, 'digits');
    else uses(year.read, 'read');
    if (rule.month != null && !reads.has(rule.month.read))
      report(`${place}/month/read`, `there is no read “${rule.month.read}”`);
    const windows =
      'ranges' in year
        ? year.ranges.map((r, k) => [r.window, `ranges/${k}/window`] as const)
        : 'table' in year
          ? Object.entries(year.table).map(([key, w]) => [w, `table/${escape(key)}`] as const)
          : [];
    for (const [text, where] of windows) {
      const parsed = parsePeriod(text);
      if (!parsed.ok) report(`${place}/year/${where}`, parsed.error.message);
    }
    if ('ranges' in year)
      year.ranges.forEach((r, k) => {
        if (r.to < r.from) report(`${place}/year/ranges/${k}/to`, 'the range ends before it begins');
      });
  });
}

/** The shortest way from a variant back to itself, or undefined. */
function circleFrom(
  start: Variant,
  variants: ReadonlyMap<string, Variant>,
  of: (variant: Variant) => readonly string[],
): string[] | undefined {
  const ways: string[][] = of(start).map((id) => [start.id, id]);
  const seen = new Set<string>();
  for (let way = ways.shift(); way; way = ways.shift()) {
    const last = way.at(-1) ?? '';
    if (last === start.id) return way;
    if (seen.has(last)) continue; // a circle further on is reported where it closes
    seen.add(last);
    const variant = variants.get(last);
    for (const next of variant ? of(variant) : []) ways.push([...way, next]);
  }
  return undefined;
}

function outsideItsMaker(variant: Variant, known: KnownIds): string | undefined {
  const imitation =
    variant.kind === 'counterfeit' ||
    variant.kind === 'reproduction' ||
    variant.kind === 'licensed-copy' ||
    variant.kind === 'reissue';
  const maker = known.makers.get(known.patterns.get(variant.pattern)?.maker ?? '');
  if (imitation || variant.window == null || maker?.active == null) return undefined;
  const active = periodOf(maker.active).lenient;
  const { start, end } = periodOf(variant.window);
  const inside = [start.earliest, end.latest].every((day) => !Number.isFinite(day) || covers(active, day));
  return inside
    ? undefined
    : `variant ${variant.id} (${variant.window}) lies outside ${maker.id}’s ${maker.active}`;
}

/**
 * An annual series counts from its first year: index = year − first year + 1. The first year is what most of the
 * pattern's indexed editions agree on; those that count otherwise are named.
 */
function annualWarnings(pack: ReferencePack, known: KnownIds): string[] {
  const touched = new Set((pack.variants ?? []).map((v) => v.pattern));
  const byPattern = new Map<string, { variant: Variant; first: number }[]>();
  for (const variant of known.variants.values()) {
    const index = variant.edition?.index;
    if (index == null || variant.window == null || !touched.has(variant.pattern)) continue;
    const start = periodOf(variant.window).start.earliest;
    if (!Number.isFinite(start)) continue;
    const list = byPattern.get(variant.pattern) ?? [];
    list.push({ variant, first: calendarOf(start).year - index + 1 });
    byPattern.set(variant.pattern, list);
  }
  return [...byPattern.values()].flatMap((editions) => {
    const votes = new Map<number, number>();
    for (const { first } of editions) votes.set(first, (votes.get(first) ?? 0) + 1);
    const [first] = [...votes].sort((a, b) => b[1] - a[1] || a[0] - b[0])[0] ?? [0];
    return editions
      .filter((e) => e.first !== first)
      .map(({ variant }) => {
        const index = variant.edition?.index ?? 0;
        return `variant ${variant.id}: number ${index} of a series that began in ${first} is of ${first + index - 1}, not ${variant.window}`;
      });
  });
}
