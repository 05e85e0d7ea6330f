/** Pictures that came in a heap, dealt to the pieces they show. */

export interface Dealt {
  readonly id: string;
  readonly stockNumber: string;
}

/**
 * A picture whose name carries a piece's stock number is that piece's. The others are taken in the order of their names,
 * as a camera counts them, and dealt to the remaining pieces in turn, so many to each; what is left over is nobody's.
 * @param perPiece pictures that were taken of each piece, at least 1
 * @param inTurn the pieces that those without a number are dealt to; all of them where nothing is said
 * @returns for every name, in its place, the piece's id
 */
export function dealPictures(
  names: readonly string[],
  pieces: readonly Dealt[],
  perPiece: number,
  inTurn: readonly Dealt[] = pieces,
): (string | null)[] {
  // the longest number first: HQ-11 is not HQ-1
  const byLength = [...pieces].sort((a, b) => b.stockNumber.length - a.stockNumber.length);
  const dealt = names.map(
    (name): string | null => byLength.find((piece) => carries(name, piece.stockNumber))?.id ?? null,
  );
  const named = new Set(dealt);
  const waiting = inTurn.filter((piece) => !named.has(piece.id));
  const inOrder = [...names.keys()]
    .filter((i) => dealt[i] === null)
    .sort((a, b) => BY_COUNT.compare(names[a] ?? '', names[b] ?? '') || a - b);
  for (const [turn, i] of inOrder.entries()) dealt[i] = waiting[Math.floor(turn / perPiece)]?.id ?? null;
  return dealt;
}
const BY_COUNT = new Intl.Collator('en', { numeric: true });

/** Whether a number stands in a name by itself, whatever parts its letters and figures there. */
function carries(name: string, number: string): boolean {
  const parts = number.match(/\p{L}+|\p{N}+/gu);
  if (!parts) return false;
  return new RegExp(`(?<![\\p{L}\\p{N}])${parts.join('[^\\p{L}\\p{N}]*')}(?!\\p{N})`, 'iu').test(name);
}
