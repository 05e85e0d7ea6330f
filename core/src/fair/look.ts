/** Which it is and when it was made, in what a small screen has room for; and what to look at next. */
import {
  checkQuestion,
  identify,
  searchReference,
  type Observation,
  type ReferenceHit,
  type ReferenceIndex,
  type Tier,
} from '../bench/index.ts';
import {
  noLongerNew,
  type AvailabilityOn,
  type CodeRead,
  type Construction,
  type Feature,
  type Mark,
  type Pattern,
} from '../reference/index.ts';
import type { InputProblem } from '../result/index.ts';

type Maybe<T> = T | null | undefined;

export interface LookQuestion {
  readonly observations: readonly Observation[];
  /** once it is picked only its forms are open */
  readonly pattern?: Maybe<string>;
}
export interface FairCandidate {
  readonly variant: string;
  readonly pattern: string;
  readonly patternName: string;
  readonly construction: Construction;
  readonly name: string;
  readonly maker: string;
  readonly window: string | null;
  readonly probability: number;
}
/** Something of the reference that typed words may mean, and what that says of the piece in hand. */
export interface FairHit {
  readonly kind: Exclude<ReferenceHit['kind'], 'maker'>;
  readonly id: string;
  readonly label: string;
  readonly hint: string;
  readonly pattern?: { readonly id: string; readonly name: string; readonly construction: Construction };
  readonly make?: Observation;
  readonly mark?: Mark;
}
/** Something to look at, with what can be answered by a tap. */
export interface FairCheck {
  readonly ask: string;
  readonly choices: FairChoice[];
  /** a date code: read sign by sign instead */
  readonly code?: { readonly id: string; readonly reads: CodeRead[] };
  /** a size: typed in whatever notation the gauge has */
  readonly measure?: { readonly feature: string; readonly label: string; readonly unit: MeasureUnit };
  /** the feature of which something else than its values can be written */
  readonly other?: string;
}
export type MeasureUnit = NonNullable<Feature['unit']>;
export interface FairChoice {
  readonly label: string;
  readonly make: Observation;
  /** drawn beside its words: stamps may read the same */
  readonly mark?: Mark;
}
export interface FairSight {
  readonly candidates: FairCandidate[];
  /** that it is none of the reference's */
  readonly unlisted: number;
  /** EDTF; null while nothing tells */
  readonly made: string | null;
  readonly tier: Tier;
  readonly alerts: string[];
  readonly checks: FairCheck[];
  /** all forms of the picked pattern, likeliest first */
  readonly forms: { readonly id: string; readonly name: string }[];
}

/** What the table says of a form that cannot be bought new any more: of the likeliest alone, once it is likelier than not. */
export const goneAlerts = (
  { candidates }: Pick<FairSight, 'candidates'>,
  now: (variant: string) => AvailabilityOn | undefined,
): string[] => {
  const [best] = candidates;
  const today = best && best.probability > 0.5 ? now(best.variant) : undefined;
  return best && today?.gone ? [noLongerNew(today.note, best.name)] : [];
};

const MOST_CANDIDATES = 5;
/** What is less likely is no candidate on a small screen. */
const TOLD_FROM = 0.01;
const MOST_FORMS = 60;
const MOST_CHECKS = 3;
const MOST_CHOICES = 9;
const COUNTS = [1, 2, 3, 4, 5, 6];

/** Search at the table: a stamp is something seen, a pattern or form is a choice, spelled or named. */
export function searchFair(index: ReferenceIndex, words: string): FairHit[] {
  const found = searchReference(index, words).flatMap((hit): FoundAtTable[] => {
    const { kind } = hit;
    return kind === 'maker' ? patternsOf(index, hit) : [{ ...hit, kind }];
  });
  const seen = new Set<string>();
  const once = found.filter((hit) => !seen.has(`${hit.kind} ${hit.id}`) && seen.add(`${hit.kind} ${hit.id}`));
  return once.slice(0, MOST_HITS).map((hit): FairHit => {
    const pattern = patternOf(index, hit);
    const mark = hit.kind === 'mark' ? index.marks.get(hit.id) : undefined;
    const make = mark ? { mark: mark.id } : hit.reads;
    return {
      kind: hit.kind,
      id: hit.id,
      label: hit.label,
      hint: hit.hint,
      ...(pattern && {
        pattern: { id: pattern.id, name: pattern.name, construction: pattern.construction },
      }),
      ...(make && { make }),
      ...(mark && { mark }),
    };
  });
}

type FoundAtTable = Pick<FairHit, 'kind'> & ReferenceHit;
const MOST_HITS = 24;
const PATTERNS_OF_MAKER = 8;
/** A maker's name alone leads to what it made. */
const patternsOf = (index: ReferenceIndex, { id, label }: ReferenceHit): FoundAtTable[] =>
  index.contents.patterns
    .filter((pattern) => pattern.maker === id)
    .slice(0, PATTERNS_OF_MAKER)
    .map((pattern) => ({ kind: 'pattern', id: pattern.id, label: pattern.name, hint: label }));

