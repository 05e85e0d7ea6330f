import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { cleanup, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { FairAnswer, FairNote, FairQuestion } from '@jutbank/contract/fair';
import type { FairHit, FairSight, LookQuestion } from '@jutbank/core/fair';
import { referenceAnswers } from '../testing/reference.ts';
import { problem, serve, show, type Answers, type Request } from '../testing/screen.tsx';
import FairPage from './FairPage.tsx';

beforeEach(() => localStorage.clear());
afterEach(cleanup);

const eur = (amount: string) => ({ amount, currency: 'EUR' });
/** A ceiling of 70 whatever it is; what is asked is held against it. */
function judged({ asked, care }: FairQuestion): FairAnswer {
  const at = Number(asked?.amount ?? 0);
  return {
    estimate: eur('140.00'),
    low: eur('90.00'),
    high: eur('210.00'),
    thin: false,
    supported: true,
    notes: [],
    care: care ?? 'even',
    price: eur('140.00'),
    most: {
      currency: 'EUR',
      net: '125.00',
      bid: '70.00',
      cost: '70.00',
      steps: [
        { name: 'sold for', amount: '140.00' },
        { name: 'kept as profit', amount: '-55.00' },
        { name: 'most to bid', amount: '70.00' },
      ],
    },
    atAsked: asked
      ? { cost: eur(asked.amount), left: eur((125 - at).toFixed(2)), marginPct: 100 - at / 1.25 }
      : null,
    verdict: !asked ? 'no-price' : at <= 70 ? 'pay' : at <= 90 ? 'haggle' : 'leave',
  };
}
const PATTERNS: FairHit[] = [
  {
    kind: 'pattern',
    id: 'harbour-jack',
    label: 'Harbour jack',
    hint: 'Brackenholt Cutlery',
    pattern: { id: 'harbour-jack', name: 'Harbour jack', construction: 'slipjoint' },
  },
  {
    kind: 'pattern',
    id: 'deck-knife',
    label: 'Deck knife',
    hint: 'Brackenholt Cutlery',
    pattern: { id: 'deck-knife', name: 'Deck knife', construction: 'fixed' },
  },
];
const STAMP: FairHit = {
  kind: 'mark',
  id: 'arched',
  label: 'BRACKENHOLT / NORHAM',
  hint: 'Brackenholt Cutlery',
  make: { mark: 'arched' },
  mark: { id: 'arched', lines: ['BRACKENHOLT', 'NORHAM'], lettering: 'arched', window: '1950/1994' },
};
const found = (path: string): FairHit[] => {
  const words = (new URLSearchParams(path.split('?')[1]).get('q') ?? '').toLowerCase();
  return [...PATTERNS, STAMP].filter((hit) => hit.label.toLowerCase().includes(words));
};
/** Says of a stamp what it speaks for, of a picked pattern what its forms are. */
function looked({ observations, pattern }: LookQuestion): FairSight {
  return {
    candidates:
      observations.length === 0
        ? []
        : [
            {
              variant: 'hj-second',
              pattern: 'harbour-jack',
              patternName: 'Harbour jack',
              construction: 'slipjoint',
              name: 'Service issue',
              maker: 'Brackenholt Cutlery',
              window: '1951/1970',
              probability: 0.86,
            },
          ],
    unlisted: 0.05,
    made: observations.length === 0 ? null : '1951/1970',
    tier: 'probable',
    alerts: [],
    checks: [
      {
        ask: 'Which scales?',
        choices: [
          { label: 'Horn', make: { feature: 'scales', value: 'horn' } },
          { label: 'Wood', make: { feature: 'scales', value: 'wood' } },
        ],
        other: 'scales',
      },
      {
        ask: 'Measure the blade.',
        choices: [],
        measure: { feature: 'blade', label: 'Blade length', unit: 'mm' },
      },
    ],
    forms: pattern == null ? [] : [{ id: 'hj-second', name: 'Service issue' }],
  };
}
const server = (more: Answers = {}) =>
  serve({
    ...referenceAnswers,
    'POST /grade': ({ body }) => ({
      body: {
        conditionIndex: 100 - 8 * (body as { findings: unknown[] }).findings.length,
        grades: [],
        disclosures: [],
      },
    }),
    'GET /fair/search': ({ path }) => ({ body: { items: found(path) } }),
    'POST /fair/look': ({ body }) => ({ body: looked(body as LookQuestion) }),
    'GET /reference/forms': () => ({ body: { variants: [] } }),
    'POST /fair/judge': ({ body }) => ({ body: judged(body as FairQuestion) }),
    'POST /fair/notes': () => ({
      status: 201,
      body: { id: '01ARZ3NDEKTSV4RRFFQ69G5FAV', pieceId: null, told: [] },
    }),
    ...more,
  });
const find = async (words: string) => {
  await userEvent.type(await screen.findByLabelText(/Which is it/), words);
};
const pickJack = async () => {
  await find('harbour');
  await userEvent.click(await screen.findByRole('button', { name: /Harbour jack/ }));
  await screen.findByText('€70.00');
};
const asks = (amount: string) => userEvent.type(screen.getByLabelText('They ask'), amount);
const notes = (came: readonly Request[]) =>
  came.filter((r) => r.method === 'POST' && r.path === '/fair/notes').map((r) => r.body as FairNote);
const lastQuestion = (came: readonly Request[]) =>
  came.filter((r) => r.path === '/fair/judge').at(-1)?.body as FairQuestion;

describe('at the table', () => {
  test('a pattern picked by a part of its name has its ceiling, and why', async () => {
    server();
    show(<FairPage />);
    await pickJack();
    screen.getByText('What do they ask?');
    await userEvent.click(screen.getByRole('button', { name: /Why\?/ }));
    screen.getByText('Kept as profit');
    screen.getByText('-€55.00');
  });
  test('what is asked is held against it: pay, haggle, leave', async () => {
    server();
    show(<FairPage />);
    await pickJack();
    await asks('60');
    await screen.findByText('Below the ceiling');
    screen.getByText(/leaves €65.00, 52 % of the net/);
    await userEvent.clear(screen.getByLabelText('They ask'));
    await asks('85');
    await screen.findByText('Haggle');
    await userEvent.clear(screen.getByLabelText('They ask'));
    await asks('400');
    await screen.findByText('Leave it');
  });
  test('taps are findings, worse with each; what is with it and how sure go into the question', async () => {
    const came = server();
    show(<FairPage />);
    await pickJack();
    const crack = screen.getByRole('button', { name: /Cracked handle/ });
    await userEvent.click(crack);
    await userEvent.click(crack);
    await userEvent.click(screen.getByRole('button', { name: /Name on it/ }));
    await userEvent.click(screen.getByRole('button', { name: /Its box/ }));
    await userEvent.click(screen.getByRole('button', { name: 'bold' }));
    await waitFor(() =>
      expect(lastQuestion(came)).toMatchObject({
        conditionIndex: 84,
        box: 'original',
        papers: 'none',
        sheath: null,
        alterations: ['named'],
        care: 'bold',
      }),
    );
    screen.getByText('plainly');
  });
  test('a fixed knife may have its sheath', async () => {
    server();
    show(<FairPage />);
    await find('deck');
    await userEvent.click(await screen.findByRole('button', { name: /Deck knife/ }));
    await screen.findByRole('button', { name: /Its sheath/ });
  });
  test('a pattern named in the address is picked at once', async () => {
    server();
    show(<FairPage />, { at: '/fair?pattern=harbour-jack' });
    await screen.findByText('€70.00');
  });
  test('who may only read sees the ceiling, decides nothing and packs nothing', async () => {
    server();
    show(<FairPage />, { role: 'reader' });
    await pickJack();
    expect(screen.queryByRole('button', { name: 'Pack my bag' })).toBeNull();
    expect(screen.queryByRole('button', { name: 'Bought' })).toBeNull();
  });
});

describe('what is read off the piece', () => {
  test('leads to what it may be; what was seen goes into the ceiling and with the note', async () => {
    const came = server();
    show(<FairPage />);
    await find('norham{Enter}');
    await userEvent.click(await screen.findByRole('button', { name: /Harbour jack, Service issue/ }));
    await screen.findByText('€70.00');
    screen.getByText(/Probable; made 1951 – 1970; 5 in 100 for none of these/);
    await userEvent.click(screen.getByRole('button', { name: 'Wood' }));
    await userEvent.type(screen.getByLabelText('What the seller says'), 'from a cellar');
    const seen = [{ mark: 'arched' }, { feature: 'scales', value: 'wood' }];
    await waitFor(() => expect(lastQuestion(came)).toMatchObject({ observations: seen }));
    await userEvent.click(screen.getByRole('button', { name: 'Bought' }));
    await screen.findByText('Kept.');
    expect(notes(came)).toMatchObject([{ observations: seen, note: 'from a cellar' }]);
  });
  test('is taken back by a tap, and another answer to the same question replaces it', async () => {
    const came = server();
    show(<FairPage />);
    await pickJack();
    await userEvent.click(screen.getByRole('button', { name: 'Horn' }));
    await userEvent.click(screen.getByRole('button', { name: 'Wood' }));
    await waitFor(() =>
      expect(lastQuestion(came)?.observations).toEqual([{ feature: 'scales', value: 'wood' }]),
    );
    await userEvent.click(screen.getByRole('button', { name: 'Take back Which scales: wood' }));
    await waitFor(() => expect(lastQuestion(came)?.observations).toEqual([]));
  });
  test('a size is typed as the rule shows it; a bare 3 is asked about', async () => {
    const came = server();
    show(<FairPage />);
    await pickJack();
    const line = await screen.findByLabelText('Blade length');
    await userEvent.type(line, '3{Enter}');
    screen.getByText(/inches or millimetres/);
    await userEvent.clear(line);
    await userEvent.type(line, '2 7/8{Enter}');
    await screen.findByRole('button', { name: 'Take back Blade length: 2 7/8' });
    await waitFor(() => {
      const [seen] = lastQuestion(came)?.observations ?? [];
      expect(seen).toMatchObject({ feature: 'blade', text: '2 7/8' });
      expect(seen && 'measure' in seen && seen.measure).toBeCloseTo(73.025);
    });
  });
  test('what no value says is written, and seen as something else', async () => {
    const came = server();
    show(<FairPage />);
    await pickJack();
    await userEvent.type(await screen.findByLabelText('Something else'), 'whale tooth{Enter}');
    await screen.findByRole('button', { name: /^Take back Which scales: whale tooth/ });
    await waitFor(() =>
      expect(lastQuestion(came)?.observations).toEqual([{ feature: 'scales', other: 'whale tooth' }]),
    );
  });
  test('what nobody stamped or called so is said, with what to try', async () => {
    server();
    show(<FairPage />);
    await find('zzz');
    await screen.findByText(/Nothing in the reference is called or stamped so/);
  });
});

describe('a bag', () => {
  test('is offered to whoever decides at the table, with the makers whose prices go along', async () => {
    const came = server({ 'GET /fair/bag': () => problem(422, 'The market of these makers is too large.') });
    show(<FairPage />);
    await userEvent.click(await screen.findByRole('button', { name: 'Pack my bag' }));
    await userEvent.click(await screen.findByLabelText('Brackenholt Cutlery'));
    await userEvent.click(screen.getByRole('button', { name: 'Pack 1' }));
    await screen.findByText(/The bag could not be packed/);
    screen.getByText(/too large/);
    expect(came.some((request) => request.path === '/fair/bag?makers=bh')).toBe(true);
  });
});

describe('a decision', () => {
  test('goes out with its question and what the ceiling was, and the next piece begins', async () => {
    const came = server();
    show(<FairPage />);
    await pickJack();
    await asks('60');
    await screen.findByText('Below the ceiling');
    await userEvent.click(screen.getByRole('button', { name: 'Bought' }));
    await screen.findByText('Kept.');
    expect(notes(came)).toMatchObject([
      {
        title: 'Harbour jack',
        decision: 'bought',
        paid: { amount: '60.00', currency: 'EUR' },
        ceiling: { amount: '70.00', currency: 'EUR' },
        observations: [],
        question: { pattern: 'harbour-jack' },
      },
    ]);
    screen.getByLabelText(/Which is it/);
  });
  test('waits where there is no connection, is told so, and goes out on demand', async () => {
    let away = true;
    const came = server({
      'POST /fair/notes': () =>
        away ? 'away' : { status: 201, body: { id: '01ARZ3NDEKTSV4RRFFQ69G5FAV', pieceId: null, told: [] } },
    });
    show(<FairPage />);
    await pickJack();
    await userEvent.click(screen.getByRole('button', { name: 'Thinking' }));
    await screen.findByText(/One note waits for a connection/);
    away = false;
    await userEvent.click(screen.getByRole('button', { name: 'Send now' }));
    await screen.findByText('Kept.');
    // the same note, by its key
    const keys = new Set(notes(came).map((n) => n.key));
    expect(keys.size).toBe(1);
  });
  test('kept on the phone is still there when the page is opened again', async () => {
    server({ 'POST /fair/notes': () => 'away' });
    const first = show(<FairPage />);
    await pickJack();
    await userEvent.click(screen.getByRole('button', { name: 'Left it' }));
    await screen.findByText(/One note waits/);
    first.unmount();
    const came = server();
    show(<FairPage />);
    await screen.findByText('Kept.');
    expect(notes(came)[0]?.decision).toBe('left');
  });
  test('the server will never take is told with its reason', async () => {
    server({ 'POST /fair/notes': () => problem(422, 'Please check') });
    show(<FairPage />);
    await pickJack();
    await userEvent.click(screen.getByRole('button', { name: 'Left it' }));
    await screen.findByText(/“Harbour jack” was not taken/);
    // nothing is lost by it
    await userEvent.click(screen.getByRole('button', { name: 'Throw it away' }));
    await waitFor(() => expect(screen.queryByText(/was not taken/)).toBeNull());
  });
});

describe('the last tables', () => {
  const record = (title: string, more: object = {}) => ({
    id: title,
    person: 'Ines Vadder',
    pieceId: null,
    picture: null,
    told: [],
    note: {
      key: '00000000-0000-4000-8000-000000000001',
      notedAt: '2026-11-14T10:20:00.000Z',
      title,
      construction: 'slipjoint',
      question: { pattern: 'harbour-jack', alterations: [], asked: eur('165.00') },
      decision: 'thinking',
      note: 'Back on Sunday.',
      observations: [],
    },
    ...more,
  });
  test('what was only thought about can be come back to; what was bought leads to its piece', async () => {
    server({
      'GET /fair/notes': () => ({
        body: { items: [record('Petrel'), record('Harbour jack', { pieceId: 'p1', picture: 'ab' })] },
      }),
    });
    const { container } = show(<FairPage />);
    await screen.findByText('The last tables');
    expect(screen.getAllByText('14 Nov 2026, thinking about it, asked €165.00')).toHaveLength(2);
    expect(screen.getByRole('link', { name: 'Harbour jack' }).getAttribute('href')).toBe('/pieces/p1');
    expect(container.querySelector('img')?.getAttribute('src')).toBe('/api/v1/pictures/ab/thumb');
  });
  test('are looked at again once a note went out', async () => {
    const came = server({ 'GET /fair/notes': () => ({ body: { items: [] } }) });
    show(<FairPage />);
    await pickJack();
    const before = came.filter((r) => r.method === 'GET' && r.path === '/fair/notes').length;
    await userEvent.click(screen.getByRole('button', { name: 'Left it' }));
    await screen.findByText('Kept.');
    await waitFor(() =>
      expect(came.filter((r) => r.method === 'GET' && r.path === '/fair/notes').length).toBeGreaterThan(
        before,
      ),
    );
  });
});

describe('what nobody can name', () => {
  const photograph = async () =>
    userEvent.upload(
      await screen.findByLabelText('Photograph it'),
      new File(['x'], 'table.jpg', { type: 'image/jpeg' }),
    );
  test('is photographed, gets a working name, and is noted without a ceiling', async () => {
    URL.createObjectURL = () => 'blob:x';
    URL.revokeObjectURL = () => undefined;
    const came = server();
    show(<FairPage />);
    await photograph();
    await screen.findByText('Photographed');
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Bought' }).disabled).toBe(true);
    await userEvent.type(screen.getByLabelText('Working name'), 'Brass jack');
    await asks('25');
    await userEvent.click(screen.getByRole('button', { name: 'Bought' }));
    await screen.findByText('Kept.');
    expect(notes(came)[0]).toMatchObject({
      title: 'Brass jack',
      question: null,
      note: '',
      decision: 'bought',
    });
    expect(came.some((r) => r.path === '/fair/judge')).toBe(false);
  });
  test('is found out after all: its picture stays, the ceiling appears', async () => {
    URL.createObjectURL = () => 'blob:x';
    URL.revokeObjectURL = () => undefined;
    server();
    show(<FairPage />);
    await photograph();
    await screen.findByText('Photographed');
    await pickJack();
    screen.getByAltText('What was photographed');
  });
});
