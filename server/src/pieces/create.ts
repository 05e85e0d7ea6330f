/** Pieces come into the books: their stock numbers, their first stage, the first entry of each one's ledger. */
import { ulid } from 'ulid';
import { stageOf, stockNumber } from '@jutbank/core/pieces';
import type { IntakeBody } from '@jutbank/contract/pieces';
import type { Person } from '@jutbank/contract/shop';
import { placeholders, type Queries, type Transaction, type Value } from '../db/index.ts';
import { invalid } from '../http/index.ts';
import { appendEntries } from '../ledger/index.ts';
import { shopOf, takeNumber } from '../shop/index.ts';
import { dayBounds } from './change.ts';

export interface NewPiece {
  readonly intake: IntakeBody;
  /** the number it has already; nobody else's, which the caller has made sure of */
  readonly stockNumber?: string | null;
  /** columns of the piece beyond its intake, the same ones for all that come at once */
  readonly more?: Readonly<Record<string, Value>>;
  /** what else was written down with it, by the kind of entry under which its stage writes that */
  readonly entries?: readonly { readonly kind: string; readonly body: unknown }[];
}

/** @param more columns of the piece beyond its intake */
export async function createPiece(
  tx: Transaction,
  intake: IntakeBody,
  person: Person,
  more: Readonly<Record<string, Value>> = {},
): Promise<string> {
  const [id] = await createPieces(tx, [{ intake, more }], person);
  if (id === undefined) throw new Error('the piece was not stored');
  return id;
}

/** @returns their ids, in their order */
export async function createPieces(
  tx: Transaction,
  pieces: readonly NewPiece[],
  person: Person,
): Promise<string[]> {
  if (pieces.length === 0) return [];
  const given = await freeNumbers(tx, pieces.filter((piece) => piece.stockNumber == null).length);
  const rows = pieces.map((piece) => {
    const number = piece.stockNumber ?? given.shift() ?? '';
    const columns: Record<string, Value> = {
      completeness: '{}',
      ...intakeColumns(piece.intake),
      ...piece.more,
    };
    return { ...piece, id: ulid(), number, columns };
  });
  const names = Object.keys(rows[0]?.columns ?? {});
  await tx.insertMany(
    `INSERT INTO piece (id, stock_number, stage, ${names.join(', ')}) VALUES ?`,
    rows.map(({ id, number, intake, columns }) => [
      id,
      number,
      firstStage(intake),
      ...names.map((name) => columns[name] ?? null),
    ]),
  );
  await appendEntries(
    tx,
    rows.flatMap(({ id, number, intake, entries = [] }) => [
      { pieceId: id, kind: 'taken-in', person, body: { stockNumber: number, ...intake } },
      ...entries.map((entry) => ({ pieceId: id, person, ...entry })),
    ]),
  );
  return rows.map(({ id }) => id);
}

/** Without a picture it stands at intake, whatever else is known. */
const firstStage = ({ sourceKind, price }: IntakeBody) =>
  stageOf({
    hasSource: sourceKind !== null,
    hasPrice: price !== null,
    hasPicture: false,
    attributed: false,
    inspected: false,
    priced: false,
    custodyEvents: 0,
    published: false,
    sold: false,
    givenBack: false,
  });

/** The next numbers of the shop's scheme; one that a piece brought along from elsewhere is passed over. */
async function freeNumbers(tx: Transaction, count: number): Promise<string[]> {
  if (count === 0) return [];
  const { stockScheme } = await shopOf(tx);
  const free: string[] = [];
  while (free.length < count) {
    const missing = count - free.length;
    const first = await takeNumber(tx, 'next_stock', missing);
    const next = Array.from({ length: missing }, (_, i) => stockNumber(stockScheme, first + i));
    if (next.includes(undefined))
      throw invalid([{ pointer: '', message: 'the shop’s stock scheme has no place for a number' }]);
    const numbers = next.filter((number) => number !== undefined);
    const taken = await numbersInUse(tx, numbers);
    free.push(...numbers.filter((number) => !taken.has(numberKey(number))));
  }
  return free;
}

/** As the database tells numbers apart: `HQ-1` and `hq-1` are one. */
export const numberKey = (number: string): string =>
  number.trim().normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();

/** Stock numbers of these that some piece has, as `numberKey` writes them. */
export async function numbersInUse(db: Queries, numbers: readonly string[]): Promise<Set<string>> {
  if (numbers.length === 0) return new Set();
  const rows = await db.rows<{ stock_number: string }>(
    `SELECT stock_number FROM piece WHERE stock_number IN (${placeholders(numbers)})`,
    numbers,
  );
  return new Set(rows.map((row) => numberKey(row.stock_number)));
}

export function intakeColumns(body: IntakeBody): Record<string, Value> {
  const [from, to] = dayBounds(body.acquired);
  return {
    title: body.title,
    construction: body.construction,
    source_kind: body.sourceKind,
    source_name: body.sourceName,
    source_place: body.sourcePlace,
    acquired: body.acquired,
    acquired_from: from,
    acquired_to: to,
    price: body.price?.amount ?? null,
    price_currency: body.price?.currency ?? null,
    seller_statement: body.sellerStatement,
    came_with: body.cameWith,
    as_found: body.asFound,
    taken_in_as: body.takenInAs,
    shop_note: body.shopNote,
  };
}
