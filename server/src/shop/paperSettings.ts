/** Letterhead, terms and wording: one document of the shop, read by every paper it prints. */
import {
  paperSettings,
  type PaperSettings,
  paperSettingsRoutes,
  USUAL_PAPERS,
  type VersionedPapers,
} from '@jutbank/contract/shop';
import { raiseRevision, type Queries } from '../db/index.ts';
import { answer, checkVersion, type Mount } from '../http/index.ts';
import type { Letterhead } from '../pdf/index.ts';
import { shopOf } from './queries.ts';

export async function paperSettingsOf(db: Queries): Promise<VersionedPapers> {
  const row = await db.row<{ version: number; body: unknown }>(
    'SELECT version, body FROM paper_settings WHERE id = 1',
  );
  return row
    ? { settings: paperSettings.parse(row.body), version: Number(row.version) }
    : { settings: USUAL_PAPERS, version: 0 };
}

/** The head of every paper. */
export async function letterheadOf(db: Queries): Promise<Letterhead> {
  const { name } = await shopOf(db);
  const { settings } = await paperSettingsOf(db);
  const lines = [
    ...settings.address.split('\n'),
    [settings.phone, settings.email].filter((part) => part !== '').join(' · '),
    settings.taxNumber === '' ? '' : `Tax number ${settings.taxNumber}`,
    settings.registration,
  ];
  return { shop: name, lines: lines.map((line) => line.trim()).filter((line) => line !== '') };
}

/** What a paper is made with beside what it is about; kept with papers that go out. */
export interface Issuer {
  readonly letterhead: Letterhead;
  readonly settings: PaperSettings;
}
export async function issuerOf(db: Queries): Promise<Issuer> {
  return { letterhead: await letterheadOf(db), settings: (await paperSettingsOf(db)).settings };
}

export function mountPaperSettings(mount: Mount): void {
  const { database } = mount;
  const answered = (found: VersionedPapers) => answer(found, { etag: `"v${found.version}"` });
  mount.handle(paperSettingsRoutes.papers, async () => answered(await paperSettingsOf(database)));
  mount.handleInTransaction(paperSettingsRoutes.putPapers, async (tx, { body, ifMatch }) => {
    await tx.row('SELECT id FROM shop WHERE id = 1 FOR UPDATE');
    const { version } = await paperSettingsOf(tx);
    checkVersion(ifMatch, version, 'these settings');
    await tx.run(
      'INSERT INTO paper_settings (id, version, body) VALUES (1, ?, ?) ON DUPLICATE KEY UPDATE version = VALUES(version), body = VALUES(body)',
      [version + 1, JSON.stringify(body)],
    );
    // the gap that is told of stands among them
    await raiseRevision(tx, 'trail');
    return answered({ settings: body, version: version + 1 });
  });
}
