import { afterEach, describe, expect, test } from '@jest/globals';
import { cleanup, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { askCurve, learnHazard } from '@jutbank/core/worth';
import type { PieceFinances, OfferRecord } from '@jutbank/contract/worth';
import { problem, serve, show, type Answers } from '../testing/screen.tsx';
import { eur, sheetOf } from '../testing/sheet.ts';
import { Finances } from './FinancesPanel.tsx';

afterEach(cleanup);

const hazard = learnHazard([]);
const money = (more: Partial<PieceFinances> = {}): PieceFinances => ({
  channel: 'Quayside market',
  bases: [
    {
      basis: 'market',
      amount: eur('150.00'),
      definition: 'What it would most likely bring.',
      assumptions: ['the middle of the estimate'],
      licensed: false,
    },
    {
      basis: 'insurance-replacement',
      amount: eur('190.00'),
      definition: 'What finding an equal one could cost.',
      assumptions: ['equal in condition'],
      licensed: true,
    },
  ],
  most: {
    currency: 'EUR',
    net: '130.00',
    bid: '88.00',
    cost: '88.00',
    steps: [{ name: 'sold for', amount: '150.00' }],
  },
  care: 'even',
  asOf: '2026-11-25',
  net: null,
  tax: { on: 'none', pct: 0 },
  breakEven: null,
  patience: { hazard, ...curve(), currency: 'EUR' },
  markets: [],
  knowing: null,
  offers: [],
  ...more,
});
function curve() {
  const { points, best } = askCurve(150, hazard, (p) => 0.9 * p, 0.2);
  return { points: [...points], best };
}
const offer = (more: Partial<OfferRecord> = {}): OfferRecord => ({
  id: 'o1',
  bidder: '',
  amount: eur('120.00'),
  decision: 'countered',
  counter: eur('140.00'),
  advice: 'counter',
  note: '',
  person: 'Ines Vadder',
  at: '2026-11-20T10:00:00Z',
  ...more,
});
const at = '/pieces/01ARZ3NDEKTSV4RRFFQ69G5FAV';
const open = (
  of: PieceFinances,
  answers: Answers = {},
  sheet = sheetOf(),
  role: 'owner' | 'clerk' = 'owner',
) => {
  const came = serve({ [`GET ${at}/money`]: () => ({ body: { money: of, why: null } }), ...answers });
  show(<Finances sheet={sheet} />, { role });
  return came;
};

describe('several values of one piece', () => {
  test('each with its definition and day; the caution where a licence may be needed', async () => {
    open(money());
    await screen.findByText('of 25 Nov 2026');
    within(screen.getByRole('row', { name: /^Market/ })).getByText('€150.00');
    within(screen.getByRole('row', { name: /Insurance replacement/ })).getByText(
      /may need a licensed appraiser/,
    );
    within(screen.getByRole('row', { name: /Most to pay/ })).getByText('€88.00');
  });
  test('nothing to pay is said as a word', async () => {
    open(money({ most: { ...money().most, bid: null, cost: null } }));
    within(await screen.findByRole('row', { name: /Most to pay/ })).getByText('nothing');
  });
  test('what an ask leaves, with the tax that it holds', async () => {
    const net = {
      currency: 'EUR',
      net: '140.00',
      tax: '12.15',
      left: '127.85',
    } as unknown as PieceFinances['net'];
    open(
      money({
        net,
        tax: { on: 'margin', pct: 21 },
        breakEven: { ask: eur('89.72'), net: eur('80.00') },
      }),
    );
    await screen.findByText('€127.85');
    screen.getByText('€12.15');
    screen.getByText(/tax on the margin/);
    screen.getByText('€89.72');
  });
  test('a piece that has no price yet shows none of it', async () => {
    serve({
      [`GET ${at}/money`]: () => ({ body: { money: null, why: 'Nothing says yet which pattern it is.' } }),
    });
    const { container } = show(<Finances sheet={sheetOf()} />);
    await screen.findByText(/./).catch(() => undefined);
    expect(within(container).queryByText('Ask and patience')).toBeNull();
  });
});

describe('two markets', () => {
  const collectible = {
    market: 'collectible' as const,
    estimate: eur('170.00'),
    low: eur('120.00'),
    high: eur('240.00'),
    sales: 84,
    tenPoints: 2.34,
  };
  test('stand side by side, each with its grade and what condition is worth there', async () => {
    const toUse = {
      ...collectible,
      market: 'to-use' as const,
      estimate: eur('130.00'),
      sales: 20,
      tenPoints: -0.94,
    };
    open(money({ markets: [collectible, toUse] }));
    await screen.findByText('€170.00');
    screen.getByText(/Excellent there; 84 sales/);
    screen.getByText(/Like new there; 20 sales/);
    screen.getByText('+2.3 %');
    screen.getByText('−0.9 %');
  });
  test('one of which too few sales speak says so; of a piece not inspected no grade is told', async () => {
    const sheet = sheetOf();
    open(
      money({ markets: [collectible] }),
      {},
      { ...sheet, condition: { ...sheet.condition, inspected: false } },
    );
    await screen.findByText('Fewer than three sales speak of it.');
    expect(screen.queryByText(/Excellent there/)).toBeNull();
  });
  test('without either the heading is not there', async () => {
    open(money());
    await screen.findByText('Ask and patience');
    expect(screen.queryByText('Two markets')).toBeNull();
  });
});

describe('what a check is worth', () => {
  const check = {
    ask: 'Is a small wave struck there?',
    effort: 'loupe' as const,
    worth: eur('6.24'),
    bits: 0.3,
  };
  test('the most first, and whether one may still leave it', async () => {
    open(money({ knowing: { worth: eur('20.67'), mayLeave: true, checks: [check] } }));
    await screen.findByText('€20.67');
    screen.getByText(/or leave it/);
    within(screen.getByRole('row', { name: /small wave/ })).getByText('€6.24');
    expect(screen.getByRole('link', { name: 'To the bench' }).getAttribute('href')).toBe(`${at}/bench`);
  });
  test('where no single check would change anything, that is said', async () => {
    open(money({ knowing: { worth: eur('0.40'), mayLeave: false, checks: [] } }));
    await screen.findByText(/No single check that is left would change what to do/);
  });
});

describe('ask and patience', () => {
  test('drawn with its best ask told, and the same as a table', async () => {
    open(money());
    const best = money().patience.best;
    await screen.findByRole('img', { name: new RegExp(`Asking €${best.price.toFixed(0)} brings most`) });
    await userEvent.click(screen.getByRole('button', { name: 'As a table' }));
    screen.getByText('Weeks it may stand');
    expect(screen.getAllByRole('row').length).toBeGreaterThan(8);
  });
});

describe('an offer', () => {
  const judged = (advice: 'take' | 'counter' | 'wait'): Answers => ({
    [`POST ${at}/offers/judge`]: () => ({
      body: { advice, net: eur('110.00'), waiting: eur('125.00'), counter: eur('140.00'), why: 'Because.' },
    }),
  });
  const judge = async (amount: string) => {
    await userEvent.type(await screen.findByLabelText('Somebody offers'), amount);
    await userEvent.type(screen.getByLabelText('Who'), 'M. Tallow');
    await userEvent.click(screen.getByRole('button', { name: 'Judge it' }));
  };
  test('is judged, and kept with what was decided', async () => {
    const came = open(money(), {
      ...judged('counter'),
      [`POST ${at}/offers`]: () => ({ status: 201, body: offer() }),
    });
    await judge('120');
    await screen.findByText('Counter at €140.00');
    screen.getByText(/waiting is worth €125.00/);
    await userEvent.click(screen.getByRole('button', { name: 'Countered at €140.00' }));
    await screen.findByText('None written down yet.');
    expect(came.find((r) => r.path === `${at}/offers`)?.body).toEqual({
      amount: eur('120.00'),
      bidder: 'M. Tallow',
      decision: 'countered',
      counter: eur('140.00'),
    });
  });
  test('a changed amount is judged anew: the old advice goes', async () => {
    open(money(), judged('take'));
    await judge('120');
    await screen.findByText('Take it');
    await userEvent.type(screen.getByLabelText('Somebody offers'), '0');
    expect(screen.queryByText('Take it')).toBeNull();
  });
  test('where it cannot be judged, it is said why', async () => {
    open(money(), {
      [`POST ${at}/offers/judge`]: () => problem(409, 'There is no estimate to hold the offer to.'),
    });
    await judge('120');
    await screen.findByText('There is no estimate to hold the offer to.');
  });
  test('those that came stand with the advice of their day', async () => {
    open(
      money({
        offers: [
          offer(),
          offer({ id: 'o2', bidder: 'a caller', decision: 'refused', counter: null, advice: 'wait' }),
        ],
      }),
    );
    within(await screen.findByRole('row', { name: /somebody/ })).getByText(/€140.00/);
    within(screen.getByRole('row', { name: /a caller/ })).getByText('advice was: wait');
  });
  test('a clerk, and whoever looks at a sold piece, decides on none', async () => {
    open(money(), {}, sheetOf(), 'clerk');
    await screen.findByText('Offers');
    expect(screen.queryByRole('button', { name: 'Judge it' })).toBeNull();
    cleanup();
    open(
      money(),
      {},
      sheetOf({ sale: { id: 's', invoiceNumber: '1', certificateCode: 'c', soldOn: '2026-11-02' } }),
    );
    await screen.findByText('Offers');
    expect(screen.queryByRole('button', { name: 'Judge it' })).toBeNull();
  });
});
