import { describe, expect, test } from '@jest/globals';
import { materialAdvice } from './materials.ts';

describe('advice by material', () => {
  test('pressed fibre is not celluloid: it gives off nothing, and does not like to be soaked', () => {
    expect(materialAdvice('Pressed fibre', false)).toMatch(/no soaking/);
    expect(materialAdvice('Pressed fibre', false)).not.toMatch(/vapour/);
    expect(materialAdvice('Celluloid', true)).toMatch(/^Celluloid: .*vapour.*no solvent/);
  });
  test.each([
    ['Horn', /insects/],
    ['Jigged bone', /stain|dye/],
    ['Curly maple', /solvent/],
    ['Stacked leather', /outside it/],
    ['Hard rubber', /sulphur/],
  ])('%s has its own', (label, advice) => expect(materialAdvice(label, false)).toMatch(advice));
  test.each(['Steel', 'Carbon weave', 'Laminate', 'Washed aluminium'])('%s asks for nothing', (label) =>
    expect(materialAdvice(label, false)).toBeUndefined(),
  );
});
