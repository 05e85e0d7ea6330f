import { afterEach, expect, test } from '@jest/globals';
import { cleanup, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { serve, show } from '../testing/screen.tsx';
import { sheetOf } from '../testing/sheet.ts';
import { Companions } from './Companions.tsx';

afterEach(cleanup);

const sheath = {
  id: '01ARZ3NDEKTSV4RRFFQ69G5FBX',
  stockNumber: 'HQ-0012',
  title: 'Sheath, brown',
  stage: 'bench' as const,
};

test('another piece of the find is found by its number, and said to belong to it', async () => {
  const came = serve({
    'GET /pieces': () => ({ body: { items: [{ ...sheetOf(), ...sheath }], next: null, total: 1 } }),
    [`PUT /pieces/${sheetOf().id}/companions`]: () => ({
      body: sheetOf({ version: 8, companions: [sheath] }),
    }),
  });
  show(<Companions sheet={sheetOf()} disabled={false} />);
  await userEvent.type(screen.getByLabelText('Another piece of the same find'), 'hq-0012');
  await userEvent.click(await screen.findByRole('button', { name: 'It came with this' }));
  await waitFor(() =>
    expect(came.find((r) => r.method === 'PUT')).toMatchObject({
      body: { companions: [sheath.id] },
      headers: { 'if-match': '"v7"' },
    }),
  );
});

test('what came with it leads to where that stands, and whoever only reads takes nothing away', () => {
  serve({});
  show(<Companions sheet={sheetOf({ companions: [sheath] })} disabled />);
  expect(screen.getByRole('link', { name: 'HQ-0012 Sheath, brown' }).getAttribute('href')).toBe(
    `/pieces/${sheath.id}/bench`,
  );
  expect(screen.queryByRole('button')).toBeNull();
});
