import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { quotesFor, startCarriers, type ParcelAsked } from './index.ts';

const knife: ParcelAsked = { zone: 'home', grams: 310, size: [200, 120, 60], value: 150, content: 'blade' };

describe('carriers that do not exist', () => {
  test('by hand: the first step, a step for each hundred grams, insurance on the value', () =>
    // 6.40 + 4 · 0.30 + 150 · 0.6 % = 8.50; 14.90 + 4 · 0.55 + 150 · 0.9 % = 18.45
    expect(quotesFor(knife).map((q) => [q.service, q.price])).toEqual([
      ['Letter parcel', '4.20'],
      ['Tracked parcel', '8.50'],
      ['Valuables', '18.50'],
    ]));
  test('what is too heavy, too large, or worth more than it is insured for is not taken', () => {
    expect(quotesFor({ ...knife, grams: 12_000 }).map((q) => q.service)).toEqual(['Tracked parcel']);
    expect(quotesFor({ ...knife, size: [2000, 900, 900] })).toEqual([]);
    expect(quotesFor({ ...knife, value: 900 }).map((q) => q.service)).toEqual(['Letter parcel', 'Valuables']);
  });
  test('farther away costs more, and more is to be looked up', () => {
    const [home, overseas] = [quotesFor(knife), quotesFor({ ...knife, zone: 'overseas' })];
    expect(overseas.map((q) => q.service)).not.toContain('Letter parcel');
    expect(Number(overseas[0]?.price)).toBeGreaterThan(Number(home[1]?.price));
    expect(overseas[0]?.topics.length).toBeGreaterThan(home[0]?.topics.length ?? 9);
  });
});

describe('over HTTP', () => {
  let carriers: Awaited<ReturnType<typeof startCarriers>>;
  beforeAll(async () => {
    carriers = await startCarriers();
  });
  afterAll(() => carriers.close());
  const post = (path: string, body: unknown, key = 'k') =>
    fetch(carriers.url + path, {
      method: 'POST',
      headers: { 'content-type': 'application/json', 'idempotency-key': key },
      body: JSON.stringify(body),
    });
  test('quotes, and what is asked wrongly is refused', async () => {
    expect(((await (await post('/quotes', knife)).json()) as { items: unknown[] }).items).toHaveLength(3);
    expect((await post('/quotes', { zone: 'moon' })).status).toBe(400);
  });
  test('a label told again with its key is the same parcel', async () => {
    const label = { carrier: 'Coast carrier', service: 'Tracked parcel', to: '4 Ropewalk' };
    const tracking = async (key: string) =>
      ((await (await post('/labels', label, key)).json()) as { tracking: string }).tracking;
    expect(await tracking('a')).toBe(await tracking('a'));
    expect(await tracking('a')).not.toBe(await tracking('b'));
    expect((await post('/labels', { ...label, service: 'Pigeon' })).status).toBe(400);
  });
});
