/** What is told to the marketplace happens there once, whatever becomes of the answer, and in the order it was decided. */
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, beforeEach, expect, test } from '@jest/globals';
import { startMarketplace, type RunningMarketplace } from '@jutbank/standins/marketplace';
import { readyToSell, serverForTest, testPack, type TestServer } from '../testing/index.ts';

type Mood = 'well' | 'down' | 'loses-answers' | 'refuses';
let folder: string;
let market: RunningMarketplace;
let front: Server;
let server: TestServer;
let mood: Mood = 'well';
/** what the marketplace was really told */
let heard: { path: string; key: string | undefined }[] = [];

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'jutbank-front-'));
  market = await startMarketplace(folder);
  front = createServer((request, response) => {
    const parts: Buffer[] = [];
    request.on('data', (part: Buffer) => parts.push(part));
    request.on('end', () => {
      if (mood === 'down') {
        request.socket.destroy();
        return;
      }
      if (mood === 'refuses') {
        response.writeHead(422).end('{}');
        return;
      }
      const key = request.headers['idempotency-key'];
      if (request.method === 'POST')
        heard.push({ path: request.url ?? '', key: typeof key === 'string' ? key : undefined });
      void fetch(`${market.url}${request.url ?? ''}`, {
        method: request.method ?? 'GET',
        headers: {
          'content-type': 'application/json',
          ...(typeof key === 'string' ? { 'idempotency-key': key } : {}),
        },
        ...(request.method === 'POST' ? { body: Buffer.concat(parts) } : {}),
      }).then(async (answered) => {
        const text = await answered.text();
        // it was done, but nobody hears of it
        if (mood === 'loses-answers') request.socket.destroy();
        else response.writeHead(answered.status, { 'content-type': 'application/json' }).end(text);
      });
    });
  });
  await new Promise<void>((resolve) => front.listen(0, '127.0.0.1', resolve));
  server = await serverForTest(true, `http://127.0.0.1:${(front.address() as AddressInfo).port}`);
  await server.owner.call('POST', '/reference-packs', testPack);
});
afterAll(async () => {
  await server.close();
  front.closeAllConnections();
  await new Promise((resolve) => front.close(resolve));
  await market.close();
  rmSync(folder, { recursive: true, force: true });
});
beforeEach(() => {
  mood = 'well';
  heard = [];
});

const publish = async (piece: { id: string; version: number }) =>
  server.owner.call('POST', `/pieces/${piece.id}/listing/publish`, {}, { 'if-match': `"v${piece.version}"` });
const sheet = async (id: string) => (await server.owner.call('GET', `/pieces/${id}`)).body;
const due = () =>
  server.database.run(
    "UPDATE outbox SET next_at = UTC_TIMESTAMP(3), claimed_until = NULL WHERE state = 'waiting'",
  );
const listings = async () => (await sheet(pieceId)).listing;
let pieceId = '';

test('a listing goes up at once, and its name there is known', async () => {
  const piece = await readyToSell(server);
  pieceId = piece.id;
  const reply = await publish(piece);
  expect(reply.status).toBe(200);
  expect(reply.body.listing).toMatchObject({
    state: 'published',
    marketplaceRef: expect.stringMatching(/^M/),
    waiting: [],
  });
  expect(heard).toHaveLength(1);
});

test('a marketplace that is down is told later; meanwhile the desk says what waits', async () => {
  const piece = await readyToSell(server);
  pieceId = piece.id;
  mood = 'down';
  const reply = await publish(piece);
  expect(reply.status).toBe(200);
  expect(reply.body.listing).toMatchObject({
    state: 'published',
    marketplaceRef: null,
    waiting: [{ kind: 'publish', problem: expect.stringContaining('does not answer') }],
  });
  expect((await server.owner.call('POST', `/pieces/${piece.id}/listing/messages/fetch`, {})).status).toBe(
    409,
  );
  mood = 'well';
  await due();
  // the circuit may still be open: another copy of the server would not know of it
  await server.app.outboxRounds.outbox.deliver();
  if ((await listings()).marketplaceRef === null) {
    await new Promise((resolve) => setTimeout(resolve, 21_000));
    await due();
    await server.app.outboxRounds.outbox.deliver();
  }
  expect(await listings()).toMatchObject({ marketplaceRef: expect.stringMatching(/^M/), waiting: [] });
}, 60_000);

test('an answer that is lost on its way does not put it up twice', async () => {
  const piece = await readyToSell(server);
  pieceId = piece.id;
  mood = 'loses-answers';
  await publish(piece);
  mood = 'well';
  await due();
  await server.app.outboxRounds.outbox.deliver();
  const { marketplaceRef } = await listings();
  expect(marketplaceRef).toMatch(/^M/);
  expect(heard.length).toBeGreaterThan(1);
  expect(new Set(heard.map((h) => h.key)).size).toBe(1);
});

test('a teller that was killed between telling and noting is followed by another, with the same key', async () => {
  const piece = await readyToSell(server);
  pieceId = piece.id;
  await publish(piece);
  const first = (await listings()).marketplaceRef;
  // as it stood before the note was written
  await server.database.run(
    "UPDATE outbox SET state = 'waiting', told_at = NULL, claimed_until = UTC_TIMESTAMP(3) WHERE piece_id = ?",
    [pieceId],
  );
  await server.database.run('UPDATE listing SET marketplace_ref = NULL WHERE piece_id = ?', [pieceId]);
  await due();
  await server.app.outboxRounds.outbox.deliver();
  expect((await listings()).marketplaceRef).toBe(first);
});

test('what is refused is said and not told again; a sale is not held up by it', async () => {
  const piece = await readyToSell(server);
  pieceId = piece.id;
  mood = 'refuses';
  await publish(piece);
  expect((await listings()).waiting).toMatchObject([{ kind: 'publish', refused: true }]);
  const sold = await server.owner.call('POST', `/pieces/${piece.id}/sale`, {
    ageChecked: true,
    buyerName: 'B',
    price: { amount: '80.00', currency: 'EUR' },
  });
  expect(sold.status).toBe(201);
});

test('sold before it was up: it goes up and ends, in that order, and answers nobody any more', async () => {
  const piece = await readyToSell(server);
  pieceId = piece.id;
  mood = 'down';
  await publish(piece);
  await server.owner.call('POST', `/pieces/${piece.id}/sale`, {
    ageChecked: true,
    buyerName: 'B',
    price: { amount: '80.00', currency: 'EUR' },
  });
  mood = 'well';
  await new Promise((resolve) => setTimeout(resolve, 21_000));
  await due();
  await server.app.outboxRounds.outbox.deliver();
  expect(heard.map((h) => h.path.replace(/M[0-9a-f]+/, 'M'))).toEqual(['/listings', '/listings/M/end']);
}, 60_000);
