/** Series as a dealer and a customer follow them; figures made by hand. */
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { csv, intake, serverForTest, testPack, type TestServer } from '../testing/index.ts';

let server: TestServer;
const call = (method: string, path: string, body?: unknown, headers?: Record<string, string>): Promise<any> =>
  server.owner.call(method as 'GET', path, body, headers);
const put = async (piece: any, path: string, body: unknown): Promise<any> =>
  (await call('PUT', `/pieces/${piece.id}/${path}`, body, { 'if-match': `"v${piece.version}"` })).body;

async function piece(title: string, variant: string | null, findings: object[] = []): Promise<any> {
  let made = (await call('POST', '/pieces', { ...intake, title })).body;
  if (variant !== null)
    made = await put(made, 'attribution', {
      attribution: { pattern: 'jack', variant, tier: 'probable', reason: 'compared' },
    });
  return put(made, 'condition', { findings, completeness: {}, inspected: true });
}
const series = async (body: object): Promise<any> =>
  (await call('POST', '/series', { rule: { kind: 'patterns', patterns: ['jack'] }, ...body })).body;
const wish = (of: any, body: object) =>
  call('PUT', `/series/${of.id}/wishes`, body, { 'if-match': `"v${of.version}"` });

let fine: any;
let worn: any;
let anna: any;

beforeAll(async () => {
  server = await serverForTest();
  await call('POST', '/reference-packs', {
    ...testPack,
    variants: [
      ...testPack.variants,
      {
        id: 'quay',
        pattern: 'jack',
        name: 'Quayside exclusive',
        kind: 'exclusive',
        window: '1938',
        edition: { run: 25, firstNumber: 1, retailer: 'Lantern Row' },
        features: { scales: ['fibre'], lanyard: ['bar'] },
      },
      { id: 'copy', pattern: 'jack', name: 'Copy', kind: 'counterfeit', features: { scales: ['fibre'] } },
    ],
  });
  fine = await piece('Jack, kept well', 'first');
  worn = await piece('Jack, reground', 'first', [{ part: 'blade', defect: 'reground', severity: 'light' }]);
  anna = (await call('POST', '/contacts', { name: 'Anna Quill' })).body;
});
afterAll(() => server.close());

