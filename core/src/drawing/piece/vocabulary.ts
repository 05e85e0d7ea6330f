/**
 * What a drawing can show: slots, each with its styles. Plain geometry and the trade's words; the pack extension
 * (`draws` on a value, `drawing` on a pattern) names them, and `formats.md` of the docs lists them.
 */
import type { Construction } from '../../reference/index.ts';

const FOLDERS = ['slipjoint', 'locking-folder', 'multi-tool', 'automatic', 'balisong'] as const;
const STRAIGHT = ['fixed', 'bayonet'] as const;
const TEXTURES = [
  'horn',
  'jigged',
  'stag',
  'ebony',
  'wood',
  'figured',
  'fibre',
  'celluloid',
  'laminate',
  'carbon',
  'layered',
  'milled',
  'chequered',
  'brushed',
  'leather',
  'rings',
  'smooth',
] as const;
export type Texture = (typeof TEXTURES)[number];
const BLADE_FORMS = [
  'clip',
  'long-clip',
  'spear',
  'pen',
  'sheepfoot',
  'lambfoot',
  'spey',
  'drop',
  'straight',
  'chisel-point',
  'leaf',
  'pruner',
  'dagger',
  'bayonet',
] as const;
export type BladeForm = (typeof BLADE_FORMS)[number];

export interface Slot {
  /** drawn parts that the style decides, by the first word of their name */
  readonly parts: readonly string[];
  readonly styles: readonly string[];
  readonly constructions: readonly Construction[];
  /** styles that not every one of these constructions has */
  readonly only?: Readonly<Record<string, readonly Construction[]>>;
}
const slot = <S extends string>(
  parts: readonly string[],
  constructions: readonly Construction[],
  styles: readonly S[],
  only: Readonly<Record<string, readonly Construction[]>> = {},
) => ({ parts, constructions, styles, only });
const HANDLED = ['slipjoint', 'locking-folder', 'multi-tool', 'automatic'] as const;

export const SLOTS = {
  profile: slot(
    [
      'scales',
      'bolster',
      'blade',
      'pins',
      'shield',
      'lanyard',
      'shackle',
      'tool',
      'lock',
      'spacer',
      'clip',
      'opener',
      'liner',
      'pivot',
      'screws',
    ],
    HANDLED,
    [
      'equal-end',
      'serpentine',
      'swell-end',
      'swell-centre',
      'sleeveboard',
      'trapper',
      'congress',
      'canoe',
      'teardrop',
      'dogleg',
      'coffin',
      'swayback',
      'straight',
    ],
  ),
  bolster: slot(
    ['bolster'],
    ['slipjoint', 'locking-folder', 'automatic'],
    ['plain', 'grooved', 'ribbed', 'threaded', 'fluted'],
  ),
  'bolster-set': slot(
    ['bolster', 'scales', 'pins'],
    ['slipjoint', 'locking-folder', 'automatic'],
    ['both', 'front', 'none'],
  ),
  joint: slot(['bolster', 'scales'], ['slipjoint'], ['straight', 'curved']),
  scales: slot(['scales'], FOLDERS, TEXTURES),
  tint: slot(
    ['scales', 'grip'],
    [...FOLDERS, ...STRAIGHT],
    ['natural', 'pale', 'dark', 'red', 'green', 'orange'],
  ),
  shield: slot(
    ['shield'],
    ['slipjoint', 'multi-tool', 'locking-folder'],
    ['none', 'bar', 'oval', 'anchor', 'crest', 'lozenge', 'round'],
  ),
  pins: slot(['pins'], ['slipjoint'], ['none', 'two', 'three', 'four']),
  lanyard: slot(['lanyard'], HANDLED, ['none', 'ring', 'bar', 'bail', 'tube', 'hole']),
  shackle: slot(['shackle'], ['multi-tool'], ['none', 'bow', 'straight']),
  'blade-form': slot(['blade:1'], [...FOLDERS, ...STRAIGHT], BLADE_FORMS),
  pull: slot(['blade', 'tool'], FOLDERS, ['crescent', 'long', 'match', 'none']),
  'half-stop': slot(['blade:2'], ['slipjoint'], ['no', 'yes']),
  grind: slot(['blade'], [...FOLDERS, ...STRAIGHT], ['flat', 'sabre']),
  finish: slot(
    ['blade'],
    [...FOLDERS, ...STRAIGHT],
    ['bright', 'satin', 'stonewashed', 'black', 'blued', 'phosphated'],
  ),
  opener: slot(
    ['opener'],
    ['locking-folder', 'automatic'],
    ['none', 'stud', 'hole', 'round-hole', 'small-hole', 'flipper'],
  ),
  pivot: slot(
    ['pivot'],
    ['locking-folder', 'automatic', 'balisong'],
    ['plain', 'slotted', 'hex', 'two-hole', 'milled', 'cast'],
  ),
  clip: slot(['clip'], ['locking-folder', 'automatic'], ['none', 'spring', 'spring-four', 'wire', 'deep']),
  spacer: slot(['spacer'], ['locking-folder', 'automatic', 'balisong'], ['posts', 'strip', 'half', 'none'], {
    half: ['locking-folder', 'automatic'],
  }),
  lock: slot(['lock'], ['locking-folder', 'automatic'], ['none', 'liner', 'frame', 'back', 'button']),
  liner: slot(['liner'], HANDLED, ['brass', 'nickel', 'steel', 'titanium', 'none']),
  fuller: slot(['fuller'], STRAIGHT, ['none', 'short', 'full']),
  guard: slot(['guard'], ['fixed'], ['none', 'lower', 'both']),
  pommel: slot(['pommel', 'grip', 'press-stud'], STRAIGHT, ['none', 'cap', 'plate', 'beaked'], {
    none: ['fixed'],
    cap: ['fixed'],
    beaked: ['bayonet'],
  }),
  grip: slot(['grip'], STRAIGHT, TEXTURES),
  rivets: slot(['pins'], STRAIGHT, ['none', 'two', 'three']),
  quillon: slot(['guard'], ['bayonet'], ['plain', 'hooked', 'none']),
  'muzzle-ring': slot(['ring'], ['bayonet'], ['none', 'half', 'full']),
  'property-mark': slot(
    ['property-mark'],
    [...FOLDERS, ...STRAIGHT],
    ['none', 'crowned-wave', 'star', 'lozenge', 'initials'],
  ),
  sheath: slot(['sheath'], ['fixed'], ['none', 'plain', 'chape']),
  scabbard: slot(['scabbard'], ['bayonet'], ['none', 'steel', 'leather']),
  spike: slot(['tool:spike'], ['multi-tool'], ['none', 'tapered', 'stepped']),
  corkscrew: slot(['tool:corkscrew'], ['multi-tool'], ['none', 'four-turns', 'five-turns', 'fluted']),
  'can-opener': slot(['tool:opener'], ['multi-tool'], ['none', 'plain', 'long']),
  driver: slot(['tool:driver'], ['multi-tool'], ['none', 'narrow', 'wide']),
  saw: slot(['tool:saw'], ['multi-tool'], ['none', 'saw']),
} as const;
export type SlotName = keyof typeof SLOTS;
export const SLOT_NAMES = Object.keys(SLOTS) as readonly SlotName[];
export type StyleOf<S extends SlotName> = (typeof SLOTS)[S]['styles'][number];

