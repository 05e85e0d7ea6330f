/** All readings of a date code, and what is doubtful about them: double readings, gaps, years outside the stamp's era. */
import { covers, edtfInWords, parsePeriod, periodOf } from '../dates/index.ts';
import type { DateCode } from './pack.ts';
import { readDateCode } from './readDateCode.ts';

/** Stamps tried at most; a serial range with millions of numbers is not walked through. */
const MOST_STAMPS = 20_000;
/** Counts tried of a read that has no greatest one, and of one with a very great one. */
const OPEN_COUNT = 99;
const MOST_COUNTS = 999;

export interface StampReading {
  readonly reads: Readonly<Record<string, string | number>>;
  /** EDTF; none where no rule covers the stamp */
  readonly windows: readonly string[];
}

/** Every stamp the code's reads allow, with what it is read as; undefined when there are too many to list. */
export function codeTable(code: DateCode): StampReading[] | undefined {
  const choices = code.reads.map((read): (string | number)[] => {
    if (read.type === 'choice') return read.values ?? [];
    const from = read.min ?? 0;
    const to = Math.min(read.max ?? from + OPEN_COUNT, from + MOST_COUNTS);
    return Array.from({ length: Math.max(0, to - from + 1) }, (_, i) => from + i);
  });
  const stamps = choices.reduce((n, values) => n * Math.max(1, values.length), 1);
  if (stamps > MOST_STAMPS) return undefined;
  return Array.from({ length: stamps }, (_, n) => {
    let rest = n;
    const reads: Record<string, string | number> = {};
    choices.forEach((values, i) => {
      const read = code.reads[i];
      const value = values[rest % Math.max(1, values.length)];
      rest = Math.floor(rest / Math.max(1, values.length));
      if (read && value !== undefined) reads[read.id] = value;
    });
    const result = readDateCode(code, reads);
    return { reads, windows: result.ok ? result.value.map((r) => r.window) : [] };
  });
}

/** A stamp in words: `3 ticks, row above`. */
export const stampInWords = (code: DateCode, reads: StampReading['reads']): string =>
  Object.entries(reads)
    .map(([id, value]) => `${code.reads.find((r) => r.id === id)?.label ?? id} ${value}`)
    .join(', ');

const MOST_TOLD = 5;

/** @returns one sentence for each stamp shape that has more than one reading, at most five */
export function ruleOverlaps(code: DateCode): string[] {
  return (codeTable(code) ?? [])
    .filter(({ windows }) => windows.length > 1)
    .slice(0, MOST_TOLD)
    .map(({ reads, windows }) => {
      const stamp = Object.entries(reads)
        .map(([id, value]) => `${id} ${value}`)
        .join(', ');
      return `${stamp} is read as ${windows.join(' and as ')}`;
    });
}

export interface CodeDoubt {
  readonly kind: 'double' | 'gap' | 'outside-era';
  readonly text: string;
}

/**
 * What an author should look at before trusting a code.
 * @param eras the periods (EDTF) in which the stamps that carry the code were used, the maker's own years if none
 */
export function codeDoubts(code: DateCode, eras: readonly string[]): CodeDoubt[] {
  const table = codeTable(code);
  if (!table) return [];
  const doubts: CodeDoubt[] = [];
  const tell = (
    kind: CodeDoubt['kind'],
    found: readonly StampReading[],
    words: (r: StampReading) => string,
  ) => {
    for (const reading of found.slice(0, MOST_TOLD)) doubts.push({ kind, text: words(reading) });
    if (found.length > MOST_TOLD) doubts.push({ kind, text: `and ${found.length - MOST_TOLD} more like it` });
  };
  const inWords = ({ reads }: StampReading) => stampInWords(code, reads);
  tell(
    'double',
    table.filter((r) => r.windows.length > 1),
    (r) => `${inWords(r)} is read as ${r.windows.map((w) => edtfInWords(w)).join(' and as ')}`,
  );
  const uncovered = table.filter((r) => r.windows.length === 0);
  tell('gap', uncovered, (r) => `${inWords(r)}: no rule reads it`);
  if (eras.length > 0) {
    const spans = eras.flatMap((era) => periodOf(era).lenient);
    const outside = table.filter(({ windows }) =>
      windows.some((w) => {
        // a rule that is still being typed may give what is no year
        if (!parsePeriod(w).ok) return true;
        const { start, end } = periodOf(w);
        return !covers(spans, start.earliest) && !covers(spans, end.latest);
      }),
    );
    tell(
      'outside-era',
      outside,
      (r) =>
        `${inWords(r)} gives ${r.windows.map((w) => edtfInWords(w)).join(', ')}, when no stamp that carries it was used`,
    );
  }
  return doubts;
}
