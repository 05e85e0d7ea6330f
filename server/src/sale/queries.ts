import { money } from '@jutbank/core/money';
import type { Net } from '@jutbank/core/worth';
import type { NetOfSale, SaleRecord } from '@jutbank/contract/sale';
import type { Queries } from '../db/index.ts';
import { instant } from '../pieces/index.ts';

export interface StoredSale extends SaleRecord {
  buyerName: string;
  readonly buyerAddress: string;
  readonly certificate: string;
  readonly ledgerSeq: number;
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
  price: string;
  currency: string;
  /** without channel and tax where it was sold before the shop reckoned with them */
  net: Net & Partial<NetOfSale>;
  cost: string | null;
  cost_currency: string | null;
  margin: string | null;
  certificate_code: string;
  certificate: string;
  ledger_seq: number;
}
const SELECT =
  'SELECT s.id, s.piece_id, p.stock_number, p.title, s.invoice_number, s.sold_at, s.buyer_name, s.buyer_address, s.price, s.currency, s.net, s.cost, s.cost_currency, s.margin, s.certificate_code, s.certificate, s.ledger_seq FROM sale s JOIN piece p ON p.id = s.piece_id';

const saleOf = (row: SaleRow): StoredSale => ({
  id: row.id,
  pieceId: row.piece_id,
  stockNumber: row.stock_number,
  title: row.title,
  invoiceNumber: row.invoice_number,
  soldAt: instant(row.sold_at),
  buyerName: row.buyer_name,
  buyerAddress: row.buyer_address,
  price: money(row.price, row.currency),
  net: { channel: '', tax: '0', left: row.net.net, ...row.net },
  cost: row.cost === null || row.cost_currency === null ? null : money(row.cost, row.cost_currency),
  margin: row.margin === null ? null : money(row.margin, row.currency),
  certificateCode: row.certificate_code,
  certificate: row.certificate,
  ledgerSeq: Number(row.ledger_seq),
});

/** What the routes show: the stored certificate is not part of it. */
export const shown = ({ buyerAddress: _, certificate: _c, ledgerSeq: _s, ...sale }: StoredSale): SaleRecord =>
  sale;

export async function saleById(db: Queries, id: string): Promise<StoredSale | undefined> {
  const row = await db.row<SaleRow>(`${SELECT} WHERE s.id = ?`, [id]);
  return row && saleOf(row);
}
export async function saleByCode(db: Queries, code: string): Promise<StoredSale | undefined> {
  const row = await db.row<SaleRow>(`${SELECT} WHERE s.certificate_code = ?`, [code]);
  return row && saleOf(row);
}
export async function listSales(
  db: Queries,
  before: string | undefined,
  limit: number,
): Promise<StoredSale[]> {
  const rows = await db.rows<SaleRow>(`${SELECT} WHERE s.id < ? ORDER BY s.id DESC LIMIT ?`, [
    before ?? 'Z'.repeat(26),
    limit,
  ]);
  return rows.map(saleOf);
}
export async function countSales(db: Queries): Promise<number> {
  const row = await db.row<{ n: number }>('SELECT COUNT(*) AS n FROM sale');
  return Number(row?.n ?? 0);
}
