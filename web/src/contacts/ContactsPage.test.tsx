import { afterEach, describe, expect, test } from '@jest/globals';
import { cleanup, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { Contact } from '@jutbank/contract/contacts';
import { serve, show } from '../testing/screen.tsx';
import ContactsPage from './ContactsPage.tsx';

afterEach(cleanup);

const greta: Contact = {
  id: '01ARZ3NDEKTSV4RRFFQ69G5FC1',
  version: 3,
  name: 'Greta Sundholm',
  address: '4 Ropewalk\nNorham Vale',
  email: '',
  phone: '0100 12',
  taxNumber: '',
  note: '',
  consentOn: null,
  consentTo: '',
  erasedAt: null,
  bought: 2,
  consigned: 0,
};
const list = (items: Contact[]) => () => ({ body: { items, nextCursor: null, total: items.length } });

describe('contacts', () => {
  test('an empty list says what belongs there; a name is asked for before anything is sent', async () => {
    const came = serve({
      'GET /contacts': list([]),
      'POST /contacts': () => ({ status: 201, body: greta }),
    });
    show(<ContactsPage />);
    await screen.findByText(/Nobody is noted yet/);
    await userEvent.click(screen.getByRole('button', { name: 'Note somebody' }));
    await userEvent.click(screen.getByRole('button', { name: 'Keep' }));
    await screen.findByText('Who is it?');
    expect(came.some((r) => r.method === 'POST')).toBe(false);
    await userEvent.type(screen.getByLabelText('Name'), 'Greta Sundholm');
    await userEvent.click(screen.getByRole('button', { name: 'Keep' }));
    expect(came.find((r) => r.method === 'POST')?.body).toMatchObject({
      name: 'Greta Sundholm',
      consentOn: null,
    });
  });
  test('somebody forgotten is told of with what must be kept', async () => {
    serve({
      'GET /contacts': list([greta]),
      [`DELETE /contacts/${greta.id}`]: () => ({
        body: { erased: true, kept: [{ invoiceNumber: '2026-0007', until: '2036-11-20' }] },
      }),
    });
    show(<ContactsPage />);
    await userEvent.click(await screen.findByText('Greta Sundholm'));
    await userEvent.click(screen.getByRole('button', { name: /Forget them/ }));
    await screen.findByText(/2026-0007 until 20 Nov 2036/);
  });
  test('only an owner may forget somebody', async () => {
    serve({ 'GET /contacts': list([greta]) });
    show(<ContactsPage />, { role: 'clerk' });
    await userEvent.click(await screen.findByText('Greta Sundholm'));
    expect(screen.queryByRole('button', { name: /Forget them/ })).toBeNull();
  });
});
