/** Densities of a measured size around its nominal one. */

/** Complementary error function, relative error below 1.2e-7 (rational Chebyshev fit). */
export function erfc(x: number): number {
  const z = Math.abs(x);
  const t = 1 / (1 + z / 2);
  const poly =
    -1.26551223 +
    t *
      (1.00002368 +
        t *
          (0.37409196 +
            t *
              (0.09678418 +
                t *
                  (-0.18628806 +
                    t *
                      (0.27886807 +
                        t * (-1.13520398 + t * (1.48851587 + t * (-0.82215223 + t * 0.17087277))))))));
  const value = t * Math.exp(-z * z + poly);
  return x >= 0 ? value : 2 - value;
}

const ROOT_2PI = Math.sqrt(2 * Math.PI);
export const normalDensity = (distance: number, sigma: number): number =>
  Math.exp(-0.5 * (distance / sigma) ** 2) / (sigma * ROOT_2PI);

/**
 * Normal noise plus an exponential loss (an exponentially modified Gaussian).
 * @param loss how much is missing, in the measure's unit; negative when larger than nominal
 */
export function wornDensity(loss: number, sigma: number, mean: number): number {
  if (sigma > 4 * mean) return normalDensity(loss, sigma);
  const exponent = (sigma * sigma) / (2 * mean * mean) - loss / mean;
  return (
    (0.5 / mean) *
    Math.exp(Math.min(exponent, 700)) *
    erfc(sigma / (mean * Math.SQRT2) - loss / (sigma * Math.SQRT2))
  );
}

export interface MeasureModel {
  readonly nominal: number;
  /** standard deviation of new pieces */
  readonly spread: number;
  readonly wear: 'none' | 'shrinks' | 'grows';
  /** standard deviation of gauge and reading together */
  readonly noise: number;
  readonly outlierShare: number;
  readonly outlierRange: number;
  readonly wornShare: number;
  readonly wearMean: number;
}

/** Density of a measured value: noise, one-sided wear, and a thin even layer for what is simply off. */
export function measureDensity(measured: number, m: MeasureModel): number {
  const sigma = Math.sqrt(m.spread ** 2 + m.noise ** 2) || 1e-6;
  const distance = measured - m.nominal;
  let core = normalDensity(distance, sigma);
  if (m.wear !== 'none') {
    const loss = m.wear === 'shrinks' ? -distance : distance;
    core = (1 - m.wornShare) * core + m.wornShare * wornDensity(loss, sigma, m.wearMean * m.nominal);
  }
  const even = 1 / (2 * m.outlierRange * Math.max(m.nominal, 1e-6));
  const layer = Math.abs(distance) <= m.outlierRange * m.nominal ? even : even * 1e-3;
  return (1 - m.outlierShare) * core + m.outlierShare * layer;
}
