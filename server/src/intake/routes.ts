import { checkObservation, ENGINE_VERSION, subjectKey, type Observation } from '@jutbank/core/bench';
import { periodOf } from '@jutbank/core/dates';
import { STAGES, type Stage } from '@jutbank/core/intake';
import { addMoney, convert, money, type Money } from '@jutbank/core/money';
import type { Route } from '@jutbank/contract/http';
import { intakeRoutes, type PieceSheet, type Tray } from '@jutbank/contract/intake';
import type { AttributionBody, StoredAttribution } from '@jutbank/contract/bench';
import { raiseRevision, type Queries, type Transaction, type Value } from '../db/index.ts';
import {
  answer,
  conflict,
  decodeCursor,
  invalid,
  notFound,
  pageOf,
  type Call,
  type Mount,
} from '../http/index.ts';
import { todayIso, type Markets } from '../value/index.ts';
import { changePiece, dayBounds, pieceRecord } from './change.ts';
import { noteState, saysTheSame, writeFindings } from './condition.ts';
import { mountOverrides } from './overrides.ts';
import { addPicture, uploadedPicture, type PictureStore } from './pictures.ts';
import { bearsNumber } from './numbers.ts';
import type { Readers } from './readings.ts';
import { loadPieces, type PieceRecord } from './record.ts';
import { intakeColumns, takeIn } from './takeIn.ts';

/** Slips shown of each group of the tray; the rest is a page away. */
const SLIPS_PER_GROUP = 12;

