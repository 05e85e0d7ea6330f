/** What every printed page of the shop shares: the sheet, its fonts, its head and its voices. */
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { PALETTES } from '@jutbank/core/drawing';
import PDFDocument from 'pdfkit';

const fonts = join(dirname(createRequire(import.meta.url).resolve('dejavu-fonts-ttf/package.json')), 'ttf');
export const { ink: INK, soft: SOFT, rule: RULE } = PALETTES.light;
export const LEFT = 56;
export const RIGHT = 595 - 56;

export type Doc = InstanceType<typeof PDFDocument>;

/** A paper of any number of pages, each with its title and place at the foot. */
export async function pdf(title: string, draw: (doc: Doc) => Promise<void> | void): Promise<Buffer> {
  const doc = new PDFDocument({
    size: 'A4',
    margins: { top: 56, bottom: 56, left: LEFT, right: 56 },
    info: { Title: title },
    lang: 'en',
    tagged: true,
    bufferPages: true,
  });
  const chunks: Buffer[] = [];
  const done = new Promise<Buffer>((resolve, reject) => {
    doc.on('data', (chunk: Buffer) => chunks.push(chunk));
    doc.on('end', () => resolve(Buffer.concat(chunks)));
    doc.on('error', reject);
  });
  doc.registerFont('text', join(fonts, 'DejaVuSans.ttf'));
  doc.registerFont('strong', join(fonts, 'DejaVuSans-Bold.ttf'));
  doc.registerFont('figures', join(fonts, 'DejaVuSansMono.ttf'));
  await draw(doc);
  feet(doc, title);
  doc.end();
  return done;
}

function feet(doc: Doc, title: string): void {
  const { start, count } = doc.bufferedPageRange();
  for (let page = start; page < start + count; page++) {
    doc.switchToPage(page);
    // below the margin, where text would otherwise begin a page of its own
    doc.page.margins.bottom = 0;
    doc.font('text').fontSize(7.5).fillColor(SOFT);
    doc.text(title, LEFT, FOOT, { lineBreak: false });
    doc.text(`page ${page - start + 1} of ${count}`, LEFT, FOOT, {
      width: RIGHT - LEFT,
      align: 'right',
      lineBreak: false,
    });
  }
}
const FOOT = 842 - 36;

export const rule = (doc: Doc, y: number, weight = 0.7) =>
  doc.moveTo(LEFT, y).lineTo(RIGHT, y).lineWidth(weight).strokeColor(RULE).stroke();
export const label = (doc: Doc, text: string) => doc.font('text').fontSize(8.5).fillColor(SOFT).text(text);
export const strong = (doc: Doc, text: string, size = 11) =>
  doc.font('strong').fontSize(size).fillColor(INK).text(text);
export const body = (doc: Doc, text: string) =>
  doc.font('text').fontSize(10).fillColor(INK).text(text, { lineGap: 2 });

export function head(doc: Doc, shop: string, title: string): void {
  doc.font('strong').fontSize(18).fillColor(INK).text(title, LEFT, 56);
  doc.font('text').fontSize(10).fillColor(SOFT).text(shop);
  rule(doc, doc.y + 8, 1.6);
  doc.y += 22;
}

export const dayOf = (instant: string) =>
  new Date(instant).toLocaleDateString('en-GB', {
    day: 'numeric',
    month: 'long',
    year: 'numeric',
    timeZone: 'UTC',
  });
