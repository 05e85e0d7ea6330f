/** Invoice and certificate for paper. */
import QRCode from 'qrcode';
import { formatMoney } from '@jutbank/core/money';
import type { PublicCertificate } from '@jutbank/contract/sale';
import { body, dayOf, head, INK, label, LEFT, pdf, RIGHT, rule, SOFT, strong } from '../pdf/index.ts';
import type { StoredSale } from './queries.ts';

export function invoicePdf(shop: string, sale: StoredSale, claim: string): Promise<Buffer> {
  return pdf(`Invoice ${sale.invoiceNumber}`, (doc) => {
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

export function certificatePdf(certificate: PublicCertificate, checkUrl: string): Promise<Buffer> {
  return pdf(`Certificate ${certificate.stockNumber}`, async (doc) => {
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
    // certificates from before say only whether the inspection was finished
    const whole = certificate.whole ?? certificate.inspected;
    if (!certificate.inspected) body(doc, 'It was not inspected.');
    else if (certificate.findings.length === 0)
      body(doc, whole ? 'No fault was found.' : 'Not everything was examined.');
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
