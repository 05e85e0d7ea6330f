/** People: given and taken away, their roles and passwords, where they are signed in, their second factor. */
import QRCode from 'qrcode';
import { ulid } from 'ulid';
import { shopRoutes, type Person, type SessionOnList } from '@jutbank/contract/shop';
import { instant, DUPLICATE_KEY, errorNumber, type Queries, type Transaction } from '../db/index.ts';
import { answer, conflict, HttpProblem, invalid, notFound, type Mount } from '../http/index.ts';
import { appendLedger } from '../ledger/index.ts';
import { hashPassword, verifyPassword } from './password.ts';
import { credentialsById, listPeople, shopOf } from './queries.ts';
import { addressOf, newSecret, stepOf } from './secondFactor.ts';
import { sessionHash } from './session.ts';

const ALL_SESSIONS = 'DELETE FROM session WHERE person_id = ?';

export function mountPeople(mount: Mount): void {
  const { database } = mount;

  mount.handle(shopRoutes.people, async () => answer({ items: await listPeople(database) }));

  mount.handlePrepared(
    shopRoutes.addPerson,
    ({ body }) => hashPassword(body.password),
    async (tx, { body, person }, passwordHash) => {
      const added: Person = { id: ulid(), name: body.name, email: body.email, role: body.role };
      try {
        await tx.run('INSERT INTO person (id, name, email, role, password_hash) VALUES (?, ?, ?, ?, ?)', [
          added.id,
          added.name,
          added.email,
          added.role,
          passwordHash,
        ]);
      } catch (error) {
        if (errorNumber(error) === DUPLICATE_KEY)
          throw invalid([{ pointer: '/email', message: 'somebody has an account with this e-mail' }]);
        throw error;
      }
      await noted(tx, person, 'account-given', { id: added.id, name: added.name, role: added.role });
      return answer(added);
    },
  );

  mount.handleInTransaction(shopRoutes.changePerson, async (tx, { params, body, person }) => {
    const before = await locked(tx, params.id);
    if (before.role === 'owner' && body.role !== 'owner') await anotherOwner(tx, params.id);
    await tx.run('UPDATE person SET name = ?, role = ? WHERE id = ?', [body.name, body.role, params.id]);
    if (before.role !== body.role) await tx.run(ALL_SESSIONS, [params.id]);
    await noted(tx, person, 'account-changed', { id: params.id, ...body });
    return answer({ ...before, ...body });
  });

  mount.handleInTransaction(shopRoutes.removePerson, async (tx, { params, person }) => {
    const before = await locked(tx, params.id);
    if (before.role === 'owner') await anotherOwner(tx, params.id);
    await tx.run(ALL_SESSIONS, [params.id]);
    // the name stays for what was done; the address is free for somebody else
    await tx.run(
      "UPDATE person SET removed_at = UTC_TIMESTAMP(3), email = CONCAT('removed ', id), password_hash = '', totp_secret = NULL, totp_since = NULL WHERE id = ?",
      [params.id],
    );
    await noted(tx, person, 'account-taken-away', { id: params.id, name: before.name });
    return answer({ removed: params.id });
  });

  mount.handlePrepared(
    shopRoutes.resetPassword,
    ({ body }) => hashPassword(body.password),
    async (tx, { params, person }, passwordHash) => {
      const { name } = await locked(tx, params.id);
      await tx.run('UPDATE person SET password_hash = ? WHERE id = ?', [passwordHash, params.id]);
      await noted(tx, person, 'password-given', { id: params.id, name });
      return answer({ ended: await tx.run(ALL_SESSIONS, [params.id]) });
    },
  );

  mount.handleInTransaction(shopRoutes.endSessionsOf, async (tx, { params, person }) => {
    const { name } = await locked(tx, params.id);
    await noted(tx, person, 'sessions-ended', { id: params.id, name });
    return answer({ ended: await tx.run(ALL_SESSIONS, [params.id]) });
  });

  mount.handleInTransaction(shopRoutes.dropSecondFactor, async (tx, { params, person }) => {
    const { name } = await locked(tx, params.id);
    await tx.run('UPDATE person SET totp_secret = NULL, totp_since = NULL WHERE id = ?', [params.id]);
    await noted(tx, person, 'second-factor-taken-away', { id: params.id, name });
    return answer({ ended: await tx.run(ALL_SESSIONS, [params.id]) });
  });

  mountOwnAccount(mount);
}

