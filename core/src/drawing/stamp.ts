/** Stamps as the eye meets them: how they are lettered, and what tells two apart that read the same. */
import type { Mark } from '../reference/index.ts';

export type Lettering = 'upright' | 'slanted' | 'arched' | 'script';

/** How letters are struck, from the word the reference uses for it. */
export function letteringOf({ lettering }: Pick<Mark, 'lettering'>): Lettering {
  const word = lettering?.toLowerCase() ?? '';
  if (word.includes('script')) return 'script';
  if (word.includes('arch')) return 'arched';
  return word.includes('slant') || word.includes('italic') ? 'slanted' : 'upright';
}

type Stamp = Pick<Mark, 'id' | 'lines' | 'lettering' | 'place' | 'codes'>;

export interface SameText {
  readonly lines: readonly string[];
  /** in the order they came */
  readonly marks: readonly string[];
  /** what can be seen to differ, with what each mark shows; empty where only the years tell them apart */
  readonly by: readonly {
    readonly what: 'lettering' | 'place' | 'signs';
    readonly shown: readonly string[];
  }[];
}

const textOf = ({ lines }: Pick<Mark, 'lines'>) => lines.join('\n').toUpperCase();

/** The same stamps with those of one text side by side, in the order in which each text came first. */
export function besideTheirLike<T extends Pick<Mark, 'lines'>>(marks: readonly T[]): T[] {
  const texts = [...new Set(marks.map(textOf))];
  return texts.flatMap((text) => marks.filter((mark) => textOf(mark) === text));
}

/**
 * Stamps that read alike, each with what the eye can tell them apart by.
 * @param titleOf the name of a code whose signs stand on a stamp
 */
export function stampsOfOneText(
  marks: readonly Stamp[],
  titleOf: (code: string) => string | undefined,
): SameText[] {
  const byText = new Map<string, Stamp[]>();
  for (const mark of marks) {
    const text = textOf(mark);
    byText.set(text, [...(byText.get(text) ?? []), mark]);
  }
  return [...byText.values()].flatMap((alike): SameText[] => {
    const [first] = alike;
    if (!first || alike.length < 2) return [];
    const signs = ({ codes }: Stamp) =>
      (codes ?? []).flatMap((code) => titleOf(code) ?? []).join(', ') || 'no signs';
    const shown = {
      lettering: alike.map((mark) => mark.lettering ?? letteringOf(mark)),
      place: alike.map((mark) => mark.place ?? 'place not told'),
      signs: alike.map(signs),
    };
    return [
      {
        lines: first.lines,
        marks: alike.map((mark) => mark.id),
        by: (['lettering', 'place', 'signs'] as const).flatMap((what) =>
          new Set(shown[what]).size > 1 ? [{ what, shown: shown[what] }] : [],
        ),
      },
    ];
  });
}
