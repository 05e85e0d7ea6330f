import { afterEach, describe, expect, test } from '@jest/globals';
import { cleanup, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useLocation } from 'react-router';
import type { SearchHit } from '@jutbank/contract/shop';
import { serve, show } from '../testing/screen.tsx';
import Finder from './Finder.tsx';

afterEach(cleanup);

function Address() {
  return <output aria-label="Address">{useLocation().pathname}</output>;
}
function open(items: SearchHit[]): void {
  serve({ 'GET /search': () => ({ body: { items } }) });
  show(
    <>
      <Finder onClose={() => undefined} />
      <Address />
    </>,
  );
}
const find = (text: string) => userEvent.type(screen.getByRole('combobox', { name: 'What to find' }), text);
const address = () => screen.getByLabelText('Address').textContent;

describe('the finder', () => {
  test('a page by its name, with Enter', async () => {
    open([]);
    await find('exchange');
    await screen.findByRole('option', { name: /Exchange rates/ });
    await userEvent.keyboard('{Enter}');
    await waitFor(() => expect(address()).toBe('/rates'));
  });
  test.each([
    ['sale', '/sales/X1'],
    ['lot', '/lots/X1'],
    ['document', '/pieces/X1/trail'],
    ['finding', '/pieces/X1/condition'],
    ['question', '/pieces/X1/bench'],
    ['contact', '/contacts'],
  ] as const)('a %s leads to where it stands', async (kind, to) => {
    open([{ kind, id: 'X1', label: 'What was looked for', hint: 'HQ-0042' }]);
    await find('zzz');
    await userEvent.click(await screen.findByText('What was looked for'));
    await waitFor(() => expect(address()).toBe(to));
  });
  test('nothing is called that', async () => {
    open([]);
    await find('zzz');
    await screen.findByText('Nothing is called that here.');
  });
});
