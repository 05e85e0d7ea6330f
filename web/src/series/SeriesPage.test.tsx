import { afterEach, describe, expect, test } from '@jest/globals';
import { cleanup, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Route, Routes } from 'react-router';
import type { HeldPiece, SeriesDetail, SeriesSlotAnswer } from '@jutbank/contract/series';
import { referenceAnswers } from '../testing/reference.ts';
import { serve, show } from '../testing/screen.tsx';
import SeriesListPage from './SeriesListPage.tsx';
import SeriesPage from './SeriesPage.tsx';
import { WantedBy } from './WantedBy.tsx';

afterEach(cleanup);
// nothing scrolls where nothing is laid out
Element.prototype.scrollIntoView = () => undefined;

const eur = (amount: string) => ({ amount, currency: 'EUR' });
const range = (low: string, likely: string, high: string) => ({
  low: eur(low),
  likely: eur(likely),
  high: eur(high),
});
const piece = (id: string, more: Partial<HeldPiece> = {}): HeldPiece => ({
  id,
  stockNumber: `HQ-${id}`,
  title: 'Harbour jack',
  tier: 'confirmed',
  grade: 'excellent',
  conditionIndex: 88,
  worth: eur('140.00'),
  ask: null,
  days: 30,
  sold: false,
  ...more,
});
const slot = (key: string, more: Partial<SeriesSlotAnswer> = {}): SeriesSlotAnswer => ({
  key,
  name: `Form ${key}`,
  variants: [key],
  pattern: 'jack',
  window: '1936/1940',
  kind: 'production',
  edition: null,
  made: 1840,
  state: 'missing',
  best: null,
  doubles: [],
  sold: [],
  offers: [],
  wish: null,
  price: range('80.00', '100.00', '130.00'),
  rarity: { left: { low: 368, likely: 736, high: 1104 }, seen: { count: 7, years: 3 } },
  availability: null,
  ...more,
});
const series = (more: Partial<SeriesDetail> = {}): SeriesDetail => ({
  id: 's1',
  version: 4,
  name: 'Every jack',
  rule: { kind: 'patterns', patterns: ['jack'] },
  contactId: null,
  buyerName: null,
  upgradeBelow: null,
  note: '',
  filled: 1,
  of: 2,
  doubles: 1,
  slots: [
    slot('a', {
      state: 'owned',
      best: piece('0007'),
      doubles: [
        {
          piece: piece('0009', { conditionIndex: 60 }),
          why: [
            { why: 'worse', by: 28 },
            { why: 'longer', days: 400 },
          ],
        },
      ],
    }),
    slot('b'),
  ],
  completion: {
    filled: 1,
    of: 2,
    owned: range('120.00', '140.00', '170.00'),
    missing: range('80.00', '100.00', '130.00'),
    share: { low: 0.48, likely: 0.58, high: 0.68 },
    unpriced: 0,
  },
  hardest: ['b'],
  ...more,
});
const reference = {
  ...referenceAnswers,
  'GET /reference/forms': () => ({ body: { variants: [] } }),
  'GET /contacts': () => ({ body: { items: [], nextCursor: null, total: 0 } }),
};
const open = () =>
  show(
    <Routes>
      <Route path="/series/:id" element={<SeriesPage />} />
    </Routes>,
    { at: '/series/s1' },
  );

describe('a series', () => {
  test('opens at what is hardest to get; a double is told with its reasons', async () => {
    serve({ ...reference, 'GET /series/s1': () => ({ body: series() }) });
    open();
    await screen.findByText('1 of 2');
    await screen.findByText('the hardest of what is missing');
    await screen.findByText('58 in 100');
    await userEvent.click(screen.getByRole('button', { name: /Form a/ }));
    const panel = screen.getByRole('region', { name: 'Form a' });
    expect(
      within(panel).getByText(/Its condition is 28 points worse; it has stood longer, 400 days/),
    ).toBeDefined();
    expect(
      within(panel)
        .getByRole('link', { name: /HQ-0009/ })
        .getAttribute('href'),
    ).toBe('/pieces/0009');
  });

  test('a wish begins with what one would cost, and goes with the version that was seen', async () => {
    const came = serve({
      ...reference,
      'GET /series/s1': () => ({ body: series() }),
      'PUT /series/s1/wishes': () => ({ body: series({ version: 5 }) }),
    });
    open();
    await screen.findByText('1 of 2');
    await userEvent.click(screen.getByRole('combobox', { name: /What is said of it/ }));
    await userEvent.click(await screen.findByRole('option', { name: 'Wanted' }));
    expect((await screen.findByLabelText<HTMLInputElement>('For at most')).value).toBe('100.00');
    await userEvent.click(screen.getByRole('button', { name: 'Keep it' }));
    await screen.findByText('1 of 2');
    const put = came.find((r) => r.method === 'PUT');
    expect(put?.body).toEqual({ key: 'b', wish: 'want', atMost: eur('100.00'), leastIndex: null });
    expect(put?.headers['if-match'] ?? put?.headers['If-Match']).toBe('"v4"');
  });

  test('a rule that finds nothing says so', async () => {
    serve({
      ...reference,
      'GET /series/s1': () => ({ body: series({ slots: [], hardest: [], filled: 0, of: 0 }) }),
    });
    open();
    await screen.findByText(/has no form that this asks for/);
  });
});

test('without a name or a pattern a series is not followed', async () => {
  const came = serve({ ...reference, 'GET /series': () => ({ body: { items: [] } }) });
  show(<SeriesListPage />);
  await userEvent.click(await screen.findByRole('button', { name: 'Follow a series' }));
  await userEvent.click(await screen.findByRole('button', { name: 'Follow it' }));
  await screen.findByText('What is it called?');
  await screen.findByText('choose at least one pattern');
  expect(came.some((r) => r.method === 'POST')).toBe(false);
});

test('who waits for a piece is told, and whether it surely is the one', async () => {
  serve({
    'GET /pieces/01J/wanted-by': () => ({
      body: {
        items: [
          {
            series: { id: 's1', name: 'Anna’s jacks' },
            buyerName: 'Anna Quill',
            contactId: 'c',
            slot: 'First form',
            sure: false,
            atMost: eur('400.00'),
            leastIndex: 75,
            upgrade: false,
          },
        ],
      },
    }),
  });
  show(<WantedBy piece="01J" />);
  await screen.findByText('Somebody waits for one like this.');
  await screen.findByText(/If it is the First form: Anna Quill/);
  await screen.findByText(/at most €400/);
});
