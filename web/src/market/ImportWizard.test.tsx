import { afterEach, describe, expect, test } from '@jest/globals';
import { cleanup, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { ComparablesImportAnswer, FileLook } from '@jutbank/contract/market';
import { referenceAnswers } from '../testing/reference.ts';
import { problem, serve, show, type Answers, type Request, take } from '../testing/screen.tsx';
import { ImportWizard } from './ImportWizard.tsx';

afterEach(cleanup);

const looked = (more: Partial<FileLook> = {}): FileLook => ({
  encoding: 'utf-8',
  separator: ';',
  header: ['Datum', 'Hammer', 'Cur', 'Model'],
  sample: [['30.10.2026', '182,50', 'EUR', 'The jack']],
  rows: 12,
  mapping: {
    columns: { Datum: 'sale_date', Hammer: 'price', Cur: 'currency', Model: 'pattern' },
    dateOrder: 'dmy',
    decimalComma: true,
    fixed: { price_kind: 'sold', venue_kind: 'auction' },
    names: { maker: {}, pattern: {}, variant: {} },
    currencyInPrice: false,
    words: {},
  },
  remembered: false,
  names: [],
  words: [],
  notation: { dateOrder: 'dmy', decimalComma: true, currencyInPrice: false },
  ...more,
});
const result = (more: Partial<ComparablesImportAnswer> = {}): ComparablesImportAnswer => ({
  rows: 12,
  added: 11,
  alreadyKnown: 0,
  rejected: 1,
  errors: [{ line: 7, column: 'price', columnNumber: 2, value: 'x', message: '“x” is not a number' }],
  warnings: [],
  ...more,
});
const named = (
  column: 'pattern' | 'variant',
  said: string,
  guess: string | null,
  pattern: string | null = null,
) => ({
  column,
  said,
  pattern,
  rows: 3,
  key: pattern === null ? said.toLowerCase() : `${pattern} ${said.toLowerCase()}`,
  guess,
});
const server = (look: FileLook = looked(), more: Answers = {}) =>
  serve({
    ...referenceAnswers,
    'GET /comparables/imports': () => ({ body: { items: [] } }),
    'POST /comparables/look': () => ({ body: look }),
    'POST /comparables/import': () => ({ body: result() }),
    ...more,
  });
const choose = async () =>
  userEvent.upload(await screen.findByLabelText('Choose a CSV file'), new File(['Datum'], 'their list.csv'));
const imports = (came: readonly Request[]) =>
  came.filter((r) => r.path.startsWith('/comparables/import') && r.method === 'POST');
const mappingOf = (request: Request | undefined): FileLook['mapping'] =>
  JSON.parse(String((request?.body as FormData).get('mapping'))) as FileLook['mapping'];

describe('a list of prices', () => {
  test('whose columns are known is tried at once; the bad row stands at its line and column', async () => {
    const came = server();
    show(<ImportWizard />);
    await choose();
    await screen.findByText(/12 rows: would add 11, 0 known already, 1 left out/);
    screen.getByText('Line 7, price “x”: “x” is not a number');
    expect(imports(came).map((r) => r.path)).toEqual(['/comparables/import?check=1']);
  });
  test('goes in only when it is said so', async () => {
    const came = server();
    show(<ImportWizard />);
    await choose();
    await screen.findByText(/would add 11/);
    await userEvent.click(screen.getByRole('button', { name: 'Import the good rows' }));
    await screen.findByText(/12 rows: added 11/);
    expect(imports(came).at(-1)?.path).toBe('/comparables/import');
  });
  test('without a column that is needed waits until somebody says it for every row', async () => {
    const look = looked();
    const came = server({ ...look, mapping: { ...look.mapping, fixed: { price_kind: 'sold' } } });
    show(<ImportWizard />);
    await choose();
    await userEvent.click(await screen.findByLabelText('Venue kind of every row'));
    expect(imports(came)).toHaveLength(0);
    await userEvent.click(await screen.findByRole('option', { name: 'fair' }));
    await userEvent.click(screen.getByRole('button', { name: 'Try it' }));
    await screen.findByText(/would add 11/);
    expect(mappingOf(imports(came)[0]).fixed).toEqual({ price_kind: 'sold', venue_kind: 'fair' });
  });
  test('a column that says something else is given once only, and the list is looked at again', async () => {
    const came = server();
    show(<ImportWizard />);
    await choose();
    await take('What “Cur” says', 'note');
    await waitFor(() => expect(came.filter((r) => r.path === '/comparables/look')).toHaveLength(2));
    expect(mappingOf(came.filter((r) => r.path === '/comparables/look')[1]).columns.Cur).toBe('note');
    screen.getByLabelText('Currency of every row');
  });
  test('a large one goes on as a task, with its share and a way out', async () => {
    let cancelled = false;
    server(looked(), {
      'POST /comparables/import': ({ path }) =>
        path.endsWith('check=1') ? { body: result() } : { status: 202, body: { job: 'j1' } },
      'GET /jobs/j1': () => ({
        body: { id: 'j1', state: cancelled ? 'cancelled' : 'running', progress: 0.37, result: null },
      }),
      'DELETE /jobs/j1': () => {
        cancelled = true;
        return { body: {} };
      },
    });
    show(<ImportWizard />);
    await choose();
    await screen.findByText(/would add 11/);
    await userEvent.click(screen.getByRole('button', { name: 'Import the good rows' }));
    await screen.findByText(/Going in: 37 %/);
    await userEvent.click(screen.getByRole('button', { name: 'Cancel' }));
    await screen.findByText('Cancelled: nothing was changed.');
  });
  test('that cannot be read is refused in words, and nothing is sent', async () => {
    const came = server(looked(), {
      'POST /comparables/look': () =>
        problem(422, 'Please check', [{ pointer: '/file', message: 'this file is empty' }]),
    });
    show(<ImportWizard />);
    await choose();
    await screen.findByText('this file is empty');
    expect(imports(came)).toHaveLength(0);
  });
});

describe('names that are none of ours', () => {
  const names = [
    named('pattern', 'The jack', 'harbour-jack'),
    named('variant', 'second', null, 'harbour-jack'),
    named('pattern', 'Oddity', null),
  ];
  test('are guessed, and the guess goes with the list', async () => {
    const came = server(looked({ names }));
    show(<ImportWizard />);
    await choose();
    await screen.findByText(/2 of 3 mean nothing yet/);
    await screen.findByText(/would add 11/);
    expect(mappingOf(imports(came)[0]).names).toMatchObject({
      pattern: { 'the jack': 'harbour-jack' },
      // a form nobody knows is not told
      variant: { 'harbour-jack second': '' },
    });
  });
  test('are corrected by a person, forms among those of their pattern only', async () => {
    const came = server(looked({ names }));
    show(<ImportWizard />);
    await choose();
    await userEvent.click(await screen.findByRole('combobox', { name: 'What “second” means' }));
    const forms = screen.getByRole('listbox');
    expect(within(forms).getAllByRole('option')).toHaveLength(3);
    await userEvent.click(within(forms).getByRole('option', { name: 'Service issue' }));
    await take('What “Oddity” means', 'Deck knife');
    await waitFor(() => expect(came.filter((r) => r.path === '/comparables/look')).toHaveLength(2));
    await userEvent.click(screen.getByRole('button', { name: 'Try it' }));
    await screen.findByText(/would add 11/);
    expect(mappingOf(imports(came).at(-1)).names).toMatchObject({
      pattern: { 'the jack': 'harbour-jack', oddity: 'deck-knife' },
      variant: { 'harbour-jack second': 'hj-second' },
    });
  });
});

describe('words that are none of ours', () => {
  const said = (column: 'price_kind' | 'grade' | 'box', word: string, guess: string | null) => ({
    column,
    said: word,
    rows: 4,
    key: word.toLowerCase(),
    guess,
  });
  const words = [said('price_kind', 'Zuschlag', 'sold'), said('grade', 'II+', null), said('box', '?', null)];
  test('are guessed; one that nobody knows waits for what it means, or that it means nothing', async () => {
    const came = server(looked({ words }));
    show(<ImportWizard />);
    await choose();
    await screen.findByText(/2 of 3 mean nothing yet/);
    await take('What “II+” means', 'collector: very good');
    await take('What “?” means', 'not told');
    await screen.findByText(/each has its meaning/);
    await userEvent.click(screen.getByRole('button', { name: 'Try it' }));
    await screen.findByText(/would add 11/);
    expect(mappingOf(imports(came).at(-1)).words).toEqual({
      price_kind: { zuschlag: 'sold' },
      grade: { 'ii+': 'collector/very-good' },
      box: { '?': '' },
    });
  });
  test('what looks like a sale known already is told before the list goes in', async () => {
    const near = {
      line: 9,
      column: 'price',
      columnNumber: 2,
      value: '210',
      message: 'looks like a sale known already',
    };
    server(looked(), { 'POST /comparables/import': () => ({ body: result({ warnings: [near] }) }) });
    show(<ImportWizard />);
    await choose();
    await screen.findByText('Line 9, price “210”: looks like a sale known already');
  });
  test('a date in another column is read as that column writes it', async () => {
    const look = looked();
    server({
      ...look,
      header: [...look.header, 'Paid on'],
      notation: { ...look.notation, dateOrder: 'mdy' },
    });
    show(<ImportWizard />);
    await choose();
    await screen.findByText('day, month, year');
    await take('What “Paid on” says', 'sale date');
    await screen.findByText('month, day, year');
  });
});

describe('lists that went in', () => {
  test('can be undone and taken back', async () => {
    let undoneAt: string | null = null;
    const came = server(looked(), {
      'GET /comparables/imports': () => ({
        body: {
          items: [
            { id: 'i1', name: 'spring.csv', person: 'Ines', rows: 40, at: '2026-05-02T10:00:00Z', undoneAt },
          ],
        },
      }),
      'POST /comparables/imports/i1/undo': ({ body }) => {
        undoneAt = (body as { undone: boolean }).undone ? '2026-11-25T10:00:00Z' : null;
        return { body: { changed: 40 } };
      },
    });
    show(<ImportWizard />);
    await userEvent.click(await screen.findByRole('button', { name: 'Undo', hidden: true }));
    await userEvent.click(await screen.findByRole('button', { name: 'Take back', hidden: true }));
    await screen.findByRole('button', { name: 'Undo', hidden: true });
    expect(came.filter((r) => r.path.endsWith('/undo')).map((r) => r.body)).toEqual([
      { undone: true },
      { undone: false },
    ]);
  });
});
