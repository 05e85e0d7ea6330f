/** What happened to the filled pieces afterwards: treatments, quarantine, a moved part, a second grading. */
import type { GradingSheet } from '@jutbank/contract/condition';
import type { PieceSheet, PieceSlip } from '@jutbank/contract/pieces';
import type { Client } from './client.ts';
import { keptApart, partMove, secondGrading, treatments } from './world/condition.ts';

/** @param second somebody who did not inspect the pieces */
export async function fillCondition(client: Client, second: Client): Promise<void> {
  const { items } = await client.call<{ items: PieceSlip[] }>('GET', '/pieces?limit=200');
  const idOf = (title: string) => {
    const found = items.find((p) => p.title === title);
    if (!found) throw new Error(`the demo has no piece “${title}”`);
    return found.id;
  };
  const sheetOf = (title: string) => client.call<PieceSheet>('GET', `/pieces/${idOf(title)}`);
  for (const { title, done } of treatments) {
    const sheet = await sheetOf(title);
    const { treats, ...body } = done;
    const removes = sheet.condition.findings.flatMap((f, i) => (treats.includes(f.defect) ? [i] : []));
    await client.call('POST', `/pieces/${sheet.id}/treatments`, { ...body, removes }, sheet.version);
  }
  const { title, ...reasons } = keptApart;
  const apart = await sheetOf(title);
  await client.call('POST', `/pieces/${apart.id}/quarantine`, reasons, apart.version);
  await client.call('POST', '/part-moves', {
    ...partMove,
    from: { piece: idOf(partMove.from) },
    to: { piece: idOf(partMove.to) },
  });
  const grading = await client.call<GradingSheet>('POST', '/gradings', {
    title: secondGrading.title,
    pieces: secondGrading.pieces.map(idOf),
  });
  for (const [piece, findings] of Object.entries(secondGrading.looked))
    await second.call('PUT', `/gradings/${grading.id}/pieces/${idOf(piece)}`, { findings });
}
