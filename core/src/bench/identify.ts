/** The bench's one question: which variant is it, when was it made, how sure, and what to look at next. */
import type { ReferenceIndex, Row } from './compile.ts';
import { codeAnswers, serialAlerts } from './codeAnswers.ts';
import { dateByOverlap, type DatingContext } from './dating.ts';
import { evidenceFor, exchangedParts } from './evidence.ts';
import { subjectKey } from './checkObservations.ts';
import { historyEvents, pieceHistory } from './history.ts';
import { checkOutcomes, nextChecks, type CheckOutcomes } from './nextChecks.ts';
import type { Alert, IdentifyAnswer, IdentifyQuestion, Observation } from './observation.ts';
import { posteriorOf, productOf, type Posterior } from './posterior.ts';
import { putTogether } from './putTogether.ts';
import { BENCH_SETTINGS, type BenchSettings } from './settings.ts';
import type { Sign } from './sign.ts';
import { signsOf } from './signs.ts';
import { attributionOf } from './tier.ts';

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
  const signs = signsOf(index, observations, settings);
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
  const together = putTogether(index, posterior, settings);
  const context = datingContext(index, question, posterior);
  const dating = dateByOverlap(index, observations, history, context, settings);
  const listed = ranked.slice(0, question.limit ?? DEFAULT_LIMIT);
  const evidence = evidenceFor(index, signs, posterior, listed);
  const candidates = listed.map((row, i) => ({
    variant: row.variant.id,
    pattern: row.pattern.id,
    probability: posterior.probability[row.index] ?? 0,
    evidence: evidence[i] ?? [],
    exchanged: exchangedParts(index, posterior, row).map((e) => e.part),
  }));
  return {
    candidates,
    unlisted: posterior.unlisted,
    attribution: attributionOf(index, signs, posterior, dating.conflicts, together, settings),
    dating: { ...dating, years: yearsOf(index, signs, posterior, ranked) },
    codes: codeAnswers(index, observations),
    nextChecks: nextChecks(index, observations, posterior, settings),
    alerts: [...serialAlerts(index, observations), ...tellAlerts(posterior, ranked, settings)],
    putTogether: together ?? null,
    history: historyEvents(index, history, ranked[0]),
    numbers: history.numbers ?? null,
  };
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
    signsOf(index, observations, settings),
    question.within,
    question.found ?? 'unknown',
    settings,
    pieceHistory(index, observations),
  );
  return checkOutcomes(index, observations, posterior, settings);
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
): DatingContext {
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
  signs: readonly Sign[],
  posterior: Posterior,
  ranked: readonly Row[],
) {
  const { from, length } = index.calendar;
  const months = new Float64Array(length);
  const dated = signs.flatMap((sign) => (sign.dated ? [sign.dated] : []));
  for (const row of ranked.slice(0, YEARS_FROM)) {
    const p = posterior.probability[row.index] ?? 0;
    if (p < 1e-5) continue;
    const factor = productOf(
      index,
      dated,
      dated.map((d) => d.classOf[row.index] ?? -1),
    );
    const judge = index.rows[row.judgedAs] ?? row;
    const own = new Float64Array(length);
    let total = 0;
    for (const { months: range, share } of judge.madeOver)
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
