/** What the carriers ask for a piece, packed as the shop packs. */
import { convert, money } from '@jutbank/core/money';
import { dimensionOfUnit } from '@jutbank/core/units';
import { listingRoutes, POSTAGE_ZONES, type Postage } from '@jutbank/contract/listing';
import { todayIso } from '../clock/index.ts';
import { answer, type Mount } from '../http/index.ts';
import type { Markets } from '../market/index.ts';
import type { Carriers } from '../outside/index.ts';
import { pieceRecord, type Readers } from '../pieces/index.ts';
import { paperSettingsOf } from '../shop/index.ts';

/** A knife that nobody weighed, in grams. */
const USUAL_GRAMS = 220;
/** Room that packing takes beyond the piece at each end, in mm. */
const PADDING = 40;

export function mountPostage(mount: Mount, readers: Readers, markets: Markets, carriers: Carriers): void {
  const { database } = mount;
  mount.handle(listingRoutes.postage, async ({ params }) => {
    const record = await pieceRecord(database, params.id);
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
    return answer<Postage>({
      grams,
      weighed: weight !== undefined,
      size: [...size],
      insuredFor,
      zones: zones.map(({ zone, quotes }) => ({
        zone,
        quotes: quotes.map(({ currency: _, ...quote }) => quote),
      })),
    });
  });
}
