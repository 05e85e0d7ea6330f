/** Factor, solution and inverse against the identity they must give, whatever the size leaves over of fours. */
import { describe, expect, it } from '@jest/globals';
import { random } from '../random/index.ts';
import { factorise, inverse, substitute } from './symmetric.ts';

/** BBᵀ + 1, which is positive definite. */
function matrixOf(p: number): Float64Array {
  const luck = random(p);
  const b = Float64Array.from({ length: p * p }, () => luck.normal());
  const a = new Float64Array(p * p);
  for (let j = 0; j < p; j++)
    for (let k = 0; k < p; k++) {
      let sum = j === k ? 1 : 0;
      for (let n = 0; n < p; n++) sum += (b[j * p + n] ?? 0) * (b[k * p + n] ?? 0);
      a[j * p + k] = sum;
    }
  return a;
}
const times = (a: Float64Array, x: Float64Array, p: number): number[] =>
  Array.from({ length: p }, (_, j) => x.reduce((sum, v, n) => sum + v * (a[j * p + n] ?? 0), 0));

describe.each([1, 2, 3, 4, 5, 7, 8, 13, 32, 61])('equations of %i unknowns', (p) => {
  const a = matrixOf(p);
  const factor = a.slice();
  factorise(factor, p);

  it('are solved', () => {
    const x = Float64Array.from({ length: p }, (_, n) => Math.sin(n + 1));
    const right = Float64Array.from(times(a, x, p));
    substitute(factor, p, right).forEach((v, n) => expect(v).toBeCloseTo(x[n] ?? 0, 6));
  });

  it('have an inverse that undoes them', () => {
    const back = inverse(factor, p);
    for (let k = 0; k < p; k++) {
      const column = Float64Array.from({ length: p }, (_, n) => back[n * p + k] ?? 0);
      times(a, column, p).forEach((v, j) => expect(v).toBeCloseTo(j === k ? 1 : 0, 6));
    }
  });
});

it('refuses what is not positive definite', () => {
  expect(() => factorise(Float64Array.from([1, 2, 2, 1]), 2)).toThrow(RangeError);
});
