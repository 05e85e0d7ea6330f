import { afterEach, describe, expect, test } from '@jest/globals';
import { cleanup, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { DocumentRecord } from '@jutbank/contract/provenance';
import { serve, show, take, type Answers } from '../testing/screen.tsx';
import { sheetOf } from '../testing/sheet.ts';
import { Documents } from './Documents.tsx';

afterEach(cleanup);

const sheet = sheetOf();
const path = `/pieces/${sheet.id}/documents`;
const letter: DocumentRecord = {
  id: '01ARZ3NDEKTSV4RRFFQ69G5FD1',
  version: 2,
  kind: 'package',
  title: 'Its box',
  dated: '1975',
  author: '',
  keptAt: '',
  page: '',
  transcription: '',
  claims: [
    { kind: 'feature', feature: 'scales', value: 'bone' },
    { kind: 'number', number: '88' },
  ],
  checked: [
    { says: 'scales bone', verdict: 'contradicts', because: 'seen: scales horn' },
    { says: 'number 88', verdict: 'not-seen', because: 'no number was read on the piece' },
  ],
  file: null,
  elsewhere: [],
  notedBy: 'Ines Vadder',
  notedAt: '2026-11-20T10:00:00Z',
};
const vocabulary = {
  makers: [],
  patterns: [],
  features: [
    {
      id: 'scales',
      label: 'Scales',
      part: 'scales',
      kind: 'category',
      values: [{ id: 'bone', label: 'Bone' }],
    },
  ],
  marks: [],
  codes: [],
  sources: [],
};
const open = (items: DocumentRecord[], answers: Answers = {}, role: 'owner' | 'reader' = 'owner') => {
  const came = serve({
    [`GET ${path}`]: () => ({ body: { items } }),
    'GET /reference/vocabulary': () => ({ body: vocabulary }),
    ...answers,
  });
  show(<Documents sheet={sheet} />, { role });
  return came;
};

describe('documents of a piece', () => {
  test('each claim says whether it holds, and why', async () => {
    open([letter]);
    await screen.findByText('Its box');
    screen.getByText('does not hold');
    screen.getByText('seen: scales horn');
    screen.getByText('not compared yet');
  });
  test('one is noted with what it says: fields follow what is told of', async () => {
    const came = open([], { [`POST ${path}`]: () => ({ status: 201, body: letter }) });
    await userEvent.click(await screen.findByRole('button', { name: 'Note a document' }));
    await userEvent.click(screen.getByRole('button', { name: 'Note it' }));
    await screen.findByText('What is it called?');
    await userEvent.type(screen.getByLabelText('Called'), 'Its box');
    await userEvent.click(screen.getByRole('button', { name: '+ another claim' }));
    await take('Feature', 'Scales');
    await take('Says', 'Bone');
    await userEvent.click(screen.getByRole('button', { name: 'Note it' }));
    expect(came.find((r) => r.method === 'POST')?.body).toMatchObject({
      title: 'Its box',
      kind: 'letter',
      claims: [{ kind: 'feature', feature: 'scales', value: 'bone' }],
    });
  });
  test('it is linked to another piece by its number; one that is not there is said so', async () => {
    const came = open([letter], {
      'GET /pieces': () => ({ body: { items: [], nextCursor: null, total: 0 } }),
    });
    await userEvent.click(await screen.findByRole('button', { name: 'It speaks of another piece too' }));
    await userEvent.type(screen.getByLabelText('Stock number'), 'HQ-9999');
    await userEvent.click(screen.getByRole('button', { name: 'Link it' }));
    await screen.findByText('There is no piece HQ-9999.');
    expect(came.some((r) => r.method === 'POST')).toBe(false);
  });
  test('a reader reads them and changes nothing', async () => {
    open([letter], {}, 'reader');
    await screen.findByText('Its box');
    expect(screen.queryByRole('button', { name: /Note|Change|Not of this/ })).toBeNull();
  });
});
