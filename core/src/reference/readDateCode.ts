/** Date codes: counted signs, letters, digits and serial ranges to the years they stand for. */
import { fail, succeed, type InputProblem, type Result } from '../result/index.ts';
import type { CodeRead, CodeRule, DateCode, YearRule } from './pack.ts';

export interface DateReading {
  /** EDTF */
  readonly window: string;
}

export type Reads = Readonly<Record<string, string | number>>;

/**
 * All readings of a stamp. A read that was not given excludes nothing; one that no rule covers gives none.
 * @returns a problem with a pointer such as `/reads/ticks` for a read outside its range or values
 */
export function readDateCode(code: DateCode, reads: Reads): Result<DateReading[], InputProblem> {
  const known = new Map(code.reads.map((r) => [r.id, r]));
  for (const [id, value] of Object.entries(reads)) {
    const read = known.get(id);
    if (!read) return fail({ pointer: `/reads/${id}`, message: `${code.id} has no read “${id}”` });
    const wrong = whyNotARead(read, value);
    if (wrong) return fail({ pointer: `/reads/${id}`, message: wrong });
  }
  const windows = new Set<string>();
  for (const rule of code.rules) {
    const agrees = Object.entries(rule.when ?? {}).every(
      ([id, value]) => reads[id] === undefined || String(reads[id]) === String(value),
    );
    if (agrees)
      for (const window of windowsOf(rule.year, reads, known)) windows.add(inItsMonth(rule, window, reads));
  }
  return succeed([...windows].map((window) => ({ window })));
}

function whyNotARead(read: CodeRead, value: string | number): string | undefined {
  if (read.type === 'choice')
    return read.values?.includes(String(value))
      ? undefined
      : `“${value}” is not one of ${(read.values ?? []).join(', ')}`;
  const n = Number(value);
  if (!Number.isInteger(n)) return `${read.label} is counted: a whole number, not “${value}”`;
  if (read.min != null && n < read.min) return `${read.label}: at least ${read.min}, not ${n}`;
  if (read.max != null && n > read.max) return `${read.label}: at most ${read.max}, not ${n}`;
  return undefined;
}

/** EDTF writes the years before year 0 with a sign. */
const yearText = (year: number) => (year < 0 ? '-' : '') + String(Math.abs(year)).padStart(4, '0');

const PLAIN_YEAR = /^-?\d{4}$/;
/** The month of a plain year, where the rule tells one and its read was given and names one. */
function inItsMonth(rule: CodeRule, window: string, reads: Reads): string {
  const given = rule.month == null ? undefined : reads[rule.month.read];
  if (rule.month == null || given === undefined || !PLAIN_YEAR.test(window)) return window;
  const month = 'letters' in rule.month ? [...rule.month.letters].indexOf(String(given)) + 1 : Number(given);
  return month >= 1 && month <= 12 ? `${window}-${String(month).padStart(2, '0')}` : window;
}

/** One window for the value that was read; every window the rule can give when its read was not given. */
function windowsOf(rule: YearRule, reads: Reads, known: ReadonlyMap<string, CodeRead>): string[] {
  if ('plus' in rule) return valuesOf(rule.plus, reads, known).map((n) => yearText(rule.base + Number(n)));
  if ('minus' in rule) return valuesOf(rule.minus, reads, known).map((n) => yearText(rule.base - Number(n)));
  if ('letters' in rule) {
    const given = reads[rule.read];
    const letters = given === undefined ? [...rule.letters] : [String(given)];
    return letters
      .map((letter) => [...rule.letters].indexOf(letter))
      .filter((index) => index >= 0)
      .map((index) => yearText(rule.base + index));
  }
  if ('digits' in rule)
    return valuesOf(rule.digits, reads, known).map((n) => yearText(rule.century + Number(n)));
  const given = reads[rule.read];
  if ('ranges' in rule) {
    return rule.ranges
      .filter((r) => given === undefined || (Number(given) >= r.from && Number(given) <= r.to))
      .map((r) => r.window);
  }
  if (given === undefined) return Object.values(rule.table);
  const window = rule.table[String(given)];
  return window === undefined ? [] : [window];
}

function valuesOf(id: string, reads: Reads, known: ReadonlyMap<string, CodeRead>): (string | number)[] {
  const given = reads[id];
  if (given !== undefined) return [given];
  const read = known.get(id);
  if (!read) return [];
  if (read.type === 'choice') return read.values ?? [];
  if (read.max == null) return [];
  const from = read.min ?? 0;
  return Array.from({ length: read.max - from + 1 }, (_, i) => from + i);
}

/**
 * The same signs in the code's other arrangements: every choice that a rule asks for by name (which row, which
 * letterform, which side) takes its other values, while what is counted or spelled stays as it was read. Reading the
 * right count under the wrong arrangement is the commonest mistake.
 */
export function otherArrangements(code: DateCode, reads: Reads): Reads[] {
  const choosing = code.reads.filter(
    (r) =>
      r.type === 'choice' &&
      reads[r.id] !== undefined &&
      code.rules.some((rule) => rule.when?.[r.id] !== undefined) &&
      !code.rules.some((rule) => 'read' in rule.year && rule.year.read === r.id),
  );
  let all: Reads[] = [reads];
  for (const { id, values } of choosing)
    all = all.flatMap((one) => (values ?? []).map((value) => ({ ...one, [id]: value })));
  return all.filter((one) => choosing.some(({ id }) => String(one[id]) !== String(reads[id])));
}
