/** Lots: pieces taken in in a run, one cost spread over them to the cent, and what has come back of it. */
import { Decimal } from 'decimal.js';
import { ulid } from 'ulid';
import { allocateLot } from '@jutbank/core/intake';
import { convert, money } from '@jutbank/core/money';
import { emptyIntake } from '@jutbank/contract/pieces';
import {
  lotRoutes,
  type LotBody,
  type LotPiece,
  type LotSheet,
  type LotSummary,
} from '@jutbank/contract/intake';
import { hasLeft, type Stage } from '@jutbank/core/pieces';
import type { Person } from '@jutbank/contract/shop';
import type { Queries, Transaction } from '../db/index.ts';
import {
  answer,
  conflict,
  HttpProblem,
  invalid,
  notFound,
  type Answered,
  type Mount,
} from '../http/index.ts';
import { letterheadOf } from '../shop/index.ts';
import { todayIso } from '../clock/index.ts';
import type { DayRates, Markets } from '../market/index.ts';
import { changePiece, type Readers, loadPieces, createPiece } from '../pieces/index.ts';
import { lotPdf } from './lotPdf.ts';

interface LotRow {
  id: string;
  version: number;
  name: string;
  source_kind: LotBody['sourceKind'];
  source_name: string;
  acquired: string | null;
  currency: string;
  method: LotBody['method'];
  costs: LotBody['costs'];
  note: string;
}
interface PieceOfLot {
  lot_id: string;
  id: string;
  stock_number: string;
  title: string;
  stage: Stage;
  price: string | null;
  lot_value: string | null;
  lot_share: string | null;
  keep: number;
  pictures: number;
  net: { net: string; left?: string } | null;
  net_currency: string | null;
  sold_on: string | null;
  given_on: string | null;
  refund: string | null;
  refund_currency: string | null;
}

const PIECES =
  'SELECT p.lot_id, p.id, p.stock_number, p.title, p.stage, p.price, p.lot_value, p.lot_share, p.keep, (SELECT COUNT(*) FROM picture i WHERE i.piece_id = p.id AND i.removed = 0) AS pictures, s.net, s.currency AS net_currency, DATE(s.sold_at) AS sold_on, g.given_on, g.refund, g.currency AS refund_currency FROM piece p LEFT JOIN sale s ON s.piece_id = p.id AND s.returned_on IS NULL LEFT JOIN given_back g ON g.piece_id = p.id';

