/** What comes after a sale: payments, sending, what was given back, the owner's settlement, a certificate taken back. */
import { ulid } from 'ulid';
import { compareConditions } from '@jutbank/core/condition';
import { addMoney, money, parseAmount, type Money } from '@jutbank/core/money';
import { taxOfCredit, type Credit } from '@jutbank/core/sale';
import { afterSaleRoutes, type CreditBody, type SaleRecord } from '@jutbank/contract/sale';
import type { Person } from '@jutbank/contract/shop';
import { todayIso } from '../clock/index.ts';
import type { Queries, Transaction } from '../db/index.ts';
import { answer, conflict, invalid, notFound, type Answered, type Mount } from '../http/index.ts';
import { changeStates } from '../market/index.ts';
import type { Carriers } from '../outside/index.ts';
import { changePiece, lockPiece, pieceRecord } from '../pieces/index.ts';
import { issuerOf, takeNumber } from '../shop/index.ts';
import { saleById, shown, type StoredSale } from './queries.ts';

export async function findSale(db: Queries, id: string): Promise<StoredSale> {
  const sale = await saleById(db, id);
  if (!sale) throw notFound('sale');
  return sale;
}

/** A sale as it is shown; of one that came back, how the piece stands against how it went out. */
export async function saleShown(db: Queries, id: string): Promise<SaleRecord> {
  const sale = await findSale(db, id);
  if (sale.returnedOn === null || sale.conditionThen === null) return shown(sale);
  const now = await pieceRecord(db, sale.pieceId);
  const { worse, better, items, unchanged } = compareConditions(sale.conditionThen, now);
  return {
    ...shown(sale),
    compared: { worse: [...worse], better: [...better], items: [...items], unchanged },
  };
}

/** @throws 422 beside the field where the currency has fewer decimals */
function inCurrencyOf(sale: StoredSale, amount: string, pointer: string): Money {
  const parsed = parseAmount(amount, sale.price.currency, pointer);
  if (!parsed.ok) throw invalid([parsed.error]);
  return parsed.value;
}

export function mountAfterSale(mount: Mount, carriers: Carriers): void {
  const { database } = mount;
  const tell = async ({ id }: { id: string }): Promise<Answered<SaleRecord>> =>
    answer(await saleShown(database, id));
  /** Whoever books on a sale stands in line at its piece; what happened stands in the piece's ledger. */
  const book = async (
    tx: Transaction,
    id: string,
    person: Person,
    kind: string,
    body: object,
    work: (sale: StoredSale) => Promise<void>,
  ): Promise<{ id: string }> => {
    const { pieceId } = await findSale(tx, id);
    await lockPiece(tx, pieceId);
    await changePiece(
      tx,
      {
        pieceId,
        person,
        ifMatch: undefined,
        anyVersion: true,
        evenSold: true,
        kind,
        body: { sale: id, ...body },
      },
      async () => work(await findSale(tx, id)),
    );
    return { id };
  };

  mount.handleInTransaction(
    afterSaleRoutes.pay,
    (tx, { params, body, person }) =>
      book(tx, params.id, person, 'payment-noted', body, async (sale) => {
        notTomorrow(body.paidOn, '/paidOn');
        const { amount } = inCurrencyOf(sale, body.amount, '/amount');
        await tx.run(
          'INSERT INTO payment (id, sale_id, amount, paid_on, way, note, noted_by) VALUES (?, ?, ?, ?, ?, ?, ?)',
          [ulid(), sale.id, amount, body.paidOn, body.way, body.note, person.name],
        );
      }),
    tell,
  );

  mount.handleInTransaction(
    afterSaleRoutes.send,
    (tx, { params, body, person }) =>
      book(tx, params.id, person, 'sent', body, async (sale) => {
        mayBeSent(sale);
        notTomorrow(body.on, '/on');
        await tx.run('UPDATE sale SET sent = ? WHERE id = ?', [JSON.stringify(body), sale.id]);
      }),
    tell,
  );

  mount.handlePrepared(
    afterSaleRoutes.carriageLabel,
    async ({ params, body }) => {
      const sale = await findSale(database, params.id);
      mayBeSent(sale);
      if (sale.buyerAddress.trim() === '')
        throw invalid([{ pointer: '', message: 'The invoice has no address to send it to.' }]);
      notTomorrow(body.on, '/on');
      const to = [sale.buyerName, sale.buyerAddress].join('\n');
      // by the sale and its service: asked for twice it is one parcel
      const key = `${sale.id} ${body.carrier} ${body.service}`;
      return carriers.label({ carrier: body.carrier, service: body.service, to }, key);
    },
    (tx, { params, body, person }, tracking) =>
      book(tx, params.id, person, 'sent', { ...body, tracking }, async (sale) => {
        mayBeSent(sale);
        const { on, carrier, service } = body;
        await tx.run('UPDATE sale SET sent = ? WHERE id = ?', [
          JSON.stringify({ on, carrier: `${carrier}, ${service.toLowerCase()}`, tracking }),
          sale.id,
        ]);
      }),
    tell,
  );

  mount.handleInTransaction(
    afterSaleRoutes.credit,
    (tx, { params, body, person }) =>
      book(tx, params.id, person, body.pieceBack ? 'came-back' : 'refunded', body, (sale) =>
        giveBack(tx, sale, body, person),
      ),
    tell,
  );

  mount.handleInTransaction(
    afterSaleRoutes.settle,
    (tx, { params, body, person }) =>
      book(tx, params.id, person, 'owner-settled', body, async (sale) => {
        if (!sale.settlement) throw conflict('It was the shop’s own: there is nobody to settle with.');
        if (sale.settlement.paidOn !== null) throw conflict('It is settled already.');
        if (sale.returnedOn !== null) throw conflict('It came back: nothing is due to its owner.');
        notTomorrow(body.paidOn, '/paidOn');
        await tx.run('UPDATE settlement SET paid_on = ?, way = ? WHERE sale_id = ?', [
          body.paidOn,
          body.way,
          sale.id,
        ]);
      }),
    tell,
  );

  mount.handleInTransaction(
    afterSaleRoutes.withdraw,
    (tx, { params, body, person }) =>
      book(tx, params.id, person, 'certificate-withdrawn', body, async (sale) => {
        if (sale.withdrawn) throw conflict('It is withdrawn already.');
        await withdraw(tx, sale.id, body.because);
      }),
    tell,
  );
}

