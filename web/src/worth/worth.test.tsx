/** Appraising, reading an appraisal, reckoning it again, and how well the house has done. */
import { afterEach, describe, expect, test } from '@jest/globals';
import { cleanup, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Outlet, Route, Routes } from 'react-router';
import { VALUE_SETTINGS } from '@jutbank/core/market';
import type {
  AppraisalEvidence,
  AppraisalRecord,
  AppraisedRow,
  Recomputed,
  TrackRecord,
} from '@jutbank/contract/worth';
import { problem, serve, show, type Answers } from '../testing/screen.tsx';
import { eur, sheetOf } from '../testing/sheet.ts';
import AppraisalPage from './AppraisalPage.tsx';
import AppraisePage from './AppraisePage.tsx';
import TrackRecordPage from './TrackRecordPage.tsx';

afterEach(cleanup);

const row = (id: string, more: Partial<AppraisedRow> = {}): AppraisedRow => ({
  id,
  saleDate: '2026-03-01',
  venue: 'Tollgate Rooms',
  priceKind: 'sold',
  variant: 'hj-first',
  paid: eur('140.00'),
  rate: null,
  converted: eur('140.00'),
  adjusted: eur('150.00'),
  weight: 0.3,
  adjustments: [{ name: 'condition', percent: 7.1 }],
  excluded: null,
  cells: { venue: 'Tollgate Rooms' },
  rateSource: null,
  gross: 7.1,
  net: 7.1,
  wide: false,
  check: null,
  ...more,
});
const evidence = (more: Partial<AppraisalEvidence> = {}): AppraisalEvidence => ({
  basis: 'market',
  definition: 'What it would most likely bring.',
  effectiveDate: '2026-11-20',
  question: {
    subject: { pattern: 'harbour-jack', variants: [{ variant: 'hj-first', probability: 1 }] },
    asOf: '2026-11-20',
    currency: 'EUR',
    venueKind: 'online',
  },
  point: { venueKind: 'online', point: 0.5, factor: 1 },
  figure: eur('148.20'),
  low: eur('110.00'),
  high: eur('196.00'),
  rows: [row('01ARZ3NDEKTSV4RRFFQ69G5FA1'), row('01ARZ3NDEKTSV4RRFFQ69G5FA2', { gross: 80, wide: true })],
  rest: { weight: 0.4, adjusted: eur('140.00'), count: 12 },
  methods: [{ name: 'adjustment-grid', estimate: eur('148.20') }],
  byVariant: [],
  notes: [],
  supported: true,
  thin: false,
  market: { lastSale: '2026-10-30', soldInTwoYears: 41, beyondLastSale: true },
  corrections: [],
  corrected: null,
  engine: { version: 'value-3', settings: VALUE_SETTINGS, middles: {} },
  known: { comparables: 3, rates: 1, reference: 2 },
  rules: 0,
  ...more,
});
const piece = `/pieces/${sheetOf().id}`;
const open = (answers: Answers = {}, role: 'owner' | 'clerk' = 'owner') => {
  const came = serve({ [`POST ${piece}/appraisals/draft`]: () => ({ body: evidence() }), ...answers });
  show(
    <Routes>
      <Route element={<Outlet context={sheetOf()} />}>
        <Route path="*" element={<AppraisePage />} />
      </Route>
    </Routes>,
    { role },
  );
  return came;
};

describe('appraising', () => {
  test('what it rests on stands beside the form, and a date beyond the last sale is warned of', async () => {
    open();
    await screen.findByText('€148.20', { selector: '.appraisedfigure' });
    screen.getByText(/what happened to prices since is not known/);
    expect(screen.getByText('80 %').className).toContain('warn');
  });
  test('is sent with what was found out about a sale, and the state that was looked at', async () => {
    const came = open({
      [`POST ${piece}/appraisals`]: () => ({ status: 201, body: { id: '01ARZ3NDEKTSV4RRFFQ69G5FAX' } }),
    });
    await screen.findByText('€148.20', { selector: '.appraisedfigure' });
    const [mark] = screen.getAllByRole('button', { name: 'not checked' });
    if (mark) await userEvent.click(mark);
    await userEvent.click(screen.getByRole('button', { name: 'seen' }));
    await userEvent.click(screen.getByRole('button', { name: 'Add an assumption' }));
    await userEvent.type(screen.getByLabelText('It is assumed that'), 'the blade is original');
    await userEvent.type(screen.getByLabelText('Were it not so, %'), '-30');
    await userEvent.type(screen.getByLabelText('Who will use it'), 'The owner');
    await userEvent.type(screen.getByLabelText('Concluded value, EUR'), '150.00');
    await userEvent.type(screen.getByLabelText('Why this value'), 'Near the grid.');
    await userEvent.click(screen.getByRole('button', { name: 'Sign and keep' }));
    const sent = came.find((r) => r.path === `${piece}/appraisals`)?.body;
    expect(sent).toMatchObject({
      known: { comparables: 3, rates: 1, reference: 2 },
      concluded: '150.00',
      signature: 'Ines Vadder',
      assumptions: [{ text: 'the blade is original', extraordinary: false, effectPct: -30 }],
      checks: [{ comparable: '01ARZ3NDEKTSV4RRFFQ69G5FA1', seen: true }],
    });
  });
  test('what is missing is told beside its field and nothing typed is lost; figures that moved are said', async () => {
    let moved = false;
    open({
      [`POST ${piece}/appraisals`]: () =>
        moved
          ? problem(409, 'Prices changed meanwhile: look at the figures again.')
          : problem(422, 'Some of the input is not right', [
              { pointer: '/because', message: 'Say why this value' },
            ]),
    });
    await userEvent.type(await screen.findByLabelText('Who will use it'), 'The owner');
    await userEvent.click(await screen.findByRole('button', { name: 'Sign and keep' }));
    await screen.findByText('Say why this value');
    expect((screen.getByLabelText('Who will use it') as HTMLInputElement).value).toBe('The owner');
    moved = true;
    await userEvent.click(screen.getByRole('button', { name: 'Sign and keep' }));
    await screen.findByRole('alert');
  });
  test('a clerk is told who may', async () => {
    open({}, 'clerk');
    await screen.findByText('Only an appraiser or the owner appraises.');
  });
});

