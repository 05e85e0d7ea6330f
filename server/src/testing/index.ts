/** A whole server on a database of its own, for tests of the routes. */
import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import type { Role } from '@jutbank/contract/shop';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pino } from 'pino';
import { startGauge } from '@jutbank/standins/gauges';
import { startMarketplace } from '@jutbank/standins/marketplace';
import { startCarriers } from '@jutbank/standins/carriers';
import { startRates } from '@jutbank/standins/rates';
import { createApp, type App } from '../app/index.ts';
import { migrate, openDatabase, type Database } from '../db/index.ts';
import { Visitor } from './visitor.ts';

export interface TestServer {
  readonly address: string;
  readonly database: Database;
  readonly url: string;
  /** where its files lie */
  readonly dataDir: string;
  readonly app: App;
  readonly owner: Visitor;
  nobody(): Visitor;
  /** somebody new of a role, signed in */
  person(role: Role): Promise<Visitor>;
  close(): Promise<void>;
}

export const OWNER = { name: 'Ines Vadder', email: 'ines@hollinquay.example', password: 'harbour light 12' };

export async function databaseForTest(): Promise<{
  url: string;
  database: Database;
  drop: () => Promise<void>;
}> {
  const base = process.env.JUTBANK_TEST_DATABASE;
  if (base === undefined) throw new Error('run these tests with npm run test:db, which starts the database');
  const name = `jutbank_${randomUUID().replaceAll('-', '')}`;
  const admin = openDatabase(`${base}jutbank`, { connections: 1 });
  await admin.run(`CREATE DATABASE ${name}`);
  const database = openDatabase(`${base}${name}`);
  return {
    url: `${base}${name}`,
    database,
    drop: async () => {
      await database.close();
      await admin.run(`DROP DATABASE ${name}`);
      await admin.close();
    },
  };
}

/** @param setUp name the shop and sign its owner in; @param marketplaceUrl another than the stand-in */
export async function serverForTest(setUp = true, marketplaceUrl?: string): Promise<TestServer> {
  const { url, database, drop } = await databaseForTest();
  await migrate(database);
  const dataDir = mkdtempSync(join(tmpdir(), 'jutbank-data-'));
  const market = await startMarketplace(dataDir);
  const rates = await startRates();
  const carriers = await startCarriers();
  const caliper = await startGauge('caliper');
  const app = createApp({
    database,
    databaseUrl: url,
    dataDir,
    marketplaceUrl: marketplaceUrl ?? market.url,
    ratesUrl: rates.url,
    carriersUrl: carriers.url,
    gauges: [{ id: 'caliper', kind: 'caliper', address: caliper.address, simulated: true }],
    webDir: undefined,
    publicUrl: undefined,
    log: pino(
      { level: process.env.JUTBANK_TEST_LOG ?? 'silent' },
      pino.destination(process.env.JUTBANK_TEST_LOG_FILE ?? 1),
    ),
  });
  const server = createServer(app.express);
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const address = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  const owner = new Visitor(address);
  if (setUp)
    await owner.call('POST', '/setup', {
      shopName: 'Hollin Quay Edge Room',
      baseCurrency: 'EUR',
      owner: OWNER,
    });
  return {
    address,
    database,
    url,
    dataDir,
    app,
    owner,
    nobody: () => new Visitor(address),
    person: async (role) => {
      const email = `${role}-${randomUUID()}@hollinquay.example`;
      const { password } = OWNER;
      await owner.call('POST', '/people', { name: role, email, password, role });
      const visitor = new Visitor(address);
      await visitor.call('POST', '/session', { email, password });
      return visitor;
    },
    close: async () => {
      server.closeAllConnections();
      await new Promise((resolve) => server.close(resolve));
      app.gauges.close();
      await app.markets.close();
      await app.packs.close();
      await caliper.close();
      await market.close();
      await rates.close();
      await carriers.close();
      await drop();
      rmSync(dataDir, { recursive: true, force: true });
    },
  };
}

export * from './pack.ts';
export * from './visitor.ts';
export { readyToSell } from './readyPiece.ts';
