/** Documents of pieces, what they say and whether it holds, and what leaves the trail: nothing private by any way. */
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { intake, readyToSell, serverForTest, testPack, type TestServer } from '../testing/index.ts';

let server: TestServer;
let piece: any;
const call = (method: string, path: string, body?: unknown, headers?: Record<string, string>): Promise<any> =>
  server.owner.call(method as 'GET', path, body, headers);
const letter = (more: object = {}) => ({
  kind: 'letter',
  title: 'Letter of Elias Corrie to his niece',
  dated: '1948-05',
  author: 'Elias Corrie',
  keptAt: 'with the piece',
  page: '2',
  transcription: 'The bar on it was father’s own doing.',
  claims: [],
  ...more,
});
const add = (more: object = {}, id = piece.id) => call('POST', `/pieces/${id}/documents`, letter(more));
const scan = async (content: string | Uint8Array, name: string, document: string) => {
  const form = new FormData();
  form.set('file', new Blob([content as BlobPart]), name);
  return call('POST', `/pieces/${piece.id}/documents/${document}/file`, form);
};
beforeAll(async () => {
  server = await serverForTest();
  await call('POST', '/reference-packs', testPack);
  piece = await readyToSell(server);
});
afterAll(() => server.close());

describe('a document', () => {
  let document: any;
  test('is noted with what it says; each claim is set against what was seen', async () => {
    const made = await add({
      claims: [
        { kind: 'feature', feature: 'lanyard', value: 'bar' },
        { kind: 'feature', feature: 'lanyard', value: 'ring' },
        { kind: 'number', number: '118' },
        { kind: 'owner', holder: 'Elias Corrie', period: '1940/1950' },
        { kind: 'other', says: 'It was carried on the pilot boat.' },
      ],
    });
    expect(made.status).toBe(201);
    document = made.body;
    expect(document.checked.map((c: any) => c.verdict)).toEqual([
      'agrees',
      'contradicts',
      'not-seen',
      'open',
      'open',
    ]);
  });
  test('what does not hold is told on the sheet, in the listing, and must be said', async () => {
    const sheet = (await call('GET', `/pieces/${piece.id}`)).body;
    expect(sheet.trail.problems.map((p: any) => p.kind)).toEqual(['document']);
    expect(sheet.attention).toContain('The paper trail contradicts itself');
    const draft = (await call('GET', `/pieces/${piece.id}/listing/draft`)).body;
    expect(draft.written.body).toMatch(
      /The record of its owners contradicts itself: A letter of May 1948 says/,
    );
    // the listing names nobody, though the letter’s title does
    expect(draft.written.body).not.toContain('Corrie');
  });
  test('is changed upon the version that was seen; a feature nobody knows is refused beside its claim', async () => {
    const change = (more: object, version = document.version) =>
      call('PUT', `/pieces/${piece.id}/documents/${document.id}`, letter(more), {
        'if-match': `"v${version}"`,
      });
    expect(
      (await change({ claims: [{ kind: 'feature', feature: 'nowhere', value: 'x' }] })).body.errors[0]
        .pointer,
    ).toBe('/claims/0/feature');
    expect((await change({ claims: [{ kind: 'made', period: 'soon' }] })).body.errors[0].pointer).toBe(
      '/claims/0/period',
    );
    const kept = await change({ claims: [{ kind: 'feature', feature: 'lanyard', value: 'bar' }] });
    expect(kept.body).toMatchObject({ version: document.version + 1, checked: [{ verdict: 'agrees' }] });
    expect((await change({})).status).toBe(412);
    expect((await call('GET', `/pieces/${piece.id}`)).body.trail.problems).toEqual([]);
    document = kept.body;
  });
  test('its scan is kept as it came, by what it is and not by its name', async () => {
    const kept = await scan('Dear niece, the bar on it was father’s own doing.', 'letter.txt', document.id);
    expect(kept.body.file).toMatchObject({
      name: 'letter.txt',
      type: 'text/plain',
      fingerprint: expect.stringMatching(/^[0-9a-f]{64}$/),
    });
    const back = await call('GET', `/documents/${document.id}/file`);
    expect(back.headers.get('content-type')).toMatch(/^text\/plain/);
    expect((await scan('<html><script>alert(1)</script>', 'letter.txt', document.id)).status).toBe(415);
    expect((await scan(new Uint8Array([0, 1, 2, 3, 255]), 'letter.pdf', document.id)).status).toBe(415);
    expect((await scan('', 'letter.txt', document.id)).status).toBe(422);
    expect((await call('GET', `/documents/${document.id}/file`)).status).toBe(200);
  });
  test('speaks of several pieces; taken off the last, it is gone', async () => {
    const other = (await call('POST', '/pieces', intake)).body;
    const linked = await call('POST', `/pieces/${other.id}/documents/${document.id}/link`);
    expect(linked.body).toMatchObject({ claims: [], elsewhere: [{ id: piece.id }] });
    expect((await call('DELETE', `/pieces/${other.id}/documents/${document.id}`)).body).toEqual({
      removed: false,
    });
    expect((await call('DELETE', `/pieces/${piece.id}/documents/${document.id}`)).body).toEqual({
      removed: true,
    });
    expect((await call('GET', `/pieces/${piece.id}/documents`)).body.items).toEqual([]);
    expect((await call('GET', `/documents/${document.id}/file`)).status).toBe(404);
    const kinds = (await call('GET', `/pieces/${piece.id}/ledger?limit=100`)).body.items.map(
      (e: any) => e.kind,
    );
    for (const kind of ['document-noted', 'document-changed', 'document-scanned', 'document-removed'])
      expect(kinds).toContain(kind);
  });
});

