import { expect, test } from '@jest/globals';
import { pastedPieces } from './pastedPieces.ts';

test('a line for each piece, without its numbering; empty lines are none', () => {
  expect(
    pastedPieces('1. Harbour jack, bone\r\n\r\n  2) Pruner \n- Rigging knife\n').map((p) => p.title),
  ).toEqual(['Harbour jack, bone', 'Pruner', 'Rigging knife']);
});

test('columns of a spreadsheet: the name, a construction by its word, what it may be worth', () => {
  const words = { 'multi-tool': 'Multi-tool', bayonet: 'Bayonet' };
  expect(pastedPieces('Bosun’s tool\tMulti tool\t£ 40\nPattern 1\t1,250.50\tbayonet', words)).toEqual([
    { title: 'Bosun’s tool', construction: 'multi-tool', worth: '£ 40' },
    { title: 'Pattern 1', construction: 'bayonet', worth: '1,250.50' },
  ]);
});

test('what is neither stays with the name, and a number in a name is no amount', () => {
  expect(pastedPieces('Yearly knife 1990;number 88; boxed;120')).toEqual([
    { title: 'Yearly knife 1990, number 88, boxed', construction: null, worth: '120' },
  ]);
  expect(pastedPieces('Model 58')[0]).toEqual({ title: 'Model 58', construction: null, worth: null });
});

test('a name is no longer than a name may be', () => {
  expect(pastedPieces('k'.repeat(400))[0]?.title).toHaveLength(160);
});
