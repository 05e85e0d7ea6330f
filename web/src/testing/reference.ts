/** A small reference as the screens ask for it, of the tests' own. */
import type { PatternDetail, Vocabulary } from '@jutbank/contract/reference';
import type { Feature } from '@jutbank/core/reference';
import type { Answers } from './screen.tsx';

/** What tells two forms of the tests apart by eye. */
export const shield: Feature = {
  id: 'shield',
  label: 'Shield',
  part: 'shield',
  kind: 'category',
  values: [
    { id: 'none', label: 'None' },
    { id: 'bar', label: 'Bar' },
    { id: 'anchor', label: 'Anchor' },
  ],
};

const maker = { id: 'bh', name: 'Brackenholt Cutlery' };
const patterns = [
  { id: 'harbour-jack', maker: 'bh', name: 'Harbour jack', construction: 'slipjoint' as const },
  { id: 'deck-knife', maker: 'bh', name: 'Deck knife', construction: 'fixed' as const },
];
const variants = [
  { id: 'hj-first', pattern: 'harbour-jack', name: 'Trade, first form', kind: 'production' as const },
  { id: 'hj-second', pattern: 'harbour-jack', name: 'Service issue', kind: 'service' as const },
];

const vocabulary: Vocabulary = {
  revision: '1',
  makers: [{ ...maker, patterns: 2, variants: 2 }],
  patterns: patterns.map((p) => ({
    ...p,
    variants: variants.filter((v) => v.pattern === p.id).length,
    form: null,
  })),
  features: [],
  marks: [],
  codes: [],
  sources: [],
};
const detail = (id: string): PatternDetail => ({
  pattern: patterns.find((p) => p.id === id) ?? { id, maker: 'bh', name: id, construction: 'slipjoint' },
  maker,
  variants: variants.filter((v) => v.pattern === id),
  windows: [],
  marks: [],
  stories: [],
});

export const referenceAnswers: Answers = {
  'GET /reference/vocabulary': () => ({ body: vocabulary }),
  'GET /reference/patterns/harbour-jack': () => ({ body: detail('harbour-jack') }),
  'GET /reference/patterns/deck-knife': () => ({ body: detail('deck-knife') }),
};
