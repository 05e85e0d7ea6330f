/**
 * Every route of the OpenAPI document, asked what nobody sensible would ask: right shapes with one leaf gone wrong, broken
 * JSON and multipart, strange headers and addresses. Nothing is answered 5xx or with anything but JSON, no trace gets
 * out, and what is refused leaves no row behind.
 */
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { z } from 'zod';
import { allRoutes } from '@jutbank/contract/openapi';
import type { Route } from '@jutbank/contract/http';
import { csv, readyToSell, serverForTest, testPack, type TestServer } from '../testing/index.ts';

const SEED = Number(process.env.JUTBANK_HOSTILE_SEED ?? 7);
const ROUNDS = Number(process.env.JUTBANK_HOSTILE_ROUNDS ?? 18);

let server: TestServer;
let ids: string[] = [];
beforeAll(async () => {
  server = await serverForTest();
  await server.owner.call('POST', '/reference-packs', testPack);
  await server.owner.call(
    'POST',
    '/comparables/import',
    csv(['2026-01-02,120,EUR,sold,Tollgate Rooms,online,jack,first,80']),
  );
  const piece = await readyToSell(server);
  const other = await readyToSell(server);
  const lot = await server.owner.call('POST', '/lots', {
    name: 'Lot',
    sourceKind: 'fair',
    sourceName: '',
    acquired: null,
    currency: 'EUR',
    method: 'equal',
    costs: [{ label: 'Price', amount: '10.00' }],
    note: '',
  });
  ids = [piece.id, other.id, lot.body.id, piece.pictures[0].id];
}, 30_000);
afterAll(() => server.close());

let state = SEED >>> 0;
/** 0 ≤ x < 1, the same for the same seed. */
function random(): number {
  state = (state + 0x6d2b79f5) >>> 0;
  let t = state;
  t = Math.imul(t ^ (t >>> 15), t | 1);
  t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
  return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
}
const below = (n: number) => Math.floor(random() * n);
const pick = <T>(list: readonly T[]): T => list[below(list.length)] as T;

const LONE = '\ud83d';
const HOSTILE: readonly unknown[] = [
  LONE,
  `a${LONE}b`,
  '\udc00',
  '\u0000',
  'a\u0000b',
  '',
  ' ',
  '\u202eright to left',
  'x'.repeat(300_000),
  '-9999',
  '-9999-01-01',
  '0000-00-00',
  '0000-01-01',
  '+275760-09-13',
  '9999-12-31T23:59:59.999Z',
  '-0001/..',
  '../0001',
  'XXXX',
  '2026-13-45',
  '1e999',
  '999999999999999.999999',
  '99999999999999999999999999',
  '-0.00',
  '0.0000001',
  'NaN',
  '__proto__',
  'constructor',
  'toString',
  "'; DROP TABLE piece; --",
  '%00',
  '../../etc/passwd',
  '<script>alert(1)</script>',
  '{0000}\u0007',
  '{0}{0}{0}',
  'é',
  '🗡️'.repeat(80),
  'EUR',
  'XXX',
  null,
  true,
  false,
  0,
  -1,
  1e308,
  -1e308,
  5e-324,
  2 ** 53,
  1.5,
  [],
  {},
  [[[[[[[[]]]]]]]],
  { __proto__: null, constructor: { prototype: { polluted: 1 } } },
  JSON.parse('{"__proto__":{"polluted":1}}'),
];

interface Schema {
  type?: string | string[];
  enum?: unknown[];
  const?: unknown;
  anyOf?: Schema[];
  oneOf?: Schema[];
  allOf?: Schema[];
  properties?: Record<string, Schema>;
  required?: string[];
  items?: Schema | boolean;
  prefixItems?: Schema[];
  additionalProperties?: Schema | boolean;
  propertyNames?: Schema;
  pattern?: string;
  format?: string;
  minimum?: number;
  maximum?: number;
  minLength?: number;
  default?: unknown;
  $ref?: string;
  $defs?: Record<string, Schema>;
}
const schemaOf = (type: z.ZodType): Schema =>
  z.toJSONSchema(type, { io: 'input', unrepresentable: 'any', cycles: 'ref' }) as Schema;

const WORDS = [
  'jack',
  'first',
  'second',
  'blade',
  'scales',
  'lanyard',
  'bar',
  'sold',
  'fair',
  'Petrel',
  '2026-05-01',
  '1934~/1938',
  '182.50',
  'EUR',
  'SEK',
];

