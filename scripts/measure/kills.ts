/**
 * A shop at work whose server and database are killed again and again: nothing answered is lost, nothing sent again is
 * doubled, nothing is half there, and it comes back by itself each time.
 * `node --import tsx scripts/measure/kills.ts [kills of each]`
 */
import { spawn } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, readFileSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const KILLS = Number(process.argv[2] ?? 50);
const PORT = 4391;
const ADDRESS = `http://127.0.0.1:${PORT}/api/v1`;
const WRITERS = 4;
const PATIENCE_MS = 45_000;
const root = join(import.meta.dirname, '../..');
const dataDir = mkdtempSync(join(tmpdir(), 'jutbank-kills-'));
const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

const shop = spawn(process.execPath, ['scripts/start.mjs', '--empty'], {
  cwd: root,
  env: { ...process.env, JUTBANK_DATA_DIR: dataDir, JUTBANK_PORT: String(PORT), JUTBANK_DEMO: '0' },
  stdio: ['ignore', 'pipe', 'inherit'],
});
let said = '';
shop.stdout.on('data', (part: Buffer) => (said += part.toString()));
while (!said.includes('Ctrl-C')) {
  if (shop.exitCode !== null) throw new Error(`it did not start: ${said}`);
  await wait(200);
}

/** Processes of this shop by what they are. */
function pidsOf(what: 'server' | 'database'): number[] {
  return readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .flatMap((name) => {
      try {
        const line = readFileSync(`/proc/${name}/cmdline`, 'utf8');
        if (what === 'database')
          return line.startsWith('mariadbd') && line.includes(dataDir) ? [Number(name)] : [];
        if (!line.includes('server/src/main.ts')) return [];
        return readFileSync(`/proc/${name}/environ`, 'utf8').includes(dataDir) ? [Number(name)] : [];
      } catch {
        return [];
      }
    });
}

let cookie = '';
/** What is read of answers here. */
interface Told {
  readonly id: string;
  readonly version: number;
  readonly title: string;
  readonly kind: string;
  readonly cost: string;
  readonly buyerName: string;
  readonly invoiceNumber: string;
  readonly items: readonly Told[];
  readonly list: readonly Told[];
  readonly nextCursor: string | null;
  readonly intact: boolean;
  readonly firstBroken: number | null;
  readonly entries: number;
}
interface Reply {
  readonly status: number;
  readonly body: Told;
  readonly etag: string;
}
let longest = 0;
let told = 0;
/** Sent until it is answered with something but 5xx; always with the same key. */
async function send(
  method: string,
  path: string,
  body?: unknown,
  headers: Record<string, string> = {},
): Promise<Reply> {
  const key = randomUUID();
  const began = Date.now();
  let last = 'nothing';
  for (;;) {
    try {
      const form = body instanceof FormData;
      const response = await fetch(`${ADDRESS}${path}`, {
        method,
        headers: {
          cookie,
          'idempotency-key': key,
          ...(form || body === undefined ? {} : { 'content-type': 'application/json' }),
          ...headers,
        },
        ...(body === undefined ? {} : { body: form ? body : JSON.stringify(body) }),
        signal: AbortSignal.timeout(20_000),
      });
      const text = await response.text();
      last = `${response.status} ${text.slice(0, 300)}`;
      if (response.status < 500) {
        told++;
        longest = Math.max(longest, Date.now() - began);
        const set = response.headers.getSetCookie()[0]?.split(';')[0];
        if (set !== undefined && set !== '') cookie = set;
        return {
          status: response.status,
          body: JSON.parse(text === '' ? '{}' : text) as Told,
          etag: response.headers.get('etag') ?? '',
        };
      }
    } catch {
      // killed under us: sent again
    }
    if (Date.now() - began > PATIENCE_MS)
      throw new Error(`${method} ${path} was not answered in ${PATIENCE_MS / 1000} s; last ${last}`);
    await wait(150);
  }
}

await send('POST', '/setup', {
  shopName: 'Hollin Quay Edge Room',
  baseCurrency: 'EUR',
  owner: { name: 'Ines Vadder', email: 'ines@hollinquay.example', password: 'harbour light 12' },
});
const { testPack, intake } = await import('../../server/src/testing/pack.ts');
await send('POST', '/reference-packs', testPack);

