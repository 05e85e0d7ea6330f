import { afterEach, describe, expect, test } from '@jest/globals';
import { cleanup, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { show } from '../../testing/screen.tsx';
import { DateInput } from './figures.tsx';

afterEach(cleanup);

describe('a date in figures alone', () => {
  test.each([
    ['in a shop that writes the day first', true, '12 Sep 2026', '2026-09-12'],
    ['in one that writes the month first', false, '9 Dec 2026', '2026-12-09'],
  ])('is read by the shop’s order: %s', async (_, dayFirst, words, edtf) => {
    const heard: (string | null)[] = [];
    show(<DateInput label="When" value={null} onChange={(read) => heard.push(read)} />, { dayFirst });
    await userEvent.type(screen.getByLabelText('When'), '12/09/2026');
    screen.getByText(`Understood as ${words}`);
    expect(heard.at(-1)).toBe(edtf);
  });
  test('that only one order makes a day of is that day', async () => {
    show(<DateInput label="When" value={null} onChange={() => undefined} />, { dayFirst: false });
    await userEvent.type(screen.getByLabelText('When'), '25/09/2026');
    screen.getByText('Understood as 25 Sep 2026');
  });
});