/** Something of that shape, as far as the shape says. */
function sample(schema: Schema, root: Schema, depth = 0): unknown {
  if (schema.$ref !== undefined) {
    const name = schema.$ref.split('/').at(-1) ?? '';
    return depth > 6 ? {} : sample(schema.$ref === '#' ? root : (root.$defs?.[name] ?? {}), root, depth + 1);
  }
  if (schema.const !== undefined) return schema.const;
  if (schema.enum) return pick(schema.enum);
  const ways = schema.anyOf ?? schema.oneOf;
  if (ways) return sample(pick(ways), root, depth + 1);
  if (schema.allOf) return Object.assign({}, ...schema.allOf.map((s) => sample(s, root, depth + 1)));
  const type = Array.isArray(schema.type) ? pick(schema.type) : schema.type;
  if (type === 'object' || schema.properties) {
    const object: Record<string, unknown> = {};
    for (const [name, one] of Object.entries(schema.properties ?? {}))
      if (schema.required?.includes(name) || random() < 0.6) object[name] = sample(one, root, depth + 1);
    if (typeof schema.additionalProperties === 'object' && depth < 6)
      object[pick(WORDS)] = sample(schema.additionalProperties, root, depth + 1);
    return object;
  }
  if (type === 'array')
    return depth > 6 || typeof schema.items !== 'object'
      ? []
      : Array.from({ length: below(3) }, () => sample(schema.items as Schema, root, depth + 1));
  if (type === 'number' || type === 'integer')
    return Math.min(schema.maximum ?? 50, Math.max(schema.minimum ?? 0, below(20)));
  if (type === 'boolean') return random() < 0.5;
  if (type === 'null') return null;
  if (schema.pattern?.includes('HJKMNP')) return pick(ids);
  if (schema.format === 'date') return '2026-05-01';
  if (schema.format === 'date-time') return '2026-05-01T10:00:00.000Z';
  if (schema.format === 'email') return 'clerk@hollinquay.example';
  return pick(WORDS);
}

/** One leaf, or one key, of a value gone wrong. */
function spoilt(value: unknown): unknown {
  if (Array.isArray(value) && value.length > 0 && random() < 0.85) {
    const at = below(value.length);
    return value.map((one: unknown, i) => (i === at ? spoilt(one) : one));
  }
  if (typeof value === 'object' && value !== null && Object.keys(value).length > 0 && random() < 0.9) {
    const name = pick(Object.keys(value));
    if (random() < 0.08)
      return { ...value, [pick(['constructor', 'toString', LONE, 'x'.repeat(500), ''])]: pick(HOSTILE) };
    return { ...value, [name]: spoilt((value as Record<string, unknown>)[name]) };
  }
  return pick(HOSTILE);
}

/** Something hostile that an address can carry. */
const word = (most: number): string =>
  pick(HOSTILE.filter((h): h is string | number => typeof h === 'string' || typeof h === 'number'))
    .toString()
    .replaceAll(/[\ud800-\udfff]/g, '?')
    .slice(0, most);

function addressOf(route: Route, hostile: boolean): string {
  const params = schemaOf(route.params).properties ?? {};
  const path = route.path.replaceAll(/:(\w+)/g, (_, name: string) => {
    if (hostile && random() < 0.4) {
      return encodeURIComponent(word(400) || ' ');
    }
    const value = sample(params[name] ?? {}, params[name] ?? {});
    return encodeURIComponent(/^[0-9A-Z]{26}$/.test(String(value)) ? pick(ids) : String(value));
  });
  if (!hostile || random() < 0.6) return path;
  const query = schemaOf(route.query).properties ?? {};
  const names = Object.keys(query);
  const name =
    names.length > 0 && random() < 0.8 ? pick(names) : pick(['limit', 'cursor', '__proto__', 'a[b]']);
  return `${path}?${encodeURIComponent(name)}=${encodeURIComponent(word(2000))}`;
}

const HEADERS: readonly Record<string, string>[] = [
  {},
  { 'if-match': '"v1"' },
  { 'if-match': '"v99999999999999999999"' },
  { 'if-match': 'W/"v-1"' },
  { 'if-match': '"ü"' },
  { 'if-match': 'v1' },
  { 'idempotency-key': 'k' },
  { 'idempotency-key': 'x'.repeat(300) },
  { 'accept-encoding': 'nothing' },
];

const TABLES = `SELECT table_name AS name FROM information_schema.tables WHERE table_schema = DATABASE()
  AND table_name NOT IN ('session', 'rate_counter', 'idempotency_key', 'job', 'piece_reading', 'market_fit', 'revision_log')`;
let counting = '';
async function rowsInAll(): Promise<string> {
  if (counting === '') {
    const tables = await server.database.rows<{ name: string }>(TABLES);
    counting = tables
      .map((t) => `SELECT '${t.name}' AS name, COUNT(*) AS n FROM \`${t.name}\``)
      .join(' UNION ALL ');
  }
  return JSON.stringify(await server.database.rows(counting));
}

