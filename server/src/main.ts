/** Starts one copy of the server. Settings come from the environment (see README). */
import { mkdir } from 'node:fs/promises';
import { createServer } from 'node:http';
import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { pino } from 'pino';
import { startGauge } from '@jutbank/standins/gauges';
import { startMarketplace } from '@jutbank/standins/marketplace';
import { startRates } from '@jutbank/standins/rates';
import { createApp } from './app/index.ts';
import type { GaugeAddress } from './bench/index.ts';
import { migrate, NewerDatabase, openDatabase } from './db/index.ts';

const root = resolve(dirname(fileURLToPath(import.meta.url)), '../..');
const port = Number(process.env.JUTBANK_PORT ?? 4180);
const host = process.env.JUTBANK_HOST ?? '127.0.0.1';
const dataDir = resolve(process.env.JUTBANK_DATA_DIR ?? join(root, 'var'));
const databaseUrl = process.env.JUTBANK_DATABASE_URL;

function giveUp(message: string): never {
  process.stderr.write(`${message}\n`);
  process.exit(1);
}

if (databaseUrl === undefined)
  giveUp('JUTBANK_DATABASE_URL is not set. “npm start” starts a database of its own and sets it.');
await mkdir(join(dataDir, 'log'), { recursive: true });
const log = pino(
  { level: process.env.JUTBANK_LOG_LEVEL ?? 'warn' },
  pino.destination({ dest: join(dataDir, 'log', 'server.log'), mkdir: true }),
);
const database = openDatabase(databaseUrl);
await migrate(database).catch((error: unknown) => {
  if (error instanceof NewerDatabase) giveUp(error.message);
  throw error;
});
const standin =
  process.env.JUTBANK_MARKETPLACE_URL === undefined
    ? await startMarketplace(join(dataDir, 'standins'))
    : undefined;
const rates = process.env.JUTBANK_RATES_URL === undefined ? await startRates() : undefined;
/** `JUTBANK_GAUGES=caliper=127.0.0.1:7001,scales=127.0.0.1:7002`; simulated ones where nothing is said. */
async function gaugesAtBench(): Promise<GaugeAddress[]> {
  const told = process.env.JUTBANK_GAUGES;
  if (told !== undefined)
    return told.split(',').flatMap((one): GaugeAddress[] => {
      const [kind, address] = one.split('=');
      if ((kind !== 'caliper' && kind !== 'scales') || address === undefined)
        giveUp(`JUTBANK_GAUGES: “${one}” is not caliper=host:port or scales=host:port.`);
      return [{ id: kind, kind, address, simulated: false }];
    });
  return Promise.all(
    (['caliper', 'scales'] as const).map(async (kind) => ({
      id: kind,
      kind,
      address: (await startGauge(kind)).address,
      simulated: true,
    })),
  );
}
const app = createApp({
  gauges: await gaugesAtBench(),
  database,
  databaseUrl,
  dataDir,
  ratesUrl: process.env.JUTBANK_RATES_URL ?? rates?.url ?? '',
  marketplaceUrl: process.env.JUTBANK_MARKETPLACE_URL ?? standin?.url ?? '',
  webDir: join(root, 'web', 'dist'),
  publicUrl: process.env.JUTBANK_PUBLIC_URL,
  log,
});
app.jobs.start();
app.dailyRates.start();
app.outboxRounds.start();
const server = createServer(app.express);
server.on('error', (error: NodeJS.ErrnoException) => {
  if (error.code === 'EADDRINUSE')
    giveUp(`Port ${port} is taken. Stop what uses it, or set JUTBANK_PORT to another.`);
  throw error;
});
server.listen(port, host, () => process.stdout.write(`listening on http://${host}:${port}\n`));

async function stop(): Promise<void> {
  server.close();
  server.closeIdleConnections();
  app.gauges.close();
  app.dailyRates.stop();
  await app.outboxRounds.stop();
  await app.jobs.stop();
  await app.markets.close();
  await standin?.close();
  await rates?.close();
  await database.close();
  process.exit(0);
}
process.once('SIGTERM', () => void stop());
process.once('SIGINT', () => void stop());
