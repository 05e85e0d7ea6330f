/** The five live readings of a piece: which, when, condition, worth, paper trail. */
import { setImmediate as turn } from 'node:timers/promises';
import type { Alert, ReferenceIndex } from '@jutbank/core/bench';
import { type GradeAnswer, type RuleSet, type ScaleId } from '@jutbank/core/condition';
import type { Span } from '@jutbank/core/dates';
import { trailOf, type Trail } from '@jutbank/core/provenance';
import { dimensionOfUnit, formatQuantity } from '@jutbank/core/units';
import type { Readings, PieceSheet, PieceSlip } from '@jutbank/contract/pieces';
import type { EstimateAnswer, EstimateQuestion } from '@jutbank/contract/market';
import {
  DISK_FULL,
  errorNumber,
  revisions,
  type Database,
  type Queries,
  type Transaction,
  isGone,
} from '../db/index.ts';
import { answer, type Answered } from '../http/index.ts';
import type { Library } from '../reference/index.ts';
import type { RuleLibrary } from '../rules/index.ts';
import { answerEstimate, knownBeforeSale, type MarketOnDay, type Markets } from '../market/index.ts';
import { todayIso } from '../clock/index.ts';
import { assessPiece, isSealed, type Assessment } from './assess.ts';
import { pieceRecord } from './change.ts';
import { duplicateSerials } from './duplicateSerials.ts';
import { loadPieces, type KeptReadings, type PieceRecord } from './record.ts';
import { subjectOf } from './subject.ts';
import { whichOf } from './which.ts';
import { loadSlips, slipFacts, slipOf } from './slips.ts';
import { trailContextOf } from './trail.ts';

/** Sizes as measured, in both systems, each rounded to what the gauge could tell. */
export function measuresInWords(
  index: ReferenceIndex,
  record: PieceRecord,
): { label: string; text: string }[] {
  return record.observations.flatMap((o) => {
    if (!('measure' in o)) return [];
    const feature = index.features.get(o.feature);
    const text = formatQuantity(o.measure, dimensionOfUnit(feature?.unit), o.resolution ?? 0.1);
    return [{ label: feature?.label ?? o.feature, text }];
  });
}

export function trailRecord(index: ReferenceIndex, record: PieceRecord, made: Span | undefined): Trail {
  return trailOf(
    record.custody,
    made,
    Math.floor(Date.now() / 86_400_000),
    trailContextOf(index, record, made),
  );
}

function theOne(assessments: readonly Assessment[]): Assessment {
  const [found] = assessments;
  if (!found) throw new Error('no assessment was made');
  return found;
}

/** Assessments that are kept at hand. */
const MOST_KEPT = 2000;

/** Everything computed about pieces; what is cached in the database carries what it rests on. */
export class Readers {
  constructor(
    readonly database: Database,
    readonly library: Library,
    readonly markets: Markets,
    readonly rules: RuleLibrary,
  ) {}

  /** What pieces are, when they were made and how they are graded; a query or two however many they are. */
  async assessAll(records: readonly PieceRecord[]): Promise<Assessment[]> {
    return this.#assessAll(this.database, await this.library.index(), records);
  }

  async assess(record: PieceRecord): Promise<Assessment> {
    return theOne(await this.assessAll([record]));
  }

