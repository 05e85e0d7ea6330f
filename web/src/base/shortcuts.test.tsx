import { afterEach, describe, expect, jest, test } from '@jest/globals';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { useMemo } from 'react';
import { keyInWords, useListedShortcuts, useShortcuts } from './shortcuts.ts';

afterEach(cleanup);

function Screen({ does }: { does: (what: string) => void }) {
  useShortcuts(
    'This screen',
    useMemo(
      () => [
        { key: '?', does: 'Help', run: () => does('help') },
        { key: '-', does: 'Cannot tell', run: () => does('cannot tell') },
        { key: 'b', does: 'Bench', run: () => does('bench') },
        { key: 'mod+Enter', does: 'Save', run: () => does('save') },
      ],
      [does],
    ),
  );
  return (
    <>
      <input aria-label="A note" />
      <input aria-label="Ticked" type="checkbox" />
      <button type="button">An act</button>
      <ul>
        {useListedShortcuts().flatMap((group) =>
          group.keys.map((k) => <li key={k.key}>{`${keyInWords(k.key)} ${k.does}`}</li>),
        )}
      </ul>
    </>
  );
}
function open() {
  const did: string[] = [];
  render(<Screen does={(what) => did.push(what)} />);
  return did;
}
const press = (key: string, more: object = {}, on: Element = document.body) =>
  fireEvent.keyDown(on, { key, code: 'Unidentified', bubbles: true, ...more });

describe('a key of the screen', () => {
  test('is not swallowed by a box that was ticked last', () => {
    const did = open();
    press('b', {}, screen.getByLabelText('Ticked'));
    expect(did).toEqual(['bench']);
  });
  test('goes by what it produces, whatever shift the layout needs for it', () => {
    const did = open();
    press('?', { shiftKey: true });
    press('-');
    press('b', {}, screen.getByRole('button'));
    expect(did).toEqual(['help', 'cannot tell', 'bench']);
  });
  test('is not fired while one types, but for one with a modifier', () => {
    const did = open();
    for (const key of ['?', '-', 'b']) press(key, {}, screen.getByLabelText('A note'));
    expect(did).toEqual([]);
    press('Enter', { ctrlKey: true }, screen.getByLabelText('A note'));
    expect(did).toEqual(['save']);
  });
  test('what a keyboard has no key for is typed all the same', () => {
    open();
    // not prevented: it arrives in the field
    expect(press('', {}, screen.getByLabelText('A note'))).toBe(true);
  });
  test('with a modifier that is the browser’s own it is left to the browser', () => {
    const did = open();
    press('b', { ctrlKey: true });
    press('b', { altKey: true });
    press('b', { metaKey: true });
    press('Enter');
    expect(did).toEqual([]);
  });
  test('waits while a dialog or a list is open', () => {
    const did = open();
    const dialog = document.body.appendChild(document.createElement('div'));
    dialog.setAttribute('role', 'dialog');
    press('b');
    dialog.remove();
    expect(did).toEqual([]);
    press('b');
    expect(did).toEqual(['bench']);
  });
  test('is listed as it stands on the keyboard', () => {
    open();
    screen.getByText('Ctrl Enter Save');
    screen.getByText('- Cannot tell');
  });
});
test('a screen that is left takes its keys with it', () => {
  const does = jest.fn();
  const { unmount } = render(<Screen does={does} />);
  unmount();
  press('b');
  expect(does).not.toHaveBeenCalled();
});
