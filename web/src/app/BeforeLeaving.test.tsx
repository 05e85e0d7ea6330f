import { afterEach, describe, expect, test } from '@jest/globals';
import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { createMemoryRouter, Link, Outlet, RouterProvider } from 'react-router';
import { useUnsaved } from '../base/unsaved.ts';
import { BeforeLeaving } from './BeforeLeaving.tsx';

afterEach(cleanup);

function Typed({ name }: { name: string }) {
  const [text, setText] = useState('');
  useUnsaved(text !== '');
  return <input aria-label={name} value={text} onChange={(e) => setText(e.target.value)} />;
}

function page() {
  const router = createMemoryRouter([
    {
      element: (
        <>
          <Outlet />
          <BeforeLeaving />
        </>
      ),
      children: [
        {
          path: '/',
          element: (
            <>
              <Typed name="Lot" />
              <Typed name="Piece" />
              <Link to="/other">Away</Link>
              <Link to="/?sort=title">Sorted</Link>
            </>
          ),
        },
        { path: '/other', element: <p>Another page</p> },
      ],
    },
  ]);
  render(<RouterProvider router={router} />);
  return userEvent.setup();
}
const asked = () => screen.queryByRole('dialog', { name: 'Something here is not kept yet' });

describe('a page is left', () => {
  test('at once where nothing was typed, or what was typed is gone again', async () => {
    const user = page();
    await user.type(screen.getByLabelText('Lot'), 'x{Backspace}');
    await user.click(screen.getByText('Away'));
    expect(await screen.findByText('Another page')).toBeTruthy();
  });
  test('not before one is asked where something is not kept yet: whoever stays finds it as it was', async () => {
    const user = page();
    await user.type(screen.getByLabelText('Lot'), 'Box of the mill');
    await user.type(screen.getByLabelText('Piece'), 'Pruner');
    await user.clear(screen.getByLabelText('Piece'));
    await user.click(screen.getByText('Away'));
    expect(await screen.findByRole('dialog', { name: 'Something here is not kept yet' })).toBeTruthy();
    await user.click(screen.getByText('Stay here'));
    expect(asked()).toBeNull();
    expect((screen.getByLabelText('Lot') as HTMLInputElement).value).toBe('Box of the mill');
  });
  test('when one says so', async () => {
    const user = page();
    await user.type(screen.getByLabelText('Lot'), 'Box of the mill');
    await user.click(screen.getByText('Away'));
    await user.click(await screen.findByText('Leave without it'));
    expect(await screen.findByText('Another page')).toBeTruthy();
    expect(asked()).toBeNull();
  });
  test('not by sorting it another way', async () => {
    const user = page();
    await user.type(screen.getByLabelText('Lot'), 'Box of the mill');
    await user.click(screen.getByText('Sorted'));
    expect(asked()).toBeNull();
  });
});

describe('the window', () => {
  const closing = () => {
    const event = new Event('beforeunload', { cancelable: true });
    dispatchEvent(event);
    return event.defaultPrevented;
  };
  test('is closed after a question only where something is not kept yet', async () => {
    const user = page();
    expect(closing()).toBe(false);
    await user.type(screen.getByLabelText('Lot'), 'Box');
    expect(closing()).toBe(true);
  });
});
