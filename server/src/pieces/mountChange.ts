/** Routes that change a piece. */
import type { Route } from '@jutbank/contract/http';
import type { PieceSheet } from '@jutbank/contract/pieces';
import type { Transaction } from '../db/index.ts';
import type { Call, Mount } from '../http/index.ts';
import { changePiece } from './change.ts';
import type { Readers } from './readers.ts';
import type { PieceRecord } from './record.ts';

/** A change to the record as a route is asked for it. */
export async function changeByCall<B>(
  tx: Transaction,
  call: Call<{ id: string }, unknown, B>,
  kind: string,
  work: (before: PieceRecord) => Promise<void>,
): Promise<{ id: string }> {
  const { id } = await changePiece(
    tx,
    { pieceId: call.params.id, person: call.person, ifMatch: call.ifMatch, kind, body: call.body },
    work,
  );
  return { id };
}

/** A route that changes a piece, decided on what the bench says of it, and answered with its sheet. */
export const mountChange = <B>(
  mount: Mount,
  readers: Readers,
  route: Route<{ id: string }, unknown, B, PieceSheet>,
  act: (tx: Transaction, call: Call<{ id: string }, unknown, B>) => Promise<{ id: string }>,
): void => mount.handlePrepared(route, readers.ready, act, readers.tellSheet);
