import { afterEach, describe, expect, test } from '@jest/globals';
import { cleanup, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { DrillProgress, DrillQuestionAnswer } from '@jutbank/contract/training';
import { problem, serve, show } from '../testing/screen.tsx';
import DrillsPage from './DrillsPage.tsx';

afterEach(cleanup);

const none = { known: 0, learning: 0, new: 0, due: 0 };
const progress = (more: Partial<DrillProgress> = {}): DrillProgress => ({
  ...none,
  stale: 0,
  makers: [],
  kinds: [],
  days: [],
  ...more,
});
const some = progress({
  new: 40,
  due: 2,
  stale: 3,
  makers: [{ id: 'bh', name: 'Brackenholt Cutlery', ...none, known: 4, new: 40 }],
  kinds: [{ kind: 'code', ...none, new: 40 }],
});
const question = (n: number): DrillQuestionAnswer => ({
  id: `code:ticks:${n}`,
  kind: 'code',
  ask: `Ticks ${n}. Which year?`,
  drawn: null,
  choices: ['1920', '1930', '1940'],
  basis: 'b',
  learnt: 'new',
});
const verdict = (right: boolean) => ({
  right,
  answer: '1930',
  because: 'In the other row they are 1920.',
  source: { title: 'Works ledger', page: '12' },
  opens: '/reference/variants/first',
  due: '2099-01-05T00:00:00.000Z',
});

describe('drills', () => {
  test('a shop without a reference is told what would be asked', async () => {
    serve({ 'GET /drills': () => ({ body: progress() }) });
    show(<DrillsPage />);
    await screen.findByText(/nothing to ask yet/);
  });

  test('a number answers, the reason and its page are told, Enter goes on, and what was missed is listed', async () => {
    const came = serve({
      'GET /drills': () => ({ body: some }),
      'GET /drills/next': () => ({ body: { items: [question(1), question(2)] } }),
      'POST /drills/answers': ({ body }) => ({
        body: verdict((body as { choice: string }).choice === '1930'),
      }),
    });
    show(<DrillsPage />);
    await screen.findByText('2 due.');
    await screen.findByText(/3 say something else by now/);
    await userEvent.click(screen.getByRole('button', { name: /Begin/ }));
    await screen.findByText('Ticks 1. Which year?');
    await userEvent.keyboard('1');
    await screen.findByText('It is 1930.');
    await screen.findByText(/Works ledger, page 12/);
    expect(screen.getByRole('link', { name: 'Read it up' }).getAttribute('href')).toBe(
      '/reference/variants/first',
    );
    await userEvent.keyboard('{Enter}');
    await screen.findByText('Ticks 2. Which year?');
    // a key that was pressed for the last one answers nothing here
    expect(came.filter((r) => r.method === 'POST')).toHaveLength(1);
    await userEvent.keyboard('2');
    await screen.findByText('Right.');
    await userEvent.keyboard('{Enter}');
    await screen.findByText('1 of 2 right');
    await screen.findByText('Ticks 1. Which year?');
    await userEvent.keyboard('{Enter}');
    await screen.findByText('2 due.');
  });

  test('a question that is asked no more is passed over, and counts for nothing', async () => {
    serve({
      'GET /drills': () => ({ body: some }),
      'GET /drills/next': () => ({ body: { items: [question(1)] } }),
      'POST /drills/answers': () => problem(409, 'This question is asked anew.'),
    });
    show(<DrillsPage />);
    await userEvent.click(await screen.findByRole('button', { name: /Begin/ }));
    await userEvent.click(await screen.findByRole('button', { name: /1930/ }));
    await screen.findByText('This question is asked anew.');
    await userEvent.click(screen.getByRole('button', { name: /Next/ }));
    await screen.findByText('0 of 1 right');
  });
});