function mayBeSent(sale: StoredSale): void {
  if (sale.returnedOn !== null) throw conflict('It came back already.');
  if (sale.sent !== null) throw conflict('It was sent already.');
}

const withdraw = (tx: Transaction, sale: string, because: string) =>
  tx.run('UPDATE sale SET withdrawn_at = UTC_TIMESTAMP(3), withdrawn_because = ? WHERE id = ?', [
    because,
    sale,
  ]);

function notTomorrow(day: string, pointer: string): void {
  if (day > todayIso()) throw invalid([{ pointer, message: 'this day has not come yet' }]);
}

/** A credit note; with the piece itself, everything that the sale had set in motion is put right. */
async function giveBack(tx: Transaction, sale: StoredSale, body: CreditBody, person: Person): Promise<void> {
  if (sale.returnedOn !== null && body.pieceBack) throw conflict('It came back already.');
  notTomorrow(body.on, '/on');
  if (body.on < sale.soldAt.slice(0, 10))
    throw invalid([{ pointer: '/on', message: 'this is before it was sold' }]);
  const refund = inCurrencyOf(sale, body.refund, '/refund');
  const feesBack = inCurrencyOf(sale, body.feesBack, '/feesBack');
  if (Number(refund.amount) > Number(sale.refundable.amount))
    throw invalid([
      {
        pointer: '/refund',
        message: `no more than ${sale.refundable.amount} ${sale.refundable.currency} is left of it`,
      },
    ]);
  const feesLeft = sale.credits.reduce(
    (left, credit) =>
      addMoney(left, {
        ...(credit.feesBack ?? money(0, left.currency)),
        amount: `-${credit.feesBack?.amount ?? 0}`,
      }),
    money(sale.sold.fees, sale.price.currency),
  );
  if (Number(feesBack.amount) > Number(feesLeft.amount))
    throw invalid([
      { pointer: '/feesBack', message: `the fees were ${feesLeft.amount} ${feesLeft.currency}` },
    ]);
  const before: Credit[] = sale.credits.map((c) => ({
    refund: c.refund.amount,
    feesBack: c.feesBack?.amount ?? '0',
    pieceBack: c.pieceBack,
  }));
  const credit: Credit = { refund: refund.amount, feesBack: feesBack.amount, pieceBack: body.pieceBack };
  const number = `C${todayIso().slice(0, 4)}-${String(await takeNumber(tx, 'next_credit')).padStart(4, '0')}`;
  await tx.run(
    `INSERT INTO credit_note (id, sale_id, number, issued_at, given_on, piece_back, reason, came_back, refund, fees_back, tax, noted_by, issuer)
     VALUES (?, ?, ?, UTC_TIMESTAMP(3), ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
    [
      ulid(),
      sale.id,
      number,
      body.on,
      body.pieceBack,
      body.reason,
      body.cameBack,
      refund.amount,
      feesBack.amount,
      taxOfCredit(sale.sold, before, credit),
      person.name,
      JSON.stringify(await issuerOf(tx)),
    ],
  );
  if (!body.pieceBack) return;
  if (sale.settlement?.paidOn != null)
    throw conflict(
      'Its owner was paid already: agree with them first, then take the settlement back by hand.',
    );
  await tx.run('UPDATE sale SET returned_on = ? WHERE id = ?', [body.on, sale.id]);
  if (!sale.withdrawn) await withdraw(tx, sale.id, 'The piece came back to the shop.');
  if (sale.comparableId !== null)
    await changeStates(tx, [sale.comparableId], {
      state: 'set-aside',
      reason: `the piece came back on ${body.on}`,
      mergedInto: null,
    });
  // what it looks like now is to be seen anew; what was up may go up again, as a draft
  await tx.run('UPDATE piece SET inspected = FALSE WHERE id = ?', [sale.pieceId]);
  await tx.run(
    "UPDATE listing SET state = 'draft', published_at = NULL, marketplace_ref = NULL WHERE piece_id = ?",
    [sale.pieceId],
  );
}
