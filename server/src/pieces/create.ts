/** A piece comes into the books: its stock number, its first stage, the first entry of its ledger. */
import { ulid } from 'ulid';
import { stageOf, stockNumber } from '@jutbank/core/pieces';
import type { IntakeBody } from '@jutbank/contract/pieces';
import type { Person } from '@jutbank/contract/shop';
import type { Transaction, Value } from '../db/index.ts';
import { invalid } from '../http/index.ts';
import { appendLedger } from '../ledger/index.ts';
import { shopOf, takeNumber } from '../shop/index.ts';
import { dayBounds } from './change.ts';

/** @param more columns of the piece beyond its intake */
export async function createPiece(
  tx: Transaction,
  body: IntakeBody,
  person: Person,
  more: Readonly<Record<string, Value>> = {},
): Promise<string> {
  const id = ulid();
  const number = stockNumber((await shopOf(tx)).stockScheme, await takeNumber(tx, 'next_stock'));
  if (number === undefined)
    throw invalid([{ pointer: '', message: 'the shop’s stock scheme has no place for a number' }]);
  const columns = { ...intakeColumns(body), ...more };
  const names = Object.keys(columns);
  const stage = stageOf({
    hasSource: body.sourceKind !== null,
    hasPrice: body.price !== null,
    hasPicture: false,
    attributed: false,
    inspected: false,
    priced: false,
    custodyEvents: 0,
    published: false,
    sold: false,
    givenBack: false,
  });
  await tx.run(
    `INSERT INTO piece (id, stock_number, stage, completeness, ${names.join(', ')}) VALUES (?, ?, ?, '{}', ${names.map(() => '?').join(', ')})`,
    [id, number, stage, ...Object.values(columns)],
  );
  await appendLedger(tx, { pieceId: id, kind: 'taken-in', person, body: { stockNumber: number, ...body } });
  return id;
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
  };
}