interface Sent {
  readonly route: string;
  readonly status: number;
  readonly wrong: string | undefined;
  readonly body: string;
}

async function send(
  route: Route,
  path: string,
  body: BodyInit | undefined,
  headers: Record<string, string>,
): Promise<Sent> {
  const response = await fetch(`${server.address}/api/v1${path}`, {
    method: route.method.toUpperCase(),
    headers: { cookie: server.owner.cookie, ...headers },
    redirect: 'manual',
    ...(body === undefined || route.method === 'get' ? {} : { body }),
    signal: AbortSignal.timeout(20_000),
  });
  const stream = response.headers.get('content-type')?.startsWith('text/event-stream') === true;
  const text = stream ? '' : await response.text();
  if (stream) await response.body?.cancel();
  const type = response.headers.get('content-type') ?? '';
  const wrong =
    response.status >= 500 && response.status !== 502
      ? 'a fault'
      : response.status >= 400 && !type.includes('problem+json')
        ? 'no problem+json'
        : /<html|<!doctype/i.test(text.slice(0, 400))
          ? 'HTML'
          : /\bat .*\.(ts|js):\d+|node_modules/.test(text)
            ? 'a trace'
            : undefined;
  return {
    route: `${route.method} ${route.path}`,
    status: response.status,
    wrong: wrong && `${wrong} (${response.status}): ${text.slice(0, 200)}`,
    body: typeof body === 'string' ? JSON.stringify(body.slice(0, 200)) : '',
  };
}

/** Signing out would end the walk, and the server's own stream never ends. */
const SPARED = new Set(['delete /session', 'get /gauges/readings', 'post /setup']);
const routes = allRoutes.filter((r) => !SPARED.has(`${r.method} ${r.path}`));

const faults: string[] = [];
const note = (sent: Sent, path: string) => {
  if (sent.wrong !== undefined) faults.push(`${sent.route} ${path} ${sent.body}\n   ${sent.wrong}`);
};
const told = (list: string[]) => list.splice(0).slice(0, 30).join('\n');

