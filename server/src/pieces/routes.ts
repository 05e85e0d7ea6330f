/** Pieces: the tray, the list, the sheet, pictures. */
import { hasLeft, STAGES, type Stage } from '@jutbank/core/pieces';
import { addMoney, convert, money, type Money } from '@jutbank/core/money';
import { pieceRoutes, type Tray } from '@jutbank/contract/pieces';
import type { Queries, Value } from '../db/index.ts';
import { answer, decodeCursor, notFound, pageOf, type Mount } from '../http/index.ts';
import { todayIso } from '../clock/index.ts';
import { untilNextEntry } from '../ledger/index.ts';
import type { Markets } from '../market/index.ts';
import {
  addPicture,
  arrangePictures,
  framedPictures,
  showsPicture,
  uploadedPicture,
  type PictureStore,
} from './pictures.ts';
import { writeCompanions } from './companions.ts';
import type { Readers } from './readers.ts';
import { changeByCall } from './mountChange.ts';

/** Slips shown of each group of the tray; the rest is a page away. */
const SLIPS_PER_GROUP = 12;

export function mountPieces(mount: Mount, readers: Readers, markets: Markets, pictures: PictureStore): void {
  const { database } = mount;
  const { tellSheet } = readers;

  const kept = untilNextEntry<readonly StockSum[]>(database);
  const sums = () => kept('sums', () => sumsOfStock(database));
  mount.handle(pieceRoutes.tray, async () => answer(await trayOf(database, await sums(), readers, markets)));

  const totals = untilNextEntry<number>(database);
  mount.handle(pieceRoutes.listPieces, async ({ query }) => {
    const before = decodeCursor(query.cursor, 1)?.[0];
    const where: string[] = [];
    const values: Value[] = [];
    if (query.stage !== undefined) {
      where.push('stage = ?');
      values.push(query.stage);
    }
    if (query.q !== undefined) {
      where.push('MATCH (title, stock_number, source_name, seller_statement) AGAINST (? IN BOOLEAN MODE)');
      values.push(searchWords(query.q));
    }
    const counting = `SELECT COUNT(*) AS n FROM piece ${where.length > 0 ? `WHERE ${where.join(' AND ')}` : ''}`;
    const counted = [...values];
    const total = await totals(JSON.stringify([counting, counted]), async () =>
      Number((await database.row<{ n: number }>(counting, counted))?.n ?? 0),
    );
    if (before !== undefined) {
      where.push('id < ?');
      values.push(before);
    }
    const ids = await database.rows<{ id: string }>(
      `SELECT id FROM piece ${where.length > 0 ? `WHERE ${where.join(' AND ')}` : ''} ORDER BY id DESC LIMIT ?`,
      [...values, query.limit + 1],
    );
    const slips = await readers.slips(ids.map((r) => r.id));
    return answer(
      pageOf(
        slips,
        query.limit,
        total,
        (s) => s,
        (s) => [s.id],
      ),
    );
  });

  mount.handle(pieceRoutes.piece, ({ params }) => tellSheet(params));

  mount.handlePrepared(
    pieceRoutes.addPicture,
    async ({ request, response }) => {
      const uploaded = await uploadedPicture(request, response);
      const { fields, print } = uploaded;
      return {
        stored: await pictures.keep(uploaded),
        caption: (fields.caption ?? '').trim().slice(0, 200),
        unlessShown: fields.unlessShown === '1',
        print,
      };
    },
    async (tx, { params, person, ifMatch }, { stored, caption, unlessShown }) => {
      if (!unlessShown || !(await showsPicture(tx, params.id, stored)))
        await addPicture(tx, params.id, stored, caption, person, ifMatch);
      return { id: params.id };
    },
    tellSheet,
  );

  mount.handlePrepared(
    pieceRoutes.putPictures,
    ({ params, body }) => framedPictures(database, pictures, params.id, body),
    (tx, call, shown) =>
      changeByCall(tx, call, 'pictures-arranged', () =>
        arrangePictures(tx, call.params.id, call.body, shown),
      ),
    tellSheet,
  );

  mount.handleInTransaction(
    pieceRoutes.putCompanions,
    (tx, call) =>
      changeByCall(tx, call, 'companions-said', () =>
        writeCompanions(tx, call.params.id, call.body.companions),
      ),
    tellSheet,
  );

  mount.handleInTransaction(
    pieceRoutes.removePicture,
    (tx, call) =>
      changeByCall(tx, call, 'picture-removed', async () => {
        const removed = await tx.run(
          'UPDATE picture SET removed = 1 WHERE id = ? AND piece_id = ? AND removed = 0',
          [call.params.picture, call.params.id],
        );
        if (removed === 0) throw notFound('picture');
      }),
    tellSheet,
  );

  mount.handle(pieceRoutes.picture, async ({ params, response }) => {
    const bytes = await pictures.read(params.hash, params.size);
    if (!bytes) throw notFound('picture');
    response
      .type('image/webp')
      .setHeader('Cache-Control', 'private, max-age=31536000, immutable')
      .send(bytes);
    return undefined;
  });
}

