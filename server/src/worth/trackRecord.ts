/** What the house has said, against what came of it. */
import { convert, money, type Money } from '@jutbank/core/money';
import {
  calibrationOf,
  houseCalibration,
  rangesHeld,
  type Settled,
  type SoldAfter,
  type Basis,
} from '@jutbank/core/worth';
import { VALUE_SETTINGS } from '@jutbank/core/market';
import type { AppraisedAndSold, TrackRecord } from '@jutbank/contract/worth';
import type { Database, Queries } from '../db/index.ts';
import type { Readers } from '../pieces/index.ts';
import { houseRecord, keepHouseRecord, type Markets } from '../market/index.ts';
import { todayIso } from '../clock/index.ts';

interface SoldRow {
  id: string;
  number: string;
  piece_id: string;
  title: string;
  person: string;
  effective_date: string;
  currency: string;
  concluded: string;
  low: string;
  figure: string;
  high: string;
  basis: Basis;
  pattern: string;
  price: string;
  price_currency: string;
  sold_on: string;
}
/** Of several appraisals of a piece the last before its sale is the one it is held to. */
const APPRAISED_AND_SOLD = `FROM appraisal a JOIN sale s ON s.piece_id = a.piece_id AND s.returned_on IS NULL AND a.made_at < s.sold_at
  JOIN piece p ON p.id = a.piece_id
  WHERE a.id = (SELECT MAX(b.id) FROM appraisal b WHERE b.piece_id = a.piece_id AND b.made_at < s.sold_at)
  ORDER BY s.sold_at DESC LIMIT 2000`;
const SOLD = `SELECT a.id, a.number, a.piece_id, p.title, a.person, a.effective_date, a.currency, a.concluded,
    JSON_VALUE(a.record, '$.low.amount') AS low, JSON_VALUE(a.record, '$.figure.amount') AS figure,
    JSON_VALUE(a.record, '$.high.amount') AS high, JSON_VALUE(a.record, '$.basis') AS basis,
    JSON_VALUE(a.record, '$.question.subject.pattern') AS pattern,
    s.price, s.currency AS price_currency, DATE(s.sold_at) AS sold_on
  ${APPRAISED_AND_SOLD}`;

/** What is asked, as a share of the estimate. */
const ASK_BANDS = [0, 0.9, 1.05, 1.2, Infinity] as const;

export async function trackRecordOf(db: Queries, readers: Readers, markets: Markets): Promise<TrackRecord> {
  const { rateOf } = await markets.ratesOn(todayIso());
  const index = await readers.library.index();
  const pieces = (await db.rows<SoldRow>(SOLD)).flatMap((row): AppraisedAndSold[] => {
    const sold = convert(money(row.price, row.price_currency), row.currency, rateOf);
    const here = (amount: string): Money => money(amount, row.currency);
    return sold
      ? [
          {
            appraisal: row.id,
            number: row.number,
            pieceId: row.piece_id,
            title: row.title,
            basis: row.basis,
            maker: index.patterns.get(row.pattern)
              ? (index.makers.get(index.patterns.get(row.pattern)?.maker ?? '')?.name ?? '')
              : '',
            year: Number(row.sold_on.slice(0, 4)),
            appraiser: row.person,
            low: here(row.low),
            figure: here(row.figure),
            high: here(row.high),
            concluded: here(row.concluded),
            sold,
            soldOn: row.sold_on,
          },
        ]
      : [];
  });
  return {
    pieces,
    ranges: pieces.length === 0 ? null : rangesHeld(pieces.map(caseOf)),
    by: (['basis', 'maker', 'year', 'appraiser'] as const).flatMap((group) => {
      const names = [...new Set(pieces.map((piece) => String(piece[group])))].sort();
      return names.map((name) => ({
        group,
        name,
        held: rangesHeld(pieces.filter((piece) => String(piece[group]) === name).map(caseOf)),
      }));
    }),
    probabilities: calibrationOf(await settledOf(db)),
    asks: await asksOf(db),
    declined: await declinedOf(db),
    house: (await houseRecord(db)) ?? null,
  };
}

const caseOf = (piece: AppraisedAndSold): SoldAfter => ({
  low: Number(piece.low.amount),
  figure: Number(piece.figure.amount),
  high: Number(piece.high.amount),
  concluded: Number(piece.concluded.amount),
  price: Number(piece.sold.amount),
});

