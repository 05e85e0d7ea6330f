/**
 * How heavy the tails are, and how many prices are gross errors: the degrees of freedom on a grid, for each the scale
 * and the share by EM, averaged by its likelihood with what is expected of markets (settings.ts).
 */
import type { Noise } from './noise.ts';
import type { ValueSettings } from './settings.ts';
import { studentDensityAt0 } from './studentT.ts';

const DEGREES = [2.5, 3, 4, 5, 6, 8, 12, 20] as const;
const EM_ROUNDS = 5;
const MOST_ROWS = 4000;

/**
 * @param r2 squared residuals, as they would be had the coefficients swallowed nothing of them
 * @param s2 what is said of their variance
 * @returns noise with other tails, its scale such that the middle stays where it was
 */
export function nextTails(noise: Noise, r2: Float64Array, s2: Float64Array, settings: ValueSettings): Noise {
  const n = r2.length;
  if (n === 0) return noise;
  const step = Math.max(1, Math.floor(n / MOST_ROWS));
  const rows = Math.ceil(n / step);
  const { grossHold, grossShare, dfSpread, degreesOfFreedom, grossSd } = settings;
  let c = 1;
  let gross = noise.gross;
  /** EM for scale and share under so many degrees of freedom; @returns how well they explain the prices */
  const fitUnder = (df: number): number => {
    const at0 = studentDensityAt0(df);
    let score = 0;
    for (let round = 0; round < EM_ROUNDS; round++) {
      let sum = 0;
      let sound = 0;
      score = 0;
      for (let i = 0; i < n; i += step) {
        const s = c * (s2[i] ?? 1);
        const off = r2[i] ?? 0;
        const a = ((1 - gross) * at0 * Math.pow(1 + off / (df * s), -(df + 1) / 2)) / Math.sqrt(s);
        const wide = grossSd ** 2 + s;
        const b = (gross * Math.exp(-0.5 * (off / wide))) / Math.sqrt(2 * Math.PI * wide);
        const p = a / Math.max(a + b, 1e-300);
        sum += (p * (df + 1) * off) / (df + off / s) / (s2[i] ?? 1);
        sound += p;
        score += Math.log(Math.max(a + b, 1e-300));
      }
      c = sum / Math.max(1, sound);
      gross = (rows - sound + grossHold * grossShare) / (rows + grossHold);
    }
    return (
      score +
      grossHold * (grossShare * Math.log(gross) + (1 - grossShare) * Math.log(1 - gross)) -
      0.5 * (Math.log(df / degreesOfFreedom) / dfSpread) ** 2
    );
  };
  const scores = DEGREES.map(fitUnder);
  const top = Math.max(...scores);
  // the mean over the grid, not its best point: a price more must not make the tails jump
  let total = 0;
  let log = 0;
  DEGREES.forEach((df, k) => {
    const w = Math.exp((scores[k] ?? top) - top);
    total += w;
    log += w * Math.log(df);
  });
  const df = Math.exp(log / total);
  fitUnder(df);
  return { ...noise, df, gross, scale: noise.scale * Math.sqrt(c) };
}
