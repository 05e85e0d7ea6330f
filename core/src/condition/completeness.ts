/** What comes with a piece, in what state, and how that is said to a buyer. */
import type { Construction } from '../reference/index.ts';
import { ENGLISH, type Words } from '../words/index.ts';
import type { Completeness } from './finding.ts';

/** Items by name, their states in the order in which they are offered; what is said of a state lies in the catalogues. */
export const COMPLETENESS = {
  box: {
    ask: 'Is the works’ own box with it, a service box, a later one, none?',
    states: ['original', 'service', 'later', 'none', 'not-applicable'],
  },
  papers: { ask: 'Leaflet, card, invoice?', states: ['original', 'later', 'none', 'not-applicable'] },
  pouch: {
    ask: 'Is its pouch with it?',
    states: ['original', 'later', 'none', 'not-applicable'],
  },
  sheath: {
    ask: 'Whose sheath is it?',
    states: ['original', 'period', 'reproduction', 'later', 'none', 'not-applicable'],
  },
  scabbard: { ask: 'Whose scabbard is it?', states: ['original', 'period', 'reproduction', 'none'] },
  frog: { ask: 'And the frog?', states: ['original', 'period', 'reproduction', 'none'] },
  'removed-parts': {
    ask: 'Do parts that were taken off come along?',
    states: ['included', 'none', 'not-applicable'],
  },
  'opening-mechanism': {
    ask: 'Does it open as it did when it left the works?',
    states: ['original', 'changed', 'removed'],
  },
} as const satisfies Record<string, { readonly ask: string; readonly states: readonly string[] }>;
export type CompletenessItem = keyof typeof COMPLETENESS;

export const ITEMS_OF: Readonly<Record<Construction, readonly CompletenessItem[]>> = {
  slipjoint: ['box', 'papers', 'pouch'],
  'locking-folder': ['box', 'papers', 'pouch', 'removed-parts', 'opening-mechanism'],
  fixed: ['sheath', 'box', 'papers'],
  bayonet: ['scabbard', 'frog', 'papers'],
  'multi-tool': ['sheath', 'box', 'papers', 'removed-parts'],
  automatic: ['box', 'papers', 'pouch', 'opening-mechanism'],
  balisong: ['box', 'papers', 'sheath', 'removed-parts'],
};

const said = (set: 'tells' | 'included', completeness: Completeness | null | undefined, words: Words) =>
  Object.entries(completeness ?? {}).flatMap(([item, state]) => words.ofState(set, item, state ?? '') ?? []);

/** What must be told of what is with a piece and what is not. */
export const completenessDisclosures = (
  completeness: Completeness | null | undefined,
  words = ENGLISH,
): string[] => said('tells', completeness, words);

/** What comes along. */
export const included = (completeness: Completeness | null | undefined, words = ENGLISH): string[] =>
  said('included', completeness, words);