/** Lets the house's own sales say how wide its ranges are to be, once there are enough of them. */
export async function calibrateHouse(database: Database): Promise<void> {
  const rows = await database.rows<
    Record<'low' | 'figure' | 'high' | 'price' | 'stretch', string | null> & { same: number }
  >(
    `SELECT JSON_VALUE(a.record, '$.low.amount') AS low, JSON_VALUE(a.record, '$.figure.amount') AS figure,
       JSON_VALUE(a.record, '$.high.amount') AS high, s.price,
       JSON_VALUE(a.record, '$.engine.settings.houseStretch') AS stretch, s.currency = a.currency AS same
     ${APPRAISED_AND_SOLD}`,
  );
  const told = houseCalibration(
    // at the rate of another day a sale would say something of rates as well
    rows
      .filter((row) => Boolean(row.same))
      .map((row) => ({
        low: Number(row.low),
        figure: Number(row.figure),
        high: Number(row.high),
        price: Number(row.price),
        stretch: Number(row.stretch ?? 1),
      })),
    VALUE_SETTINGS,
  );
  if (told) await keepHouseRecord(database, told);
}

/** Forms that an appraisal held possible, where what the piece is was confirmed after it. */
async function settledOf(db: Queries): Promise<Settled[]> {
  const rows = await db.rows<{ variants: string; variant: string | null }>(
    `SELECT JSON_EXTRACT(a.record, '$.piece.which.variants') AS variants, JSON_VALUE(p.attribution, '$.variant') AS variant
     FROM appraisal a JOIN piece p ON p.id = a.piece_id
     WHERE JSON_VALUE(p.attribution, '$.tier') = 'confirmed'
       AND JSON_VALUE(p.attribution, '$.decidedAt') > JSON_VALUE(a.record, '$.issuedAt') LIMIT 2000`,
  );
  return rows.flatMap(({ variants, variant }) => {
    const told = (typeof variants === 'string' ? JSON.parse(variants) : variants) as {
      variant: string | null;
      probability: number;
    }[];
    return told.map((v) => ({ probability: v.probability, was: v.variant === variant }));
  });
}

async function asksOf(db: Queries): Promise<TrackRecord['asks']> {
  const rows = await db.rows<{ ratio: number | null; weeks: number; sold: number }>(
    `SELECT p.ask / JSON_VALUE(r.body, '$.worth.estimate.amount') AS ratio,
       TIMESTAMPDIFF(HOUR, l.published_at, COALESCE(s.sold_at, UTC_TIMESTAMP(3))) / 168 AS weeks, s.id IS NOT NULL AS sold
     FROM listing l JOIN piece p ON p.id = l.piece_id JOIN piece_reading r ON r.piece_id = p.id
     LEFT JOIN sale s ON s.piece_id = p.id AND s.returned_on IS NULL
     WHERE l.published_at IS NOT NULL AND p.ask IS NOT NULL
       AND p.ask_currency = JSON_VALUE(r.body, '$.worth.estimate.currency') LIMIT 5000`,
  );
  return ASK_BANDS.slice(0, -1).flatMap((from, i) => {
    const to = ASK_BANDS[i + 1] ?? Infinity;
    const inside = rows.filter((row) => Number(row.ratio) >= from && Number(row.ratio) < to);
    if (inside.length === 0) return [];
    const weeks = inside
      .filter((row) => Boolean(row.sold))
      .map((row) => Number(row.weeks))
      .sort((a, b) => a - b);
    return [
      {
        from,
        to: Number.isFinite(to) ? to : 99,
        sold: weeks.length,
        open: inside.length - weeks.length,
        weeks: weeks[weeks.length >> 1] ?? null,
      },
    ];
  });
}

async function declinedOf(db: Queries): Promise<TrackRecord['declined']> {
  const rows = await db.rows<{
    piece_id: string;
    title: string;
    amount: string;
    currency: string;
    at: string;
    price: string | null;
    price_currency: string | null;
    sold_on: string | null;
  }>(
    `SELECT o.piece_id, p.title, o.amount, o.currency, DATE(o.at) AS at, s.price, s.currency AS price_currency,
       DATE(s.sold_at) AS sold_on
     FROM offer o JOIN piece p ON p.id = o.piece_id LEFT JOIN sale s ON s.piece_id = o.piece_id AND s.returned_on IS NULL AND s.sold_at > o.at
     WHERE o.decision = 'refused' ORDER BY o.id DESC LIMIT 200`,
  );
  return rows.map((row) => ({
    pieceId: row.piece_id,
    title: row.title,
    offer: money(row.amount, row.currency),
    at: row.at,
    sold: row.price === null ? null : money(row.price, row.price_currency ?? row.currency),
    soldOn: row.sold_on,
  }));
}
