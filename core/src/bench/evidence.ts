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

/**
 * Weight of a candidate's part against the posterior-weighted rest. A part with several features shares its
 * weight among them in order, so that a person can add the lines up.
 */
export function evidenceFor(signs: readonly Sign[], posterior: Posterior, candidate: Row): Evidence[] {
  const others = posterior.left.filter(
    (row) => row !== candidate && (posterior.probability[row.index] ?? 0) > 1e-9,
  );
  const against = (of: (row: Row) => number, unlisted: number): number => {
    let weight = posterior.unlisted;
    let sum = posterior.unlisted * unlisted;
    for (const row of others) {
      const p = posterior.probability[row.index] ?? 0;
      weight += p;
      sum += p * of(row);
    }
    const rest = weight > 0 ? sum / weight : unlisted;
    return decibans(Math.max(of(candidate), 1e-300) / Math.max(rest, 1e-300));
  };
  const lines: Evidence[] = [];
  for (const part of posterior.parts) {
    let before = 0;
    part.signs.forEach((i, position) => {
      const sign = signs[i];
      if (!sign) return;
      const used = part.signs.slice(0, position + 1);
      const background = used.reduce((p, k) => p * (signs[k]?.background ?? 1), 1);
      const total = against((row) => partSoFar(signs, posterior, part, used, row), background);
      lines.push({
        ...subjectFields(sign.subject),
        part: sign.part,
        observed: sign.observed,
        expected: sign.expected(candidate),
        verdict: sign.verdict(candidate),
        weight: round(total - before),
      });
      before = total;
    });
  }
  return lines;
}

/** The likelihood of a part by its first observations: whole or exchanged, times what their dates say. */
function partSoFar(
  signs: readonly Sign[],
  posterior: Posterior,
  part: PartWeight,
  used: readonly number[],
  row: Row,
): number {
  const dated = used.reduce((p, k) => p * (posterior.datedAlone[k]?.[row.index] ?? 1), 1);
  if (used.length === part.signs.length)
    return ((part.own[row.index] ?? 0) + (part.donor[row.index] ?? 0)) * dated;
  const product = used.reduce((p, k) => p * (signs[k]?.likelihood[row.index] ?? 1), 1);
  const s = part.exchange[row.index] ?? 0;
  const donor = Math.max(1e-12, (part.donor[row.index] ?? 0) / s) ** (used.length / part.signs.length);
  return ((1 - s) * product + s * donor) * dated;
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