export function mountIntake(mount: Mount, readers: Readers, markets: Markets, pictures: PictureStore): void {
  const { database } = mount;
  const { tellSheet } = readers;

  mount.reads(intakeRoutes.tray, async () => answer(await trayOf(database, readers, markets)));

  mount.reads(intakeRoutes.listPieces, async ({ query }) => {
    const before = decodeCursor(query.cursor, 1)?.[0];
    const where: string[] = [];
    const values: Value[] = [];
    if (query.stage !== undefined) {
      where.push('stage = ?');
      values.push(query.stage);
    }
    if (query.q !== undefined) {
      where.push('MATCH (title, stock_number, source_name, seller_statement) AGAINST (? IN BOOLEAN MODE)');
      values.push(searchWords(query.q));
    }
    const total = await database.row<{ n: number }>(
      `SELECT COUNT(*) AS n FROM piece ${where.length > 0 ? `WHERE ${where.join(' AND ')}` : ''}`,
      values,
    );
    if (before !== undefined) {
      where.push('id < ?');
      values.push(before);
    }
    const ids = await database.rows<{ id: string }>(
      `SELECT id FROM piece ${where.length > 0 ? `WHERE ${where.join(' AND ')}` : ''} ORDER BY id DESC LIMIT ?`,
      [...values, query.limit + 1],
    );
    const slips = await readers.slips(
      await loadPieces(
        database,
        ids.map((r) => r.id),
      ),
    );
    return answer(
      pageOf(
        slips,
        query.limit,
        Number(total?.n ?? 0),
        (s) => s,
        (s) => [s.id],
      ),
    );
  });

  mount.writes(
    intakeRoutes.createPiece,
    async (tx, { body, person }) => ({ id: await takeIn(tx, body, person) }),
    tellSheet,
  );

  mount.reads(intakeRoutes.piece, ({ params }) => tellSheet(params));

  const change = async <B>(
    tx: Transaction,
    call: Call<{ id: string }, unknown, B>,
    kind: string,
    work: (before: PieceRecord) => Promise<void>,
  ): Promise<{ id: string }> => {
    const { id } = await changePiece(
      tx,
      { pieceId: call.params.id, person: call.person, ifMatch: call.ifMatch, kind, body: call.body },
      work,
    );
    return { id };
  };
  /** A change to a piece that is decided on what the bench says of it. */
  const changes = <B>(
    route: Route<{ id: string }, unknown, B, PieceSheet>,
    act: (tx: Transaction, call: Call<{ id: string }, unknown, B>) => Promise<{ id: string }>,
  ) => mount.preparedWrites(route, readers.ready, act, tellSheet);

  changes(intakeRoutes.putIntake, (tx, call) =>
    change(tx, call, 'intake-changed', async () => {
      const columns = intakeColumns(call.body);
      await tx.run(
        `UPDATE piece SET ${Object.keys(columns)
          .map((c) => `${c} = ?`)
          .join(', ')} WHERE id = ?`,
        [...Object.values(columns), call.params.id],
      );
    }),
  );

  changes(intakeRoutes.putObservations, async (tx, call) => {
    const index = await readers.library.atHand(tx);
    const { observations } = call.body;
    const problems = observations.flatMap((o, i) =>
      checkObservation(index, o).map((p) => ({
        pointer: `/observations/${i}${p.pointer}`,
        message: p.message,
      })),
    );
    if (problems.length > 0) throw invalid(problems);
    return change(tx, call, 'observed', async (before) => {
      // another piece may bear the same number, and so stands in doubt or no longer does
      if (bearsNumber(index, before.observations) || bearsNumber(index, observations))
        await raiseRevision(tx, 'encounters');
      await tx.run('DELETE FROM observation WHERE piece_id = ?', [call.params.id]);
      const bySubject = new Map<string, Observation>(observations.map((o) => [subjectKey(o), o]));
      const rows = [...bySubject].map(([subject, body], position) => [
        call.params.id,
        subject,
        position,
        JSON.stringify(body),
      ]);
      if (rows.length > 0)
        await tx.insertMany('INSERT INTO observation (piece_id, subject, position, body) VALUES ?', rows);
    });
  });

  changes(intakeRoutes.putAttribution, async (tx, call) => {
    const index = await readers.library.atHand(tx);
    const decision = call.body.attribution;
    if (decision) checkDecision(decision, index);
    const record = await pieceRecord(tx, call.params.id);
    const engine = (await readers.assessIn(tx, record)).answer;
    const same =
      decision?.variant === engine.candidates[0]?.variant && decision?.tier === engine.attribution.tier;
    const problems: { pointer: string; message: string }[] = [];
    if (decision && !same && decision.reason === '')
      problems.push({
        pointer: '/attribution/reason',
        message: 'This differs from what the evidence says: give your reason.',
      });
    if (
      decision &&
      engine.attribution.tier === 'rejected' &&
      decision.tier !== 'rejected' &&
      decision.evidence === ''
    )
      problems.push({
        pointer: '/attribution/evidence',
        message:
          'The evidence speaks for an imitation: name what overrules it (a document, an examination, whose).',
      });
    if (decision?.made != null && decision.madeReason === '')
      problems.push({ pointer: '/attribution/madeReason', message: 'Say why it is of that date.' });
    if (problems.length > 0) throw invalid(problems);
    const stored: StoredAttribution | null = decision && {
      ...decision,
      decidedBy: call.person.name,
      decidedAt: new Date().toISOString(),
      engineVersion: ENGINE_VERSION,
      referenceRevision: index.revision,
      observations: [...record.observations],
      engineAnswer: {
        candidates: engine.candidates,
        unlisted: engine.unlisted,
        attribution: engine.attribution,
        core: engine.dating.core,
        outer: engine.dating.outer,
      },
    };
    return change(tx, call, 'attributed', async () => {
      await tx.run('UPDATE piece SET attribution = ? WHERE id = ?', [
        stored === null ? null : JSON.stringify(stored),
        call.params.id,
      ]);
      await raiseRevision(tx, 'encounters');
    });
  });

  changes(intakeRoutes.putNarrowing, async (tx, call) => {
    const index = await readers.library.atHand(tx);
    const unknown = [
      ...call.body.makers.flatMap((id, i) =>
        index.makers.has(id) ? [] : [{ pointer: `/makers/${i}`, message: `there is no maker “${id}”` }],
      ),
      ...call.body.patterns.flatMap((id, i) =>
        index.patterns.has(id) ? [] : [{ pointer: `/patterns/${i}`, message: `there is no pattern “${id}”` }],
      ),
    ];
    if (unknown.length > 0) throw invalid(unknown);
    const { makers, patterns } = call.body;
    return change(tx, call, 'narrowed', async () => {
      await tx.run('UPDATE piece SET narrowing = ? WHERE id = ?', [
        makers.length + patterns.length === 0 ? null : JSON.stringify({ makers, patterns }),
        call.params.id,
      ]);
    });
  });

  changes(intakeRoutes.putQuoted, (tx, call) =>
    change(tx, call, 'quoted', async () => {
      const { quoted } = call.body;
      await tx.run('UPDATE piece SET quoted = ? WHERE id = ?', [
        quoted === null ? null : JSON.stringify(quoted),
        call.params.id,
      ]);
    }),
  );
  changes(intakeRoutes.putCondition, (tx, call) =>
    change(tx, call, 'inspected', async (before) => {
      const { findings, completeness, inspected } = call.body;
      const inspection = call.body.inspection ?? before.inspection;
      if (before.inspected && inspected && !saysTheSame(before, call.body))
        throw conflict('The inspection is finished. Open it again before you change what was found.');
      await writeFindings(tx, call.params.id, findings);
      await tx.run('UPDATE piece SET completeness = ?, inspected = ?, inspection = ? WHERE id = ?', [
        JSON.stringify(completeness),
        inspected,
        inspection === null ? null : JSON.stringify(inspection),
        call.params.id,
      ]);
      if (inspected && !before.inspected) {
        const states = await tx.row<{ n: number }>(
          'SELECT COUNT(*) AS n FROM condition_state WHERE piece_id = ?',
          [call.params.id],
        );
        const why = Number(states?.n ?? 0) === 0 ? 'as-found' : 'inspected-again';
        await noteState(tx, readers, { ...before, findings, completeness, inspection }, why, call.person);
      }
    }),
  );

  changes(intakeRoutes.putCustody, (tx, call) =>
    change(tx, call, 'custody-recorded', async () => {
      const { events } = call.body;
      await tx.run('DELETE FROM custody_event WHERE piece_id = ?', [call.params.id]);
      const sorted = [...events].sort(
        (a, b) => periodOf(a.period).start.earliest - periodOf(b.period).start.earliest,
      );
      if (sorted.length > 0)
        await tx.insertMany(
          'INSERT INTO custody_event (piece_id, position, holder, private, place, period, held_from, held_to, how, evidence, note) VALUES ?',
          sorted.map((e, i) => [
            call.params.id,
            i,
            e.holder,
            e.private,
            e.place,
            e.period,
            ...dayBounds(e.period),
            e.how,
            e.evidence,
            e.note,
          ]),
        );
    }),
  );

  changes(intakeRoutes.putPricing, (tx, call) =>
    change(tx, call, 'priced', async () => {
      const { ask, floor, note } = call.body;
      await tx.run(
        'UPDATE piece SET ask = ?, ask_currency = ?, floor_price = ?, floor_currency = ?, pricing_note = ? WHERE id = ?',
        [
          ask?.amount ?? null,
          ask?.currency ?? null,
          floor?.amount ?? null,
          floor?.currency ?? null,
          note,
          call.params.id,
        ],
      );
    }),
  );

  mountOverrides(mount, readers);

  mount.preparedWrites(
    intakeRoutes.addPicture,
    async ({ request, response }) => {
      const uploaded = await uploadedPicture(request, response);
      const { fields, print } = uploaded;
      return {
        stored: await pictures.keep(uploaded),
        caption: (fields.caption ?? '').trim().slice(0, 200),
        print,
      };
    },
    async (tx, { params, person, ifMatch }, { stored, caption }) => {
      const { id } = await addPicture(tx, params.id, stored, caption, person, ifMatch);
      return { id };
    },
    tellSheet,
  );

  mount.writes(
    intakeRoutes.removePicture,
    (tx, call) =>
      change(tx, call, 'picture-removed', async () => {
        const removed = await tx.run('DELETE FROM picture WHERE id = ? AND piece_id = ?', [
          call.params.picture,
          call.params.id,
        ]);
        if (removed === 0) throw notFound('picture');
      }),
    tellSheet,
  );

  mount.reads(intakeRoutes.picture, async ({ params, response }) => {
    const bytes = await pictures.read(params.hash, params.size);
    if (!bytes) throw notFound('picture');
    response
      .type('image/webp')
      .setHeader('Cache-Control', 'private, max-age=31536000, immutable')
      .send(bytes);
    return undefined;
  });
}

