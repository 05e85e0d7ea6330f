/** Everything that is drawn: pieces from what is recorded of them, stamps, severities, blades, and the colours of all. */
export { besideTheirLike, letteringOf, stampsOfOneText, type Lettering, type SameText } from './stamp.ts';

export * from './severity.ts';
export * from './blade.ts';
export { OVER_PICTURE, PALETTES, type Palette, type Tone } from './palette.ts';
export { PAINTS } from './paints.ts';
export * from './piece/index.ts';
export { LINES, svgShapes, type SvgOptions } from './svg.ts';
