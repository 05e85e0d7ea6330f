/** The stock valued as a whole: a task, whose result is kept as it was on its day. */
import { Decimal } from 'decimal.js';
import { ulid } from 'ulid';
import { money, type Money } from '@jutbank/core/money';
import { AGES, ageOf, repriceAdvice } from '@jutbank/core/worth';
import {
  VALUE_ENGINE_VERSION,
  trendsOfMarket,
  trendOfPattern,
  TREND_SETTINGS,
  type SoldOfPattern,
  type Trend,
} from '@jutbank/core/market';
import {
  REVALUATION_JOB,
  stockRoutes,
  type StockGrounds,
  type StockPiece,
  type StockTotals,
  type StockValuation,
} from '@jutbank/contract/worth';
import { instant, revisions, type Database, type Queries } from '../db/index.ts';
import { answer, notFound, type Mount } from '../http/index.ts';
import { costOf, dayBounds, loadPieces, type PieceRecord, type Readers } from '../pieces/index.ts';
import { queueJob } from '../jobs/index.ts';
import { answeredRows, type MarketOnDay, type Markets, inBase } from '../market/index.ts';
import { piecePrices, shopPrices, type PiecePrices, type ShopPrices } from './prices.ts';

const BATCH = 50;
const DAY_MS = 86_400_000;
const MOST_PATTERN_TRENDS = 30;
const MOST_HISTORY = 60;

export function mountStock(mount: Mount): void {
  const { database } = mount;

  mount.handle(stockRoutes.stock, async () => {
    const [count, running] = await Promise.all([
      database.row<{ n: number }>(
        'SELECT COUNT(*) AS n FROM piece p WHERE NOT EXISTS (SELECT 1 FROM sale s WHERE s.piece_id = p.id AND s.returned_on IS NULL)',
      ),
      database.row<{ id: string }>(
        "SELECT id FROM job WHERE state IN ('queued', 'running') AND kind = ? ORDER BY created_at LIMIT 1",
        [REVALUATION_JOB],
      ),
    ]);
    return answer({
      valuation: (await lastValuation(database)) ?? null,
      pieces: Number(count?.n ?? 0),
      running: running?.id ?? null,
    });
  });

  mount.handle(stockRoutes.stockGrounds, async ({ params }) => {
    const kept = await keptGrounds(database, params.id, params.piece);
    if (!kept) throw notFound('What this worth rested on');
    return answer(kept);
  });

  mount.handleInTransaction(stockRoutes.revalue, async (tx, { person }) =>
    answer({ job: await queueJob(tx, REVALUATION_JOB, { person: person.name }, person.id) }),
  );
}

interface ValuationRow {
  id: string;
  at: string;
  person: string;
  currency: string;
  pieces: number;
  cost: string;
  worth: string;
  body: Kept;
}
type Kept = Omit<StockValuation, 'id' | 'at' | 'person' | 'history'>;
type KeptGrounds = Pick<StockGrounds, 'rows' | 'rest'>;
/** Valuations from before it was kept what each piece was taken for. */
const WITHOUT_READINGS = { which: null, when: null };

async function lastValuation(db: Queries): Promise<StockValuation | undefined> {
  const row = await db.row<ValuationRow>('SELECT * FROM stock_valuation ORDER BY id DESC LIMIT 1');
  if (!row) return undefined;
  const history = await db.rows<Omit<ValuationRow, 'id' | 'person' | 'body'>>(
    'SELECT at, currency, pieces, cost, worth FROM stock_valuation ORDER BY id DESC LIMIT ?',
    [MOST_HISTORY],
  );
  return {
    ...row.body,
    id: row.id,
    pieces: row.body.pieces.map((piece) => ({ ...WITHOUT_READINGS, ...piece })),
    at: instant(row.at),
    person: row.person,
    history: history
      .map((h) => ({
        at: instant(h.at),
        cost: money(h.cost, h.currency),
        worth: money(h.worth, h.currency),
        pieces: Number(h.pieces),
      }))
      .reverse(),
  };
}

