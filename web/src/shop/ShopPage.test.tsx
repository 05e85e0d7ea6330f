import { afterEach, describe, expect, test } from '@jest/globals';
import { cleanup, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { problem, serve, show, take, type Answers } from '../testing/screen.tsx';
import ShopPage from './ShopPage.tsx';

afterEach(cleanup);

const shop = (more: Answers = {}) => serve({ 'GET /people': () => ({ body: { items: [] } }), ...more });
const keep = () => userEvent.click(screen.getByRole('button', { name: 'Keep' }));

describe('settings of the shop', () => {
  test('what readers are told and how dates are read are the owner’s to choose, and go with the rest', async () => {
    const came = shop({ 'PUT /shop': () => ({ body: {} }) });
    show(<ShopPage />);
    await userEvent.click(screen.getByRole('button', { name: 'margins' }));
    await take('12/09/2026 is read as', '9 December 2026');
    await keep();
    await screen.findByText('Kept.');
    expect(came.find((r) => r.method === 'PUT')?.body).toEqual({
      name: 'Hollin Quay Edge Room',
      stockScheme: 'HQ-{0000}',
      readerSees: ['margins'],
      dayFirst: false,
    });
  });
  test('a scheme without a place for the number is told before anything is sent', async () => {
    const came = shop();
    show(<ShopPage />);
    await userEvent.clear(screen.getByLabelText('Stock numbers'));
    await userEvent.type(screen.getByLabelText('Stock numbers'), 'HQ');
    await keep();
    await screen.findByText(/needs a place for the number/);
    expect(came.some((r) => r.method === 'PUT')).toBe(false);
    // and goes away once it is mended
    await userEvent.type(screen.getByLabelText('Stock numbers'), '-{{0000}');
    await waitFor(() => expect(screen.queryByText(/needs a place for the number/)).toBeNull());
  });
  test('what only the server knows to refuse stands beside its field too', async () => {
    shop({ 'PUT /shop': () => problem(422, 'Please check', [{ pointer: '/name', message: 'is taken' }]) });
    show(<ShopPage />);
    await keep();
    await screen.findByText('is taken');
  });
  test('an appraiser reads them', () => {
    shop();
    show(<ShopPage />, { role: 'appraiser' });
    expect(screen.getByLabelText<HTMLInputElement>('Name of the shop').disabled).toBe(true);
    expect(screen.queryByRole('button', { name: 'Keep' })).toBeNull();
  });
});

describe('the ledger', () => {
  test.each([
    [{ intact: true, entries: 502, firstBroken: null }, /502/],
    [{ intact: false, entries: 502, firstBroken: 77 }, /breaks at entry 77/],
  ])('is looked through when asked: %j', async (body, words) => {
    shop({ 'GET /ledger/verify': () => ({ body }) });
    show(<ShopPage />);
    await userEvent.click(screen.getByRole('button', { name: 'Check that nothing was rewritten' }));
    expect((await screen.findByRole('status')).textContent).toMatch(words);
  });
});
