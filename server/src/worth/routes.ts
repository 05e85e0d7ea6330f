/** Appraisals: drafted, made once, shown for ever, and reckoned again with other knowledge. */
import { ulid } from 'ulid';
import { edtfInWords } from '@jutbank/core/dates';
import { statementsOf, type StatementKind } from '@jutbank/core/pieces';
import { money } from '@jutbank/core/money';
import {
  worthRoutes,
  type AppraisalBody,
  type AppraisalRecord,
  type KeptAppraisal,
} from '@jutbank/contract/worth';
import { revisions, type Queries } from '../db/index.ts';
import { answer, conflict, invalid, notFound, type Mount } from '../http/index.ts';
import {
  contextOf,
  factsForStatements,
  pieceRecord,
  type RecordContext,
  type Readers,
} from '../pieces/index.ts';
import { appendLedger, canonical, entryIntact, sha256 } from '../ledger/index.ts';
import { letterheadOf, shopOf, takeNumber } from '../shop/index.ts';
import { keepReference, type Markets } from '../market/index.ts';
import { appraisedFrom, type Appraised } from './evidence.ts';
import { mountChannels } from './channels.ts';
import { mountCorrections } from './corrections.ts';
import { mountFinances } from './finances.ts';
import { mountOffers } from './offers.ts';
import { mountPricing } from './pricing.ts';
import { mountStock } from './stock.ts';
import { groundsOf } from './grounds.ts';
import { appraisalPdf } from './pdf.ts';
import { recomputed } from './recompute.ts';
import { trackRecordOf } from './trackRecord.ts';
import {
  appraisalById,
  appraisalsOf,
  lastInspection,
  storeAppraisal,
  type StoredAppraisal,
} from './queries.ts';

/** What a piece is worth: its price, corrections, channels, offers, stock, appraisals. */
export function mountWorth(mount: Mount, readers: Readers, markets: Markets): void {
  mountPricing(mount, readers);
  mountCorrections(mount, readers);
  mountChannels(mount);
  mountFinances(mount, readers, markets);
  mountOffers(mount, readers, markets);
  mountStock(mount);
  mountAppraisals(mount, readers, markets);
}

function mountAppraisals(mount: Mount, readers: Readers, markets: Markets): void {
  const { database } = mount;
  const rooms = { database, readers, markets };

  mount.handle(worthRoutes.trackRecord, async () => answer(await trackRecordOf(database, readers, markets)));

  mount.handle(worthRoutes.grounds, async ({ params }) => {
    const asked = await readers.valuation(await pieceRecord(database, params.id));
    return answer(asked ? await groundsOf(database, asked.on, asked.question) : { pairs: [], near: [] });
  });

  mount.handle(worthRoutes.appraisalDraft, async ({ params, body }) =>
    answer((await appraisedFrom(rooms, params.id, body)).evidence),
  );

  mount.handlePrepared(
    worthRoutes.appraise,
    async ({ params, body }) => {
      const appraised = await appraisedFrom(rooms, params.id, body);
      return {
        appraised,
        beside: await contextOf(database, params.id),
        inspected: await lastInspection(database, params.id),
      };
    },
    async (tx, { params, body, person }, { appraised, beside, inspected }) => {
      const now = await revisions(tx);
      const { known } = appraised.evidence;
      for (const name of ['comparables', 'rates', 'reference'] as const)
        if (body.known[name] !== known[name] || now[name] !== known[name])
          throw conflict('Prices, rates or the reference changed meanwhile: look at the figures again.');
      checkChecks(body, appraised);
      const shop = await shopOf(tx);
      const number = `A-${body.effectiveDate.slice(0, 4)}-${String(await takeNumber(tx, 'next_appraisal')).padStart(4, '0')}`;
      const record: AppraisalRecord = {
        format: 'jutbank.appraisal/1',
        number,
        issuedAt: new Date().toISOString(),
        shop: shop.name,
        appraiser: person.name,
        ...concludedOf(body),
        ...evidenceWith(appraised, body),
        piece: pieceOf(appraised, beside, inspected),
        revisions: {
          ...known,
          rules: appraised.evidence.rules,
          referencePrint: await keepReference(tx, appraised.on.market.reference),
        },
      };
      const text = canonical(record);
      const id = ulid();
      const fingerprint = sha256(text);
      const { seq } = await appendLedger(tx, {
        pieceId: params.id,
        kind: 'appraised',
        person,
        body: { appraisal: id, number, fingerprint, concluded: record.concluded },
      });
      await storeAppraisal(tx, {
        id,
        pieceId: params.id,
        text,
        record,
        fingerprint,
        ledgerSeq: seq,
        person: person.name,
      });
      return answer({
        id,
        number,
        pieceId: params.id,
        person: person.name,
        madeAt: record.issuedAt,
        effectiveDate: record.effectiveDate,
        concluded: record.concluded,
        purpose: record.purpose,
        basis: record.basis,
      });
    },
  );

  mount.handle(worthRoutes.appraisals, async ({ params }) => {
    await pieceRecord(database, params.id);
    return answer({ items: await appraisalsOf(database, params.id) });
  });

  const find = async (id: string): Promise<StoredAppraisal> => {
    const found = await appraisalById(database, id);
    if (!found) throw notFound('appraisal');
    return found;
  };
  const kept = async (id: string): Promise<KeptAppraisal & { text: string }> => {
    const { text, record, fingerprint, ledgerSeq } = await find(id);
    return { id, record, fingerprint, intact: await isIntact(database, text, fingerprint, ledgerSeq), text };
  };

  mount.handle(worthRoutes.appraisal, async ({ params }) => {
    const { text: _, ...shown } = await kept(params.id);
    return answer(shown);
  });

  mount.handle(worthRoutes.appraisalRecord, async ({ params, response }) => {
    const { text, record } = await find(params.id);
    response
      .type('application/json')
      .setHeader('Content-Disposition', `attachment; filename="${record.number}.json"`)
      .send(text);
    return undefined;
  });

  mount.handle(worthRoutes.appraisalPaper, async ({ params, response }) => {
    const { record, fingerprint } = await find(params.id);
    response
      .type('application/pdf')
      .setHeader('Content-Disposition', `inline; filename="${record.number}.pdf"`)
      .send(await appraisalPdf(await letterheadOf(database), record, fingerprint));
    return undefined;
  });

  mount.handle(worthRoutes.recompute, async ({ params }) => {
    const { record, pieceId } = await find(params.id);
    return answer(await recomputed(rooms, record, pieceId));
  });
}

