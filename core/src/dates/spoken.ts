/** Dates as people type them ("about 1935", "1934 to April 36") to EDTF, and EDTF back to words. */
import { fail, succeed, type Result } from '../result/index.ts';
import { ENGLISH_DATES, monthIn, sayDate, type TellsDates } from './messages.ts';
import { asDay, calendarOf, isEmpty, isoOf, type Day, type Span } from './day.ts';
import { parsePeriod, type DateProblem, type Period } from './period.ts';

const MONTHS = [
  'january',
  'february',
  'march',
  'april',
  'may',
  'june',
  'july',
  'august',
  'september',
  'october',
  'november',
  'december',
];

const monthNumber = (word: string): number | undefined => {
  const index = word.length >= 3 ? MONTHS.findIndex((m) => m.startsWith(word.replace('.', ''))) : -1;
  return index < 0 ? undefined : index + 1;
};
const two = (n: number) => String(n).padStart(2, '0');

/** What a spoken date may lean on; without it such words are not understood, or read as most of the world writes them. */
export interface SpokenHabits {
  /** ISO day, for “yesterday”, and because a year of two figures never lies ahead */
  readonly today?: string;
  /** 12/09/2026 is in September; where the other order alone makes a day, that one is taken */
  readonly dayFirst?: boolean;
}

/**
 * Reads a date as it is said in the trade. EDTF itself is accepted as well.
 * A two-digit year after a full one belongs to the same century ("1934 to April 36").
 */
export function parseSpokenDate(text: string, habits: SpokenHabits = {}): Result<Period, DateProblem> {
  const trimmed = text.trim();
  const asWritten = parsePeriod(trimmed);
  if (asWritten.ok) return asWritten;
  const edtf = spokenToEdtf(trimmed.toLowerCase(), habits);
  const parsed = edtf === undefined ? undefined : parsePeriod(edtf);
  if (parsed?.ok) return parsed;
  return fail({
    kind: 'malformed-date',
    text,
    message: `“${text}” is not understood as a date. Try 1934, about 1935, April 1936, 1934 to 1936, before 1940.`,
  });
}

/** A date that was understood: as EDTF by itself, and as the two ends it gives a range. */
interface Told {
  readonly edtf: string;
  readonly from: string;
  readonly to: string;
}
interface Reading extends SpokenHabits {
  /** of the full year that was said before */
  readonly century?: number | undefined;
}
const exactly = (date: string): Told => ({ edtf: date, from: date, to: date });
const between = (from: string, to: string): Told => ({ edtf: `${from}/${to}`, from, to });

const BEFORE = /^(?:before|until|up to|to|by|not after|no later than|at the latest)\s+(.+)$/;
const OR_EARLIER = /^(.+?)\s+(?:or\s+(?:earlier|before)|at the latest)$/;
const AFTER = /^(?:after|since|from|not before|no earlier than)\s+(.+?)(?:\s+on(?:wards)?)?$/;
const OR_LATER = /^(.+?)\s+(?:or\s+(?:later|after)|on(?:wards)?|at the earliest)$/;
const RANGE =
  /^(?:from\s+|between\s+)?(.+?)\s*(?:\bto\b|\buntil\b|\bthrough\b|\band\b|–|—|(?<=\d)\s*-\s*(?=\d{4}\b)|(?<=^\d{4})[-/](?=\d{2}$)|\s-\s)\s*(.+)$/;
const ONE_OF = /^(?:either\s+)?(.+?)\s+or\s+(.+)$/;

function spokenToEdtf(text: string, habits: SpokenHabits): string | undefined {
  const earlier = BEFORE.exec(text) ?? OR_EARLIER.exec(text);
  if (earlier?.[1]) {
    const end = oneDate(earlier[1], habits);
    return end && `../${end.to}`;
  }
  const whole = oneDate(text, habits);
  if (whole) return whole.edtf;
  const range = RANGE.exec(text);
  if (range?.[1] && range[2]) {
    const from = oneDate(range[1], habits);
    const to = from && oneDate(range[2], { ...habits, century: centuryOf(from) });
    return from && to ? `${from.from}/${to.to}` : undefined;
  }
  const later = AFTER.exec(text) ?? OR_LATER.exec(text);
  if (later?.[1]) {
    const start = oneDate(later[1], habits);
    return start && `${start.from}/..`;
  }
  const either = ONE_OF.exec(text);
  if (either?.[1] && either[2]) {
    const one = oneDate(either[1], habits);
    const other = one && oneDate(either[2], { ...habits, century: centuryOf(one) });
    return one && other && one.from === one.to && other.from === other.to
      ? `[${one.edtf},${other.edtf}]`
      : undefined;
  }
  return undefined;
}

