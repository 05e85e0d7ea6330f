import { drawAsFound, recipeIn } from '@jutbank/core/drawing';
import { statementsOf, type StatementKind } from '@jutbank/core/pieces';
import { z } from 'zod';
import { ulid } from 'ulid';
import {
  checkRules,
  documentOf,
  gradeCondition,
  RULE_IDS,
  SHIPPED_RULES,
  withDocument,
  type RuleDocument,
} from '@jutbank/core/condition';
import { conditionRoutes, ruleDocument, type RuleTrial } from '@jutbank/contract/condition';
import { answer, invalid, notFound, type Mount } from '../http/index.ts';
import {
  contextOf,
  factsForStatements,
  changePiece,
  gradeQuestion,
  loadPieces,
  measuresInWords,
  pieceRecord,
  type PictureStore,
  type Readers,
} from '../pieces/index.ts';
import { snapshotCondition, writeFindings } from './states.ts';
import { keepRules, ruleDocument as storedDocument, ruleVersions, useRules } from '../rules/index.ts';
import { recordMark } from '../ledger/index.ts';
import { letterheadOf } from '../shop/index.ts';
import { conditionFile, moveWith, quarantined, quarantineWith } from './file.ts';
import { gradingSheet, listGradings, lookAgain, setGrading } from './grading.ts';
import { mountInspection } from './inspection.ts';
import { conditionReport } from './report.ts';
import { treat } from './treat.ts';
import { compareTreatments } from './compareTreatments.ts';

/** Statements that the report tells in places of their own. */
const IN_REPORT: ReadonlySet<StatementKind> = new Set([
  'finding',
  'treatment',
  'not-examined',
  'not-excluded',
]);