/** Slots and the style of each: what a value of a feature draws, or what a piece is drawn from. */
export type Styles = { readonly [S in SlotName]?: StyleOf<S> };

export const isSlot = (name: string): name is SlotName => Object.hasOwn(SLOTS, name);
/** The styles of a slot, all of them or those a construction has. */
export const stylesOf = (name: SlotName, construction?: Construction): readonly string[] =>
  SLOTS[name].styles.filter(
    (style) => construction === undefined || (SLOTS[name].only[style]?.includes(construction) ?? true),
  );
export const drawsOn = (name: SlotName, construction: Construction): boolean =>
  (SLOTS[name].constructions as readonly Construction[]).includes(construction);

/** What a construction is drawn as where nothing is recorded. */
export const USUAL: Readonly<Record<Construction, Styles>> = {
  slipjoint: {
    profile: 'equal-end',
    bolster: 'plain',
    'bolster-set': 'both',
    joint: 'straight',
    scales: 'smooth',
    tint: 'natural',
    shield: 'none',
    pins: 'two',
    lanyard: 'none',
    'blade-form': 'spear',
    pull: 'crescent',
    'half-stop': 'no',
    grind: 'flat',
    finish: 'satin',
    liner: 'brass',
  },
  'locking-folder': {
    profile: 'swayback',
    bolster: 'plain',
    'bolster-set': 'none',
    scales: 'smooth',
    tint: 'natural',
    shield: 'none',
    lanyard: 'none',
    'blade-form': 'drop',
    pull: 'none',
    grind: 'sabre',
    finish: 'satin',
    opener: 'stud',
    pivot: 'slotted',
    clip: 'none',
    spacer: 'posts',
    lock: 'liner',
    liner: 'steel',
  },
  automatic: {
    profile: 'straight',
    bolster: 'plain',
    'bolster-set': 'both',
    scales: 'smooth',
    tint: 'natural',
    shield: 'none',
    lanyard: 'none',
    'blade-form': 'spear',
    pull: 'none',
    grind: 'sabre',
    finish: 'satin',
    opener: 'none',
    pivot: 'plain',
    clip: 'none',
    spacer: 'posts',
    lock: 'button',
    liner: 'brass',
  },
  balisong: {
    scales: 'smooth',
    tint: 'natural',
    'blade-form': 'spear',
    pull: 'none',
    grind: 'sabre',
    finish: 'satin',
    pivot: 'plain',
    spacer: 'posts',
  },
  fixed: {
    'blade-form': 'clip',
    tint: 'natural',
    grind: 'sabre',
    finish: 'satin',
    fuller: 'none',
    guard: 'both',
    pommel: 'cap',
    grip: 'smooth',
    rivets: 'none',
    sheath: 'none',
  },
  bayonet: {
    'blade-form': 'bayonet',
    tint: 'natural',
    grind: 'sabre',
    finish: 'bright',
    fuller: 'none',
    pommel: 'beaked',
    grip: 'smooth',
    rivets: 'two',
    quillon: 'plain',
    'muzzle-ring': 'full',
    scabbard: 'none',
  },
  'multi-tool': {
    profile: 'equal-end',
    scales: 'smooth',
    tint: 'natural',
    shield: 'none',
    lanyard: 'none',
    shackle: 'none',
    'blade-form': 'spear',
    pull: 'crescent',
    grind: 'flat',
    finish: 'satin',
    liner: 'steel',
    spike: 'none',
    corkscrew: 'none',
    'can-opener': 'plain',
    driver: 'narrow',
    saw: 'none',
  },
};