export function mountLots(mount: Mount, readers: Readers, markets: Markets): void {
  const { database } = mount;

  mount.handle(lotRoutes.allocation, ({ body }) => {
    const allocated = allocateLot(body);
    if (!allocated.ok) throw invalid([allocated.error]);
    return Promise.resolve(answer(allocated.value));
  });

  mount.handle(lotRoutes.listLots, async () => {
    const rates = await markets.ratesOn(todayIso());
    const lots = await database.rows<LotRow>('SELECT * FROM lot ORDER BY id DESC LIMIT 200');
    const pieces = await database.rows<PieceOfLot>(`${PIECES} WHERE p.lot_id IS NOT NULL ORDER BY p.id`);
    const ofLot = new Map(lots.map((lot): [string, PieceOfLot[]] => [lot.id, []]));
    for (const piece of pieces) ofLot.get(piece.lot_id)?.push(piece);
    return answer({ items: lots.map((lot) => summaryOf(lot, ofLot.get(lot.id) ?? [], rates)) });
  });

  const sheetOf = async ({ id }: { id: string }): Promise<Answered<LotSheet>> => {
    const lot = await lotRow(database, id);
    const rates = await markets.ratesOn(todayIso());
    const pieces = await piecesOf(database, id);
    const values = valuesOf(pieces, await estimatesOf(lot));
    const recovery = recoveryOf(lot, pieces, rates);
    // what the shop says a piece is worth counts before what is estimated
    const still = pieces
      .filter((p) => !hasLeft(p.stage))
      .map((p) => (p.lot_value === null ? values.get(p.id)?.estimate : new Decimal(p.lot_value)));
    const known = still.filter((v) => v !== undefined);
    const amountOf = (x: Decimal.Value | null | undefined) =>
      x == null ? null : money(x, lot.currency).amount;
    const list = pieces.map((p): LotPiece => {
      const net = netInLot(lot, p, rates);
      return {
        id: p.id,
        stockNumber: p.stock_number,
        title: p.title,
        stage: p.stage,
        value: amountOf(p.lot_value ?? values.get(p.id)?.estimate),
        valueSaid: p.lot_value !== null,
        share: amountOf(p.lot_share),
        cost: money(p.price ?? 0, lot.currency).amount,
        keep: Boolean(p.keep),
        pictures: Number(p.pictures),
        net: net?.amount ?? null,
        soldOn: p.sold_on,
      };
    });
    return answer(
      {
        ...summaryOf(lot, pieces, rates),
        lot: bodyOf(lot),
        list,
        recovery,
        stillWorth:
          known.length === 0
            ? null
            : money(
                known.reduce((sum, v) => sum.plus(v), new Decimal(0)),
                lot.currency,
              ),
      },
      { etag: `"v${lot.version}"` },
    );
  };

  /** What the pieces of a lot would bring by today's market, in its currency: reckoned before anything is locked. */
  const estimatesOf = async ({ id, currency }: Pick<LotRow, 'id' | 'currency'>): Promise<Estimates> => {
    const { rateOf } = await markets.ratesOn(todayIso());
    const ids = (await piecesOf(database, id)).map((p) => p.id);
    const readings = await readers.readings(await loadPieces(database, ids));
    return new Map(
      [...readings].flatMap(([piece, { worth }]): [string, Decimal][] => {
        const estimate = worth && convert(worth.estimate, currency, rateOf);
        return estimate ? [[piece, new Decimal(estimate.amount)]] : [];
      }),
    );
  };
  const estimatesFor = async ({ params }: { params: { id: string } }): Promise<Estimates> =>
    estimatesOf(await lotRow(database, params.id));

  /** Spreads the cost anew: a sold piece keeps the share with which it left. The lot's row is locked by the caller. */
  const spread = async (tx: Transaction, id: string, estimates: Estimates, person: Person): Promise<void> => {
    const lot = await lotRow(tx, id);
    const pieces = await piecesOf(tx, id);
    const values = valuesOf(pieces, estimates);
    const anySold = pieces.some((p) => hasLeft(p.stage));
    const allocated = allocateLot({
      currency: lot.currency,
      method: anySold ? 'manual' : lot.method,
      costs: lot.costs.map((c) => c.amount),
      pieces: pieces.map((p) => ({
        value: lot.method === 'equal' ? '1' : (values.get(p.id)?.weight.toFixed() ?? '0'),
        share: hasLeft(p.stage) ? (p.price ?? '0') : lot.method === 'manual' ? p.lot_share : null,
      })),
    });
    if (!allocated.ok) throw invalid([allocated.error]);
    for (const [i, piece] of pieces.entries()) {
      const share = allocated.value.shares[i] ?? '0';
      if (hasLeft(piece.stage) || (piece.price !== null && new Decimal(piece.price).eq(share))) continue;
      const cost = { amount: share, currency: lot.currency };
      await changePiece(
        tx,
        {
          pieceId: piece.id,
          person,
          ifMatch: undefined,
          anyVersion: true,
          kind: 'cost-allocated',
          body: { lot: lot.id, cost },
        },
        async () => {
          await tx.run('UPDATE piece SET price = ?, price_currency = ? WHERE id = ?', [
            share,
            lot.currency,
            piece.id,
          ]);
        },
      );
    }
  };
  const changed = async (tx: Transaction, id: string, ifMatch: number | undefined): Promise<void> => {
    if (ifMatch === undefined)
      throw new HttpProblem(428, 'Send If-Match with the version of the lot you have seen.');
    const done = await tx.run('UPDATE lot SET version = version + 1 WHERE id = ? AND version = ?', [
      id,
      ifMatch,
    ]);
    if (done === 0) {
      await lotRow(tx, id);
      throw new HttpProblem(412, 'Somebody changed this lot meanwhile. Look at it again.');
    }
  };

  mount.handleInTransaction(
    lotRoutes.create,
    async (tx, { body }) => {
      const id = ulid();
      const columns = columnsOf(body);
      await tx.run(
        `INSERT INTO lot (id, ${Object.keys(columns).join(', ')}) VALUES (?${', ?'.repeat(Object.keys(columns).length)})`,
        [id, ...Object.values(columns)],
      );
      return { id };
    },
    sheetOf,
  );

  mount.handle(lotRoutes.lot, ({ params }) => sheetOf(params));

  mount.handlePrepared(
    lotRoutes.put,
    estimatesFor,
    async (tx, { params, body, ifMatch, person }, estimates) => {
      await changed(tx, params.id, ifMatch);
      const columns = columnsOf(body);
      await tx.run(
        `UPDATE lot SET ${Object.keys(columns)
          .map((c) => `${c} = ?`)
          .join(', ')} WHERE id = ?`,
        [...Object.values(columns), params.id],
      );
      if (await anyPiece(tx, params.id)) await spread(tx, params.id, estimates, person);
      return { id: params.id };
    },
    sheetOf,
  );

  mount.handlePrepared(
    lotRoutes.addPieces,
    estimatesFor,
    async (tx, { params, body, person }, estimates) => {
      // whoever fills it first has it to the end: the shares are those of all its pieces
      await tx.run('UPDATE lot SET version = version + 1 WHERE id = ?', [params.id]);
      const lot = await lotRow(tx, params.id);
      for (const piece of body.pieces)
        await createPiece(
          tx,
          {
            ...emptyIntake,
            title: piece.title,
            construction: piece.construction,
            sourceKind: lot.source_kind,
            sourceName: lot.source_name,
            acquired: lot.acquired,
            asFound: body.asFound,
            cameWith: `Lot: ${lot.name}`,
          },
          person,
          { lot_id: lot.id, lot_value: piece.value, keep: piece.keep },
        );
      await spread(tx, lot.id, estimates, person);
      return { id: lot.id };
    },
    sheetOf,
  );

  mount.handlePrepared(
    lotRoutes.putShares,
    estimatesFor,
    async (tx, { params, body, ifMatch, person }, estimates) => {
      await changed(tx, params.id, ifMatch);
      const own = new Set(
        (await tx.rows<{ id: string }>('SELECT id FROM piece WHERE lot_id = ?', [params.id])).map(
          (p) => p.id,
        ),
      );
      const strange = body.pieces.findIndex((p) => !own.has(p.id));
      if (strange >= 0)
        throw invalid([{ pointer: `/pieces/${strange}/id`, message: 'this piece is not of the lot' }]);
      if (body.pieces.length > 0)
        await tx.run(
          `UPDATE piece p JOIN (${body.pieces.map(() => 'SELECT ? AS id, ? AS value, ? AS share, ? AS keep').join(' UNION ALL ')}) said ON said.id = p.id
         SET p.lot_value = said.value, p.lot_share = said.share, p.keep = said.keep`,
          body.pieces.flatMap((p) => [p.id, p.value, p.share, p.keep]),
        );
      if (own.size > 0) await spread(tx, params.id, estimates, person);
      return { id: params.id };
    },
    sheetOf,
  );

  mount.handlePrepared(
    lotRoutes.takeOut,
    estimatesFor,
    async (tx, { params, ifMatch, person }, estimates) => {
      await changed(tx, params.id, ifMatch);
      const piece = await tx.row<{ stage: Stage }>('SELECT stage FROM piece WHERE id = ? AND lot_id = ?', [
        params.piece,
        params.id,
      ]);
      if (!piece) throw notFound('piece in this lot');
      if (hasLeft(piece.stage)) throw conflict('This piece has left; its share of the lot stands.');
      await changePiece(
        tx,
        {
          pieceId: params.piece,
          person,
          ifMatch: undefined,
          anyVersion: true,
          kind: 'taken-out-of-lot',
          body: { lot: params.id },
        },
        async () => {
          // what it cost was a share of the lot: without the lot nobody knows, until somebody says so
          await tx.run(
            'UPDATE piece SET lot_id = NULL, lot_value = NULL, lot_share = NULL, keep = FALSE, price = NULL, price_currency = NULL WHERE id = ?',
            [params.piece],
          );
        },
      );
      if (await anyPiece(tx, params.id)) await spread(tx, params.id, estimates, person);
      return { id: params.id };
    },
    sheetOf,
  );

  mount.handle(lotRoutes.paper, async ({ params, response }) => {
    const { body } = await sheetOf(params);
    const pdf = await lotPdf(await letterheadOf(database), body);
    response
      .type('application/pdf')
      .setHeader('Content-Disposition', `inline; filename="lot-${params.id.slice(-6)}.pdf"`)
      .send(pdf);
    return undefined;
  });
}

