/** Finding things of the reference by whatever is known of them. */
import { parsePatternNumber, readSerial, type Code, type Pattern } from '../reference/index.ts';
import type { ReferenceIndex } from './compile.ts';
import { monthOf } from './months.ts';

export interface ReferenceHit {
  readonly kind: 'maker' | 'pattern' | 'variant' | 'mark';
  readonly id: string;
  readonly label: string;
  readonly hint: string;
  /** what these words are, read as a code */
  readonly reads?: { readonly code: string; readonly text: string };
}
const MOST_HITS = 8;

/**
 * Search by anything: lettering of a stamp (`?` for a letter that cannot be read), names, a pattern's number, what a
 * pattern stamp spells, a serial, a feature's value, a year. Words are looked for in any order, and all must be there.
 */
export function searchReference(index: ReferenceIndex, q: string): ReferenceHit[] {
  const words = q
    .trim()
    .split(/\s+/)
    .map((word) => new RegExp(word.replace(/[.*+^${}()|[\]\\]/g, '\\$&').replaceAll('?', '.'), 'iu'));
  const wanted = { test: (text: string) => words.every((word) => word.test(text)) };
  const some = { test: (text: string) => words.some((word) => word.test(text)) };
  const year = /^\d{4}$/.test(q.trim()) ? Number(q) : undefined;
  const hits: ReferenceHit[] = [];
  const collect = <T>(items: Iterable<T>, matches: (item: T) => boolean, hit: (item: T) => ReferenceHit) => {
    let found = 0;
    for (const item of items) {
      if (found >= MOST_HITS) return;
      if (!matches(item)) continue;
      hits.push(hit(item));
      found++;
    }
  };
  collect(
    index.contents.makers,
    (m) => wanted.test([m.name, ...(m.aliases ?? [])].join(' ')),
    (m) => ({ kind: 'maker', id: m.id, label: m.name, hint: m.place ?? '' }),
  );
  collect(
    index.contents.patterns,
    // with its maker's name, but not for that name alone
    (p) => {
      const own = `${p.name} ${p.number ?? ''}`;
      return some.test(own) && wanted.test(`${own} ${index.makers.get(p.maker)?.name ?? ''}`);
    },
    (p) => ({ kind: 'pattern', id: p.id, label: p.name, hint: index.makers.get(p.maker)?.name ?? '' }),
  );
  collect(
    index.rows,
    (r) => wanted.test(`${r.pattern.name} ${r.variant.name}`),
    (r) => ({
      kind: 'variant',
      id: r.variant.id,
      label: `${r.pattern.name}, ${r.variant.name}`,
      hint: r.variant.window ?? '',
    }),
  );
  collect(
    index.contents.marks,
    (m) => wanted.test(m.lines.join(' ')),
    (m) => ({
      kind: 'mark',
      id: m.id,
      label: m.lines.join(' / '),
      hint: index.makers.get(m.maker ?? '')?.name ?? '',
    }),
  );
  for (const [pattern, code] of spelled(index, q))
    hits.push({
      kind: 'pattern',
      id: pattern.id,
      label: pattern.name,
      hint: `${code.title ?? code.id} reads ${q}`,
      reads: { code: code.id, text: q.trim() },
    });
  if (year !== undefined) {
    const from = monthOf(year, 1);
    collect(
      index.rows,
      (r) => r.variant.window != null && r.window.from <= from + 11 && r.window.to >= from,
      (r) => ({
        kind: 'variant',
        id: r.variant.id,
        label: `${r.pattern.name}, ${r.variant.name}`,
        hint: `made in ${year}`,
      }),
    );
  }
  if (q.trim().length >= LEAST_LETTERS)
    for (const feature of index.contents.features)
      for (const value of feature.values ?? []) {
        if (!wanted.test(`${feature.label} ${value.label}`)) continue;
        collect(
          index.rows,
          (r) => r.variant.features?.[feature.id]?.includes(value.id) ?? false,
          (r) => ({
            kind: 'variant',
            id: r.variant.id,
            label: `${r.pattern.name}, ${r.variant.name}`,
            hint: `${feature.label.toLowerCase()}: ${value.label.toLowerCase()}`,
          }),
        );
      }
  const seen = new Set<string>();
  return hits
    .filter((h) => !seen.has(`${h.kind} ${h.id}`) && seen.add(`${h.kind} ${h.id}`))
    .slice(0, MOST_TOGETHER);
}

/** Below this a feature's value would match nearly everything. */
const LEAST_LETTERS = 4;
const MOST_TOGETHER = 24;

/** The patterns that a stamp of this text names, by the pattern stamps and serials of the reference. */
function spelled(index: ReferenceIndex, q: string): [Pattern, Code][] {
  return index.contents.codes.flatMap((code): [Pattern, Code][] => {
    if (code.kind === 'pattern-number') {
      const numbers = new Set(parsePatternNumber(code, q).parses.flatMap((p) => p.patternNumber ?? []));
      return index.contents.patterns
        .filter((p) => numbers.has(p.number ?? '') && (code.maker == null || p.maker === code.maker))
        .map((p) => [p, code]);
    }
    const pattern = code.kind === 'serial' ? index.patterns.get(code.pattern ?? '') : undefined;
    return pattern && code.kind === 'serial' && readSerial(code, q) ? [[pattern, code]] : [];
  });
}
