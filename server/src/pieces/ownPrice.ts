/** What the shop itself saw: its own sales and the offers it refused become comparables. */
import type { Money } from '@jutbank/core/money';
import type { PriceKind } from '@jutbank/core/market';
import type { Transaction } from '../db/index.ts';
import { alterationsOf, priceState, type Readers } from './readers.ts';
import type { PieceRecord } from './record.ts';
import { insertComparables, referenceKnown, normaliseRow, stampRevision } from '../market/index.ts';
import { todayIso } from '../clock/index.ts';

/** Nothing where it was never decided which pattern it is. */
export async function ownPrice(
  tx: Transaction,
  readers: Readers,
  record: PieceRecord,
  price: Money,
  more: { readonly kind: PriceKind; readonly shop: string; readonly online: boolean },
): Promise<void> {
  const decided = record.attribution;
  if (decided?.pattern == null) return;
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
  if (!row) return;
  const { ids } = await insertComparables(tx, [row], { pieceId: record.id });
  await stampRevision(tx, { ids });
}
