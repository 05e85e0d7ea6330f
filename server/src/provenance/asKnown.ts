/** A piece as it was known on a day: its ledger replayed, its worth by the prices of that day, its papers of then. */
import { ENGINE_VERSION } from '@jutbank/core/bench';
import type { Statement } from '@jutbank/core/pieces';
import { asKnownOn, changesSince, statementsOf, type KnownThen } from '@jutbank/core/pieces';
import { trailText } from '@jutbank/core/provenance';
import { custodyBody, conditionBody, observationsBody, pricingBody } from '@jutbank/contract/pieces';
import { provenanceRoutes, type AsKnown } from '@jutbank/contract/provenance';
import { todayIso } from '../clock/index.ts';
import { revisions, type Database, type Queries } from '../db/index.ts';
import { answer, invalid, type Mount } from '../http/index.ts';
import { ledgerOfPiece } from '../ledger/index.ts';
import { answerEstimate, type Markets } from '../market/index.ts';
import {
  assessPiece,
  factsForStatements,
  pieceRecord,
  subjectOf,
  type Assessment,
  type PieceRecord,
  type Readers,
} from '../pieces/index.ts';

const ALL = 100_000;

/** The record with every part as it had been written by then; what cannot be read any more counts as not written. */
function recordThen(now: PieceRecord, known: KnownThen): PieceRecord {
  const observations = observationsBody.safeParse({ observations: known.observations ?? [] });
  const condition = conditionBody.safeParse(known.condition ?? {});
  const custody = custodyBody.safeParse({ events: known.custody ?? [] });
  const pricing = pricingBody.safeParse(known.pricing ?? {});
  return {
    ...now,
    observations: observations.success ? observations.data.observations : [],
    // the decision of then is told as it was written; what it rested on is reckoned from what was seen
    attribution: null,
    findings: condition.success ? condition.data.findings : [],
    completeness: condition.success ? condition.data.completeness : {},
    inspected: condition.success && condition.data.inspected,
    inspection: condition.success ? (condition.data.inspection ?? null) : null,
    custody: custody.success ? custody.data.events : [],
    pricing: pricing.success ? pricing.data : { ask: null, floor: null, note: '' },
    claims: [],
    sale: null,
    reading: null,
  };
}

async function papersBy(db: Queries, piece: string, on: string): Promise<AsKnown['papers']> {
  const appraisals = await db.rows<{ id: string; number: string }>(
    'SELECT id, number FROM appraisal WHERE piece_id = ? AND made_at < DATE_ADD(?, INTERVAL 1 DAY) ORDER BY id',
    [piece, on],
  );
  const sales = await db.rows<{ id: string; invoice_number: string }>(
    'SELECT id, invoice_number FROM sale WHERE piece_id = ? AND sold_at < DATE_ADD(?, INTERVAL 1 DAY) ORDER BY id',
    [piece, on],
  );
  return [
    ...appraisals.map((a) => ({ what: `Appraisal ${a.number}`, path: `/appraisals/${a.id}/appraisal.pdf` })),
    ...sales.map((s) => ({
      what: `Certificate of invoice ${s.invoice_number}`,
      path: `/sales/${s.id}/certificate.pdf`,
    })),
  ];
}

/** The number that the reference had at a moment. */
async function referenceAt(db: Queries, at: string): Promise<string | null> {
  const row = await db.row<{ number: number | null }>(
    "SELECT MAX(number) AS number FROM revision_log WHERE name = 'reference' AND at <= ?",
    [at.slice(0, 23).replace('T', ' ')],
  );
  return row?.number == null ? null : String(row.number);
}

export function mountAsKnown(mount: Mount, readers: Readers, markets: Markets): void {
  const { database } = mount;
  mount.handle(provenanceRoutes.asKnown, async ({ params, query: { on } }) => {
    if (on > todayIso()) throw invalid([{ pointer: '/query/on', message: 'this day has not come yet' }]);
    const now = await pieceRecord(database, params.id);
    const entries = await ledgerOfPiece(database, params.id, undefined, ALL);
    const known = asKnownOn(entries, on);
    if (!known.intake) throw invalid([{ pointer: '/query/on', message: 'it was not here yet on that day' }]);
    const then = recordThen(now, known);
    const assessment = assessPiece(await readers.library.index(), then, await readers.rules.inUse(), []);
    const statements = statementsOf(
      factsForStatements(then, assessment, { openQuestions: [], movedParts: [] }),
    );
    const of = (...kinds: Statement['kind'][]) =>
      statements.filter((s) => kinds.includes(s.kind)).map((s) => s.text);
    return answer<AsKnown>({
      on,
      title: wordsIn(known.intake, 'title') || null,
      decided: known.attribution
        ? await decidedThen(database, readers, now, entries, known.attribution, on)
        : null,
      byToday: await judgedToday(database, assessment),
      seen: of('mark', 'feature', 'measure'),
      found: of('finding'),
      inspected: then.inspected,
      provenance: then.custody.length > 0 ? trailText(then.custody) : null,
      ask: then.pricing.ask,
      worth: await worthThen(database, markets, then, assessment, on),
      papers: await papersBy(database, params.id, on),
      since: changesSince(entries, on).map((c) => ({ ...c, parts: [...c.parts] })),
    });
  });
}

const wordsIn = (of: Readonly<Record<string, unknown>>, name: string): string => {
  const value = of[name];
  return typeof value === 'string' ? value : '';
};

/** The best explanation of what was seen then, by what is known now. */
async function judgedToday(db: Queries, { index, answer }: Assessment): Promise<AsKnown['byToday']> {
  const [best] = answer.candidates;
  const row = best && index.variants.get(best.variant);
  return {
    label:
      row && best.probability > answer.unlisted
        ? `${row.pattern.name}, ${row.variant.name}`
        : 'nothing that the reference has',
    tier: answer.attribution.tier,
    engineVersion: ENGINE_VERSION,
    referenceRevision: String((await revisions(db)).reference),
  };
}

async function decidedThen(
  db: Database,
  readers: Readers,
  now: PieceRecord,
  entries: Awaited<ReturnType<typeof ledgerOfPiece>>,
  attribution: Readonly<Record<string, unknown>>,
  on: string,
): Promise<AsKnown['decided']> {
  const index = await readers.library.index();
  const row = index.variants.get(wordsIn(attribution, 'variant'));
  const pattern = row?.pattern ?? index.patterns.get(wordsIn(attribution, 'pattern'));
  const entry = entries.find((e) => e.kind === 'attributed' && e.at.slice(0, 10) <= on);
  // the engine's own version stands with the decision only while that is the one that holds
  const stands = now.attribution?.decidedAt.slice(0, 19) === entry?.at.slice(0, 19);
  return {
    label:
      [pattern?.name, row?.variant.name].filter((name) => name !== undefined).join(', ') ||
      'not in the reference',
    tier: wordsIn(attribution, 'tier'),
    reason: wordsIn(attribution, 'reason'),
    engineVersion: stands ? (now.attribution?.engineVersion ?? null) : null,
    referenceRevision: entry ? await referenceAt(db, entry.at) : null,
  };
}

async function worthThen(
  db: Database,
  markets: Markets,
  then: PieceRecord,
  assessment: Assessment,
  on: string,
): Promise<AsKnown['worth']> {
  const market = await markets.asKnownOn(on, on);
  const question = subjectOf(then, assessment, market.base);
  if (!question) return null;
  const { supported, estimate, low, high } = await answerEstimate(db, market, {
    ...question,
    asOf: market.asOf,
  });
  return supported ? { estimate, low, high } : null;
}
