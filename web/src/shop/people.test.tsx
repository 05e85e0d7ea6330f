import { afterEach, describe, expect, test } from '@jest/globals';
import { cleanup, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { PersonOnList, SessionOnList } from '@jutbank/contract/shop';
import { problem, serve, show, type Answers } from '../testing/screen.tsx';
import AccountPage from './AccountPage.tsx';
import AuditPage from './AuditPage.tsx';
import { People } from './People.tsx';

afterEach(cleanup);

const person = (id: string, name: string, more: Partial<PersonOnList> = {}): PersonOnList => ({
  id,
  name,
  email: `${id}@hollinquay.example`,
  role: 'clerk',
  secondFactor: false,
  sessions: 1,
  ...more,
});
const staff = (more: Answers = {}) =>
  serve({
    'GET /people': () => ({
      body: { items: [person('p1', 'Ines Vadder', { role: 'owner' }), person('p2', 'Tom Okell')] },
    }),
    ...more,
  });

describe('people', () => {
  test('an account is taken away only when it is said twice', async () => {
    const came = staff({ 'DELETE /people/p2': () => ({ body: { removed: 'p2' } }) });
    show(<People />);
    await userEvent.click(await screen.findByRole('button', { name: 'Change Tom Okell' }));
    await userEvent.click(screen.getByRole('button', { name: 'Take the account away' }));
    expect(came.some((r) => r.method === 'DELETE')).toBe(false);
    screen.getByText('The name stays on everything Tom Okell did.');
    await userEvent.click(screen.getByRole('button', { name: 'Yes, take Tom Okell’s account away' }));
    await waitFor(() =>
      expect(came.some((r) => r.method === 'DELETE' && r.path === '/people/p2')).toBe(true),
    );
  });
  test('another role says what it ends; what is refused is said beside it, and nothing typed is lost', async () => {
    staff({ 'PUT /people/p2': () => problem(409, 'This is the only owner.') });
    show(<People />);
    await userEvent.click(await screen.findByRole('button', { name: 'Change Tom Okell' }));
    const name = screen.getAllByLabelText('Name')[0] as HTMLInputElement;
    await userEvent.clear(name);
    await userEvent.type(name, 'Thomas');
    await userEvent.click(screen.getByRole('button', { name: 'Keep' }));
    await screen.findByText('This is the only owner.');
    expect(name.value).toBe('Thomas');
  });
  test('a clerk sees who works here, and changes nobody', async () => {
    staff();
    show(<People />, { role: 'clerk' });
    await screen.findByText('Tom Okell');
    expect(screen.queryByRole('button')).toBeNull();
  });
});

describe('one’s own account', () => {
  const session = (id: string, own: boolean): SessionOnList => ({
    id,
    own,
    begunAt: '2026-11-01T10:00:00Z',
    seenAt: '2026-11-02T10:00:00Z',
    address: '192.0.2.4',
    agent: 'Mozilla/5.0 (X11; Linux x86_64) Firefox/140.0',
  });
  const account = (more: Answers = {}) =>
    staff({
      'GET /sessions': () => ({ body: { items: [session('s1', true), session('s2', false)] } }),
      ...more,
    });
  test('a wrong password is said beside its field; sessions elsewhere are ended one by one', async () => {
    const came = account({
      'PUT /session/password': () =>
        problem(422, 'No', [{ pointer: '/current', message: 'this is not your password' }]),
      'DELETE /sessions/s2': () => ({ body: { ended: 1 } }),
    });
    show(<AccountPage />);
    await userEvent.type(await screen.findByLabelText('The one you have'), 'wrong');
    await userEvent.type(screen.getByLabelText('The new one'), 'long enough now');
    await userEvent.click(screen.getByRole('button', { name: 'Change it' }));
    await screen.findByText('this is not your password');
    await userEvent.click(await screen.findByRole('button', { name: 'End it' }));
    await waitFor(() => expect(came.some((r) => r.path === '/sessions/s2')).toBe(true));
  });
});

test('the ledger of the shop is asked by person; an entry opens to what it says', async () => {
  const came = serve({
    'GET /ledger': () => ({
      body: {
        items: [
          {
            seq: 7,
            pieceId: null,
            kind: 'account-given',
            at: '2026-11-27T10:00:00.000Z',
            by: 'Ines Vadder',
            body: { role: 'clerk' },
            previous: 'a',
            hash: 'b',
            stockNumber: null,
            title: null,
          },
        ],
        nextCursor: null,
        total: 1,
        people: ['Ines Vadder'],
        kinds: ['account-given'],
      },
    }),
  });
  show(<AuditPage />);
  await screen.findByText('Account given');
  await userEvent.click(screen.getByLabelText('Who'));
  await userEvent.click(await screen.findByRole('option', { name: 'Ines Vadder' }));
  await waitFor(() => expect(came.at(-1)?.path).toContain('person=Ines+Vadder'));
});
