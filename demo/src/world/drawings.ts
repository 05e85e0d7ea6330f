/** How the demo's patterns are drawn: handle, blades by end and form, and what their makers never changed. */
import type { Pattern, PatternDrawing } from '@jutbank/core/reference';
import { bladeSizeOf } from './blades.ts';

type Blade = NonNullable<PatternDrawing['blades']>[number];
const of = (share: number): Blade['length'] => ({ of: 'blade-length', share });
const pen = (end: string): Blade => ({ role: 'pen', end, shape: 'pen', length: of(0.72), layer: 1 });
const PEN_AT_FRONT = [pen('front')];
const PEN_AT_REAR = [pen('rear')];
const STOCK: Blade[] = [
  { role: 'sheepfoot', end: 'rear', shape: 'sheepfoot', length: of(0.76), layer: 2 },
  { role: 'spey', end: 'front', shape: 'spey', length: of(0.7), layer: 1 },
];

interface Plan {
  readonly profile?: string;
  /** mm */
  readonly height?: number;
  readonly blades?: readonly Blade[];
  readonly styles?: PatternDrawing['styles'];
}
const PLANS: Readonly<Record<string, Plan>> = {
  'harbour-jack': { profile: 'equal-end', height: 17, blades: PEN_AT_FRONT },
  'orchard-pruner': { profile: 'dogleg', height: 19, styles: { joint: 'curved' } },
  'three-hand-whittler': { profile: 'swell-centre', height: 15.5, blades: STOCK },
  'ferry-pen': { profile: 'equal-end', height: 12.5, blades: PEN_AT_REAR, styles: { pins: 'two' } },
  'drovers-stock': { profile: 'serpentine', height: 16, blades: STOCK },
  petrel: { profile: 'swayback', height: 27, styles: { pivot: 'slotted', lanyard: 'tube' } },
  'pike-petrel': { profile: 'swayback', height: 27, styles: { pivot: 'slotted', lanyard: 'tube' } },
  skua: { profile: 'straight', height: 24, styles: { pivot: 'two-hole', lanyard: 'hole' } },
  'rigger-two': { profile: 'swell-end', height: 22, styles: { 'can-opener': 'none', driver: 'none' } },
  'bosun-tool': { profile: 'equal-end', height: 23, styles: { 'can-opener': 'plain', driver: 'wide' } },
  'pw-ploughman': { profile: 'swell-end', height: 18 },
  'pw-net-mender': { profile: 'sleeveboard', height: 15, blades: PEN_AT_FRONT },
  'pw-cabin-jack': { profile: 'teardrop', height: 18, blades: PEN_AT_FRONT },
  'pw-clerk-pen': { profile: 'equal-end', height: 11.5, blades: PEN_AT_REAR },
  'pw-estate-stock': { profile: 'serpentine', height: 16.5, blades: STOCK },
  'pw-grafter': { profile: 'straight', height: 16 },
  'pw-tithe-pruner': { profile: 'dogleg', height: 19 },
  'pw-ferrymans-jack': { profile: 'coffin', height: 16.5, blades: PEN_AT_FRONT },
  'pw-market-jack': { profile: 'trapper', height: 16.5, blades: PEN_AT_FRONT },
  'deck-knife': { height: 26, styles: { guard: 'lower', pommel: 'plate', rivets: 'two', sheath: 'plain' } },
  yearly: { height: 25, styles: { guard: 'none', pommel: 'none', sheath: 'chape' } },
  'pattern-1-long': { styles: { quillon: 'hooked', scabbard: 'steel', pommel: 'beaked' } },
  'pattern-1-short': { styles: { quillon: 'hooked', scabbard: 'steel', pommel: 'beaked' } },
  'pattern-3': { styles: { quillon: 'none', 'muzzle-ring': 'none', scabbard: 'steel', pommel: 'plate' } },
  'hr-pattern-1': { styles: { quillon: 'hooked', scabbard: 'leather', pommel: 'beaked' } },
  'ow-boarding': { height: 28, styles: { guard: 'both', pommel: 'cap', sheath: 'plain' } },
};
/** For the patterns that have no plan of their own, by construction: what is usual there. */
const USUAL: Partial<Record<Pattern['construction'], Plan>> = {
  slipjoint: { styles: { pins: 'two', joint: 'straight' } },
  'locking-folder': { profile: 'straight', height: 25, styles: { pivot: 'hex' } },
  automatic: { profile: 'straight', height: 21, styles: { scales: 'stag', pivot: 'plain', lock: 'button' } },
  'multi-tool': { profile: 'equal-end', height: 22, styles: { driver: 'narrow', 'can-opener': 'plain' } },
  fixed: { height: 25, styles: { guard: 'lower', pommel: 'none', rivets: 'two' } },
  bayonet: { styles: { quillon: 'plain', scabbard: 'steel', pommel: 'beaked' } },
  balisong: { styles: { scales: 'brushed', pivot: 'slotted', spacer: 'posts' } },
};

export function withDrawing(pattern: Pattern): Pattern {
  const plan = PLANS[pattern.id] ?? USUAL[pattern.construction] ?? {};
  const shape = pattern.construction === 'bayonet' ? 'bayonet' : (bladeSizeOf(pattern)?.shape ?? 'spear');
  const master: Blade = { role: 'master', end: 'front', shape, length: of(1), layer: 0 };
  const drawing: PatternDrawing = {
    handle: { profile: plan.profile ?? null, height: plan.height ?? null },
    blades: [master, ...(plan.blades ?? [])],
    styles: { ...USUAL[pattern.construction]?.styles, ...plan.styles },
  };
  return { ...pattern, drawing };
}
