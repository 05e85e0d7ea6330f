/** Pictures that came in a heap, dealt to the pieces they show. */

export interface Dealt {
  readonly id: string;
  readonly stockNumber: string;
  /** names of files that a list says show it, with or without their endings */
  readonly files?: readonly string[];
}

/**
 * Whose a picture is by its name: theirs who are said to be shown by a file so called, else whose stock number stands in
 * it, the longest number first: HQ-11 is not HQ-1.
 * @returns for every name, in its place, the pieces' ids: none, one, or several of which the same picture is named
 */
export function picturesByName(names: readonly string[], pieces: readonly Dealt[]): string[][] {
  const named = new Map<string, string[]>();
  for (const piece of pieces)
    for (const file of piece.files ?? [])
      for (const key of new Set([fileKey(file), stemOf(file)]))
        named.set(key, [...(named.get(key) ?? []), piece.id]);
  const byNumber = new Map(
    pieces.map((piece) => [
      partsOf(piece.stockNumber)
        .map(({ part }) => part)
        .join(' '),
      piece.id,
    ]),
  );
  return names.map((name) => {
    const said = named.get(fileKey(name)) ?? named.get(stemOf(name));
    if (said) return [...new Set(said)];
    const numbered = numberedIn(name, byNumber);
    return numbered === undefined ? [] : [numbered];
  });
}
const fileKey = (name: string): string => name.trim().normalize('NFC').toLowerCase();
const stemOf = (name: string): string => fileKey(name).replace(/\.\w{2,5}$/, '');

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
  const dealt = picturesByName(names, pieces).map(([owner]) => owner ?? null);
  const named = new Set(dealt);
  const waiting = inTurn.filter((piece) => !named.has(piece.id));
  const inOrder = [...names.keys()]
    .filter((i) => dealt[i] === null)
    .sort((a, b) => BY_COUNT.compare(names[a] ?? '', names[b] ?? '') || a - b);
  for (const [turn, i] of inOrder.entries()) dealt[i] = waiting[Math.floor(turn / perPiece)]?.id ?? null;
  return dealt;
}
const BY_COUNT = new Intl.Collator('en', { numeric: true });

interface Part {
  readonly part: string;
  /** nothing of a word or a number stands right before it */
  readonly free: boolean;
}
/** Letters and figures of a name, whatever parts them: `HQ-0012b` is hq, 0012, b. */
const partsOf = (name: string): Part[] =>
  [...name.toLowerCase().matchAll(/\p{L}+|\p{N}+/gu)].map((match) => ({
    part: match[0],
    free: match.index === 0 || !/[\p{L}\p{N}]/u.test(name.charAt(match.index - 1)),
  }));

/** A stock number that stands in a name by itself, the longest. One of figures only counts at the very beginning: elsewhere it is the camera's. */
function numberedIn(name: string, byNumber: ReadonlyMap<string, string>): string | undefined {
  const parts = partsOf(name);
  let best: { id: string; length: number } | undefined;
  for (const [from, { free }] of parts.entries()) {
    if (!free) continue;
    let number = '';
    for (const { part } of parts.slice(from)) {
      number = number === '' ? part : `${number} ${part}`;
      const id = byNumber.get(number);
      const figuresOnly = !/\p{L}/u.test(number);
      if (id === undefined || (figuresOnly && from > 0)) continue;
      if (number.length > (best?.length ?? 0)) best = { id, length: number.length };
    }
  }
  return best?.id;
}