async function lotRow(db: Queries, id: string): Promise<LotRow> {
  const row = await db.row<LotRow>('SELECT * FROM lot WHERE id = ?', [id]);
  if (!row) throw notFound('lot');
  return row;
}
const piecesOf = (db: Queries, id: string): Promise<PieceOfLot[]> =>
  db.rows<PieceOfLot>(`${PIECES} WHERE p.lot_id = ? ORDER BY p.id`, [id]);
const anyPiece = async (db: Queries, id: string) =>
  (await db.row('SELECT 1 AS one FROM piece WHERE lot_id = ? LIMIT 1', [id])) !== undefined;

const columnsOf = (body: LotBody) => ({
  name: body.name,
  source_kind: body.sourceKind,
  source_name: body.sourceName,
  acquired: body.acquired,
  currency: body.currency,
  method: body.method,
  costs: JSON.stringify(body.costs),
  note: body.note,
});
const bodyOf = (row: LotRow): LotBody => ({
  name: row.name,
  sourceKind: row.source_kind,
  sourceName: row.source_name,
  acquired: row.acquired,
  currency: row.currency,
  method: row.method,
  costs: row.costs,
  note: row.note,
});

const totalOf = (lot: LotRow): Decimal =>
  lot.costs.reduce((sum, cost) => sum.plus(cost.amount), new Decimal(0));

