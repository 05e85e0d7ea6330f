/**
 * Positive definite equations: factor, solution, inverse, over rows in one flat list. A fit spends most of its time here;
 * everything is a product of rows, taken four rows by four, so that what is read once is used four times.
 */

const SIDE = 4;

/** `out[SIDE·a + b]` = Σ over n in [from, to) of row `xRow + a` of x times row `yRow + b` of y; both of p columns. */
function products(
  x: Float64Array,
  xRow: number,
  y: Float64Array,
  yRow: number,
  p: number,
  from: number,
  to: number,
  out: Float64Array,
): void {
  const x0 = xRow * p;
  const [x1, x2, x3] = [x0 + p, x0 + 2 * p, x0 + 3 * p];
  const y0 = yRow * p;
  const [y1, y2, y3] = [y0 + p, y0 + 2 * p, y0 + 3 * p];
  let [a00, a01, a02, a03] = [0, 0, 0, 0];
  let [a10, a11, a12, a13] = [0, 0, 0, 0];
  let [a20, a21, a22, a23] = [0, 0, 0, 0];
  let [a30, a31, a32, a33] = [0, 0, 0, 0];
  for (let n = from; n < to; n++) {
    const u0 = x[x0 + n] ?? 0;
    const u1 = x[x1 + n] ?? 0;
    const u2 = x[x2 + n] ?? 0;
    const u3 = x[x3 + n] ?? 0;
    const v0 = y[y0 + n] ?? 0;
    const v1 = y[y1 + n] ?? 0;
    const v2 = y[y2 + n] ?? 0;
    const v3 = y[y3 + n] ?? 0;
    a00 += u0 * v0;
    a01 += u0 * v1;
    a02 += u0 * v2;
    a03 += u0 * v3;
    a10 += u1 * v0;
    a11 += u1 * v1;
    a12 += u1 * v2;
    a13 += u1 * v3;
    a20 += u2 * v0;
    a21 += u2 * v1;
    a22 += u2 * v2;
    a23 += u2 * v3;
    a30 += u3 * v0;
    a31 += u3 * v1;
    a32 += u3 * v2;
    a33 += u3 * v3;
  }
  out[0] = a00;
  out[1] = a01;
  out[2] = a02;
  out[3] = a03;
  out[4] = a10;
  out[5] = a11;
  out[6] = a12;
  out[7] = a13;
  out[8] = a20;
  out[9] = a21;
  out[10] = a22;
  out[11] = a23;
  out[12] = a30;
  out[13] = a31;
  out[14] = a32;
  out[15] = a33;
}

function product(
  x: Float64Array,
  xRow: number,
  y: Float64Array,
  yRow: number,
  p: number,
  from: number,
  to: number,
): number {
  const [xAt, yAt] = [xRow * p, yRow * p];
  let sum = 0;
  for (let n = from; n < to; n++) sum += (x[xAt + n] ?? 0) * (y[yAt + n] ?? 0);
  return sum;
}

/** The rows from `row` on that are taken together: fewer at the end. */
const endOf = (row: number, p: number) => Math.min(row + SIDE, p);

/** Products of rows j0… of x with rows k0… of y, as many as there are. */
function block(
  x: Float64Array,
  j0: number,
  y: Float64Array,
  k0: number,
  p: number,
  from: number,
  to: number,
  out: Float64Array,
): void {
  if (Math.max(j0, k0) + SIDE <= p) products(x, j0, y, k0, p, from, to, out);
  else
    for (let j = j0; j < endOf(j0, p); j++)
      for (let k = k0; k < endOf(k0, p); k++)
        out[(j - j0) * SIDE + k - k0] = product(x, j, y, k, p, from, to);
}

/** A = LLᵀ in place, lower triangle, row by row. @throws when A is not positive definite */
export function factorise(a: Float64Array, p: number): void {
  const before = new Float64Array(SIDE * SIDE);
  for (let j0 = 0; j0 < p; j0 += SIDE)
    for (let k0 = 0; k0 <= j0; k0 += SIDE) {
      block(a, j0, a, k0, p, 0, k0, before);
      for (let j = j0; j < endOf(j0, p); j++)
        for (let k = k0; k < endOf(k0, p) && k <= j; k++) {
          const sum =
            (a[j * p + k] ?? 0) - (before[(j - j0) * SIDE + k - k0] ?? 0) - product(a, j, a, k, p, k0, k);
          if (j !== k) a[j * p + k] = sum / (a[k * p + k] ?? 0);
          else if (sum > 0) a[j * p + j] = Math.sqrt(sum);
          else throw new RangeError('the price regression is not positive definite');
        }
    }
}

/** x of LLᵀx = right. */
export function substitute(factor: Float64Array, p: number, right: Float64Array): Float64Array {
  const x = Float64Array.from(right);
  for (let j = 0; j < p; j++) {
    let sum = x[j] ?? 0;
    for (let n = 0; n < j; n++) sum -= (factor[j * p + n] ?? 0) * (x[n] ?? 0);
    x[j] = sum / (factor[j * p + j] ?? 0);
  }
  for (let j = p - 1; j >= 0; j--) {
    const v = (x[j] ?? 0) / (factor[j * p + j] ?? 0);
    x[j] = v;
    for (let n = 0; n < j; n++) x[n] = (x[n] ?? 0) - (factor[j * p + n] ?? 0) * v;
  }
  return x;
}

/** A⁻¹, full and symmetric, from A = LLᵀ. */
export function inverse(factor: Float64Array, p: number): Float64Array {
  const tile = new Float64Array(SIDE * SIDE);
  // U = (L⁻¹)ᵀ: row j holds column j of L⁻¹, U[j][i] = −Σ(j ≤ n < i) L[i][n]·U[j][n] / L[i][i]
  const u = new Float64Array(p * p);
  for (let i0 = 0; i0 < p; i0 += SIDE)
    for (let j0 = 0; j0 <= i0; j0 += SIDE) {
      block(factor, i0, u, j0, p, j0, i0, tile);
      for (let i = i0; i < endOf(i0, p); i++)
        for (let j = j0; j < endOf(j0, p) && j <= i; j++) {
          const d = factor[i * p + i] ?? 0;
          const sum = (tile[(i - i0) * SIDE + j - j0] ?? 0) + product(factor, i, u, j, p, i0, i);
          u[j * p + i] = i === j ? 1 / d : -sum / d;
        }
    }
  // A⁻¹ = UUᵀ; a row of U begins at its own number
  const out = new Float64Array(p * p);
  for (let j0 = 0; j0 < p; j0 += SIDE)
    for (let k0 = 0; k0 <= j0; k0 += SIDE) {
      block(u, j0, u, k0, p, j0, p, tile);
      for (let j = j0; j < endOf(j0, p); j++)
        for (let k = k0; k < endOf(k0, p); k++) {
          const sum = tile[(j - j0) * SIDE + k - k0] ?? 0;
          out[j * p + k] = sum;
          out[k * p + j] = sum;
        }
    }
  return out;
}