describe('bodies and their names', () => {
  test('one that did not exist yet is told of, and no more once its names are put right', async () => {
    const body = (
      await call('POST', '/bodies', { names: [{ name: 'Coastal Service', period: '1950/1970' }], note: '' })
    ).body;
    piece = (await call('GET', `/pieces/${piece.id}`)).body;
    const event = {
      holder: 'Coastal Service',
      private: false,
      place: null,
      period: '1940',
      how: null,
      evidence: 'document',
      note: null,
    };
    await call(
      'PUT',
      `/pieces/${piece.id}/custody`,
      { events: [event] },
      { 'if-match': `"v${piece.version}"` },
    );
    const problems = async () =>
      (await call('GET', `/pieces/${piece.id}`)).body.trail.problems.map((p: any) => p.kind);
    expect(await problems()).toContain('body-not-yet');
    const put = (period: string, version: number) =>
      call(
        'PUT',
        `/bodies/${body.id}`,
        { names: [{ name: 'Coastal Service', period }], note: '' },
        { 'if-match': `"v${version}"` },
      );
    expect((await put('1920/1970', 1)).status).toBe(200);
    expect((await put('1920/1970', 1)).status).toBe(412);
    expect(await problems()).not.toContain('body-not-yet');
    expect((await call('POST', '/bodies', { names: [] })).status).toBe(422);
    expect((await call('DELETE', `/bodies/${body.id}`)).status).toBe(200);
    expect((await call('GET', '/bodies')).body.items).toEqual([]);
  });
});

