import { afterEach, describe, expect, jest, test } from '@jest/globals';
import { cleanup, render, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Table, type Column } from './Table.tsx';

afterEach(cleanup);

interface Knife {
  readonly name: string;
  readonly price: number | null;
}
const KNIVES: Knife[] = [
  { name: 'Harbour jack', price: 96 },
  { name: 'Deck knife', price: null },
  { name: 'Petrel', price: 138 },
];
const COLUMNS: readonly Column<Knife>[] = [
  {
    id: 'name',
    head: 'Piece',
    lead: true,
    cell: (k) => <a href={`#${k.name}`}>{k.name}</a>,
    sortBy: (k) => k.name,
  },
  { id: 'price', head: 'Price', figure: true, cell: (k) => k.price ?? '–', sortBy: (k) => k.price },
  { id: 'note', head: 'Note', cell: () => '' },
];
const open = (more: Partial<Parameters<typeof Table<Knife>>[0]> = {}) =>
  render(<Table label="Knives" rows={KNIVES} columns={COLUMNS} keyOf={(k) => k.name} {...more} />);
const names = () => screen.getAllByRole('link').map((a) => a.textContent);
const rowOf = (name: RegExp) => screen.getByRole('row', { name });

describe('sorting', () => {
  test('figures begin with the greatest, words with the first; what is not known comes last either way', async () => {
    open();
    expect(names()).toEqual(['Harbour jack', 'Deck knife', 'Petrel']);
    await userEvent.click(screen.getByRole('button', { name: /Price/ }));
    expect(names()).toEqual(['Petrel', 'Harbour jack', 'Deck knife']);
    expect(screen.getByRole('columnheader', { name: /Price/ }).getAttribute('aria-sort')).toBe('descending');
    await userEvent.click(screen.getByRole('button', { name: /Price/ }));
    expect(names()).toEqual(['Harbour jack', 'Petrel', 'Deck knife']);
    await userEvent.click(screen.getByRole('button', { name: /Piece/ }));
    expect(names()).toEqual(['Deck knife', 'Harbour jack', 'Petrel']);
  });
  test('a column that says nothing to sort by has no such head', () => {
    open();
    expect(screen.queryByRole('button', { name: 'Note' })).toBeNull();
  });
});

describe('by keyboard', () => {
  test('the list is one stop; arrows walk it, Enter opens, the space bar chooses', async () => {
    const onOpen = jest.fn();
    const onToggle = jest.fn();
    open({ onOpen, onToggle });
    const first = rowOf(/Harbour jack/);
    expect(screen.getAllByRole('row').filter((row) => row.tabIndex === 0)).toEqual([first]);
    first.focus();
    await userEvent.keyboard('{ArrowDown}');
    await waitFor(() => expect(document.activeElement).toBe(rowOf(/Deck knife/)));
    await userEvent.keyboard('{Enter} ');
    expect(onOpen).toHaveBeenCalledWith(KNIVES[1]);
    expect(onToggle).toHaveBeenCalledWith(KNIVES[1]);
    await userEvent.keyboard('{End}');
    await waitFor(() => expect(document.activeElement).toBe(rowOf(/Petrel/)));
    // no further than the last
    await userEvent.keyboard('{ArrowDown}');
    await waitFor(() => expect(document.activeElement).toBe(rowOf(/Petrel/)));
  });
  test('keys of what stands in a cell are not taken for the row’s', async () => {
    const onOpen = jest.fn();
    open({ onOpen });
    within(rowOf(/Petrel/))
      .getByRole('link')
      .focus();
    await userEvent.keyboard('{Enter}');
    expect(onOpen).not.toHaveBeenCalled();
  });
});

test('of a long list only what is in sight is drawn', () => {
  // nothing is laid out here: every row is as tall as they are
  jest.spyOn(HTMLElement.prototype, 'offsetHeight', 'get').mockReturnValue(31);
  jest.spyOn(window, 'scrollTo').mockImplementation(() => undefined);
  const many = Array.from({ length: 5000 }, (_, i) => ({ name: `Knife ${i}`, price: i }));
  open({ rows: many });
  const drawn = screen.getAllByRole('link').length;
  expect(drawn).toBeGreaterThan(10);
  expect(drawn).toBeLessThan(200);
});
test('so many at first, in the order they are sorted by', async () => {
  open({ first: 1 });
  expect(names()).toEqual(['Harbour jack']);
  await userEvent.click(screen.getByRole('button', { name: /Price/ }));
  expect(names()).toEqual(['Petrel']);
  await userEvent.click(screen.getByRole('button', { name: 'Show all 3' }));
  expect(names()).toHaveLength(3);
});
test('each cell carries its head for the phone, where rows are cards', () => {
  open();
  const cell = within(rowOf(/Petrel/)).getAllByRole('cell')[1];
  expect(cell?.dataset['head']).toBe('Price');
});
