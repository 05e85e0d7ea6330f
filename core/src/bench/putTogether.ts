/**
 * Put together from two: when two donors explain the parts better than one variant with single parts exchanged
 * (engines.md, "Put together"). Says which parts belong to which.
 */
import type { ReferenceIndex, Row } from './compile.ts';
import type { PutTogetherAnswer } from './observation.ts';
import type { PartWeight, Posterior } from './posterior.ts';
import type { BenchSettings } from './settings.ts';
import type { Sign } from './sign.ts';

/** Bodies tried, likeliest first: a body nobody would name is not a body. */
const BODIES = 12;
/** A part goes to a donor only when the donor explains it by so much better. */
const CLEARLY_DECIBANS = 3;
const CLEARLY = 10 ** (CLEARLY_DECIBANS / 10);
const decibans = (ratio: number) => 10 * Math.log10(ratio);

export function putTogether(
  index: ReferenceIndex,
  signs: readonly Sign[],
  posterior: Posterior,
  settings: BenchSettings,
): PutTogetherAnswer | undefined {
  const best = posterior.ranked[0];
  if (!best || posterior.parts.length < 2) return undefined;
  // one misfit is an exchanged part or a misreading; without two there is nothing to put together
  const misfits = posterior.parts.filter((part) => mostOf(part.own) > CLEARLY * (part.own[best.index] ?? 0));
  if (misfits.length < 2) return undefined;
  const tables = posterior.parts.map((part) => wholeOf(signs, posterior, part));
  // ln-odds of a body before its parts are looked at: its posterior with the parts taken out again
  const before = (row: Row) =>
    decibans(Math.max(posterior.probability[row.index] ?? 0, 1e-12)) - partsIn(posterior.parts, row);
  const single = before(best) + partsIn(posterior.parts, best);
  let found: PutTogetherAnswer | undefined;
  for (const body of posterior.ranked.slice(0, BODIES)) {
    const donors = index.rows.filter((row) => row !== body && row.construction === body.construction);
    const priorOfDonor = settings.putTogetherPrior / Math.max(1, donors.length);
    const start = before(body) + decibans(priorOfDonor);
    for (const donor of donors) {
      let product = 1;
      const theirs: number[] = [];
      for (let p = 0; p < tables.length; p++) {
        const own = tables[p]?.[body.index] ?? 0;
        const other = tables[p]?.[donor.index] ?? 0;
        product *= (own + other) / 2;
        if (other > CLEARLY * own) theirs.push(p);
      }
      const weight = start + decibans(Math.max(product, 1e-300)) - single;
      if (theirs.length < 2 || theirs.length === tables.length) continue;
      if (weight <= settings.putTogetherDecibans || weight <= (found?.weight ?? -Infinity)) continue;
      const names = posterior.parts.map((part) => part.part);
      found = {
        pieces: [
          { variant: body.variant.id, parts: names.filter((_, p) => !theirs.includes(p)) },
          { variant: donor.variant.id, parts: names.filter((_, p) => theirs.includes(p)) },
        ],
        weight: Math.round(weight * 10) / 10,
      };
    }
  }
  return found;
}

function mostOf(table: Float64Array): number {
  let most = 0;
  for (const x of table) if (x > most) most = x;
  return most;
}

/** Decibans of all parts on a row, whole or exchanged. */
const partsIn = (parts: readonly PartWeight[], row: Row): number =>
  parts.reduce(
    (log, p) => log + decibans(Math.max((p.own[row.index] ?? 0) + (p.donor[row.index] ?? 0), 1e-300)),
    0,
  );

/** Per row: the part's observations as that variant's own, dates included. */
function wholeOf(signs: readonly Sign[], posterior: Posterior, part: PartWeight): Float64Array {
  const table = new Float64Array(part.own.length).fill(1);
  for (const i of part.signs) {
    const likelihood = signs[i]?.likelihood;
    const dated = posterior.datedAlone[i];
    for (let r = 0; r < table.length; r++)
      table[r] = (table[r] ?? 0) * (likelihood?.[r] ?? 1) * (dated?.[r] ?? 1);
  }
  return table;
}
