import { ulid } from 'ulid';
import { unknownInRule } from '@jutbank/core/series';
import { seriesRoutes, type SeriesBody, type SeriesDetail } from '@jutbank/contract/series';
import { knownContact } from '../contacts/index.ts';
import type { Transaction } from '../db/index.ts';
import { answer, checkVersion, invalid, type Answered, type Mount } from '../http/index.ts';
import { pieceRecord, type Readers } from '../pieces/index.ts';
import { allSeries, seriesById } from './queries.ts';
import { detailOf, slotsIn, standingsOf, summaryOf } from './tell.ts';
import { wantedBy } from './wanted.ts';

/** A series of more slots than these is a reference, and is read there. */
const MOST_SLOTS = 500;

export function mountSeries(mount: Mount, readers: Readers): void {
  const { database, library } = readers;
  const tell = async ({ id }: { readonly id: string }): Promise<Answered<SeriesDetail>> => {
    const series = await seriesById(database, id);
    return answer(await detailOf(readers, series), { etag: `"v${series.version}"` });
  };

  mount.handle(seriesRoutes.listSeries, async () => {
    const stood = await standingsOf(database, await library.index(), await allSeries(database));
    return answer({ items: stood.map(summaryOf) });
  });
  mount.handle(seriesRoutes.series, ({ params }) => tell(params));
  mount.handle(seriesRoutes.wantedBy, async ({ params }) =>
    answer({ items: await wantedBy(readers, await pieceRecord(database, params.id)) }),
  );

  /** @throws 422 where a rule names what the reference does not have, or asks for more than anybody can look at */
  const checkRule = async ({ rule }: Pick<SeriesBody, 'rule'>): Promise<void> => {
    const index = await library.index();
    const features = new Map(index.contents.features.map((f) => [f.id, f]));
    const { patterns, marks, variants } = index;
    const unknown = unknownInRule(rule, { patterns, marks, variants, features });
    if (unknown.length > 0) throw invalid(unknown);
    const slots = slotsIn(index, rule);
    if (slots.length > MOST_SLOTS)
      throw invalid([
        {
          pointer: '/rule',
          message: `this asks for ${slots.length} pieces; a series has at most ${MOST_SLOTS}: choose fewer patterns`,
        },
      ]);
  };
  const columnsOf = async (tx: Transaction, body: SeriesBody) => {
    if (body.contactId !== null) await knownContact(tx, body.contactId);
    return [body.name, body.contactId, JSON.stringify(body.rule), body.upgradeBelow, body.note];
  };

  mount.handlePrepared(
    seriesRoutes.addSeries,
    ({ body }) => checkRule(body),
    async (tx, { body }) => {
      const id = ulid();
      await tx.run(
        'INSERT INTO series (id, name, contact_id, rule, upgrade_below, note) VALUES (?, ?, ?, ?, ?, ?)',
        [id, ...(await columnsOf(tx, body))],
      );
      return { id };
    },
    tell,
  );

  /** The series under a lock of its own, at the version that was seen. */
  const changed = async (tx: Transaction, id: string, ifMatch: number | undefined): Promise<void> => {
    await tx.row('SELECT id FROM series WHERE id = ? FOR UPDATE', [id]);
    checkVersion(ifMatch, (await seriesById(tx, id)).version, 'this series');
    await tx.run('UPDATE series SET version = version + 1 WHERE id = ?', [id]);
  };

  mount.handlePrepared(
    seriesRoutes.putSeries,
    ({ body }) => checkRule(body),
    async (tx, { params, body, ifMatch }) => {
      await changed(tx, params.id, ifMatch);
      await tx.run(
        'UPDATE series SET name = ?, contact_id = ?, rule = ?, upgrade_below = ?, note = ? WHERE id = ?',
        [...(await columnsOf(tx, body)), params.id],
      );
      return { id: params.id };
    },
    tell,
  );

  mount.handleInTransaction(seriesRoutes.removeSeries, async (tx, { params, ifMatch }) => {
    await changed(tx, params.id, ifMatch);
    await tx.run('DELETE FROM series WHERE id = ?', [params.id]);
    return answer({ removed: params.id });
  });

  mount.handlePrepared(
    seriesRoutes.wishForSlot,
    () => library.index(),
    async (tx, { params, body, ifMatch }, index) => {
      await changed(tx, params.id, ifMatch);
      const { rule } = await seriesById(tx, params.id);
      const slots = slotsIn(index, rule);
      if (!slots.some((slot) => slot.key === body.key))
        throw invalid([{ pointer: '/key', message: 'the series has no such slot' }]);
      if (body.wish === null)
        await tx.run('DELETE FROM series_wish WHERE series_id = ? AND slot_key = ?', [params.id, body.key]);
      else
        await tx.run(
          'REPLACE INTO series_wish (series_id, slot_key, wish, at_most, currency, least_index) VALUES (?, ?, ?, ?, ?, ?)',
          [
            params.id,
            body.key,
            body.wish,
            body.atMost?.amount ?? null,
            body.atMost?.currency ?? null,
            body.leastIndex,
          ],
        );
      return { id: params.id };
    },
    tell,
  );
}