describe('the shop’s own series', () => {
  test('what is owned, double and missing, and which of two is to be sold and why', async () => {
    const answered = await series({ name: 'Every Harbour jack' });
    expect(answered.slots.map((s: any) => [s.key, s.state])).toEqual([
      ['first', 'owned'],
      ['second', 'missing'],
      ['quay', 'missing'],
    ]);
    const [first, , quay] = answered.slots;
    expect(first.best.id).toBe(fine.id);
    expect(first.doubles).toMatchObject([{ piece: { id: worn.id }, why: [{ why: 'worse' }] }]);
    expect(quay).toMatchObject({
      made: 25,
      edition: { retailer: 'Lantern Row' },
      rarity: { seen: { count: 0 } },
    });
    expect(answered.completion).toMatchObject({ filled: 1, of: 3, share: null, unpriced: 3 });
    // 25 made are fewer than 24 000
    expect(answered.hardest).toEqual(['quay', 'second']);
    expect((await call('GET', '/series')).body.items).toMatchObject([
      { name: 'Every Harbour jack', filled: 1, of: 3, doubles: 1 },
    ]);
  });

  test('with sales a price stands at every slot, and completion is told in money', async () => {
    const imported = await call(
      'POST',
      '/comparables/import',
      csv(
        Array.from(
          { length: 12 },
          (_, i) =>
            `2026-0${1 + (i % 9)}-11,${100 + i},EUR,sold,Quay sale,auction,jack,${i % 2 ? 'first' : 'second'},70`,
        ),
      ),
    );
    expect(imported.status).toBeLessThan(300);
    const { items } = (await call('GET', '/series')).body;
    const read = async () => (await call('GET', `/series/${items[0].id}`)).body;
    let answered = await read();
    for (let i = 0; i < 40 && !answered.slots[0].price; i++) {
      await new Promise((resolve) => setTimeout(resolve, 250));
      answered = await read();
    }
    for (const slot of answered.slots) {
      const [low, likely, high] = ['low', 'likely', 'high'].map((end) => Number(slot.price[end].amount));
      expect(low).toBeLessThan(likely ?? 0);
      expect(likely).toBeLessThan(high ?? 0);
    }
    const { owned, missing, share } = answered.completion;
    const amount = (slot: any) => Number(slot.price.likely.amount);
    expect(Number(owned.likely.amount)).toBeCloseTo(amount(answered.slots[0]), 1);
    expect(Number(missing.likely.amount)).toBeCloseTo(
      amount(answered.slots[1]) + amount(answered.slots[2]),
      1,
    );
    expect(share.low).toBeLessThan(share.likely);
    expect(share.likely).toBeLessThan(share.high);
  });

  test('what is said of a slot holds: elsewhere, not cared for, wanted at most', async () => {
    const { items } = (await call('GET', '/series')).body;
    let own = (await wish(items[0], { key: 'second', wish: 'have' })).body;
    expect(own.slots[1].state).toBe('elsewhere');
    expect((await wish(items[0], { key: 'quay', wish: 'skip' })).status).toBe(412);
    own = (await wish(own, { key: 'quay', wish: 'skip' })).body;
    expect(own.completion).toMatchObject({ filled: 2, of: 2 });
    own = (
      await wish(own, {
        key: 'quay',
        wish: 'want',
        atMost: { amount: '340.00', currency: 'EUR' },
        leastIndex: 80,
      })
    ).body;
    expect(own.slots[2].wish).toEqual({
      wish: 'want',
      atMost: { amount: '340.00', currency: 'EUR' },
      leastIndex: 80,
    });
    own = (await wish(own, { key: 'quay', wish: null })).body;
    expect(own.slots[2].wish).toBeNull();
    const refused = await wish(own, { key: 'nobody', wish: 'want' });
    expect(refused.body.errors).toMatchObject([{ pointer: '/key' }]);
  });

  test('a better one wanted below a grade', async () => {
    const answered = await series({ name: 'Fine ones', upgradeBelow: 100 });
    expect(answered.slots[0].state).toBe(fine.readings.condition.index < 100 ? 'upgrade' : 'owned');
  });

  test('by a stamp, by each handle, by every year', async () => {
    const keys = async (rule: object) =>
      (await series({ name: 'By rule', rule })).slots.map((s: any) => [s.key, s.state]);
    expect(await keys({ kind: 'stamp', mark: 'three-line' })).toEqual([
      ['first', 'owned'],
      ['second', 'missing'],
    ]);
    expect(await keys({ kind: 'values', patterns: ['jack'], feature: 'scales' })).toEqual([
      ['scales=horn', 'owned'],
      ['scales=fibre', 'missing'],
    ]);
    const years = await keys({ kind: 'years', patterns: ['jack'] });
    expect(years).toHaveLength(22);
    expect(years[0]).toEqual(['1919', 'missing']);
  });

  test('a rule that names what is not there is told beside its field, and nothing is kept', async () => {
    const before = (await call('GET', '/series')).body.items.length;
    const refused = await call('POST', '/series', {
      name: 'Odd',
      rule: { kind: 'patterns', patterns: ['jack', 'x'] },
    });
    expect(refused).toMatchObject({ status: 422, body: { errors: [{ pointer: '/rule/patterns/1' }] } });
    expect((await call('POST', '/series', { name: '', rule: { kind: 'stamp', mark: 'z' } })).status).toBe(
      422,
    );
    expect((await call('GET', '/series')).body.items).toHaveLength(before);
  });

  test('it is followed no longer', async () => {
    const gone = await series({ name: 'For a while' });
    await wish(gone, { key: 'quay', wish: 'want' });
    const again = (await call('GET', `/series/${gone.id}`)).body;
    expect(
      (await call('DELETE', `/series/${gone.id}`, undefined, { 'if-match': `"v${again.version}"` })).status,
    ).toBe(200);
    expect((await call('GET', `/series/${gone.id}`)).status).toBe(404);
  });
});

