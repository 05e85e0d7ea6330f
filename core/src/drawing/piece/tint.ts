/** The paint of a handle's slabs: the material's own, or a tint apart from it. */
import type { Paint } from './sheet.ts';
import { PAINT_OF } from './texture.ts';
import type { StyleOf, Texture } from './vocabulary.ts';

export const paintOfScales = (texture: Texture, tint: StyleOf<'tint'> = 'natural'): Paint =>
  tint === 'natural' ? PAINT_OF[texture] : tint;

const LINERS = {
  brass: 'brass',
  nickel: 'nickel',
  steel: 'spring',
  titanium: 'titanium',
  none: 'nickel',
} as const;
export const paintOfLiner = (liner: StyleOf<'liner'> = 'steel'): Paint => LINERS[liner];
