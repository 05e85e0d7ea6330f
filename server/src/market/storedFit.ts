/** What was learned of the market, in the database: another copy of the server, or this one tomorrow, need not learn it again. */
import { deserialize, serialize } from 'node:v8';
import { ulid } from 'ulid';
import { fromLowerHalf, lowerHalf, VALUE_ENGINE_VERSION, type FittedMarket } from '@jutbank/core/market';
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

function packed({ covariance, ...rest }: FittedMarket): Buffer {
  return serialize({ ...rest, lower: lowerHalf(covariance, rest.plan.columns.length) });
}
function unpacked(bytes: Buffer): FittedMarket {
  const { lower, ...rest } = deserialize(bytes) as Omit<FittedMarket, 'covariance'> & { lower: Float32Array };
  return { ...rest, covariance: fromLowerHalf(lower, rest.plan.columns.length) };
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
