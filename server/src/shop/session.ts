/** Signed-in sessions: a random secret in the cookie, its hash in the database. */
import { createHash, randomBytes } from 'node:crypto';
import type { Request, Response } from 'express';
import { parseCookie } from 'cookie';
import { ulid } from 'ulid';
import type { Person } from '@jutbank/contract/shop';
import type { Database, Queries, Transaction } from '../db/index.ts';
import { personBySession } from './queries.ts';

const COOKIE = 'jutbank';
const DAYS = 30;

const hashOf = (token: string) => createHash('sha256').update(token).digest('hex');
const tokenIn = (request: Request): string | undefined => parseCookie(request.headers.cookie ?? '')[COOKIE];
/** How the session of a request is known in the database. */
export const sessionHash = (request: Request): string | undefined => {
  const token = tokenIn(request);
  return token === undefined ? undefined : hashOf(token);
};
export const sweepSessions = (db: Queries): Promise<number> =>
  db.run('DELETE FROM session WHERE expires_at < UTC_TIMESTAMP(3)');

export async function beginSession(
  tx: Transaction,
  personId: string,
  request: Request,
  response: Response,
): Promise<void> {
  const token = randomBytes(32).toString('base64url');
  await tx.run(
    'INSERT INTO session (id, token_hash, person_id, address, agent, expires_at) VALUES (?, ?, ?, ?, ?, DATE_ADD(UTC_TIMESTAMP(3), INTERVAL ? DAY))',
    [
      ulid(),
      hashOf(token),
      personId,
      (request.ip ?? '').slice(0, 64),
      (request.get('User-Agent') ?? '').slice(0, 200),
      DAYS,
    ],
  );
  response.cookie(COOKIE, token, {
    httpOnly: true,
    sameSite: 'lax',
    secure: request.secure,
    maxAge: DAYS * 86_400_000,
    path: '/',
  });
}

export async function endSession(db: Queries, request: Request, response: Response): Promise<void> {
  const token = tokenIn(request);
  if (token !== undefined) await db.run('DELETE FROM session WHERE token_hash = ?', [hashOf(token)]);
  response.clearCookie(COOKIE, { path: '/' });
}

export const sessionReader =
  (database: Database) =>
  async (request: Request): Promise<Person | undefined> => {
    const token = tokenIn(request);
    return token === undefined ? undefined : personBySession(database, hashOf(token));
  };
