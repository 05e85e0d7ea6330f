/** What is being written, before it stands: a blank of each kind, ids from names, and where a draft is kept. */
import type { PackContents, PackSection, Variant } from '@jutbank/core/reference';

export type Draft = Record<string, unknown> & { id?: string };

export const SECTION_WORDS: Record<PackSection, string> = {
  sources: 'source',
  makers: 'maker',
  features: 'feature',
  patterns: 'pattern',
  codes: 'code',
  marks: 'stamp',
  windows: 'dated window',
  variants: 'variant',
  stories: 'story',
};

/** `Brackenholt Cutlery` → `brackenholt-cutlery`; at most 60 signs, so that endings fit behind it. */
export function slugOf(text: string): string {
  return text
    .normalize('NFKD')
    .replace(/[\u0300-\u036f]/g, '')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .slice(0, 60)
    .replace(/^-+|-+$/g, '');
}

const text = (value: unknown): string =>
  typeof value === 'string' || typeof value === 'number' ? String(value) : '';

/** An id one would expect, from what the thing is called. */
export function suggestedId(section: PackSection, draft: Draft): string {
  const parts: Record<PackSection, () => unknown[]> = {
    sources: () => [draft['title']],
    makers: () => [draft['name']],
    features: () => [draft['label']],
    patterns: () => [draft['name']],
    codes: () => [draft['maker'], draft['title']],
    marks: () => [
      draft['maker'],
      ...((draft['lines'] as string[] | undefined) ?? []).slice(0, 3),
      draft['window'],
    ],
    windows: () => [draft['pattern'] ?? draft['maker'], draft['feature'], draft['value'], draft['source']],
    variants: () => [draft['pattern'], draft['name']],
    stories: () => [draft['pattern'] ?? draft['maker'] ?? draft['variant'], draft['told']],
  };
  return slugOf(parts[section]().map(text).filter(Boolean).join(' '));
}

/** What a new thing starts with, from the address: `?maker=…&pattern=…`. */
export function blank(section: PackSection, query: URLSearchParams): Draft {
  const from = (key: string) => {
    const value = query.get(key);
    return value === null ? {} : { [key]: value };
  };
  switch (section) {
    case 'codes':
      return { kind: 'date', reads: [], rules: [], ...from('maker') };
    case 'marks':
      return { lines: [], place: 'tang-front', ...from('maker') };
    case 'variants':
      return { kind: 'production', ...from('pattern') };
    case 'stories':
      return { verdict: 'open', ...from('maker'), ...from('pattern') };
    case 'windows':
      return { ...from('maker'), ...from('pattern'), ...from('feature') };
    case 'patterns':
      return { construction: 'slipjoint', ...from('maker') };
    case 'features':
      return { kind: 'category', values: [] };
    case 'sources':
    case 'makers':
      return {};
  }
}

/** The next form in a succession: everything as before but what makes it another. */
export function nextFormOf(variant: Variant): Draft {
  const { pattern, kind, features, measures, marks, issuedTo } = variant;
  return { pattern, kind, features, measures, marks, issuedTo, name: `${variant.name}, next form` };
}

/** The thing as it is sent: fields that were left empty are left out. */
export function asItem(draft: Draft, id: string): PackContents[PackSection][number] {
  const kept = Object.entries({ ...draft, id }).filter(
    ([, value]) =>
      value !== undefined &&
      value !== null &&
      value !== '' &&
      !(typeof value === 'object' && !Array.isArray(value) && Object.keys(value).length === 0),
  );
  return Object.fromEntries(kept) as unknown as PackContents[PackSection][number];
}
