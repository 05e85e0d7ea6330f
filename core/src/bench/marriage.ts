/**
 * Put together from two: when two donors explain the parts better than one variant with single parts exchanged
 * (engines.md, "Put together"). Says which parts belong to which.
 */
import type { ReferenceIndex } from './compile.ts';
import type { Row } from './compiled.ts';
import type { PutTogetherAnswer } from './observation.ts';
import { donorOf, ownOf, type PartWeight } from './parts.ts';
import type { Posterior } from './posterior.ts';
import type { BenchSettings } from './settings.ts';

/** Bodies tried, likeliest first: a body nobody would name is not a body. */
const BODIES = 12;
/** A part goes to a donor only when the donor explains it by so much better. */
const MIN_DECIBANS = 3;
const MIN_RATIO = 10 ** (MIN_DECIBANS / 10);
const decibans = (ratio: number) => 10 * Math.log10(ratio);

export function findMarriage(
  index: ReferenceIndex,
  posterior: Posterior,
  settings: BenchSettings,
): PutTogetherAnswer | undefined {
  const best = posterior.ranked[0];
  if (!best || posterior.parts.length < 2) return undefined;
  // one misfit is an exchanged part or a misreading; without two there is nothing to put together
  const misfits = posterior.parts.filter((part) => mostOwn(part) > MIN_RATIO * ownOf(part, best.index));
  if (misfits.length < 2) return undefined;
  // ln-odds of a body before its parts are looked at: its posterior with the parts taken out again
  const before = (row: Row) =>
    decibans(Math.max(posterior.probability[row.index] ?? 0, 1e-12)) - partsIn(index, posterior.parts, row);
  const single = before(best) + partsIn(index, posterior.parts, best);
  const mostIn = new Map<number, Float64Array>();
  let tables: Float64Array[] | undefined;
  let found: PutTogetherAnswer | undefined;
  for (const body of posterior.ranked.slice(0, BODIES)) {
    const construction = index.constructionOf[body.group] ?? 0;
    const donors = Math.max(1, (index.constructionSize[construction] ?? 0) - 1);
    const start = before(body) + decibans(settings.putTogetherPrior / donors);
    const own = Float64Array.from(posterior.parts, (part) => wholeAt(posterior, part, body.index));
    // no donor explains a part better than the best of its construction, whatever the dates say (they only take
    // away): mostly that settles it
    let most = mostIn.get(construction);
    if (!most) mostIn.set(construction, (most = mostOf(index, posterior.parts, construction)));
    let bound = 1;
    let clear = 0;
    own.forEach((mine, p) => {
      bound *= (mine + (most[p] ?? 0)) / 2;
      if ((most[p] ?? 0) > MIN_RATIO * mine) clear++;
    });
    const least = () => Math.max(settings.putTogetherDecibans, found?.weight ?? -Infinity);
    if (clear < 2 || start + decibans(Math.max(bound, 1e-300)) - single <= least()) continue;
    const donated = (tables ??= posterior.parts.map((part) => wholeOf(posterior, part)));
    for (let r = 0; r < index.everyRow.length; r++) {
      if (r === body.index || index.constructionOf[index.groupOf[r] ?? 0] !== construction) continue;
      let product = 1;
      let theirs = 0;
      for (let p = 0; p < donated.length; p++) {
        const mine = own[p] ?? 0;
        const other = donated[p]?.[r] ?? 0;
        product *= (mine + other) / 2;
        if (other > MIN_RATIO * mine) theirs++;
      }
      if (theirs < 2 || theirs === donated.length) continue;
      const weight = start + decibans(Math.max(product, 1e-300)) - single;
      if (weight <= least()) continue;
      const names = posterior.parts.map((part) => part.part);
      const donors = (p: number) => (donated[p]?.[r] ?? 0) > MIN_RATIO * (own[p] ?? 0);
      found = {
        pieces: [
          { variant: body.variant.id, parts: names.filter((_, p) => !donors(p)) },
          { variant: index.rows[r]?.variant.id ?? '', parts: names.filter((_, p) => donors(p)) },
        ],
        weight: Math.round(weight * 10) / 10,
      };
    }
  }
  return found;
}

function mostOwn(part: PartWeight): number {
  const { whole, exchange } = part;
  let most = 0;
  if (typeof exchange !== 'number')
    for (let r = 0; r < whole.length; r++) most = Math.max(most, ownOf(part, r));
  else {
    for (let r = 0; r < whole.length; r++) if ((whole[r] ?? 0) > most) most = whole[r] ?? 0;
    most *= 1 - exchange;
  }
  return most;
}

/** Per part: the most that any row of a construction explains it, dates left out. */
function mostOf(index: ReferenceIndex, parts: readonly PartWeight[], construction: number): Float64Array {
  return Float64Array.from(parts, ({ whole }) => {
    let most = 0;
    for (let r = 0; r < whole.length; r++)
      if (index.constructionOf[index.groupOf[r] ?? 0] === construction && (whole[r] ?? 0) > most)
        most = whole[r] ?? 0;
    return most;
  });
}

/** The part's observations as a row's own, dates included. */
function wholeAt(posterior: Posterior, part: PartWeight, r: number): number {
  let product = part.whole[r] ?? 0;
  for (const i of part.signs) product *= posterior.datedAlone[i]?.(r) ?? 1;
  return product;
}

/** Decibans of all parts on a row, whole or exchanged. */
const partsIn = (index: ReferenceIndex, parts: readonly PartWeight[], row: Row): number =>
  parts.reduce(
    (log, p) => log + decibans(Math.max(ownOf(p, row.index) + donorOf(index, p, row.index), 1e-300)),
    0,
  );

/** Per row: the part's observations as that variant's own, dates included. */
function wholeOf(posterior: Posterior, part: PartWeight): Float64Array {
  const dates = part.signs.flatMap((i) => posterior.datedAlone[i] ?? []);
  if (dates.length === 0) return part.whole;
  const table = Float64Array.from(part.whole);
  for (const alone of dates) for (let r = 0; r < table.length; r++) table[r] = (table[r] ?? 0) * alone(r);
  return table;
}
