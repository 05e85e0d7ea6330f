/** Sales as they are stored, with what came after them, and what they come to now. */
import type { Drawing } from '@jutbank/core/drawing';
import { money } from '@jutbank/core/money';
import type { ConditionSeen } from '@jutbank/core/condition';
import { Decimal } from 'decimal.js';
import {
  accountOf,
  paidState,
  refundable,
  type Credit,
  type Settlement,
  type SoldFor,
} from '@jutbank/core/sale';
import { NO_TAX, type SaleTax } from '@jutbank/core/money';
import type { Net } from '@jutbank/core/worth';
import type { CreditRecord, NetOfSale, SaleRecord, SalesPage, SaleState } from '@jutbank/contract/sale';
import { instant, type Queries, type Value } from '../db/index.ts';

import type { Issuer } from '../shop/index.ts';

/** How a sale is taxed, and what the goods themselves had cost in its currency. */
export interface StoredTax extends SaleTax {
  readonly paid?: string;
}
export interface StoredSale extends SaleRecord {
  buyerName: string;
  readonly buyerAddress: string;
  readonly contact: string | null;
  readonly certificate: string;
  /** of a piece without a photograph, as it was drawn then */
  readonly drawing: Drawing | null;
  readonly credential: string | null;
  readonly ledgerSeq: number;
  /** of the entry of the ledger that the sale made */
  readonly recordHash: string;
  readonly comparableId: string | null;
  readonly tax: StoredTax;
  readonly sold: SoldFor;
  /** as it was when the sale was made; null before that was kept */
  readonly issuer: Issuer | null;
  readonly creditIssuers: ReadonlyMap<string, Issuer>;
  readonly conditionThen: ConditionSeen | null;
}
interface SaleRow {
  id: string;
  piece_id: string;
  stock_number: string;
  title: string;
  invoice_number: string;
  sold_at: string;
  buyer_name: string;
  buyer_address: string;
  contact_id: string | null;
  price: string;
  currency: string;
  /** without channel and tax where it was sold before the shop reckoned with them */
  net: Net & Partial<NetOfSale>;
  cost: string | null;
  cost_currency: string | null;
  margin: string | null;
  tax_scheme: StoredTax | null;
  condition_then: ConditionSeen | null;
  payout: (Settlement & { readonly owner: string }) | null;
  settlement_number: string | null;
  settled_on: string | null;
  due_on: string | null;
  sent: SaleRecord['sent'];
  returned_on: string | null;
  withdrawn_at: string | null;
  withdrawn_because: string | null;
  certificate_code: string;
  certificate: string;
  drawing: Drawing | null;
  credential: string | null;
  issuer: Issuer | null;
  ledger_seq: number;
  record_hash: string | null;
  comparable_id: string | null;
}
interface PaymentRow {
  id: string;
  sale_id: string;
  amount: string;
  paid_on: string;
  way: string;
  note: string;
}
interface CreditRow {
  id: string;
  sale_id: string;
  number: string;
  given_on: string;
  piece_back: number;
  reason: string;
  came_back: string;
  refund: string;
  fees_back: string;
  issuer: Issuer | null;
}
const FROM = `FROM sale s JOIN piece p ON p.id = s.piece_id LEFT JOIN settlement t ON t.sale_id = s.id`;
const SELECT = `SELECT s.id, s.piece_id, p.stock_number, p.title, s.invoice_number, s.sold_at, s.buyer_name, s.buyer_address, s.contact_id,
  s.price, s.currency, s.net, s.cost, s.cost_currency, s.margin, s.tax_scheme, s.condition_then, s.payout, t.number AS settlement_number,
  t.paid_on AS settled_on, s.due_on, s.sent, s.returned_on, s.withdrawn_at, s.withdrawn_because, s.certificate_code, s.certificate, s.drawing,
  s.credential, s.issuer, s.ledger_seq, (SELECT l.hash FROM ledger_entry l WHERE l.seq = s.ledger_seq) AS record_hash, s.comparable_id ${FROM}`;

