/**
 * Fifty people at one running server, for as long as asked: reads, writes, and what they met. The server is another
 * process than the people, so that what is measured is the server.
 * `node --import tsx scripts/measure/load.ts http://127.0.0.1:4180 EMAIL PASSWORD [seconds] [people]`
 */
const [address = 'http://127.0.0.1:4180', email = '', password = '', seconds = '60', people = '50'] =
  process.argv.slice(2);

async function signedIn(): Promise<string> {
  const response = await fetch(`${address}/api/v1/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ email, password }),
  });
  if (!response.ok) throw new Error(`signing in was answered ${response.status}`);
  return response.headers.getSetCookie()[0]?.split(';')[0] ?? '';
}
const cookie = await signedIn();

interface Reply {
  readonly status: number;
  readonly etag: string;
  readonly text: string;
}
async function call(
  method: string,
  path: string,
  body?: unknown,
  headers: Record<string, string> = {},
): Promise<Reply> {
  const response = await fetch(`${address}/api/v1${path}`, {
    method,
    headers: { cookie, 'content-type': 'application/json', ...headers },
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  });
  return { status: response.status, etag: response.headers.get('etag') ?? '', text: await response.text() };
}

const list = JSON.parse((await call('GET', '/pieces?limit=50')).text) as {
  items: { id: string; stage: string }[];
};
const ids = list.items.filter((p) => p.stage !== 'sold').map((p) => p.id);
const times: Record<'read' | 'write' | 'alone', number[]> = { read: [], write: [], alone: [] };
const met = new Map<string, number>();
async function timed(kind: keyof typeof times, what: string, work: () => Promise<Reply>): Promise<void> {
  const began = performance.now();
  const { status } = await work();
  times[kind].push(performance.now() - began);
  met.set(`${what} ${status}`, (met.get(`${what} ${status}`) ?? 0) + 1);
}
const READS = [
  ['sheet', (id: string) => `/pieces/${id}`],
  ['list', () => '/pieces?limit=20'],
  ['tray', () => '/tray'],
  ['worth', (id: string) => `/pieces/${id}/worth`],
  ['comparables', () => '/comparables?limit=50'],
] as const;
const idOf = (n: number) => ids[n % ids.length] ?? '';

for (let n = 0; n < 60; n++) {
  const [what, path] = READS[n % READS.length] ?? READS[0];
  await timed('alone', what, () => call('GET', path(idOf(n))));
}
met.clear();
const until = Date.now() + Number(seconds) * 1000;
await Promise.all(
  Array.from({ length: Number(people) }, async (_, person) => {
    for (let n = person; Date.now() < until; n++) {
      if (n % 8 !== 0) {
        const [what, path] = READS[n % READS.length] ?? READS[0];
        await timed('read', what, () => call('GET', path(idOf(n))));
      } else {
        const id = idOf(n);
        const { etag } = await call('GET', `/pieces/${id}`);
        await timed('write', 'price', () =>
          call(
            'PUT',
            `/pieces/${id}/pricing`,
            { ask: { amount: `${100 + person}.00`, currency: 'EUR' }, floor: null, note: '' },
            { 'if-match': etag },
          ),
        );
      }
      // looking at what came, as people do
      await new Promise((resolve) => setTimeout(resolve, 400 + Math.random() * 800));
    }
  }),
);
for (const [kind, list] of Object.entries(times)) {
  const sorted = list.toSorted((a, b) => a - b);
  const at = (share: number) => (sorted[Math.floor(sorted.length * share)] ?? NaN).toFixed(0);
  console.log(
    `${kind.padEnd(6)} ${sorted.length} requests, median ${at(0.5)} ms, p95 ${at(0.95)} ms, longest ${at(0.9999)} ms`,
  );
}
console.log(
  [...met]
    .sort()
    .map(([what, n]) => `${what}: ${n}`)
    .join(', '),
);

export {};