const record = (): AppraisalRecord => {
  const { known: _, ...rest } = evidence();
  return {
    format: 'jutbank.appraisal/1',
    number: 'A-2026-0001',
    issuedAt: '2026-11-20T10:00:00.000Z',
    shop: 'Hollin Quay Edge Room',
    appraiser: 'Ines Vadder',
    signature: 'Ines Vadder',
    purpose: 'insurance',
    intendedUser: 'The owner',
    interest: 'None.',
    assumptions: [{ text: 'the blade is original', extraordinary: true, effectPct: -30 }],
    limiting: '',
    concluded: eur('150.00'),
    because: 'Near the grid.',
    ...rest,
    piece: {
      id: sheetOf().id,
      stockNumber: 'HQ-0001',
      title: 'Harbour jack',
      version: 7,
      owner: 'the shop',
      which: {
        tier: 'probable',
        label: 'Harbour jack',
        variants: [{ variant: 'hj-first', name: 'First form', probability: 1 }],
      },
      made: '1919 – 1934',
      condition: null,
      scope: { by: null, at: null, notExamined: ['inside: liner'] },
      statements: [],
      pictures: [],
    },
    revisions: { comparables: 3, rates: 1, reference: 2, rules: 0, referencePrint: 'f' },
  };
};
const kept = (answers: Answers = {}, intact = true) => {
  serve({
    'GET /appraisals/a1': () => ({ body: { id: 'a1', record: record(), fingerprint: 'abc', intact } }),
    ...answers,
  });
  show(
    <Routes>
      <Route path="/appraisals/:id" element={<AppraisalPage />} />
    </Routes>,
    { at: '/appraisals/a1' },
  );
};

describe('an appraisal as it was made', () => {
  test('says what it was of, what was assumed and what was not examined', async () => {
    kept();
    await screen.findByText('€150.00', { selector: '.appraisedfigure' });
    screen.getByText('extraordinary: the blade is original (else −30 %)');
    screen.getByText('inside: liner');
    expect(screen.queryByRole('button', { name: 'Sign and keep' })).toBeNull();
  });
  test('one whose bytes were changed is said to be', async () => {
    kept({}, false);
    await screen.findByText('This record is not as it was made.');
  });
  test('reckoned again, every cause of the difference is named', async () => {
    const again: Recomputed = {
      recorded: eur('148.20'),
      then: eur('148.20'),
      agrees: true,
      now: eur('155.00'),
      changes: [
        { cause: 'sales', by: eur('9.80'), told: '200 sales came in, 1 was set aside' },
        { cause: 'rates', by: eur('0.00'), told: 'the same rates' },
        { cause: 'piece', by: eur('-3.00'), told: 'the piece is described otherwise now' },
      ],
    };
    kept({ 'POST /appraisals/a1/recompute': () => ({ body: again }) });
    await userEvent.click(await screen.findByRole('button', { name: 'Reckon it again' }));
    await screen.findByText('the recorded figure, to the cent');
    const line = screen.getByText('200 sales came in, 1 was set aside').closest('tr');
    if (!line) throw new Error('no line');
    within(line).getByText('+€9.80');
    screen.getByText('€155.00');
  });
});

describe('how well the house has done', () => {
  const told = (more: Partial<TrackRecord> = {}): TrackRecord => ({
    pieces: [],
    ranges: null,
    by: [],
    probabilities: [],
    asks: [],
    house: { of: 31, held: 27, stretch: 0.94 },
    declined: [],
    ...more,
  });
  test('empty: says what will stand here', async () => {
    serve({ 'GET /track-record': () => ({ body: told() }) });
    show(<TrackRecordPage />);
    await screen.findByText(/No appraised piece has been sold yet/);
  });
  test('so many inside, with how far so few can tell, and a plot with a name', async () => {
    const ranges = { of: 10, held: 8, share: 0.8, low: 0.6, high: 0.91, ofFigure: 1.02, ofConcluded: 0.98 };
    const sold = {
      appraisal: 'a1',
      number: 'A-2026-0001',
      pieceId: 'p1',
      title: 'Harbour jack',
      basis: 'market' as const,
      maker: 'Brackenholt Cutlery',
      year: 2026,
      appraiser: 'Ines Vadder',
      low: eur('110.00'),
      figure: eur('148.20'),
      high: eur('196.00'),
      concluded: eur('150.00'),
      sold: eur('205.00'),
      soldOn: '2026-11-22',
    };
    serve({
      'GET /track-record': () => ({
        body: told({ ranges, pieces: [sold], by: [{ group: 'basis', name: 'market', held: ranges }] }),
      }),
    });
    show(<TrackRecordPage />);
    await screen.findByText(/8 of 10/, { selector: '.appraisedfigure' });
    screen.getByText(/it agrees with what is stated/);
    screen.getByText('Market value');
    screen.getByRole('img', { name: /1 pieces; 0 lie inside/ });
  });
});
