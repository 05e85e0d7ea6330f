/** Why a candidate stands where it stands: decibans per observation, adding up to the part's weight. */
import type { Row } from './compile.ts';
import type { Evidence, Subject } from './observation.ts';
import type { PartWeight, Posterior } from './posterior.ts';
import type { Sign } from './sign.ts';

const decibans = (ratio: number) => 10 * Math.log10(ratio);
const round = (value: number) => Math.round(value * 100) / 100;

const subjectFields = (subject: Subject): Pick<Evidence, 'feature' | 'mark' | 'code'> =>
  'feature' in subject
    ? { feature: subject.feature }
    : 'mark' in subject
      ? { mark: subject.mark }
      : 'code' in subject
        ? { code: subject.code }
        : {};

/** Rows whose share of the rest is below this add nothing to its mean. */
const HARDLY = 1e-9;

/**
 * Weight of each candidate's parts against the posterior-weighted rest. A part with several features shares its
 * weight among them in order, so that a person can add the lines up.
 * @returns for each candidate one line per sign
 */
export function evidenceFor(
  signs: readonly Sign[],
  posterior: Posterior,
  candidates: readonly Row[],
): Evidence[][] {
  const heavy = posterior.left.filter((row) => (posterior.probability[row.index] ?? 0) > HARDLY);
  const lines = candidates.map((): Evidence[] => []);
  for (const part of posterior.parts) {
    const before = new Float64Array(candidates.length);
    part.signs.forEach((i, position) => {
      const sign = signs[i];
      if (!sign) return;
      const shown = shownSoFar(signs, posterior, part, part.signs.slice(0, position + 1));
      candidates.forEach((candidate, c) => {
        const rest = meanOfRest(posterior, heavy, shown, candidate);
        const total = decibans(Math.max(shown.of(candidate), 1e-300) / Math.max(rest, 1e-300));
        lines[c]?.push({
          ...subjectFields(sign.subject),
          part: sign.part,
          observed: sign.observed,
          expected: sign.expected(candidate),
          verdict: sign.verdict(candidate),
          weight: round(total - (before[c] ?? 0)),
        });
        before[c] = total;
      });
    });
  }
  return lines;
}

interface Shown {
  /** likelihood of a part by its first observations */
  of(row: Row): number;
  readonly background: number;
  /** posterior-weighted sum over everything, unlisted included */
  total?: number;
}

/**
 * Taken from the sum over all by leaving the candidate out; where the candidate is most of that sum the rest is
 * added up by itself, so that nothing is lost in the difference.
 */
function meanOfRest(posterior: Posterior, heavy: readonly Row[], shown: Shown, candidate: Row): number {
  const own = posterior.probability[candidate.index] ?? 0;
  const sumOver = (left: Row | undefined) => {
    let sum = posterior.unlisted * shown.background;
    for (const row of heavy) if (row !== left) sum += (posterior.probability[row.index] ?? 0) * shown.of(row);
    return sum;
  };
  const weight = 1 - own;
  if (weight <= 0) return shown.background;
  const total = (shown.total ??= sumOver(undefined));
  const part = own * shown.of(candidate);
  return (part < 0.5 * total ? total - part : sumOver(candidate)) / weight;
}

/** The likelihood of a part by its first observations: whole or exchanged, times what their dates say. */
function shownSoFar(
  signs: readonly Sign[],
  posterior: Posterior,
  part: PartWeight,
  used: readonly number[],
): Shown {
  const dates = used.flatMap((k) => posterior.datedAlone[k] ?? []);
  const likelihoods = used.map((k) => signs[k]?.likelihood);
  const whole = used.length === part.signs.length;
  const power = used.length / part.signs.length;
  return {
    background: used.reduce((p, k) => p * (signs[k]?.background ?? 1), 1),
    of({ index: r }) {
      let dated = 1;
      for (const alone of dates) dated *= alone[r] ?? 1;
      if (whole) return ((part.own[r] ?? 0) + (part.donor[r] ?? 0)) * dated;
      let product = 1;
      for (const likelihood of likelihoods) product *= likelihood?.[r] ?? 1;
      const s = part.exchange[r] ?? 0;
      const donor = Math.max(1e-12, (part.donor[r] ?? 0) / s) ** power;
      return ((1 - s) * product + s * donor) * dated;
    },
  };
}

/** Parts that this candidate needs to have been swapped: the donor term carries them. */
export function exchangedParts(
  posterior: Posterior,
  candidate: Row,
): { part: string; responsibility: number }[] {
  return posterior.parts.flatMap((part) => {
    if (part.reworked) return [];
    const own = part.own[candidate.index] ?? 0;
    const donor = part.donor[candidate.index] ?? 0;
    const responsibility = donor / Math.max(own + donor, 1e-300);
    return responsibility > 0.5 ? [{ part: part.part, responsibility }] : [];
  });
}