async function keptGrounds(db: Queries, id: string, pieceId: string): Promise<StockGrounds | undefined> {
  const row = await db.row<{
    at: string;
    person: string;
    known: StockGrounds['known'];
    grounds: KeptGrounds;
    body: Kept;
  }>(
    `SELECT v.at, v.person, v.known, v.body, p.grounds FROM stock_valuation_piece p
     JOIN stock_valuation v ON v.id = p.valuation_id WHERE p.valuation_id = ? AND p.piece_id = ?`,
    [id, pieceId],
  );
  return (
    row && {
      at: instant(row.at),
      person: row.person,
      worth: row.body.pieces.find((piece) => piece.id === pieceId)?.worth ?? null,
      known: row.known,
      ...row.grounds,
    }
  );
}

/** Values every unsold piece. @param progress hears how far it is, and throws when the task was cancelled */
export async function revalueStock(
  database: Database,
  readers: Readers,
  markets: Markets,
  { person }: { readonly person: string },
  progress: (share: number) => Promise<void>,
): Promise<{ id: string }> {
  const now = await revisions(database);
  const shop = await shopPrices(database, markets);
  const { on } = shop;
  const before = new Map(
    ((await lastValuation(database))?.pieces ?? []).flatMap((p) =>
      p.worth?.estimate.currency === on.base ? [[p.id, Number(p.worth.estimate.amount)]] : [],
    ),
  );
  const ids = (
    await database.rows<{ id: string }>(
      'SELECT id FROM piece p WHERE NOT EXISTS (SELECT 1 FROM sale s WHERE s.piece_id = p.id AND s.returned_on IS NULL) ORDER BY id',
    )
  ).map((row) => row.id);
  const pieces: StockPiece[] = [];
  const grounds: [piece: string, kept: string][] = [];
  for (let at = 0; at < ids.length; at += BATCH) {
    await progress(at / (ids.length + BATCH));
    const records = await loadPieces(database, ids.slice(at, at + BATCH));
    const readings = await readers.readings(records);
    for (const record of records) {
      const { which, when } = readings.get(record.id) ?? WITHOUT_READINGS;
      const prices = await piecePrices(shop, readers, record);
      pieces.push({ ...valued(shop, prices, record, before.get(record.id)), which, when });
      if (prices?.retail.supported)
        grounds.push([record.id, JSON.stringify(await groundsOf(database, prices))]);
    }
  }
  const { trends, untold } = await trendsOf(database, on);
  const index = await readers.library.index();
  const nameOf = (t: Trend) =>
    t.of === 'market'
      ? 'The market'
      : ((t.of === 'maker' ? index.makers.get(t.id ?? '')?.name : index.patterns.get(t.id ?? '')?.name) ??
        t.id ??
        '');
  const totals = totalsOf(pieces, on.base);
  const kept: Kept = {
    totals,
    ages: AGES.map((age) => ({
      age,
      ...totalsOf(
        pieces.filter((p) => p.age === age),
        on.base,
      ),
    })),
    pieces,
    trends: trends.map((t) => ({ ...t, name: nameOf(t) })),
    untold,
  };
  await progress(0.99);
  const id = ulid();
  const known: StockGrounds['known'] = {
    engine: VALUE_ENGINE_VERSION,
    comparables: now.comparables,
    rates: now.rates,
    reference: now.reference,
  };
  await database.transaction(async (tx) => {
    await tx.run(
      'INSERT INTO stock_valuation (id, person, currency, pieces, cost, worth, known, body) VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
      [
        id,
        person,
        on.base,
        totals.pieces,
        totals.cost.amount,
        totals.worth.amount,
        JSON.stringify(known),
        JSON.stringify(kept),
      ],
    );
    await tx.insertMany(
      'INSERT INTO stock_valuation_piece (valuation_id, piece_id, grounds) VALUES ?',
      grounds.map(([piece, rows]) => [id, piece, rows]),
    );
  });
  return { id };
}

async function groundsOf(db: Queries, { on, retail }: PiecePrices): Promise<KeptGrounds> {
  const amount = (x: number): Money => money(x, on.base);
  return {
    rows: (await answeredRows(db, on, retail, amount)).filter((row) => row.excluded === null),
    rest: { ...retail.rest, adjusted: amount(retail.rest.adjusted) },
  };
}

