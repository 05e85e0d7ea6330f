import { afterEach, describe, expect, test } from '@jest/globals';
import { cleanup, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { OPENING, TREATMENT_PLANS } from '@jutbank/core/condition';
import type { PricedTreatment, ComparedTreatment } from '@jutbank/contract/condition';
import { problem, serve, show, type Answers, take } from '../testing/screen.tsx';
import { eur, sheetOf } from '../testing/sheet.ts';
import { Treat } from './Treat.tsx';

afterEach(cleanup);

const way = (index: number, estimate: string | null): ComparedTreatment => ({
  index,
  grades: [{ scale: 'collector', grade: index > 90 ? 'excellent' : 'good' }],
  estimate: estimate === null ? null : eur(estimate),
});
const option = (more: Partial<PricedTreatment>): PricedTreatment => ({
  plan: null,
  sealed: false,
  removes: [],
  adds: [],
  failure: 0,
  done: way(80, '100.00'),
  failed: null,
  expectedIndex: 80,
  newDisclosures: [],
  gain: eur('0.00'),
  ...more,
});
const polish = TREATMENT_PLANS.find((p) => p.kind === 'polish') ?? OPENING;
const path = `/pieces/${sheetOf().id}`;
const open = (items: PricedTreatment[], sheet = sheetOf(), answers: Answers = {}, may = true) => {
  const came = serve({
    [`GET ${path}/treatment-options`]: () => ({ body: { items, nextCursor: null, total: items.length } }),
    ...answers,
  });
  let done = 0;
  show(<Treat sheet={sheet} may={may} onDone={() => done++} />);
  return { came, done: () => done };
};
const waysShown = (name: string) => screen.findByRole('article', { name });

describe('leave it or treat it', () => {
  const ways = [
    option({}),
    option({
      plan: polish,
      failure: 0.1,
      done: way(95, '92.00'),
      failed: way(60, '70.00'),
      newDisclosures: ['Treated: polished'],
      gain: eur('-28.20'),
    }),
  ];
  test('leaving it stands first and, here, is best; what a treatment costs, risks and has to be said', async () => {
    open(ways);
    within(await waysShown('Leave it')).getByText('the best on average');
    const done = within(await waysShown('Polish to a shine'));
    done.getByText('-€28.20');
    done.getByText('€18.00');
    done.getByText(/in 100/);
    done.getByText(/Treated: polished – cannot be undone/);
    done.getByText(/does not belong in the lungs/);
  });
  test('nothing is weighed before the piece was recorded as found', async () => {
    const sheet = sheetOf();
    open(ways, { ...sheet, condition: { ...sheet.condition, inspected: false } });
    await screen.findByText('Record before you touch.');
    expect(screen.queryByRole('article')).toBeNull();
  });
  test('who may not work records nothing', async () => {
    open(ways, sheetOf(), {}, false);
    await waysShown('Leave it');
    expect(screen.queryByRole('button', { name: /Record something else/ })).toBeNull();
  });
  test('what was done is sent with its plan and under the version seen', async () => {
    const { came, done } = open(ways, sheetOf(), {
      [`POST ${path}/treatments`]: () => ({ status: 201, body: {} }),
      [`GET ${path}`]: () => ({ body: sheetOf({ version: 8 }) }),
    });
    await userEvent.click(
      within(await waysShown('Polish to a shine')).getByRole('button', { name: 'It was done: record it' }),
    );
    await userEvent.type(screen.getByLabelText(/Product/), 'compound');
    await userEvent.click(screen.getByRole('button', { name: 'Record it' }));
    await screen.findByText(/Choose a way/);
    const sent = came.find((r) => r.method === 'POST');
    expect(sent?.headers['if-match']).toBe('"v7"');
    expect(sent?.body).toMatchObject({
      kind: 'polish',
      product: 'compound',
      cost: eur('18.00'),
      reversible: false,
    });
    expect(done()).toBe(1);
  });
  test('what no plan says is recorded in words of one’s own, with what it took away and left behind', async () => {
    const { came, done } = open(ways, sheetOf(), {
      [`POST ${path}/treatments`]: () => ({ status: 201, body: {} }),
      [`GET ${path}`]: () => ({ body: sheetOf({ version: 8 }) }),
    });
    await userEvent.click(await screen.findByRole('button', { name: 'Record something else that was done' }));
    const it = screen.getByRole<HTMLInputElement>('checkbox', { name: 'It can be undone' });
    expect(it.checked).toBe(false);
    await userEvent.type(screen.getByLabelText('In your own words'), 'stamp picked out');
    await userEvent.type(screen.getByLabelText('Grit'), '800');
    await take('On', 'tang');
    await take('What', 'scratch');
    await userEvent.click(screen.getByRole('button', { name: 'Add' }));
    await take('What', 'wear');
    await userEvent.click(screen.getByRole('button', { name: 'Add' }));
    await userEvent.click(screen.getByRole('button', { name: 'Take off: Tang: wear, light' }));
    await userEvent.click(screen.getByRole('button', { name: 'Record it' }));
    await screen.findByText(/Choose a way/);
    expect(came.find((r) => r.method === 'POST')?.body).toMatchObject({
      kind: 'other',
      title: 'stamp picked out',
      grit: '800',
      adds: [{ part: 'tang', defect: 'scratch', severity: 'light' }],
      reversible: false,
    });
    expect(done()).toBe(1);
  });
  test('what the server refuses stands beside its field', async () => {
    open(ways, sheetOf(), {
      [`POST ${path}/treatments`]: () =>
        problem(422, 'Please check', [{ pointer: '/doneOn', message: 'this day has not come yet' }]),
    });
    await userEvent.click(
      within(await waysShown('Polish to a shine')).getByRole('button', { name: 'It was done: record it' }),
    );
    await userEvent.click(screen.getByRole('button', { name: 'Record it' }));
    await screen.findByText('this day has not come yet');
  });
});

describe('keep it sealed or open it', () => {
  const ways = [
    option({ sealed: true, done: way(100, '296.00') }),
    option({
      sealed: true,
      plan: OPENING,
      failure: 0.08,
      done: way(100, '264.00'),
      failed: way(100, '211.00'),
      newDisclosures: ['The package was opened.'],
      gain: eur('-36.33'),
    }),
  ];
  test('stands there before anything was looked at, with the money of either', async () => {
    const sheet = sheetOf();
    open(ways, { ...sheet, condition: { ...sheet.condition, inspected: false } });
    const keep = within(await waysShown('Keep it sealed'));
    keep.getByText('€296');
    keep.getByText('as from the maker, unseen');
    const opened = within(await waysShown('Open the package'));
    opened.getByText('€264');
    opened.getByText('€211');
    opened.getByText('-€36.33');
    opened.getByText('the seal, and what it brings');
    expect(opened.getByRole<HTMLButtonElement>('button', { name: 'It was done: record it' }).disabled).toBe(
      true,
    );
  });
});
