/** People come, change and go; their sessions end with what they may no longer do; a second factor. */
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { Secret, TOTP } from 'otpauth';
import { OWNER, serverForTest, type TestServer, type Visitor } from '../testing/index.ts';

let server: TestServer;
beforeAll(async () => {
  server = await serverForTest();
});
afterAll(() => server.close());

let count = 0;
const PASSWORD = 'a long enough word';
async function hired(role = 'clerk'): Promise<{
  id: string;
  email: string;
  signIn: (password?: string, code?: string) => Promise<{ status: number; visitor: Visitor; body: any }>;
}> {
  const email = `person${count++}@hollinquay.example`;
  const made = await server.owner.call('POST', '/people', {
    name: `Person ${count}`,
    email,
    password: PASSWORD,
    role,
  });
  expect(made.status).toBe(201);
  return {
    id: made.body.id,
    email,
    signIn: async (password = PASSWORD, code) => {
      const visitor = server.nobody();
      const reply = await visitor.call('POST', '/session', {
        email,
        password,
        ...(code === undefined ? {} : { code }),
      });
      return { status: reply.status, visitor, body: reply.body };
    },
  };
}
const asked = async (visitor: Visitor) => (await visitor.call('GET', '/session')).status;

describe('an account', () => {
  test('taken away signs nobody in any more; the name stays on what was done, the address is free', async () => {
    const clerk = await hired();
    const { visitor } = await clerk.signIn();
    const piece = (
      await visitor.call('POST', '/pieces', {
        title: 'Jack',
        construction: 'slipjoint',
        sourceKind: 'fair',
        acquired: null,
        price: null,
        asFound: null,
      })
    ).body;
    expect((await server.owner.call('DELETE', `/people/${clerk.id}`)).status).toBe(200);
    expect(await asked(visitor)).toBe(401);
    expect((await clerk.signIn()).status).toBe(401);
    const ledger = (await server.owner.call('GET', `/pieces/${piece.id}/ledger`)).body as {
      items: { by: string }[];
    };
    expect(ledger.items[0]?.by).toMatch(/^Person /);
    const again = await server.owner.call('POST', '/people', {
      name: 'Next',
      email: clerk.email,
      password: PASSWORD,
      role: 'reader',
    });
    expect(again.status).toBe(201);
  });
  test('with another role begins anew; the same role goes on', async () => {
    const clerk = await hired();
    const { visitor } = await clerk.signIn();
    const put = (role: string) => server.owner.call('PUT', `/people/${clerk.id}`, { name: 'Renamed', role });
    await put('clerk');
    expect(await asked(visitor)).toBe(200);
    await put('reader');
    expect(await asked(visitor)).toBe(401);
    expect((await clerk.signIn()).body.person).toMatchObject({ name: 'Renamed', role: 'reader' });
  });
  test('of the only owner cannot be given up or taken away', async () => {
    const { body } = await server.owner.call('GET', '/people');
    const owner = body.items.find((p: { email: string }) => p.email === OWNER.email);
    expect(
      (await server.owner.call('PUT', `/people/${owner.id}`, { name: 'Ines', role: 'clerk' })).status,
    ).toBe(409);
    expect((await server.owner.call('DELETE', `/people/${owner.id}`)).status).toBe(409);
  });
  test('is in the hands of an owner only', async () => {
    const clerk = await hired();
    const { visitor } = await clerk.signIn();
    for (const [method, path] of [
      ['PUT', `/people/${clerk.id}`],
      ['DELETE', `/people/${clerk.id}`],
      ['PUT', `/people/${clerk.id}/password`],
      ['DELETE', `/people/${clerk.id}/sessions`],
    ] as const)
      expect(
        (
          await visitor.call(
            method,
            path,
            method === 'PUT' ? { password: PASSWORD, name: 'x', role: 'owner' } : undefined,
          )
        ).status,
      ).toBe(403);
  });
});

describe('a password', () => {
  test('changed by oneself ends all sessions but this one; the old one is asked for', async () => {
    const clerk = await hired();
    const [here, there] = [(await clerk.signIn()).visitor, (await clerk.signIn()).visitor];
    const change = (current: string) =>
      here.call('PUT', '/session/password', { current, password: 'another long word' });
    expect((await change('wrong')).body.errors[0].pointer).toBe('/current');
    expect((await change(PASSWORD)).body).toEqual({ ended: 1 });
    expect([await asked(here), await asked(there)]).toEqual([200, 401]);
    expect([(await clerk.signIn()).status, (await clerk.signIn('another long word')).status]).toEqual([
      401, 200,
    ]);
  });
  test('given anew by the owner ends all', async () => {
    const clerk = await hired();
    const { visitor } = await clerk.signIn();
    expect(
      (await server.owner.call('PUT', `/people/${clerk.id}/password`, { password: 'given by the owner' }))
        .body,
    ).toEqual({ ended: 1 });
    expect(await asked(visitor)).toBe(401);
    expect((await clerk.signIn('given by the owner')).status).toBe(200);
  });
  test('stands in no stored key, not even as a hash', async () => {
    await server.owner.call(
      'POST',
      '/people',
      { name: 'K', email: 'k@hollinquay.example', password: PASSWORD, role: 'reader' },
      { 'Idempotency-Key': 'secret-one' },
    );
    await server
      .nobody()
      .call(
        'POST',
        '/session',
        { email: 'k@hollinquay.example', password: PASSWORD },
        { 'Idempotency-Key': 'secret-two' },
      );
    expect(
      await server.database.rows("SELECT request_key FROM idempotency_key WHERE request_key LIKE 'secret-%'"),
    ).toEqual([]);
  });
});

