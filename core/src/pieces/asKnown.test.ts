import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { asKnownOn, changesSince, type Written } from './asKnown.ts';

const entry = (at: string, kind: string, body: unknown): Written => ({
  at: `${at}T10:00:00.000Z`,
  kind,
  by: 'Ines',
  body,
});
const ledger = [
  entry('2026-01-05', 'taken-in', { title: 'Jack?', stockNumber: 'HQ-1' }),
  entry('2026-01-06', 'observed', { observations: [{ feature: 'lanyard', value: 'bar' }] }),
  entry('2026-02-01', 'attributed', { attribution: { variant: 'first' } }),
  entry('2026-02-03', 'picture-added', { hash: 'x' }),
  entry('2026-03-01', 'attributed', { attribution: { variant: 'second' } }),
  entry('2026-03-09', 'attributed', { attribution: null }),
  entry('2026-04-01', 'sold', {}),
  entry('2026-04-20', 'came-back', {}),
];

describe('as it was known then', () => {
  test.each<[string, unknown]>([
    ['2026-01-04', {}],
    ['2026-01-05', { intake: { title: 'Jack?', stockNumber: 'HQ-1' } }],
    [
      '2026-02-28',
      { attribution: { variant: 'first' }, observations: [{ feature: 'lanyard', value: 'bar' }] },
    ],
    ['2026-03-01', { attribution: { variant: 'second' } }],
    ['2026-03-20', { attribution: null }],
    ['2026-04-10', { sold: true }],
    ['2026-12-01', { sold: false }],
  ])('on %s', (day, known) => expect(asKnownOn(ledger, day)).toMatchObject(known as object));
  test('what was not written yet is absent, not empty', () =>
    expect(asKnownOn(ledger, '2026-01-05')).not.toHaveProperty('observations'));
  test('an entry that nobody understands changes nothing', () =>
    expect(
      asKnownOn([entry('2026-01-01', 'observed', null), entry('2026-01-01', 'whatever', 7)], '2026-02-01'),
    ).toEqual({}));
  test('all that came since, with what it changed', () =>
    expect(changesSince(ledger, '2026-03-01').map((c) => [c.kind, c.parts])).toEqual([
      ['attributed', ['attribution']],
      ['sold', ['sold']],
      ['came-back', ['sold']],
    ]));
  test('the order in which entries are given does not matter', () =>
    fc.assert(
      fc.property(fc.shuffledSubarray(ledger, { minLength: ledger.length }), (mixed) =>
        expect(asKnownOn(mixed, '2026-03-20')).toEqual(asKnownOn(ledger, '2026-03-20')),
      ),
    ));
});
