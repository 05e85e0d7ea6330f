/** Why a candidate stands where it stands: decibans per observation, adding up to the part's weight. */
import type { ReferenceIndex } from './compile.ts';
import type { Row } from './compiled.ts';
import type { Evidence, Subject } from './observation.ts';
import { donorOf, exchangeOf, ownOf } from './parts.ts';
import type { Posterior } from './posterior.ts';
import type { ObservationEvidence } from './observationEvidence.ts';

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
const MIN_PROBABILITY = 1e-9;

/**
 * Weight of each candidate's parts against the posterior-weighted rest. A part with several features shares its
 * weight among them in order, so that a person can add the lines up.
 * @returns for each candidate one line per sign
 */
export function evidenceTable(
  index: ReferenceIndex,
  signs: readonly ObservationEvidence[],
  posterior: Posterior,
  candidates: readonly Row[],
): Evidence[][] {
  const { probability } = posterior;
  const lines = candidates.map((): Evidence[] => []);
  // the candidates first, then whatever else weighs: all that is needed of the reference, laid side by side
  const own = new Set(candidates.map((c) => c.index));
  const rows = Int32Array.from([
    ...own,
    ...posterior.left.filter((r) => (probability[r] ?? 0) > MIN_PROBABILITY && !own.has(r)),
  ]);
  const chance = Float64Array.from(rows, (r) => probability[r] ?? 0);
  for (const part of posterior.parts) {
    const product = new Float64Array(rows.length).fill(1);
    const dated = new Float64Array(rows.length).fill(1);
    const shown = new Float64Array(rows.length);
    const before = new Float64Array(candidates.length);
    let background = 1;
    part.signs.forEach((i, position) => {
      const sign = signs[i];
      if (!sign) return;
      background *= sign.background;
      const { cellOf, likelihood } = sign;
      const alone = posterior.datedAlone[i];
      // the likelihood of a part by its first observations: whole or exchanged, times what their dates say
      const power = (position + 1) / part.signs.length;
      const donors = part.donors.map((d) => (power === 1 ? d : Math.max(1e-12, d) ** power));
      let total = posterior.unlisted * background;
      for (let k = 0; k < rows.length; k++) {
        const r = rows[k] ?? 0;
        product[k] = (product[k] ?? 0) * (likelihood[cellOf[r] ?? 0] ?? 1);
        if (alone) dated[k] = (dated[k] ?? 0) * alone(r);
        const s = exchangeOf(part, r);
        const of = ((1 - s) * (product[k] ?? 0) + s * (donors[index.groupOf[r] ?? 0] ?? 0)) * (dated[k] ?? 0);
        shown[k] = of;
        total += (chance[k] ?? 0) * of;
      }
      candidates.forEach((candidate, c) => {
        const weight = 1 - (chance[c] ?? 0);
        const mine = (chance[c] ?? 0) * (shown[c] ?? 0);
        let rest = background;
        if (weight > 0) {
          // where the candidate is most of the sum the rest is added up by itself: nothing is lost in a difference
          let others = total - mine;
          if (mine >= 0.5 * total) {
            others = posterior.unlisted * background;
            for (let k = 0; k < rows.length; k++) if (k !== c) others += (chance[k] ?? 0) * (shown[k] ?? 0);
          }
          rest = others / weight;
        }
        const all = decibans(Math.max(shown[c] ?? 0, 1e-300) / Math.max(rest, 1e-300));
        lines[c]?.push({
          ...subjectFields(sign.subject),
          part: sign.part,
          observed: sign.observed,
          expected: sign.expected(candidate),
          verdict: sign.verdict(candidate),
          weight: round(all - (before[c] ?? 0)),
        });
        before[c] = all;
      });
    });
  }
  return lines;
}

/** Parts that this candidate needs to have been swapped: the donor term carries them. */
export function exchangedParts(
  index: ReferenceIndex,
  posterior: Posterior,
  candidate: Row,
): { part: string; responsibility: number }[] {
  return posterior.parts.flatMap((part) => {
    if (part.reworked) return [];
    const own = ownOf(part, candidate.index);
    const donor = donorOf(index, part, candidate.index);
    const responsibility = donor / Math.max(own + donor, 1e-300);
    return responsibility > 0.5 ? [{ part: part.part, responsibility }] : [];
  });
}
