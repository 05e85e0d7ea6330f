/** Channels, tax, margins, percentages: one document of the shop, on which every room that speaks of money leans. */
import type { Channel, TradeTerms } from '@jutbank/core/worth';
import {
  pricingSettingsRoutes,
  USUAL_SETTINGS,
  pricingSettings,
  type VersionedSettings,
  type PricingSettings,
} from '@jutbank/contract/shop';
import type { Queries } from '../db/index.ts';
import { answer, checkVersion, invalid, type Mount } from '../http/index.ts';

export async function pricingSettingsOf(db: Queries): Promise<VersionedSettings> {
  const row = await db.row<{ version: number; body: unknown }>(
    'SELECT version, body FROM pricing_settings WHERE id = 1',
  );
  // read through the schema: what was added since it was stored has its usual value
  return row
    ? { settings: pricingSettings.parse(row.body), version: Number(row.version) }
    : { settings: USUAL_SETTINGS, version: 0 };
}

/** What the shop reckons a purchase by: how it buys, and sells again through the channel it usually does. */
export const tradeTermsOf = (settings: PricingSettings): TradeTerms => ({
  buying: settings.buying,
  channel: usualChannel(settings).channel,
  target: settings.target,
  tax: settings.tax,
});

/** The channel that is reckoned with where none is named. */
export function usualChannel(settings: PricingSettings): { id: string; name: string; channel: Channel } {
  const found = settings.channels.find((c) => c.id === settings.usualChannel) ?? settings.channels[0];
  return found ?? { id: 'none', name: 'No fees', channel: {} };
}

export function mountPricingSettings(mount: Mount): void {
  const { database } = mount;
  const answered = (found: VersionedSettings) => answer(found, { etag: `"v${found.version}"` });

  mount.handle(pricingSettingsRoutes.settings, async () => answered(await pricingSettingsOf(database)));

  mount.handleInTransaction(pricingSettingsRoutes.putSettings, async (tx, { body, ifMatch }) => {
    if (!body.channels.some((c) => c.id === body.usualChannel))
      throw invalid([{ pointer: '/usualChannel', message: 'this is none of the channels' }]);
    // of several who save what they all saw at once, one is first
    await tx.row('SELECT id FROM shop WHERE id = 1 FOR UPDATE');
    const { version } = await pricingSettingsOf(tx);
    checkVersion(ifMatch, version, 'these settings');
    await tx.run(
      'INSERT INTO pricing_settings (id, version, body) VALUES (1, ?, ?) ON DUPLICATE KEY UPDATE version = VALUES(version), body = VALUES(body)',
      [version + 1, JSON.stringify(body)],
    );
    return answered({ settings: body, version: version + 1 });
  });
}
