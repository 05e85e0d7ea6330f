/** What the shop itself saw: its own sales and the offers it refused become comparables. */
import type { Money } from '@jutbank/core/money';
import type { PriceKind } from '@jutbank/core/market';
import type { Transaction } from '../db/index.ts';
import type { Readers } from './readers.ts';
import { alterationsOf, priceState } from './subject.ts';
import type { PieceRecord } from './record.ts';
import {
  changeStates,
  insertComparables,
  referenceKnown,
  normaliseRow,
  stampRevision,
} from '../market/index.ts';
import { todayIso } from '../clock/index.ts';

/** @returns the comparable it became; nothing where it was never decided which pattern it is */
export async function ownPrice(
  tx: Transaction,
  readers: Readers,
  record: PieceRecord,
  price: Money,
  more: { readonly kind: PriceKind; readonly shop: string; readonly online: boolean },
): Promise<string | undefined> {
  const decided = record.attribution;
  if (decided?.pattern == null) return undefined;
  const { grade } = await readers.assessIn(tx, record);
  const sure = decided.tier === 'confirmed' || decided.tier === 'probable' || decided.tier === 'rejected';
  const item = (name: string) => priceState(record, name) ?? '';
  const { row } = normaliseRow(
    {
      sale_date: todayIso(),
      price: price.amount,
      currency: price.currency,
      price_kind: more.kind,
      venue: more.shop,
      venue_kind: more.online ? 'online' : 'retail',
      pattern: decided.pattern,
      variant: sure ? (decided.variant ?? '') : '',
      condition_index: record.inspected ? String(grade.conditionIndex) : '',
      box: item('box'),
      papers: item('papers'),
      sheath: item('sheath'),
      alterations: alterationsOf(record).join('|'),
      buyer_premium_pct: '0',
      shipping_included: 'no',
      source: more.kind === 'sold' ? 'own sale' : 'own offer, refused',
      note: record.stockNumber,
    },
    referenceKnown(await readers.library.atHand(tx)),
    false,
  );
  if (!row) return undefined;
  const { ids, added } = await insertComparables(tx, [row], { pieceId: record.id });
  if (added === 0) {
    // the same sale to the letter, such as one that came back and was sold again on its day: it counts once more
    const known = await tx.row<{ id: string }>('SELECT id FROM comparable WHERE row_hash = ?', [row.hash]);
    if (known) await changeStates(tx, [known.id], { state: 'kept', reason: null, mergedInto: null });
    return known?.id;
  }
  await stampRevision(tx, { ids });
  return ids[0];
}
