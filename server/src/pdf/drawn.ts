/** Drawn pieces on paper: the core's shapes as paths, weights told in points. */
import { PAINTS, PALETTES, LINES, type Drawing, type Shape } from '@jutbank/core/drawing';
import type PDFDocument from 'pdfkit';
import { faceFor } from './fonts.ts';

type Document = InstanceType<typeof PDFDocument>;
const INK = PALETTES.light.ink;
const LIGHT = '#fffdf6';
/** A point of paper shows as much as this many pixels of a screen: how much of a drawing is worth its ink. */
const PIXELS = 1.6;
/** Lines on paper are thinner than on a screen. */
const WEIGHT = 0.6;

export interface DrawnAt {
  readonly x: number;
  readonly y: number;
  /** pt; the drawing keeps its proportions and stands in the middle */
  readonly width: number;
  readonly height: number;
}
/** @returns where a place of the drawing, in mm, stands on the page */
export function drawOn(
  doc: Document,
  drawing: Drawing,
  { x, y, width, height }: DrawnAt,
): (mm: { x: number; y: number }) => { x: number; y: number } {
  const scale = Math.min(width / drawing.widthMm, height / drawing.heightMm);
  const left = x + (width - drawing.widthMm * scale) / 2 - drawing.left * scale;
  const top = y + (height - drawing.heightMm * scale) / 2 - drawing.top * scale;
  doc.save().translate(left, top).scale(scale);
  for (const part of drawing.parts)
    for (const shape of part.shapes)
      if (shape.from <= scale * PIXELS) drawShape(doc, shape, scale, part.state === 'assumed');
  doc.restore();
  return (mm) => ({ x: left + mm.x * scale, y: top + mm.y * scale });
}

function drawShape(doc: Document, shape: Shape, scale: number, assumed: boolean): void {
  if (shape.kind === 'letters') {
    doc
      .save()
      .translate(shape.x, shape.y)
      .rotate(shape.angle)
      .transform(1, 0, Math.tan((shape.slant * Math.PI) / 180), 1, 0, 0)
      .font(faceFor('figures', shape.text))
      .fontSize(shape.size)
      .fillColor(shape.painted ? PALETTES.light.warn : INK)
      .text(shape.text, -20, -shape.size * 0.85, { width: 40, align: 'center', lineBreak: false })
      .restore();
    return;
  }
  if (shape.kind === 'patches') {
    if (!assumed)
      doc
        .path(shape.d)
        .fillColor(shape.tone === 'texture' ? INK : LIGHT, 0.26)
        .fill();
    return;
  }
  const { width, opacity, light } = LINES[shape.ink];
  const line = () =>
    doc
      .lineWidth((width * WEIGHT) / scale)
      .strokeColor(light ? LIGHT : INK, opacity)
      .lineJoin('round');
  if (shape.kind === 'lines') {
    if (!assumed) line().path(shape.d).stroke();
    return;
  }
  doc.fillColor(assumed ? PALETTES.light.sheet : PAINTS.light[shape.paint], 1);
  if (assumed)
    line()
      .dash(2.4 / scale, { space: 2 / scale })
      .path(shape.d)
      .fillAndStroke('even-odd')
      .undash();
  else line().path(shape.d).fillAndStroke('even-odd');
}
