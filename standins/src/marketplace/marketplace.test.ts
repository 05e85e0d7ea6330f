import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { startMarketplace, type RunningMarketplace } from './index.ts';

let folder: string;
let market: RunningMarketplace;
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'jutbank-market-'));
  market = await startMarketplace(folder);
});
afterAll(async () => {
  await market.close();
  rmSync(folder, { recursive: true, force: true });
});
const call = async (path: string, body?: unknown) => {
  const response = await fetch(
    market.url + path,
    body === undefined
      ? {}
      : { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) },
  );
  return {
    status: response.status,
    body: (await response.json()) as {
      ref?: string;
      items?: { id: string; kind: string; amount: { amount: string; currency: string } | null }[];
    },
  };
};
const listing = {
  stockNumber: 'HQ-0001',
  title: 'Harbour jack',
  body: 'Words.',
  price: { amount: '145.00', currency: 'EUR' },
};

test('a listing is answered with one question and one offer a little below its price', async () => {
  const { status, body } = await call('/listings', listing);
  expect(status).toBe(201);
  const messages = (await call(`/listings/${body.ref ?? ''}/messages`)).body.items ?? [];
  expect(messages.map((m) => m.kind).sort()).toEqual(['offer', 'question']);
  const offer = messages.find((m) => m.kind === 'offer');
  expect(Number(offer?.amount?.amount)).toBeGreaterThan(145 * 0.8);
  expect(Number(offer?.amount?.amount)).toBeLessThan(145);
  expect((await call(`/listings/${body.ref ?? ''}/messages`)).body.items).toEqual(messages);
});

test('the same listing told twice under one key is one listing', async () => {
  const tell = async (key: string) => {
    const response = await fetch(`${market.url}/listings`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', 'idempotency-key': key },
      body: JSON.stringify(listing),
    });
    return ((await response.json()) as { ref: string }).ref;
  };
  const first = await tell('one');
  expect(await tell('one')).toBe(first);
  expect(await tell('two')).not.toBe(first);
});

test('a currency without cents is offered without cents', async () => {
  const { body } = await call('/listings', { ...listing, price: { amount: '20000', currency: 'JPY' } });
  const offer = (await call(`/listings/${body.ref ?? ''}/messages`)).body.items?.find(
    (m) => m.kind === 'offer',
  );
  expect(offer?.amount?.amount).toMatch(/^\d+$/);
});

test('what it took in is there after it was started again; an ended listing is quiet', async () => {
  const { body } = await call('/listings', { ...listing, stockNumber: 'HQ-0002' });
  await market.close();
  market = await startMarketplace(folder);
  expect((await call(`/listings/${body.ref ?? ''}/messages`)).body.items).toHaveLength(2);
  expect((await call(`/listings/${body.ref ?? ''}/end`, {})).status).toBe(200);
  expect((await call(`/listings/${body.ref ?? ''}/messages`)).body.items).toEqual([]);
  expect((await call('/listings/none/messages')).status).toBe(404);
});