describe('hostile requests', () => {
  test('right shapes with one thing gone wrong: no fault, no page, no trace, no row left by what is refused', async () => {
    let count = 0;
    for (const route of routes) {
      const schema = schemaOf(route.body);
      for (let round = 0; round < ROUNDS; round++) {
        const body =
          route.carries === 'json'
            ? JSON.stringify(round === 0 ? sample(schema, schema) : spoilt(sample(schema, schema)))
            : undefined;
        const path = addressOf(route, round > 0);
        const before = count % 5 === 0 ? await rowsInAll() : '';
        const sent = await send(route, path, body, {
          ...(body === undefined ? {} : { 'content-type': 'application/json' }),
          ...pick(HEADERS),
        });
        note(sent, path);
        if (before !== '' && sent.status >= 400 && (await rowsInAll()) !== before)
          faults.push(
            `${sent.route} ${path} ${sent.body}\n   refused (${sent.status}), and yet rows changed`,
          );
        count++;
      }
    }
    expect(told(faults)).toBe('');
    expect(count).toBeGreaterThan(2000);
  }, 600_000);

  test('bodies that are no JSON, too deep, too large, of another kind', async () => {
    const bodies: [BodyInit, string][] = [
      ['{', 'application/json'],
      ['[1,2', 'application/json'],
      ['"text"', 'application/json'],
      ['null', 'application/json'],
      [`${'['.repeat(20_000)}${']'.repeat(20_000)}`, 'application/json'],
      [JSON.stringify({ a: 'x'.repeat(9 << 20) }), 'application/json'],
      ['{"a":1}', 'text/plain'],
      ['{"a":1}', 'application/json; charset=utf-7'],
      ['a=1&b=2', 'application/x-www-form-urlencoded'],
      [new Uint8Array([0xff, 0xfe, 0x00, 0xd8]), 'application/json'],
    ];
    for (const route of routes)
      if (route.method !== 'get')
        for (const [body, type] of bodies) {
          const path = addressOf(route, false);
          note(await send(route, path, body, { 'content-type': type }), path);
        }
    expect(told(faults)).toBe('');
  }, 300_000);

  test('multipart that is broken, cut, empty or full of junk', async () => {
    const part = (name: string, file: string, bytes: string) =>
      `--b\r\nContent-Disposition: form-data; name="${name}"; filename="${file}"\r\nContent-Type: text/csv\r\n\r\n${bytes}\r\n`;
    const bodies: [string, string][] = [
      ['', 'multipart/form-data'],
      ['', 'multipart/form-data; boundary='],
      ['', 'multipart/form-data; boundary=b'],
      ['--b', 'multipart/form-data; boundary=b'],
      [part('file', 'a.csv', 'sale_date,price'), 'multipart/form-data; boundary=b'],
      [`${part('file', 'a.csv', '')}--b--`, 'multipart/form-data; boundary=b'],
      [`${part('other', 'a.csv', 'x')}--b--`, 'multipart/form-data; boundary=b'],
      [`${part('file', '\u0000../../a', 'x\u0000y,z')}--b--`, 'multipart/form-data; boundary=b'],
      [`${part('file', 'a', 'x')}${part('file', 'b', 'y')}--b--`, 'multipart/form-data; boundary=b'],
      [
        '--b\r\nContent-Disposition: form-data; name="mapping"\r\n\r\n{"columns":\r\n--b--',
        'multipart/form-data; boundary=b',
      ],
      [
        `--b\r\nContent-Disposition: form-data; name="mapping"\r\n\r\n{"columns":{"constructor":"price","__proto__":"pattern"},"dateOrder":"dmy","decimalComma":true,"fixed":{}}\r\n${part('file', 'a.csv', 'constructor,__proto__,x\n1,2,3')}--b--`,
        'multipart/form-data; boundary=b',
      ],
      [
        `--b\r\nContent-Disposition: form-data; name="${'n'.repeat(20_000)}"\r\n\r\nx\r\n--b--`,
        'multipart/form-data; boundary=b',
      ],
      [`--b\r\n${'X-Header: y\r\n'.repeat(3000)}\r\nx\r\n--b--`, 'multipart/form-data; boundary=b'],
      [
        Array.from(
          { length: 40 },
          (_, i) => `--b\r\nContent-Disposition: form-data; name="f${i}"\r\n\r\nx\r\n`,
        ).join('') + '--b--',
        'multipart/form-data; boundary=b',
      ],
    ];
    for (const route of routes.filter((r) => r.carries === 'upload'))
      for (const [body, type] of bodies) {
        const path = addressOf(route, false);
        note(await send(route, path, body, { 'content-type': type }), path);
      }
    expect(told(faults)).toBe('');
  }, 120_000);

  test('lists of prices full of junk', async () => {
    const rows: string[] = [
      'constructor,__proto__,toString\n1,2,3',
      'sale_date,price,currency,price_kind,venue_kind,pattern\n-9999-01-01,1,EUR,sold,fair,jack',
      'sale_date,price,currency,price_kind,venue_kind,pattern\n0000-01-01,1,EUR,sold,fair,jack',
      'sale_date,price,currency,price_kind,venue_kind,pattern\n0001-01-01,1,EUR,sold,fair,jack',
      'sale_date,price,currency,price_kind,venue_kind,pattern\n2026-01-01,999999999999999,EUR,sold,fair,jack',
      'sale_date,price,currency,price_kind,venue_kind,pattern\n2026-01-01,0.000001,EUR,sold,fair,jack',
      'sale_date,price,currency,price_kind,venue_kind,pattern,venue\n2026-01-01,5,EUR,sold,fair,jack,\u0000',
      `sale_date,price,currency,price_kind,venue_kind,pattern,${'c'.repeat(5000)}\n2026-01-01,5,EUR,sold,fair,jack,x`,
      `sale_date,price,currency,price_kind,venue_kind,pattern,${Array.from({ length: 3000 }, (_, i) => `c${i}`).join(',')}\n2026-01-01,6,EUR,sold,fair,jack${',y'.repeat(3000)}`,
      `sale_date,price,currency,price_kind,venue_kind,pattern\n${'"'.repeat(5001)}`,
      '\ufeff',
      '\n\n\n',
    ];
    for (const text of rows)
      for (const path of [
        '/comparables/import?check=1',
        '/comparables/import',
        '/comparables/look',
        '/exchange-rates/import?check=1',
        '/exchange-rates/import',
      ]) {
        const form = new FormData();
        form.set('file', new Blob([text]), 'a.csv');
        const route = { method: 'post', path } as Route;
        note(await send(route, path, form, {}), path);
      }
    // whatever went in, estimates and lists go on
    for (const path of ['/comparables?limit=200', '/comparables/export.csv', '/suspects', '/exchange-rates'])
      note(await send({ method: 'get', path } as Route, path, undefined, {}), path);
    expect(told(faults)).toBe('');
  }, 120_000);

  test('afterwards everything is whole', async () => {
    const ledger = await server.owner.call('GET', '/ledger/verify');
    expect(ledger.body.intact).toBe(true);
    expect((await server.owner.call('GET', '/pieces?limit=200')).status).toBe(200);
    expect((await server.owner.call('GET', '/tray')).status).toBe(200);
    const worth = await server.owner.call('GET', `/pieces/${ids[0] ?? ''}/worth`);
    expect(worth.status).toBe(200);
    expect(({} as { polluted?: unknown }).polluted).toBeUndefined();
  });
});