/** Words for a boolean full-text search: each must begin a word of the text. */
export const searchWords = (q: string): string =>
  q
    .split(/[^\p{L}\p{N}]+/u)
    .filter((word) => word.length > 1)
    .map((word) => `+${word}*`)
    .join(' ');

function checkDecision(
  decision: AttributionBody,
  index: Awaited<ReturnType<Readers['library']['index']>>,
): void {
  if (decision.variant !== null && index.variants.get(decision.variant)?.pattern.id !== decision.pattern)
    throw invalid([{ pointer: '/attribution/variant', message: 'this variant is not of that pattern' }]);
  if (decision.pattern !== null && !index.patterns.has(decision.pattern))
    throw invalid([
      { pointer: '/attribution/pattern', message: `there is no pattern “${decision.pattern}”` },
    ]);
}

async function trayOf(db: Queries, readers: Readers, markets: Markets): Promise<Tray> {
  const { base, rateOf } = await markets.ratesOn(todayIso());
  const inBase = (rows: readonly { currency: string | null; total: string | null }[]): Money =>
    rows
      .flatMap(({ currency, total }) =>
        currency === null || total === null ? [] : (convert(money(total, currency), base, rateOf) ?? []),
      )
      .reduce(addMoney, money(0, base));
  const costs = await db.rows<{ stage: Stage; currency: string | null; n: number; total: string | null }>(
    'SELECT stage, price_currency AS currency, COUNT(*) AS n, SUM(price) AS total FROM piece GROUP BY stage, price_currency',
  );
  const asks = await db.rows<{ currency: string | null; total: string | null }>(
    "SELECT ask_currency AS currency, SUM(ask) AS total FROM piece WHERE stage <> 'sold' GROUP BY ask_currency",
  );
  const ids = await db.rows<{ id: string; stage: Stage }>(
    `SELECT id, stage FROM (SELECT id, stage, ROW_NUMBER() OVER (PARTITION BY stage ORDER BY changed_at DESC, id DESC) AS place FROM piece) ranked WHERE place <= ${SLIPS_PER_GROUP}`,
  );
  const slips = await readers.slips(
    await loadPieces(
      db,
      ids.map((r) => r.id),
    ),
  );
  const groups = STAGES.map((stage) => {
    const own = costs.filter((c) => c.stage === stage);
    return {
      stage,
      count: own.reduce((n, c) => n + Number(c.n), 0),
      bound: inBase(own),
      slips: slips.filter((s) => s.stage === stage),
    };
  });
  return {
    groups: groups.filter((g) => g.count > 0),
    attention: slips.filter((s) => s.attention.length > 0),
    bound: inBase(costs.filter((c) => c.stage !== 'sold')),
    asking: inBase(asks),
  };
}
