import { afterEach, describe, expect, test } from '@jest/globals';
import { cleanup, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { FrequencyAnswer } from '@jutbank/contract/bench';
import { serve, show } from '../testing/screen.tsx';
import FrequencyPage from './FrequencyPage.tsx';

afterEach(cleanup);

const learnt: FrequencyAnswer = {
  learns: true,
  unlisted: 0.042,
  exponents: [{ maker: 'bh', name: 'Brackenholt Cutlery', exponent: 0.52 }],
  learnt: [
    {
      from: 'sold',
      named: 1104,
      unnamed: 90,
      levels: [
        {
          level: 'maker',
          trust: 0.04,
          factors: [
            { id: 'bh slipjoint', name: 'Brackenholt, slipjoint', seen: 588, expected: 208, factor: 1.04 },
          ],
        },
      ],
    },
  ],
};

describe('how often things turn up', () => {
  test('what was learnt is shown with how many it is from and how far it is believed', async () => {
    serve({ 'GET /identify/frequency': () => ({ body: learnt }) });
    show(<FrequencyPage />);
    await screen.findByText(/1,104 that name a variant, 90 a pattern only/);
    screen.getByText(/believed 4 in 100/);
    screen.getByText(/4.2 times in/);
    const row = within(screen.getByRole('row', { name: /Brackenholt, slipjoint/ }));
    row.getByText('588');
    row.getByText('× 1.04');
  });
  test('an empty shop is told what will be counted', async () => {
    serve({ 'GET /identify/frequency': () => ({ body: { ...learnt, exponents: [], learnt: [] } }) });
    show(<FrequencyPage />);
    await screen.findByText('Nothing to learn from yet');
    screen.getByText(/Asking prices and offers are not/);
  });
  test('it is switched off by whoever may decide, and only looked at by the others', async () => {
    const came = serve({
      'GET /identify/frequency': () => ({ body: learnt }),
      'PUT /identify/frequency': () => ({ body: { learns: false } }),
    });
    show(<FrequencyPage />);
    await userEvent.click(await screen.findByRole('checkbox'));
    await waitFor(() => expect(came.find((r) => r.method === 'PUT')?.body).toEqual({ learns: false }));
    cleanup();
    show(<FrequencyPage />, { role: 'reader' });
    expect(((await screen.findByRole('checkbox')) as HTMLInputElement).disabled).toBe(true);
  });
});
