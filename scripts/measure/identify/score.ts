/** What makes an answer good: log loss, calibration, detection; and the plain counting it is compared with. */
import { subjectKey, type Observation, type ReferenceIndex } from '@jutbank/core/bench';

export interface Scored {
  /** of each variant, then of "unlisted" */
  readonly probabilities: Float64Array;
  /** which of them was right */
  readonly at: number;
}

export const meanOf = (list: readonly number[]) => list.reduce((a, b) => a + b, 0) / Math.max(1, list.length);

/** Expected calibration error of the leading answer, over ten bins of equal width. */
export function calibrationError(answers: readonly Scored[]): number {
  const bins = Array.from({ length: 10 }, () => ({ n: 0, said: 0, right: 0 }));
  for (const { probabilities, at } of answers) {
    const said = Math.max(...probabilities);
    const bin = bins[Math.min(9, Math.floor(said * 10))];
    if (!bin) continue;
    bin.n++;
    bin.said += said;
    bin.right += (probabilities[at] ?? 0) >= said - 1e-12 ? 1 : 0;
  }
  return bins.reduce((sum, b) => sum + Math.abs(b.said - b.right), 0) / Math.max(1, answers.length);
}

/** Area under the receiver operating curve: the chance that a true case is given more than a false one. */
export function detection(cases: readonly { p: number; is: boolean }[]): number {
  const sorted = [...cases].sort((a, b) => a.p - b.p);
  let rankSum = 0;
  let positives = 0;
  sorted.forEach((c, i) => {
    if (!c.is) return;
    rankSum += i + 1;
    positives++;
  });
  const negatives = cases.length - positives;
  return (rankSum - (positives * (positives + 1)) / 2) / Math.max(1, positives * negatives);
}

/** What a shelf of books and a pencil do: one point for what agrees, one off for what does not. */
export function matchingAnswer(
  index: ReferenceIndex,
  observations: readonly Observation[],
  sharpness: number,
): Float64Array {
  const scores = index.rows.map((row) =>
    observations.reduce((sum, o) => {
      if ('mark' in o) return sum + ((row.variant.marks ?? []).includes(o.mark) ? 1 : -1);
      if (!('feature' in o)) return sum;
      if ('measure' in o) {
        const nominal = index.measures.get(o.feature)?.nominal[row.index] ?? NaN;
        return sum + (Math.abs(o.measure - nominal) <= 0.02 * nominal ? 1 : -1);
      }
      const listed = row.variant.features?.[o.feature];
      return !listed || !('value' in o) ? sum : sum + (listed.includes(o.value) ? 1 : -1);
    }, 0),
  );
  const best = Math.max(...scores);
  const weights = scores.map((s) => Math.exp(sharpness * (s - best)));
  const total = weights.reduce((a, b) => a + b, 0);
  return Float64Array.from([...weights.map((w) => (0.95 * w) / total), 0.05]);
}

export const seenSubjects = (observations: readonly Observation[]) => new Set(observations.map(subjectKey));
