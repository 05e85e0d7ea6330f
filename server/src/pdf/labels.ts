/** Labels for drawers: one to a page of a label printer, or as many as an A4 sheet takes. */
import { PALETTES, type Drawing } from '@jutbank/core/drawing';
import PDFDocument from 'pdfkit';
import { drawOn } from './drawn.ts';
import { faceFor, type Voice } from './fonts.ts';

const MM = 72 / 25.4;
const WIDTH = 62 * MM;
const HEIGHT = 29 * MM;
const PAD = 2.2 * MM;
const CODE = 17 * MM;
/** What a drawing takes in the label's corner. */
const DRAWN = { width: 21 * MM, height: 7 * MM };
const A4 = { width: 210 * MM, height: 297 * MM };
const [ACROSS, DOWN] = [3, 9];
const { ink: INK, soft: SOFT } = PALETTES.light;

export interface Label {
  readonly number: string;
  readonly title: string;
  /** what it is and how sure; when it was made */
  readonly lines: readonly string[];
  readonly price: string | null;
  /** such as that it is to be kept apart */
  readonly sign: string | null;
  /** a picture of the code that leads to it */
  readonly code: Buffer;
  /** the form it is or may be; null where nothing was looked at */
  readonly drawing: Drawing | null;
}

/** @param on `roll` for a label printer, `sheet` for A4 */
export function labelsPdf(labels: readonly Label[], on: 'roll' | 'sheet'): Promise<Buffer> {
  const size: [number, number] = on === 'roll' ? [WIDTH, HEIGHT] : [A4.width, A4.height];
  const doc = new PDFDocument({
    size,
    margin: 0,
    autoFirstPage: false,
    info: { Title: 'Labels' },
    lang: 'en',
    tagged: true,
    font: faceFor('text', ''),
  });
  const chunks: Buffer[] = [];
  const done = new Promise<Buffer>((resolve, reject) => {
    doc.on('data', (chunk: Buffer) => chunks.push(chunk));
    doc.on('end', () => resolve(Buffer.concat(chunks)));
    doc.on('error', reject);
  });
  const left = (A4.width - ACROSS * WIDTH) / 2;
  const top = (A4.height - DOWN * HEIGHT) / 2;
  labels.forEach((label, i) => {
    const at = i % (ACROSS * DOWN);
    if (on === 'roll' || at === 0) doc.addPage();
    if (on === 'roll') draw(doc, label, 0, 0);
    else draw(doc, label, left + (at % ACROSS) * WIDTH, top + Math.floor(at / ACROSS) * HEIGHT);
  });
  doc.end();
  return done;
}

function draw(doc: InstanceType<typeof PDFDocument>, label: Label, x: number, y: number): void {
  doc.image(label.code, x + PAD, y + PAD, { width: CODE });
  const textAt = x + PAD + CODE + 2 * MM;
  const width = WIDTH - CODE - 2 * PAD - 2 * MM;
  const line = (text: string, top: number, voice: Voice, size: number, colour: string = INK, lines = 1) =>
    doc
      .font(faceFor(voice, text))
      .fontSize(size)
      .fillColor(colour)
      .text(text, textAt, y + top, { width, height: lines * size * 1.25, ellipsis: true, lineGap: 0 });
  line(label.number, PAD, 'figures', 11);
  line(label.title, PAD + 14, 'strong', 7.5, INK, 2);
  label.lines.forEach((text, i) => line(text, PAD + 35 + i * 9, 'text', 6.5, SOFT));
  if (label.drawing)
    drawOn(doc, label.drawing, {
      x: x + WIDTH - PAD - DRAWN.width,
      y: y + HEIGHT - PAD - DRAWN.height,
      ...DRAWN,
    });
  if (label.price !== null) line(label.price, HEIGHT - PAD - 11, 'figures', 9);
  if (label.sign !== null)
    doc
      .font(faceFor('strong', label.sign))
      .fontSize(6.5)
      .fillColor(INK)
      .text(label.sign, x + PAD, y + PAD + CODE + 2, { width: CODE, align: 'center' });
}