/** What everybody does with their own account. */
function mountOwnAccount(mount: Mount): void {
  const { database } = mount;
  /** @throws 422 beside the field for a wrong one */
  const needPassword = async (person: Person, password: string, pointer: string): Promise<void> => {
    const own = await credentialsById(database, person.id);
    if (!own || !(await verifyPassword(password, own.passwordHash)))
      throw invalid([{ pointer, message: 'this is not your password' }]);
  };

  mount.handlePrepared(
    shopRoutes.changePassword,
    async ({ body, person }) => {
      await needPassword(person, body.current, '/current');
      return hashPassword(body.password);
    },
    async (tx, { person, request }, passwordHash) => {
      await tx.run('UPDATE person SET password_hash = ? WHERE id = ?', [passwordHash, person.id]);
      const ended = await tx.run('DELETE FROM session WHERE person_id = ? AND token_hash <> ?', [
        person.id,
        sessionHash(request) ?? '',
      ]);
      await noted(tx, person, 'password-changed', { id: person.id });
      return answer({ ended });
    },
  );

  mount.handle(shopRoutes.sessions, async ({ person, request }) =>
    answer({ items: await sessionsOf(database, person.id, sessionHash(request)) }),
  );
  mount.handleInTransaction(shopRoutes.endSession, async (tx, { params, person }) => {
    const ended = await tx.run('DELETE FROM session WHERE id = ? AND person_id = ?', [params.id, person.id]);
    if (ended === 0) throw notFound('session');
    return answer({ ended });
  });

  mount.handleInTransaction(shopRoutes.beginSecondFactor, async (tx, { person }) => {
    const own = await credentialsById(tx, person.id);
    if (own?.secret != null) throw conflict('You have a second factor. Leave it before you take another.');
    const secret = newSecret();
    await tx.run('UPDATE person SET totp_secret = ?, totp_since = NULL, totp_counter = NULL WHERE id = ?', [
      secret,
      person.id,
    ]);
    const uri = addressOf(secret, person.email, (await shopOf(tx)).name);
    return answer({ secret, uri, qr: await QRCode.toDataURL(uri, { margin: 1, width: 220 }) });
  });
  mount.handleInTransaction(shopRoutes.takeSecondFactor, async (tx, { body, person }) => {
    const row = await tx.row<{ secret: string | null }>(
      'SELECT totp_secret AS secret FROM person WHERE id = ? AND totp_since IS NULL FOR UPDATE',
      [person.id],
    );
    if (row?.secret == null) throw conflict('Ask for a secret first.');
    const step = stepOf(row.secret, body.code, null);
    if (step === undefined)
      throw invalid([{ pointer: '/code', message: 'this code does not fit; take the next one' }]);
    await tx.run('UPDATE person SET totp_since = UTC_TIMESTAMP(3), totp_counter = ? WHERE id = ?', [
      step,
      person.id,
    ]);
    await noted(tx, person, 'second-factor-taken', { id: person.id });
    return answer({ secondFactor: true });
  });
  mount.handlePrepared(
    shopRoutes.leaveSecondFactor,
    ({ body, person }) => needPassword(person, body.password, '/password'),
    async (tx, { person }) => {
      await tx.run('UPDATE person SET totp_secret = NULL, totp_since = NULL WHERE id = ?', [person.id]);
      await noted(tx, person, 'second-factor-left', { id: person.id });
      return answer({ secondFactor: false });
    },
  );
}

const noted = (tx: Transaction, person: Person, kind: string, body: unknown) =>
  appendLedger(tx, { pieceId: null, kind, person, body });

async function locked(tx: Transaction, id: string): Promise<Person> {
  const row = await tx.row<{ id: string; name: string; email: string; role: Person['role'] }>(
    'SELECT id, name, email, role FROM person WHERE id = ? AND removed_at IS NULL FOR UPDATE',
    [id],
  );
  if (!row) throw notFound('person');
  return row;
}

/** A shop without an owner could never give anybody an account again. */
async function anotherOwner(tx: Transaction, id: string): Promise<void> {
  const others = await tx.rows<{ id: string }>(
    "SELECT id FROM person WHERE role = 'owner' AND removed_at IS NULL ORDER BY id FOR UPDATE",
  );
  if (!others.some((o) => o.id !== id))
    throw new HttpProblem(409, 'This is the only owner. Make somebody else an owner first.');
}

async function sessionsOf(db: Queries, personId: string, own: string | undefined): Promise<SessionOnList[]> {
  const rows = await db.rows<{
    id: string;
    token_hash: string;
    begun_at: string;
    seen_at: string;
    address: string;
    agent: string;
  }>(
    'SELECT id, token_hash, begun_at, seen_at, address, agent FROM session WHERE person_id = ? AND expires_at > UTC_TIMESTAMP(3) ORDER BY seen_at DESC',
    [personId],
  );
  return rows.map((row) => ({
    id: row.id,
    begunAt: instant(row.begun_at),
    seenAt: instant(row.seen_at),
    address: row.address,
    agent: row.agent,
    own: row.token_hash === own,
  }));
}