const centuryOf = ({ from }: Told): number => Number(from.slice(0, 2)) * 100;

function oneDate(text: string, reading: Reading): Told | undefined {
  const about =
    /^(?:about|around|circa|ca\.?|c\.?|approx\.?|roughly)\s*(.+)$/.exec(text) ??
    /^(.+?)(?:\s+or\s+(?:so|thereabouts)|\s*ish)$/.exec(text);
  if (about?.[1]) return marked(oneDate(about[1], reading), '~');
  const doubtful = /^(?:maybe|perhaps|possibly|probably)\s+(.+)$/.exec(text) ?? /^(.+?)\s*\?$/.exec(text);
  if (doubtful?.[1]) return marked(oneDate(doubtful[1], reading), '?');
  return (
    decadeOrCentury(text, reading) ??
    partOf(text, reading) ??
    relative(text, reading) ??
    inFigures(text, reading) ??
    inMonths(text, reading)
  );
}

const marked = (told: Told | undefined, mark: '~' | '?'): Told | undefined =>
  told === undefined || told.edtf.startsWith('[')
    ? told
    : {
        from: told.from + mark,
        to: told.to + mark,
        edtf: told.edtf.includes('/') ? `${told.from}${mark}/${told.to}${mark}` : told.edtf + mark,
      };

/** `1930s`, `the '30s`, `19th century`. */
function decadeOrCentury(text: string, reading: Reading): Told | undefined {
  const decade = /^(?:the\s+)?(\d{3})0'?s$/.exec(text);
  if (decade?.[1]) return { edtf: `${decade[1]}X`, from: `${decade[1]}0`, to: `${decade[1]}9` };
  const short = /^(?:the\s+)?'?(\d)0'?s$/.exec(text);
  if (short?.[1]) {
    const ten = yearOf(`${short[1]}0`, { ...reading, short: true })?.slice(0, 3);
    return ten === undefined ? undefined : { edtf: `${ten}X`, from: `${ten}0`, to: `${ten}9` };
  }
  const nth = /^(?:the\s+)?(\d{1,2})(?:st|nd|rd|th)\s+(?:century|c\.?)$/.exec(text);
  if (!nth?.[1]) return undefined;
  const hundreds = two(Number(nth[1]) - 1);
  return { edtf: `${hundreds}XX`, from: `${hundreds}00`, to: `${hundreds}99` };
}

const PART =
  /^(?:the\s+)?(early|earlier|first|beginning|start|mid|middle|late|later|second|last|latter|end)(?:\s+(half|part|years?))?(?:\s+of)?[\s-]+(?:the\s+)?(.+)$/;
const FIRST = ['early', 'earlier', 'first', 'beginning', 'start'];
const MIDDLE = ['mid', 'middle'];