function valued(
  { on, hazard }: ShopPrices,
  prices: PiecePrices | undefined,
  record: PieceRecord,
  before: number | undefined,
): Omit<StockPiece, 'which' | 'when'> {
  const amount = (x: number): Money => money(x, on.base);
  const since = dayBounds(record.intake.acquired)[0] ?? record.createdAt.slice(0, 10);
  const days = Math.max(0, Math.floor((Date.now() - Date.parse(since)) / DAY_MS));
  const published = record.listing?.state === 'published' ? record.listing.publishedAt : null;
  const weeks = published === null ? undefined : (Date.now() - Date.parse(published)) / (7 * DAY_MS);
  const number = (text: string | undefined) => (text === undefined ? undefined : Number(text));
  const [ask, floor] = [record.pricing.ask, record.pricing.floor].map((m) => inBase(on, m));
  const cost = costOf(record, on.base, (currency) => on.rates(currency, on.day)?.toString());
  const advice =
    prices &&
    repriceAdvice(
      {
        ask: number(ask),
        floor: number(floor),
        estimate: prices.retail.estimate,
        low: prices.retail.low,
        high: prices.retail.high,
        best: prices.best,
        before,
        weeks,
      },
      hazard,
    );
  // a piece that is not listed yet need not have an ask
  const shown = advice && (published !== null || !advice.reasons.includes('no-ask')) ? advice : undefined;
  return {
    id: record.id,
    stockNumber: record.stockNumber,
    title: record.intake.title,
    days,
    age: ageOf(days),
    cost,
    // no worth without a sale near it
    worth: prices?.retail.supported
      ? {
          estimate: amount(prices.retail.estimate),
          low: amount(prices.retail.low),
          high: amount(prices.retail.high),
          thin: prices.retail.thin,
        }
      : null,
    moved: prices && before !== undefined ? 100 * (prices.retail.estimate / before - 1) : null,
    ask: record.pricing.ask,
    listedWeeks: weeks === undefined ? null : Math.floor(weeks),
    reprice: shown ? { reasons: [...shown.reasons], ask: amount(Math.round(shown.ask)) } : null,
  };
}

function totalsOf(pieces: readonly StockPiece[], base: string): StockTotals {
  const sum = (amounts: readonly (Money | null | undefined)[]) =>
    money(
      amounts.reduce((total, m) => total.plus(m?.amount ?? 0), new Decimal(0)),
      base,
    );
  const valuedOnes = pieces.filter((p) => p.worth !== null);
  return {
    pieces: pieces.length,
    cost: sum(pieces.map((p) => p.cost)),
    worth: sum(pieces.map((p) => p.worth?.estimate)),
    valued: valuedOnes.length,
    costOfValued: sum(valuedOnes.map((p) => p.cost)),
    withoutCost: pieces.filter((p) => p.cost === null).length,
  };
}

/** Tides of the market and its makers, and the patterns of which enough was sold. */
async function trendsOf(db: Queries, on: MarketOnDay): Promise<{ trends: Trend[]; untold: number }> {
  const rows = await db.rows<{ pattern: string; now: string; before: string }>(
    `SELECT pattern_id AS pattern, SUM(sale_day > DATE_SUB(?, INTERVAL 365 DAY)) AS now,
       SUM(sale_day <= DATE_SUB(?, INTERVAL 365 DAY)) AS \`before\`
     FROM comparable
     WHERE state = 'kept' AND price_kind = 'sold' AND sale_day <= ? AND sale_day > DATE_SUB(?, INTERVAL 730 DAY)
     GROUP BY pattern_id`,
    [on.asOf, on.asOf, on.asOf, on.asOf],
  );
  const sold = rows.map((r): SoldOfPattern => ({
    pattern: r.pattern,
    now: Number(r.now),
    before: Number(r.before),
  }));
  const tides = trendsOfMarket(on.market, sold, on.day);
  const enough = sold
    .filter((s) => Math.min(s.now, s.before) >= TREND_SETTINGS.fromPattern)
    .sort((a, b) => b.now + b.before - a.now - a.before)
    .slice(0, MOST_PATTERN_TRENDS);
  const sales = await on.salesOfPatterns(enough.map((s) => s.pattern));
  const patterns = enough.flatMap(
    ({ pattern }) => trendOfPattern(on.market, pattern, sales.get(pattern) ?? [], on.day) ?? [],
  );
  const makers = new Set(sold.flatMap((s) => on.market.reference.patterns.get(s.pattern)?.maker ?? []));
  const told = tides.filter((t) => t.of === 'maker').length + patterns.length;
  return { trends: [...tides, ...patterns], untold: makers.size + sold.length - told };
}