export function mountCondition(mount: Mount, readers: Readers, pictures: PictureStore): void {
  const { database } = mount;
  mountInspection(mount, readers);

  mount.handle(conditionRoutes.grade, async ({ body }) =>
    answer(gradeCondition(body, await readers.rules.inUse())),
  );
  mountRules(mount, readers);

  mount.handle(conditionRoutes.conditionFile, async ({ params }) => {
    const record = await pieceRecord(database, params.id);
    return answer(await conditionFile(database, await readers.library.index(), record));
  });
  mount.handle(conditionRoutes.weighTreatments, async ({ params }) => {
    const items = await compareTreatments(database, readers, await pieceRecord(database, params.id));
    return answer({ items, nextCursor: null, total: items.length });
  });

  mount.handlePrepared(
    conditionRoutes.treat,
    readers.ready,
    async (tx, { params, body, person, ifMatch }) => {
      let id = '';
      const record = await changePiece(
        tx,
        { pieceId: params.id, person, ifMatch, kind: 'treated', body },
        async (before) => {
          id = await treat(tx, readers, before, body, person);
        },
      );
      const kept = record.treatments.find((t) => t.id === id);
      if (!kept) throw new Error('the treatment was not kept');
      return answer(kept, { etag: `"v${record.version}"` });
    },
  );

  mount.handle(conditionRoutes.quarantined, async () => {
    const items = await quarantined(database);
    return answer({ items, nextCursor: null, total: items.length });
  });
  mount.handleInTransaction(conditionRoutes.quarantine, async (tx, { params, body, person, ifMatch }) => {
    const id = ulid();
    const record = await changePiece(
      tx,
      { pieceId: params.id, person, ifMatch, kind: 'quarantined', body },
      async (before) => {
        if (before.quarantinedUntil !== null)
          throw invalid([{ pointer: '/since', message: 'it is kept apart already; let it out first' }]);
        await tx.run(
          'INSERT INTO quarantine (id, piece_id, since, review_on, reason, set_by) VALUES (?, ?, ?, ?, ?, ?)',
          [id, params.id, body.since, body.reviewOn, body.reason, person.name],
        );
      },
    );
    const kept = await quarantineWith(tx, id);
    if (!kept) throw new Error('the quarantine was not kept');
    return answer(kept, { etag: `"v${record.version}"` });
  });
  mount.handleInTransaction(conditionRoutes.release, async (tx, { params, body, person }) => {
    await tx.row('SELECT id FROM quarantine WHERE id = ? FOR UPDATE', [params.id]);
    const before = await quarantineWith(tx, params.id);
    if (before?.endedOn !== null) throw notFound('piece in quarantine');
    if (body.endedOn < before.since)
      throw invalid([{ pointer: '/endedOn', message: `it began only on ${before.since}` }]);
    const change = { pieceId: before.piece.id, person, ifMatch: undefined, anyVersion: true };
    await changePiece(tx, { ...change, kind: 'released', body }, async () => {
      await tx.run('UPDATE quarantine SET ended_on = ?, outcome = ? WHERE id = ?', [
        body.endedOn,
        body.outcome,
        params.id,
      ]);
    });
    const kept = await quarantineWith(tx, params.id);
    if (!kept) throw new Error('the quarantine was not kept');
    return answer(kept);
  });

  mount.handlePrepared(conditionRoutes.movePart, readers.ready, async (tx, { body, person }) => {
    const id = ulid();
    // always in the same order, so that two moves between two pieces cannot wait for each other
    const ends = [body.from.piece, body.to.piece].filter((p) => p !== null).sort();
    for (const end of ['from', 'to'] as const) {
      const { piece } = body[end];
      if (piece !== null && !(await tx.row('SELECT id FROM piece WHERE id = ?', [piece])))
        throw invalid([{ pointer: `/${end}/piece`, message: 'there is no such piece' }]);
    }
    let first = true;
    for (const pieceId of ends) {
      const change = { pieceId, person, ifMatch: undefined, anyVersion: true, evenSold: true };
      await changePiece(tx, { ...change, kind: 'part-moved', body }, async (before) => {
        if (first)
          await tx.run(
            'INSERT INTO part_move (id, part, from_piece, from_where, to_piece, to_where, moved_on, why, note, noted_by) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)',
            [
              id,
              body.part,
              body.from.piece,
              body.from.where,
              body.to.piece,
              body.to.where,
              body.movedOn,
              body.why,
              body.note,
              person.name,
            ],
          );
        first = false;
        if (before.sale) return;
        const receives = body.to.piece === pieceId;
        // a part that was reunited is the piece's own again
        const defect = receives ? 'replaced' : 'missing';
        if (body.why === 'reunited' && receives) return;
        if (before.findings.some((f) => f.part === body.part && f.defect === defect)) return;
        const findings = [...before.findings, { part: body.part, defect, note: body.note || null } as const];
        await writeFindings(tx, pieceId, findings);
        if (before.inspected)
          await snapshotCondition(tx, readers, { ...before, findings }, 'part-moved', person);
      });
    }
    const kept = await moveWith(tx, id);
    if (!kept) throw new Error('the move was not kept');
    return answer(kept);
  });

  mount.handle(conditionRoutes.conditionReport, async ({ params, response }) => {
    const record = await pieceRecord(database, params.id);
    const index = await readers.library.index();
    const assessment = await readers.assess(record);
    const { grade, inspection } = assessment;
    const statements = statementsOf(
      factsForStatements(record, assessment, await contextOf(database, record.id)),
    );
    const which = (await readers.readings([record])).get(record.id)?.which;
    const pdf = await conditionReport(
      {
        letterhead: await letterheadOf(database),
        record,
        inspection,
        grade,
        file: await conditionFile(database, index, record),
        claim: which?.label ?? '',
        drawing: drawAsFound(
          recipeIn(index, { construction: record.intake.construction, ...which }),
          record.findings,
          'open',
        ),
        mark: await recordMark(database, record.id),
        measures: measuresInWords(index, record),
        told: statements.filter((s) => s.disclose && !IN_REPORT.has(s.kind)).map((s) => s.text),
      },
      pictures,
    );
    response
      .type('application/pdf')
      .setHeader('Content-Disposition', `inline; filename="condition-${record.stockNumber}.pdf"`)
      .send(pdf);
    return undefined;
  });

  mount.handle(conditionRoutes.gradings, async () => {
    const items = await listGradings(database);
    return answer({ items, nextCursor: null, total: items.length });
  });
  const tellGrading = async ({ id }: { id: string }) => answer(await gradingSheet(database, readers, id));
  mount.handleInTransaction(
    conditionRoutes.setGrading,
    async (tx, { body, person }) => ({ id: await setGrading(tx, body.title, body.pieces, person) }),
    tellGrading,
  );
  mount.handle(conditionRoutes.grading, async ({ params }) => tellGrading(params));
  mount.handleInTransaction(
    conditionRoutes.lookAgain,
    async (tx, { params, body, person }) => {
      await lookAgain(tx, params.id, params.piece, body.findings, person);
      return { id: params.id };
    },
    tellGrading,
  );
}