/** `early 1930s`, `later half of 2009`, `end of 1944`: which part of the whole, by its tenths, months or years. */
function partOf(text: string, reading: Reading): Told | undefined {
  const [, which, kind, rest] = PART.exec(text) ?? [];
  if (which === undefined || rest === undefined) return undefined;
  const whole =
    decadeOrCentury(rest, reading) ?? (/^'?\d{2,4}$/.test(rest) ? inMonths(rest, reading) : undefined);
  if (!whole) return undefined;
  const at = FIRST.includes(which) ? 0 : MIDDLE.includes(which) ? 1 : 2;
  if (whole.edtf.endsWith('XX')) {
    const [from, to] = kind === 'half' ? HALVES_OF_100[at] : PARTS_OF_100[at];
    return between(`${whole.from.slice(0, 2)}${two(from)}`, `${whole.from.slice(0, 2)}${two(to)}`);
  }
  if (whole.edtf.endsWith('X')) {
    const ten = whole.edtf.slice(0, 3);
    const [from, to] = kind === 'half' ? HALVES_OF_10[at] : PARTS_OF_10[at];
    return { edtf: `[${ten}${from}..${ten}${to}]`, from: `${ten}${from}`, to: `${ten}${to}` };
  }
  if (!/^\d{4}$/.test(whole.edtf)) return undefined;
  const quarter = which === 'beginning' || which === 'start' || which === 'end';
  const [from, to] = kind === 'half' ? HALVES_OF_12[at] : quarter ? QUARTERS[at] : PARTS_OF_12[at];
  return between(`${whole.edtf}-${two(from)}`, `${whole.edtf}-${two(to)}`);
}

type Parts = readonly [readonly [number, number], readonly [number, number], readonly [number, number]];
const PARTS_OF_10: Parts = [
  [0, 3],
  [4, 6],
  [7, 9],
];
const HALVES_OF_10: Parts = [
  [0, 4],
  [3, 6],
  [5, 9],
];
const PARTS_OF_12: Parts = [
  [1, 4],
  [5, 8],
  [9, 12],
];
const HALVES_OF_12: Parts = [
  [1, 6],
  [4, 9],
  [7, 12],
];
const QUARTERS: Parts = [
  [1, 3],
  [5, 8],
  [10, 12],
];
const PARTS_OF_100: Parts = [
  [0, 29],
  [30, 69],
  [70, 99],
];
const HALVES_OF_100: Parts = [
  [0, 49],
  [25, 74],
  [50, 99],
];

const DAYS_AGO: Readonly<Record<string, number>> = { today: 0, yesterday: 1, 'the day before yesterday': 2 };

function relative(text: string, { today }: Reading): Told | undefined {
  if (today === undefined) return undefined;
  const ago = DAYS_AGO[text] ?? (/^(\d{1,3}) days? ago$/.exec(text)?.[1] as number | undefined);
  if (ago !== undefined)
    return exactly(isoOf(asDay(Math.floor(Date.parse(today) / 86_400_000) - Number(ago))));
  const year = Number(today.slice(0, 4));
  if (text === 'this year') return exactly(String(year));
  return text === 'last year' ? exactly(String(year - 1)) : undefined;
}

/** `12/09/2026`, `3.4.36`: in the order the shop writes days. */
function inFigures(text: string, reading: Reading): Told | undefined {
  const [, a, b, y] = /^(\d{1,2})[./-](\d{1,2})[./-]'?(\d{2}|\d{4})$/.exec(text) ?? [];
  const year = yearOf(y, { ...reading, short: true });
  if (a === undefined || b === undefined || year === undefined) return undefined;
  const orders = [
    [a, b],
    [b, a],
  ] as const;
  const [first, second] = reading.dayFirst === false ? [orders[1], orders[0]] : orders;
  const isDay = ([day, month]: readonly [string, string]) =>
    Number(month) >= 1 && Number(month) <= 12 && Number(day) >= 1 && Number(day) <= 31;
  const taken = isDay(first) ? first : isDay(second) ? second : undefined;
  return taken && exactly(`${year}-${two(Number(taken[1]))}-${two(Number(taken[0]))}`);
}

const SEASONS: Readonly<Record<string, string>> = { spring: '21', summer: '22', autumn: '23', fall: '23' };

/** `1936`, `April 1936`, `3 April 36`, `summer 1952`. */
function inMonths(text: string, reading: Reading): Told | undefined {
  const words = text
    .replace(/,|\bof\b/g, ' ')
    .split(/\s+/)
    .filter(Boolean);
  const year = yearOf(words.at(-1), reading);
  if (year === undefined) return undefined;
  if (words.length === 1) return exactly(year);
  const season = SEASONS[words[0] ?? ''];
  if (season !== undefined && words.length === 2) return exactly(`${year}-${season}`);
  const month = words.map(monthNumber).find((m) => m !== undefined);
  if (month === undefined) return undefined;
  const dayWord =
    words.length === 3 ? words.slice(0, 2).find((w) => /^\d{1,2}(st|nd|rd|th|\.)?$/.test(w)) : undefined;
  if (words.length === 3 && dayWord === undefined) return undefined;
  return exactly(dayWord ? `${year}-${two(month)}-${two(parseInt(dayWord, 10))}` : `${year}-${two(month)}`);
}

/** Four figures, or two: of the century that was said before, else, where `short` allows it, of the last that is not ahead. */
function yearOf(
  word: string | undefined,
  { century, today, short }: Reading & { readonly short?: boolean },
): string | undefined {
  if (word === undefined) return undefined;
  if (/^\d{4}$/.test(word)) return word;
  const two = /^'?(\d{2})$/.exec(word)?.[1];
  if (two === undefined) return undefined;
  if (century !== undefined) return String(century + Number(two));
  if (short !== true) return undefined;
  const latest = today === undefined ? 2000 : Number(today.slice(0, 4));
  const inThis = Math.floor(latest / 100) * 100 + Number(two);
  return String(inThis <= latest ? inThis : inThis - 100);
}

/** @param wholeYears whether the first day of a year, and the last of one, are told by the year alone */
function dayInWords(day: Day, end: 'first' | 'last' | 'day', words: TellsDates, wholeYears = true): string {
  const { year, month, day: d } = calendarOf(day);
  const next = calendarOf((day + 1) as Day);
  const name = monthIn(words, month);
  if ((end === 'first' && d === 1) || (end === 'last' && next.day === 1)) {
    const isYear = wholeYears && (end === 'first' ? month === 1 : next.month === 1);
    return isYear ? String(year) : sayDate(words, 'month', { month: name, year });
  }
  return sayDate(words, 'day', { day: d, month: name, year });
}

/** From the first day of a year to the last of one: told by years, where both ends are. */
const isWholeYears = ({ from, to }: Span): boolean => {
  const [first, after] = [calendarOf(from), calendarOf((to + 1) as Day)];
  return first.month === 1 && first.day === 1 && after.month === 1 && after.day === 1;
};

/** `Sep 1934 – Feb 1936`, `Jan 1936`, `before 1940`, `1934`. */
export function spanInWords(span: Span, words: TellsDates = ENGLISH_DATES): string {
  if (isEmpty(span)) return sayDate(words, 'none');
  const openStart = !Number.isFinite(span.from);
  const openEnd = !Number.isFinite(span.to);
  if (openStart && openEnd) return sayDate(words, 'any');
  if (openStart) return sayDate(words, 'until', { day: dayInWords(span.to, 'last', words) });
  if (openEnd) return sayDate(words, 'from', { day: dayInWords(span.from, 'first', words) });
  if (span.from === span.to) return dayInWords(span.from, 'day', words);
  const years = isWholeYears(span);
  const from = dayInWords(span.from, 'first', words, years);
  const to = dayInWords(span.to, 'last', words, years);
  return from === to ? from : `${from} – ${to}`;
}

/** A period echoed as it was understood: qualifiers in words, sets as a hull. */
export function periodInWords(period: Period, words: TellsDates = ENGLISH_DATES): string {
  const hull = { from: period.start.earliest, to: period.end.latest };
  const { start, end } = period;
  const about = (qualified: boolean, date: string) => (qualified ? sayDate(words, 'about', { date }) : date);
  // a doubt belongs to the side it was said of
  if (start.qualified !== end.qualified && Number.isFinite(hull.from) && Number.isFinite(hull.to))
    return sayDate(words, 'sides', {
      from: about(start.qualified, dayInWords(hull.from, 'first', words, !start.namesMonth)),
      to: about(end.qualified, dayInWords(hull.to, 'last', words, !end.namesMonth)),
    });
  const said = about(start.qualified || end.qualified, spanInWords(hull, words));
  return period.strict.length > 1 ? sayDate(words, 'gaps', { date: said }) : said;
}

/** The words for an EDTF text that was checked on its way in, or the text itself if it is not EDTF. */
export function edtfInWords(text: string, words: TellsDates = ENGLISH_DATES): string {
  const parsed = parsePeriod(text);
  return parsed.ok ? periodInWords(parsed.value, words) : text;
}

/** ISO 8601 durations of years and months (`P6M`, `P1Y`, `P1Y6M`) to months. */
export function parseMonths(text: string): Result<number, DateProblem> {
  const match = /^P(?:(\d+)Y)?(?:(\d+)M)?$/.exec(text);
  if (!match || (match[1] === undefined && match[2] === undefined))
    return fail({
      kind: 'malformed-date',
      text,
      message: `“${text}” is not a duration in years and months; write P6M or P1Y`,
    });
  return succeed(Number(match[1] ?? 0) * 12 + Number(match[2] ?? 0));
}
