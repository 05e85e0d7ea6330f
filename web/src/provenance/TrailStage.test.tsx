import { afterEach, describe, expect, test } from '@jest/globals';
import { cleanup, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { CustodyEvent } from '@jutbank/core/provenance';
import type { PieceSheet } from '@jutbank/contract/pieces';
import { sheetOf } from '../testing/sheet.ts';
import { openStage } from '../testing/stage.tsx';
import { take } from '../testing/screen.tsx';
import TrailStage from './TrailStage.tsx';

afterEach(cleanup);

const path = `/pieces/${sheetOf().id}`;
const kept = (custody: readonly CustodyEvent[], version = 8) => sheetOf({ custody: [...custody], version });
const event = (more: Partial<CustodyEvent>): CustodyEvent => ({
  holder: 'Elias Corrie',
  private: true,
  place: 'Norham Vale',
  period: '1934/1960',
  how: null,
  evidence: 'owner-statement',
  note: null,
  ...more,
});
const open = (sheet: PieceSheet = sheetOf(), role: 'owner' | 'reader' = 'owner') =>
  openStage(
    <TrailStage />,
    sheet,
    {
      [`GET ${path}/ledger`]: () => ({ body: { items: [], nextCursor: null, total: 0 } }),
      [`PUT ${path}/custody`]: ({ body }) => ({ body: kept((body as { events: CustodyEvent[] }).events) }),
    },
    role,
  );
const add = () => userEvent.click(screen.getByRole('button', { name: 'Add' }));

describe('who had it when', () => {
  test('who and when are wanted, each told at its field; nothing typed is lost', async () => {
    const came = open();
    await userEvent.type(screen.getByLabelText('Place'), 'Skerry Bay');
    await add();
    screen.getByText('Who had it?');
    screen.getByText(/^When\?/);
    expect(screen.getByLabelText<HTMLInputElement>('Place').value).toBe('Skerry Bay');
    expect(came.some((r) => r.method === 'PUT')).toBe(false);
  });
  test('a date that cannot be understood is not taken for none, nor for the one before', async () => {
    const came = open();
    await userEvent.type(screen.getByLabelText('Who'), 'Elias Corrie');
    await userEvent.type(screen.getByLabelText('When'), '1934 to 1960');
    screen.getByText('Understood as 1934 – 1960');
    await userEvent.clear(screen.getByLabelText('When'));
    await userEvent.type(screen.getByLabelText('When'), 'when father was young');
    await add();
    expect(came.some((r) => r.method === 'PUT')).toBe(false);
  });
  test('is kept as it was said: period, evidence, and a private name as one', async () => {
    const came = open();
    await userEvent.type(screen.getByLabelText('Who'), 'Elias Corrie');
    await userEvent.type(screen.getByLabelText('When'), '1934 to 1960');
    await take('On what evidence', 'Documented');
    await add();
    await waitFor(() => expect(came.some((r) => r.method === 'PUT')).toBe(true));
    expect(came.find((r) => r.method === 'PUT')?.body).toEqual({
      events: [event({ place: null, evidence: 'document' })],
    });
    // the form is ready for the next one
    expect(screen.getByLabelText<HTMLInputElement>('Who').value).toBe('');
    expect(screen.getByLabelText<HTMLInputElement>('When').value).toBe('');
  });
  test('a contradiction is told; a private name stands with its word; it can be taken away', async () => {
    const came = open(
      sheetOf({
        custody: [event({})],
        trail: {
          word: 'thin',
          share: 0.3,
          strip: [],
          problems: [{ kind: 'overlap', detail: 'Two had it in 1950.' }],
        } as unknown as PieceSheet['trail'],
      }),
    );
    screen.getByText('Two had it in 1950.');
    screen.getByText('(not published)');
    await userEvent.click(screen.getByRole('button', { name: 'Take away Elias Corrie' }));
    await waitFor(() => expect(came.find((r) => r.method === 'PUT')?.body).toEqual({ events: [] }));
  });
  test('a reader writes nothing', () => {
    open(sheetOf(), 'reader');
    expect(screen.queryByRole('button', { name: 'Add' })).toBeNull();
  });
});
