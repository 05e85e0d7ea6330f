/** Running numbers: a format that is matched in linear time, whatever text it is held against. */
import { RE2JS } from 're2js';
import type { SerialCode } from './pack.ts';

export interface SerialReading {
  readonly number: number;
  /** the size of the run as it stands beside the number, where the format has a place for it */
  readonly run: number | undefined;
}

const compiled = new Map<string, RE2JS | undefined>();
const CACHE_LIMIT = 500;

/** Undefined where the format is no regular expression, or one that cannot be matched in linear time. */
function patternOf(format: string): RE2JS | undefined {
  if (compiled.has(format)) return compiled.get(format);
  let pattern: RE2JS | undefined;
  try {
    pattern = RE2JS.compile(format);
  } catch {
    pattern = undefined;
  }
  if (compiled.size >= CACHE_LIMIT) compiled.clear();
  compiled.set(format, pattern);
  return pattern;
}

/** Why a format cannot be used; undefined when it can. @param group the last capture group that is asked for */
export function whyNotAFormat(format: string, group: number): string | undefined {
  const pattern = patternOf(format);
  if (!pattern)
    return 'this is not a regular expression, or one that looks back or ahead, which is not supported';
  const groups = pattern.groupCount();
  return group > groups ? `the format has ${groups} groups, not ${group}` : undefined;
}

const numberIn = (text: string | null | undefined): number | undefined => {
  const n = text == null || text === '' ? NaN : Number(text.replace(/[ ,.’']/g, ''));
  return Number.isInteger(n) ? n : undefined;
};

/** The running number of a serial; undefined when the text does not have the code's format. */
export function readSerial(code: SerialCode, text: string): SerialReading | undefined {
  const matcher = patternOf(code.format)?.matcher(text.trim());
  if (!matcher?.find()) return undefined;
  const groups = matcher.groupCount();
  const number = code.number <= groups ? numberIn(matcher.group(code.number)) : undefined;
  if (number === undefined) return undefined;
  const told = code.runGroup != null && code.runGroup <= groups ? matcher.group(code.runGroup) : undefined;
  return { number, run: numberIn(told) };
}
