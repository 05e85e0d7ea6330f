/** A list of pieces as somebody wrote it elsewhere, a line for each. */
import { CONSTRUCTIONS, type Construction } from '../reference/index.ts';

export interface PastedPiece {
  readonly title: string;
  readonly construction: Construction | null;
  /** as it stood there, for whoever reads amounts */
  readonly worth: string | null;
}

/** As long as a working name may be. */
const LONGEST = 160;
/** “1.”, “12)”, “-”, “•” before a name. */
const NUMBERING = /^\s*(?:\d{1,3}[.)]|[-–•*])\s+/;
const AMOUNT = /^[^\p{L}]{0,3}\d[\d.,\s'’]*\s*\D{0,4}$/u;

/**
 * Lines with something in them, in their order. Columns are parted by tabs or semicolons: the name first, then, in any
 * order, a construction and what it may be worth; what is neither is left where it stands, with the name.
 * @param words what a construction is called
 */
export function pastedPieces(
  text: string,
  words: Readonly<Partial<Record<Construction, string>>> = {},
): PastedPiece[] {
  const named = new Map(
    CONSTRUCTIONS.flatMap((c): [string, Construction][] => [
      [c, c],
      [plain(words[c] ?? c), c],
    ]),
  );
  return text.split(/\r?\n/).flatMap((line): PastedPiece[] => {
    const [first = '', ...cells] = line
      .replace(NUMBERING, '')
      .split(/\t|;/)
      .map((cell) => cell.trim());
    let construction: Construction | null = null;
    let worth: string | null = null;
    const title = [first];
    for (const cell of cells) {
      const known = named.get(plain(cell));
      if (known !== undefined && construction === null) construction = known;
      else if (worth === null && AMOUNT.test(cell)) worth = cell;
      else if (cell !== '') title.push(cell);
    }
    const name = title.filter(Boolean).join(', ').slice(0, LONGEST);
    return name === '' ? [] : [{ title: name, construction, worth }];
  });
}
const plain = (word: string): string =>
  word
    .toLowerCase()
    .replaceAll(/[\s-]+/g, ' ')
    .trim();
