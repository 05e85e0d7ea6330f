/** The registers of sales and of purchases over a period, for the books: as CSV and for paper. */
import { stringify } from 'csv-stringify/sync';
import { money, formatMoney } from '@jutbank/core/money';
import { accountOf } from '@jutbank/core/sale';
import { Decimal } from 'decimal.js';
import { afterSaleRoutes } from '@jutbank/contract/sale';
import type { Database, Queries } from '../db/index.ts';
import { safeCell, type Mount } from '../http/index.ts';
import { paper } from '../pdf/index.ts';
import { letterheadOf } from '../shop/index.ts';
import { salesBetween, type StoredSale } from './queries.ts';

/** One line of the sales register: an invoice, or a credit note with its amounts negative. */
export interface SalesLine {
  readonly day: string;
  readonly number: string;
  readonly kind: 'invoice' | 'credit note';
  readonly stockNumber: string;
  readonly title: string;
  readonly buyer: string;
  readonly scheme: string;
  readonly taxPct: number;
  readonly currency: string;
  readonly total: string;
  /** of which tax, or by how much a credit note changes it */
  readonly tax: string;
  readonly bought: string;
}

const negated = (amount: string, currency: string) => money(new Decimal(amount).negated(), currency).amount;

function linesOf(sale: StoredSale): SalesLine[] {
  const common = {
    stockNumber: sale.stockNumber,
    title: sale.title,
    buyer: sale.buyerName,
    scheme: sale.tax.on,
    taxPct: sale.tax.pct,
    currency: sale.price.currency,
  };
  const given = sale.credits.map((c) => ({
    refund: c.refund.amount,
    feesBack: c.feesBack?.amount ?? '0',
    pieceBack: c.pieceBack,
  }));
  const taxAfter = (n: number) => accountOf(sale.sold, given.slice(0, n)).tax;
  return [
    {
      ...common,
      day: sale.soldAt.slice(0, 10),
      number: sale.invoiceNumber,
      kind: 'invoice',
      total: sale.total.amount,
      tax: taxAfter(0),
      bought: sale.sold.paid,
    },
    ...sale.credits.map((credit, i): SalesLine => ({
      ...common,
      day: credit.on,
      number: credit.number,
      kind: 'credit note',
      total: negated(credit.refund.amount, common.currency),
      tax: money(new Decimal(taxAfter(i + 1)).minus(taxAfter(i)), common.currency).amount,
      bought: credit.pieceBack ? negated(sale.sold.paid, common.currency) : '0',
    })),
  ];
}

export async function salesLines(db: Queries, from: string, to: string): Promise<SalesLine[]> {
  return (await salesBetween(db, from, to))
    .flatMap(linesOf)
    .filter((line) => line.day >= from && line.day <= to)
    .sort((a, b) => (a.day < b.day ? -1 : a.day > b.day ? 1 : a.number < b.number ? -1 : 1));
}

interface PurchaseRow {
  acquired: string;
  stock_number: string;
  title: string;
  source_kind: string | null;
  source_name: string;
  source_place: string;
  price: string | null;
  price_currency: string | null;
  lot: string | null;
  owner: string | null;
}

/** What came in over a period; a day that is not known for certain counts by its first. */
async function purchaseRows(db: Queries, from: string, to: string): Promise<PurchaseRow[]> {
  return db.rows<PurchaseRow>(
    `SELECT p.acquired, p.stock_number, p.title, p.source_kind, p.source_name, p.source_place, p.price, p.price_currency,
       l.name AS lot, c.name AS owner
     FROM piece p LEFT JOIN lot l ON l.id = p.lot_id LEFT JOIN consignment g ON g.piece_id = p.id
       LEFT JOIN contact c ON c.id = g.contact_id
     WHERE p.acquired_from BETWEEN ? AND ? ORDER BY p.acquired_from, p.id`,
    [from, to],
  );
}

function sumsOf(rows: readonly { currency: string; amounts: readonly string[] }[]): Map<string, Decimal[]> {
  const sums = new Map<string, Decimal[]>();
  for (const { currency, amounts } of rows) {
    const sum = sums.get(currency) ?? amounts.map(() => new Decimal(0));
    sums.set(
      currency,
      sum.map((total, i) => total.plus(amounts[i] ?? 0)),
    );
  }
  return sums;
}

const csv = (header: readonly string[], rows: readonly (readonly string[])[]) =>
  stringify([
    header,
    ...rows.map((row) => row.map((cell) => (/^-?\d+(\.\d+)?$/.test(cell) ? cell : safeCell(cell)))),
  ]);