function saleOf(row: SaleRow, payments: readonly PaymentRow[], credits: readonly CreditRow[]): StoredSale {
  const { currency } = row;
  const here = (amount: Decimal.Value) => money(amount, currency);
  const net: NetOfSale = { channel: '', tax: '0', left: row.net.net, ...row.net };
  const tax: StoredTax = row.tax_scheme ?? NO_TAX;
  const cost = row.margin === null ? null : new Decimal(net.left).minus(row.margin).toString();
  const sold: SoldFor = {
    currency,
    price: here(row.price).amount,
    postage: here(new Decimal(net.gross).minus(row.price)).amount,
    fees: here(new Decimal(net.gross).minus(net.net)).amount,
    tax,
    paid: tax.paid ?? cost ?? '0',
    cost: cost === null ? null : here(cost).amount,
  };
  const given: Credit[] = credits.map((c) => ({
    refund: c.refund,
    feesBack: c.fees_back,
    pieceBack: Boolean(c.piece_back),
  }));
  const account = accountOf(sold, given);
  const state = paidState(
    currency,
    account.revenue,
    payments.map((p) => p.amount),
  );
  return {
    id: row.id,
    pieceId: row.piece_id,
    stockNumber: row.stock_number,
    title: row.title,
    invoiceNumber: row.invoice_number,
    soldAt: instant(row.sold_at),
    buyerName: row.buyer_name,
    buyerAddress: row.buyer_address,
    contact: row.contact_id,
    price: here(row.price),
    net,
    cost: row.cost === null || row.cost_currency === null ? null : money(row.cost, row.cost_currency),
    margin: account.result === null ? null : here(account.result),
    certificateCode: row.certificate_code,
    taxScheme: tax.on,
    total: here(net.gross),
    dueOn: row.due_on,
    payments: payments.map((p) => ({
      id: p.id,
      amount: here(p.amount),
      paidOn: p.paid_on,
      way: p.way,
      note: p.note,
    })),
    paid: here(state.paid),
    open: here(state.open),
    sent: row.sent,
    credits: credits.map((c): CreditRecord => ({
      id: c.id,
      number: c.number,
      on: c.given_on,
      pieceBack: Boolean(c.piece_back),
      reason: c.reason,
      cameBack: c.came_back,
      refund: here(c.refund),
      feesBack: here(c.fees_back),
    })),
    refundable: here(refundable(sold, given)),
    returnedOn: row.returned_on,
    compared: null,
    account: {
      revenue: account.revenue,
      fees: account.fees,
      tax: account.tax,
      left: account.left,
      result: account.result,
    },
    withdrawn:
      row.withdrawn_at === null
        ? null
        : { on: row.withdrawn_at.slice(0, 10), because: row.withdrawn_because ?? '' },
    settlement:
      row.payout === null || row.settlement_number === null
        ? null
        : {
            number: row.settlement_number,
            ownerName: row.payout.owner,
            payout: row.payout.payout,
            share: row.payout.share,
            fee: row.payout.fee,
            channelFees: row.payout.channelFees,
            paidOn: row.settled_on,
          },
    certificate: row.certificate,
    drawing: row.drawing,
    credential: row.credential,
    ledgerSeq: Number(row.ledger_seq),
    recordHash: row.record_hash ?? '',
    comparableId: row.comparable_id,
    tax,
    sold,
    issuer: row.issuer,
    creditIssuers: new Map(
      credits.flatMap((c): [string, Issuer][] => (c.issuer === null ? [] : [[c.id, c.issuer]])),
    ),
    conditionThen: row.condition_then,
  };
}

async function salesOf(db: Queries, rows: readonly SaleRow[]): Promise<StoredSale[]> {
  if (rows.length === 0) return [];
  const ids = rows.map((row) => row.id);
  const marks = ids.map(() => '?').join(',');
  const payments = await db.rows<PaymentRow>(
    `SELECT id, sale_id, amount, paid_on, way, note FROM payment WHERE sale_id IN (${marks}) ORDER BY paid_on, id`,
    ids,
  );
  const credits = await db.rows<CreditRow>(
    `SELECT id, sale_id, number, given_on, piece_back, reason, came_back, refund, fees_back, issuer FROM credit_note WHERE sale_id IN (${marks}) ORDER BY id`,
    ids,
  );
  return rows.map((row) =>
    saleOf(
      row,
      payments.filter((p) => p.sale_id === row.id),
      credits.filter((c) => c.sale_id === row.id),
    ),
  );
}

/** What the routes show: the stored certificate is not part of it. */
export function shown(sale: StoredSale): SaleRecord {
  const {
    buyerAddress: _a,
    contact: _b,
    certificate: _c,
    drawing: _l,
    credential: _d,
    ledgerSeq: _e,
    recordHash: _r,
    comparableId: _f,
    tax: _g,
    sold: _h,
    conditionThen: _i,
    issuer: _j,
    creditIssuers: _k,
    ...record
  } = sale;
  return record;
}

async function saleWhere(
  db: Queries,
  column: 'id' | 'certificate_code',
  value: string,
): Promise<StoredSale | undefined> {
  const row = await db.row<SaleRow>(`${SELECT} WHERE s.${column} = ?`, [value]);
  return row && (await salesOf(db, [row]))[0];
}
export const saleById = (db: Queries, id: string) => saleWhere(db, 'id', id);
export const saleByCode = (db: Queries, code: string) => saleWhere(db, 'certificate_code', code);