/** Under this many pieces are graded for a trial; the rest would not change what it shows. */
const MOST_TRIED = 2000;

function mountRules(mount: Mount, readers: Readers): void {
  const { database } = mount;
  const sound = (document: RuleDocument): RuleDocument => {
    const problems = checkRules(document);
    if (problems.length > 0)
      throw invalid(problems.map((p) => ({ pointer: `/document${p.pointer}`, message: p.message })));
    return document;
  };

  mount.handle(conditionRoutes.ruleSummaries, async () => {
    const items = await Promise.all(
      RULE_IDS.map(async (id) => ({
        id,
        title: documentOf(SHIPPED_RULES, id)?.title ?? id,
        versions: await ruleVersions(database, id),
      })),
    );
    return answer({ items, nextCursor: null, total: items.length });
  });
  mount.handle(conditionRoutes.ruleSchema, async () => answer(z.toJSONSchema(ruleDocument)));
  mount.handle(conditionRoutes.rules, async ({ params, query }) => {
    const document = await storedDocument(database, params.id, query.version);
    if (!document) throw notFound('version of these rules');
    return answer(document);
  });
  mount.handle(conditionRoutes.tryRules, async ({ body }) => {
    const before = await readers.rules.inUse();
    const after = withDocument(before, sound(body.document));
    const rows = await database.rows<{ id: string }>(
      'SELECT id FROM piece WHERE inspected ORDER BY id DESC LIMIT ?',
      [MOST_TRIED],
    );
    const records = await loadPieces(
      database,
      rows.map((r) => r.id),
    );
    const trial: RuleTrial = { graded: records.length, changes: [] };
    const assessed = await readers.assessAll(records);
    for (const [n, record] of records.entries()) {
      const question = gradeQuestion(record, assessed[n]?.made);
      const [was, is] = [gradeCondition(question, before), gradeCondition(question, after)];
      is.grades.forEach((grade) => {
        const old = was.grades.find((g) => g.scale === grade.scale);
        if (old && old.grade !== grade.grade)
          trial.changes.push({
            piece: { id: record.id, stockNumber: record.stockNumber, title: record.intake.title },
            scale: grade.scale,
            before: old.grade,
            after: grade.grade,
            indexBefore: was.conditionIndex,
            indexAfter: is.conditionIndex,
          });
      });
    }
    return answer(trial);
  });
  mount.handleInTransaction(conditionRoutes.keepRules, async (tx, { body, person }) =>
    answer(await keepRules(tx, sound(body.document), body.note, person.name)),
  );
  mount.handleInTransaction(conditionRoutes.useRules, async (tx, { params, body }) => {
    const document = await storedDocument(tx, params.id, body.version);
    if (!document) throw notFound('version of these rules');
    await useRules(tx, params.id, body.version);
    return answer(document);
  });
}
