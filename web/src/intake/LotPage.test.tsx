import { afterEach, describe, expect, test } from '@jest/globals';
import { cleanup, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Route, Routes } from 'react-router';
import type { LotPiece, LotSheet } from '@jutbank/contract/intake';
import { problem, serve, show, type Answers } from '../testing/screen.tsx';
import LotPage from './LotPage.tsx';

afterEach(cleanup);

const piece = (id: string, title: string, more: Partial<LotPiece> = {}): LotPiece => ({
  id,
  stockNumber: `HQ-${id}`,
  title,
  stage: 'intake',
  value: '40.00',
  valueSaid: true,
  share: null,
  cost: '26.67',
  keep: false,
  pictures: 0,
  net: null,
  soldOn: null,
  ...more,
});
const lot = (more: Partial<LotSheet> = {}): LotSheet => ({
  id: 'l1',
  version: 4,
  name: 'Workbox of a rigger',
  currency: 'EUR',
  cost: '100.00',
  pieces: 2,
  sold: 1,
  kept: 0,
  recovered: '60.00',
  share: 0.6,
  brokeEvenOn: null,
  lot: {
    name: 'Workbox of a rigger',
    sourceKind: 'estate',
    sourceName: 'Household at Skerry Bay',
    acquired: '2026-08',
    currency: 'EUR',
    method: 'relative-value',
    costs: [{ label: 'Price of the lot', amount: '100.00' }],
    note: '',
  },
  list: [
    piece('1', 'Rigging knife'),
    piece('2', 'Harbour jack', { stage: 'sold', net: '60.00', soldOn: '2026-11-02' }),
  ],
  recovery: [{ day: '2026-11-02', net: '60.00' }],
  stillWorth: { amount: '95.00', currency: 'EUR' },
  ...more,
});
const Shown = () => (
  <Routes>
    <Route path="/lots/:id" element={<LotPage />} />
  </Routes>
);
const open = (answers: Answers = {}, sheet = lot(), role: 'owner' | 'reader' = 'owner') => {
  const came = serve({ 'GET /lots/l1': () => ({ body: sheet }), ...answers });
  show(<Shown />, { at: '/lots/l1', role });
  return came;
};
const row = (name: RegExp) => screen.findByRole('row', { name });

