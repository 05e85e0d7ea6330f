/** Labels of pieces for their drawers. */
import { edtfInWords } from '@jutbank/core/dates';
import { cardView, drawPiece, recipeIn, type DrawingRecipe } from '@jutbank/core/drawing';
import { formatMoney } from '@jutbank/core/money';
import { pieceRoutes } from '@jutbank/contract/pieces';
import { notFound, type Mount } from '../http/index.ts';
import { labelsPdf, qrOf, type Label } from '../pdf/index.ts';
import type { Readers } from './readers.ts';
import { loadPieces } from './record.ts';

const drawnOnCard = (recipe: DrawingRecipe) => drawPiece(recipe, cardView(recipe));

export function mountLabels(mount: Mount, readers: Readers, publicUrl: string | undefined): void {
  mount.handle(pieceRoutes.labels, async ({ query, request, response }) => {
    const records = await loadPieces(mount.database, query.pieces);
    if (records.length === 0) throw notFound('piece');
    const readings = await readers.readings(records);
    const base = publicUrl ?? `${request.protocol}://${request.get('host') ?? 'localhost'}`;
    const index = await readers.library.index();
    const labels = await Promise.all(
      records.map(async (record): Promise<Label> => {
        const { which, when } = readings.get(record.id) ?? {
          which: undefined,
          when: null,
        };
        return {
          number: record.stockNumber,
          title: record.intake.title,
          lines: [
            which ? `${which.label}, ${which.tier.replaceAll('-', ' ')}` : '',
            when ? edtfInWords(when.core) : '',
          ].filter((line) => line !== ''),
          price: query.price === '1' && record.pricing.ask ? formatMoney(record.pricing.ask) : null,
          sign: record.quarantinedUntil === null ? null : 'KEEP APART',
          code: await qrOf(`${base}/pieces/${record.id}`),
          drawing:
            which?.pattern == null
              ? null
              : drawnOnCard(recipeIn(index, { construction: record.intake.construction, ...which })),
        };
      }),
    );
    response
      .type('application/pdf')
      .setHeader('Content-Disposition', 'inline; filename="labels.pdf"')
      .send(await labelsPdf(labels, query.on));
    return undefined;
  });
}
