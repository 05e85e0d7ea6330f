/**
 * Everything that is known of a piece, as statements: each with its kind, what it rests on, and whether a buyer must be
 * told. Listing, condition report and certificate are views of the same statements, so that none can forget one.
 */
import type { IdentifyAnswer, MakingClash, Observation, ReferenceIndex, Row, Tier } from '../bench/index.ts';
import {
  completenessDisclosures,
  findingInWords,
  inspectionFor,
  notExamined,
  partInWords,
  treatmentInWords,
  type Completeness,
  type Finding,
  type Inspection,
  type TreatmentDone,
} from '../condition/index.ts';
import { edtfInWords } from '../dates/index.ts';
import type { Construction, FeatureReading } from '../reference/index.ts';

export const STATEMENT_KINDS = [
  'attribution',
  'edition',
  'date',
  'sealed',
  'as-found',
  'finding',
  'completeness',
  'part',
  'treatment',
  'history',
  'not-examined',
  'question',
  'feature',
] as const;
export type StatementKind = (typeof STATEMENT_KINDS)[number];

export interface Statement {
  readonly kind: StatementKind;
  readonly text: string;
  /** what it rests on: seen on the piece, told by the reference, judged by the shop, not known */
  readonly basis: 'seen' | 'reference' | 'judged' | 'unknown';
  readonly disclose: boolean;
}

/** What came in such a state is told: it says what somebody did before the shop had it. */
const AS_FOUND_TELLS: Readonly<Record<string, string>> = {
  polished: 'It was polished before it came here',
  cleaned: 'It was cleaned before it came here',
  'preserved-in-grease': 'It came preserved in grease',
};

export interface KnownOfPiece {
  readonly index: ReferenceIndex;
  readonly construction: Construction;
  readonly observations: readonly Observation[];
  readonly answer: IdentifyAnswer;
  readonly tier: Tier;
  /** the variant it is offered as */
  readonly claimed: Row | undefined;
  readonly findings: readonly Finding[];
  readonly completeness: Completeness;
  readonly inspected: boolean;
  readonly inspection: Inspection;
  readonly treatments: readonly TreatmentDone[];
  readonly asFound: string | null;
  readonly sealed: boolean;
  /** parts that came from another piece, in words */
  readonly movedParts: readonly string[];
  readonly openQuestions: readonly string[];
  readonly clash: MakingClash | null;
  readonly madeByJudgement: { readonly made: string; readonly reason: string } | null;
  /** what overrules evidence that speaks for an imitation; null where nothing was overruled */
  readonly overruled: { readonly evidence: string } | null;
}

export function statementsOf(known: KnownOfPiece): Statement[] {
  const told = (kind: StatementKind, basis: Statement['basis'], texts: readonly string[]): Statement[] =>
    texts.map((text) => ({ kind, text, basis, disclose: true }));
  return [
    ...told('attribution', 'judged', overruling(known)),
    ...told('edition', 'seen', editionLines(known)),
    ...told('date', 'judged', dateLines(known)),
    ...told(
      'sealed',
      'seen',
      known.sealed ? ['It is sealed in its package and was not opened: nothing inside was examined'] : [],
    ),
    ...told(
      'as-found',
      'seen',
      AS_FOUND_TELLS[known.asFound ?? ''] ? [AS_FOUND_TELLS[known.asFound ?? ''] ?? ''] : [],
    ),
    ...told('finding', 'seen', known.findings.map(findingInWords)),
    ...told('completeness', 'seen', completenessDisclosures(known.completeness)),
    ...told('part', 'judged', partLines(known)),
    ...told('treatment', 'seen', known.treatments.map(treatmentInWords)),
    ...told('not-examined', 'unknown', notExaminedLines(known)),
    ...told(
      'question',
      'unknown',
      known.openQuestions.map((q) => `Not explained: ${q}`),
    ),
    ...featureLines(known),
  ];
}

/** How much of the piece was looked at: only a whole look may say that nothing was found. */
export function extentOfInspection(
  known: Pick<KnownOfPiece, 'construction' | 'inspected' | 'inspection' | 'findings' | 'sealed'>,
): 'none' | 'partly' | 'whole' {
  if (known.sealed || !known.inspected) return known.findings.length > 0 ? 'partly' : 'none';
  return skipped(known).length > 0 ? 'partly' : 'whole';
}

