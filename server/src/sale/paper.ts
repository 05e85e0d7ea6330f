/** Invoice and certificate for paper. */
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import PDFDocument from 'pdfkit';
import QRCode from 'qrcode';
import { formatMoney } from '@jutbank/core/money';
import type { PublicCertificate } from '@jutbank/contract/sale';
import type { StoredSale } from './queries.ts';

const fonts = join(dirname(createRequire(import.meta.url).resolve('dejavu-fonts-ttf/package.json')), 'ttf');
const INK = '#22262a';
const SOFT = '#5a5f63';
const RULE = '#a79f8d';
const LEFT = 56;
const RIGHT = 595 - 56;

type Doc = InstanceType<typeof PDFDocument>;

async function paper(title: string, draw: (doc: Doc) => Promise<void> | void): Promise<Buffer> {
  const doc = new PDFDocument({
    size: 'A4',
    margins: { top: 56, bottom: 56, left: LEFT, right: 56 },
    info: { Title: title },
    lang: 'en',
    tagged: true,
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
  doc.end();
  return done;
}

const rule = (doc: Doc, y: number, weight = 0.7) =>
  doc.moveTo(LEFT, y).lineTo(RIGHT, y).lineWidth(weight).strokeColor(RULE).stroke();
const label = (doc: Doc, text: string) => doc.font('text').fontSize(8.5).fillColor(SOFT).text(text);
const strong = (doc: Doc, text: string, size = 11) =>
  doc.font('strong').fontSize(size).fillColor(INK).text(text);
const body = (doc: Doc, text: string) =>
  doc.font('text').fontSize(10).fillColor(INK).text(text, { lineGap: 2 });

function head(doc: Doc, shop: string, title: string): void {
  doc.font('strong').fontSize(18).fillColor(INK).text(title, LEFT, 56);
  doc.font('text').fontSize(10).fillColor(SOFT).text(shop);
  rule(doc, doc.y + 8, 1.6);
  doc.y += 22;
}

const dayOf = (instant: string) =>
  new Date(instant).toLocaleDateString('en-GB', {
    day: 'numeric',
    month: 'long',
    year: 'numeric',
    timeZone: 'UTC',
  });

export function invoicePaper(shop: string, sale: StoredSale, claim: string): Promise<Buffer> {
  return paper(`Invoice ${sale.invoiceNumber}`, (doc) => {
    head(doc, shop, `Invoice ${sale.invoiceNumber}`);
    label(doc, 'To');
    strong(doc, sale.buyerName);
    if (sale.buyerAddress !== '') body(doc, sale.buyerAddress);
    doc.moveDown();
    label(doc, 'Date');
    body(doc, dayOf(sale.soldAt));
    doc.moveDown(1.5);
    rule(doc, doc.y);
    doc.moveDown(0.6);
    const top = doc.y;
    strong(doc, `${sale.stockNumber}  ${sale.title}`);
    doc.font('text').fontSize(9.5).fillColor(SOFT).text(claim, { width: 340, lineGap: 1.5 });
    const after = doc.y;
    doc
      .font('figures')
      .fontSize(11)
      .fillColor(INK)
      .text(formatMoney(sale.price), RIGHT - 130, top, { width: 130, align: 'right' });
    doc.y = after + 12;
    doc.x = LEFT;
    rule(doc, doc.y);
    doc.moveDown(0.6);
    const total = doc.y;
    strong(doc, 'Total', 12);
    doc
      .font('figures')
      .fontSize(12)
      .fillColor(INK)
      .text(formatMoney(sale.price), RIGHT - 160, total, { width: 160, align: 'right' });
    doc.x = LEFT;
    doc.moveDown(2);
    doc
      .font('text')
      .fontSize(8.5)
      .fillColor(SOFT)
      .text(
        'Whether tax is due on the margin or on the sale depends on where and how the shop trades; this paper is not tax advice. Sold to an adult. Please keep to the law of the place where you own, carry or post a blade.',
        LEFT,
        doc.y,
        { width: RIGHT - LEFT, lineGap: 1.5 },
      );
  });
}

export function certificatePaper(certificate: PublicCertificate, checkUrl: string): Promise<Buffer> {
  return paper(`Certificate ${certificate.stockNumber}`, async (doc) => {
    head(doc, certificate.shop, 'Certificate of examination');
    label(doc, 'Piece');
    strong(doc, certificate.stockNumber);
    doc.moveDown(0.8);
    label(doc, 'What it is');
    doc.font('strong').fontSize(13).fillColor(INK).text(certificate.claim, { lineGap: 2 });
    for (const reason of certificate.notProvedBecause) body(doc, `Not proved, because ${reason}.`);
    doc.moveDown(0.8);
    for (const [name, text] of [
      ['Made', certificate.made ?? 'not known'],
      ['Condition', certificate.grade ?? 'not graded'],
      ['Provenance', certificate.provenance ?? 'Earlier owners are not known.'],
    ] as const) {
      label(doc, name);
      body(doc, text);
      doc.moveDown(0.6);
    }
    label(doc, 'Found on inspection');
    if (certificate.findings.length === 0)
      body(doc, certificate.inspected ? 'No fault was found.' : 'It was not inspected.');
    for (const finding of certificate.findings) body(doc, `– ${finding}`);
    const qr = await QRCode.toBuffer(checkUrl, { margin: 0, width: 320, errorCorrectionLevel: 'M' });
    const y = Math.max(doc.y + 24, 600);
    rule(doc, y, 1.6);
    doc.image(qr, LEFT, y + 16, { width: 96 });
    doc.x = LEFT + 116;
    doc.y = y + 16;
    label(doc, 'Check this certificate');
    doc.font('figures').fontSize(9).fillColor(INK).text(checkUrl);
    doc.moveDown(0.5);
    label(doc, 'Code, and fingerprint in the ledger');
    doc.font('figures').fontSize(8).fillColor(INK).text(`${certificate.code}\n${certificate.fingerprint}`);
    doc.moveDown(0.5);
    doc
      .font('text')
      .fontSize(8)
      .fillColor(SOFT)
      .text(
        `Issued ${dayOf(certificate.issuedAt)}. This states what was examined and on what evidence; it is not an appraisal for tax, court or insurance, which may need a licensed appraiser.`,
        { width: RIGHT - LEFT - 116 },
      );
  });
}
