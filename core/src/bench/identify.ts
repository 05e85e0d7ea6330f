/** The bench's one question: which variant is it, when was it made, how sure, and what to look at next. */
import { asDay, dayOf, edtfOf, hullOf, intersect, isEmpty, periodOf } from '../dates/index.ts';
import type { ReferenceIndex } from './compile.ts';
import type { Row } from './compiled.ts';
import { codeAnswers, serialAlerts } from './codeAnswers.ts';
import { dateByOverlap, type DatingContext, type Form } from './dating.ts';
import { evidenceTable, exchangedParts } from './evidenceTable.ts';
import { subjectKey } from './checkObservations.ts';
import { historyEvents, pieceHistory, tellsHistory } from './history.ts';
import { checkOutcomes, nextChecks, type CheckOutcomes } from './nextChecks.ts';
import type {
  Alert,
  DateOfMaking,
  IdentifyAnswer,
  IdentifyQuestion,
  Narrowing,
  Observation,
} from './observation.ts';
import { posteriorOf, productOf, type Posterior } from './posterior.ts';
import { findMarriage } from './marriage.ts';
import { BENCH_SETTINGS, type BenchSettings } from './settings.ts';
import type { ObservationEvidence } from './observationEvidence.ts';
import { evidenceOf } from './evidenceOf.ts';
import { attributionOf, cautioned } from './tier.ts';
import { standsAt } from './datedEvidence.ts';

const DEFAULT_LIMIT = 10;
/** Candidates whose months make up the yearly probability. */
const YEARS_FROM = 60;

/**
 * @param question must have passed `checkQuestion`
 * @returns probabilities over what `within` leaves plus `unlisted`, adding up to 1; independent of the order of
 * the observations
 */
export function identify(
  index: ReferenceIndex,
  question: IdentifyQuestion,
  settings: BenchSettings = BENCH_SETTINGS,
): IdentifyAnswer {
  const observations = [...question.observations].sort((a, b) => (inOrder(a) < inOrder(b) ? -1 : 1));
  const signs = evidenceOf(index, observations, settings);
  const history = pieceHistory(index, observations);
  const posterior = posteriorOf(
    index,
    signs,
    question.within,
    question.found ?? 'unknown',
    settings,
    history,
  );
  const { ranked } = posterior;
  const together = findMarriage(index, posterior, settings);
  const form = formOf(index, question, posterior);
  const context = datingContext(index, question, posterior, form);
  const dated = dateByOverlap(index, observations, history, context, settings);
  const years = yearsOf(index, signs, posterior, form?.decided ? [form.row] : ranked);
  const dating = { ...dated, years, made: headlined(dated.made, years) };
  const listed = ranked.slice(0, question.limit ?? DEFAULT_LIMIT);
  const evidence = evidenceTable(index, signs, posterior, listed);
  const candidates = listed.map((row, i) => ({
    variant: row.variant.id,
    pattern: row.pattern.id,
    probability: posterior.probability[row.index] ?? 0,
    evidence: evidence[i] ?? [],
    exchanged: exchangedParts(index, posterior, row).map((e) => e.part),
  }));
  const alerts = [...serialAlerts(index, observations), ...tellAlerts(posterior, ranked, settings)];
  const attribution = attributionOf(index, signs, posterior, dating, together, settings);
  return {
    candidates,
    unlisted: posterior.unlisted,
    attribution: cautioned(attribution, alerts),
    dating,
    codes: codeAnswers(index, observations),
    nextChecks: nextChecks(index, observations, posterior, settings, question.sealed === true),
    alerts,
    putTogether: together ?? null,
    history: historyEvents(index, history, ranked[0]),
    numbers: history.numbers ?? null,
    narrowedBy: narrowedBy(index, question),
  };
}

/** The form whose making is held against what was seen: the decided one, else one that leads by more than all others. */
function formOf(index: ReferenceIndex, question: IdentifyQuestion, posterior: Posterior): Form | undefined {
  const decided = index.variants.get(question.decided?.variant ?? '');
  if (decided) return { row: decided, decided: true };
  const best = posterior.ranked[0];
  return question.observations.length > 0 && best && (posterior.probability[best.index] ?? 0) > LEADS
    ? { row: best, decided: false }
    : undefined;
}
const LEADS = 0.5;

