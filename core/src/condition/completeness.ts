/** What comes with a piece, in what state, and how that is said to a buyer. */
import type { Construction } from '../reference/index.ts';
import type { Completeness } from './finding.ts';

interface StateWords {
  /** must be told, whatever else is */
  readonly tells?: string;
  /** named among what is included */
  readonly included?: string;
}
interface ItemWords {
  readonly ask: string;
  readonly states: Readonly<Record<string, StateWords>>;
}

const NONE = (item: string): StateWords => ({ tells: `No ${item}` });

/** Items by name, their states in the order in which they are offered. */
export const COMPLETENESS = {
  box: {
    ask: 'Is the works’ own box with it, a service box, a later one, none?',
    states: {
      original: { included: 'factory box' },
      service: { tells: 'In a service box, not the factory’s', included: 'service box' },
      later: { tells: 'In a later box', included: 'a later box' },
      none: NONE('box'),
      'not-applicable': {},
    },
  },
  papers: {
    ask: 'Leaflet, card, invoice?',
    states: {
      original: { included: 'papers' },
      later: { tells: 'The papers are later ones', included: 'later papers' },
      none: NONE('papers'),
      'not-applicable': {},
    },
  },
  pouch: {
    ask: 'Is its pouch with it?',
    states: {
      original: { included: 'its pouch' },
      later: { tells: 'The pouch is a later one', included: 'a later pouch' },
      none: NONE('pouch'),
      'not-applicable': {},
    },
  },
  sheath: {
    ask: 'Whose sheath is it?',
    states: {
      original: { included: 'its sheath' },
      period: { tells: 'Sheath of the period, not the piece’s own', included: 'a sheath of the period' },
      reproduction: { tells: 'Reproduction sheath', included: 'a reproduction sheath' },
      later: { tells: 'Later sheath', included: 'a later sheath' },
      none: NONE('sheath'),
      'not-applicable': {},
    },
  },
  scabbard: {
    ask: 'Whose scabbard is it?',
    states: {
      original: { included: 'its scabbard' },
      period: {
        tells: 'Scabbard of the period, not the piece’s own',
        included: 'a scabbard of the period',
      },
      reproduction: { tells: 'Reproduction scabbard', included: 'a reproduction scabbard' },
      none: NONE('scabbard'),
    },
  },
  frog: {
    ask: 'And the frog?',
    states: {
      original: { included: 'its frog' },
      period: { tells: 'Frog of the period, not the piece’s own', included: 'a frog of the period' },
      reproduction: { tells: 'Reproduction frog', included: 'a reproduction frog' },
      none: NONE('frog'),
    },
  },
  'removed-parts': {
    ask: 'Do parts that were taken off come along?',
    states: {
      included: { tells: 'Parts that were taken off come along with it', included: 'the parts taken off' },
      none: { tells: 'Parts were taken off and do not come along' },
      'not-applicable': {},
    },
  },
  'opening-mechanism': {
    ask: 'Does it open as it did when it left the works?',
    states: {
      original: {},
      changed: { tells: 'The opening mechanism was changed' },
      removed: { tells: 'The opening mechanism was removed' },
    },
  },
} as const satisfies Record<string, ItemWords>;
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

const wordsOf = (item: string, state: string | null | undefined): StateWords | undefined =>
  (COMPLETENESS as Readonly<Record<string, ItemWords>>)[item]?.states[state ?? ''];

/** What must be told of what is with a piece and what is not. */
export const completenessDisclosures = (completeness: Completeness | null | undefined): string[] =>
  Object.entries(completeness ?? {}).flatMap(([item, state]) => wordsOf(item, state)?.tells ?? []);

/** What comes along. */
export const included = (completeness: Completeness | null | undefined): string[] =>
  Object.entries(completeness ?? {}).flatMap(([item, state]) => wordsOf(item, state)?.included ?? []);