const patternOf = (index: ReferenceIndex, { kind, id }: ReferenceHit): Pattern | undefined =>
  kind === 'pattern'
    ? index.patterns.get(id)
    : kind === 'variant'
      ? index.variants.get(id)?.pattern
      : undefined;

export const checkLook = (index: ReferenceIndex, { observations, pattern }: LookQuestion): InputProblem[] =>
  pattern != null && !index.patterns.has(pattern)
    ? [{ pointer: '/pattern', message: `there is no pattern “${pattern}”` }]
    : checkQuestion(index, { observations });

/** @param question must have passed `checkLook` */
export function lookAt(index: ReferenceIndex, { observations, pattern }: LookQuestion): FairSight {
  const answer = identify(index, {
    observations,
    ...(pattern == null ? {} : { within: { patterns: [pattern] } }),
    found: 'fair',
    limit: MOST_FORMS,
  });
  const rows = answer.candidates.flatMap((candidate) => {
    const row = index.variants.get(candidate.variant);
    return row ? [{ row, probability: candidate.probability }] : [];
  });
  // before anything is seen every form is as likely as it is common, which is no news
  const seen = observations.length > 0;
  return {
    candidates: seen
      ? rows
          .filter((row) => row.probability >= TOLD_FROM)
          .slice(0, MOST_CANDIDATES)
          .map(({ row, probability }) => ({
            variant: row.variant.id,
            pattern: row.pattern.id,
            patternName: row.pattern.name,
            construction: row.construction,
            name: row.variant.name,
            maker: row.maker.name,
            window: row.variant.window ?? null,
            probability,
          }))
      : [],
    unlisted: answer.unlisted,
    made: seen ? (answer.dating.made?.core ?? null) : null,
    tier: answer.attribution.tier,
    alerts: answer.alerts.map((alert) => alert.detail),
    checks: seen || pattern != null ? checksIn(index, answer.nextChecks, rows) : [],
    forms: pattern == null ? [] : formsOf(index, pattern, rows),
  };
}

function formsOf(
  index: ReferenceIndex,
  pattern: string,
  rows: readonly { readonly row: ReferenceIndex['rows'][number] }[],
): FairSight['forms'] {
  const likely = rows.map(({ row }) => row);
  const others = index.rows.filter((row) => row.pattern.id === pattern && !likely.includes(row));
  return [...likely, ...others].map(({ variant }) => ({ id: variant.id, name: variant.name }));
}

/** What is answered by a tap, a sign after the other, or a size from the gauge. */
function checksIn(
  index: ReferenceIndex,
  checks: ReturnType<typeof identify>['nextChecks'],
  rows: readonly { readonly row: ReferenceIndex['rows'][number] }[],
): FairCheck[] {
  return checks
    .flatMap((check): FairCheck[] => {
      const code = index.codes.get(check.code ?? '');
      if (code?.kind === 'date')
        return [{ ask: check.ask, choices: [], code: { id: code.id, reads: code.reads } }];
      const feature = index.features.get(check.feature ?? '');
      if (feature?.kind === 'measure')
        return [
          {
            ask: check.ask,
            choices: [cannotTell(feature.id)],
            measure: { feature: feature.id, label: feature.label, unit: feature.unit ?? 'mm' },
          },
        ];
      const choices = check.mark ? stampsOf(index, rows) : feature ? valuesOf(feature) : [];
      return choices.length > 1
        ? [{ ask: check.ask, choices, ...(feature?.kind === 'category' && { other: feature.id }) }]
        : [];
    })
    .slice(0, MOST_CHECKS);
}

const cannotTell = (feature: string): FairChoice => ({
  label: 'Cannot tell',
  make: { feature, state: 'cannot-tell' },
});

function valuesOf(feature: Feature): FairChoice[] {
  const { id } = feature;
  const values: FairChoice[] =
    feature.kind === 'count'
      ? COUNTS.map((n) => ({ label: String(n), make: { feature: id, value: n } }))
      : feature.kind === 'category'
        ? (feature.values ?? [])
            .slice(0, MOST_CHOICES)
            .map((value) => ({ label: value.label, make: { feature: id, value: value.id } }))
        : [];
  return values.length === 0
    ? []
    : [...values, { label: 'Not there', make: { feature: id, state: 'not-there' } }, cannotTell(id)];
}

function stampsOf(
  index: ReferenceIndex,
  rows: readonly { readonly row: ReferenceIndex['rows'][number] }[],
): FairChoice[] {
  const borne = new Set(rows.flatMap(({ row }) => row.variant.marks ?? []));
  return [...borne].slice(0, MOST_CHOICES).flatMap((id) => {
    const mark = index.marks.get(id);
    return mark ? [{ label: mark.lines.join(' / '), make: { mark: id }, mark }] : [];
  });
}
