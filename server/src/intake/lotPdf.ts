/** The lot documented whole, on paper: where it came from, every piece with its share, what has come back. */
import { formatMoney } from '@jutbank/core/money';
import type { LotSheet } from '@jutbank/contract/intake';
import { dayInWords, paper, type Letterhead } from '../pdf/index.ts';

export function lotPdf(letterhead: Letterhead, sheet: LotSheet): Promise<Buffer> {
  const amount = (text: string) => formatMoney({ amount: text, currency: sheet.currency });
  return paper({ letterhead, title: `Lot: ${sheet.name}`, running: [`${sheet.pieces} pieces`] }, (on) => {
    const from = [sheet.lot.sourceName, sheet.lot.acquired ?? ''].filter(Boolean).join(', ');
    if (from !== '') on.body(`From ${from}.`);
    if (sheet.lot.note !== '') on.body(sheet.lot.note);
    on.section('What it cost');
    for (const cost of sheet.lot.costs) on.amount(cost.label, amount(cost.amount));
    on.amount('In all', amount(sheet.cost), 'strong');
    on.section(`${sheet.pieces} pieces, ${sheet.sold} sold, ${sheet.kept} kept`);
    on.table(
      [
        { head: 'Number', width: 76 },
        { head: 'Piece', width: 218 },
        { head: 'Share of cost', width: 92, figures: true },
        { head: 'Left of its sale', width: 97, figures: true },
      ],
      sheet.list.map((piece) => [
        piece.stockNumber,
        piece.keep ? `${piece.title} (kept)` : piece.title,
        amount(piece.cost),
        piece.net === null ? '–' : amount(piece.net),
      ]),
      [['', 'In all', amount(sheet.cost), amount(sheet.recovered)]],
    );
    on.body(
      sheet.brokeEvenOn === null
        ? 'The lot has not paid for itself yet.'
        : `The lot paid for itself on ${dayInWords(sheet.brokeEvenOn)}.`,
    );
  });
}
