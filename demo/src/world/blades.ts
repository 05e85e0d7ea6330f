/** The main blade of the demo's patterns: which shape, how high; its length stands among the pattern's measures. */
import { BLADE_SHAPES, bladeOutline, type BladeSize } from '@jutbank/core/drawing';
import type { Pattern } from '@jutbank/core/reference';

/** Height as a share of the length, by construction. */
const HEIGHT: Partial<Record<Pattern['construction'], number>> = {
  slipjoint: 0.21,
  'locking-folder': 0.26,
  fixed: 0.22,
  bayonet: 0.075,
};

export function bladeSizeOf(pattern: Pattern): BladeSize | undefined {
  const length = pattern.measures?.['blade-length']?.value;
  const share = HEIGHT[pattern.construction];
  if (length === undefined || share === undefined) return undefined;
  const shape = BLADE_SHAPES[pattern.id.length % BLADE_SHAPES.length] ?? 'spear';
  return { shape, length, height: Math.round(length * share * 10) / 10 };
}

export const withOutline = (pattern: Pattern): Pattern => {
  const size = bladeSizeOf(pattern);
  if (!size) return pattern;
  const rounded = (x: number) => Math.round(x * 100) / 100;
  return { ...pattern, outline: bladeOutline(size, undefined, 40).map((p) => [rounded(p.x), rounded(p.y)]) };
};
