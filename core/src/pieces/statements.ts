/**
 * Everything that is known of a piece, as statements: each with its kind, what it rests on, and whether a buyer must be
 * told. Listing, condition report and certificate are views of the same statements, so that none can forget one.
 */
import type {
  CodeAnswer,
  IdentifyAnswer,
  MakingClash,
  Observation,
  ReferenceIndex,
  Row,
  Tier,
} from '../bench/index.ts';
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
import { edtfInWords, type Span } from '../dates/index.ts';
import { NO_CONTRADICTION, trailOf, type CustodyEvent, type TrailContext } from '../provenance/index.ts';
import type { Construction, FeatureReading } from '../reference/index.ts';
import { dimensionOfUnit, formatQuantity } from '../units/index.ts';

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
  'trail',
  'not-examined',
  'not-excluded',
  'question',
  'mark',
  'feature',
  'measure',
  'refuted',
] as const;
export type StatementKind = (typeof STATEMENT_KINDS)[number];

export interface Statement {
  readonly kind: StatementKind;
  readonly text: string;
  /** what it rests on: seen on the piece, told by the reference, judged by the shop, told by others, not known */
  readonly basis: 'seen' | 'reference' | 'judged' | 'told' | 'unknown';
  /** how far it bears: an unsure look, and a name on one person’s word, are not facts */
  readonly strength: 'sure' | 'likely' | 'weak';
  /** the source in the reference that says so, where one does */
  readonly source: { readonly title: string; readonly page: string | null } | null;
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
  readonly custody: readonly CustodyEvent[];
  /** what the trail is held against: documents, the shop’s own day, bodies and their names */
  readonly trailContext: TrailContext;
  /** when it was made, where that is known */
  readonly made: Span | undefined;
  /** days since 1970 */
  readonly today: number;
  /** why what it is offered as is not proved */
  readonly unproved: readonly string[];
  readonly clash: MakingClash | null;
  readonly madeByJudgement: { readonly made: string; readonly reason: string } | null;
  /** what overrules evidence that speaks for an imitation; null where nothing was overruled */
  readonly overruled: { readonly evidence: string } | null;
}