/** The database keeps no shorter words (its `innodb_ft_min_token_size`): one of them, asked for, is never found. */
const SHORTEST_KEPT = 3;
/**
 * Words for a boolean full-text search: each must begin a word of the text. A short word says nothing by itself – the
 * letters of a stock number, “No.” – unless it is the last, which may be half typed.
 */
export function searchWords(q: string): string {
  const words = q.split(/[^\p{L}\p{N}]+/u).filter((word) => word.length > 1);
  const asked = words.filter((word, i) => word.length >= SHORTEST_KEPT || i === words.length - 1);
  return asked.map((word) => `+${word}*`).join(' ');
}

interface StockSum {
  stage: Stage;
  price_currency: string | null;
  ask_currency: string | null;
  n: number;
  price: string | null;
  ask: string | null;
}
/** One pass over an index that holds nothing else. */
const sumsOfStock = (db: Queries) =>
  db.rows<StockSum>(
    `SELECT stage, price_currency, ask_currency, COUNT(*) AS n, SUM(price) AS price, SUM(ask) AS ask
     FROM piece GROUP BY stage, price_currency, ask_currency`,
  );

async function trayOf(
  db: Queries,
  sums: readonly StockSum[],
  readers: Readers,
  markets: Markets,
): Promise<Tray> {
  const { base, rateOf } = await markets.ratesOn(todayIso());
  const inBase = (rows: readonly { currency: string | null; total: string | null }[]): Money =>
    rows
      .flatMap(({ currency, total }) =>
        currency === null || total === null ? [] : (convert(money(total, currency), base, rateOf) ?? []),
      )
      .reduce(addMoney, money(0, base));
  const costs = sums.map(({ stage, price_currency, n, price }) => ({
    stage,
    n,
    currency: price_currency,
    total: price,
  }));
  const asks = sums
    .filter(({ stage }) => !hasLeft(stage))
    .map(({ ask_currency, ask }) => ({ currency: ask_currency, total: ask }));
  const ids = await db.rows<{ id: string }>(
    STAGES.map(() => '(SELECT id FROM piece WHERE stage = ? ORDER BY changed_at DESC, id DESC LIMIT ?)').join(
      ' UNION ALL ',
    ),
    STAGES.flatMap((stage) => [stage, SLIPS_PER_GROUP]),
  );
  const slips = await readers.slips(ids.map((r) => r.id));
  const groups = STAGES.map((stage) => {
    const own = costs.filter((c) => c.stage === stage);
    return {
      stage,
      count: own.reduce((n, c) => n + Number(c.n), 0),
      bound: inBase(own),
      slips: slips.filter((s) => s.stage === stage),
    };
  });
  return {
    groups: groups.filter((g) => g.count > 0),
    attention: slips.filter((s) => s.attention.length > 0),
    bound: inBase(costs.filter((c) => !hasLeft(c.stage))),
    asking: inBase(asks),
  };
}