/** A bracket that holds less than this of the years' probability is no headline. */
const LEAST_OF_YEARS = 0.1;
const MOST_OF_YEARS = 0.9;

function headlined(
  made: DateOfMaking | null,
  years: readonly { year: number; probability: number }[],
): DateOfMaking | null {
  if (!made || made.basis !== 'bracket' || years.length === 0) return made;
  const span = hullOf(periodOf(made.outer).lenient);
  const held = years.reduce((sum, { year, probability }) => {
    const whole = { from: dayOf(year, 1, 1), to: asDay(dayOf(year + 1, 1, 1) - 1) };
    return sum + (span && !isEmpty(intersect(span, whole)) ? probability : 0);
  }, 0);
  if (held >= LEAST_OF_YEARS) return made;
  const sorted = [...years].sort((a, b) => b.probability - a.probability);
  let sum = 0;
  const kept = sorted.filter(({ probability }) => {
    const wanted = sum < MOST_OF_YEARS;
    sum += probability;
    return wanted;
  });
  const from = Math.min(...kept.map((y) => y.year));
  const to = Math.max(...kept.map((y) => y.year));
  const window = edtfOf({ from: dayOf(from, 1, 1), to: asDay(dayOf(to + 1, 1, 1) - 1) });
  return { core: window, outer: window, basis: 'years', clash: made.clash };
}

/** What a sure stamp and a person's own choice leave of the reference. */
function narrowedBy(index: ReferenceIndex, question: IdentifyQuestion): Narrowing[] {
  const out: Narrowing[] = [];
  const within = question.within;
  const count = (of: (row: Row) => boolean) => index.rows.filter(of).length;
  const choose = (
    what: 'maker' | 'pattern' | 'construction',
    chosen: readonly string[] | null | undefined,
    idOf: (row: Row) => string,
  ) => {
    if (!chosen || chosen.length === 0) return;
    out.push({ by: 'choice', what, ids: [...chosen], left: count((row) => chosen.includes(idOf(row))) });
  };
  choose('construction', within?.constructions, (row) => row.construction);
  choose('maker', within?.makers, (row) => row.maker.id);
  choose('pattern', within?.patterns, (row) => row.pattern.id);
  for (const o of question.observations) {
    if (!('mark' in o) || (o.certainty ?? 'sure') !== 'sure') continue;
    const mark = index.marks.get(o.mark);
    if (!mark || mark.maker == null || tellsHistory(mark)) continue;
    const place = mark.place ?? null;
    const left = count((row) => {
      const of = index.rows[row.judgedAs] ?? row;
      const borne = (of.variant.marks ?? []).filter((id) => standsAt(index, id, place));
      return borne.length > 0 ? borne.includes(mark.id) : of.maker.id === mark.maker;
    });
    out.push({ by: 'stamp', what: 'mark', ids: [mark.id], left });
  }
  return out;
}

/** The checks that `identify` would propose, each with what it may show (for ranking them by money). */
export function checksOf(
  index: ReferenceIndex,
  question: IdentifyQuestion,
  settings: BenchSettings = BENCH_SETTINGS,
): CheckOutcomes[] {
  const observations = [...question.observations].sort((a, b) => (inOrder(a) < inOrder(b) ? -1 : 1));
  const posterior = posteriorOf(
    index,
    evidenceOf(index, observations, settings),
    question.within,
    question.found ?? 'unknown',
    settings,
    pieceHistory(index, observations),
  );
  return checkOutcomes(index, observations, posterior, settings, question.sealed === true);
}

const inOrder = (o: Observation) => `${subjectKey(o)} ${JSON.stringify(o)}`;

/**
 * Whose windows speak: the maker and pattern that `within` or a stamp settles, else those that carry more than
 * half of the probability. The variants that bound the date are those `within` leaves.
 */
