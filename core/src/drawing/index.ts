/** Outlines of a piece by its construction, as plain shapes: for slips without a photograph and for drawn pictures. */
import type { Construction } from '../reference/index.ts';
export { besideTheirLike, letteringOf, stampsOfOneText, type Lettering, type SameText } from './stamp.ts';

export type Paint = 'handle' | 'metal' | 'blade' | 'line' | 'none';
export interface Shape {
  /** SVG path data in a box of 120 × 44 units */
  readonly d: string;
  readonly fill: Paint;
  readonly stroke: boolean;
}
export interface OutlineTraits {
  readonly lanyard?: 'ring' | 'bar' | undefined;
  readonly bolster?: 'plain' | 'grooved' | 'ribbed' | undefined;
  readonly clip?: boolean;
}
export const OUTLINE_BOX = { width: 120, height: 44 } as const;

const shape = (d: string, fill: Paint, stroke = true): Shape => ({ d, fill, stroke });

export function drawOutline(construction: Construction, traits: OutlineTraits = {}): Shape[] {
  switch (construction) {
    case 'slipjoint':
      return slipjoint(traits);
    case 'locking-folder':
    case 'automatic':
      return lockingFolder(construction === 'automatic', traits);
    case 'balisong':
      return [
        shape('M52 16L114 12 118 17 106 21 52 22Z', 'blade'),
        shape('M4 12H52V19H6Q2 16 4 12Z', 'handle'),
        shape('M4 25H52V32H4Q2 28 4 25Z', 'handle'),
        shape('M49 19a2 2 0 1 0 .1 0M49 27a2 2 0 1 0 .1 0', 'metal'),
      ];
    case 'fixed':
      return [
        shape('M44 15L104 13Q114 15 118 22Q104 29 88 29L44 28Z', 'blade'),
        shape('M44 18H96', 'none'),
        shape('M41 12H45V31H41Z', 'metal'),
        shape('M4 16Q3 22 5 29Q22 33 41 28V15Q22 11 4 16Z', 'handle'),
        shape('M12 22a1.6 1.6 0 1 0 .1 0M31 21.500a1.600 1.600 0 1 0 .1 0', 'metal'),
      ];
    case 'bayonet':
      return [
        shape('M36 18L110 19 118 22 110 25 36 26Z', 'blade'),
        shape('M40 21H104', 'none'),
        shape('M32 8H36V36H32Z', 'metal'),
        shape('M34 4a4 4 0 1 0 .1 0', 'none'),
        shape('M8 15H32V29H8Z', 'handle'),
        shape('M2 14H8V30H2Q0 22 2 14Z', 'metal'),
        shape('M15 22a1.600 1.600 0 1 0 .1 0M25 22a1.600 1.600 0 1 0 .1 0', 'metal'),
      ];
    case 'multi-tool':
      return [
        shape('M74 12Q96 4 108 14L96 18 90 20 74 20Z', 'blade'),
        shape('M74 32Q96 40 108 30L96 26 90 24 74 24Z', 'blade'),
        shape('M4 10H74Q78 15 74 20H6Q2 15 4 10Z', 'handle'),
        shape('M4 24H74Q78 29 74 34H6Q2 29 4 24Z', 'handle'),
        shape('M74 20a2.400 2.400 0 1 0 .1 0', 'metal'),
      ];
  }
}

function slipjoint({ lanyard, bolster }: OutlineTraits): Shape[] {
  const shapes = [
    shape('M12 22C12 14 17 9 25 9H96C107 9 114 14 114 22S107 35 96 35H25C17 35 12 30 12 22Z', 'handle'),
    shape('M12 22C12 14 17 9 25 9H33V35H25C17 35 12 30 12 22Z', 'metal'),
    shape('M114 22C114 14 107 9 96 9H90V35H96C107 35 114 30 114 22Z', 'metal'),
    shape('M38 14H68', 'none'),
    shape('M44 23a1.500 1.500 0 1 0 .1 0M80 23a1.500 1.500 0 1 0 .1 0', 'metal'),
  ];
  if (lanyard === 'ring') shapes.push(shape('M8 17a5 5 0 1 0 .1 0', 'none'));
  if (lanyard === 'bar') shapes.push(shape('M13 17H5V27H13', 'none'));
  if (bolster === 'grooved') shapes.push(shape('M27 9V35M29.500 9V35M93 9V35M95.500 9V35', 'none'));
  if (bolster === 'ribbed') shapes.push(shape('M24 10V34M27 9V35M30 9V35M93 9V35M96 9V35M99 10V34', 'none'));
  return shapes;
}

function lockingFolder(button: boolean, { clip, lanyard }: OutlineTraits): Shape[] {
  const shapes = [
    shape('M66 13L110 11Q117 14 118 19L104 25 66 27Z', 'blade'),
    shape('M4 19Q8 11 24 12L64 11Q70 14 69 22Q70 29 63 31L24 33Q9 34 4 27Q2 23 4 19Z', 'handle'),
    shape('M62 20a3 3 0 1 0 .1 0', 'metal'),
    shape('M76 15a1.800 1.800 0 1 0 .1 0', 'metal'),
  ];
  if (clip !== false) shapes.push(shape('M10 20H40Q43 22.500 40 25H10Q7 22.500 10 20Z', 'metal'));
  if (button) shapes.push(shape('M50 24a2.500 2.500 0 1 0 .1 0', 'metal'));
  if (lanyard) shapes.push(shape('M8 27a1.800 1.800 0 1 0 .1 0', 'none'));
  return shapes;
}
export * from './severity.ts';
export * from './blade.ts';
export { OVER_PICTURE, PALETTES, type Palette, type Tone } from './palette.ts';
export { PAINTS } from './paints.ts';
export * from './piece/index.ts';