describe('sessions', () => {
  test('are listed for their owner, and ended one by one or all', async () => {
    const clerk = await hired();
    const [here, there] = [(await clerk.signIn()).visitor, (await clerk.signIn()).visitor];
    const list = (await here.call('GET', '/sessions')).body.items as { id: string; own: boolean }[];
    expect(list).toHaveLength(2);
    const other = list.find((s) => !s.own);
    // nobody else's
    expect((await server.owner.call('DELETE', `/sessions/${other?.id}`)).status).toBe(404);
    expect((await here.call('DELETE', `/sessions/${other?.id}`)).status).toBe(200);
    expect([await asked(here), await asked(there)]).toEqual([200, 401]);
    expect((await server.owner.call('DELETE', `/people/${clerk.id}/sessions`)).body).toEqual({ ended: 1 });
    expect(await asked(here)).toBe(401);
  });
});

describe('too many wrong passwords', () => {
  test('lock out nobody else behind the same address, and no right one', async () => {
    const [victim, colleague] = [await hired(), await hired()];
    const statuses = [];
    for (let i = 0; i < 12; i++) statuses.push((await victim.signIn(`guess number ${i}`)).status);
    expect(statuses.slice(0, 10)).toEqual(Array.from({ length: 10 }, () => 401));
    expect(statuses.slice(10)).toEqual([429, 429]);
    expect((await colleague.signIn()).status).toBe(200);
    // those were somebody else's
    expect((await victim.signIn()).status).toBe(200);
  }, 30_000);
});

describe('a second factor', () => {
  const codeOf = (secret: string, ago = 0) =>
    new TOTP({ secret: Secret.fromBase32(secret) }).generate({ timestamp: Date.now() - ago * 30_000 });
  test('is asked for once a code of it was told; none counts twice; the owner can take it away', async () => {
    const clerk = await hired();
    const { visitor } = await clerk.signIn();
    const { secret, uri } = (await visitor.call('POST', '/session/second-factor', {})).body;
    expect(uri).toMatch(/^otpauth:\/\/totp\//);
    // asked for, but not taken yet
    expect((await clerk.signIn()).status).toBe(200);
    const take = (code: string) => visitor.call('PUT', '/session/second-factor', { code });
    expect((await take('000000')).status).toBe(422);
    expect((await take(codeOf(secret, 1))).status).toBe(200);
    const without = await clerk.signIn();
    expect([without.status, without.body.code]).toEqual([401, 'second-factor']);
    expect((await clerk.signIn(PASSWORD, '123456')).status).toBe(401);
    const code = codeOf(secret);
    expect((await clerk.signIn(PASSWORD, code)).status).toBe(200);
    expect((await clerk.signIn(PASSWORD, code)).status).toBe(401);
    expect((await server.owner.call('DELETE', `/people/${clerk.id}/second-factor`)).status).toBe(200);
    expect((await clerk.signIn()).status).toBe(200);
  });
  test('is left with the password once more', async () => {
    const clerk = await hired();
    const { visitor } = await clerk.signIn();
    const { secret } = (await visitor.call('POST', '/session/second-factor', {})).body;
    await visitor.call('PUT', '/session/second-factor', { code: codeOf(secret) });
    expect((await visitor.call('PUT', '/session/second-factor/none', { password: 'wrong' })).status).toBe(
      422,
    );
    expect((await visitor.call('PUT', '/session/second-factor/none', { password: PASSWORD })).body).toEqual({
      secondFactor: false,
    });
    expect((await clerk.signIn()).status).toBe(200);
  });
});

test('who did what is asked by person and kind, page by page, and goes out as CSV; only an owner sees it', async () => {
  const clerk = await hired();
  const { visitor } = await clerk.signIn();
  for (let i = 0; i < 3; i++)
    await visitor.call('POST', '/pieces', {
      title: i === 0 ? '=1+1' : 'Jack',
      construction: 'slipjoint',
      sourceKind: 'fair',
      acquired: null,
      price: null,
      asFound: null,
    });
  const name = (await visitor.call('GET', '/session')).body.person.name as string;
  const asked = `person=${encodeURIComponent(name)}&kind=taken-in`;
  const first = (await server.owner.call('GET', `/ledger?limit=2&${asked}`)).body;
  expect([first.items.length, first.total]).toEqual([2, 3]);
  const rest = (await server.owner.call('GET', `/ledger?limit=2&${asked}&cursor=${first.nextCursor}`)).body;
  expect(rest.items).toHaveLength(1);
  expect(rest.items[0].title).toBe('=1+1');
  const today = new Date().toISOString().slice(0, 10);
  expect((await server.owner.call('GET', `/ledger?${asked}&from=${today}&to=${today}`)).body.total).toBe(3);
  expect((await server.owner.call('GET', `/ledger?${asked}&to=2020-01-01`)).body.total).toBe(0);
  const csv = (await server.owner.call<string>('GET', `/ledger/export.csv?${asked}`)).body
    .trim()
    .split(/\r?\n/);
  expect(csv).toHaveLength(4);
  expect(csv[0]).toBe('seq,at,by,kind,piece,body,hash');
  expect((await visitor.call('GET', '/ledger')).status).toBe(403);
});

test('codes of certificates cannot be tried one after the other', async () => {
  const statuses = await Promise.all(
    Array.from({ length: 70 }, (_, i) =>
      server.nobody().call('GET', `/certificates/AAAABBBB${String(i).padStart(4, '0')}`),
    ),
  );
  expect(statuses.filter((s) => s.status === 429).length).toBeGreaterThan(5);
});
