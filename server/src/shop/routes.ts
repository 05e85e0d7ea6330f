/** Setting up, signing in and out, people, settings, and finding anything. */
import { ulid } from 'ulid';
import { rateLimit } from 'express-rate-limit';
import { shopRoutes, type SearchHit } from '@jutbank/contract/shop';
import { DUPLICATE_KEY, errorNumber, type Database } from '../db/index.ts';
import { answer, conflict, HttpProblem, invalid, sendProblem, type Mount } from '../http/index.ts';
import { DatabaseCounters } from './attempts.ts';
import { DUMMY_HASH, hashPassword, verifyPassword } from './password.ts';
import { credentialsByEmail, findShop, listPeople, shopOf } from './queries.ts';
import { beginSession, endSession } from './session.ts';

export const VERSION = '0.1.0';
const SIGN_IN_WINDOW_MS = 15 * 60_000;
const SIGN_IN_ATTEMPTS = 10;

/** `Hollin Quay Edge Room` gives `HQ-{0000}`. */
export function schemeFor(shopName: string): string {
  const initials = shopName
    .split(/\s+/)
    .map((word) => word.charAt(0).toUpperCase())
    .filter((c) => /[A-Z]/.test(c));
  return `${initials.slice(0, 2).join('') || 'J'}-{0000}`;
}

export function mountShop(mount: Mount, search: (q: string) => Promise<SearchHit[]>): void {
  const { database } = mount;
  mount.router.use('/session', failedSignIns(database));

  mount.reads(shopRoutes.health, async () => {
    try {
      await database.row('SELECT 1');
    } catch {
      throw new HttpProblem(503);
    }
    return answer({
      status: 'ok' as const,
      version: VERSION,
      empty: (await findShop(database)) === undefined,
    });
  });

  mount.preparedWrites(
    shopRoutes.setup,
    ({ body }) => hashPassword(body.owner.password),
    async (tx, { body, request, response }, passwordHash) => {
      try {
        await tx.run('INSERT INTO shop (id, name, base_currency, stock_scheme) VALUES (1, ?, ?, ?)', [
          body.shopName,
          body.baseCurrency,
          schemeFor(body.shopName),
        ]);
      } catch (error) {
        if (errorNumber(error) === DUPLICATE_KEY)
          throw conflict('This installation has its shop already. Sign in instead.');
        throw error;
      }
      const person = { id: ulid(), name: body.owner.name, email: body.owner.email, role: 'owner' as const };
      await tx.run('INSERT INTO person (id, name, email, role, password_hash) VALUES (?, ?, ?, ?, ?)', [
        person.id,
        person.name,
        person.email,
        person.role,
        passwordHash,
      ]);
      await beginSession(tx, person.id, request, response);
      return answer({ person, shop: await shopOf(tx) });
    },
  );

  mount.preparedWrites(
    shopRoutes.signIn,
    async ({ body }) => {
      const found = await credentialsByEmail(database, body.email);
      const right = await verifyPassword(body.password, found?.passwordHash ?? (await DUMMY_HASH));
      if (!found || !right) throw new HttpProblem(401, 'E-mail and password do not match.');
      return found;
    },
    async (tx, { request, response }, found) => {
      await beginSession(tx, found.person.id, request, response);
      return answer({ person: found.person, shop: await shopOf(tx) });
    },
  );

  mount.writes(shopRoutes.signOut, async (tx, { request, response }) => {
    await endSession(tx, request, response);
    return answer({});
  });

  mount.reads(shopRoutes.session, async ({ person }) => answer({ person, shop: await shopOf(database) }));
  mount.reads(shopRoutes.people, async () => answer({ items: await listPeople(database) }));

  mount.preparedWrites(
    shopRoutes.addPerson,
    ({ body }) => hashPassword(body.password),
    async (tx, { body }, passwordHash) => {
      const person = { id: ulid(), name: body.name, email: body.email, role: body.role };
      try {
        await tx.run('INSERT INTO person (id, name, email, role, password_hash) VALUES (?, ?, ?, ?, ?)', [
          person.id,
          person.name,
          person.email,
          person.role,
          passwordHash,
        ]);
      } catch (error) {
        if (errorNumber(error) === DUPLICATE_KEY)
          throw invalid([{ pointer: '/email', message: 'somebody has an account with this e-mail' }]);
        throw error;
      }
      return answer(person);
    },
  );

  mount.writes(shopRoutes.putShop, async (tx, { body }) => {
    await tx.run('UPDATE shop SET name = ?, stock_scheme = ? WHERE id = 1', [body.name, body.stockScheme]);
    return answer(await shopOf(tx));
  });

  mount.reads(shopRoutes.search, async ({ query }) => answer({ items: await search(query.q) }));
}

/** Counts failed sign-ins by address; a right one does not count. */
function failedSignIns(database: Database) {
  return rateLimit({
    windowMs: SIGN_IN_WINDOW_MS,
    limit: SIGN_IN_ATTEMPTS,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    store: new DatabaseCounters(database, SIGN_IN_WINDOW_MS, 'sign-in '),
    skip: (request) => request.method !== 'POST',
    skipSuccessfulRequests: true,
    handler: (_request, response) =>
      sendProblem(response, new HttpProblem(429, 'Too many attempts to sign in. Wait a quarter of an hour.')),
  });
}
