/** What a piece is drawn from: styles by slot, measures, blades, and how each is known. */
import type { Outline } from './tracedHandle.ts';
import type { Construction } from '../../reference/index.ts';
import type { Lettering } from '../stamp.ts';
import type { BladeForm, SlotName, Styles } from './vocabulary.ts';

/** `assumed` is drawn from the nearest that is recorded; `differs` contradicts what is recorded. */
export type PartState = 'recorded' | 'measured' | 'assumed' | 'not-there' | 'exchanged' | 'differs';

export interface BladeRecipe {
  /** 'master', 'pen' … as the pattern calls it */
  readonly role: string;
  readonly end: 'front' | 'rear';
  readonly form: BladeForm;
  /** mm from the handle to the tip */
  readonly length: number;
  /** greatest height, mm; derived so that it folds where it is not recorded */
  readonly height?: number;
  /** layer from the mark side, 0 first */
  readonly layer: number;
  /** share of the outline when new that is left, 0–1 */
  readonly fullness?: number;
  readonly state: PartState;
}

/** A stamp as it is struck: text, lettering, and the signs counted beside it. */
export interface StampRecipe {
  readonly lines: readonly string[];
  readonly lettering: Lettering;
  readonly painted?: boolean;
  readonly framed?: boolean;
  /** counted beside the text, as a date code's are */
  readonly signs?: { readonly count: number; readonly form: SignForm; readonly where: SignPlace } | undefined;
  readonly state?: PartState;
}
export const SIGN_FORMS = ['tick', 'dot', 'ring', 'star', 'cross', 'diamond'] as const;
export type SignForm = (typeof SIGN_FORMS)[number];
export const SIGN_PLACES = ['above', 'below', 'beside', 'before', 'after', 'arc'] as const;
export type SignPlace = (typeof SIGN_PLACES)[number];

export interface DrawingRecipe {
  readonly name: string;
  readonly construction: Construction;
  readonly styles: Styles;
  /** how each slot is known; what is not named is assumed */
  readonly known: Readonly<Partial<Record<SlotName, PartState>>>;
  /** mm: a folder over its bolsters; of a straight knife the grip */
  readonly handleLength: number;
  readonly handleHeight: number;
  readonly handleState: PartState;
  /** the handle's own outline, mm, the butt at the least x, the back at the least y: it replaces the profile */
  readonly handleOutline?: Outline | undefined;
  readonly blades: readonly BladeRecipe[];
  readonly stamp?: StampRecipe | undefined;
  /** the main blade's outline when new, mm, the tang end at x = 0: it replaces the form */
  readonly bladeOutline?: readonly (readonly [number, number])[] | undefined;
}
/** How a slot is known; what nobody recorded is assumed. */
export const stateOf = (recipe: DrawingRecipe, slot: SlotName): PartState => recipe.known[slot] ?? 'assumed';
