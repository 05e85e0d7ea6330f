import { expect, test } from '@jest/globals';
import { availabilityOn, noLongerNew } from './availability.ts';

const note = (state: Parameters<typeof availabilityOn>[0][number]['state'], on: string) => ({
  state,
  on,
  source: 'the maker’s letter',
});

test('before anything was noted nothing is known', () => {
  expect(availabilityOn([note('in-production', '2020-01-01')], '2019-12-31')).toBeUndefined();
});

test('the latest note up to the day tells, in whatever order they were written', () => {
  const notes = [
    note('discontinued', '2022-05-01'),
    note('in-production', '2019-01-01'),
    note('sold-out', '2023-01-01'),
  ];
  expect(availabilityOn(notes, '2021-01-01')).toMatchObject({
    note: { state: 'in-production' },
    gone: false,
  });
  expect(availabilityOn(notes, '2022-12-31')).toMatchObject({ note: { state: 'discontinued' }, gone: true });
  expect(availabilityOn(notes, '2026-01-01')).toMatchObject({ note: { state: 'sold-out' }, gone: true });
});

test('old stock in the shops keeps a discontinued form buyable, until it was not seen for a year', () => {
  const notes = [note('discontinued', '2022-05-01'), note('in-shops', '2022-09-01')];
  expect(availabilityOn(notes, '2023-06-01')?.gone).toBe(false);
  expect(availabilityOn(notes, '2023-09-02')?.gone).toBe(true);
});

test('a caution names the form, the day and who said so', () => {
  expect(noLongerNew(note('sold-out', '2023-01-01'), 'Storm run')).toMatch(
    /^Storm run: no longer in the shops \(sold out, 1 Jan 2023 \(the maker’s letter\)\)/,
  );
  expect(noLongerNew(note('sold-out', '2023-01-01'))).toMatch(/^No longer in the shops/);
});
