/**
 * A piece with a word of its own in every private field, taken through listing and sale: no public page, certificate,
 * picture, listing or open format may carry one of them.
 */
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import sharp from 'sharp';
import { readyToSell, serverForTest, testPack, type TestServer } from '../testing/index.ts';

let server: TestServer;
const TODAY = new Date().toISOString().slice(0, 10);
/** every secret that was planted, by where */
const planted = new Map<string, string>();
const secret = (where: string): string => {
  const word = `Zq${planted.size.toString(36).padStart(2, '0')}kanari`;
  planted.set(where, word);
  return word;
};
const call = (method: string, path: string, body?: unknown, version?: number): Promise<any> =>
  server.owner.call(
    method as 'GET',
    path,
    body,
    version === undefined ? {} : { 'if-match': `"v${version}"` },
  );
const fresh = async (piece: any) => (await call('GET', `/pieces/${piece.id}`)).body;
const put = async (piece: any, path: string, body: unknown) => {
  const reply = await call('PUT', `/pieces/${piece.id}/${path}`, body, piece.version);
  expect([path, reply.status]).toEqual([path, 200]);
  return reply.body;
};
const post = async (piece: any, path: string, body: unknown) => {
  const reply = await call('POST', `/pieces/${piece.id}/${path}`, body, piece.version);
  expect([path, reply.status < 300]).toEqual([path, true]);
  return fresh(piece);
};

/** Whatever of what was planted stands in a text. */
const carried = (text: string): string[] =>
  [...planted].flatMap(([where, word]) => (text.toLowerCase().includes(word.toLowerCase()) ? [where] : []));

let piece: any;
let code: string;
/** what went out, by what it is */
const outputs = new Map<string, string>();

