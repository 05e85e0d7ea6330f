/** What documents say of a piece, each claim set against what was seen and what the record says. */
import { ENGLISH, type Words } from '../words/index.ts';
import type { Observation } from '../bench/index.ts';
import { edtfInWords, periodOf, spanInWords, type Span } from '../dates/index.ts';
import type { CustodyEvent } from './custody.ts';

export const DOCUMENT_KINDS = [
  'letter',
  'receipt',
  'photograph',
  'museum-record',
  'service-record',
  'package',
  'price-tag',
  'catalogue',
  'other',
] as const;
export type DocumentKind = (typeof DOCUMENT_KINDS)[number];

export const CLAIM_KINDS = ['feature', 'number', 'made', 'owner', 'other'] as const;
/** One thing that a document says of one piece. */
export type DocumentClaim =
  | { readonly kind: 'feature'; readonly feature: string; readonly value: string | number }
  | { readonly kind: 'number'; readonly number: string }
  /** EDTF */
  | { readonly kind: 'made'; readonly period: string }
  | { readonly kind: 'owner'; readonly holder: string; readonly period: string | null }
  | { readonly kind: 'other'; readonly says: string };

export type ClaimVerdict = 'agrees' | 'contradicts' | 'not-seen' | 'open';
export interface CheckedClaim {
  readonly verdict: ClaimVerdict;
  /** what stands against it, or with it, in words */
  readonly because: string;
}

export interface SeenOfPiece {
  readonly observations: readonly Observation[];
  readonly custody: readonly CustodyEvent[];
  readonly made: Span | undefined;
  /** a feature and a value of it in words */
  readonly featureInWords: (feature: string, value: string | number | boolean) => string;
}

const plain = (text: string): string => text.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, '');

/** A claim against what is known: what was not looked at neither agrees nor contradicts. */
export function checkClaim(claim: DocumentClaim, seen: SeenOfPiece, words = ENGLISH): CheckedClaim {
  switch (claim.kind) {
    case 'feature':
      return featureClaim(claim, seen, words);
    case 'number':
      return numberClaim(claim.number, seen, words);
    case 'made': {
      if (!seen.made) return { verdict: 'open', because: words.say('claims.nothingDates') };
      const period = periodOf(claim.period);
      const meets = period.start.earliest <= seen.made.to && seen.made.from <= period.end.latest;
      return {
        verdict: meets ? 'agrees' : 'contradicts',
        because: words.say('claims.madeSeen', { made: spanInWords(seen.made, words) }),
      };
    }
    case 'owner':
      return ownerClaim(claim, seen, words);
    case 'other':
      return { verdict: 'open', because: words.say('claims.toBeJudged') };
  }
}

function featureClaim(
  { feature, value }: Extract<DocumentClaim, { kind: 'feature' }>,
  { observations, featureInWords }: SeenOfPiece,
  words: Words,
): CheckedClaim {
  const observed = observations.flatMap((o) => ('value' in o && o.feature === feature ? [o.value] : []));
  if (observed.length === 0) return { verdict: 'not-seen', because: words.say('claims.notLooked') };
  return {
    verdict: observed.some((o) => String(o) === String(value)) ? 'agrees' : 'contradicts',
    because: words.say('claims.seen', { seen: observed.map((o) => featureInWords(feature, o)).join(', ') }),
  };
}

function numberClaim(number: string, { observations }: SeenOfPiece, words: Words): CheckedClaim {
  const struck = observations.flatMap((o) =>
    'number' in o ? [o.number] : 'text' in o && 'code' in o ? [o.text] : [],
  );
  if (struck.length === 0) return { verdict: 'not-seen', because: words.say('claims.noNumber') };
  return {
    verdict: struck.some((text) => plain(text) === plain(number)) ? 'agrees' : 'contradicts',
    because: words.say('claims.read', { read: struck.join(', ') }),
  };
}

function ownerClaim(
  { holder, period }: Extract<DocumentClaim, { kind: 'owner' }>,
  { custody }: SeenOfPiece,
  words: Words,
): CheckedClaim {
  const then = custody.filter((event) => {
    if (period === null) return true;
    const [a, b] = [periodOf(event.period), periodOf(period)];
    return a.start.earliest <= b.end.latest && b.start.earliest <= a.end.latest;
  });
  if (then.some((event) => plain(event.holder) === plain(holder)))
    return { verdict: 'agrees', because: words.say('claims.inRecord') };
  // only somebody who is known to have had it all that time speaks against another
  const other =
    period === null
      ? undefined
      : then.find((event) => {
          const [a, b] = [periodOf(event.period), periodOf(period)];
          return a.start.latest <= b.start.earliest && a.end.earliest >= b.end.latest;
        });
  return other
    ? {
        verdict: 'contradicts',
        because: words.say('claims.recordNames', {
          other: other.private ? words.say('claims.somebodyElse') : other.holder,
        }),
      }
    : { verdict: 'open', because: words.say('claims.notYetNamed') };
}

/** A claim in words, as its document makes it. */
export function claimInWords(
  claim: DocumentClaim,
  featureInWords: SeenOfPiece['featureInWords'],
  words = ENGLISH,
): string {
  switch (claim.kind) {
    case 'feature':
      return featureInWords(claim.feature, claim.value);
    case 'number':
      return words.say('claims.number', { number: claim.number });
    case 'made':
      return words.say('claims.made', { period: edtfInWords(claim.period, words) });
    case 'owner':
      return claim.period === null
        ? words.say('claims.had', { holder: claim.holder })
        : words.say('claims.hadThen', { holder: claim.holder, period: edtfInWords(claim.period, words) });
    case 'other':
      return claim.says;
  }
}
