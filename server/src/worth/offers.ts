/** Offers for a piece of the shop: judged against waiting, and kept with what was decided. */
import { ulid } from 'ulid';
import { money, type Money } from '@jutbank/core/money';
import { judgeOffer, type OfferJudgement } from '@jutbank/core/worth';
import { offerRoutes, type OfferRecord } from '@jutbank/contract/worth';
import { instant, type Queries } from '../db/index.ts';
import { answer, conflict, invalid, type Mount } from '../http/index.ts';
import { lockPiece, pieceRecord, type PieceRecord, type Readers, ownPrice } from '../pieces/index.ts';
import { appendLedger } from '../ledger/index.ts';
import { shopOf } from '../shop/index.ts';
import { type Markets, inBase } from '../market/index.ts';
import { piecePrices, shopPrices } from './prices.ts';

export function mountOffers(mount: Mount, readers: Readers, markets: Markets): void {
  const { database } = mount;

  mount.handle(offerRoutes.judgeOffer, async ({ params, body }) => {
    const record = await pieceRecord(database, params.id);
    const { base, judgement } = await judged(database, readers, markets, record, body.amount);
    return answer({
      advice: judgement.advice,
      net: money(judgement.net, base),
      waiting: money(judgement.waiting, base),
      counter: money(Math.round(judgement.counter), base),
      why: WHY[judgement.advice],
    });
  });

  mount.handlePrepared(
    offerRoutes.logOffer,
    async ({ params, body }) => {
      const record = await pieceRecord(database, params.id);
      return (await judged(database, readers, markets, record, body.amount)).judgement;
    },
    async (tx, { params, body, person }, judgement) => {
      // an offer and a sale of the same piece stand in line
      await lockPiece(tx, params.id);
      const record = await pieceRecord(tx, params.id);
      if (record.sale) throw conflict('This piece is sold; its record stands as it was.');
      if (body.decision === 'countered' && body.counter == null)
        throw invalid([{ pointer: '/counter', message: 'what is the counter-offer?' }]);
      const id = ulid();
      await tx.run(
        'INSERT INTO offer (id, piece_id, person, bidder, amount, currency, judgement, decision, counter, note) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)',
        [
          id,
          params.id,
          person.name,
          body.bidder,
          body.amount.amount,
          body.amount.currency,
          JSON.stringify(judgement),
          body.decision,
          body.counter?.amount ?? null,
          body.note,
        ],
      );
      await appendLedger(tx, { pieceId: params.id, kind: `offer-${body.decision}`, person, body });
      if (body.decision === 'refused')
        await ownPrice(tx, readers, record, body.amount, {
          kind: 'offer',
          shop: (await shopOf(tx)).name,
          online: false,
        });
      const kept = (await offersOf(tx, params.id)).find((o) => o.id === id);
      if (!kept) throw new Error('the offer was not stored');
      return answer(kept);
    },
  );
}

const WHY = {
  take: 'What is left of it is at least what waiting for the best ask is worth, holding and money counted.',
  counter: 'It is less than waiting is worth, but near enough to talk about.',
  wait: 'It is far below what waiting is worth.',
} as const;

async function judged(
  db: Queries,
  readers: Readers,
  markets: Markets,
  record: PieceRecord,
  offer: Money,
): Promise<{ base: string; judgement: OfferJudgement }> {
  const prices = await piecePrices(await shopPrices(db, markets), readers, record);
  if (!prices)
    throw conflict('Nothing says yet which pattern it is: there is no estimate to hold the offer to.');
  const { on, best, net } = prices;
  const number = (m: Money, pointer: string) => {
    const amount = inBase(on, m);
    if (amount === undefined)
      throw invalid([{ pointer, message: `no exchange rate for ${m.currency} is known` }]);
    return Number(amount);
  };
  const { ask, floor } = record.pricing;
  return {
    base: on.base,
    judgement: judgeOffer(
      number(offer, '/amount/currency'),
      ask ? number(ask, '/ask') : best.price,
      best,
      net,
      floor ? number(floor, '/floor') : undefined,
    ),
  };
}

interface OfferRow {
  id: string;
  bidder: string;
  amount: string;
  currency: string;
  judgement: OfferJudgement;
  decision: OfferRecord['decision'];
  counter: string | null;
  note: string;
  person: string;
  at: string;
}
export async function offersOf(db: Queries, pieceId: string): Promise<OfferRecord[]> {
  const rows = await db.rows<OfferRow>(
    'SELECT id, bidder, amount, currency, judgement, decision, counter, note, person, at FROM offer WHERE piece_id = ? ORDER BY id DESC LIMIT 50',
    [pieceId],
  );
  return rows.map((row) => ({
    id: row.id,
    bidder: row.bidder,
    amount: money(row.amount, row.currency),
    decision: row.decision,
    counter: row.counter === null ? null : money(row.counter, row.currency),
    advice: row.judgement.advice,
    note: row.note,
    person: row.person,
    at: instant(row.at),
  }));
}
