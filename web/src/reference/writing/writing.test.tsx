/** Each kind of thing of the reference as somebody writes it: what is sent is what the field says, and nothing else. */
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Route, Routes } from 'react-router';
import type { Vocabulary } from '@jutbank/contract/reference';
import { referenceAnswers } from '../../testing/reference.ts';
import { serve, show, take } from '../../testing/screen.tsx';
import WritePage from './WritePage.tsx';
import { asItem, blank, nextFormOf, slugOf, suggestedId } from './draft.ts';

beforeEach(() => sessionStorage.clear());
afterEach(cleanup);

const words: Vocabulary = {
  revision: '1',
  makers: [{ id: 'bh', name: 'Brackenholt Cutlery', patterns: 1, variants: 1 }],
  patterns: [
    {
      id: 'harbour-jack',
      maker: 'bh',
      name: 'Harbour jack',
      construction: 'slipjoint',
      variants: 1,
      form: null,
    },
  ],
  features: [
    {
      id: 'scales',
      label: 'Scales',
      part: 'scales',
      kind: 'category',
      values: [
        { id: 'horn', label: 'Horn' },
        { id: 'bone', label: 'Bone' },
      ],
    },
    { id: 'blades', label: 'Blades', part: 'blade', kind: 'count' },
    { id: 'closed', label: 'Closed length', part: 'frame', kind: 'measure', unit: 'mm' },
  ],
  marks: [],
  codes: [],
  sources: [{ id: 'ledger', title: 'Works ledger', kind: 'factory-record', reliability: 1 }],
};
const write = (section: string, query = '') => {
  const came = serve({
    ...referenceAnswers,
    'GET /reference/vocabulary': () => ({ body: words }),
  });
  show(
    <Routes>
      <Route path="/reference/write/:section/:id?" element={<WritePage />} />
    </Routes>,
    { at: `/reference/write/${section}${query}` },
  );
  return {
    sent: async () => {
      await userEvent.click(screen.getByRole('button', { name: 'Save' }));
      await waitFor(() => expect(came.some((r) => r.method === 'PUT')).toBe(true));
      return came.find((r) => r.method === 'PUT')?.body;
    },
  };
};
/** As a whole, as it would be pasted. */
const type = async (label: string, text: string) =>
  fireEvent.change(await screen.findByLabelText(label), { target: { value: text } });

describe('a pattern', () => {
  test('has sizes in any notation, an outline of its handle, blades from the mark side', async () => {
    const { sent } = write('patterns', '?maker=bh');
    await type('Name', 'Rope knife');
    await type('Number', '71');
    await userEvent.click(screen.getByRole('button', { name: '+ size' }));
    await type('Nominal', '4 1/8');
    await type('Handle outline', '0 -8\n104, 0\n0; 8');
    await userEvent.click(screen.getByRole('button', { name: '+ blade' }));
    await type('Blade 1', 'master');
    await take('Form', 'Sheepfoot');
    const body = await sent();
    expect(body).toMatchObject({
      id: 'rope-knife',
      maker: 'bh',
      name: 'Rope knife',
      number: '71',
      construction: 'slipjoint',
      measures: { closed: { value: 104.775 } },
      drawing: {
        handle: {
          outline: [
            [0, -8],
            [104, 0],
            [0, 8],
          ],
        },
        blades: [{ role: 'master', end: 'front', shape: 'sheepfoot' }],
      },
    });
  });
  test('of a straight knife has no outline of a handle: its grip is made of parts', async () => {
    write('patterns', '?maker=bh');
    await screen.findByLabelText('Handle outline');
    await take('Construction', 'Fixed blade');
    expect(screen.queryByLabelText('Handle outline')).toBeNull();
  });
});

describe('a stamp', () => {
  test('is its lines, how they are cut, where they stand and when; it says where that is told', async () => {
    const { sent } = write('marks', '?maker=bh');
    await type('Lines', 'BRACKENHOLT\nNORHAM');
    await take('Lettering', 'Arched');
    await type('Used', '1956 to 1960');
    await type('Carry-over, months', '18');
    await take('Source', 'Works ledger');
    await type('Page', '44');
    expect(await sent()).toEqual({
      id: 'bh-brackenholt-norham-1956-1960',
      maker: 'bh',
      lines: ['BRACKENHOLT', 'NORHAM'],
      place: 'tang-front',
      lettering: 'arched',
      window: '1956/1960',
      carryOver: 'P18M',
      source: 'ledger',
      page: '44',
    });
  });
  test('struck on a piece that came back says what was changed with it', async () => {
    const { sent } = write('marks', '?maker=bh');
    await type('Lines', 'R');
    await take('Struck afterwards', 'Re work');
    await userEvent.click(await screen.findByRole('button', { name: 'Scales' }));
    expect(await sent()).toMatchObject({ history: { what: 're-work', changes: ['scales'] } });
  });
});

