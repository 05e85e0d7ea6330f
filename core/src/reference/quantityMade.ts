/** How many of a variant were made, by whatever the reference tells of it. */
import type { Variant } from './pack.ts';

const sum = (numbers: readonly number[]) => numbers.reduce((a, b) => a + b, 0);

/**
 * The stated quantity, else what its yearly figures add up to, else the size of its numbered run, else the shares that
 * run was split into. A numbered run is a figure like any other: nobody writes "made: 25" beside "25 numbered".
 * @returns undefined where nothing is told
 */
export function quantityMade({ made, edition }: Pick<Variant, 'made' | 'edition'>): number | undefined {
  if (made?.quantity != null) return made.quantity;
  const years = Object.values(made?.byYear ?? {});
  if (years.length > 0) return sum(years);
  if (edition?.run != null) return edition.run;
  const shares = edition?.split ?? [];
  // a run that is split by hand and by finish is told twice
  const [first] = shares;
  return first ? sum(shares.filter((share) => share.by === first.by).map((share) => share.run)) : undefined;
}
