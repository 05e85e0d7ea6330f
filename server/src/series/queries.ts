/** Series and the pieces that may fill them, from the tables. */
import type { Tier } from '@jutbank/core/bench';
import { moneyOrNull } from '@jutbank/core/money';
import type { FeatureReading } from '@jutbank/core/reference';
import type { Holding, SlotWish } from '@jutbank/core/series';
import type { HeldPiece, SeriesBody } from '@jutbank/contract/series';
import type { Readings } from '@jutbank/contract/pieces';
import { placeholders, rowsBy, type Queries } from '../db/index.ts';
import { notFound } from '../http/index.ts';

export interface StoredSeries extends SeriesBody {
  readonly id: string;
  readonly version: number;
  readonly buyerName: string | null;
}
interface SeriesRow {
  id: string;
  version: number;
  name: string;
  contact_id: string | null;
  contact: string | null;
  rule: SeriesBody['rule'];
  upgrade_below: string | null;
  note: string;
}
const SELECT = 'SELECT s.*, c.name AS contact FROM series s LEFT JOIN contact c ON c.id = s.contact_id';
const numberOrNull = (text: string | null): number | null => (text === null ? null : Number(text));
const storedSeries = (row: SeriesRow): StoredSeries => ({
  id: row.id,
  version: Number(row.version),
  name: row.name,
  rule: row.rule,
  contactId: row.contact_id,
  buyerName: row.contact,
  upgradeBelow: numberOrNull(row.upgrade_below),
  note: row.note,
});

/** The shop's own first. */
export const allSeries = async (db: Queries): Promise<StoredSeries[]> =>
  (await db.rows<SeriesRow>(`${SELECT} ORDER BY s.contact_id IS NOT NULL, s.name, s.id`)).map(storedSeries);

export async function seriesById(db: Queries, id: string): Promise<StoredSeries> {
  const row = await db.row<SeriesRow>(`${SELECT} WHERE s.id = ?`, [id]);
  if (!row) throw notFound('series');
  return storedSeries(row);
}

/** What was said of slots, by series and key. */
export async function wishesOf(
  db: Queries,
  series: readonly string[],
): Promise<Map<string, Map<string, SlotWish>>> {
  if (series.length === 0) return new Map();
  const rows = await db.rows<{
    series_id: string;
    slot_key: string;
    wish: SlotWish['wish'];
    at_most: string | null;
    currency: string | null;
    least_index: string | null;
  }>(`SELECT * FROM series_wish WHERE series_id IN (${placeholders(series)})`, series);
  return new Map(
    [...rowsBy(rows, (row) => row.series_id)].map(([id, of]) => [
      id,
      new Map(
        of.map((row): [string, SlotWish] => [
          row.slot_key,
          {
            wish: row.wish,
            atMost: moneyOrNull(row.at_most, row.currency),
            leastIndex: numberOrNull(row.least_index),
          },
        ]),
      ),
    ]),
  );
}

/** A piece as it stands in a series: what the rule asks of it, and what is shown. */
export interface PieceInSeries extends Holding {
  readonly buyer: string | null;
  readonly shown: HeldPiece;
}

/** So many pieces of the forms of a series are looked at, the newest first. */
const MOST_PIECES = 3000;

/** Pieces decided to be one of these forms, those that were given back left out; readings as they were last reckoned. */
export async function piecesOfForms(
  db: Queries,
  variants: readonly string[],
  features: readonly string[],
): Promise<PieceInSeries[]> {
  if (variants.length === 0) return [];
  const rows = await db.rows<{
    id: string;
    stock_number: string;
    title: string;
    variant: string;
    tier: Tier;
    sold: number;
    ask: string | null;
    ask_currency: string | null;
    days: number;
    reading: Readings | null;
    buyer: string | null;
  }>(
    `SELECT p.id, p.stock_number, p.title, p.decided_variant AS variant, p.decided_tier AS tier, p.stage = 'sold' AS sold,
       p.ask, p.ask_currency, r.body AS reading, s.contact_id AS buyer,
       DATEDIFF(COALESCE(DATE(s.sold_at), UTC_DATE()), COALESCE(p.acquired_from, DATE(p.created_at))) AS days
     FROM piece p LEFT JOIN piece_reading r ON r.piece_id = p.id
     LEFT JOIN sale s ON s.piece_id = p.id AND s.returned_on IS NULL
     WHERE p.decided_tier IN ('confirmed', 'probable', 'type-consistent') AND p.decided_variant IN (${placeholders(variants)})
       AND p.stage <> 'given-back' ORDER BY p.id DESC LIMIT ?`,
    [...variants, MOST_PIECES],
  );
  const seen = await seenFeatures(
    db,
    rows.map((row) => row.id),
    features,
  );
  return rows.map((row): PieceInSeries => {
    const { condition, worth, when } = row.reading ?? {};
    const conditionIndex = condition?.inspected ? condition.index : null;
    const days = Math.max(0, Number(row.days));
    return {
      piece: row.id,
      variant: row.variant,
      tier: row.tier,
      made: when?.core ?? null,
      seen: seen.get(row.id) ?? {},
      sold: Boolean(row.sold),
      conditionIndex,
      worth: worth?.estimate ?? null,
      days,
      buyer: row.buyer,
      shown: {
        id: row.id,
        stockNumber: row.stock_number,
        title: row.title,
        tier: row.tier,
        grade: condition?.inspected ? condition.grade : null,
        conditionIndex,
        worth: worth?.estimate ?? null,
        ask: moneyOrNull(row.ask, row.ask_currency),
        days,
        sold: Boolean(row.sold),
      },
    };
  });
}

async function seenFeatures(
  db: Queries,
  pieces: readonly string[],
  features: readonly string[],
): Promise<Map<string, Record<string, FeatureReading>>> {
  if (pieces.length === 0 || features.length === 0) return new Map();
  const rows = await db.rows<{ piece_id: string; body: { feature: string; value?: FeatureReading } }>(
    `SELECT piece_id, body FROM observation WHERE piece_id IN (${placeholders(pieces)})
     AND JSON_VALUE(body, '$.feature') IN (${placeholders(features)})`,
    [...pieces, ...features],
  );
  return new Map(
    [...rowsBy(rows, (row) => row.piece_id)].map(([id, of]) => [
      id,
      Object.fromEntries(
        of.flatMap(({ body: { feature, value } }) => (value === undefined ? [] : [[feature, value]])),
      ),
    ]),
  );
}
