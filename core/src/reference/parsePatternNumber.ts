/** Pattern stamps such as 3262HS: segments by table or digits, every complete way to read them. */
import type { ImpliedFeature, PatternNumberCode, Segment } from './pack.ts';

export interface PatternNumberParse {
  readonly implies: readonly ImpliedFeature[];
  /** the pattern's digits as stamped, if a segment names them */
  readonly patternNumber: string | undefined;
}

/** Readings kept at most; a real stamp has one to three. */
const MOST_PARSES = 64;

/**
 * Blanks are dropped and letters raised first; the text must be used up by the segments.
 * @returns every complete parse, empty when the stamp does not follow the grammar
 */
export function parsePatternNumber(code: PatternNumberCode, text: string): PatternNumberParse[] {
  const stamp = text.replace(/\s+/g, '').toUpperCase();
  const found: PatternNumberParse[] = [];
  const walk = (at: number, index: number, repeated: boolean, soFar: PatternNumberParse): void => {
    if (found.length >= MOST_PARSES) return;
    const segment = code.segments[index];
    if (!segment) {
      if (at === stamp.length) found.push(soFar);
      return;
    }
    if (segment.optional || repeated) walk(at, index + 1, false, soFar);
    for (const [length, next] of stepsOf(segment, stamp, at)) {
      const joined = {
        implies: [...soFar.implies, ...next.implies],
        patternNumber: next.patternNumber ?? soFar.patternNumber,
      };
      if (segment.repeat) walk(at + length, index, true, joined);
      else walk(at + length, index + 1, false, joined);
    }
  };
  walk(0, 0, false, { implies: [], patternNumber: undefined });
  return found;
}

function* stepsOf(segment: Segment, stamp: string, at: number): Generator<[number, PatternNumberParse]> {
  for (const [key, implied] of Object.entries(segment.table ?? {})) {
    const sign = key.toUpperCase();
    if (sign !== '' && stamp.startsWith(sign, at))
      yield [sign.length, { implies: [implied], patternNumber: undefined }];
  }
  if (segment.digits != null) {
    const [least = 0, most = least] = String(segment.digits).split('-').map(Number);
    for (let length = least; length <= most; length++) {
      const digits = stamp.slice(at, at + length);
      if (digits.length !== length || !/^\d+$/.test(digits)) continue;
      yield [
        length,
        {
          implies: segment.feature == null ? [] : [{ feature: segment.feature, value: Number(digits) }],
          patternNumber: segment.pattern ? digits : undefined,
        },
      ];
    }
  }
}
