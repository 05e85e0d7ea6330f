/** Dates as people type them ("about 1935", "1934 to April 36") to EDTF, and EDTF back to words. */
import { fail, succeed, type Result } from '../result/index.ts';
import { ENGLISH, type Words } from '../words/index.ts';
import { calendarOf, isEmpty, type Day, type Span } from './day.ts';
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

/**
 * Reads a date as it is said in the trade. EDTF itself is accepted as well.
 * A two-digit year after a full one belongs to the same century ("1934 to April 36").
 */
export function parseSpokenDate(text: string): Result<Period, DateProblem> {
  const trimmed = text.trim();
  const asWritten = parsePeriod(trimmed);
  if (asWritten.ok) return asWritten;
  const edtf = spokenToEdtf(trimmed.toLowerCase());
  const parsed = edtf === undefined ? undefined : parsePeriod(edtf);
  if (parsed?.ok) return parsed;
  return fail({
    kind: 'malformed-date',
    text,
    message: `“${text}” is not understood as a date. Try 1934, about 1935, April 1936, 1934 to 1936, before 1940.`,
  });
}

function spokenToEdtf(text: string): string | undefined {
  const before = /^(?:before|until|up to|to|by)\s+(.+)$/.exec(text);
  if (before?.[1]) return prefixed('../', oneDate(before[1], undefined));
  const after = /^(?:after|since|from)\s+(.+?)(?:\s+on(?:wards)?)?$/.exec(text);
  const range =
    /^(?:from\s+|between\s+)?(.+?)\s*(?:\bto\b|\buntil\b|\band\b|–|—|(?<=\d)\s*-\s*(?=\d{4}\b)|\s-\s)\s*(.+)$/.exec(
      text,
    );
  if (range?.[1] && range[2]) {
    const from = oneDate(range[1], undefined);
    const century = from ? Number(from.slice(0, 2)) * 100 : undefined;
    const to = oneDate(range[2], century);
    return from && to ? `${from}/${to}` : undefined;
  }
  if (after?.[1]) {
    const start = oneDate(after[1], undefined);
    return start && `${start}/..`;
  }
  return oneDate(text, undefined);
}

const prefixed = (prefix: string, date: string | undefined) =>
  date === undefined ? undefined : prefix + date;

function oneDate(text: string, century: number | undefined): string | undefined {
  const about = /^(?:about|around|circa|ca\.?|c\.?|approx\.?)\s*(.+)$/.exec(text);
  if (about?.[1]) return suffixed(oneDate(about[1], century), '~');
  const doubtful = /^(?:maybe|perhaps|possibly)\s+(.+)$/.exec(text) ?? /^(.+?)\s*\?$/.exec(text);
  if (doubtful?.[1]) return suffixed(oneDate(doubtful[1], century), '?');
  const decade = /^(?:the\s+)?(\d{3})0'?s$/.exec(text);
  if (decade) return `${decade[1]}X`;
  const part = /^(early|mid|late)[\s-]+(?:the\s+)?(\d{3})0'?s$/.exec(text);
  if (part?.[1] && part[2]) {
    const [first, last] = part[1] === 'early' ? [0, 3] : part[1] === 'mid' ? [4, 6] : [7, 9];
    return `[${part[2]}${first}..${part[2]}${last}]`;
  }
  const words = text.replace(/,/g, ' ').split(/\s+/).filter(Boolean);
  const year = yearOf(words.at(-1), century);
  if (year === undefined) return undefined;
  if (words.length === 1) return year;
  const month = words.map(monthNumber).find((m) => m !== undefined);
  if (month === undefined) return undefined;
  const dayWord =
    words.length === 3 ? words.slice(0, 2).find((w) => /^\d{1,2}(st|nd|rd|th|\.)?$/.test(w)) : undefined;
  if (words.length === 3 && dayWord === undefined) return undefined;
  return dayWord ? `${year}-${two(month)}-${two(parseInt(dayWord, 10))}` : `${year}-${two(month)}`;
}

const suffixed = (date: string | undefined, mark: string) =>
  date === undefined || date.startsWith('[') ? date : date + mark;

function yearOf(word: string | undefined, century: number | undefined): string | undefined {
  if (word === undefined) return undefined;
  if (/^\d{4}$/.test(word)) return word;
  const short = /^'?(\d{2})$/.exec(word);
  return short?.[1] && century !== undefined ? String(century + Number(short[1])) : undefined;
}

const MONTH_KEYS = [1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12] as const;
const monthName = (month: number, words: Words): string => words.say(`months.${MONTH_KEYS[month - 1] ?? 12}`);

function dayInWords(day: Day, end: 'first' | 'last' | 'day', words: Words): string {
  const { year, month, day: d } = calendarOf(day);
  const next = calendarOf((day + 1) as Day);
  const name = monthName(month, words);
  if ((end === 'first' && d === 1) || (end === 'last' && next.day === 1)) {
    const isYear = end === 'first' ? month === 1 : next.month === 1;
    return isYear ? String(year) : words.say('dates.month', { month: name, year });
  }
  return words.say('dates.day', { day: d, month: name, year });
}

/** `Sep 1934 – Feb 1936`, `before 1940`, `1934`. */
export function spanInWords(span: Span, words = ENGLISH): string {
  if (isEmpty(span)) return words.say('dates.none');
  const openStart = !Number.isFinite(span.from);
  const openEnd = !Number.isFinite(span.to);
  if (openStart && openEnd) return words.say('dates.any');
  if (openStart) return words.say('dates.until', { day: dayInWords(span.to, 'last', words) });
  if (openEnd) return words.say('dates.from', { day: dayInWords(span.from, 'first', words) });
  if (span.from === span.to) return dayInWords(span.from, 'day', words);
  const from = dayInWords(span.from, 'first', words);
  const to = dayInWords(span.to, 'last', words);
  return from === to ? from : `${from} – ${to}`;
}

/** A period echoed as it was understood: qualifiers in words, sets as a hull. */
export function periodInWords(period: Period, words = ENGLISH): string {
  const hull = { from: period.start.earliest, to: period.end.latest };
  const { start, end } = period;
  const about = (qualified: boolean, date: string) => (qualified ? words.say('dates.about', { date }) : date);
  // a doubt belongs to the side it was said of
  if (start.qualified !== end.qualified && Number.isFinite(hull.from) && Number.isFinite(hull.to))
    return words.say('dates.sides', {
      from: about(start.qualified, dayInWords(hull.from, 'first', words)),
      to: about(end.qualified, dayInWords(hull.to, 'last', words)),
    });
  const said = about(start.qualified || end.qualified, spanInWords(hull, words));
  return period.strict.length > 1 ? words.say('dates.gaps', { date: said }) : said;
}

/** The words for an EDTF text that was checked on its way in, or the text itself if it is not EDTF. */
export function edtfInWords(text: string, words = ENGLISH): string {
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