const answered = {
  pieces: new Set<string>(),
  sales: new Map<string, string>(),
  offers: new Map<string, number>(),
  lots: new Map<string, number>(),
};
const problems: string[] = [];
let working = true;
const need = (reply: Reply, wanted: readonly number[], what: string) => {
  if (!wanted.includes(reply.status))
    problems.push(`${what} was answered ${reply.status}: ${JSON.stringify(reply.body)?.slice(0, 200)}`);
  return wanted.includes(reply.status);
};
async function writer(who: number): Promise<void> {
  for (let n = 0; working; n++) {
    const title = `Jack ${who}-${n}`;
    const made = await send('POST', '/pieces', { ...intake, title });
    if (!need(made, [201], 'taking in')) continue;
    answered.pieces.add(title);
    const decided = await send(
      'PUT',
      `/pieces/${made.body.id}/attribution`,
      { attribution: { pattern: 'jack', variant: 'first', tier: 'probable', reason: 'compared' } },
      { 'if-match': made.etag === '' ? `"v${made.body.version}"` : made.etag },
    );
    // told twice after a lost answer, a version has moved on: the second is honest
    if (!need(decided, [200, 412], 'deciding')) continue;
    const offer = await send('POST', `/pieces/${made.body.id}/offers`, {
      bidder: title,
      amount: { amount: '40.00', currency: 'EUR' },
      decision: 'taken',
      note: '',
    });
    if (offer.status === 201) answered.offers.set(made.body.id, 1);
    if (n % 2 === 0) {
      const sold = await send('POST', `/pieces/${made.body.id}/sale`, {
        ageChecked: true,
        buyerName: title,
        price: { amount: '80.00', currency: 'EUR' },
      });
      if (need(sold, [201], 'selling')) answered.sales.set(title, sold.body.invoiceNumber);
    }
    if (n % 3 === 0) {
      const lot = await send('POST', '/lots', {
        name: `Lot ${title}`,
        sourceKind: 'fair',
        sourceName: '',
        acquired: null,
        currency: 'EUR',
        method: 'equal',
        costs: [{ label: 'Price', amount: '100.01' }],
        note: '',
      });
      if (!need(lot, [201], 'a lot')) continue;
      const filled = await send('POST', `/lots/${lot.body.id}/pieces`, {
        pieces: ['a', 'b', 'c'].map((x) => ({
          title: `${title} ${x}`,
          construction: 'slipjoint',
          value: null,
          keep: false,
        })),
      });
      if (need(filled, [201], 'filling a lot')) answered.lots.set(lot.body.id, 3);
    }
  }
}
const writers = Array.from({ length: WRITERS }, (_, who) => writer(who));

const began = Date.now();
for (let n = 0; n < 2 * KILLS; n++) {
  await wait(1200 + Math.random() * 1500);
  const what = n % 2 === 0 ? 'server' : 'database';
  for (let tries = 0; ; tries++) {
    const pids = pidsOf(what);
    if (pids.length > 0) {
      for (const pid of pids) process.kill(pid, 'SIGKILL');
      break;
    }
    if (tries > 300) throw new Error(`the ${what} did not come back`);
    await wait(100);
  }
  const before = told;
  for (let waited = 0; told < before + 3; waited += 200) {
    if (waited > 60_000) throw new Error(`after kill ${n + 1} (${what}) nothing was answered for a minute`);
    await wait(200);
  }
}
working = false;
await Promise.all(writers);

// what was answered is there, once, and whole
async function* all(path: string): AsyncGenerator<Told> {
  let cursor: string | null = '';
  while (cursor !== null) {
    const page: Reply = await send(
      'GET',
      `${path}${path.includes('?') ? '&' : '?'}limit=200${cursor === '' ? '' : `&cursor=${cursor}`}`,
    );
    yield* page.body.items;
    cursor = page.body.nextCursor;
  }
}
const titles = new Map<string, number>();
for await (const piece of all('/pieces')) titles.set(piece.title, (titles.get(piece.title) ?? 0) + 1);
for (const title of answered.pieces)
  if (titles.get(title) !== 1) problems.push(`${title} is there ${titles.get(title) ?? 0} times`);
for (const [title, n] of titles) if (n > 1) problems.push(`${title} is there ${n} times`);
const invoices = new Map<string, string>();
for await (const sale of all('/sales')) {
  if (invoices.has(sale.invoiceNumber)) problems.push(`invoice ${sale.invoiceNumber} was given twice`);
  invoices.set(sale.invoiceNumber, sale.buyerName);
}
for (const [buyer, number] of answered.sales)
  if (invoices.get(number) !== buyer) problems.push(`the sale ${number} to ${buyer} is lost`);
for (const [piece, n] of answered.offers) {
  const { body } = await send('GET', `/pieces/${piece}/ledger?limit=200`);
  const offers = body.items.filter((e) => e.kind === 'offer-taken').length;
  if (offers !== n) problems.push(`${offers} offers for ${piece}, ${n} were answered`);
}
for (const [lot, n] of answered.lots) {
  const { body } = await send('GET', `/lots/${lot}`);
  const cents = body.list.reduce((sum, p) => sum + Math.round(Number(p.cost) * 100), 0);
  if (body.list.length !== n || cents !== 10_001)
    problems.push(`lot ${lot}: ${body.list.length} pieces, ${cents} cents`);
}
const ledger = await send('GET', '/ledger/verify');
if (ledger.body.intact !== true) problems.push(`the ledger is broken at ${String(ledger.body.firstBroken)}`);
console.log(
  `${KILLS} kills of the server and ${KILLS} of the database in ${((Date.now() - began) / 1000).toFixed(0)} s: ${told} answers, ${answered.pieces.size} pieces, ${answered.sales.size} sales, ${answered.offers.size} offers, ${answered.lots.size} lots, ledger of ${String(ledger.body.entries)}; longest wait ${(longest / 1000).toFixed(1)} s`,
);
console.log(
  problems.length === 0 ? 'nothing lost, nothing doubled, nothing half' : problems.slice(0, 20).join('\n'),
);
shop.kill('SIGINT');
await new Promise((resolve) => shop.once('exit', resolve));
rmSync(dataDir, { recursive: true, force: true });
process.exit(problems.length === 0 ? 0 : 1);
