/** What stands between a request and a room: text that cannot be kept, cursors, what readers are not told, faults in words. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { decodeCursor, encodeCursor, pageOf } from './page.ts';
import { problemOf } from './faults.ts';
import { HttpProblem } from './problem.ts';
import { unkeepable } from './text.ts';
import { withheld } from './visibility.ts';

describe('text that cannot be kept', () => {
  test('is found wherever it stands, and named by its pointer', () => {
    const found = unkeepable({
      title: 'half \ud83d a sign',
      list: [{ 'a/b~c': 'nul \0' }],
      fine: 'whole 🔪',
    });
    expect(found.map((f) => f.pointer)).toEqual(['/title', '/list/0/a~1b~0c']);
  });
  test('a key is text as well', () => {
    expect(unkeepable({ 'half \udd2a': 1 })).toHaveLength(1);
  });
  test('whatever people write in any script is kept', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme' }), (text) => {
        expect(unkeepable({ text: text.replaceAll('\0', '') })).toEqual([]);
      }),
    );
  });
  test('nesting without end is refused, not followed', () => {
    let deep: object = {};
    for (let i = 0; i < 5000; i++) deep = { deep };
    expect(unkeepable(deep).map((f) => f.message)).toEqual(['this is nested too deeply']);
  });
});

describe('pages', () => {
  test('a cursor comes back as it went out', () => {
    fc.assert(
      fc.property(fc.array(fc.oneof(fc.string(), fc.integer()), { minLength: 1, maxLength: 4 }), (key) => {
        expect(decodeCursor(encodeCursor(key), key.length)).toEqual(key);
      }),
    );
  });
  test.each(['', 'nonsense', encodeCursor([1, 2]), Buffer.from('{"a":1}').toString('base64url')])(
    'one of somebody’s making is refused: %j',
    (cursor) => expect(() => decodeCursor(cursor, 1)).toThrow(HttpProblem),
  );
  test('one row more than asked for means that there is more; the cursor is that of the last one told', () => {
    const page = pageOf(
      [1, 2, 3],
      2,
      9,
      (n) => n,
      (n) => [n],
    );
    expect(page).toMatchObject({ items: [1, 2], total: 9 });
    expect(decodeCursor(page.nextCursor ?? '', 1)).toEqual([2]);
    expect(
      pageOf(
        [1, 2],
        2,
        2,
        (n) => n,
        (n) => [n],
      ).nextCursor,
    ).toBeNull();
  });
});

describe('what readers are not told', () => {
  const sale = {
    invoiceNumber: '2026-0001',
    soldAt: '2026-11-20',
    buyerName: 'Greta Sundholm',
    price: { amount: '150.00', currency: 'EUR' },
    net: { left: '120.00' },
    cost: { amount: '80.00', currency: 'EUR' },
    margin: { amount: '40.00', currency: 'EUR' },
  };
  test('holds null in its place, however deep it stands; what anybody may know stays', () => {
    expect(withheld({ items: [sale] }, [])).toEqual({
      items: [{ ...sale, buyerName: null, net: null, cost: null, margin: null }],
    });
  });
  test('is told as far as the owner has opened it', () => {
    expect(withheld(sale, ['buyers', 'costs'])).toEqual({ ...sale, net: null, margin: null });
    expect(withheld(sale, ['buyers', 'costs', 'margins', 'floors'])).toEqual(sale);
  });
  test('a date’s floor is no price', () => {
    expect(withheld({ floor: [{ date: '1934' }], pricing: { floor: { amount: '90' } } }, [])).toEqual({
      floor: [{ date: '1934' }],
      pricing: { floor: null },
    });
  });
  test('an entry of the ledger holds all of it: its body is not told', () => {
    expect(withheld({ seq: 1, hash: 'a', body: { price: '80' } }, [])).toEqual({
      seq: 1,
      hash: 'a',
      body: null,
    });
  });
});

describe('a fault in words', () => {
  test('a problem of ours is told as it is', () => {
    expect(problemOf(new HttpProblem(409, 'It is up already.'))).toMatchObject({ status: 409 });
  });
  test('one nobody thought of tells nothing of how the server is made', () => {
    const told = problemOf(new Error('ER_DUP_ENTRY in /srv/app.ts: SELECT secret FROM person'));
    expect(told.status).toBe(500);
    expect(JSON.stringify([told.message, told.detail])).not.toMatch(/SELECT|srv|ER_/);
  });
});
