/**
 * Idempotency: a POST with a key is carried out once, and its first answer comes back to every repeat. The key is taken
 * inside the transaction of the change, so that either both stand or neither; a repeat at the same time waits for it.
 */
import { createHash } from 'node:crypto';
import type { Request } from 'express';
import { DUPLICATE_KEY, errorNumber, type Database, type Queries, type Transaction } from '../db/index.ts';
import { HttpProblem } from './problem.ts';

export interface Answered<A> {
  readonly body: A;
  readonly status?: number;
  readonly etag?: string;
  readonly headers?: Record<string, string>;
  /** what the next request would otherwise wait for: done once the transaction is committed, before the answer */
  readonly afterCommit?: () => Promise<unknown>;
}
export const answer = <A>(body: A, more: Omit<Answered<A>, 'body'> = {}): Answered<A> => ({ body, ...more });

/** What is kept of a change: its answer, or the word from which the answer is still to be told. */
type Kept<A, R> =
  | { readonly answered: Answered<A>; readonly result?: undefined }
  | { readonly answered?: undefined; readonly result: R };

const LONGEST_KEY = 200;

export interface Once {
  readonly person: string;
  readonly key: string;
  /** of method, address and body: a key belongs to one request */
  readonly hash: string;
}

/** @throws 400 for a key that is none */
export function onceOf(request: Request, person: string, body: unknown): Once | undefined {
  const key = request.get('Idempotency-Key');
  if (key === undefined) return undefined;
  if (key.length === 0 || key.length > LONGEST_KEY)
    throw new HttpProblem(400, `Idempotency-Key has 1 to ${LONGEST_KEY} characters.`);
  const hash = createHash('sha256')
    .update(JSON.stringify([request.method, request.originalUrl, body]))
    .digest('hex');
  return { person, key, hash };
}

/** @throws 422 when the key was used for another request */
async function keptOnce<A, R>(db: Queries, once: Once): Promise<Kept<A, R> | undefined> {
  const row = await db.row<{
    request_hash: string;
    status: number | null;
    body: A;
    headers: Record<string, string> | null;
    result: R;
  }>(
    'SELECT request_hash, status, body, headers, result FROM idempotency_key WHERE person_id = ? AND request_key = ?',
    [once.person, once.key],
  );
  if (!row) return undefined;
  if (row.request_hash !== once.hash)
    throw new HttpProblem(422, 'This Idempotency-Key was used for another request.');
  if (row.status === null) return { result: row.result };
  const { ETag: etag, ...headers } = row.headers ?? {};
  return {
    answered: answer(row.body, { status: row.status, headers, ...(etag === undefined ? {} : { etag }) }),
  };
}

/**
 * The answer to a key, whoever was given it first; without a key the change is simply made.
 * @param begin what must be read before the transaction, and then its work; @param tell the answer, once it is committed
 */
export async function answeredOnce<A, R>(
  database: Database,
  once: Once | undefined,
  usual: number,
  begin: () => Promise<(tx: Transaction) => Promise<R>>,
  tell: (result: R) => Promise<Answered<A>>,
): Promise<Answered<A>> {
  const before = once && (await keptOnce<A, R>(database, once));
  if (before?.answered) return before.answered;
  const change = async (): Promise<Kept<A, R>> => {
    const act = await begin();
    return once ? takeOnce<A, R>(database, once, act) : { result: await database.transaction(act) };
  };
  const kept = before ?? (await change());
  if (kept.answered) return kept.answered;
  const answered = await tell(kept.result);
  if (once) await keepAnswer(database, once, answered, usual);
  return answered;
}

/** Takes the key, changes, and keeps the word of it; of two at the same time the second gets the first's. */
async function takeOnce<A, R>(
  database: Database,
  once: Once,
  act: (tx: Transaction) => Promise<R>,
): Promise<Kept<A, R>> {
  try {
    return await database.transaction(async (tx) => {
      await tx.run('INSERT INTO idempotency_key (person_id, request_key, request_hash) VALUES (?, ?, ?)', [
        once.person,
        once.key,
        once.hash,
      ]);
      const result = await act(tx);
      await tx.run('UPDATE idempotency_key SET result = ? WHERE person_id = ? AND request_key = ?', [
        JSON.stringify(result ?? null),
        once.person,
        once.key,
      ]);
      return { result };
    });
  } catch (error) {
    const first = errorNumber(error) === DUPLICATE_KEY ? await keptOnce<A, R>(database, once) : undefined;
    if (first) return first;
    throw error;
  }
}

/** From now on this is the answer, whatever the change would be told as later. */
async function keepAnswer<A>(db: Queries, once: Once, answered: Answered<A>, usual: number): Promise<void> {
  await db.run(
    'UPDATE idempotency_key SET status = ?, body = ?, headers = ?, result = NULL WHERE person_id = ? AND request_key = ? AND status IS NULL',
    [
      answered.status ?? usual,
      JSON.stringify(answered.body ?? null),
      JSON.stringify({
        ...answered.headers,
        ...(answered.etag === undefined ? {} : { ETag: answered.etag }),
      }),
      once.person,
      once.key,
    ],
  );
}

/** Repeats come within minutes; after a day a key is forgotten. */
export const KEPT_FOR_HOURS = 24;
export const sweepKeys = (db: Queries): Promise<number> =>
  db.run('DELETE FROM idempotency_key WHERE created_at < DATE_SUB(UTC_TIMESTAMP(3), INTERVAL ? HOUR)', [
    KEPT_FOR_HOURS,
  ]);