  /** The same inside a transaction, under whose lock it is decided on. */
  async assessIn(tx: Transaction, record: PieceRecord): Promise<Assessment> {
    return theOne(await this.#assessAll(tx, await this.library.atHand(tx), [record]));
  }

  /** What `assessIn` will need, made ready before a transaction begins. */
  readonly ready = (): Promise<ReferenceIndex> => this.library.index();

  async #assessAll(
    db: Queries,
    index: ReferenceIndex,
    records: readonly PieceRecord[],
  ): Promise<Assessment[]> {
    const rules = await this.rules.inUse(db);
    const alerts = await duplicateSerials(db, index, records);
    const assessments: Assessment[] = [];
    for (const [i, record] of records.entries()) {
      // a list of pieces is a long reckoning: others have a turn between one and the next
      if (i > 0) await turn();
      assessments.push(this.#assess(index, record, rules, alerts[i] ?? []));
    }
    return assessments;
  }

  /** Kept for as long as everything it rests on is the same: the index, the rules, the record, what else bears its number. */
  #assess(index: ReferenceIndex, record: PieceRecord, rules: RuleSet, alerts: readonly Alert[]): Assessment {
    const basis = JSON.stringify([
      record.version,
      record.findings,
      record.completeness,
      record.observations,
      record.quoted,
      record.attribution?.decidedAt,
      alerts,
      todayIso(),
    ]);
    const kept = this.#kept.get(record.id);
    if (kept && kept.basis === basis && kept.rules === rules && kept.assessment.index === index)
      return kept.assessment;
    const assessment = assessPiece(index, record, rules, alerts);
    if (this.#kept.size >= MOST_KEPT) this.#kept.clear();
    this.#kept.set(record.id, { basis, rules, assessment });
    return assessment;
  }
  readonly #kept = new Map<string, { basis: string; rules: RuleSet; assessment: Assessment }>();

  /** What the estimate is asked about; undefined while nothing says which pattern it is. */
  async question(record: PieceRecord): Promise<EstimateQuestion | undefined> {
    const on = await this.markets.on(todayIso());
    return subjectOf(record, await this.assess(record), on.base);
  }

  /** The market that values a piece, and what it is asked; undefined while nothing says which pattern it is. */
  async valuation(record: PieceRecord): Promise<{ on: MarketOnDay; question: EstimateQuestion } | undefined> {
    const on = await this.#marketOf(record);
    const question = subjectOf(record, await this.assess(record), on.base);
    return question && { on, question: { ...question, asOf: on.asOf } };
  }

  async worth(record: PieceRecord): Promise<{ answer: EstimateAnswer; pattern: string } | undefined> {
    const asked = await this.valuation(record);
    return (
      asked && {
        answer: await answerEstimate(this.database, asked.on, asked.question),
        pattern: asked.question.subject.pattern,
      }
    );
  }

  /** Today's market; for what is sold that of its day, from what was known before it: what it was worth is past. */
  async #marketOf({ id, sale }: PieceRecord): Promise<MarketOnDay> {
    if (!sale) return this.markets.on(todayIso());
    return this.markets.asKnown(sale.soldOn, await knownBeforeSale(this.database, id, sale.soldOn));
  }

