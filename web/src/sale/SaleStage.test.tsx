import { afterEach, describe, expect, test } from '@jest/globals';
import { cleanup, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Outlet, Route, Routes } from 'react-router';
import type { PieceSheet } from '@jutbank/contract/pieces';
import { USUAL_SETTINGS } from '@jutbank/contract/shop';
import type { SaleRecord } from '@jutbank/contract/sale';
import { problem, serve, show, type Answers } from '../testing/screen.tsx';
import { eur, sheetOf } from '../testing/sheet.ts';
import SaleStage from './SaleStage.tsx';

afterEach(cleanup);

const attributed = (more: Partial<PieceSheet> = {}) =>
  sheetOf({
    attribution: { pattern: 'harbour-jack', variant: 'hj-first' } as unknown as PieceSheet['attribution'],
    pricing: { ask: eur('160.00'), floor: null, note: '' },
    ...more,
  });
const open = (sheet: PieceSheet, answers: Answers = {}, role: 'owner' | 'clerk' = 'owner') => {
  const came = serve({
    'GET /pricing-settings': () => ({ body: { settings: USUAL_SETTINGS, version: 1 } }),
    'GET /contacts': () => ({ body: { items: [], nextCursor: null, total: 0 } }),
    ...answers,
  });
  show(
    <Routes>
      <Route element={<Outlet context={sheet} />}>
        <Route path="*" element={<SaleStage />} />
      </Route>
    </Routes>,
    { role },
  );
  return came;
};
const path = `/pieces/${sheetOf().id}/sale`;
const offers = {
  state: 'published',
  messages: [
    {
      id: '01ARZ3NDEKTSV4RRFFQ69G5FA1',
      kind: 'offer',
      state: 'open',
      from: 'Maren Tolleth',
      text: '',
      amount: eur('150.00'),
    },
  ],
} as unknown as PieceSheet['listing'];

describe('selling', () => {
  test('over the counter, at the ask, through a channel that is chosen', async () => {
    const came = open(attributed(), { [`POST ${path}`]: () => ({ status: 201, body: {} }) });
    await userEvent.type(await screen.findByLabelText('Buyer'), 'Greta Sundholm');
    await userEvent.click(screen.getByRole('combobox', { name: 'Sold through' }));
    await userEvent.click(
      await within(screen.getByRole('listbox')).findByRole('option', { name: 'Quayside market' }),
    );
    await userEvent.click(screen.getByRole('checkbox', { name: /age has been checked/ }));
    await userEvent.click(screen.getByRole('button', { name: 'Sell' }));
    expect(came.find((r) => r.method === 'POST')?.body).toEqual({
      message: null,
      price: eur('160.00'),
      channel: 'quayside',
      buyerName: 'Greta Sundholm',
      buyerAddress: '',
      contact: null,
      taxScheme: null,
      paidBy: null,
      handedOver: false,
      despiteReservation: false,
      ageChecked: true,
    });
  });
  test('a buyer who is noted brings the address; one it is kept for is named already', async () => {
    const greta = { id: '01ARZ3NDEKTSV4RRFFQ69G5FC1', name: 'Greta Sundholm', address: '4 Ropewalk' };
    const came = open(
      attributed({
        reservation: {
          reservedFor: 'Maren Tolleth',
          contact: null,
          until: '2099-01-01',
          deposit: null,
          way: '',
          paidOn: null,
          reservationNote: '',
        },
      }),
      {
        [`POST ${path}`]: () => ({ status: 201, body: {} }),
        'GET /contacts': () => ({ body: { items: [greta], nextCursor: null, total: 1 } }),
      },
    );
    const buyer = await screen.findByLabelText<HTMLInputElement>('Buyer');
    expect(buyer.value).toBe('Maren Tolleth');
    await userEvent.clear(buyer);
    await userEvent.type(buyer, 'Greta Sundholm');
    expect(screen.getByLabelText<HTMLTextAreaElement>('Address, for the invoice').value).toBe('4 Ropewalk');
    await userEvent.click(screen.getByRole('checkbox', { name: /although it is kept for Maren Tolleth/ }));
    await userEvent.click(screen.getByRole('checkbox', { name: /age has been checked/ }));
    await userEvent.click(screen.getByRole('button', { name: 'Sell' }));
    expect(came.find((r) => r.method === 'POST')?.body).toMatchObject({
      buyerName: 'Greta Sundholm',
      contact: greta.id,
      despiteReservation: true,
    });
  });
  test('an open offer is what is accepted, unless it is sold otherwise', async () => {
    const came = open(attributed({ listing: offers }), {
      [`POST ${path}`]: () => ({ status: 201, body: {} }),
    });
    await userEvent.click(await screen.findByRole('checkbox', { name: /age has been checked/ }));
    await userEvent.click(screen.getByRole('button', { name: 'Accept €150.00' }));
    expect(came.find((r) => r.method === 'POST')?.body).toMatchObject({
      message: '01ARZ3NDEKTSV4RRFFQ69G5FA1',
      price: null,
      channel: null,
      buyerName: 'Maren Tolleth',
    });
    await userEvent.click(screen.getByRole('button', { name: 'Over the counter' }));
    screen.getByLabelText('Price');
  });
  test('a price that cannot be read sells nothing; with an offer taken instead it is no longer asked for', async () => {
    const came = open(attributed({ listing: offers }), {
      [`POST ${path}`]: () => ({ status: 201, body: {} }),
    });
    await userEvent.click(await screen.findByRole('checkbox', { name: /age has been checked/ }));
    await userEvent.click(screen.getByRole('button', { name: 'Over the counter' }));
    await userEvent.clear(screen.getByLabelText('Price'));
    await userEvent.type(screen.getByLabelText('Price'), 'about 150');
    await userEvent.click(screen.getByRole('button', { name: 'Sell' }));
    expect(came.some((r) => r.method === 'POST')).toBe(false);
    await userEvent.click(screen.getByRole('button', { name: /^Offer of/ }));
    await userEvent.click(screen.getByRole('button', { name: 'Accept €150.00' }));
    expect(came.find((r) => r.method === 'POST')?.body).toMatchObject({ price: null });
  });
  test('what is refused stands beside its field', async () => {
    const came = open(attributed(), {
      [`POST ${path}`]: () =>
        problem(422, 'Please check', [{ pointer: '/price', message: 'It is sold below its cost' }]),
    });
    await userEvent.click(await screen.findByRole('button', { name: 'Sell' }));
    // the contract's own words, before anything is sent
    await screen.findByText('Who buys it?');
    screen.getByText('Confirm the buyer’s age before selling a blade');
    expect(came.some((r) => r.method === 'POST')).toBe(false);
    await userEvent.type(screen.getByLabelText('Buyer'), 'Greta Sundholm');
    await userEvent.click(screen.getByRole('checkbox', { name: /age has been checked/ }));
    expect(screen.queryByText('Who buys it?')).toBeNull();
    await userEvent.click(screen.getByRole('button', { name: 'Sell' }));
    await screen.findByText('It is sold below its cost');
  });
  test('nothing is sold before it is decided what it is', async () => {
    open(attributed({ attribution: null }));
    await screen.findByText('Decide what it is first.');
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Sell' }).disabled).toBe(true);
  });
  test('a clerk sells nothing', async () => {
    open(attributed(), {}, 'clerk');
    await screen.findByText('Not sold yet.');
  });
});

