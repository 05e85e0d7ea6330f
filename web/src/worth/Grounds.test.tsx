import { afterEach, test } from '@jest/globals';
import { cleanup, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { PairedSale } from '@jutbank/contract/worth';
import { show } from '../testing/screen.tsx';
import { Grounds } from './Grounds.tsx';

afterEach(cleanup);

const paid = (id: string, amount: string): PairedSale => ({
  id,
  saleDate: '2026-03-01',
  venue: `House ${id}`,
  price: { amount, currency: 'EUR' },
  paid: { amount, currency: 'EUR' },
});

test('a line shows what pairs say beside what the engine says, and opens to the sales themselves', async () => {
  show(
    <Grounds
      grounds={{
        pairs: [
          {
            line: 'box',
            said: 'box against none',
            middle: 11.5,
            engine: 11,
            count: 2,
            pairs: [
              { more: paid('a', '109.00'), less: paid('b', '100.00'), percent: 9, engine: 11, daysApart: 3 },
              {
                more: paid('c', '114.00'),
                less: paid('d', '100.00'),
                percent: 14,
                engine: 11,
                daysApart: 90,
              },
            ],
          },
        ],
        near: [],
      }}
    />,
  );
  await userEvent.click(screen.getByRole('button', { name: '+9 %, +14 %' }));
  screen.getByText(/House a, 1 Mar 2026 against/);
  screen.getByText('Every sale of the pattern that is known stands in the grid.');
});
test('a near sale says why it is not used; a grid without pairs says so', () => {
  show(
    <Grounds
      grounds={{
        pairs: [],
        near: [
          {
            id: 'x',
            saleDate: '2026-03-01',
            venue: 'Tollgate Rooms',
            price: { amount: '75.00', currency: 'EUR' },
            variant: null,
            why: 'set aside by hand: a blade alone',
          },
        ],
      }}
    />,
  );
  screen.getByText('set aside by hand: a blade alone');
  screen.getByText(/No two sales of one variant differ in a single thing/);
});