  #without(error: unknown): undefined {
    // a database that is away is no matter of the market's
    if (isGone(error)) throw error;
    this.markets.onError(error);
  }

  async #compute(record: PieceRecord, assessment: Assessment): Promise<Readings> {
    const { index, answer, date, made, grade, scale } = assessment;
    const trail = trailRecord(index, record, made);
    const past = record.sale ? (record.reading?.body as Readings | undefined) : undefined;
    // what a piece is does not hang on whether its market can be reckoned
    const on = past
      ? undefined
      : await this.#marketOf(record).catch((error: unknown) => this.#without(error));
    const question = on && subjectOf(record, assessment, on.base);
    const worth = on && question && (await answerEstimate(this.database, on, { ...question, asOf: on.asOf }));
    return {
      which: whichOf(index, record, answer),
      when: date
        ? {
            core: date.core,
            outer: date.outer,
            conflict: answer.dating.conflicts.length > 0 || date.clash !== null,
          }
        : null,
      condition: conditionOf(record, grade, scale),
      ...(past || on ? {} : { marketAway: true }),
      ...(past?.unsupported || (worth && !worth.supported) ? { unsupported: true } : {}),
      worth: past
        ? past.worth
        : worth?.supported
          ? {
              estimate: worth.estimate,
              low: worth.low,
              high: worth.high,
              thin: worth.thin,
              comparables: worth.comparables.filter((c) => c.excluded === null).length,
            }
          : null,
      trail: { word: trail.word, share: trail.share, problems: trail.problems.length },
    };
  }

  readonly #computing = new Map<string, Promise<Readings>>();

  /** Readings of many pieces: those whose basis still holds come from the table, the rest are computed and kept. */
  readings(records: readonly PieceRecord[]): Promise<Map<string, Readings>> {
    return this.#readings(records, (stale) => Promise.resolve(stale));
  }

  /** The same of pieces of which no more was read than what was kept: the whole record only of those that want it. */
  keptReadings(pieces: readonly KeptReadings[]): Promise<Map<string, Readings>> {
    return this.#readings(pieces, (stale) =>
      loadPieces(
        this.database,
        stale.map((piece) => piece.id),
      ),
    );
  }

  async #readings<Piece extends KeptReadings>(
    pieces: readonly Piece[],
    recordsOf: (stale: readonly Piece[]) => Promise<readonly PieceRecord[]>,
  ): Promise<Map<string, Readings>> {
    const now = await revisions(this.database);
    const shared = [
      now.reference,
      now.comparables,
      now.encounters,
      now.rates,
      now.rules,
      now.record,
      now.trail,
      todayIso(),
    ].join(' ');
    const basisOf = (piece: KeptReadings) => `${piece.version} ${shared}`;
    const keyOf = (piece: KeptReadings) => `${piece.id} ${basisOf(piece)}`;
    const found = new Map<string, Readings>();
    const stale: Piece[] = [];
    for (const piece of pieces)
      if (piece.reading?.basis === basisOf(piece)) found.set(piece.id, piece.reading.body as Readings);
      else stale.push(piece);
    if (stale.length === 0) return found;
    const records = await recordsOf(stale);
    const renewed: [string, string, string][] = [];
    // what somebody else is reckoning already is waited for, not reckoned beside them
    const open = records.filter((record) => !this.#computing.has(keyOf(record)));
    const assessments = open.length > 0 ? await this.assessAll(open) : [];
    for (const [i, record] of open.entries()) {
      const assessment = assessments[i];
      if (!assessment) continue;
      const key = keyOf(record);
      const computing = this.#computing.get(key) ?? this.#compute(record, assessment);
      this.#computing.set(key, computing);
      const done = () => this.#computing.delete(key);
      computing.then(done, done);
      const readings = await computing;
      found.set(record.id, readings);
      if (!readings.marketAway) renewed.push([record.id, basisOf(record), JSON.stringify(readings)]);
    }
    for (const record of records) {
      if (found.has(record.id)) continue;
      const others = await this.#computing.get(keyOf(record));
      const [own] = others ? [] : await this.assessAll([record]);
      const readings = others ?? (own && (await this.#compute(record, own)));
      if (readings) found.set(record.id, readings);
    }
    // kept so that the next one need not reckon it again; what cannot be kept is shown all the same
    if (renewed.length > 0)
      await this.database
        .insertMany(
          'INSERT INTO piece_reading (piece_id, basis, body) VALUES ? ON DUPLICATE KEY UPDATE basis = VALUES(basis), body = VALUES(body)',
          renewed,
        )
        .catch((error: unknown) => {
          if (!DISK_FULL.has(errorNumber(error) ?? 0)) throw error;
        });
    return found;
  }

  /** Slips in the order asked for. */
  async slips(ids: readonly string[]): Promise<PieceSlip[]> {
    const facts = await loadSlips(this.database, ids);
    const readings = await this.keptReadings(facts);
    return facts.flatMap((piece) => {
      const own = readings.get(piece.id);
      return own ? [slipOf(piece, own)] : [];
    });
  }

  /** The sheet as a change of it is answered, with the version that the next one is made against. */
  readonly tellSheet = async ({ id }: { readonly id: string }): Promise<Answered<PieceSheet>> => {
    const record = await pieceRecord(this.database, id);
    return answer(await this.sheet(record), { etag: `"v${record.version}"` });
  };

  async sheet(record: PieceRecord): Promise<PieceSheet> {
    const readings = (await this.readings([record])).get(record.id);
    if (!readings) throw new Error('no readings were made');
    const { index, age, date, made, grade, scale, overruled, parts, inspection } = await this.assess(record);
    return {
      ...slipOf(slipFacts(record), readings),
      version: record.version,
      createdAt: record.createdAt,
      place: record.place,
      intake: record.intake,
      pictures: [...record.pictures],
      observations: [...record.observations],
      attribution: record.attribution,
      condition: {
        findings: [...record.findings],
        completeness: record.completeness,
        inspected: record.inspected,
        inspection,
      },
      parts,
      grade,
      age,
      quotedScale: scale,
      quoted: record.quoted,
      date,
      overruled,
      sealed: isSealed(record),
      narrowing: record.narrowing ?? { makers: [], patterns: [] },
      custody: [...record.custody],
      trail: trailRecord(index, record, made),
      pricing: record.pricing,
      listing: record.listing,
      sale: record.sale,
      givenBack: record.givenBack,
      offeredAt: [...record.offeredAt],
      companions: [...record.companions],
      returnedSales: [...record.returnedSales],
      reservation: record.reservation,
      consignment: record.consignment,
    };
  }
}

function conditionOf(record: PieceRecord, grade: GradeAnswer, scale: ScaleId): Readings['condition'] {
  if (!record.inspected && record.findings.length === 0) return null;
  const main = grade.grades.find((g) => g.scale === scale);
  if (!main) return null;
  const cap = main.caps[0];
  return {
    inspected: record.inspected,
    index: grade.conditionIndex,
    scale,
    grade: main.grade,
    note: cap ? cap.says : record.inspected ? '' : 'inspection not finished',
  };
}