export function statementsOf(known: KnownOfPiece): Statement[] {
  const told = (
    kind: StatementKind,
    basis: Statement['basis'],
    texts: readonly string[],
    strength: Statement['strength'] = 'sure',
  ): Statement[] => texts.map((text) => ({ kind, text, basis, strength, source: null, disclose: true }));
  return [
    ...told('attribution', 'judged', overruling(known), 'weak'),
    ...told('edition', 'seen', editionLines(known)),
    ...told('date', 'judged', dateLines(known), 'likely'),
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
    ...told('part', 'judged', partLines(known), 'likely'),
    ...told('treatment', 'seen', known.treatments.map(treatmentInWords)),
    ...told('history', 'judged', historyLines(known), 'likely'),
    ...told('trail', 'told', trailLines(known), 'weak'),
    ...told('not-examined', 'unknown', notExaminedLines(known)),
    ...told('not-excluded', 'unknown', known.unproved, 'weak'),
    ...told(
      'question',
      'unknown',
      known.openQuestions.map((q) => `Not explained: ${q}`),
    ),
    ...known.observations.flatMap((o) => [
      ...markLine(known, o),
      ...featureLine(known, o),
      ...measureLine(known, o),
    ]),
    ...refutedStories(known),
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

const DONE = { 're-issue': 'Issued again', 're-work': 'Re-worked', conversion: 'Converted' } as const;

/** What happened to the piece after it was made, and whether its numbers belong together. */
function historyLines({ index, answer, claimed }: KnownOfPiece): string[] {
  // what only follows from being a variant is said of that variant only
  const told = answer.history.filter(
    (e) => !('variant' in e.because) || e.because.variant === claimed?.variant.id,
  );
  const events = told.map((event) => {
    const from = event.from.map((f) => index.variants.get(f.variant)?.variant.name ?? f.variant);
    const changed = event.changed.map((id) => (index.features.get(id)?.label ?? id).toLowerCase());
    return [
      DONE[event.what],
      from.length > 0 && `from ${from.join(' or ')}`,
      event.window !== null && edtfInWords(event.window),
      changed.length > 0 && `(${changed.join(', ')} changed)`,
    ]
      .filter((part) => part !== false)
      .join(' ');
  });
  const { numbers } = answer;
  const parts = numbers?.parts.map((p) => p.part).join(', ') ?? '';
  if (numbers?.verdict === 'matching') events.push(`The numbers on ${parts} match`);
  if (numbers?.verdict === 'differing') events.push(`The numbers on ${parts} differ`);
  return events;
}

/** Where the record of owners contradicts itself; a gap is no contradiction, and private owners are not named. */
function trailLines({ custody, made, today, trailContext }: KnownOfPiece): string[] {
  const masked = custody.map((e) =>
    e.private ? { ...e, holder: e.place ? `a private collection, ${e.place}` : 'a private collection' } : e,
  );
  return trailOf(masked, made, today, trailContext)
    .problems.filter((p) => !NO_CONTRADICTION.has(p.kind))
    .map((p) => `The record of its owners contradicts itself: ${p.detail}`);
}

const strengthOf = (o: Observation): Statement['strength'] =>
  'certainty' in o && o.certainty === 'unsure' ? 'weak' : 'sure';
const unsure = (o: Observation): string => (strengthOf(o) === 'weak' ? ' (not read for certain)' : '');

/** A stamp, code or number as it was read, and what that means by the reference. */
function markLine(known: KnownOfPiece, o: Observation): Statement[] {
  const { index } = known;
  const sourceOf = (of: { source?: string | null | undefined; page?: string | null | undefined }) => {
    const source = index.contents.sources.find((s) => s.id === of.source);
    return source ? { title: source.title, page: of.page ?? null } : null;
  };
  const line = (text: string, source: Statement['source']): Statement[] => [
    {
      kind: 'mark',
      text: `${text}${unsure(o)}`,
      basis: 'seen',
      strength: strengthOf(o),
      source,
      disclose: false,
    },
  ];
  if ('mark' in o) {
    const mark = index.marks.get(o.mark);
    if (!mark) return [];
    const used = mark.window == null ? '' : `, in use ${edtfInWords(mark.window)}`;
    return line(
      `Stamp “${mark.lines.join(' / ')}”${mark.place ? `, ${mark.place}` : ''}${used}`,
      sourceOf(mark),
    );
  }
  if ('number' in o) return line(`Number ${o.number} on the ${partInWords(o.part)}`, null);
  if (!('code' in o)) return [];
  const code = index.codes.get(o.code);
  if (!code) return [];
  const read =
    'text' in o
      ? `“${o.text}”`
      : Object.entries(o.reads)
          .map(
            ([id, value]) =>
              `${('reads' in code && code.reads.find((r) => r.id === id)?.label) || id} ${value}`,
          )
          .join(', ');
  const means = meaningOf(
    known,
    known.answer.codes.find((c) => c.code === o.code),
  );
  return line(
    `${code.title ?? capital(code.kind.replace('-', ' '))}: ${read}${means === '' ? '' : `, ${means}`}`,
    sourceOf(code),
  );
}

/** “of 1936”, “horn scales, drop point”; nothing where it could not be read. */
function meaningOf({ index }: KnownOfPiece, read: CodeAnswer | undefined): string {
  if (!read) return '';
  const years = read.readings.flatMap((r) => (r.window === null ? [] : [edtfInWords(r.window)]));
  const implied = (
    read.readings.length === 1 ? (read.readings[0]?.implies ?? []) : (read.partly?.implies ?? [])
  ).flatMap((fact) => {
    if ('pattern' in fact) return [index.patterns.get(fact.pattern)?.name ?? []].flat();
    const feature = index.features.get(fact.feature);
    const values = 'values' in fact ? fact.values : [fact.value];
    const words = values.map(
      (value) => feature?.values?.find((v) => v.id === value)?.label ?? asWords(value),
    );
    return feature ? [`${feature.label.toLowerCase()} ${words.join(' or ').toLowerCase()}`] : [];
  });
  return [years.length > 0 ? `of ${years.join(' or ')}` : '', ...implied]
    .filter((part) => part !== '')
    .join(', ');
}

/** What was seen of its features, for a buyer who asks; not what it has none of. */
function featureLine({ index }: KnownOfPiece, o: Observation): Statement[] {
  if (!('value' in o) || o.value === 'none') return [];
  const feature = index.features.get(o.feature);
  if (!feature) return [];
  const value = feature.values?.find((v) => v.id === o.value)?.label ?? asWords(o.value);
  return [
    {
      kind: 'feature',
      text: `${feature.label}: ${value}${unsure(o)}`,
      basis: 'seen',
      strength: strengthOf(o),
      source: null,
      disclose: false,
    },
  ];
}

function measureLine({ index }: KnownOfPiece, o: Observation): Statement[] {
  if (!('measure' in o)) return [];
  const feature = index.features.get(o.feature);
  const text = formatQuantity(o.measure, dimensionOfUnit(feature?.unit), o.resolution ?? 0.1);
  return [
    {
      kind: 'measure',
      text: `${feature?.label ?? o.feature}: ${text}`,
      basis: 'seen',
      strength: strengthOf(o),
      source: null,
      disclose: false,
    },
  ];
}

/** Told of its maker, its pattern or this form, and known to be wrong: never to be told again as true. */
function refutedStories({ index, claimed }: KnownOfPiece): Statement[] {
  return index.contents.stories.flatMap((story): Statement[] => {
    const ofThis =
      (story.variant != null && story.variant === claimed?.variant.id) ||
      (story.pattern != null && story.pattern === claimed?.pattern.id) ||
      (story.maker != null && story.maker === claimed?.pattern.maker);
    if (story.verdict !== 'refuted' || !ofThis) return [];
    const source = index.contents.sources.find((s) => s.id === story.source);
    return [
      {
        kind: 'refuted',
        text: `Refuted: “${story.told}”${story.because == null ? '' : ` ${story.because}`}`,
        basis: 'reference',
        strength: 'sure',
        source: source ? { title: source.title, page: story.page ?? null } : null,
        disclose: false,
      },
    ];
  });
}

const asWords = (value: FeatureReading) => String(value);
const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
