import { afterEach, describe, expect, test } from '@jest/globals';
import { cleanup, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { ComparableRecord } from '@jutbank/contract/market';
import { referenceAnswers } from '../testing/reference.ts';
import { problem, serve, show, type Answers, type Request } from '../testing/screen.tsx';
import { eur } from '../testing/sheet.ts';
import ComparablesPage from './ComparablesPage.tsx';

afterEach(cleanup);

const record = (n: number, more: Partial<ComparableRecord> = {}): ComparableRecord => ({
  id: `${n}`.padStart(26, '0'),
  state: 'kept',
  stateReason: null,
  cells: { venue: `House ${n}`, source: 'result list' },
  saleDate: `2026-0${1 + (n % 9)}-10`,
  price: eur(`${90 + n}.00`),
  priceKind: 'sold',
  venueKind: 'auction',
  pattern: 'harbour-jack',
  variant: null,
  variantName: null,
  conditionIndex: 80,
  ...more,
});
const server = (items: ComparableRecord[], more: Answers = {}) =>
  serve({
    ...referenceAnswers,
    'GET /comparables': () => ({ body: { items, nextCursor: null, total: items.length } }),
    'GET /comparables/imports': () => ({ body: { items: [] } }),
    'GET /comparables/suspects': () => ({ body: { items: [] } }),
    ...more,
  });
const lists = (came: readonly Request[]) => came.filter((r) => r.path.startsWith('/comparables?'));

describe('prices', () => {
  test('a shop without any begins with a list, and says what leans on them', async () => {
    server([]);
    show(<ComparablesPage />);
    await screen.findByText(/No price is known yet/);
    await screen.findByLabelText('Choose a CSV file');
  });
  test('each with its pattern by name; the tools stay away until they are wanted', async () => {
    server([record(1), record(2)]);
    show(<ComparablesPage />);
    within(await screen.findByRole('row', { name: /House 1/ })).getByText('€91.00');
    expect(screen.getAllByText('Harbour jack').length).toBe(2);
    expect(screen.queryByLabelText('Choose a CSV file')).toBeNull();
    await userEvent.click(screen.getByRole('button', { name: 'Write one down' }));
    screen.getByText('Write down a price');
    await userEvent.click(screen.getByRole('button', { name: 'Take in a list' }));
    expect(screen.queryByText('Write down a price')).toBeNull();
  });
  test('words and choices go into the question; what fits nothing is said so', async () => {
    const came = serve({
      ...referenceAnswers,
      'GET /comparables/suspects': () => ({ body: { items: [] } }),
      'GET /comparables': ({ path }) => {
        const items = path.includes('q=') ? [] : [record(1)];
        return { body: { items, nextCursor: null, total: items.length } };
      },
    });
    show(<ComparablesPage />);
    await screen.findByRole('row', { name: /House 1/ });
    await userEvent.type(screen.getByLabelText('Words'), 'quay');
    await screen.findByText('No price fits what was asked.');
    await userEvent.click(screen.getByRole('combobox', { name: 'Venue' }));
    await userEvent.click(await within(screen.getByRole('listbox')).findByRole('option', { name: 'Fair' }));
    await waitFor(() => expect(lists(came).at(-1)?.path).toContain('venueKind=fair'));
    expect(lists(came).at(-1)?.path).toContain('q=quay');
  });
  test('chosen ones are set aside with a reason, which is asked for', async () => {
    const came = server([record(1), record(2)], {
      'POST /comparables/states': ({ body }) =>
        (body as { reason: string }).reason === ''
          ? problem(422, 'Please check', [{ pointer: '/reason', message: 'say why; the reason is kept' }])
          : { body: { changed: 1 } },
    });
    show(<ComparablesPage />);
    const row = await screen.findByRole('row', { name: /House 2/ });
    await userEvent.click(within(row).getByRole('checkbox'));
    await userEvent.click(screen.getByRole('button', { name: 'Set aside' }));
    await screen.findByText('say why; the reason is kept');
    await userEvent.type(screen.getByLabelText('Why'), 'a pair, not one piece');
    await userEvent.click(screen.getByRole('button', { name: 'Set aside' }));
    await waitFor(() =>
      expect(came.filter((r) => r.path === '/comparables/states').at(-1)?.body).toMatchObject({
        ids: [record(2).id],
        state: 'set-aside',
        reason: 'a pair, not one piece',
      }),
    );
  });
  test('those that look like errors are told with the likely slip', async () => {
    server([record(1)], {
      'GET /comparables/suspects': () => ({
        body: {
          items: [{ comparable: record(9), times: 10.1, reason: '10 times more: a digit may have slipped' }],
        },
      }),
    });
    show(<ComparablesPage />);
    await screen.findByText(/looks? like (an error|errors)/);
    screen.getByText('10 times more: a digit may have slipped');
  });
  test('who may only read is offered no tool', async () => {
    server([record(1)]);
    show(<ComparablesPage />, { role: 'reader' });
    await screen.findByRole('row', { name: /House 1/ });
    expect(screen.queryByRole('button', { name: 'Write one down' })).toBeNull();
    expect(screen.getByRole('link', { name: 'Export' }).getAttribute('href')).toContain('state=kept');
  });
});
