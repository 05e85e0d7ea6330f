import { afterEach, describe, expect, test } from '@jest/globals';
import { cleanup, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { USUAL_SETTINGS, type PricingSettings } from '@jutbank/contract/shop';
import type { RatesKnown } from '@jutbank/contract/market';
import { problem, serve, show, type Answers } from '../testing/screen.tsx';
import RatesPage from './RatesPage.tsx';

afterEach(cleanup);

const known = (more: Partial<RatesKnown> = {}): RatesKnown => ({
  base: 'EUR',
  missing: [],
  latest: [
    {
      currency: 'SEK',
      date: '2026-11-24',
      rate: '11.0837',
      source: 'Harbour Exchange (simulated)',
      used: 259,
      before: [
        { date: '2026-11-23', rate: '11.1' },
        { date: '2026-11-24', rate: '11.0837' },
      ],
    },
  ],
  ...more,
});
const server = (more: Answers = {}, rates = known()) =>
  serve({
    'GET /exchange-rates': () => ({ body: rates }),
    'GET /pricing-settings': () => ({ body: { settings: USUAL_SETTINGS, version: 2 } }),
    ...more,
  });

describe('exchange rates', () => {
  test('the last of each, how it went, where it comes from', async () => {
    server();
    show(<RatesPage />);
    const row = await screen.findByRole('row', { name: /SEK/ });
    within(row).getByText('11.0837');
    within(row).getByText('259');
    within(row).getByText('Harbour Exchange (simulated)');
    within(row).getByRole('img', { name: 'SEK between 11.0837 and 11.1000 over 2 days' });
  });
  test('none yet, and prices that cannot be used without', async () => {
    server({}, known({ latest: [], missing: [{ currency: 'NOK', prices: 12 }] }));
    show(<RatesPage />);
    await screen.findByText('No rate of NOK is known.');
    screen.getByText(/12 prices are left out of every estimate/);
    screen.getByText(/None is stored yet/);
  });
  test('fetched up to today, with what was new', async () => {
    server({
      'POST /exchange-rates/fetch': () => ({
        body: {
          added: 9,
          updated: 1,
          unchanged: 0,
          source: 'Harbour Exchange',
          from: '2026-11-24',
          to: '2026-11-25',
        },
      }),
    });
    show(<RatesPage />);
    await userEvent.click(await screen.findByRole('button', { name: 'Fetch up to today' }));
    await screen.findByText(/Harbour Exchange: 9 new, 1 changed, from 2026-11-24 to 2026-11-25/);
  });
  test('a source that does not answer is told, and nothing else changes', async () => {
    server({ 'POST /exchange-rates/fetch': () => problem(502, 'The source of rates does not answer.') });
    show(<RatesPage />);
    await userEvent.click(await screen.findByRole('button', { name: 'Fetch up to today' }));
    await screen.findByText('The source of rates does not answer.');
    screen.getByText('11.0837');
  });
  test('every day by itself is one of the shop’s settings', async () => {
    const came = server({
      'PUT /pricing-settings': ({ body }) => ({ body: { settings: body as PricingSettings, version: 3 } }),
    });
    show(<RatesPage />);
    const box = await screen.findByRole<HTMLInputElement>('checkbox', { name: /every day by itself/ });
    await userEvent.click(box);
    const sent = came.find((r) => r.method === 'PUT');
    expect((sent?.body as PricingSettings).dailyRates).toBe(true);
    expect(sent?.headers['if-match']).toBe('"v2"');
    expect(box.checked).toBe(true);
  });
  test('a list is tried first; its errors stand at line and column, the good ones go in on demand', async () => {
    const answered = (check: boolean) => ({
      body: {
        rows: 3,
        added: 2,
        updated: 0,
        unchanged: 0,
        errors: check
          ? [
              {
                line: 4,
                column: 'SEK',
                columnNumber: 2,
                value: 'much',
                message: 'a rate is a number above 0',
              },
            ]
          : [],
      },
    });
    const came = server({
      'POST /exchange-rates/import': ({ path }) => answered(path.endsWith('check=1')),
    });
    show(<RatesPage />);
    const file = new File(['date,SEK'], 'bank.csv', { type: 'text/csv' });
    await userEvent.upload(await screen.findByLabelText('Choose a list of rates'), file);
    await screen.findByText(/3 rows: would bring 2 new rates/);
    screen.getByText('Line 4, SEK “much”: a rate is a number above 0');
    await userEvent.click(screen.getByRole('button', { name: 'Take in the good ones' }));
    await screen.findByText(/3 rows: brought 2 new rates/);
    expect(came.filter((r) => r.path.startsWith('/exchange-rates/import')).map((r) => r.path)).toEqual([
      '/exchange-rates/import?check=1',
      '/exchange-rates/import',
    ]);
  });
  test('a list that names no rate is refused in words', async () => {
    server({
      'POST /exchange-rates/import': () =>
        problem(422, 'Please check', [
          { pointer: '/file', message: 'the first line must name date, currency and rate' },
        ]),
    });
    show(<RatesPage />);
    await userEvent.upload(await screen.findByLabelText('Choose a list of rates'), new File(['x'], 'x.csv'));
    await screen.findByText('the first line must name date, currency and rate');
  });
  test('who may only read is offered neither', async () => {
    server();
    show(<RatesPage />, { role: 'reader' });
    await screen.findByText('11.0837');
    expect(screen.queryByRole('button', { name: 'Fetch up to today' })).toBeNull();
    expect(screen.queryByLabelText('Choose a list of rates')).toBeNull();
  });
});
