/** What somebody's list calls a maker, a pattern or a variant, against the names of the reference. */
import { foldedText } from './fold.ts';

/** What names mean: ids by the keys of `nameKey`; an empty one means none of ours. */
export interface NamesMeant {
  readonly maker?: Readonly<Record<string, string>>;
  readonly pattern: Readonly<Record<string, string>>;
  readonly variant: Readonly<Record<string, string>>;
}
export interface NamesKnown {
  /** where a list has a column of makers */
  readonly makers?: readonly { readonly id: string; readonly name: string }[];
  readonly patterns: readonly {
    readonly id: string;
    readonly name: string;
    readonly maker: string;
    readonly number?: string | null | undefined;
  }[];
  readonly variants: readonly { readonly id: string; readonly pattern: string; readonly name: string }[];
}
export interface NameSaid {
  readonly column: 'maker' | 'pattern' | 'variant';
  /** as written, the first time it comes up */
  readonly said: string;
  /** for a variant: the pattern it is said of */
  readonly pattern: string | null;
  readonly rows: number;
  /** the key under which a mapping keeps what it means */
  readonly key: string;
  /** what it most likely means; null where nothing fits, or more than one thing */
  readonly guess: string | null;
}

/** How a mapping keeps a name; a variant's holds for one pattern, for two may call theirs the same. */
export const nameKey = (said: string, pattern?: string): string =>
  pattern === undefined ? foldedText(said) : `${pattern} ${foldedText(said)}`;

/** The one that is called so; else the one all of whose words are said, the longest name first. */
function guessOf<T extends { readonly id: string }>(
  said: string,
  known: readonly T[],
  namesOf: (one: T) => readonly string[],
): string | null {
  const text = foldedText(said);
  const exact = known.filter((one) => namesOf(one).some((name) => foldedText(name) === text));
  if (exact.length === 1) return exact[0]?.id ?? null;
  const words = new Set(text.split(' '));
  const within = known
    .map((one) => {
      const own = foldedText(namesOf(one)[0] ?? '').split(' ');
      return { id: one.id, words: own.every((word) => words.has(word)) ? own.length : 0 };
    })
    .filter((one) => one.words > 0)
    .sort((a, b) => b.words - a.words);
  const [first, second] = within;
  return exact.length === 0 && first && first.words > (second?.words ?? 0) ? first.id : null;
}

/** A house is mostly called by a part of its name: the only one whose name has every word that is said. */
function shortenedOf(said: string, makers: NonNullable<NamesKnown['makers']>): string | null {
  const words = foldedText(said).split(' ');
  const fits = makers.filter(({ name }) => {
    const own = new Set(foldedText(name).split(' '));
    return words.every((word) => own.has(word));
  });
  return fits.length === 1 ? (fits[0]?.id ?? null) : null;
}

/**
 * Names in the columns of maker, pattern and variant that are no ids of the reference, those in most rows first.
 * @param rows cells by their own column's name
 */
export function namesSaid(
  mapping: {
    readonly columns: Readonly<Record<string, string>>;
    readonly fixed: Readonly<Record<string, string>>;
    readonly names?: NamesMeant;
  },
  rows: readonly Readonly<Record<string, string>>[],
  known: NamesKnown,
): NameSaid[] {
  const columnOf = (ours: string) =>
    Object.keys(mapping.columns).find((name) => mapping.columns[name] === ours);
  const [maker, pattern, variant] = [columnOf('maker'), columnOf('pattern'), columnOf('variant')];
  const makers = known.makers ?? [];
  const makerIds = new Set(makers.map((m) => m.id));
  const patterns = new Set(known.patterns.map((p) => p.id));
  const variants = new Set(known.variants.map((v) => v.id));
  const found = new Map<string, { -readonly [K in keyof NameSaid]: NameSaid[K] }>();
  const count = (said: NameSaid) => {
    const before = found.get(`${said.column} ${said.key}`);
    if (before) before.rows++;
    else found.set(`${said.column} ${said.key}`, { ...said });
  };
  for (const row of rows) {
    const saidMaker = maker === undefined ? '' : (row[maker]?.trim() ?? '');
    if (saidMaker !== '' && !makerIds.has(saidMaker)) {
      const key = nameKey(saidMaker);
      const guess =
        found.get(`maker ${key}`)?.guess ??
        guessOf(saidMaker, makers, (m) => [m.name]) ??
        shortenedOf(saidMaker, makers);
      count({ column: 'maker', said: saidMaker, pattern: null, rows: 1, key, guess });
    }
    const saidPattern = (pattern === undefined ? mapping.fixed.pattern : row[pattern])?.trim() ?? '';
    const saidVariant = variant === undefined ? '' : (row[variant]?.trim() ?? '');
    let id: string | null = saidPattern;
    if (saidPattern !== '' && !patterns.has(saidPattern)) {
      const key = nameKey(saidPattern);
      const guess =
        found.get(`pattern ${key}`)?.guess ??
        guessOf(saidPattern, known.patterns, (p) => [
          p.name,
          `${p.maker} ${p.name}`,
          ...(p.number == null ? [] : [p.number, `${p.maker} ${p.number}`]),
        ]);
      id = mapping.names?.pattern[key] ?? guess;
      count({ column: 'pattern', said: saidPattern, pattern: null, rows: 1, key, guess });
    }
    if (saidVariant === '' || variants.has(saidVariant) || id === null || id === '') continue;
    const of = id;
    const key = nameKey(saidVariant, of);
    const guess =
      found.get(`variant ${key}`)?.guess ??
      guessOf(
        saidVariant,
        known.variants.filter((v) => v.pattern === of),
        (v) => [v.name],
      );
    count({ column: 'variant', said: saidVariant, pattern: of, rows: 1, key, guess });
  }
  return [...found.values()].sort((a, b) => b.rows - a.rows);
}
