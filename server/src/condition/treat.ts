/** What was done to a piece: checked against what was found, kept with the state it left behind. */
import { ulid } from 'ulid';
import type { Completeness, Finding } from '@jutbank/core/condition';
import type { TreatmentBody } from '@jutbank/contract/condition';
import type { Person } from '@jutbank/contract/shop';
import type { Transaction } from '../db/index.ts';
import { conflict, invalid } from '../http/index.ts';
import { snapshotCondition, writeFindings } from './states.ts';
import { todayIso } from '../clock/index.ts';
import type { PieceRecord, Readers } from '../pieces/index.ts';

export async function treat(
  tx: Transaction,
  readers: Readers,
  before: PieceRecord,
  body: TreatmentBody,
  person: Person,
): Promise<string> {
  if (!before.inspected)
    throw conflict(
      'Record the piece as it was found first: finish the inspection before anything is done to it.',
    );
  if (body.doneOn > todayIso()) throw invalid([{ pointer: '/doneOn', message: 'this day has not come yet' }]);
  const unknown = body.removes.findIndex((i) => before.findings[i] === undefined);
  if (unknown >= 0)
    throw invalid([{ pointer: `/removes/${unknown}`, message: 'there is no such finding; look again' }]);
  const pictures = new Set(before.pictures.map((p) => p.id));
  for (const side of ['before', 'after'] as const) {
    const at = body.pictures[side].findIndex((id) => !pictures.has(id));
    if (at >= 0)
      throw invalid([{ pointer: `/pictures/${side}/${at}`, message: 'this picture is not on this piece' }]);
  }
  const removed = before.findings.filter((_, i) => body.removes.includes(i));
  const findings: Finding[] = [...before.findings.filter((_, i) => !body.removes.includes(i)), ...body.adds];
  const completeness: Completeness = { ...before.completeness, ...body.completeness };
  await writeFindings(tx, before.id, findings);
  await tx.run('UPDATE piece SET completeness = ? WHERE id = ?', [JSON.stringify(completeness), before.id]);
  const state = await snapshotCondition(
    tx,
    readers,
    { ...before, findings, completeness },
    'treated',
    person,
  );
  const id = ulid();
  await tx.run(
    'INSERT INTO treatment (id, piece_id, state_id, kind, title, product, grit, done_on, done_by, reason, reversible, cost, currency, removed, added, pictures) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)',
    [
      id,
      before.id,
      state,
      body.kind,
      body.title,
      body.product,
      body.grit,
      body.doneOn,
      body.doneBy,
      body.reason,
      body.reversible,
      body.cost?.amount ?? null,
      body.cost?.currency ?? null,
      JSON.stringify(removed),
      JSON.stringify(body.adds),
      JSON.stringify(body.pictures),
    ],
  );
  return id;
}