describe('sold', () => {
  const sale: SaleRecord = {
    id: 's1',
    pieceId: sheetOf().id,
    stockNumber: 'HQ-0001',
    title: 'Harbour jack',
    invoiceNumber: '2026-0007',
    soldAt: '2026-11-20T10:00:00Z',
    buyerName: 'Greta Sundholm',
    price: eur('101.50'),
    net: {
      gross: '101.50',
      commission: '8.12',
      fixedFee: '0.00',
      paymentFee: '2.84',
      taxOnFees: '0.00',
      postageCost: '0.00',
      packing: '0.00',
      insurance: '0.00',
      net: '90.54',
      channel: 'Quayside market',
      tax: '7.55',
      left: '82.99',
    },
    cost: eur('58.00'),
    margin: eur('24.99'),
    certificateCode: 'ABCD',
    taxScheme: 'margin',
    total: eur('101.50'),
    dueOn: '2026-12-04',
    payments: [],
    paid: eur('0.00'),
    open: eur('101.50'),
    sent: null,
    credits: [],
    refundable: eur('101.50'),
    returnedOn: null,
    compared: null,
    account: { revenue: '101.50', fees: '10.96', tax: '7.55', left: '82.99', result: '24.99' },
    withdrawn: null,
    settlement: null,
  };
  const sold = attributed({
    sale: { id: 's1', invoiceNumber: '2026-0007', certificateCode: 'ABCD', soldOn: '2026-11-02' },
  });
  test('every fee that was one, the tax, what is left and the margin', async () => {
    open(sold, { 'GET /sales/s1': () => ({ body: sale }) });
    const line = async (name: RegExp) => within(await screen.findByRole('row', { name }));
    (await line(/^Commission/)).getByText('− €8.12');
    (await line(/Tax that the price held/)).getByText('− €7.55');
    (await line(/^Left/)).getByText('€82.99');
    (await line(/^Margin/)).getByText('€24.99');
    expect(screen.queryByRole('row', { name: /Packing/ })).toBeNull();
    screen.getByText('Quayside market; taxed on the margin');
    expect(screen.getByRole('link', { name: 'Public check page' }).getAttribute('href')).toBe('/c/ABCD');
  });
  test('what is open is paid: the amount stands there already, and the answer takes the sale’s place', async () => {
    const came = open(sold, {
      'GET /sales/s1': () => ({ body: sale }),
      'POST /sales/s1/payments': () => ({
        status: 201,
        body: {
          ...sale,
          paid: eur('101.50'),
          open: eur('0.00'),
          payments: [{ id: 'p1', amount: eur('101.50'), paidOn: '2026-11-21', way: 'transfer', note: '' }],
        },
      }),
    });
    await userEvent.click(await screen.findByRole('button', { name: 'Note a payment' }));
    await userEvent.click(screen.getByRole('button', { name: 'Note it' }));
    await screen.findByText('In cash, by transfer, by card?');
    await userEvent.type(screen.getByLabelText('How'), 'transfer');
    await userEvent.click(screen.getByRole('button', { name: 'Note it' }));
    await screen.findByText(/€101.50 transfer, 21 Nov 2026/);
    expect(came.find((r) => r.method === 'POST')?.body).toMatchObject({ amount: '101.50', way: 'transfer' });
    expect(screen.queryByRole('button', { name: 'Note a payment' })).toBeNull();
  });
  test('taken back: all of it is proposed, with the reason asked for', async () => {
    const came = open(sold, {
      'GET /sales/s1': () => ({ body: sale }),
      'POST /sales/s1/credits': () => ({
        status: 201,
        body: {
          ...sale,
          returnedOn: '2026-11-28',
          withdrawn: { on: '2026-11-28', because: 'The piece came back to the shop.' },
          compared: { worse: ['Scales: dent, trace'], better: [], items: [], unchanged: 2 },
        },
      }),
    });
    await userEvent.click(await screen.findByRole('button', { name: /Take it back/ }));
    await userEvent.type(screen.getByLabelText('Why'), 'Another year was looked for.');
    await userEvent.click(screen.getByRole('button', { name: 'Take it back' }));
    await screen.findByText('– Scales: dent, trace');
    screen.getByText(/withdrawn 28 Nov 2026/);
    expect(came.find((r) => r.method === 'POST')?.body).toMatchObject({
      pieceBack: true,
      refund: '101.50',
      feesBack: '0',
      reason: 'Another year was looked for.',
    });
  });
  test('a cost nobody recorded leaves the margin open', async () => {
    open(sold, { 'GET /sales/s1': () => ({ body: { ...sale, cost: null, margin: null } }) });
    await screen.findByText('not recorded');
    within(screen.getByRole('row', { name: /^Margin/ })).getByText('–');
  });
});

