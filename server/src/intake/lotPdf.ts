/** The lot documented whole, on paper: where it came from, every piece with its share, what has come back. */
import { formatMoney } from '@jutbank/core/money';
import type { LotSheet } from '@jutbank/contract/intake';
import { body, head, INK, label, LEFT, pdf, RIGHT, rule, SOFT, strong, type Doc } from '../pdf/index.ts';

const COLUMNS = [
  { at: LEFT, width: 76 },
  { at: LEFT + 80, width: 218 },
  { at: LEFT + 302, width: 88 },
  { at: LEFT + 394, width: 89 },
] as const;

function line(doc: Doc, cells: readonly string[], font: 'text' | 'strong'): void {
  if (doc.y > 760) doc.addPage();
  const y = doc.y;
  cells.forEach((cell, i) => {
    const column = COLUMNS[i] ?? COLUMNS[0];
    doc
      .font(i >= 2 && font === 'text' ? 'figures' : font)
      .fontSize(9)
      .fillColor(font === 'strong' ? SOFT : INK)
      .text(cell, column.at, y, {
        width: column.width,
        align: i >= 2 ? 'right' : 'left',
        height: 12,
        ellipsis: true,
      });
  });
  doc.y = y + 15;
}

export function lotPdf(shop: string, sheet: LotSheet): Promise<Buffer> {
  const amount = (text: string) => formatMoney({ amount: text, currency: sheet.currency });
  return pdf(`Lot: ${sheet.name}`, (doc) => {
    head(doc, shop, `Lot: ${sheet.name}`);
    const from = [sheet.lot.sourceName, sheet.lot.acquired ?? ''].filter(Boolean).join(', ');
    if (from !== '') body(doc, `From ${from}.`);
    if (sheet.lot.note !== '') body(doc, sheet.lot.note);
    doc.moveDown(0.6);
    strong(doc, 'What it cost');
    for (const cost of sheet.lot.costs) line(doc, [cost.label, '', '', amount(cost.amount)], 'text');
    line(doc, ['In all', '', '', amount(sheet.cost)], 'text');
    doc.x = LEFT;
    doc.moveDown(0.6);
    strong(doc, `${sheet.pieces} pieces, ${sheet.sold} sold, ${sheet.kept} kept`);
    doc.moveDown(0.3);
    line(doc, ['Number', 'Piece', 'Share of cost', 'Left of its sale'], 'strong');
    rule(doc, doc.y - 2);
    for (const piece of sheet.list)
      line(
        doc,
        [
          piece.stockNumber,
          piece.keep ? `${piece.title} (kept)` : piece.title,
          amount(piece.cost),
          piece.net === null ? '–' : amount(piece.net),
        ],
        'text',
      );
    rule(doc, doc.y);
    doc.y += 6;
    line(doc, ['', 'In all', amount(sheet.cost), amount(sheet.recovered)], 'text');
    doc.x = LEFT;
    doc.moveDown(0.6);
    label(
      doc,
      sheet.brokeEvenOn === null
        ? 'The lot has not paid for itself yet.'
        : `The lot paid for itself on ${sheet.brokeEvenOn}.`,
    );
    doc.text('', RIGHT, doc.y);
  });
}