describe('no private owner leaves the shop by any public way', () => {
  const SECRET = 'Zacharias Quillfeather';
  let sale: any;
  beforeAll(async () => {
    let own = await readyToSell(server);
    const put = async (path: string, body: object) => {
      own = (await call('PUT', `/pieces/${own.id}/${path}`, body, { 'if-match': `"v${own.version}"` })).body;
    };
    await put('custody', {
      events: [
        {
          holder: SECRET,
          private: true,
          place: 'Norham Vale',
          period: '1934/1960',
          how: `from ${SECRET}’s father`,
          evidence: 'document',
          note: `${SECRET} wrote so`,
        },
        {
          holder: 'Quay museum',
          private: false,
          place: null,
          period: '1950/1980',
          how: null,
          evidence: 'document',
          note: null,
        },
      ],
    });
    await call(
      'POST',
      `/pieces/${own.id}/documents`,
      letter({
        title: `Letter of ${SECRET}`,
        author: SECRET,
        transcription: SECRET,
        claims: [{ kind: 'owner', holder: SECRET, period: '1962/1970' }],
      }),
    );
    piece = (await call('GET', `/pieces/${own.id}`)).body;
    expect(piece.trail.problems.length).toBeGreaterThan(1);
    const draft = (await call('GET', `/pieces/${own.id}/listing/draft`)).body;
    expect(JSON.stringify(draft)).not.toContain('Quillfeather');
    sale = (
      await call('POST', `/pieces/${own.id}/sale`, {
        ageChecked: true,
        buyerName: SECRET,
        buyerAddress: SECRET,
        price: { amount: '100', currency: 'EUR' },
      })
    ).body;
  });
  test.each([
    ['certificate', () => `/certificates/${sale.certificateCode}`],
    ['signed file', () => `/certificates/${sale.certificateCode}/certificate.json`],
    ['Linked Art', () => `/pieces/${piece.id}/linked-art.json`],
    ['CSV of custody', () => `/pieces/${piece.id}/custody.csv`],
  ])('%s', async (_, path) => {
    const { status, body } = await call('GET', path());
    const text = typeof body === 'string' ? body : JSON.stringify(body);
    expect(status).toBe(200);
    expect(text).not.toContain('Quillfeather');
    expect(text).toContain('rivate collection');
  });
  test('the contradiction stands on the certificate; the dossier prints for whoever works here', async () => {
    const check = (await server.nobody().call('GET', `/certificates/${sale.certificateCode}`)).body;
    expect(check.findings.join(' ')).toMatch(/contradicts itself/);
    const dossier = await call('GET', `/pieces/${piece.id}/dossier.pdf`);
    expect([dossier.status, String(dossier.body).slice(0, 5)]).toEqual([200, '%PDF-']);
  });
});

describe('as it was known then', () => {
  const DAY = 86_400_000;
  const daysAgo = (n: number) => new Date(Date.now() - n * DAY).toISOString().slice(0, 10);
  test('a day before it came, and one that has not come, are refused; another is told with all that came since', async () => {
    const own = await readyToSell(server);
    const ask = (on: string) => call('GET', `/pieces/${own.id}/as-known?on=${on}`);
    expect((await ask(daysAgo(1))).status).toBe(422);
    expect((await ask(daysAgo(-2))).status).toBe(422);
    expect((await ask('soon')).status).toBe(422);
    // as if it had come and been seen ten days ago, and been decided since
    await server.database.run(
      "UPDATE ledger_entry SET at = REPLACE(at, ?, ?) WHERE piece_id = ? AND kind IN ('taken-in', 'observed', 'picture-added')",
      [daysAgo(0), daysAgo(10), own.id],
    );
    const then = (await ask(daysAgo(5))).body;
    expect(then).toMatchObject({ title: own.title, decided: null, inspected: false, found: [], ask: null });
    expect(then.seen.join(' ')).toMatch(/bar/i);
    // what was seen then, by what is known today: a pack that came since speaks too
    expect(then.byToday).toMatchObject({ tier: 'probable', engineVersion: expect.any(String) });
    const { referenceRevision } = then.byToday;
    await call('POST', '/reference-packs', {
      ...testPack,
      makers: [
        ...(testPack as any).makers,
        { id: 'later-works', name: 'Later Works', source: (testPack as any).makers[0].source, page: '1' },
      ],
    });
    expect(Number((await ask(daysAgo(5))).body.byToday.referenceRevision)).toBeGreaterThan(
      Number(referenceRevision),
    );
    expect(then.since.map((c: any) => c.kind)).toEqual(['attributed', 'inspected', 'priced']);
    const today = (await ask(daysAgo(0))).body;
    expect(today).toMatchObject({
      decided: { tier: 'probable', reason: 'Compared.', engineVersion: expect.any(String) },
      found: ['Blade: reground, light'],
      ask: { amount: '120.00' },
      since: [],
    });
  });
});
describe('labels', () => {
  test('of several pieces, on a roll or on sheets; of none there are none', async () => {
    const two = [await readyToSell(server), await readyToSell(server)].map((p) => p.id).join();
    for (const on of ['roll', 'sheet']) {
      const { status, body } = await call('GET', `/labels.pdf?pieces=${two}&on=${on}&price=1`);
      expect([status, String(body).slice(0, 5)]).toEqual([200, '%PDF-']);
    }
    expect((await call('GET', '/labels.pdf?pieces=nothing')).status).toBe(422);
    expect((await call('GET', '/labels.pdf?pieces=01ARZ3NDEKTSV4RRFFQ69G5FAV')).status).toBe(404);
  });
});
