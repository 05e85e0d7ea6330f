/** Agreement of two graders who did not see each other's grades. */
import { basePart, type Defect, type Finding } from './finding.ts';

export interface Agreement {
  readonly pieces: number;
  /** share of pieces with the same grade */
  readonly same: number;
  /**
   * Cohen's kappa with quadratic weights over the grades in their order: 1 agreement, 0 what chance alone would
   * give; undefined with fewer than two pieces or where both used one grade only.
   */
  readonly kappa?: number | undefined;
}

/** @param pairs positions of the two grades on one scale, best first */
export function agreementOf(pairs: readonly (readonly [number, number])[], grades: number): Agreement {
  const n = pairs.length;
  const same = n === 0 ? 0 : pairs.filter(([a, b]) => a === b).length / n;
  if (n < 2 || grades < 2) return { pieces: n, same, kappa: undefined };
  const weight = (a: number, b: number) => ((a - b) / (grades - 1)) ** 2;
  const count = (side: 0 | 1) => {
    const counts = new Array<number>(grades).fill(0);
    for (const pair of pairs) counts[pair[side]] = (counts[pair[side]] ?? 0) + 1;
    return counts;
  };
  const [first, second] = [count(0), count(1)];
  const seen = pairs.reduce((sum, [a, b]) => sum + weight(a, b), 0) / n;
  let expected = 0;
  for (let a = 0; a < grades; a++)
    for (let b = 0; b < grades; b++)
      expected += (weight(a, b) * (first[a] ?? 0) * (second[b] ?? 0)) / (n * n);
  return { pieces: n, same, kappa: expected > 0 ? 1 - seen / expected : undefined };
}

export interface DefectDifference {
  readonly part: string;
  readonly defect: Defect;
  /** pieces on which only the first, only the second, or both noted it */
  readonly onlyFirst: number;
  readonly onlySecond: number;
  readonly both: number;
}

/** Where two graders differ, what they differ on most first; places of one part count as one. */
export function defectsThatDiffer(
  pairs: readonly (readonly [readonly Finding[], readonly Finding[]])[],
): DefectDifference[] {
  const found = new Map<string, { part: string; defect: Defect; counts: [number, number, number] }>();
  for (const [first, second] of pairs) {
    const keys = (list: readonly Finding[]) =>
      new Map(list.map((f) => [`${basePart(f.part)} ${f.defect}`, f]));
    const [a, b] = [keys(first), keys(second)];
    for (const [key, f] of new Map([...a, ...b])) {
      const entry = found.get(key) ?? { part: basePart(f.part), defect: f.defect, counts: [0, 0, 0] };
      const which = a.has(key) ? (b.has(key) ? 2 : 0) : 1;
      entry.counts[which] += 1;
      found.set(key, entry);
    }
  }
  return [...found.values()]
    .map(({ part, defect, counts }) => ({
      part,
      defect,
      onlyFirst: counts[0],
      onlySecond: counts[1],
      both: counts[2],
    }))
    .filter((d) => d.onlyFirst + d.onlySecond > 0)
    .sort((x, y) => y.onlyFirst + y.onlySecond - (x.onlyFirst + x.onlySecond) || y.both - x.both);
}
