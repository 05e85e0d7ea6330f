import { afterEach, describe, expect, test } from '@jest/globals';
import { cleanup, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { ListingDraft } from '@jutbank/contract/listing';
import type { PieceSheet } from '@jutbank/contract/pieces';
import type { Role } from '@jutbank/contract/shop';
import { problem, type Answers } from '../testing/screen.tsx';
import { eur, sheetOf } from '../testing/sheet.ts';
import { openStage } from '../testing/stage.tsx';
import ListingStage from './ListingStage.tsx';

afterEach(cleanup);

const path = `/pieces/${sheetOf().id}/listing`;
const draftOf = (more: Partial<ListingDraft> = {}): ListingDraft => ({
  written: { title: 'Harbour jack, service issue', body: 'Two blades, horn scales. A chip at the tip.' },
  blocks: [],
  problems: [],
  second: null,
  postage: null,
  shots: [{ id: 'closed', ask: 'Closed', done: false }],
  unseen: [],
  cautionsAtCounter: [],
  cautions: ['Carrying one in public may be forbidden where the buyer lives.'],
  ...more,
});
const open = (draft: ListingDraft, sheet: PieceSheet = sheetOf(), more: Answers = {}, role: Role = 'owner') =>
  openStage(<ListingStage />, sheet, { [`GET ${path}/draft`]: () => ({ body: draft }), ...more }, role);
const putUp = () => screen.findByRole<HTMLButtonElement>('button', { name: 'Put it up on Quayside market' });

describe('before it goes up', () => {
  test('all is told: it can be put up, under the version that was looked at', async () => {
    const came = open(draftOf(), sheetOf(), {
      [`POST ${path}/publish`]: () => ({ body: sheetOf({ version: 8 }) }),
    });
    await screen.findByText('Everything known is told.');
    await userEvent.click(await putUp());
    await waitFor(() => expect(came.some((r) => r.method === 'POST')).toBe(true));
    expect(came.find((r) => r.method === 'POST')?.headers['if-match']).toBe('"v7"');
  });
  test.each([
    [
      'what is known and not told',
      { problems: [{ kind: 'disclosure-dropped' as const, detail: 'The chip at the tip is not told.' }] },
      'Something known is not told',
    ],
    [
      'a claim stronger than its evidence',
      { problems: [{ kind: 'too-strong' as const, detail: '“Genuine” is not proved.' }] },
      'The wording is stronger than the evidence',
    ],
    [
      'what is missing',
      { blocks: [{ stage: 'condition', text: 'Finish the inspection: every finding must be told.' }] },
      'Finish the inspection: every finding must be told.',
    ],
  ])('%s keeps it down, and is told', async (_, more, words) => {
    open(draftOf(more as Partial<ListingDraft>));
    await screen.findByText(words);
    expect((await putUp()).disabled).toBe(true);
    expect(screen.queryByText('Everything known is told.')).toBeNull();
  });
  test('what the server refuses is told, line by line', async () => {
    open(draftOf(), sheetOf(), {
      [`POST ${path}/publish`]: () =>
        problem(422, 'It cannot go up yet', [
          { pointer: '/body', message: 'The chip at the tip is not told.' },
        ]),
    });
    await userEvent.click(await putUp());
    await screen.findByText('The chip at the tip is not told.');
  });
  test('a clerk writes and does not put up', async () => {
    open(draftOf(), sheetOf(), {}, 'clerk');
    await screen.findByText('Everything known is told.');
    expect(screen.queryByRole('button', { name: /Put it up/ })).toBeNull();
    expect(screen.getByLabelText<HTMLInputElement>('Title').disabled).toBe(false);
  });
  test('words of one’s own can be given up for those of the record', async () => {
    open(
      draftOf(),
      sheetOf({
        listing: {
          state: 'draft',
          title: 'Old knife',
          body: 'Rare!',
          messages: [],
          waiting: [],
        } as unknown as PieceSheet['listing'],
      }),
    );
    expect((await screen.findByLabelText<HTMLInputElement>('Title')).value).toBe('Old knife');
    await userEvent.click(screen.getByRole('button', { name: 'Write it anew from the record' }));
    expect(screen.getByLabelText<HTMLInputElement>('Title').value).toBe('Harbour jack, service issue');
  });
});

describe('in a second language', () => {
  const second: ListingDraft['second'] = {
    language: 'de',
    written: { title: 'Hafenmesser', body: 'Zwei Klingen.' },
    kept: null,
    problems: [],
  };
  test('its text is edited for itself, and says which it is', async () => {
    const came = open(draftOf({ second }), sheetOf(), {
      [`PUT ${path}`]: () => ({ body: sheetOf({ version: 8 }) }),
    });
    await userEvent.click(await screen.findByRole('tab', { name: 'Deutsch' }));
    const title = screen.getByLabelText<HTMLInputElement>('Title');
    expect(title.value).toBe('Hafenmesser');
    await userEvent.type(title, ', selten');
    await waitFor(() =>
      expect(came.find((r) => r.method === 'PUT')?.body).toEqual({
        title: 'Hafenmesser, selten',
        body: 'Zwei Klingen.',
        language: 'de',
      }),
    );
  });
  test('what it leaves out keeps all of it down', async () => {
    open(
      draftOf({
        second: {
          ...second,
          problems: [{ kind: 'disclosure-dropped', detail: 'The text no longer says: Ausbruch' }],
        },
      }),
    );
    await screen.findByText('The text no longer says: Ausbruch');
    expect((await putUp()).disabled).toBe(true);
  });
  test('English alone, there is nothing to turn to', async () => {
    open(draftOf());
    await putUp();
    expect(screen.queryByRole('tab')).toBeNull();
  });
});

describe('what carriers ask', () => {
  const price = (zone: 'home' | 'near', amount: string) => ({
    zone,
    carrier: 'Coast carrier',
    service: 'Tracked parcel',
    price: eur(amount),
    tracked: true,
  });
  test('is taken for the piece, and stands there from then on', async () => {
    const came = open(
      draftOf({ postage: { askedOn: '2026-11-20', quotes: [price('home', '8.30')] } }),
      sheetOf(),
      {
        [`GET /pieces/${sheetOf().id}/postage`]: () => ({
          body: {
            grams: 310,
            weighed: true,
            size: [240, 160, 70],
            insuredFor: eur('150.00'),
            zones: [
              {
                zone: 'home',
                quotes: [{ ...price('home', '8.30'), insuredUpTo: 500, days: [1, 3], topics: [] }],
              },
            ],
          },
        }),
        [`POST /pieces/${sheetOf().id}/postage`]: () => ({ body: sheetOf({ version: 8 }) }),
      },
    );
    await screen.findByText(/Asked 20 Nov 2026/);
    await userEvent.click(screen.getByRole('button', { name: 'Ask the carriers' }));
    await userEvent.click(
      await screen.findByRole('button', { name: 'Take the cheapest tracked of each zone' }),
    );
    await waitFor(() => expect(came.find((r) => r.method === 'POST')?.headers['if-match']).toBe('"v7"'));
  });
});

describe('once it is up', () => {
  const up = (messages: object[]) =>
    sheetOf({
      listing: {
        state: 'published',
        title: 'Harbour jack',
        body: 'As it is up.',
        publishedAt: '2026-11-20T10:00:00Z',
        marketplaceRef: null,
        expiresOn: null,
        messages,
        waiting: [],
      } as unknown as PieceSheet['listing'],
    });
  const message = (more: object) => ({
    id: '01ARZ3NDEKTSV4RRFFQ69G5FA1',
    state: 'open',
    from: 'Maren Tolleth',
    at: '2026-11-25T10:00:00Z',
    text: 'Is the shield the first one?',
    answer: null,
    amount: null,
    ...more,
  });
  test('a question is answered in words, never with nothing', async () => {
    const came = open(draftOf(), up([message({ kind: 'question' })]), {
      [`POST ${path}/messages/01ARZ3NDEKTSV4RRFFQ69G5FA1/answer`]: () => ({ body: up([]) }),
    });
    await userEvent.click(await screen.findByRole('button', { name: 'Send' }));
    expect(came.some((r) => r.method === 'POST')).toBe(false);
    await userEvent.type(screen.getByLabelText('Answer'), 'It is.');
    await userEvent.click(screen.getByRole('button', { name: 'Send' }));
    await waitFor(() =>
      expect(came.find((r) => r.method === 'POST')?.body).toEqual({ text: 'It is.', decline: false }),
    );
  });
  test('one key sends the answer that the record gives; while one types it does not', async () => {
    const answers = `${path}/messages/01ARZ3NDEKTSV4RRFFQ69G5FA1/answer`;
    const came = open(draftOf(), up([message({ kind: 'question' })]), {
      [`GET ${answers}s`]: () => ({ body: { items: ['Shield: acorn.', 'No box.'] } }),
      [`POST ${answers}`]: () => ({ body: up([]) }),
    });
    await screen.findByText('Shield: acorn.');
    await userEvent.type(screen.getByLabelText('Answer'), '2');
    expect(came.some((r) => r.method === 'POST')).toBe(false);
    await userEvent.tab();
    await userEvent.keyboard('1');
    await waitFor(() =>
      expect(came.find((r) => r.method === 'POST')?.body).toEqual({ text: 'Shield: acorn.', decline: false }),
    );
  });
  test('run out it is a draft again', async () => {
    const sheet = up([]);
    open(draftOf(), {
      ...sheet,
      listing: { ...sheet.listing, expiresOn: '2026-01-31' } as PieceSheet['listing'],
    });
    await screen.findByText('It ran out on 31 Jan 2026.');
    await putUp();
  });
  test('an offer is accepted where it is sold, or declined', async () => {
    const came = open(draftOf(), up([message({ kind: 'offer', amount: eur('150.00') })]), {
      [`POST ${path}/messages/01ARZ3NDEKTSV4RRFFQ69G5FA1/answer`]: () => ({ body: up([]) }),
    });
    expect((await screen.findByRole('link', { name: 'Accept' })).getAttribute('href')).toContain(
      'sale?offer=01ARZ3NDEKTSV4RRFFQ69G5FA1',
    );
    await userEvent.click(screen.getByRole('button', { name: 'Decline' }));
    await waitFor(() =>
      expect(came.find((r) => r.path.endsWith('/answer'))?.body).toEqual({ text: '', decline: true }),
    );
  });
  test('an offer stands beside what it leaves and what waiting is worth; another price is named', async () => {
    const came = open(draftOf(), up([message({ kind: 'offer', amount: eur('150.00') })]), {
      [`POST /pieces/${sheetOf().id}/offers/judge`]: () => ({
        body: {
          advice: 'counter',
          counter: eur('165.00'),
          net: eur('132.10'),
          waiting: eur('148.00'),
          why: 'Another buyer comes within a month.',
        },
      }),
      [`POST ${path}/messages/01ARZ3NDEKTSV4RRFFQ69G5FA1/answer`]: () => ({ body: up([]) }),
    });
    await screen.findByText('Counter it.');
    screen.getByText('€132.10');
    await userEvent.click(screen.getByRole('button', { name: 'Counter' }));
    await waitFor(() =>
      expect(came.find((r) => r.path.endsWith('/answer'))?.body).toEqual({
        text: '',
        decline: false,
        counter: eur('165.00'),
      }),
    );
  });
  test('taken down with a reason', async () => {
    const came = open(draftOf(), up([]), { [`POST ${path}/take-down`]: () => ({ body: up([]) }) });
    await userEvent.click(await screen.findByRole('button', { name: 'Take it down' }));
    await userEvent.type(screen.getByLabelText('Why'), 'A buyer comes to see it.');
    await userEvent.click(screen.getByRole('button', { name: 'Take it down' }));
    expect(came.find((r) => r.path.endsWith('/take-down'))?.body).toEqual({
      because: 'A buyer comes to see it.',
    });
  });
});
