/** Means over the months a row was made in (engines.md, Identification: dates). */
import type { ReferenceIndex } from './compile.ts';
import type { Row } from './compiled.ts';

/** P(t|v)-weighted mean of a factor over the months a row was made in, through prefix sums from the calendar's start. */
export function overMonths(index: ReferenceIndex, prefix: Float64Array, r: number): number {
  const { madeAt, madeFrom, madeTo, madeShare } = index;
  let sum = 0;
  for (let i = madeAt[r] ?? 0, end = madeAt[r + 1] ?? 0; i < end; i++) {
    const a = madeFrom[i] ?? 0;
    const b = (madeTo[i] ?? 0) + 1;
    sum += ((madeShare[i] ?? 0) * ((prefix[b] ?? 0) - (prefix[a] ?? 0))) / (b - a);
  }
  return sum;
}

/** P(t|v)-weighted mean of a factor that is worked out for the row's own months only. */
export function meanOver(index: ReferenceIndex, row: Row, factor: (month: number) => number): number {
  let sum = 0;
  for (const { months, share } of row.madeOver) {
    let part = 0;
    for (let m = months.from; m <= months.to; m++) part += factor(m - index.calendar.from);
    sum += (share * part) / (months.to - months.from + 1);
  }
  return sum;
}

export function prefixOf(factor: Float64Array): Float64Array {
  const prefix = new Float64Array(factor.length + 1);
  for (let i = 0; i < factor.length; i++) prefix[i + 1] = (prefix[i] ?? 0) + (factor[i] ?? 0);
  return prefix;
}