beforeAll(async () => {
  server = await serverForTest();
  await call('POST', '/reference-packs', testPack);
  const settings = await server.owner.call<any>('GET', '/paper-settings');
  await server.owner.call(
    'PUT',
    '/paper-settings',
    { ...settings.body.settings, listing: { ...settings.body.settings.listing, second: { language: 'de' } } },
    { 'If-Match': settings.etag ?? '' },
  );
  piece = await readyToSell(server, {
    sourceName: secret('from whom'),
    sourcePlace: secret('from where'),
    sellerStatement: secret('what the seller said'),
    price: { amount: '43.17', currency: 'EUR' },
  });
  // what a camera writes into its pictures
  const form = new FormData();
  const picture = await sharp({ create: { width: 60, height: 45, channels: 3, background: '#888' } })
    .withExif({ IFD0: { Copyright: secret('the camera'), Artist: secret('the photographer') } })
    .jpeg()
    .toBuffer();
  form.set('file', new Blob([new Uint8Array(picture)]), `${secret('the file’s name')}.jpg`);
  piece = (await call('POST', `/pieces/${piece.id}/pictures`, form)).body;
  piece = await put(piece, 'pictures', {
    pictures: piece.pictures.map((p: any) => ({ id: p.id, caption: 'Mark side', mmPerPixel: 0.5 })),
  });
  piece = await put(piece, 'pricing', {
    ask: { amount: '120.00', currency: 'EUR' },
    floor: { amount: '91.73', currency: 'EUR' },
    note: secret('the note on the price'),
  });
  planted.set('the floor', '91.73');
  planted.set('what it cost', '43.17');
  piece = await put(piece, 'custody', {
    events: [
      {
        holder: secret('a private owner'),
        private: true,
        place: 'Skerry Bay',
        period: '1950/1970',
        how: secret('how a private owner came by it'),
        evidence: 'owner-statement',
        note: secret('a note on a private owner'),
      },
    ],
  });
  piece = await post(piece, 'documents', {
    kind: 'letter',
    title: secret('the title of a letter'),
    dated: '1955',
    author: secret('who wrote the letter'),
    keptAt: secret('where the letter is kept'),
    transcription: secret('what the letter says'),
    claims: [
      { kind: 'owner', holder: secret('whom the letter names'), period: '1952' },
      { kind: 'number', number: '88123' },
    ],
  });
  piece = await post(piece, 'treatments', {
    kind: 'oil',
    doneOn: TODAY,
    doneBy: secret('who oiled it'),
    reason: secret('why it was oiled'),
    reversible: true,
    cost: { amount: '3.91', currency: 'EUR' },
  });
  await call('POST', '/inventory/place', { pieces: [piece.id], place: secret('where it lies') });
  piece = await fresh(piece);
  piece = await put(piece, 'reservation', {
    name: secret('for whom it was kept'),
    until: TODAY,
    note: secret('why it was kept'),
  });
  const draft = (await call('GET', `/pieces/${piece.id}/listing/draft`)).body;
  outputs.set('the listing', `${draft.written.title}\n${draft.written.body}`);
  outputs.set('the listing in German', `${draft.second.written.title}\n${draft.second.written.body}`);
  outputs.set('its problems', JSON.stringify([draft.problems, draft.second.problems]));
  piece = await post(piece, 'listing/publish', {});
  const told = await server.database.rows<{ body: unknown }>('SELECT body FROM outbox');
  outputs.set('what the marketplace is told', JSON.stringify(told));
  outputs.set('Linked Art', JSON.stringify((await call('GET', `/pieces/${piece.id}/linked-art.json`)).body));
  outputs.set('owners as CSV', String((await call('GET', `/pieces/${piece.id}/custody.csv`)).body));
  const sold = await call('POST', `/pieces/${piece.id}/sale`, {
    price: { amount: '117.39', currency: 'EUR' },
    buyerName: secret('the buyer'),
    buyerAddress: secret('where the buyer lives'),
    ageChecked: true,
    despiteReservation: true,
  });
  expect(sold.status).toBe(201);
  planted.set('the price', '117.39');
  code = sold.body.certificateCode;
  const nobody = server.nobody();
  const page = await nobody.call<any>('GET', `/certificates/${code}`);
  outputs.set('the check page', JSON.stringify(page.body));
  outputs.set(
    'the certificate’s file',
    JSON.stringify((await nobody.call('GET', `/certificates/${code}/certificate.json`)).body),
  );
  for (const { hash } of page.body.pictures) {
    const bytes = await fetch(`${server.address}/api/v1/certificates/${code}/pictures/${hash}`);
    outputs.set(`picture ${hash.slice(0, 6)}`, Buffer.from(await bytes.arrayBuffer()).toString('latin1'));
  }
});
afterAll(() => server.close());

test('everything that goes out was looked at', () => {
  expect(planted.size).toBeGreaterThan(20);
  expect([...outputs.keys()]).toEqual(
    expect.arrayContaining(['the listing', 'the listing in German', 'the check page', 'Linked Art']),
  );
  for (const [name, text] of outputs) expect([name, text.length > 5]).toEqual([name, true]);
});

test('and what was planted is really there, for the shop’s own people', async () => {
  const inside = JSON.stringify([
    await fresh(piece),
    (await call('GET', `/pieces/${piece.id}/documents`)).body,
    (await call('GET', `/pieces/${piece.id}/condition/history`)).body,
    (await call('GET', '/sales')).body,
  ]);
  expect(carried(inside)).toEqual(
    expect.arrayContaining([
      'from whom',
      'what the seller said',
      'a private owner',
      'what the letter says',
      'whom the letter names',
      'where it lies',
      'the buyer',
      'the floor',
      'what it cost',
    ]),
  );
});

test('nothing that is private stands in it', () => {
  const leaks = [...outputs].flatMap(([name, text]) => carried(text).map((where) => `${where} in ${name}`));
  expect(leaks).toEqual([]);
});

test('a public page tells the trail’s contradiction without naming anybody', () => {
  const listing = outputs.get('the listing') ?? '';
  expect(listing).toMatch(/private collection, Skerry Bay/i);
  expect(listing).toMatch(/letter of 1955/);
});