export interface SalesAsked {
  readonly from?: string | undefined;
  readonly to?: string | undefined;
  readonly state?: SaleState | undefined;
}

const DUE = `(CAST(JSON_VALUE(s.net, '$.gross') AS DECIMAL(18,3))
  - (SELECT COALESCE(SUM(c.refund), 0) FROM credit_note c WHERE c.sale_id = s.id)
  - (SELECT COALESCE(SUM(y.amount), 0) FROM payment y WHERE y.sale_id = s.id))`;
const UNSETTLED = '(t.sale_id IS NOT NULL AND t.paid_on IS NULL)';
const IN_STATE: Readonly<Record<SaleState, string>> = {
  unpaid: `s.returned_on IS NULL AND ${DUE} > 0`,
  'to-send': `s.returned_on IS NULL AND ${DUE} <= 0 AND s.sent IS NULL`,
  'to-settle': `s.returned_on IS NULL AND ${UNSETTLED}`,
  done: `s.returned_on IS NULL AND ${DUE} = 0 AND s.sent IS NOT NULL AND NOT ${UNSETTLED}`,
  returned: 's.returned_on IS NOT NULL',
};

function whereOf({ from, to, state }: SalesAsked): { sql: string; values: Value[] } {
  const told: [string, Value[]][] = [
    ...(from === undefined ? [] : [['s.sold_at >= ?', [from]] as [string, Value[]]]),
    ...(to === undefined ? [] : [['s.sold_at < DATE_ADD(?, INTERVAL 1 DAY)', [to]] as [string, Value[]]]),
    ...(state === undefined ? [] : [[IN_STATE[state], []] as [string, Value[]]]),
  ];
  return {
    sql: told.map(([condition]) => `(${condition})`).join(' AND ') || 'TRUE',
    values: told.flatMap(([, values]) => values),
  };
}

export async function listSales(
  db: Queries,
  asked: SalesAsked,
  before: string | undefined,
  limit: number,
): Promise<StoredSale[]> {
  const { sql, values } = whereOf(asked);
  const rows = await db.rows<SaleRow>(`${SELECT} WHERE s.id < ? AND ${sql} ORDER BY s.id DESC LIMIT ?`, [
    before ?? 'Z'.repeat(26),
    ...values,
    limit,
  ]);
  return salesOf(db, rows);
}

/** All of a period, in the order of their numbers. */
export async function salesBetween(db: Queries, from: string, to: string): Promise<StoredSale[]> {
  const rows = await db.rows<SaleRow>(
    `${SELECT} WHERE (s.sold_at >= ? AND s.sold_at < DATE_ADD(?, INTERVAL 1 DAY))
     OR s.id IN (SELECT sale_id FROM credit_note WHERE given_on BETWEEN ? AND ?) ORDER BY s.id`,
    [from, to, from, to],
  );
  return salesOf(db, rows);
}

/** What all of them come to, reckoned where they lie. */
export async function totalsOf(
  db: Queries,
  asked: SalesAsked,
): Promise<{ total: number; totals: SalesPage['totals'] }> {
  const { sql, values } = whereOf(asked);
  const of = (name: string) =>
    `(SELECT COALESCE(SUM(c.${name}), 0) FROM credit_note c WHERE c.sale_id = s.id)`;
  const inNet = (name: string, otherwise: string) =>
    `CAST(COALESCE(JSON_VALUE(s.net, '$.${name}'), ${otherwise}) AS DECIMAL(18,3))`;
  const left = `(${inNet('left', "JSON_VALUE(s.net, '$.net')")} - ${of('refund')} + ${of('fees_back')} - ${of('tax')})`;
  const rows = await db.rows<
    Record<'currency' | 'revenue' | 'due' | 'tax', string> & {
      n: number;
      returned: number;
      margin: string | null;
    }
  >(
    `SELECT s.currency, COUNT(*) AS n, SUM(s.returned_on IS NOT NULL) AS returned,
       SUM(${inNet('gross', '0')} - ${of('refund')}) AS revenue, SUM(${DUE}) AS due, SUM(${inNet('tax', '0')} + ${of('tax')}) AS tax,
       SUM(IF(s.returned_on IS NOT NULL, ${left}, s.margin - ${of('refund')} + ${of('fees_back')} - ${of('tax')})) AS margin
     ${FROM} WHERE ${sql} GROUP BY s.currency ORDER BY n DESC`,
    values,
  );
  return {
    total: rows.reduce((sum, row) => sum + Number(row.n), 0),
    totals: rows.map((row) => ({
      currency: row.currency,
      sales: Number(row.n),
      returned: Number(row.returned),
      revenue: money(row.revenue, row.currency),
      open: money(row.due, row.currency),
      taxDue: money(row.tax, row.currency),
      margin: row.margin === null ? null : money(row.margin, row.currency),
    })),
  };
}