describe('a lot', () => {
  test('what it cost, what came back, what is still worth something', async () => {
    open();
    await screen.findByRole('heading', { name: 'Workbox of a rigger' });
    screen.getByText('2 pieces, 1 sold, 0 kept');
    screen.getByText('not yet paid for itself');
    screen.getByText('€95');
    within(await row(/Harbour jack/)).getByText('€60.00');
  });
  test('paid for itself on its day', async () => {
    open({}, lot({ brokeEvenOn: '2026-11-20', recovered: '104.00', share: 1.04 }));
    await screen.findByText('paid for itself on 20 Nov 2026');
  });
  test('a piece is taken in with Enter, and the next line waits', async () => {
    const came = open({
      'POST /lots/l1/pieces': () => ({ status: 201, body: lot({ version: 5, pieces: 3 }) }),
    });
    await userEvent.type(await screen.findByLabelText('Next piece'), 'Pruner');
    await userEvent.type(screen.getByLabelText('Worth about, EUR'), '12,50{Enter}');
    await screen.findByText('3 pieces, 1 sold, 0 kept');
    expect(came.find((r) => r.method === 'POST')?.body).toEqual({
      asFound: null,
      pieces: [{ title: 'Pruner', construction: 'slipjoint', value: '12.50', keep: false }],
    });
    expect(document.activeElement).toBe(screen.getByLabelText('Next piece'));
    expect(screen.getByLabelText<HTMLInputElement>('Next piece').value).toBe('');
  });
  test('whoever types faster than it saves loses nothing: what waits goes together, in its order', async () => {
    let open1: (() => void) | undefined;
    const gate = new Promise<void>((resolve) => {
      open1 = resolve;
    });
    let asked = 0;
    const came = open({
      'POST /lots/l1/pieces': async () => {
        asked += 1;
        if (asked === 1) await gate;
        return { status: 201, body: lot({ version: 4 + asked }) };
      },
    });
    const line = await screen.findByLabelText('Next piece');
    for (let i = 1; i <= 21; i++) await userEvent.type(line, `Knife ${i}{Enter}`);
    within(screen.getByRole('list', { name: 'On their way into the lot' })).getByText(/Knife 21/);
    open1?.();
    await waitFor(() => expect(screen.queryByRole('list', { name: 'On their way into the lot' })).toBeNull());
    const sent = came
      .filter((r) => r.method === 'POST')
      .map((r) => r.body as { pieces: { title: string }[] });
    expect(sent.flatMap((body) => body.pieces.map((p) => p.title))).toEqual(
      Array.from({ length: 21 }, (_, i) => `Knife ${i + 1}`),
    );
    expect(sent).toHaveLength(2);
  });
  test('what the server refuses stays with its reason, and the others go on', async () => {
    open({
      'POST /lots/l1/pieces': ({ body }) =>
        (body as { pieces: { title: string }[] }).pieces.some((p) => p.title === 'Bad')
          ? problem(422, 'Not right', [{ pointer: '/pieces/0/title', message: 'Not this name' }])
          : { status: 201, body: lot({ version: 6, pieces: 4 }) },
    });
    const line = await screen.findByLabelText('Next piece');
    await userEvent.type(line, 'Bad{Enter}');
    await screen.findByText('Not this name');
    await userEvent.type(line, 'Good{Enter}');
    await screen.findByText('4 pieces, 1 sold, 0 kept');
    await userEvent.click(screen.getByRole('button', { name: 'Leave out Bad' }));
    expect(screen.queryByText('Not this name')).toBeNull();
  });
  test('a pasted list is looked over, then makes a piece of every line', async () => {
    const came = open({
      'POST /lots/l1/pieces': () => ({ status: 201, body: lot({ version: 5, pieces: 5 }) }),
    });
    await userEvent.click(await screen.findByLabelText('Next piece'));
    await userEvent.paste('1. Harbour jack\tSlipjoint folder\t£40\n2. Bosun\tMulti-tool\t€12.50\n\nPruner');
    const list = within(screen.getByRole('group', { name: 'Pasted list' }));
    list.getByText(/The lot is kept in EUR: left out/);
    expect(came.some((r) => r.method === 'POST')).toBe(false);
    await userEvent.keyboard('{Enter}');
    await screen.findByText('5 pieces, 1 sold, 0 kept');
    expect(came.find((r) => r.method === 'POST')?.body).toEqual({
      asFound: null,
      pieces: [
        { title: 'Harbour jack', construction: 'slipjoint', value: null, keep: false },
        { title: 'Bosun', construction: 'multi-tool', value: '12.50', keep: false },
        { title: 'Pruner', construction: 'slipjoint', value: null, keep: false },
      ],
    });
  });
  let heaped = 0;
  // the page's own window has no files to show
  URL.createObjectURL = () => `blob:${heaped++}`;
  URL.revokeObjectURL = () => undefined;
  test('a heap of pictures is dealt to the pieces that are here, looked over, and added', async () => {
    const came = open(
      { 'POST /pieces/1/pictures': () => problem(415, 'That is not a picture') },
      lot({ list: [piece('1', 'Rigging knife'), piece('3', 'Pruner')] }),
    );
    const file = (name: string) => new File(['x'], name, { type: 'image/jpeg' });
    await userEvent.upload(await screen.findByLabelText('Choose pictures of the lot'), [
      file('img_2.jpg'),
      file('img_1.jpg'),
      file('img_3.jpg'),
    ]);
    expect(screen.getAllByLabelText('Shows').map((s) => s.textContent)).toEqual([
      'HQ-3 Pruner',
      'HQ-1 Rigging knife',
      'nobody’s: left out',
    ]);
    await userEvent.click(screen.getByRole('button', { name: 'Add 2 of 3 pictures' }));
    await screen.findByText('That is not a picture');
    expect(came.filter((r) => r.method === 'POST').map((r) => r.path)).toEqual([
      '/pieces/3/pictures',
      '/pieces/1/pictures',
    ]);
  });
  test('a worth that is said goes out under the version seen; emptied, the estimate holds again', async () => {
    const came = open({ 'PUT /lots/l1/pieces': () => ({ body: lot({ version: 5 }) }) });
    const cell = await screen.findByLabelText('Worth of Rigging knife');
    await userEvent.clear(cell);
    await userEvent.type(cell, '55{Enter}');
    await waitFor(() => expect(came.some((r) => r.method === 'PUT')).toBe(true));
    const sent = came.find((r) => r.method === 'PUT');
    expect(sent?.headers['if-match']).toBe('"v4"');
    expect(sent?.body).toEqual({ pieces: [{ id: '1', value: '55', share: null, keep: false }] });
  });
  test('a piece is taken out; a sold one is not offered it', async () => {
    const came = open({
      'DELETE /lots/l1/pieces/1': () => ({
        body: lot({ version: 5, pieces: 1, list: [piece('2', 'Harbour jack')] }),
      }),
    });
    await row(/Rigging knife/);
    expect(screen.queryByRole('button', { name: 'take out Harbour jack' })).toBeNull();
    await userEvent.click(screen.getByRole('button', { name: 'take out Rigging knife' }));
    await screen.findByText('1 pieces, 1 sold, 0 kept');
    expect(came.find((r) => r.method === 'DELETE')?.headers['if-match']).toBe('"v4"');
  });
  test('changed by somebody else meanwhile: said, and looked at again on demand', async () => {
    const came = open({ 'PUT /lots/l1/pieces': () => problem(412, 'Changed meanwhile') });
    await userEvent.click(await screen.findByRole('checkbox', { name: 'Keep Rigging knife' }));
    await screen.findByText(/Somebody changed this lot meanwhile/);
    const before = came.filter((r) => r.method === 'GET').length;
    await userEvent.click(screen.getByRole('button', { name: 'Look at it again' }));
    await waitFor(() => expect(came.filter((r) => r.method === 'GET').length).toBeGreaterThan(before));
    await waitFor(() => expect(screen.queryByText(/Somebody changed this lot/)).toBeNull());
  });
  test('a further cost is added and spread only when it is said so', async () => {
    const came = open({ 'PUT /lots/l1': () => ({ body: lot({ version: 5, cost: '124.50' }) }) });
    await userEvent.type(await screen.findByLabelText('What cost 2 was for'), 'Travel');
    await userEvent.type(screen.getByLabelText('Amount of cost 2'), '24,50');
    expect(came.some((r) => r.method === 'PUT')).toBe(false);
    await userEvent.click(screen.getByRole('button', { name: 'Spread it anew' }));
    await screen.findAllByText('€124.50');
    expect(came.find((r) => r.method === 'PUT')?.body).toMatchObject({
      costs: [
        { label: 'Price of the lot', amount: '100.00' },
        { label: 'Travel', amount: '24.50' },
      ],
    });
  });
  test('who may only read changes nothing', async () => {
    open({}, lot(), 'reader');
    await row(/Rigging knife/);
    expect(screen.queryByLabelText('Next piece')).toBeNull();
    expect(screen.getByLabelText<HTMLInputElement>('Worth of Rigging knife').disabled).toBe(true);
    expect(screen.queryByRole('button', { name: /take out/ })).toBeNull();
  });
});
