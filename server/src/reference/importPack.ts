/** Import of a pack: checked as a whole, all or nothing; importing it twice changes nothing. */
import { checkPack, PACK_SECTIONS, type ReferencePack } from '@jutbank/core/reference';
import type { ImportAnswer } from '@jutbank/contract/reference';
import { raiseRevision, type Transaction } from '../db/index.ts';
import { invalid } from '../http/index.ts';
import { canonical } from '../ledger/index.ts';
import { loadContents, noCounts, packHead, storeItems, storePack } from './queries.ts';

export async function importPack(tx: Transaction, pack: ReferencePack): Promise<ImportAnswer> {
  // imports stand in line: two that run at once could refer to what the other is changing
  await tx.row("SELECT number FROM revision WHERE name = 'reference' FOR UPDATE");
  const contents = await loadContents(tx);
  const { errors, warnings } = checkPack(pack, contents);
  if (errors.length > 0) throw invalid(errors);
  const answer: ImportAnswer = {
    packId: pack.id,
    created: noCounts(),
    updated: noCounts(),
    unchanged: noCounts(),
    warnings: [...warnings],
  };
  let changed = false;
  for (const section of PACK_SECTIONS) {
    const before = new Map((contents[section] as { id: string }[]).map((item) => [item.id, canonical(item)]));
    const store: { item: { id: string }; body: string }[] = [];
    for (const item of pack[section] ?? []) {
      const known = before.get(item.id);
      if (known === undefined) answer.created[section]++;
      else if (known === canonical(item)) {
        answer.unchanged[section]++;
        continue;
      } else answer.updated[section]++;
      store.push({ item, body: JSON.stringify(item) });
    }
    changed ||= store.length > 0;
    await storeItems(tx, section, store);
  }
  const head = JSON.stringify(headOf(pack));
  if (changed || (await packHead(tx, pack.id))?.head !== head) {
    await storePack(tx, pack, head);
    await raiseRevision(tx, 'reference');
  }
  return answer;
}

/** What a pack says of itself, apart from its sections. */
export function headOf(pack: ReferencePack): Record<string, unknown> {
  return Object.fromEntries(
    Object.entries(pack).filter(([key]) => !(PACK_SECTIONS as readonly string[]).includes(key)),
  );
}