/** Marks are put on sales that stand in the grid. */
function checkChecks(body: AppraisalBody, { evidence }: Appraised): void {
  const there = new Set(evidence.rows.map((row) => row.id));
  const strange = body.checks.findIndex((check) => !there.has(check.comparable));
  if (strange >= 0)
    throw invalid([
      { pointer: `/checks/${strange}/comparable`, message: 'this sale does not stand in the grid' },
    ]);
}

const concludedOf = (body: AppraisalBody) => ({
  signature: body.signature,
  purpose: body.purpose,
  intendedUser: body.intendedUser,
  interest: body.interest,
  assumptions: body.assumptions,
  limiting: body.limiting,
  concluded: money(body.concluded, body.currency),
  because: body.because,
});

function evidenceWith({ evidence }: Appraised, body: AppraisalBody): Omit<typeof evidence, 'known'> {
  const { known: _, ...rest } = evidence;
  const checks = new Map(body.checks.map((check) => [check.comparable, check]));
  return { ...rest, rows: evidence.rows.map((row) => ({ ...row, check: checks.get(row.id) ?? null })) };
}

/** What has a place of its own in an appraisal, or none. */
const SAID_ELSEWHERE: ReadonlySet<StatementKind> = new Set(['not-examined', 'not-excluded', 'refuted']);

function pieceOf(
  { record, assessment, evidence }: Appraised,
  beside: RecordContext,
  inspected: { by: string | null; at: string | null },
): AppraisalRecord['piece'] {
  const { index, answer: identified, date, grade, scale } = assessment;
  const statements = statementsOf(factsForStatements(record, assessment, beside));
  const main = grade.grades.find((g) => g.scale === scale);
  const decided = record.attribution;
  const nameOf = (variant: string | null) =>
    index.variants.get(variant ?? '')?.variant.name ?? 'a form that the reference does not list';
  return {
    id: record.id,
    stockNumber: record.stockNumber,
    title: record.intake.title,
    version: record.version,
    owner: 'the shop',
    which: {
      tier: decided?.tier ?? identified.attribution.tier,
      label: index.patterns.get(evidence.question.subject.pattern)?.name ?? evidence.question.subject.pattern,
      variants: evidence.byVariant.map(({ variant, probability }) => ({
        variant,
        name: nameOf(variant),
        probability,
      })),
    },
    made: date ? edtfInWords(date.core) : null,
    condition: main
      ? { inspected: record.inspected, index: grade.conditionIndex, grade: main.grade, scale }
      : null,
    scope: {
      ...inspected,
      notExamined: statements
        .filter((s) => s.kind === 'not-examined')
        .map((s) => s.text.replace(/^Not examined, /, '')),
    },
    statements: statements.filter((s) => !SAID_ELSEWHERE.has(s.kind)).map((s) => s.text),
    pictures: record.pictures.map(({ id, hash, caption }) => ({ id, hash, caption })),
  };
}

/** The text has the fingerprint it was given, and the ledger holds that fingerprint and is whole there. */
async function isIntact(db: Queries, text: string, fingerprint: string, seq: number): Promise<boolean> {
  const row = await db.row<{ body: string }>('SELECT body FROM ledger_entry WHERE seq = ?', [seq]);
  const noted = row && (JSON.parse(row.body) as { fingerprint?: string }).fingerprint;
  return sha256(text) === fingerprint && noted === fingerprint && (await entryIntact(db, seq)).intact;
}
