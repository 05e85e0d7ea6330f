/** Setting up, signing in and out, people, settings, and finding anything. */
import { createRequire } from 'node:module';
import { ulid } from 'ulid';
import { type Person, shopRoutes, type SearchHit } from '@jutbank/contract/shop';
import { DUPLICATE_KEY, errorNumber } from '../db/index.ts';
import { answer, conflict, HttpProblem, type Mount } from '../http/index.ts';
import { hashPassword } from './password.ts';
import { mountPaperSettings } from './paperSettings.ts';
import { mountPricingSettings } from './pricingSettings.ts';
import { mountPeople } from './people.ts';
import { findShop, shopOf } from './queries.ts';
import { beginSession, endSession } from './session.ts';
import { SignIn } from './signIn.ts';

/** As package.json has it. */
export const VERSION = (createRequire(import.meta.url)('../../../package.json') as { version: string })
  .version;

/** `Hollin Quay Edge Room` gives `HQ-{0000}`. */
export function schemeFor(shopName: string): string {
  const initials = shopName
    .split(/\s+/)
    .map((word) => word.charAt(0).toUpperCase())
    .filter((c) => /[A-Z]/.test(c));
  return `${initials.slice(0, 2).join('') || 'J'}-{0000}`;
}

export function mountShop(mount: Mount, search: (q: string, person: Person) => Promise<SearchHit[]>): void {
  mountPricingSettings(mount);
  mountPaperSettings(mount);
  const { database } = mount;
  const signIn = new SignIn(database);

  mount.handle(shopRoutes.health, async () => {
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

  mount.handlePrepared(
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

  mount.handlePrepared(
    shopRoutes.signIn,
    ({ body, request }) => signIn.check(body, request.ip ?? ''),
    async (tx, { request, response }, { person, step }) => {
      if (step !== null) await tx.run('UPDATE person SET totp_counter = ? WHERE id = ?', [step, person.id]);
      await beginSession(tx, person.id, request, response);
      return answer({ person, shop: await shopOf(tx) });
    },
  );

  mount.handleInTransaction(shopRoutes.signOut, async (tx, { request, response }) => {
    await endSession(tx, request, response);
    return answer({});
  });

  mount.handle(shopRoutes.session, async ({ person }) => answer({ person, shop: await shopOf(database) }));
  mountPeople(mount);

  mount.handleInTransaction(shopRoutes.putShop, async (tx, { body }) => {
    await tx.run(
      'UPDATE shop SET name = ?, stock_scheme = ?, reader_sees = COALESCE(?, reader_sees), day_first = COALESCE(?, day_first) WHERE id = 1',
      [
        body.name,
        body.stockScheme,
        body.readerSees ? JSON.stringify(body.readerSees) : null,
        body.dayFirst ?? null,
      ],
    );
    return answer(await shopOf(tx));
  });

  mount.handle(shopRoutes.search, async ({ query, person }) =>
    answer({ items: await search(query.q, person) }),
  );
}
