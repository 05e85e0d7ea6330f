/** What is in no reference: relatives of what is described, patterns nobody described, and just anything. */
import type { ReferenceIndex } from './compile.ts';
import { exchangeOf, type PartWeight } from './parts.ts';
import type { BenchSettings } from './settings.ts';
import type { ObservationEvidence } from './observationEvidence.ts';

/**
 * Three ways to be in no reference (docs/engines.md, "Unlisted"), each as rare as what it resembles: a relative of a
 * described variant, that differs from it here and there; a pattern nobody described, of a maker that somebody did,
 * with the maker's stamps and months; and just anything. Parts of the first two may have been exchanged too, for those
 * of something described.
 * @param start per row: its share among what turns up, times what the dates say
 * @param least ln of what is too little to change an answer
 */
export function unlistedLogLikelihood(
  index: ReferenceIndex,
  signs: readonly ObservationEvidence[],
  parts: readonly PartWeight[],
  start: Float64Array,
  left: Int32Array,
  least: number,
  settings: BenchSettings,
): number {
  const { relative, pattern, anything } = settings.unlistedKinds;
  const background = signs.reduce((log, sign) => log + Math.log(sign.background), 0);
  if (left.length === 0) return background;
  const begun = left.filter((r) => (start[r] ?? 0) > 0);
  const known = Math.max(least, background + NEGLIGIBLE_LOG);
  const kin = sumOfRows(index, parts, begun, start, known, (part) =>
    part.signs.flatMap((i) => {
      const sign = signs[i];
      return sign ? [{ cellOf: sign.cellOf, table: sign.relative }] : [];
    }),
  );
  const unknown = sumOfRows(index, parts, begun, start, known, (part) =>
    part.signs.flatMap((i) => {
      const sign = signs[i];
      if (!sign) return [];
      return 'perGroup' in sign.stranger
        ? [{ cellOf: index.groupOf, table: sign.stranger.perGroup }]
        : [{ cellOf: sign.cellOf, table: sign.stranger.perCell }];
    }),
  );
  return logSum([Math.log(relative) + kin, Math.log(pattern) + unknown, Math.log(anything) + background]);
}

/** Terms so far below the greatest change no digit that anybody sees. */
export const NEGLIGIBLE_LOG = -40;

/** What one sign says, per cell of its own. */
interface Shown {
  readonly cellOf: Int32Array;
  readonly table: Float64Array;
}

/** Before products near underflow they are raised together. */
const RAISED = 1e150;

/**
 * ln Σ_r start·Π_parts ((1−s)·Π shown + s·donors). What is alike for a whole group is multiplied once; a row is given
 * up as soon as not even the best of the parts to come can lift it above `least`.
 */
function sumOfRows(
  index: ReferenceIndex,
  parts: readonly PartWeight[],
  begun: Int32Array,
  start: Float64Array,
  least: number,
  shownOf: (part: PartWeight) => Shown[],
): number {
  const { groupOf } = index;
  const ofGroup = new Float64Array(index.groups.length);
  const ofRows: { part: PartWeight; shown: Shown[]; most: number }[] = [];
  for (const part of parts) {
    // what a re-work changed is explained by its stamp, whoever made the piece
    const shown = part.reworked ? [{ cellOf: index.everyRow, table: part.whole }] : shownOf(part);
    const { exchange } = part;
    if (typeof exchange === 'number' && shown.every((s) => s.cellOf === groupOf))
      for (let g = 0; g < ofGroup.length; g++) {
        const own = shown.reduce((product, s) => product * (s.table[g] ?? 0), 1);
        ofGroup[g] = (ofGroup[g] ?? 0) + Math.log((1 - exchange) * own + exchange * (part.donors[g] ?? 0));
      }
    else {
      const own = shown.reduce((product, s) => product * greatest(s.table), 1);
      ofRows.push({ part, shown, most: Math.log(Math.max(own, greatest(part.donors))) });
    }
  }
  // the parts that were looked at most closely tell rows apart soonest
  ofRows.sort((a, b) => b.shown.length - a.shown.length);
  let toCome = ofRows.reduce((sum, { most }) => sum + most, 0);
  let raised = 0;
  let rows = begun;
  let product = Float64Array.from(rows);
  for (let k = 0; k < rows.length; k++) product[k] = start[rows[k] ?? 0] ?? 0;
  for (const { part, shown, most } of ofRows) {
    toCome -= most;
    const factor = new Float64Array(rows.length).fill(1);
    for (const { cellOf, table } of shown)
      for (let k = 0; k < rows.length; k++)
        factor[k] = (factor[k] ?? 0) * (table[cellOf[rows[k] ?? 0] ?? 0] ?? 0);
    const cut = ofGroup.map((log) => Math.exp(least - log - toCome + raised));
    const { exchange, donors } = part;
    const alike = typeof exchange === 'number' ? exchange : undefined;
    const keptRows = new Int32Array(rows.length);
    let n = 0;
    let top = 0;
    for (let k = 0; k < rows.length; k++) {
      const r = rows[k] ?? 0;
      const g = groupOf[r] ?? 0;
      const s = alike ?? exchangeOf(part, r);
      const p = (product[k] ?? 0) * ((1 - s) * (factor[k] ?? 0) + s * (donors[g] ?? 0));
      if (p < (cut[g] ?? 0)) continue;
      keptRows[n] = r;
      product[n++] = p;
      if (p > top) top = p;
    }
    rows = keptRows.subarray(0, n);
    product = product.subarray(0, n);
    if (top > 0 && top < 1 / RAISED) {
      for (let k = 0; k < n; k++) product[k] = (product[k] ?? 0) * RAISED;
      raised += Math.log(RAISED);
    }
  }
  let most = -Infinity;
  for (const log of ofGroup) most = Math.max(most, log);
  const scale = ofGroup.map((log) => Math.exp(log - most));
  let sum = 0;
  for (let k = 0; k < rows.length; k++) sum += (product[k] ?? 0) * (scale[groupOf[rows[k] ?? 0] ?? 0] ?? 0);
  return Math.log(sum) + most - raised;
}

function greatest(of: Float64Array): number {
  let most = 0;
  for (const x of of) if (x > most) most = x;
  return most;
}

/** ln Σ exp. */
function logSum(logs: readonly number[]): number {
  const top = Math.max(...logs);
  return top + Math.log(logs.reduce((sum, log) => sum + Math.exp(log - top), 0));
}