function datingContext(
  index: ReferenceIndex,
  question: IdentifyQuestion,
  posterior: Posterior,
  form: Form | undefined,
): DatingContext {
  // an imitation is dated by its own making, never by what it imitates
  if (form?.row.imitation)
    return {
      maker: form.row.maker.id,
      pattern: form.row.pattern.id,
      left: Int32Array.of(form.row.index),
      form,
    };
  const within = posterior.left;
  const stamped = new Set(
    question.observations.flatMap((o) => {
      const maker =
        'mark' in o ? index.marks.get(o.mark)?.maker : 'code' in o ? index.codes.get(o.code)?.maker : null;
      return maker == null ? [] : [maker];
    }),
  );
  const stampedBy = index.makerNumber.get([...stamped][0] ?? '') ?? -1;
  const ofMaker = stamped.size === 1 ? within.filter((r) => index.makerOf[r] === stampedBy) : within;
  const left = ofMaker.length > 0 ? ofMaker : within;
  const maker = settled(left, posterior, index.makerOf);
  const pattern =
    maker === undefined
      ? undefined
      : settled(
          left.filter((r) => index.makerOf[r] === maker),
          posterior,
          index.patternOf,
        );
  return {
    maker: maker === undefined ? undefined : index.contents.makers[maker]?.id,
    pattern: pattern === undefined ? undefined : index.contents.patterns[pattern]?.id,
    left,
    form,
  };
}

function settled(rows: Int32Array, posterior: Posterior, of: Int32Array): number | undefined {
  const weight = new Map<number, number>();
  for (let i = 0; i < rows.length; i++) {
    const r = rows[i] ?? 0;
    const key = of[r] ?? -1;
    weight.set(key, (weight.get(key) ?? 0) + (posterior.probability[r] ?? 0));
  }
  if (weight.size === 1) return weight.keys().next().value;
  for (const [key, p] of weight) if (p > 0.5) return key;
  return undefined;
}

/** Yearly probability of making: P(t | what was seen), mixed over the leading candidates. */
function yearsOf(
  index: ReferenceIndex,
  signs: readonly ObservationEvidence[],
  posterior: Posterior,
  ranked: readonly Row[],
) {
  const { from, length } = index.calendar;
  const months = new Float64Array(length);
  const dated = signs.flatMap((sign) => (sign.dated ? [sign.dated] : []));
  // the stamps of an imitation tell when what it imitates was made
  const ofFeatures = signs.flatMap((sign) => (sign.dated && 'feature' in sign.subject ? [sign.dated] : []));
  for (const row of ranked.slice(0, YEARS_FROM)) {
    const p = ranked.length === 1 ? 1 : (posterior.probability[row.index] ?? 0);
    if (p < 1e-5) continue;
    const speaking = row.imitation ? ofFeatures : dated;
    const factor = productOf(
      index,
      speaking,
      speaking.map((d) => d.classOf[row.index] ?? -1),
    );
    const own = new Float64Array(length);
    let total = 0;
    for (const { months: range, share } of row.madeOver)
      for (let m = range.from; m <= range.to; m++) {
        const weight = (share / (range.to - range.from + 1)) * (factor[m - from] ?? 0);
        own[m - from] = (own[m - from] ?? 0) + weight;
        total += weight;
      }
    if (total <= 0) continue;
    for (let i = 0; i < length; i++) months[i] = (months[i] ?? 0) + (p * (own[i] ?? 0)) / total;
  }
  const byYear = new Map<number, number>();
  let sum = 0;
  months.forEach((p, i) => {
    const year = Math.floor((from + i) / 12);
    byYear.set(year, (byYear.get(year) ?? 0) + p);
    sum += p;
  });
  if (sum <= 0) return [];
  return [...byYear]
    .map(([year, p]) => ({ year, probability: p / sum }))
    .filter((y) => y.probability > 5e-4)
    .sort((a, b) => a.year - b.year);
}

function tellAlerts(posterior: Posterior, ranked: readonly Row[], settings: BenchSettings): Alert[] {
  return ranked
    .filter(
      (row) =>
        row.variant.kind === 'counterfeit' && (posterior.probability[row.index] ?? 0) > settings.tiers.doubt,
    )
    .flatMap((row) =>
      (row.variant.tells ?? []).map((tell): Alert => ({
        kind: 'known-counterfeit-tell',
        detail: `${row.variant.name}: ${tell}`,
      })),
    );
}
