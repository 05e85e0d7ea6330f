/** What the carriers ask for a piece, packed as the shop packs. */
import { convert, money } from '@jutbank/core/money';
import { dimensionOfUnit } from '@jutbank/core/units';
import { listingRoutes, POSTAGE_ZONES, type Postage } from '@jutbank/contract/listing';
import type { TakenPostage } from '@jutbank/contract/pieces';
import { todayIso } from '../clock/index.ts';
import { answer, conflict, type Mount } from '../http/index.ts';
import type { Markets } from '../market/index.ts';
import type { Carriers } from '../outside/index.ts';
import { changePiece, pieceRecord, type Readers } from '../pieces/index.ts';
import { paperSettingsOf } from '../shop/index.ts';

/** A knife that nobody weighed, in grams. */
const USUAL_GRAMS = 220;
/** Room that packing takes beyond the piece at each end, in mm. */
const PADDING = 40;

export function mountPostage(mount: Mount, readers: Readers, markets: Markets, carriers: Carriers): void {
  const { database } = mount;
  const asked = async (id: string): Promise<Postage> => {
    const record = await pieceRecord(database, id);
    const { index } = await readers.assess(record);
    const { settings } = await paperSettingsOf(database);
    const measured = (dimension: 'mass' | 'length') =>
      record.observations.flatMap((o) =>
        'measure' in o && dimensionOfUnit(index.features.get(o.feature)?.unit) === dimension
          ? [o.measure]
          : [],
      );
    const weight = measured('mass')[0];
    const grams = Math.round((weight ?? USUAL_GRAMS) + settings.packing.grams);
    const longest = Math.max(0, ...measured('length')) + PADDING;
    const size = [
      Math.max(settings.packing.length, longest),
      settings.packing.width,
      settings.packing.height,
    ] as const;
    const insuredFor = record.pricing.ask;
    const { rateOf } = await markets.ratesOn(todayIso());
    const value = insuredFor ? Number(convert(insuredFor, 'EUR', rateOf)?.amount ?? insuredFor.amount) : 0;
    const zones = await Promise.all(
      POSTAGE_ZONES.map(async (zone) => ({
        zone,
        quotes: (await carriers.quotes({ zone, grams, size: [...size], value, content: 'blade' })).map(
          (quote) => ({
            ...quote,
            price: money(quote.price, quote.currency),
            days: [...quote.days],
          }),
        ),
      })),
    );
    return {
      grams,
      weighed: weight !== undefined,
      size: [...size],
      insuredFor,
      zones: zones.map(({ zone, quotes }) => ({
        zone,
        quotes: quotes.map(({ currency: _, ...quote }) => quote),
      })),
    };
  };

  mount.handle(listingRoutes.postage, async ({ params }) => answer(await asked(params.id)));

  mount.handlePrepared(
    listingRoutes.takePostage,
    ({ params }) => asked(params.id),
    async (tx, { params, person, ifMatch }, { zones }) => {
      const taken: TakenPostage = { askedOn: todayIso(), quotes: zones.flatMap(cheapestTracked) };
      if (taken.quotes.length === 0)
        throw conflict('No carrier takes it: its weight or its size is too much.');
      const { id } = await changePiece(
        tx,
        { pieceId: params.id, person, ifMatch, kind: 'postage-taken', body: taken },
        async () => {
          await tx.run(
            'INSERT INTO piece_postage (piece_id, asked_on, quotes) VALUES (?, ?, ?) ON DUPLICATE KEY UPDATE asked_on = VALUES(asked_on), quotes = VALUES(quotes)',
            [params.id, taken.askedOn, JSON.stringify(taken.quotes)],
          );
        },
      );
      return { id };
    },
    readers.tellSheet,
  );
}

/** Of a zone the cheapest way that can be followed; the cheapest of all where none can. */
function cheapestTracked({ zone, quotes }: Postage['zones'][number]): TakenPostage['quotes'] {
  const [best] = [...quotes].sort(
    (a, b) => Number(b.tracked) - Number(a.tracked) || Number(a.price.amount) - Number(b.price.amount),
  );
  return best
    ? [{ zone, carrier: best.carrier, service: best.service, price: best.price, tracked: best.tracked }]
    : [];
}
