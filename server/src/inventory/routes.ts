import { stringify } from 'csv-stringify/sync';
import { inventoryRoutes } from '@jutbank/contract/inventory';
import { shopOf } from '../shop/index.ts';
import { dueCalendar } from './due.ts';
import { todayIso } from '../clock/index.ts';
import { answer, decodeCursor, pageOf, safeCell, type Mount } from '../http/index.ts';
import { untilNextEntry } from '../ledger/index.ts';
import type { Markets } from '../market/index.ts';
import { changePiece, type Readers } from '../pieces/index.ts';
import { InventoryQuery, keyOf, rowShown, type Asked, type AskRates } from './rows.ts';

const EXPORT_STEP = 1000;
/** Choices of one kind that are offered; what is rarer is found by its words. */
const MOST_CHOICES = 300;

const COLUMNS = [
  'stock_number',
  'title',
  'stage',
  'construction',
  'attributed',
  'tier',
  'made',
  'grade',
  'source',
  'lot',
  'place',
  'days',
  'cost',
  'cost_currency',
  'ask',
  'ask_currency',
  'worth',
  'worth_currency',
  'warnings',
] as const;

/** @param publicUrl the address that stands on papers; without it that of the request */
export function mountInventory(
  mount: Mount,
  readers: Readers,
  markets: Markets,
  publicUrl: string | undefined,
): void {
  const { database } = mount;

  const queryOf = async (asked: Asked): Promise<InventoryQuery> => {
    const index = await readers.library.index();
    return new InventoryQuery(asked, await askRates(), (maker) =>
      index.contents.patterns.filter((p) => p.maker === maker).map((p) => p.id),
    );
  };
  /** Of the currencies that asks are written in; one without a rate is compared with nothing. */
  const askRates = async (): Promise<AskRates> => {
    const written = await database.rows<{ currency: string }>(
      'SELECT DISTINCT ask_currency AS currency FROM piece WHERE ask_currency IS NOT NULL',
    );
    const { base, rateOf } = await markets.ratesOn(todayIso());
    return new Map(
      written.flatMap(({ currency }): [string, number][] => {
        if (currency === base) return [[currency, 1]];
        const rate = Number(rateOf(currency));
        return rate > 0 ? [[currency, 1 / rate]] : [];
      }),
    );
  };

  const counts = untilNextEntry<number>(database);
  mount.handle(inventoryRoutes.listRows, async ({ query }) => {
    const asked = await queryOf(query);
    // the number of all is counted once, and goes from page to page in the cursor
    const [key, id, counted] = decodeCursor(query.cursor, 3) ?? [];
    const [index, { rows, total }] = await Promise.all([
      readers.library.index(),
      key === undefined || id === undefined
        ? asked.first(database, counts, query.limit + 1)
        : asked
            .rows(database, [key, id], query.limit + 1)
            .then((further) => ({ rows: further, total: Number(counted) })),
    ]);
    return answer(
      pageOf(
        rows,
        query.limit,
        Number.isSafeInteger(total) ? total : 0,
        (row) => rowShown(row, index),
        (row) => [...keyOf(row), total],
      ),
    );
  });

  mount.handle(inventoryRoutes.exportRows, async ({ query, response }) => {
    const asked = await queryOf(query);
    const index = await readers.library.index();
    response
      .type('text/csv')
      .setHeader('Content-Disposition', 'attachment; filename="pieces.csv"')
      .write(stringify([[...COLUMNS]]));
    let after: (string | number)[] | undefined;
    for (;;) {
      const rows = await asked.rows(database, after, EXPORT_STEP);
      response.write(
        stringify(
          rows.map((row) => {
            const shown = rowShown(row, index);
            const cells: Readonly<Record<(typeof COLUMNS)[number], string>> = {
              stock_number: shown.stockNumber,
              title: shown.title,
              stage: shown.stage,
              construction: shown.construction,
              attributed: shown.attributed ?? '',
              tier: shown.tier ?? '',
              made: shown.made ?? '',
              grade: shown.grade ?? '',
              source: shown.source,
              lot: shown.lot?.name ?? '',
              place: shown.place,
              days: String(shown.days),
              cost: shown.cost?.amount ?? '',
              cost_currency: shown.cost?.currency ?? '',
              ask: shown.ask?.amount ?? '',
              ask_currency: shown.ask?.currency ?? '',
              worth: shown.worth?.amount ?? '',
              worth_currency: shown.worth?.currency ?? '',
              warnings: shown.warnings.join('; '),
            };
            return COLUMNS.map((column) => safeCell(cells[column]));
          }),
        ),
      );
      const last = rows.at(-1);
      if (!last || rows.length < EXPORT_STEP) break;
      after = keyOf(last);
    }
    response.end();
    return undefined;
  });

  mount.handle(inventoryRoutes.due, async ({ request, response }) => {
    const { name } = await shopOf(database);
    response
      .type('text/calendar')
      .setHeader('Content-Disposition', 'attachment; filename="due.ics"')
      .send(
        await dueCalendar(
          database,
          name,
          publicUrl ?? `${request.protocol}://${request.get('host') ?? 'localhost'}`,
        ),
      );
    return undefined;
  });

  const names = untilNextEntry<string[]>(database);
  mount.handle(inventoryRoutes.choices, async () => {
    const of = (column: 'place' | 'source_name') =>
      names(column, async () =>
        (
          await database.rows<{ name: string }>(
            `SELECT ${column} AS name FROM piece WHERE ${column} <> '' GROUP BY ${column} ORDER BY COUNT(*) DESC, ${column} LIMIT ?`,
            [MOST_CHOICES],
          )
        )
          .map((row) => row.name)
          .sort((a, b) => a.localeCompare(b)),
      );
    const lots = await database.rows<{ id: string; name: string }>(
      'SELECT id, name FROM lot ORDER BY id DESC LIMIT ?',
      [MOST_CHOICES],
    );
    return answer({ places: await of('place'), sources: await of('source_name'), lots });
  });

  mount.handleInTransaction(inventoryRoutes.movePieces, async (tx, { body, person }) => {
    const { place } = body;
    let moved = 0;
    // always in one order: two who move the same pieces wait for each other and do not lock each other out
    for (const pieceId of [...new Set(body.pieces)].sort()) {
      const row = await tx.row<{ place: string }>('SELECT place FROM piece WHERE id = ?', [pieceId]);
      if (row?.place === place) continue;
      await changePiece(
        tx,
        {
          pieceId,
          person,
          ifMatch: undefined,
          anyVersion: true,
          kind: 'moved',
          body: { from: row?.place ?? '', to: place },
        },
        async () => {
          await tx.run('UPDATE piece SET place = ? WHERE id = ?', [place, pieceId]);
        },
      );
      moved += 1;
    }
    return answer({ moved });
  });

  const viewsOf = async (person: string) => ({
    items: await database.rows<{ name: string; asks: string }>(
      'SELECT name, asks FROM kept_view WHERE person_id = ? ORDER BY name',
      [person],
    ),
  });
  mount.handle(inventoryRoutes.views, async ({ person }) => answer(await viewsOf(person.id)));
  mount.handleInTransaction(inventoryRoutes.putViews, async (tx, { body, person }) => {
    await tx.run('DELETE FROM kept_view WHERE person_id = ?', [person.id]);
    if (body.items.length > 0)
      await tx.insertMany('INSERT INTO kept_view (person_id, name, asks) VALUES ?', [
        ...body.items.map((view) => [person.id, view.name, view.asks]),
      ]);
    return answer({ items: [...body.items].sort((a, b) => a.name.localeCompare(b.name)) });
  });
}
