/** What stands beside the findings: a piece kept apart until a day, and parts that went from one piece to another. */
import { afterEach, describe, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { ConditionFile, PartMove, QuarantineRecord } from '@jutbank/contract/condition';
import { serve, show, take } from '../testing/screen.tsx';
import { sheetOf } from '../testing/sheet.ts';
import { Moves } from './Moves.tsx';
import { Quarantine } from './Quarantine.tsx';

afterEach(cleanup);

const sheet = sheetOf();
const name = { id: sheet.id, stockNumber: sheet.stockNumber, title: sheet.title };
const other = { id: '01ARZ3NDEKTSV4RRFFQ69G5FAX', stockNumber: 'HQ-0007', title: 'Orchard pruner' };
const quarantine = (more: Partial<QuarantineRecord> = {}): QuarantineRecord => ({
  id: '01ARZ3NDEKTSV4RRFFQ69G5FQ1',
  piece: name,
  since: '2026-10-01',
  reviewOn: '2026-11-01',
  reason: 'smells of vinegar',
  setBy: 'Ines Vadder',
  endedOn: null,
  outcome: '',
  ...more,
});
const file = (more: Partial<ConditionFile> = {}): ConditionFile => ({
  states: [],
  treatments: [],
  quarantine: [],
  moves: [],
  vapour: [],
  ...more,
});
const type = (label: string, text: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value: text } });

describe('a piece that harms its neighbours', () => {
  test('is named with its material until it is kept apart', () => {
    serve({});
    show(<Quarantine sheet={sheet} file={file({ vapour: ['Celluloid scales'] })} may />);
    screen.getByText('Celluloid scales');
    cleanup();
    show(
      <Quarantine
        sheet={sheet}
        file={file({ vapour: ['Celluloid scales'], quarantine: [quarantine()] })}
        may
      />,
    );
    expect(screen.queryByText('Celluloid scales')).toBeNull();
    screen.getByText('In quarantine since 1 Oct 2026');
    screen.getByText(/To be looked at again on 1 Nov 2026/);
  });
  test('is kept apart until a day that is said as one says it', async () => {
    const came = serve({});
    show(<Quarantine sheet={sheet} file={file()} may />);
    type('Why it is kept apart', 'the test plate rusted');
    type('Look again on', '24/12/2099');
    await userEvent.click(screen.getByRole('button', { name: 'Keep it apart' }));
    await waitFor(() => expect(came.some((r) => r.method === 'POST')).toBe(true));
    const sent = came.find((r) => r.method === 'POST');
    expect(sent?.path).toBe(`/pieces/${sheet.id}/quarantine`);
    expect(sent?.body).toMatchObject({ reviewOn: '2099-12-24', reason: 'the test plate rusted' });
  });
  test('is not kept apart for no reason, nor until a day that is over', async () => {
    const came = serve({});
    show(<Quarantine sheet={sheet} file={file()} may />);
    type('Look again on', '1 Jan 1999');
    await userEvent.click(screen.getByRole('button', { name: 'Keep it apart' }));
    await screen.findByText('why is it kept apart?');
    expect(came.filter((r) => r.method === 'POST')).toEqual([]);
    type('Why it is kept apart', 'smells');
    await userEvent.click(screen.getByRole('button', { name: 'Keep it apart' }));
    await screen.findByText('the review cannot be before it began');
    expect(came.filter((r) => r.method === 'POST')).toEqual([]);
  });
  test('is let out with what was seen, and what was is told', async () => {
    const came = serve({});
    const over = quarantine({ id: 'q0', endedOn: '2026-05-04', outcome: 'nothing any more' });
    show(<Quarantine sheet={sheet} file={file({ quarantine: [over, quarantine()] })} may />);
    screen.getByText(/4 May 2026: smells of vinegar; nothing any more/);
    type('What was seen at the review', 'no smell');
    await userEvent.click(screen.getByRole('button', { name: 'Let it out' }));
    await waitFor(() => expect(came.some((r) => r.path === `/quarantine/${quarantine().id}`)).toBe(true));
    expect(came.at(-1)?.body).toMatchObject({ outcome: 'no smell' });
  });
});

describe('a part that moved', () => {
  const move = (more: Partial<PartMove>): PartMove => ({
    id: 'm1',
    part: 'clip',
    from: { piece: null, where: 'a box of parts' },
    to: { piece: name, where: '' },
    movedOn: '2024',
    why: 'exchanged',
    note: '',
    notedBy: 'Ines Vadder',
    ...more,
  });
  const open = (moves: readonly PartMove[] = []) => {
    const came = serve({ 'GET /pieces': () => ({ body: { items: [{ ...sheet, ...other }], total: 1 } }) });
    show(<Moves sheet={sheet} moves={moves} may onDone={() => undefined} />);
    return came;
  };
  test('is told from this piece’s side, with the other where that is one', () => {
    open([
      move({}),
      move({ id: 'm2', from: { piece: name, where: '' }, to: { piece: other, where: '' }, why: 'reunited' }),
    ]);
    const told = screen.getAllByText(/^Clip$/).map((b) => b.closest('p')?.textContent);
    expect(told).toEqual([
      'Clip came from a box of parts (exchanged, 2024)',
      'Clip went to HQ-0007 Orchard pruner (reunited, 2024)',
    ]);
  });
  test('is recorded between two pieces, by the number of the other', async () => {
    const came = open();
    await take('Way', 'went to');
    await userEvent.type(await screen.findByLabelText('The other piece'), 'hq-0007');
    // searched for among all pieces, however many there are
    await waitFor(() => expect(came.at(-1)?.path).toMatch(/^\/pieces\?.*q=hq-0007/));
    await waitFor(() =>
      expect(screen.getByRole('button', { name: 'Record the move' }).hasAttribute('disabled')).toBe(false),
    );
    await userEvent.click(screen.getByRole('button', { name: 'Record the move' }));
    await waitFor(() => expect(came.some((r) => r.method === 'POST')).toBe(true));
    expect(came.find((r) => r.method === 'POST')?.body).toMatchObject({
      from: { piece: sheet.id },
      to: { piece: other.id, where: '' },
    });
  });
  test('is recorded to a place where that is no piece of the shop', async () => {
    const came = open();
    await userEvent.type(await screen.findByLabelText('The other piece'), 'a drawer of springs');
    await userEvent.click(screen.getByRole('button', { name: 'Record the move' }));
    await waitFor(() => expect(came.some((r) => r.method === 'POST')).toBe(true));
    expect(came.find((r) => r.method === 'POST')?.body).toMatchObject({
      from: { piece: null, where: 'a drawer of springs' },
      to: { piece: sheet.id },
    });
  });
});
