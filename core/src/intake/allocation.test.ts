import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { toMinor } from '../money/index.ts';
import { allocateLot, type AllocationQuestion } from './allocation.ts';

const ask = (more: Partial<AllocationQuestion>) =>
  allocateLot({ currency: 'EUR', method: 'relative-value', costs: [], pieces: [], ...more });
const shares = (more: Partial<AllocationQuestion>) => {
  const answer = ask(more);
  if (!answer.ok) throw new Error(answer.error.message);
  return answer.value.shares;
};
const pointer = (more: Partial<AllocationQuestion>) => {
  const answer = ask(more);
  return answer.ok ? undefined : answer.error.pointer;
};
const worth = (...values: string[]) => values.map((value) => ({ value }));

describe('the cost of a lot over its pieces', () => {
  test('by value, the odd cents to the largest remainders', () => {
    // in cents by hand: 41000·120/406 = 12118.23, ·80/406 = 8078.82, ·206/406 = 20802.96; two cents are left over
    expect(shares({ costs: ['400.00', '10.00'], pieces: worth('120', '80', '206') })).toEqual([
      '121.18',
      '80.79',
      '208.03',
    ]);
  });
  test('ties go to the earlier piece, whatever is worth nothing gets nothing', () => {
    expect(shares({ costs: ['0.01'], pieces: worth('5', '5') })).toEqual(['0.01', '0.00']);
    expect(shares({ costs: ['1.00'], pieces: worth('0', '3', '3', '3') })).toEqual([
      '0.00',
      '0.34',
      '0.33',
      '0.33',
    ]);
  });
  test('no value anywhere, or equal: every piece alike; credits like costs', () => {
    expect(shares({ costs: ['1.00'], pieces: worth('0', '0', '0') })).toEqual(['0.34', '0.33', '0.33']);
    expect(shares({ method: 'equal', costs: ['-1.00'], pieces: worth('9', '0', '1') })).toEqual([
      '-0.34',
      '-0.33',
      '-0.33',
    ]);
  });
  test('by hand: given shares first, the rest over the open ones by value', () => {
    const pieces = [{ value: '1', share: '12.34' }, { value: '1' }, { value: '2' }];
    expect(shares({ method: 'manual', costs: ['100.00'], pieces })).toEqual(['12.34', '29.22', '58.44']);
  });
  test('currencies with other minor units', () => {
    expect(shares({ currency: 'JPY', costs: ['100'], pieces: worth('1', '1', '1') })).toEqual([
      '34',
      '33',
      '33',
    ]);
    expect(shares({ currency: 'KWD', costs: ['1.000'], pieces: worth('1', '1', '1') })).toEqual([
      '0.334',
      '0.333',
      '0.333',
    ]);
  });
  test('what cannot be shared is refused at its place', () => {
    expect(pointer({ costs: ['1.005'], pieces: worth('1') })).toBe('/costs/0');
    expect(pointer({ costs: ['1.00'], pieces: worth('1', '-2') })).toBe('/pieces/1/value');
    expect(pointer({ costs: ['1.00'] })).toBe('/pieces');
    expect(pointer({ method: 'manual', costs: ['1.00'], pieces: [{ value: '1', share: '0.90' }] })).toBe(
      '/shares',
    );
    expect(
      pointer({ method: 'manual', costs: ['1.00'], pieces: [{ value: '1', share: '1.10' }, { value: '1' }] }),
    ).toBe('/shares');
    expect(
      pointer({ method: 'manual', costs: [], pieces: [{ value: '1', share: '1.10' }, { value: '1' }] }),
    ).toBe('/shares');
  });
  test('always adds up, in whatever currency', () => {
    const cents = fc.integer({ min: -500_000, max: 5_000_000 });
    fc.assert(
      fc.property(
        fc.constantFrom('EUR', 'JPY', 'KWD'),
        fc.array(cents, { maxLength: 5 }),
        fc.array(fc.integer({ min: 0, max: 90_000 }), { minLength: 1, maxLength: 40 }),
        fc.constantFrom('relative-value' as const, 'equal' as const),
        (currency, costs, values, method) => {
          const digits = { EUR: 2, JPY: 0, KWD: 3 }[currency] ?? 2;
          const answer = allocateLot({
            currency,
            method,
            costs: costs.map((c) => (c / 10 ** digits).toFixed(digits)),
            pieces: values.map((v) => ({ value: String(v) })),
          });
          if (!answer.ok) throw new Error(answer.error.message);
          const sum = answer.value.shares.reduce((total, s) => total + toMinor(s, currency), 0n);
          expect(sum).toBe(toMinor(answer.value.total, currency));
        },
      ),
    );
  });
});