function netInLot(lot: LotRow, piece: PieceOfLot, { rateOf }: DayRates) {
  if (piece.net === null || piece.net_currency === null) return undefined;
  return convert(money(piece.net.left ?? piece.net.net, piece.net_currency), lot.currency, rateOf);
}

/** Net proceeds, and what came back for pieces that were given back, added up day by day. */
function recoveryOf(lot: LotRow, pieces: readonly PieceOfLot[], rates: DayRates) {
  const sold = pieces
    .flatMap((p) => {
      const net = netInLot(lot, p, rates);
      const back =
        p.refund !== null && p.refund_currency !== null
          ? convert(money(p.refund, p.refund_currency), lot.currency, rates.rateOf)
          : undefined;
      return [
        ...(net && p.sold_on !== null ? [{ day: p.sold_on, net }] : []),
        ...(back && p.given_on !== null ? [{ day: p.given_on, net: back }] : []),
      ];
    })
    .sort((a, b) => (a.day < b.day ? -1 : 1));
  let sum = new Decimal(0);
  return sold.map(({ day, net }) => {
    sum = sum.plus(net.amount);
    return { day, net: money(sum, lot.currency).amount };
  });
}

function summaryOf(lot: LotRow, pieces: readonly PieceOfLot[], rates: DayRates): LotSummary {
  const cost = totalOf(lot);
  const recovery = recoveryOf(lot, pieces, rates);
  const recovered = new Decimal(recovery.at(-1)?.net ?? 0);
  return {
    id: lot.id,
    version: Number(lot.version),
    name: lot.name,
    currency: lot.currency,
    cost: money(cost, lot.currency).amount,
    pieces: pieces.length,
    sold: pieces.filter((p) => p.stage === 'sold').length,
    kept: pieces.filter((p) => Boolean(p.keep)).length,
    recovered: money(recovered, lot.currency).amount,
    share: cost.gt(0) ? recovered.div(cost).toNumber() : null,
    brokeEvenOn: recovery.find((r) => new Decimal(r.net).gte(cost))?.day ?? null,
  };
}

interface Valued {
  /** in the lot's currency, where the piece can be estimated */
  readonly estimate: Decimal | undefined;
  /** what its share of the cost goes by */
  readonly weight: Decimal;
}

/** What pieces would bring, in the lot's currency; a piece that cannot be estimated is not in it. */
type Estimates = ReadonlyMap<string, Decimal>;

/** Said values first, then estimates; a piece of which nothing is known yet weighs like the mean of the others. */
function valuesOf(pieces: readonly PieceOfLot[], estimates: Estimates): Map<string, Valued> {
  const known = pieces.flatMap((p) => {
    const value = p.lot_value === null ? estimates.get(p.id) : new Decimal(p.lot_value);
    return value ? [value] : [];
  });
  const mean =
    known.length === 0
      ? new Decimal(0)
      : known.reduce((sum, v) => sum.plus(v), new Decimal(0)).div(known.length);
  return new Map(
    pieces.map((p) => {
      const estimate = estimates.get(p.id);
      const weight = p.lot_value === null ? (estimate ?? mean) : new Decimal(p.lot_value);
      return [p.id, { estimate, weight: weight.toDecimalPlaces(4) }];
    }),
  );
}
