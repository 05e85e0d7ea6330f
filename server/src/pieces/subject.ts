/** What the market is asked of a piece, in the words of price rows. */
import { ALTERATIONS, VENUE_OF_SHOP, type Alteration, type ItemState } from '@jutbank/core/market';
import { MADE_AFTER, type VariantKind } from '@jutbank/core/reference';
import type { EstimateQuestion } from '@jutbank/contract/market';
import { todayIso } from '../clock/index.ts';
import { isSealed, type Assessment } from './assess.ts';
import type { PieceRecord } from './record.ts';
import { MADE_AFTER_WORDS, saidToBe } from './which.ts';

/** Candidates thinner than this are not priced one by one. */
const PRICED_FROM = 0.01;

const STATE_FOR_PRICE: Record<string, ItemState> = {
  original: 'original',
  service: 'later',
  later: 'later',
  period: 'later',
  reproduction: 'later',
  none: 'none',
  'not-applicable': 'not-applicable',
};

/** An item of a piece in the words of price rows; null where nothing was recorded. */
export const priceState = (record: PieceRecord, item: string): ItemState | null =>
  STATE_FOR_PRICE[record.completeness[item] ?? ''] ?? null;

/** The findings that count as alterations in price rows, each once. */
export const alterationsOf = (record: PieceRecord): Alteration[] =>
  [...new Set(record.findings.map((f) => f.defect))].filter((d): d is Alteration =>
    (ALTERATIONS as readonly string[]).includes(d),
  );

/** Kinds whose own sales say what they bring. */
const COPIES: ReadonlySet<VariantKind | undefined> = new Set([...MADE_AFTER, 'counterfeit']);

/** What the estimate is asked about; undefined while nothing says which pattern it is. */
export function subjectOf(
  record: PieceRecord,
  { index, answer, grade }: Assessment,
  currency: string,
): EstimateQuestion | undefined {
  const decided = record.attribution;
  // what was bought as made after something is not priced as that, until its own form stands in the reference
  const kind = index.variants.get(decided?.variant ?? '')?.variant.kind;
  if (record.intake.takenInAs !== null && !COPIES.has(kind)) return undefined;
  const leading = answer.candidates.filter((c) => c.probability > PRICED_FROM);
  const said = record.observations.length > 0 || saidToBe(record) !== undefined;
  const pattern = decided?.pattern ?? (said ? leading[0]?.pattern : undefined);
  if (pattern === undefined || !index.patterns.has(pattern)) return undefined;
  const ofPattern = leading.filter((c) => c.pattern === pattern);
  const together = ofPattern.reduce((sum, c) => sum + c.probability, 0);
  // once the pattern is decided only its forms are open
  const scale = decided?.pattern != null && together > 0 ? 1 / together : 1;
  const sure =
    decided?.variant != null &&
    (decided.tier === 'confirmed' || decided.tier === 'probable' || decided.tier === 'rejected');
  const variants = sure
    ? [{ variant: decided.variant ?? '', probability: 1 }]
    : ofPattern.map((c) => ({ variant: c.variant, probability: Math.min(1, c.probability * scale) }));
  const state = (item: string) => priceState(record, item);
  return {
    subject: {
      pattern,
      variants,
      // nobody could look inside a seal: as from the maker, but for what shows through it
      conditionIndex: record.inspected || isSealed(record) ? grade.conditionIndex : null,
      box: state('box'),
      papers: state('papers'),
      sheath: state('sheath') ?? state('scabbard'),
      alterations: alterationsOf(record),
    },
    asOf: todayIso(),
    currency,
    venueKind: VENUE_OF_SHOP,
  };
}

/** Why a piece has no estimate: there is nothing to ask the market about. */
export const whyNoEstimate = ({ intake: { takenInAs } }: PieceRecord): string =>
  takenInAs === null
    ? 'Nothing says yet which pattern it is: look at it on the bench, or decide.'
    : `${MADE_AFTER_WORDS[takenInAs]} is not worth what the original is: decide which one it is, once its form stands in the reference.`;
