/** All that a value rests on: reckoned from the beginning for one state of knowledge, and the same again for the same. */
import { money, type Money } from '@jutbank/core/money';
import {
  adjustmentsOf,
  BASIS_DEFINITIONS,
  pointOf,
  type Basis,
  type PointOfValue,
} from '@jutbank/core/worth';
import {
  mixtureQuantile,
  VALUE_ENGINE_VERSION,
  VALUE_SETTINGS,
  type ValueSettings,
} from '@jutbank/core/market';
import type { EstimateAnswer, EstimateQuestion } from '@jutbank/contract/market';
import type { AppraisalEvidence, AppraisedRow } from '@jutbank/contract/worth';
import { revisions, type Database } from '../db/index.ts';
import { conflict, invalid } from '../http/index.ts';
import { correctedFigure, inForce, overridesOf } from './corrections.ts';
import { pieceRecord, subjectOf, type Assessment, type PieceRecord, type Readers } from '../pieces/index.ts';
import { piecePrices, shopPrices } from './prices.ts';
import {
  answerEstimate,
  middlesOf,
  type Knowledge,
  type MarketOnDay,
  type Markets,
} from '../market/index.ts';
import { todayIso } from '../clock/index.ts';
import { groundsOf } from './grounds.ts';
import { cellsOf, marketFacts, rateSources } from './queries.ts';

export interface Appraised {
  readonly record: PieceRecord;
  readonly assessment: Assessment;
  readonly evidence: AppraisalEvidence;
  readonly on: MarketOnDay;
}

/** @throws 409 where nothing says which pattern it is, 422 for a day that has not come */
export async function appraisedFrom(
  { database, readers, markets }: { database: Database; readers: Readers; markets: Markets },
  pieceId: string,
  asked: { readonly basis: Basis; readonly effectiveDate: string; readonly currency: string },
): Promise<Appraised> {
  if (asked.effectiveDate > todayIso())
    throw invalid([{ pointer: '/effectiveDate', message: 'this day has not come yet' }]);
  const record = await pieceRecord(database, pieceId);
  const assessment = await readers.assess(record);
  const now = await revisions(database);
  const known: Knowledge = { comparables: now.comparables, rates: now.rates };
  const middles = middlesOf(await readers.rules.inUse());
  const on = await markets.asKnown(asked.effectiveDate, { ...known, middles });
  const subject = subjectOf(record, assessment, on.base)?.subject;
  if (!subject) throw conflict('Nothing says yet which pattern it is: look at it on the bench, or decide.');
  // only what a shop asks hangs on how long it can wait
  const prices =
    asked.basis === 'retail-ask'
      ? await piecePrices(await shopPrices(database, markets), readers, record)
      : undefined;
  const point = pointOf(asked.basis, prices?.best.ratio ?? 1);
  const question: EstimateQuestion = {
    subject,
    asOf: asked.effectiveDate,
    currency: asked.currency,
    venueKind: point.venueKind,
  };
  const answer = await answerEstimate(database, on, question);
  const corrections = inForce(await overridesOf(database, pieceId));
  const facts = await marketFacts(database, asked.effectiveDate);
  return {
    record,
    assessment,
    on,
    evidence: {
      basis: asked.basis,
      definition: BASIS_DEFINITIONS[asked.basis],
      effectiveDate: asked.effectiveDate,
      question,
      point,
      figure: figureOf(answer, point, asked.currency),
      low: pointAt(answer, point, (1 - VALUE_SETTINGS.share) / 2, asked.currency),
      high: pointAt(answer, point, (1 + VALUE_SETTINGS.share) / 2, asked.currency),
      rows: await rowsOf(database, answer, known),
      rest: answer.rest,
      methods: answer.methods,
      byVariant: answer.byVariant,
      notes: answer.notes,
      supported: answer.supported,
      thin: answer.thin,
      market: { ...facts, beyondLastSale: facts.lastSale !== null && asked.effectiveDate > facts.lastSale },
      corrections: corrections.map(({ comparable, line, percent, reason, person, at }) => ({
        comparable,
        line,
        percent,
        reason,
        person,
        at,
      })),
      corrected: correctedFigure(answer, corrections),
      engine: { version: VALUE_ENGINE_VERSION, settings: on.market.settings, middles },
      known: { comparables: now.comparables, rates: now.rates, reference: now.reference },
      rules: now.rules,
      grounds: await groundsOf(database, on, question),
    },
  };
}

const pointAt = (answer: EstimateAnswer, { factor }: PointOfValue, share: number, currency: string): Money =>
  money((Math.exp(mixtureQuantile(answer.byVariant, share)) * factor).toFixed(6), currency);

const figureOf = (answer: EstimateAnswer, point: PointOfValue, currency: string): Money =>
  pointAt(answer, point, point.point, currency);

async function rowsOf(database: Database, answer: EstimateAnswer, known: Knowledge): Promise<AppraisedRow[]> {
  const ids = answer.comparables.map((row) => row.id);
  const [cells, sources] = await Promise.all([
    cellsOf(database, ids),
    rateSources(
      database,
      known.rates,
      answer.comparables.flatMap((row) => (row.rate ? [[row.paid.currency, row.rate.date] as const] : [])),
    ),
  ]);
  return answer.comparables.map((row) => ({
    ...row,
    cells: cells.get(row.id) ?? {},
    rateSource: row.rate ? (sources.get(`${row.paid.currency} ${row.rate.date}`) ?? '') : null,
    ...adjustmentsOf(row.adjustments),
    check: null,
  }));
}

/** The figure of one question in one state of knowledge. */
export async function figureIn(
  { database, markets }: { database: Database; markets: Markets },
  question: EstimateQuestion,
  point: PointOfValue,
  known: Knowledge,
  settings: ValueSettings | undefined,
): Promise<Money> {
  const on = await markets.asKnown(question.asOf, known, settings);
  const { reference } = on.market;
  // a form that this reference does not describe is one that nobody listed
  const variants = question.subject.variants.filter((v) => reference.variants.has(v.variant));
  const answer = await answerEstimate(database, on, {
    ...question,
    subject: { ...question.subject, variants },
  });
  return figureOf(answer, point, question.currency);
}
