/** A drawing as SVG text: for pictures and paper, where there is no style sheet. */
import type { Drawing, Ink, Shape } from './piece/index.ts';
import { PAINTS } from './paints.ts';
import { PALETTES } from './palette.ts';

/** Weights in px whatever the scale; the texture's tone stands for its opacity. */
export const LINES: Readonly<
  Record<Ink, { readonly width: number; readonly opacity: number; readonly light?: true }>
> = {
  outline: { width: 1.05, opacity: 1 },
  secondary: { width: 0.75, opacity: 1 },
  inner: { width: 0.65, opacity: 0.78 },
  fine: { width: 0.5, opacity: 0.6 },
  heavy: { width: 1.2, opacity: 1 },
  texture: { width: 0.55, opacity: 0.4 },
  shade: { width: 0.55, opacity: 0.46 },
  light: { width: 0.8, opacity: 0.5, light: true },
  stitch: { width: 1.1, opacity: 0.8, light: true },
  lost: { width: 1, opacity: 1 },
};
const WHITE = '#fffdf6';

export interface SvgOptions {
  /** px for a millimetre: decides what is small enough to be left out, and how wide a line is */
  readonly perMm: number;
  readonly mode?: 'light' | 'dark';
}
/** The shapes without a root, in the drawing's own millimetres. */
export function svgShapes(drawing: Drawing, { perMm, mode = 'light' }: SvgOptions): string {
  const ink = PALETTES[mode].ink;
  const stroke = (name: Ink) => {
    const { width, opacity, light } = LINES[name];
    return `stroke="${light ? WHITE : ink}" stroke-width="${(width / perMm).toFixed(3)}" opacity="${opacity}" stroke-linejoin="round"`;
  };
  const one = (shape: Shape): string => {
    if (shape.from > perMm) return '';
    switch (shape.kind) {
      case 'area':
        return `<path d="${shape.d}" fill="${PAINTS[mode][shape.paint]}" fill-rule="evenodd" ${stroke(shape.ink)}/>`;
      case 'lines':
        return `<path d="${shape.d}" fill="none" ${stroke(shape.ink)}/>`;
      case 'patches':
        return `<path d="${shape.d}" fill="${shape.tone === 'texture' ? ink : WHITE}" opacity="0.27"/>`;
      case 'letters':
        return `<text transform="translate(${shape.x.toFixed(2)} ${shape.y.toFixed(2)}) rotate(${shape.angle.toFixed(1)}) skewX(${shape.slant})" font-size="${shape.size.toFixed(2)}" text-anchor="middle" font-family="monospace" font-weight="600" fill="${shape.painted ? PALETTES[mode].warn : ink}">${escaped(shape.text)}</text>`;
    }
  };
  return drawing.parts.map((part) => part.shapes.map(one).join('')).join('');
}
const escaped = (text: string) =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;');