export function mountRegisters(mount: Mount): void {
  const { database } = mount;
  mount.handle(afterSaleRoutes.salesRegister, async ({ params, query: { from, to }, response }) => {
    const lines = await salesLines(database, from, to);
    response.setHeader('Content-Disposition', `attachment; filename="sales-${from}-${to}.${params.format}"`);
    if (params.format === 'csv')
      response.type('text/csv').send(
        csv(
          [
            'day',
            'number',
            'kind',
            'stock_number',
            'title',
            'buyer',
            'tax_scheme',
            'tax_pct',
            'currency',
            'total',
            'tax',
            'bought_for',
          ],
          lines.map((l) => [
            l.day,
            l.number,
            l.kind,
            l.stockNumber,
            l.title,
            l.buyer,
            l.scheme,
            String(l.taxPct),
            l.currency,
            l.total,
            l.tax,
            l.bought,
          ]),
        ),
      );
    else response.type('application/pdf').send(await salesPdf(database, from, to, lines));
    return undefined;
  });
  mount.handle(afterSaleRoutes.purchaseRegister, async ({ params, query: { from, to }, response }) => {
    const rows = await purchaseRows(database, from, to);
    response.setHeader(
      'Content-Disposition',
      `attachment; filename="purchases-${from}-${to}.${params.format}"`,
    );
    if (params.format === 'csv')
      response.type('text/csv').send(
        csv(
          [
            'day',
            'stock_number',
            'title',
            'from_kind',
            'from',
            'place',
            'lot',
            'currency',
            'price',
            'sold_for',
          ],
          rows.map((r) => [
            r.acquired,
            r.stock_number,
            r.title,
            r.source_kind ?? '',
            r.source_name,
            r.source_place,
            r.lot ?? '',
            r.price_currency ?? '',
            r.price === null ? '' : money(r.price, r.price_currency ?? 'EUR').amount,
            r.owner ?? '',
          ]),
        ),
      );
    else response.type('application/pdf').send(await purchasesPdf(database, from, to, rows));
    return undefined;
  });
}

async function salesPdf(
  db: Database,
  from: string,
  to: string,
  lines: readonly SalesLine[],
): Promise<Buffer> {
  const shownAs = (amount: Decimal.Value, currency: string) => formatMoney(money(amount, currency));
  const sums = sumsOf(lines.map((l) => ({ currency: l.currency, amounts: [l.total, l.tax] })));
  return paper(
    { letterhead: await letterheadOf(db), title: 'Register of sales', running: [`${from} to ${to}`] },
    (on) => {
      on.body(`From ${from} to ${to}: ${lines.length} ${lines.length === 1 ? 'entry' : 'entries'}.`);
      on.space(6);
      on.table(
        [
          { head: 'Day', width: 58 },
          { head: 'Number', width: 72 },
          { head: 'Piece', width: 128 },
          { head: 'Buyer', width: 88 },
          { head: 'Tax', width: 42 },
          { head: 'Sum', width: 50, figures: true },
          { head: 'Of it tax', width: 45, figures: true },
        ],
        lines.map((l) => [
          l.day,
          l.kind === 'invoice' ? l.number : `${l.number} credit`,
          `${l.stockNumber} ${l.title}`,
          l.buyer,
          l.scheme === 'none' ? '–' : `${l.scheme} ${l.taxPct} %`,
          l.total,
          l.tax,
        ]),
        [...sums].map(([currency, [total = 0, tax = 0]]) => [
          '',
          '',
          `All in ${currency}`,
          '',
          '',
          shownAs(total, currency),
          shownAs(tax, currency),
        ]),
      );
      on.small(
        'Tax on the margin is reckoned sale by sale; what is owed is for the shop’s tax adviser to say. Credit notes stand on the day they were given.',
      );
    },
  );
}

async function purchasesPdf(
  db: Database,
  from: string,
  to: string,
  rows: readonly PurchaseRow[],
): Promise<Buffer> {
  const priced = rows.flatMap((r) =>
    r.price === null || r.price_currency === null ? [] : [{ currency: r.price_currency, amounts: [r.price] }],
  );
  return paper(
    { letterhead: await letterheadOf(db), title: 'Register of purchases', running: [`${from} to ${to}`] },
    (on) => {
      on.body(`From ${from} to ${to}: ${rows.length} ${rows.length === 1 ? 'piece' : 'pieces'}.`);
      on.space(6);
      on.table(
        [
          { head: 'Day', width: 70 },
          { head: 'Number', width: 62 },
          { head: 'Piece', width: 160 },
          { head: 'From', width: 126 },
          { head: 'Price', width: 65, figures: true },
        ],
        rows.map((r) => [
          r.acquired,
          r.stock_number,
          r.title,
          [
            r.owner === null ? '' : `for ${r.owner}`,
            r.source_name,
            r.source_place,
            r.lot === null ? '' : `lot: ${r.lot}`,
          ]
            .filter((part) => part !== '')
            .join(', '),
          r.price === null || r.price_currency === null ? '–' : formatMoney(money(r.price, r.price_currency)),
        ]),
        [...sumsOf(priced)].map(([currency, [total = 0]]) => [
          '',
          '',
          `All in ${currency}`,
          '',
          formatMoney(money(total, currency)),
        ]),
      );
    },
  );
}
