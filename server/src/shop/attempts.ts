/** Counting of sign-in attempts in the database, so that all copies of the server count together. */
import type { ClientRateLimitInfo, Store } from 'express-rate-limit';
import { instant, type Database } from '../db/index.ts';

export class DatabaseCounters implements Store {
  localKeys = false;
  constructor(
    readonly database: Database,
    readonly windowMs: number,
    readonly prefix: string,
  ) {}

  async increment(key: string): Promise<ClientRateLimitInfo> {
    const name = this.prefix + key;
    const seconds = this.windowMs / 1000;
    await this.database.run(
      `INSERT INTO rate_counter (counter_key, hits, resets_at) VALUES (?, 1, DATE_ADD(UTC_TIMESTAMP(3), INTERVAL ? SECOND))
       ON DUPLICATE KEY UPDATE hits = IF(resets_at < UTC_TIMESTAMP(3), 1, hits + 1),
         resets_at = IF(resets_at < UTC_TIMESTAMP(3), VALUES(resets_at), resets_at)`,
      [name, seconds],
    );
    const row = await this.database.row<{ hits: number; resets_at: string }>(
      'SELECT hits, resets_at FROM rate_counter WHERE counter_key = ?',
      [name],
    );
    return {
      totalHits: Number(row?.hits ?? 1),
      resetTime: row ? new Date(instant(row.resets_at)) : undefined,
    };
  }
  /** How often within the window so far. */
  async hits(key: string): Promise<number> {
    const row = await this.database.row<{ hits: number }>(
      'SELECT hits FROM rate_counter WHERE counter_key = ? AND resets_at > UTC_TIMESTAMP(3)',
      [this.prefix + key],
    );
    return Number(row?.hits ?? 0);
  }
  async decrement(key: string): Promise<void> {
    await this.database.run('UPDATE rate_counter SET hits = GREATEST(hits, 1) - 1 WHERE counter_key = ?', [
      this.prefix + key,
    ]);
  }
  async resetKey(key: string): Promise<void> {
    await this.database.run('DELETE FROM rate_counter WHERE counter_key = ?', [this.prefix + key]);
  }
}
