import { afterEach, describe, expect, test } from '@jest/globals';
import { cleanup, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Route, Routes } from 'react-router';
import type { PieceSlip, Tray } from '@jutbank/contract/pieces';
import type { Role } from '@jutbank/contract/shop';
import { referenceAnswers } from '../testing/reference.ts';
import { problem, serve, show, type Answers } from '../testing/screen.tsx';
import { eur, sheetOf } from '../testing/sheet.ts';
import TrayPage from './TrayPage.tsx';

afterEach(cleanup);

const slip = (id: string, more: Partial<PieceSlip> = {}): PieceSlip => {
  const { stockNumber, title, construction, missing, attention, picture, cost, ask, readings } = sheetOf();
  return {
    id,
    stockNumber,
    title,
    construction,
    stage: 'bench',
    missing,
    attention,
    picture,
    cost,
    ask,
    readings,
    ...more,
  };
};
const worth = {
  estimate: eur('263.40'),
  low: eur('190.00'),
  high: eur('350.00'),
  thin: false,
  comparables: 12,
};
const tray = (more: Partial<Tray> = {}): Tray => ({
  groups: [{ stage: 'bench', count: 2, bound: eur('160.00'), slips: [slip('a'), slip('b')] }],
  attention: [],
  bound: eur('160.00'),
  asking: eur('0.00'),
  ...more,
});
const open = (body: Tray, role: Role = 'owner', more: Answers = {}) => {
  serve({ ...referenceAnswers, 'GET /tray': () => ({ body }), ...more });
  show(
    <Routes>
      <Route path="/" element={<TrayPage />} />
      <Route path="*" element={<p>elsewhere</p>} />
    </Routes>,
    { role },
  );
};
const group = async (name: string) => within(await screen.findByRole('region', { name }));

describe('the tray', () => {
  test('says of a piece when it was made, what it asks and what it would bring', async () => {
    open(
      tray({
        groups: [
          {
            stage: 'bench',
            count: 1,
            bound: eur('80.00'),
            slips: [
              slip('a', {
                ask: eur('310.00'),
                readings: {
                  ...sheetOf().readings,
                  worth,
                  when: { core: '1934-09/1935-12', outer: '1934-09/1936-02', conflict: false },
                },
              }),
            ],
          },
        ],
      }),
    );
    const bench = await group('On the bench');
    bench.getByText('asks €310 · ≈ €263');
    bench.getByText('Sep 1934 – Dec 1935');
    bench.getByText('not inspected');
  });
  test('leads to the rest of a group, and only where there is a rest', async () => {
    open(
      tray({
        groups: [
          { stage: 'bench', count: 19, bound: eur('160.00'), slips: [slip('a')] },
          { stage: 'listing', count: 1, bound: eur('80.00'), slips: [slip('b', { stage: 'listing' })] },
        ],
      }),
    );
    const all = await screen.findByRole('link', { name: 'All 19' });
    expect(all.getAttribute('href')).toBe('/pieces?stage=bench');
    expect(screen.queryByRole('link', { name: 'All 1' })).toBeNull();
    screen.getByText('20');
  });
  test('says every warning of what wants a look, and a slip leads to the stage it stands at', async () => {
    const warned = slip('w', {
      stage: 'listed',
      attention: ['Its listing has run out', 'An offer waits for an answer'],
    });
    open(tray({ attention: [warned] }));
    const urgent = await group('Wants a look');
    urgent.getByText('Its listing has run out · An offer waits for an answer');
    expect(urgent.getByRole('link', { name: /Harbour jack/ }).getAttribute('href')).toBe('/pieces/w/listing');
    expect(urgent.getByRole('link', { name: 'All that want one' }).getAttribute('href')).toBe(
      '/pieces?warned=1',
    );
  });
  test('what has left is not counted as in work', async () => {
    open(
      tray({
        groups: [
          { stage: 'bench', count: 2, bound: eur('160.00'), slips: [] },
          { stage: 'sold', count: 30, bound: eur('900.00'), slips: [] },
        ],
      }),
    );
    expect((await screen.findByText(/in work/)).textContent).toBe('2 in work');
  });
  test('of an empty shop says what to do first; who only reads is not asked to', async () => {
    open(tray({ groups: [] }));
    await screen.findByText('The tray is empty');
    screen.getByRole('link', { name: 'import a reference pack' });
    screen.getByRole('link', { name: 'Take in a piece' });
    cleanup();
    open(tray({ groups: [] }), 'reader');
    await screen.findByText('The tray is empty');
    expect(screen.queryByRole('link', { name: 'Take in a piece' })).toBeNull();
  });
  test('who may not see what pieces cost sees a dash, not nothing', async () => {
    open(tray({ bound: null }), 'reader');
    expect((await screen.findByText('bound in them')).parentElement?.textContent).toBe('– bound in them');
  });
  test('n takes in a piece', async () => {
    open(tray());
    await group('On the bench');
    await userEvent.keyboard('n');
    await screen.findByText('elsewhere');
  });
  test('a server that fails is told, with a way to try again', async () => {
    open(tray(), 'owner', { 'GET /tray': () => problem(500, 'Something went wrong') });
    await screen.findByRole('button', { name: /again/i });
  });
});
