/** One throw-away MariaDB for a whole run of tests; each test file makes its own database in it. */
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { startMariaDb } from './mariadb.mjs';

export default async function setup() {
  const folder = mkdtempSync(join(tmpdir(), 'jutbank-test-'));
  const database = await startMariaDb(folder, { durable: false });
  process.env.JUTBANK_TEST_DATABASE = database.url('');
  /** @type {any} */ (globalThis).__jutbankDatabase = { database, folder };
}