describe('a dated window', () => {
  test('is of a value of a feature; the value is chosen, or counted', async () => {
    const { sent } = write('windows', '?maker=bh&pattern=harbour-jack');
    await take('Feature', 'Scales');
    await take('Value', 'Bone');
    await type('Used', 'after 1953');
    expect(await sent()).toMatchObject({
      maker: 'bh',
      pattern: 'harbour-jack',
      feature: 'scales',
      value: 'bone',
    });
  });
  test('a count is a number', async () => {
    const { sent } = write('windows', '?maker=bh');
    await take('Feature', 'Blades');
    await type('Value', '3');
    expect(await sent()).toMatchObject({ feature: 'blades', value: 3 });
  });
});

describe('a feature', () => {
  test('has values, each under an id of its own', async () => {
    const { sent } = write('features');
    await type('Label', 'Nail pull');
    await userEvent.click(screen.getByRole('button', { name: '+ value' }));
    await type('Value 1', 'Long pull');
    await userEvent.click(screen.getByRole('button', { name: '+ value' }));
    await type('Value 2', 'Crescent');
    await userEvent.click(screen.getByRole('button', { name: 'Take away values 1' }));
    expect(await sent()).toMatchObject({
      id: 'nail-pull',
      kind: 'category',
      values: [{ id: 'crescent', label: 'Crescent' }],
    });
  });
  test('that is measured has a unit, and nothing to choose from', async () => {
    const { sent } = write('features');
    await type('Label', 'Weight');
    await take('Kind', 'Measure');
    expect(screen.queryByRole('button', { name: '+ value' })).toBeNull();
    await take('Unit', 'Mass, in g');
    expect(await sent()).toMatchObject({ kind: 'measure', unit: 'g' });
  });
});

describe('a form of a pattern', () => {
  test('is what can be seen of it, and how many were made', async () => {
    const { sent } = write('variants', '?pattern=harbour-jack');
    await type('Name', 'Trade, bone');
    const seen = await screen.findByRole('region', { name: 'Fields of the variant' });
    await userEvent.click(within(seen).getByRole('button', { name: 'Bone' }));
    await type('Made', '1953 to 1960');
    await type('Quantity', '24000');
    await take('Basis', 'Documented');
    expect(await sent()).toMatchObject({
      id: 'harbour-jack-trade-bone',
      pattern: 'harbour-jack',
      kind: 'production',
      features: { scales: ['bone'] },
      window: '1953/1960',
      made: { quantity: 24000, basis: 'documented' },
    });
  });
});

describe('what is being written', () => {
  test('gets an id one would expect, of letters that travel', () => {
    expect(slugOf('  Ångström & Söhne, Nr. 4 ')).toBe('angstrom-sohne-nr-4');
    expect(slugOf('x'.repeat(90))).toHaveLength(60);
    expect(suggestedId('windows', { maker: 'bh', feature: 'scales', value: 'bone' })).toBe('bh-scales-bone');
    expect(suggestedId('stories', { pattern: 'jack', told: 'Made for the fleet' })).toBe(
      'jack-made-for-the-fleet',
    );
  });
  test('begins with whose it is, from the address', () => {
    expect(blank('marks', new URLSearchParams('maker=bh'))).toMatchObject({ maker: 'bh', lines: [] });
    expect(blank('sources', new URLSearchParams('maker=bh'))).toEqual({});
  });
  test('as the next form has all that is seen, and none of what was only the one’s', () => {
    const next = nextFormOf({
      id: 'hj-1',
      pattern: 'jack',
      name: 'First',
      kind: 'service',
      window: '1934/1936',
      made: { basis: 'documented', quantity: 10 },
      features: { scales: ['horn'] },
    });
    expect(next).toMatchObject({ name: 'First, next form', kind: 'service', features: { scales: ['horn'] } });
    expect(next).not.toHaveProperty('window');
    expect(next).not.toHaveProperty('made');
  });
  test('is sent without what was left empty', () => {
    expect(asItem({ name: 'N', number: '', place: undefined, measures: {}, lines: [] }, 'n')).toEqual({
      id: 'n',
      name: 'N',
      lines: [],
    });
  });
});