describe('a customer’s want list', () => {
  test('what comes in is told to be wanted: by its name, then by what it was decided to be', async () => {
    let list = await series({
      name: 'Anna’s jacks',
      contactId: anna.id,
      rule: { kind: 'picked', variants: ['quay'] },
    });
    expect(list.buyerName).toBe('Anna Quill');
    list = (await wish(list, { key: 'quay', wish: 'want', atMost: { amount: '400.00', currency: 'EUR' } }))
      .body;

    const taken = (await call('POST', '/pieces', { ...intake, title: 'harbour JACK with a shop’s name' }))
      .body;
    const wanted = async (id: string) => (await call('GET', `/pieces/${id}/wanted-by`)).body.items;
    expect(await wanted(taken.id)).toMatchObject([
      { buyerName: 'Anna Quill', slot: 'Quayside exclusive', sure: false, atMost: { amount: '400.00' } },
    ]);
    const decided = await put(taken, 'attribution', {
      attribution: { pattern: 'jack', variant: 'quay', tier: 'probable', reason: 'the shop’s name' },
    });
    expect(await wanted(decided.id)).toMatchObject([{ sure: true }]);
    expect((await call('GET', `/series/${list.id}`)).body.slots[0]).toMatchObject({
      state: 'missing',
      offers: [{ id: decided.id }],
    });
    // another form of the same pattern is not what she waits for
    expect(await wanted(fine.id)).toEqual([]);
  });

  test('what was sold to them is theirs', async () => {
    const { items } = (await call('GET', '/series')).body;
    const list = items.find((s: any) => s.contactId === anna.id);
    const [offer] = (await call('GET', `/series/${list.id}`)).body.slots[0].offers;
    let sold = (await call('GET', `/pieces/${offer.id}`)).body;
    sold = await put(sold, 'pricing', { ask: { amount: '380.00', currency: 'EUR' }, floor: null, note: '' });
    const sale = await call(
      'POST',
      `/pieces/${sold.id}/sale`,
      {
        buyerName: 'Anna Quill',
        buyerAddress: 'Quay 4',
        price: { amount: '380.00', currency: 'EUR' },
        contact: anna.id,
        ageChecked: true,
      },
      { 'if-match': `"v${sold.version}"` },
    );
    expect([sale.status, sale.body.errors]).toEqual([201, undefined]);
    expect((await call('GET', `/series/${list.id}`)).body).toMatchObject({
      filled: 1,
      slots: [{ state: 'owned', best: { id: sold.id } }],
    });
  });

  test('a reader is not told whose list it is, nor what they would pay', async () => {
    await call('POST', '/people', {
      name: 'Rea',
      email: 'rea@hollinquay.example',
      role: 'reader',
      password: 'quiet water 12',
    });
    const reader = server.nobody();
    await reader.call('POST', '/session', { email: 'rea@hollinquay.example', password: 'quiet water 12' });
    const { items } = ((await reader.call('GET', '/series')) as any).body;
    const list = items.find((s: any) => s.contactId === anna.id);
    expect(list.buyerName).toBeNull();
    const told = ((await reader.call('GET', `/series/${list.id}`)) as any).body;
    expect(JSON.stringify(told)).not.toContain('400.00');
  });

  test('who asked to be forgotten wants nothing any more', async () => {
    expect((await call('DELETE', `/contacts/${anna.id}`)).status).toBe(200);
    expect(JSON.stringify((await call('GET', '/series')).body)).not.toContain('Anna');
  });
});

describe('whether it can be bought new', () => {
  const note = (body: object) => call('POST', '/reference/variants/quay/availability', body);
  test('noted with a day and a source; gone from the shops, its series says so', async () => {
    expect((await note({ state: 'in-shops', on: '2024-05-01', source: 'seen at Lantern Row' })).status).toBe(
      201,
    );
    expect((await call('GET', '/reference/variants/quay')).body.availability).toMatchObject({
      notes: [{ state: 'in-shops', source: 'seen at Lantern Row' }],
      gone: true,
    });
    const { items } = (await call('GET', '/series')).body;
    const own = items.find((s: any) => s.name === 'Every Harbour jack');
    const { slots } = (await call('GET', `/series/${own.id}`)).body;
    expect(slots.find((s: any) => s.key === 'quay').availability).toMatchObject({
      state: 'in-shops',
      gone: true,
    });
  });
  test('not tomorrow, not without a source, not of what is no form', async () => {
    expect((await note({ state: 'sold-out', on: '2999-01-01', source: 'x' })).body.errors[0].pointer).toBe(
      '/on',
    );
    expect((await note({ state: 'sold-out', on: '2024-01-01', source: ' ' })).body.errors[0].pointer).toBe(
      '/source',
    );
    expect(
      (
        await call('POST', '/reference/variants/none/availability', {
          state: 'sold-out',
          on: '2024-01-01',
          source: 'x',
        })
      ).status,
    ).toBe(404);
  });
  test('a note is taken back', async () => {
    const { notes } = (await call('GET', '/reference/variants/quay')).body.availability;
    expect((await call('DELETE', `/reference/availability/${notes[0].id}`)).status).toBe(200);
    expect((await call('GET', '/reference/variants/quay')).body.availability).toEqual({
      notes: [],
      gone: false,
    });
  });
});
