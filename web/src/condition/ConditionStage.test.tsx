import { afterEach, describe, expect, test } from '@jest/globals';
import { cleanup, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { freshInspection, gradeCondition, SHIPPED_RULES, type Finding } from '@jutbank/core/condition';
import type { ConditionBody, PieceSheet } from '@jutbank/contract/pieces';
import { referenceAnswers } from '../testing/reference.ts';
import { sheetOf } from '../testing/sheet.ts';
import { openStage } from '../testing/stage.tsx';
import ConditionStage from './ConditionStage.tsx';

afterEach(cleanup);

const parts: PieceSheet['parts'] = { blades: 2, tools: 0, bladeNames: ['master', 'pen'], by: 'bench' };
const begun = (more: Partial<ConditionBody> = {}) =>
  sheetOf({
    parts,
    condition: {
      findings: [],
      completeness: {},
      inspected: false,
      inspection: freshInspection('slipjoint', parts),
      ...more,
    },
  });
const path = `/pieces/${sheetOf().id}`;
/** The server that keeps what it is told, and grades by the rules that are shipped. */
const open = (sheet = begun()) =>
  openStage(<ConditionStage />, sheet, {
    ...referenceAnswers,
    'POST /grade': ({ body }) => ({
      body: gradeCondition(body as Parameters<typeof gradeCondition>[0], SHIPPED_RULES),
    }),
    [`PUT ${path}/condition`]: ({ body }) => ({
      body: { ...sheet, version: 8, condition: body as ConditionBody },
    }),
  });
const inHand = () => document.querySelector('.askbox .big')?.textContent ?? '';
const kept = (came: ReturnType<typeof open>) =>
  came.filter((r) => r.method === 'PUT').at(-1)?.body as ConditionBody | undefined;
const found = (more: Partial<Finding>): Finding => ({
  part: 'blade:1',
  defect: 'stain',
  severity: 'light',
  ...more,
});

describe('the inspection', () => {
  test('looks at as many blades as were counted at the bench, each by its name', async () => {
    open();
    await screen.findByText('as counted at the bench');
    screen.getByText('Blade 1, master');
    screen.getByText('Blade 2, pen');
    expect(screen.queryByText('Blade 3')).toBeNull();
  });
  test('where somebody said another number, the bench’s is offered', async () => {
    const came = open(begun({ inspection: { ...freshInspection('slipjoint'), blades: 3 } }));
    await userEvent.click(
      await screen.findByRole('button', { name: 'as counted at the bench: 2 blades, 0 tools' }),
    );
    await screen.findByText('as counted at the bench');
    await waitFor(() => expect(kept(came)?.inspection).toMatchObject({ blades: 2, tools: 0 }));
  });
  test('goes on to more than six', async () => {
    open(begun({ inspection: { ...freshInspection('slipjoint'), blades: 6 } }));
    await userEvent.click(await screen.findByRole('button', { name: 'One of the blades more' }));
    screen.getByText('Blade 7');
  });
  test('of a piece as new is one key; it says so of every step, and asks then what is with it', async () => {
    const came = open();
    await screen.findByText(/still to look at/);
    await userEvent.keyboard('a');
    await waitFor(() => expect(Object.keys(kept(came)?.inspection?.steps ?? {}).length).toBeGreaterThan(15));
    expect(new Set(Object.values(kept(came)?.inspection?.steps ?? {}))).toEqual(new Set(['good']));
    expect(kept(came)?.inspected).toBe(false);
    expect(inHand()).toBe('Box');
  });
  test('what is in hand is lit on the drawing', async () => {
    open();
    await screen.findByText(/still to look at/);
    expect(inHand()).toBe('Marks: tang');
    await userEvent.keyboard('g');
    expect(inHand()).toBe('Handle: scales');
    const lit = [...document.querySelectorAll('.surface .is-lit')].map((g) => g.getAttribute('data-part'));
    expect(lit).toContain('scales');
    expect(lit).not.toContain('blade:1');
  });
});

describe('what was found', () => {
  test('tells its cost as a share of the condition', async () => {
    open(begun({ findings: [found({})] }));
    const list = within(await screen.findByRole('region', { name: 'What was found' }));
    await list.findByText(/^−\d+\.\d %$/);
  });
  test('is drawn: an exchanged part, and what a blade has lost', async () => {
    open(
      begun({
        findings: [
          found({ part: 'scales', defect: 'replaced' }),
          found({ part: 'blade:1', defect: 'blade-loss', severity: null, measure: 14 }),
        ],
      }),
    );
    await screen.findByText(/Scales: replaced/);
    expect(document.querySelector('.surface [data-part=scales]')?.classList).toContain('is-exchanged');
    expect(document.querySelector('.surface [data-part="blade:1:lost"]')).not.toBeNull();
  });
});
