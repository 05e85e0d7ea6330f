/** What was learned of the market, in the database: another copy of the server, or this one tomorrow, need not learn it again. */
import { deserialize, serialize } from 'node:v8';
import { ulid } from 'ulid';
import { VALUE_ENGINE_VERSION, type FittedMarket } from '@jutbank/core/market';
import type { Database, Queries } from '../db/index.ts';
import type { SalesSnapshot, GradeIndex } from './sales.ts';

export interface MarketFit extends SalesSnapshot {
  readonly reference: number;
  readonly rates: number;
  /** by which grade words were read */
  readonly rules: number;
  readonly fitted: FittedMarket;
  readonly grades: GradeIndex;
}

/** The covariance is symmetric, and single precision is enough for a range. */
function packed({ covariance, ...rest }: FittedMarket): Buffer {
  const p = rest.plan.columns.length;
  const lower = new Float32Array((p * (p + 1)) / 2);
  for (let j = 0, at = 0; j < p; j++) for (let k = 0; k <= j; k++) lower[at++] = covariance[j * p + k] ?? 0;
  return serialize({ ...rest, lower });
}
function unpacked(bytes: Buffer): FittedMarket {
  const { lower, ...rest } = deserialize(bytes) as Omit<FittedMarket, 'covariance'> & { lower: Float32Array };
  const p = rest.plan.columns.length;
  const covariance = new Float64Array(p * p);
  for (let j = 0, at = 0; j < p; j++)
    for (let k = 0; k <= j; k++) covariance[k * p + j] = covariance[j * p + k] = lower[at++] ?? 0;
  return { ...rest, covariance };
}

const MOST_STORED = 6;

export async function storeFit(db: Database, fit: MarketFit): Promise<void> {
  await db.run(
    'INSERT INTO market_fit (id, as_of, engine, reference, comparables, rates, rules, body) VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
    [
      ulid(),
      fit.asOf,
      fit.fitted.engine,
      fit.reference,
      fit.comparables,
      fit.rates,
      fit.rules,
      serialize({ grades: fit.grades, market: packed(fit.fitted) }),
    ],
  );
  await db.run(
    'DELETE FROM market_fit WHERE id NOT IN (SELECT id FROM (SELECT id FROM market_fit ORDER BY made_at DESC LIMIT ?) newest)',
    [MOST_STORED],
  );
}

/** Those that this engine made, newest first. */
export async function storedFits(db: Queries): Promise<MarketFit[]> {
  const rows = await db.rows<{
    as_of: string;
    reference: number;
    comparables: number;
    rates: number;
    rules: number;
    body: Buffer;
  }>(
    'SELECT as_of, reference, comparables, rates, rules, body FROM market_fit WHERE engine = ? ORDER BY made_at DESC',
    [VALUE_ENGINE_VERSION],
  );
  return rows.map((row) => {
    const { grades, market } = deserialize(row.body) as { grades: GradeIndex; market: Buffer };
    return {
      asOf: row.as_of,
      reference: Number(row.reference),
      comparables: Number(row.comparables),
      rates: Number(row.rates),
      rules: Number(row.rules),
      grades,
      fitted: unpacked(market),
    };
  });
}