describe('given back unsold', () => {
  test('to its owner, with a reason; to whom is there already', async () => {
    const sheet = attributed();
    const came = open(sheet, {
      [`POST /pieces/${sheet.id}/give-back`]: () => ({ body: { ...sheet, version: 8 } }),
    });
    await userEvent.click(await screen.findByRole('button', { name: 'Give it back unsold' }));
    const button = screen.getByRole('button', { name: 'Give it back' });
    await userEvent.click(button);
    screen.getByText('Why does it go back?');
    expect(came.some((r) => r.path.endsWith('give-back'))).toBe(false);
    await userEvent.type(screen.getByRole('textbox', { name: 'To whom' }), ' Halvern');
    await userEvent.type(screen.getByRole('textbox', { name: 'Why' }), 'A family piece.');
    await userEvent.click(button);
    expect(came.find((r) => r.path.endsWith('give-back'))?.body).toMatchObject({
      because: 'A family piece.',
    });
  });
  test('then nothing is sold, and it can be said that it was a mistake', async () => {
    open(
      attributed({
        stage: 'given-back',
        givenBack: {
          on: '2026-11-20',
          ownerName: 'Rosa Halvern',
          because: 'A family piece.',
          refundedCost: null,
        },
      }),
    );
    await screen.findByText(/Given back to Rosa Halvern/);
    screen.getByRole('button', { name: 'It was not given back after all' });
    expect(screen.queryByText('Kept for somebody')).toBeNull();
  });
});

describe('still offered elsewhere', () => {
  test('is told where it was sold, and ticked off', async () => {
    const back = {
      on: '2026-11-20',
      ownerName: 'Rosa Halvern',
      because: 'A family piece.',
      refundedCost: null,
    };
    const sheet = attributed({
      stage: 'given-back',
      givenBack: back,
      offeredAt: [{ channel: 'window', name: 'The window', since: '2026-11-01' }],
    });
    const came = open(sheet, {
      [`POST /pieces/${sheet.id}/offered-at/taken-down`]: () => ({ body: { ...sheet, offeredAt: [] } }),
    });
    await screen.findByText('It is still offered: The window.');
    await userEvent.click(screen.getByRole('button', { name: 'It is taken down' }));
    expect(came.find((r) => r.path.endsWith('taken-down'))?.body).toEqual({ channel: 'window' });
  });
});

test('what is to be thought of goes by where it is sold', async () => {
  const sheet = attributed();
  open(sheet, {
    [`GET /pieces/${sheet.id}/listing/draft`]: () => ({
      body: {
        written: { title: 'T', body: 'B' },
        problems: [],
        second: null,
        postage: null,
        cautions: ['Posted to a checked address.'],
        cautionsAtCounter: ['Shown at the counter only.'],
        shots: [],
        unseen: [],
        blocks: [],
      },
    }),
  });
  await screen.findByText('Shown at the counter only.');
  expect(screen.queryByText('Posted to a checked address.')).toBeNull();
});
