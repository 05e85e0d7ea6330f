import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { OWNER, serverForTest, Visitor, type TestServer } from '../testing/index.ts';

let server: TestServer;
beforeAll(async () => {
  server = await serverForTest(false);
});
afterAll(() => server.close());

test('health answers before anything is set up, and says that it is empty', async () => {
  expect((await server.nobody().call('GET', '/health')).body).toEqual({
    status: 'ok',
    version: '0.1.0',
    empty: true,
  });
});

test('setting up works once, with every wrong field named', async () => {
  const visitor = server.nobody();
  const wrong = await visitor.call('POST', '/setup', {
    shopName: '',
    baseCurrency: 'XYZZY',
    owner: { name: 'I', email: 'no', password: 'short' },
  });
  expect(wrong.status).toBe(422);
  expect(wrong.headers.get('content-type')).toContain('application/problem+json');
  expect(wrong.body.errors.map((e: { pointer: string }) => e.pointer).sort()).toEqual([
    '/baseCurrency',
    '/owner/email',
    '/owner/password',
    '/shopName',
  ]);
  const right = await server.owner.call('POST', '/setup', {
    shopName: 'Hollin Quay Edge Room',
    baseCurrency: 'EUR',
    owner: OWNER,
  });
  expect(right.status).toBe(201);
  expect(right.body).toMatchObject({ person: { role: 'owner' }, shop: { stockScheme: 'HQ-{0000}' } });
  expect(
    (await visitor.call('POST', '/setup', { shopName: 'Another', baseCurrency: 'EUR', owner: OWNER })).status,
  ).toBe(409);
});

test('everything but health, setup and public checks wants a session', async () => {
  for (const path of [
    '/tray',
    '/pieces',
    '/people',
    '/comparables',
    '/reference/vocabulary',
    '/ledger/verify',
    '/session',
  ])
    expect((await server.nobody().call('GET', path)).status).toBe(401);
  expect((await server.nobody().call('POST', '/identify', { observations: [] })).status).toBe(401);
  expect((await server.nobody().call('GET', '/certificates/0123456789AB')).status).toBe(404);
});

test('signing in and out, with a cookie scripts cannot read', async () => {
  const visitor = server.nobody();
  const reply = await visitor.call('POST', '/session', { email: OWNER.email, password: OWNER.password });
  expect(reply.status).toBe(200);
  expect(reply.headers.getSetCookie()[0]).toMatch(/HttpOnly.*SameSite=Lax/);
  expect((await visitor.call('GET', '/tray')).status).toBe(200);
  expect((await visitor.call('DELETE', '/session')).status).toBe(204);
  expect((await visitor.call('GET', '/tray')).status).toBe(401);
});

test('passwords and tokens are stored as hashes only', async () => {
  const row = await server.database.row<{ password_hash: string }>('SELECT password_hash FROM person');
  expect(row?.password_hash).toMatch(/^scrypt\$/);
  const session = await server.database.row<{ token_hash: string }>('SELECT token_hash FROM session');
  expect(server.owner.cookie).not.toContain(session?.token_hash);
});

describe('roles, checked in one place', () => {
  const people: Record<string, Visitor> = {};
  beforeAll(async () => {
    for (const role of ['appraiser', 'clerk', 'reader']) {
      const email = `${role}@hollinquay.example`;
      expect(
        (
          await server.owner.call('POST', '/people', {
            name: role,
            email,
            password: 'harbour light 12',
            role,
          })
        ).status,
      ).toBe(201);
      people[role] = server.nobody();
      await people[role].call('POST', '/session', { email, password: 'harbour light 12' });
    }
  });
  const status = async (role: string, method: string, path: string, body?: unknown) =>
    (await people[role]?.call(method, path, body))?.status;

  test('a reader reads', async () => {
    expect(await status('reader', 'GET', '/tray')).toBe(200);
    expect(await status('reader', 'POST', '/pieces', {})).toBe(403);
    expect(await status('reader', 'POST', '/comparables', {})).toBe(403);
  });
  test('a clerk works, but does not appraise or import references', async () => {
    expect(await status('clerk', 'POST', '/pieces', {})).toBe(422);
    expect(await status('clerk', 'POST', '/reference-packs', {})).toBe(403);
  });
  test('only the owner gives accounts', async () => {
    expect(await status('appraiser', 'POST', '/people', {})).toBe(403);
    expect(await status('appraiser', 'POST', '/reference-packs', {})).toBe(422);
  });
  test('one account an address', async () => {
    const again = await server.owner.call('POST', '/people', {
      name: 'x',
      email: 'CLERK@hollinquay.example',
      password: 'harbour light 12',
      role: 'clerk',
    });
    expect(again.body.errors[0].pointer).toBe('/email');
  });
});

test('another site’s page may not write here', async () => {
  const reply = await server.owner.call(
    'POST',
    '/identify',
    { observations: [] },
    { origin: 'https://elsewhere.example' },
  );
  expect(reply.status).toBe(403);
  const own = await server.owner.call('POST', '/identify', { observations: [] }, { origin: server.address });
  expect(own.status).toBe(200);
});

test('what is not JSON, too large or unknown is told as a problem, never as a page or a stack', async () => {
  for (const [path, body, status] of [
    ['/identify', '{"observations": [', 400],
    ['/identify', JSON.stringify({ observations: 'x'.repeat(2 << 20) }), 413],
    ['/nothing', '{}', 404],
  ] as const) {
    const reply = await server.owner.call('POST', path, body, { 'content-type': 'application/json' });
    expect(reply.status).toBe(status);
    expect(reply.body).toMatchObject({ status });
    expect(JSON.stringify(reply.body)).not.toContain('node_modules');
  }
});

test('the tenth wrong password is the last one tried', async () => {
  const visitor = server.nobody();
  const statuses: number[] = [];
  for (let i = 0; i < 12; i++)
    statuses.push(
      (await visitor.call('POST', '/session', { email: OWNER.email, password: `guess ${i}` })).status,
    );
  expect(statuses.slice(0, 10).every((s) => s === 401)).toBe(true);
  expect(statuses.at(-1)).toBe(429);
});

test('the OpenAPI document describes every route from the schemas that check them', async () => {
  const { body } = await server.nobody().call('GET', '/openapi.json');
  expect(body.openapi).toBe('3.1.0');
  expect(Object.keys(body.paths)).toEqual(
    expect.arrayContaining([
      '/api/v1/identify',
      '/api/v1/reference-packs',
      '/api/v1/pieces/{id}/observations',
      '/api/v1/valuations/estimate',
    ]),
  );
  expect(JSON.stringify(body.paths['/api/v1/setup'])).toContain('baseCurrency');
});
