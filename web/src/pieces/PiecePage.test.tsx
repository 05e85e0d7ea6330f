import { afterEach, describe, expect, test } from '@jest/globals';
import { cleanup, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Route, Routes, useOutletContext } from 'react-router';
import type { PieceSheet } from '@jutbank/contract/pieces';
import { referenceAnswers } from '../testing/reference.ts';
import { serve, show } from '../testing/screen.tsx';
import { eur, sheetOf } from '../testing/sheet.ts';
import PiecePage from './PiecePage.tsx';

afterEach(cleanup);
// the page's own window scrolls nothing
Element.prototype.scrollIntoView = () => undefined;

/** A stage that says where one is, and of which piece. */
function Stage() {
  return <p>on the stage of {useOutletContext<PieceSheet>().title}</p>;
}
const open = (sheet: PieceSheet) => {
  serve({ ...referenceAnswers, [`GET /pieces/${sheet.id}`]: () => ({ body: sheet }) });
  show(
    <Routes>
      <Route path="/pieces/:id" element={<PiecePage />}>
        <Route path=":stage" element={<Stage />} />
      </Route>
    </Routes>,
    { at: `/pieces/${sheet.id}/bench` },
  );
};
const readings = async () => within(await screen.findByRole('region', { name: 'Readings' }));
const known = sheetOf().readings;

describe('the readings of a piece', () => {
  test('say what is not known yet, and what would tell', async () => {
    open(sheetOf());
    const head = await readings();
    head.getByText('Not dated yet');
    head.getByText('Not inspected');
    head.getByText('Not known yet');
    head.getByText('told for 0 % of its life');
  });
  test('each leads to the stage that it is from', async () => {
    open(sheetOf());
    const head = await readings();
    expect(head.getAllByRole('link').map((a) => a.getAttribute('href')?.split('/').at(-1))).toEqual([
      'bench',
      'bench',
      'condition',
      'worth',
      'trail',
    ]);
  });
  test('a worth stands with its range; few sales are said', async () => {
    const worth = {
      estimate: eur('263.40'),
      low: eur('188.20'),
      high: eur('357.90'),
      thin: true,
      comparables: 2,
    };
    open(sheetOf({ readings: { ...known, worth } }));
    const head = await readings();
    head.getByText('188–358');
    head.getByText('few sales: a wide range');
  });
  test('no headline stands where nothing supports one', async () => {
    open(sheetOf({ readings: { ...known, unsupported: true } }));
    (await readings()).getByText('No sale near it');
  });
  test('a copy is not worth what the original is, and it is said so', async () => {
    open(sheetOf({ intake: { ...sheetOf().intake, takenInAs: 'reproduction' } }));
    (await readings()).getByText('a copy is not worth what the original is');
  });
  test('what does not fit and what contradicts itself is told', async () => {
    open(
      sheetOf({
        readings: {
          ...known,
          when: { core: '1936', outer: '1934/1938', conflict: true },
          trail: { word: 'partial', share: 0.4, problems: 2 },
        },
      }),
    );
    const head = await readings();
    head.getByText('something does not fit');
    head.getByText('2 contradictions');
  });
  test('one finding is one', async () => {
    const condition = sheetOf().condition;
    open(
      sheetOf({
        condition: {
          ...condition,
          inspected: false,
          findings: [{ part: 'blade', defect: 'stain', severity: 'light' }],
        },
      }),
    );
    (await readings()).getByText('one finding');
  });
});

describe('the stages', () => {
  test('have a key each, and say which are done', async () => {
    open(sheetOf());
    const stages = within(await screen.findByRole('navigation', { name: 'Stages' }));
    expect(stages.getByRole('link', { name: /Condition/ }).textContent).toBe('Condition');
    within(stages.getByRole('link', { name: /Condition/ })).getByRole('img', { name: 'done' });
    expect(within(stages.getByRole('link', { name: /Sale/ })).queryByRole('img')).toBeNull();
    await userEvent.keyboard('w');
    expect(stages.getByRole('link', { name: /Worth/ }).getAttribute('aria-current')).toBe('page');
    screen.getByText('on the stage of Harbour jack');
  });
});