const skipped = ({
  construction,
  inspection,
  findings,
}: Pick<KnownOfPiece, 'construction' | 'inspection' | 'findings'>) =>
  notExamined(inspectionFor(construction, inspection), inspection, findings);

function overruling({ overruled, tier }: KnownOfPiece): string[] {
  if (!overruled || tier === 'rejected') return [];
  return [
    `Attributed by the appraiser${overruled.evidence === '' ? '' : ` on the ground of: ${overruled.evidence}`}; what was seen speaks for an imitation`,
  ];
}

/** “88 of 1,200”, the index of an annual series, and for whom it was made. */
function editionLines({ observations, index, claimed }: KnownOfPiece): string[] {
  const edition = claimed?.variant.edition;
  const numbers = observations.flatMap((o) =>
    'code' in o && 'text' in o && index.codes.get(o.code)?.kind === 'serial' ? [o.text] : [],
  );
  const shares = (edition?.split ?? []).map((s) => `${s.run.toLocaleString('en')} ${s.of}`);
  return [
    ...numbers.map((number) =>
      edition?.run == null
        ? `Number ${number}`
        : `Number ${number} of a run of ${edition.run.toLocaleString('en')}`,
    ),
    ...(shares.length > 0 ? [`The run was made as ${shares.join(', ')}`] : []),
    ...(edition?.index != null ? [`Number ${edition.index} of its annual series`] : []),
    ...(edition?.retailer ? [`Made for ${edition.retailer}`] : []),
  ];
}

function dateLines({ clash, madeByJudgement, answer }: KnownOfPiece): string[] {
  const lines: string[] = [];
  if (madeByJudgement)
    lines.push(
      `Dated ${edtfInWords(madeByJudgement.made)} by the appraiser${madeByJudgement.reason === '' ? '' : `: ${madeByJudgement.reason}`}`,
    );
  if (clash)
    lines.push(
      `Its form was made ${edtfInWords(clash.window)}, what was seen on it is of ${edtfInWords(clash.bracket)}`,
    );
  if (answer.dating.conflicts.length > 0) lines.push('What was seen on it cannot all be from one time');
  return lines;
}

/** Parts that the claimed variant needs to have been exchanged, and parts that came from elsewhere. */
function partLines({ answer, claimed, movedParts, findings }: KnownOfPiece): string[] {
  const of = answer.candidates.find((c) => c.variant === claimed?.variant.id);
  const said = new Set(findings.filter((f) => f.defect === 'replaced').map((f) => f.part.split(':')[0]));
  return [
    ...(of?.exchanged ?? [])
      .filter((part) => !said.has(part))
      .map((part) => `The ${part} seems to have been exchanged`),
    ...movedParts,
    ...(answer.putTogether
      ? [
          `Its parts seem to belong to two pieces: ${answer.putTogether.pieces.map((p) => p.parts.join(', ')).join(' / ')}`,
        ]
      : []),
  ];
}

function notExaminedLines(known: KnownOfPiece): string[] {
  if (known.sealed || !known.inspected) return [];
  return skipped(known).map(
    ({ section, steps }) =>
      `Not examined, ${section.toLowerCase()}: ${[...new Set(steps.map((s) => partInWords(s.part).toLowerCase()))].join(', ')}`,
  );
}

/** What was seen of its features, for a buyer who asks: not what it has none of, and measures stand with their sizes. */
function featureLines({ observations, index }: KnownOfPiece): Statement[] {
  return observations.flatMap((o): Statement[] => {
    if (!('value' in o) || o.value === 'none') return [];
    const feature = index.features.get(o.feature);
    if (!feature) return [];
    const value = feature.values?.find((v) => v.id === o.value)?.label ?? asWords(o.value);
    return [{ kind: 'feature', text: `${feature.label}: ${value}`, basis: 'seen', disclose: false }];
  });
}
const asWords = (value: FeatureReading) => String(value);
