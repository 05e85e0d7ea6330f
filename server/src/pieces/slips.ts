/** What a slip shows of a piece: read in two narrow queries for a page of the stock, or taken from a record at hand. */
import { hasLeft, missingNext, type Stage, type TakenIn } from '@jutbank/core/pieces';
import { money, moneyOrNull, type Money } from '@jutbank/core/money';
import type { Construction } from '@jutbank/core/reference';
import type { PieceSlip, Readings } from '@jutbank/contract/pieces';
import { todayIso } from '../clock/index.ts';
import type { Queries } from '../db/index.ts';
import {
  ATTENTION_COLUMNS,
  attentionFacts,
  attentionOf,
  PUBLISHED_LISTING,
  type AttentionFacts,
  type AttentionRow,
} from './attention.ts';
import { progressOf } from './change.ts';
import { costsOf, sumIn } from './costs.ts';
import type { KeptReadings, PieceRecord } from './record.ts';

export interface SlipFacts extends KeptReadings {
  readonly stockNumber: string;
  readonly title: string;
  readonly construction: Construction;
  readonly stage: Stage;
  readonly takenIn: TakenIn;
  readonly attention: AttentionFacts;
  /** the picture that stands for it, as it is framed */
  readonly picture: string | null;
  /** all that was paid; the purchase first */
  readonly paid: readonly Money[];
  readonly bought: Money | null;
  readonly ask: Money | null;
}

/** Of `piece p`: the picture that stands for it. */
export const FIRST_PICTURE =
  '(SELECT COALESCE(i.shown_hash, i.hash) FROM picture i WHERE i.piece_id = p.id AND i.removed = 0 ORDER BY i.position, i.id LIMIT 1)';

interface SlipRow extends AttentionRow {
  id: string;
  version: number;
  stock_number: string;
  title: string;
  construction: Construction;
  has_source: number;
  consigned: number;
  price: string | null;
  price_currency: string | null;
  ask: string | null;
  ask_currency: string | null;
  picture: string | null;
  basis: string | null;
  body: unknown;
}

/** In the order asked for; unknown ids are left out. */
export async function loadSlips(db: Queries, ids: readonly string[]): Promise<SlipFacts[]> {
  if (ids.length === 0) return [];
  const marks = ids.map(() => '?').join(',');
  const rows = await db.rows<SlipRow>(
    `SELECT p.id, p.version, p.stock_number, p.title, p.construction, p.stage, p.source_kind IS NOT NULL AS has_source,
       EXISTS (SELECT 1 FROM consignment g WHERE g.piece_id = p.id) AS consigned,
       p.price, p.price_currency, p.ask, p.ask_currency, r.basis, r.body,
       ${FIRST_PICTURE} AS picture, ${ATTENTION_COLUMNS}
     FROM piece p LEFT JOIN piece_reading r ON r.piece_id = p.id ${PUBLISHED_LISTING}
     WHERE p.id IN (${marks})`,
    ids,
  );
  const spent = await db.rows<{ piece_id: string; cost: string; currency: string }>(
    `SELECT piece_id, cost, currency FROM treatment WHERE cost IS NOT NULL AND piece_id IN (${marks}) ORDER BY done_on, id`,
    ids,
  );
  const byId = new Map(rows.map((row) => [row.id, row]));
  return ids.flatMap((id): SlipFacts[] => {
    const row = byId.get(id);
    if (!row) return [];
    const bought = moneyOrNull(row.price, row.price_currency);
    return [
      {
        id,
        version: Number(row.version),
        stockNumber: row.stock_number,
        title: row.title,
        construction: row.construction,
        stage: row.stage,
        takenIn: {
          hasSource: Boolean(row.has_source),
          // of what is sold for its owner nothing was paid
          hasPrice: bought !== null || Boolean(row.consigned),
          hasPicture: row.picture !== null,
        },
        attention: attentionFacts(row),
        picture: row.picture,
        bought,
        paid: [
          ...(bought ? [bought] : []),
          ...spent.flatMap((s) => (s.piece_id === id ? [money(s.cost, s.currency)] : [])),
        ],
        ask: moneyOrNull(row.ask, row.ask_currency),
        reading: row.basis === null ? null : { basis: row.basis, body: row.body },
      },
    ];
  });
}
/** The same of a record that is at hand. */
export const slipFacts = (record: PieceRecord): SlipFacts => ({
  ...record,
  title: record.intake.title,
  construction: record.intake.construction,
  takenIn: progressOf(record),
  attention: {
    left: hasLeft(record.stage),
    stillAt: record.offeredAt.map((o) => o.name),
    publishedAt: record.listing?.state === 'published' ? record.listing.publishedAt : null,
    expiresOn: record.listing?.expiresOn ?? null,
    open: (record.listing?.messages ?? []).flatMap((m) => (m.state === 'open' ? [m.kind] : [])),
    quarantinedUntil: record.quarantinedUntil,
  },
  picture: record.pictures[0]?.shown ?? null,
  bought: record.intake.price,
  paid: costsOf(record),
  ask: record.pricing.ask,
});

export function slipOf(facts: SlipFacts, readings: Readings): PieceSlip {
  const { id, stockNumber, title, construction, stage, picture, ask, bought } = facts;
  return {
    id,
    stockNumber,
    title,
    construction,
    stage,
    missing: missingNext(stage, facts.takenIn),
    attention: attentionOf(facts.attention, readings, todayIso()),
    picture,
    // amounts in other currencies are added where there are rates: on the sheets of money
    cost: bought && (sumIn(facts.paid, bought.currency, () => undefined) ?? bought),
    ask,
    readings,
  };
}
