/** Student's t: distribution function and quantiles (regularised incomplete beta by continued fraction). */

/** ln Γ(x) for x > 0: shifted up to 8, then Stirling's series; error below 1e-10. */
function logGamma(x: number): number {
  let shift = 0;
  let z = x;
  for (; z < 8; z++) shift -= Math.log(z);
  const inverse = 1 / (z * z);
  const series = (1 / 12 - inverse * (1 / 360 - inverse * (1 / 1260 - inverse / 1680))) / z;
  return shift + (z - 0.5) * Math.log(z) - z + 0.5 * Math.log(2 * Math.PI) + series;
}

function incompleteBeta(x: number, a: number, b: number): number {
  if (x <= 0) return 0;
  if (x >= 1) return 1;
  if (x > (a + 1) / (a + b + 2)) return 1 - incompleteBeta(1 - x, b, a);
  const front =
    Math.exp(logGamma(a + b) - logGamma(a) - logGamma(b) + a * Math.log(x) + b * Math.log(1 - x)) / a;
  // Lentz's method
  let f = 1;
  let c = 1;
  let d = 0;
  for (let i = 0; i <= 200; i++) {
    const m = Math.floor(i / 2);
    const numerator =
      i === 0
        ? 1
        : i % 2 === 0
          ? (m * (b - m) * x) / ((a + 2 * m - 1) * (a + 2 * m))
          : -((a + m) * (a + b + m) * x) / ((a + 2 * m) * (a + 2 * m + 1));
    d = 1 / nonZero(1 + numerator * d);
    c = nonZero(1 + numerator / c);
    f *= c * d;
    if (Math.abs(1 - c * d) < 1e-12) break;
  }
  return front * (f - 1);
}
const nonZero = (x: number) => (Math.abs(x) < 1e-30 ? 1e-30 : x);

/** Density of the unit t at 0. */
export const studentDensityAt0 = (df: number): number =>
  Math.exp(logGamma((df + 1) / 2) - logGamma(df / 2)) / Math.sqrt(df * Math.PI);

/** P(T ≤ t) with the given degrees of freedom. */
export function studentCdf(t: number, df: number): number {
  const tail = 0.5 * incompleteBeta(df / (df + t * t), df / 2, 0.5);
  return t > 0 ? 1 - tail : tail;
}

/** The t below which a share p lies, by bisection. */
export function studentQuantile(p: number, df: number): number {
  return bisect((t) => studentCdf(t, df) - p, -200, 200);
}

/** Root of a rising function, to 1e-10 of the interval. */
export function bisect(f: (x: number) => number, low: number, high: number): number {
  let [a, b] = [low, high];
  for (let i = 0; i < 80; i++) {
    const middle = (a + b) / 2;
    if (f(middle) < 0) a = middle;
    else b = middle;
  }
  return (a + b) / 2;
}
