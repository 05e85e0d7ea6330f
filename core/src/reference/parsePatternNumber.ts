/** Pattern stamps such as 3262HS: segments by table, literals or digits, every complete way to read them. */
import type { ImpliedFeature, PatternNumberCode, Segment } from './pack.ts';

export interface PatternNumberParse {
  readonly implies: readonly ImpliedFeature[];
  /** the pattern's digits as stamped, if a segment names them */
  readonly patternNumber: string | undefined;
}

export interface PatternNumberReading {
  /** every complete parse; empty when the stamp does not follow the grammar to its end */
  readonly parses: readonly PatternNumberParse[];
  /** of a stamp that is not used up: the facts of the longest beginning that parses, and the rest as it stands */
  readonly partly: (PatternNumberParse & { readonly unread: string }) | undefined;
}

/** Readings kept at most; a real stamp has one to three. */
const MOST_PARSES = 64;
/** Steps taken at most, so that a grammar of many repeated signs ends on any text. */
const MOST_STEPS = 20_000;

interface Beginning {
  readonly at: number;
  readonly parse: PatternNumberParse;
}

/**
 * Blanks are dropped and letters raised first; hyphens count only where a segment asks for them. Of the signs of one
 * table that stand at a place the longest wins, unless it leads nowhere.
 * @param isPattern which numbers name a pattern: of several beginnings one that names a pattern is told before a
 * longer one that does not
 */
export function parsePatternNumber(
  code: PatternNumberCode,
  text: string,
  isPattern: (number: string) => boolean = () => true,
): PatternNumberReading {
  const stamp = text.replace(/\s+/g, '').toUpperCase();
  const found: PatternNumberParse[] = [];
  let furthest: Beginning | undefined;
  let steps = 0;
  const names = (parse: PatternNumberParse) =>
    parse.patternNumber !== undefined && isPattern(parse.patternNumber) ? 1 : 0;
  const reached = (at: number, parse: PatternNumberParse) => {
    if (at === 0) return;
    const better = furthest ? names(parse) - names(furthest.parse) || at - furthest.at : 1;
    if (better > 0) furthest = { at, parse };
  };
  /** @returns whether some complete parse lies this way */
  const walk = (at: number, index: number, repeated: boolean, soFar: PatternNumberParse): boolean => {
    if (found.length >= MOST_PARSES || ++steps > MOST_STEPS) return false;
    reached(at, soFar);
    const segment = code.segments[index];
    if (!segment) {
      if (afterHyphens(stamp, at) !== stamp.length) return false;
      found.push(soFar);
      return true;
    }
    let complete = false;
    if (segment.optional || repeated) complete = walk(at, index + 1, false, soFar);
    const step = (to: number, next: PatternNumberParse) => {
      const joined = {
        implies: [...soFar.implies, ...next.implies],
        patternNumber: next.patternNumber ?? soFar.patternNumber,
      };
      return segment.repeat ? walk(to, index, true, joined) : walk(to, index + 1, false, joined);
    };
    for (const signs of signsAt(segment, stamp, at))
      // a shorter sign only where the longer one leads nowhere
      if (step(signs.to, signs.parse)) {
        complete = true;
        break;
      }
    for (const digits of digitsAt(segment, stamp, at)) complete = step(digits.to, digits.parse) || complete;
    return complete;
  };
  walk(0, 0, false, NOTHING);
  const most = furthest as Beginning | undefined;
  return {
    parses: found,
    partly:
      found.length > 0 || !most
        ? undefined
        : { ...most.parse, unread: stamp.slice(afterHyphens(stamp, most.at)) },
  };
}

const NOTHING: PatternNumberParse = { implies: [], patternNumber: undefined };

interface Step {
  readonly to: number;
  readonly parse: PatternNumberParse;
}

function afterHyphens(stamp: string, at: number): number {
  let to = at;
  while (stamp[to] === '-') to++;
  return to;
}

/** Where a sign that begins here ends; undefined when it does not stand here. */
function endOf(sign: string, stamp: string, at: number): number | undefined {
  let to = at;
  for (const letter of sign) {
    if (letter !== '-') to = afterHyphens(stamp, to);
    if (stamp[to] !== letter) return undefined;
    to++;
  }
  return to;
}

/** A literal, or the signs of a table that stand here, the longest first. */
function signsAt(segment: Segment, stamp: string, at: number): Step[] {
  if (segment.literal != null) {
    const to = endOf(segment.literal.replace(/\s+/g, '').toUpperCase(), stamp, at);
    return to === undefined ? [] : [{ to, parse: NOTHING }];
  }
  return Object.entries(segment.table ?? {})
    .flatMap(([key, implied]): Step[] => {
      const sign = key.replace(/\s+/g, '').toUpperCase();
      const to = sign === '' ? undefined : endOf(sign, stamp, at);
      return to === undefined ? [] : [{ to, parse: { implies: [implied], patternNumber: undefined } }];
    })
    .sort((a, b) => b.to - a.to);
}

function* digitsAt(segment: Segment, stamp: string, at: number): Generator<Step> {
  if (segment.digits == null) return;
  const [least = 0, most = least] = String(segment.digits).split('-').map(Number);
  const from = afterHyphens(stamp, at);
  for (let length = least; length <= most; length++) {
    const digits = stamp.slice(from, from + length);
    if (digits.length !== length || !/^\d+$/.test(digits)) continue;
    yield {
      to: from + length,
      parse: {
        implies: segment.feature == null ? [] : [{ feature: segment.feature, value: Number(digits) }],
        patternNumber: segment.pattern ? digits : undefined,
      },
    };
  }
}
