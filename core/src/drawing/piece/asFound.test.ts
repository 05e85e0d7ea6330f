import { expect, test } from '@jest/globals';
import { drawAsFound } from './asFound.ts';
import { drawPiece } from './draw.ts';
import { anyPattern, recipeOfRecords } from './records.ts';

const two = recipeOfRecords({
  pattern: {
    ...anyPattern('slipjoint'),
    drawing: {
      blades: [
        { role: 'master', shape: 'clip' },
        { role: 'pen', shape: 'pen' },
      ],
    },
  },
  features: [],
});
const parts = (findings: Parameters<typeof drawAsFound>[1]) => drawAsFound(two, findings, 'open').parts;
const lost = (findings: Parameters<typeof drawAsFound>[1]) =>
  parts(findings).flatMap((p) => (p.part.endsWith(':lost') ? [p.part] : []));

test('what was measured as gone of a blade is drawn as gone, of that blade', () => {
  expect(lost([{ part: 'blade:2', defect: 'blade-loss', measure: 12 }])).toEqual(['blade:2:lost']);
  // with no number it is the first
  expect(lost([{ part: 'blade', defect: 'blade-loss', measure: 12 }])).toEqual(['blade:1:lost']);
});

test('a loss nobody measured, and other faults of a blade, leave it whole', () => {
  expect(lost([{ part: 'blade:1', defect: 'blade-loss', measure: null }])).toEqual([]);
  expect(lost([{ part: 'blade:1', defect: 'rust', measure: 40 }])).toEqual([]);
  expect(drawAsFound(two, [], 'open')).toEqual(drawPiece(two, 'open'));
});

test('however much is said to be gone, something is left to be drawn', () => {
  const text = JSON.stringify(parts([{ part: 'blade:1', defect: 'blade-loss', measure: 100 }]));
  expect(text).not.toMatch(/NaN|Infinity/);
  expect(parts([{ part: 'blade:1', defect: 'blade-loss', measure: 100 }]).map((p) => p.part)).toContain(
    'blade:1',
  );
});

test('an exchanged part says so on the drawing, and no other does', () => {
  const exchanged = parts([
    { part: 'shield', defect: 'replaced', measure: null },
    { part: 'scales', defect: 'replaced', measure: null },
  ]);
  expect(exchanged.flatMap((p) => (p.state === 'exchanged' ? [p.part.split(':')[0]] : []))).toEqual(
    expect.arrayContaining(['scales']),
  );
  expect(exchanged.find((p) => p.part === 'blade:1')?.state).not.toBe('exchanged');
});
