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
  sectionInWords,
  treatmentInWords,
  type Completeness,
  type Finding,
  type Inspection,
  type TreatmentDone,
} from '../condition/index.ts';
import { edtfInWords, type Span } from '../dates/index.ts';
import { NO_CONTRADICTION, trailOf, type CustodyEvent, type TrailContext } from '../provenance/index.ts';
import type { Construction, FeatureReading, MadeAfter } from '../reference/index.ts';
import { ENGLISH, type Words } from '../words/index.ts';
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
const AS_FOUND_TELLS = ['polished', 'cleaned', 'preserved-in-grease'] as const;

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
  /** what it was bought as, where that is not the original */
  readonly takenInAs: MadeAfter | null;
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

/** What is known, and the words it is told in. */
type Telling = KnownOfPiece & { readonly words: Words };

/** @param words names that the reference or the shop gave stay as they were given; all else is said in these */
export function statementsOf(of: KnownOfPiece, words = ENGLISH): Statement[] {
  const known: Telling = { ...of, words };
  const told = (
    kind: StatementKind,
    basis: Statement['basis'],
    texts: readonly string[],
    strength: Statement['strength'] = 'sure',
  ): Statement[] => texts.map((text) => ({ kind, text, basis, strength, source: null, disclose: true }));
  return [
    ...told('attribution', 'judged', overruling(known), 'weak'),
    // a form of that kind says so by itself
    ...told(
      'attribution',
      'told',
      known.takenInAs === null || known.claimed?.variant.kind === known.takenInAs
        ? []
        : [words.say(`takenInAs.${known.takenInAs}`)],
    ),
    ...told('edition', 'seen', editionLines(known)),
    ...told('date', 'judged', dateLines(known), 'likely'),
    ...told('sealed', 'seen', known.sealed ? [words.say('statement.sealed')] : []),
    ...told(
      'as-found',
      'seen',
      AS_FOUND_TELLS.filter((state) => state === known.asFound).map((state) => words.say(`asFound.${state}`)),
    ),
    ...told(
      'finding',
      'seen',
      known.findings.map((f) => findingInWords(f, words)),
    ),
    ...told('completeness', 'seen', completenessDisclosures(known.completeness, words)),
    ...told('part', 'judged', partLines(known), 'likely'),
    ...told(
      'treatment',
      'seen',
      known.treatments.map((t) => treatmentInWords(t, words)),
    ),
    ...told('history', 'judged', historyLines(known), 'likely'),
    ...told('trail', 'told', trailLines(known), 'weak'),
    ...told('not-examined', 'unknown', notExaminedLines(known)),
    ...told(
      'not-excluded',
      'unknown',
      known.unproved.map((why) => words.retold('unproved', why)),
      'weak',
    ),
    ...told(
      'question',
      'unknown',
      known.openQuestions.map((question) => words.say('statement.notExplained', { question })),
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

function overruling({ overruled, tier, words }: Telling): string[] {
  if (!overruled || tier === 'rejected') return [];
  return [
    words.say('statement.overruled', {
      ground:
        overruled.evidence === '' ? '' : words.say('statement.ground', { evidence: overruled.evidence }),
    }),
  ];
}

/** “88 of 1,200”, the index of an annual series, and for whom it was made. */
function editionLines({ observations, index, claimed, words }: Telling): string[] {
  const edition = claimed?.variant.edition;
  const numbers = observations.flatMap((o) =>
    'code' in o && 'text' in o && index.codes.get(o.code)?.kind === 'serial' ? [o.text] : [],
  );
  const shares = (edition?.split ?? []).map((s) => `${words.number(s.run)} ${s.of}`);
  return [
    ...numbers.map((number) =>
      edition?.run == null
        ? words.say('statement.number', { number })
        : words.say('statement.numberOfRun', { number, run: words.number(edition.run) }),
    ),
    ...(shares.length > 0 ? [words.say('statement.runSplit', { shares: shares.join(', ') })] : []),
    ...(edition?.index != null ? [words.say('statement.annual', { number: edition.index })] : []),
    ...(edition?.retailer ? [words.say('statement.retailer', { retailer: edition.retailer })] : []),
  ];
}

function dateLines({ clash, madeByJudgement, answer, words }: Telling): string[] {
  const lines: string[] = [];
  if (madeByJudgement)
    lines.push(
      words.say('statement.datedBy', {
        made: edtfInWords(madeByJudgement.made, words),
        reason: madeByJudgement.reason === '' ? '' : `: ${madeByJudgement.reason}`,
      }),
    );
  if (clash)
    lines.push(
      words.say('statement.clash', {
        window: edtfInWords(clash.window, words),
        bracket: edtfInWords(clash.bracket, words),
      }),
    );
  if (answer.dating.conflicts.length > 0) lines.push(words.say('statement.conflict'));
  return lines;
}

/** Parts that the claimed variant needs to have been exchanged, and parts that came from elsewhere. */
function partLines({ answer, claimed, movedParts, findings, words }: Telling): string[] {
  const of = answer.candidates.find((c) => c.variant === claimed?.variant.id);
  const said = new Set(findings.filter((f) => f.defect === 'replaced').map((f) => f.part.split(':')[0]));
  return [
    ...(of?.exchanged ?? [])
      .filter((part) => !said.has(part))
      .map((part) => words.say('statement.exchanged', { part: partInWords(part, words) })),
    ...movedParts,
    ...(answer.putTogether
      ? [
          words.say('statement.marriage', {
            pieces: answer.putTogether.pieces
              .map((p) => p.parts.map((part) => partInWords(part, words)).join(', '))
              .join(' / '),
          }),
        ]
      : []),
  ];
}

function notExaminedLines(known: Telling): string[] {
  const { words } = known;
  if (known.sealed || !known.inspected) return [];
  return skipped(known).map(({ id, steps }) =>
    words.say('statement.notExamined', {
      section: inSentence(sectionInWords(id, words), words),
      parts: [...new Set(steps.map((s) => inSentence(partInWords(s.part, words), words)))].join(', '),
    }),
  );
}

/** Nouns begin small within an English sentence, and stay as they are in a German one. */
const inSentence = (text: string, { language }: Words): string =>
  language === 'en' ? text.toLowerCase() : text;

/** What happened to the piece after it was made, and whether its numbers belong together. */
function historyLines({ index, answer, claimed, words }: Telling): string[] {
  // what only follows from being a variant is said of that variant only
  const told = answer.history.filter(
    (e) => !('variant' in e.because) || e.because.variant === claimed?.variant.id,
  );
  const events = told.map((event) => {
    const from = event.from.map((f) => index.variants.get(f.variant)?.variant.name ?? f.variant);
    const changed = event.changed.map((id) => (index.features.get(id)?.label ?? id).toLowerCase());
    return words.say(`history.${event.what}`, {
      from: from.length > 0 ? words.say('history.from', { variants: from.join(words.say('or')) }) : '',
      when: event.window === null ? '' : ` ${edtfInWords(event.window, words)}`,
      changed: changed.length > 0 ? words.say('history.changed', { features: changed.join(', ') }) : '',
    });
  });
  const { numbers } = answer;
  const parts = numbers?.parts.map((p) => partInWords(p.part, words)).join(', ') ?? '';
  if (numbers?.verdict === 'matching') events.push(words.say('statement.numbersMatch', { parts }));
  if (numbers?.verdict === 'differing') events.push(words.say('statement.numbersDiffer', { parts }));
  return events;
}

/** Where the record of owners contradicts itself; a gap is no contradiction, and private owners are not named. */
function trailLines({ custody, made, today, trailContext, words }: Telling): string[] {
  const masked = custody.map((e) =>
    e.private
      ? {
          ...e,
          holder: e.place
            ? words.say('trail.privateAt', { place: e.place })
            : words.say('trail.privateAnywhere'),
        }
      : e,
  );
  return trailOf(masked, made, today, { ...trailContext, words })
    .problems.filter((p) => !NO_CONTRADICTION.has(p.kind))
    .map((p) => words.say('trail.contradicts', { detail: p.detail }));
}

const strengthOf = (o: Observation): Statement['strength'] =>
  'certainty' in o && o.certainty === 'unsure' ? 'weak' : 'sure';
const unsure = (o: Observation, words: Words): string =>
  strengthOf(o) === 'weak' ? words.say('statement.unsure') : '';

/** A stamp, code or number as it was read, and what that means by the reference. */
function markLine(known: Telling, o: Observation): Statement[] {
  const { index, words } = known;
  const sourceOf = (of: { source?: string | null | undefined; page?: string | null | undefined }) => {
    const source = index.contents.sources.find((s) => s.id === of.source);
    return source ? { title: source.title, page: of.page ?? null } : null;
  };
  const line = (text: string, source: Statement['source']): Statement[] => [
    {
      kind: 'mark',
      text: `${text}${unsure(o, words)}`,
      basis: 'seen',
      strength: strengthOf(o),
      source,
      disclose: false,
    },
  ];
  if ('mark' in o) {
    const mark = index.marks.get(o.mark);
    if (!mark) return [];
    const used =
      mark.window == null ? '' : words.say('statement.inUse', { window: edtfInWords(mark.window, words) });
    return line(
      `${words.say('statement.stamp', { text: mark.lines.join(' / ') })}${mark.place ? `, ${words.name('place', mark.place)}` : ''}${used}`,
      sourceOf(mark),
    );
  }
  if ('number' in o)
    return line(
      words.say('statement.numberOn', { number: o.number, part: partInWords(o.part, words) }),
      null,
    );
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
    `${code.title ?? words.name('codeKind', code.kind)}: ${read}${means === '' ? '' : `, ${means}`}`,
    sourceOf(code),
  );
}

/** “of 1936”, “horn scales, drop point”; nothing where it could not be read. */
function meaningOf({ index, words }: Telling, read: CodeAnswer | undefined): string {
  if (!read) return '';
  const years = read.readings.flatMap((r) => (r.window === null ? [] : [edtfInWords(r.window, words)]));
  const implied = (
    read.readings.length === 1 ? (read.readings[0]?.implies ?? []) : (read.partly?.implies ?? [])
  ).flatMap((fact) => {
    if ('pattern' in fact) return [index.patterns.get(fact.pattern)?.name ?? []].flat();
    const feature = index.features.get(fact.feature);
    const values = 'values' in fact ? fact.values : [fact.value];
    const labels = values.map(
      (value) => feature?.values?.find((v) => v.id === value)?.label ?? asWords(value),
    );
    return feature ? [`${feature.label.toLowerCase()} ${labels.join(words.say('or')).toLowerCase()}`] : [];
  });
  return [
    years.length > 0 ? words.say('statement.of', { years: years.join(words.say('or')) }) : '',
    ...implied,
  ]
    .filter((part) => part !== '')
    .join(', ');
}

/** What was seen of its features, for a buyer who asks; not what it has none of. */
function featureLine({ index, words }: Telling, o: Observation): Statement[] {
  if (!('value' in o || 'other' in o)) return [];
  const seen = 'other' in o ? o.other : o.value;
  if (seen === 'none') return [];
  const feature = index.features.get(o.feature);
  if (!feature) return [];
  const value = 'other' in o ? o.other : (feature.values?.find((v) => v.id === seen)?.label ?? asWords(seen));
  return [
    {
      kind: 'feature',
      text: `${feature.label}: ${value}${unsure(o, words)}`,
      basis: 'seen',
      strength: strengthOf(o),
      source: null,
      disclose: false,
    },
  ];
}

function measureLine({ index, words }: Telling, o: Observation): Statement[] {
  if (!('measure' in o)) return [];
  const feature = index.features.get(o.feature);
  const text = formatQuantity(o.measure, dimensionOfUnit(feature?.unit), o.resolution ?? 0.1);
  return [
    {
      kind: 'measure',
      text: `${feature?.label ?? o.feature}: ${words.figure(text)}`,
      basis: 'seen',
      strength: strengthOf(o),
      source: null,
      disclose: false,
    },
  ];
}

/** Told of its maker, its pattern or this form, and known to be wrong: never to be told again as true. */
function refutedStories({ index, claimed, words }: Telling): Statement[] {
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
        text: words.say('statement.refuted', {
          told: story.told,
          because: story.because == null ? '' : ` ${story.because}`,
        }),
        basis: 'reference',
        strength: 'sure',
        source: source ? { title: source.title, page: story.page ?? null } : null,
        disclose: false,
      },
    ];
  });
}

const asWords = (value: FeatureReading) => String(value);
