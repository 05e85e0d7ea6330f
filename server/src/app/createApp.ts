/** Puts the rooms together: one Express application over one database. */
import { randomBytes } from 'node:crypto';
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import compression from 'compression';
import staticFiles from 'express-static-gzip';
import express, { type ErrorRequestHandler, type Express, type RequestHandler } from 'express';
import { rateLimit } from 'express-rate-limit';
import helmet from 'helmet';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import { openApiDocument } from '@jutbank/contract/openapi';
import { REVALUATION_JOB } from '@jutbank/contract/worth';
import {
  Gauges,
  type GaugeAddress,
  httpMarketplace,
  Outbox,
  OutboxRounds,
  httpRates,
  httpCarriers,
} from '../outside/index.ts';
import { mountBench } from '../bench/index.ts';
import { mountCondition } from '../condition/index.ts';
import { mountContacts } from '../contacts/index.ts';
import { findEverything, mountInventory } from '../inventory/index.ts';
import type { Database } from '../db/index.ts';
import { HttpProblem, Mount, problemOf, Room, sendProblem, UPLOADS } from '../http/index.ts';
import { mountIntake } from '../intake/index.ts';
import { mountLabels, mountPieces, PictureStore, Readers } from '../pieces/index.ts';
import { JobRunner, mountJobs } from '../jobs/index.ts';
import { mountListing } from '../listing/index.ts';
import { DocumentStore, mountProvenance } from '../provenance/index.ts';
import { Library, mountReference, PACK_WORKER, type PackWork } from '../reference/index.ts';
import { RuleLibrary } from '../rules/index.ts';
import { mountWorth, revalueStock } from '../worth/index.ts';
import { mountFair } from '../fair/index.ts';
import { mountSale } from '../sale/index.ts';
import { mountSeries } from '../series/index.ts';
import { findShop, mountShop, sessionReader, VERSION } from '../shop/index.ts';
import { ARCHIVE_JOB, BACKUP_JOB } from '@jutbank/contract/archive';
import { BackupRounds, mountArchive, runBackup, writeArchive, type BackupPlace } from '../archive/index.ts';
import { mountTraining } from '../training/index.ts';
import { Thread } from '../threads/index.ts';
import {
  COMPARABLES_JOB,
  DailyRates,
  importComparables,
  referenceKnown,
  Markets,
  mountMarket,
  listOfJob,
  type ComparablesJob,
} from '../market/index.ts';
import { todayIso } from '../clock/index.ts';
import { docsPage, type Described } from './docsPage.ts';
import { Housekeeping } from './housekeeping.ts';
import { metricsOf } from './metrics.ts';

export interface AppOptions {
  readonly database: Database;
  /** where the database is, for threads of their own */
  readonly databaseUrl: string;
  readonly dataDir: string;
  /** bytes of its disk that are never written to; some where it is not said */
  readonly keptFree?: number;
  /** where backups are kept where it is not `backups` beside the files, and what they are encrypted with */
  readonly backups?: { readonly folder?: string | undefined; readonly passphrase?: string | undefined };
  readonly marketplaceUrl: string;
  /** the source of daily exchange rates */
  readonly ratesUrl: string;
  readonly carriersUrl: string;
  readonly gauges: readonly GaugeAddress[];
  /** the built interface; absent in tests of the routes alone */
  readonly webDir: string | undefined;
  readonly publicUrl: string | undefined;
  /** who stands before the server and tells where a request comes from, as Express understands it */
  readonly trustProxy?: string | number | undefined;
  readonly log: Logger;
}
export interface App {
  readonly express: Express;
  /** its routes, and which of them only read */
  readonly mounted: Mount['mounted'];
  readonly jobs: JobRunner;
  readonly gauges: Gauges;
  readonly markets: Markets;
  readonly packs: Thread<PackWork>;
  readonly dailyRates: DailyRates;
  readonly outboxRounds: OutboxRounds;
  readonly housekeeping: Housekeeping;
  readonly backupRounds: BackupRounds;
}

export function createApp(options: AppOptions): App {
  const { database, log } = options;
  const library = new Library(database);
  // compiled at start, so that nobody's first question waits for it
  library.index().catch((error: unknown) => log.error(error));
  const rules = new RuleLibrary(database);
  const markets = new Markets(database, library, options.databaseUrl, (error) => log.error(error));
  const readers = new Readers(database, library, markets, rules);
  const marketplace = httpMarketplace(options.marketplaceUrl);
  const outbox = new Outbox(database, marketplace);
  const app = express();
  app.disable('x-powered-by');
  app.set('etag', false);
  const uploads = join(options.dataDir, 'uploads');
  app.set(UPLOADS, uploads);
  if (options.trustProxy !== undefined) app.set('trust proxy', options.trustProxy);
  app.use(
    pinoHttp({
      logger: log,
      // neither cookies nor bodies are logged
      serializers: {
        req: (r: { method: string; url: string }) => ({ method: r.method, url: r.url }),
        res: (r: { statusCode: number }) => ({ status: r.statusCode }),
      },
      customLogLevel: (_request, response, error) =>
        error !== undefined || response.statusCode >= 500 ? 'error' : 'debug',
    }),
  );
  app.use(securityHeaders());
  app.use(compression());

  const api = express.Router();
  api.use(sameOriginWrites);
  // an ETag here is a version to write against; what is computed beside it moves with prices and rules too, so no
  // browser may answer from its store (pictures, which never change, say otherwise)
  api.use((_request, response, next) => {
    response.setHeader('Cache-Control', 'no-store');
    next();
  });
  api.use('/certificates', certificateLimit());
  const metrics = metricsOf(database);
  api.use(metrics.count);
  api.get('/metrics', fromNearby, metrics.tell);
  const mount = new Mount(
    api,
    database,
    sessionReader(database),
    new Room(options.dataDir, options.keptFree),
    async () => (await findShop(database))?.readerSees ?? [],
  );
  mountShop(mount, async (q, { role }) =>
    findEverything(database, await library.index(), q, role !== 'reader'),
  );
  const packs = new Thread<PackWork>(PACK_WORKER, options.databaseUrl);
  mountReference(mount, library, packs);
  const pictures = new PictureStore(join(options.dataDir, 'files'));
  mountContacts(mount);
  mountPieces(mount, readers, markets, pictures);
  mountInventory(mount, readers, markets, options.publicUrl);
  mountLabels(mount, readers, options.publicUrl);
  mountIntake(mount, readers, markets);
  mountSeries(mount, readers);
  const gauges = new Gauges(options.gauges);
  mountBench(mount, readers, gauges);
  mountCondition(mount, readers, pictures);
  const rates = httpRates(options.ratesUrl);
  mountMarket(mount, library, markets, rates);
  mountWorth(mount, readers, markets);
  mountProvenance(mount, readers, pictures, new DocumentStore(join(options.dataDir, 'files')), markets);
  const carriers = httpCarriers(options.carriersUrl);
  mountListing(mount, readers, markets, marketplace, outbox, carriers);
  mountSale(
    mount,
    readers,
    markets,
    outbox,
    carriers,
    pictures,
    (error) => log.error(error),
    options.publicUrl,
  );
  mountFair(mount, readers, pictures);
  mountTraining(mount, readers);
  const archives = join(options.dataDir, 'archives');
  const backups: BackupPlace = {
    databaseUrl: options.databaseUrl,
    dataDir: options.dataDir,
    folder: options.backups?.folder ?? join(options.dataDir, 'backups'),
    passphrase: options.backups?.passphrase,
  };
  mountArchive(mount, archives, backups.passphrase !== undefined);
  mountJobs(mount);
  const openApi = JSON.stringify(openApiDocument(VERSION));
  app.get('/api/docs', (_request, response) => {
    response.type('html').send(docsPage(JSON.parse(openApi) as Described, String(response.locals.nonce)));
  });
  api.get('/openapi.json', (_request, response) => {
    response.type('application/json').send(openApi);
  });
  api.use((_request, _response, next) => next(new HttpProblem(404, 'There is no such route.')));
  app.use('/api/v1', api);
  if (options.webDir !== undefined) serveInterface(app, options.webDir);

  const failed: ErrorRequestHandler = (error: unknown, _request, response, _next) => {
    const problem = problemOf(error);
    if (problem.status >= 500) log.error(error);
    sendProblem(response, problem);
  };
  app.use(failed);

  const jobs = new JobRunner(
    database,
    {
      [COMPARABLES_JOB]: async (payload, progress) => {
        const known = referenceKnown(await library.index());
        const job = payload as ComparablesJob;
        const file = await listOfJob(job);
        const result = await database.transaction((tx) =>
          importComparables(tx, file, known, {
            check: false,
            person: job.person,
            progress,
          }),
        );
        markets.prefetch(todayIso());
        return result;
      },
      [BACKUP_JOB]: (_payload, progress) => runBackup(database, backups, progress),
      [ARCHIVE_JOB]: (_payload, progress) =>
        writeArchive(database, options.dataDir, archives, new Date().toISOString(), progress),
      [REVALUATION_JOB]: (payload, progress) =>
        revalueStock(database, readers, markets, payload as { person: string }, progress),
    },
    (error) => log.error(error),
  );
  const dailyRates = new DailyRates(database, rates, (error) => log.error(error));
  const outboxRounds = new OutboxRounds(outbox, (error) => log.error(error));
  const backupRounds = new BackupRounds(database, (error) => log.error(error));
  const housekeeping = new Housekeeping(database, uploads, (error) => log.error(error));
  return {
    express: app,
    mounted: mount.mounted,
    jobs,
    gauges,
    markets,
    packs,
    dailyRates,
    outboxRounds,
    housekeeping,
    backupRounds,
  };
}

function securityHeaders(): RequestHandler {
  const withNonce: RequestHandler = (_request, response, next) => {
    response.locals.nonce = randomBytes(16).toString('base64');
    next();
  };
  const headers = helmet({
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'none'"],
        scriptSrc: ["'self'"],
        workerSrc: ["'self'"],
        styleSrcElem: [
          "'self'",
          (_request, response) =>
            `'nonce-${String((response as unknown as { locals: { nonce: string } }).locals.nonce)}'`,
        ],
        styleSrcAttr: ["'none'"],
        fontSrc: ["'self'"],
        imgSrc: ["'self'", 'data:', 'blob:'],
        connectSrc: ["'self'"],
        manifestSrc: ["'self'"],
        baseUri: ["'none'"],
        formAction: ["'self'"],
        frameAncestors: ["'none'"],
      },
    },
    crossOriginEmbedderPolicy: false,
    strictTransportSecurity: false,
  });
  return (request, response, next) => {
    withNonce(request, response, () => headers(request, response, next));
  };
}

/** A browser says where a write comes from; another site's page may not write here. */
const sameOriginWrites: RequestHandler = (request, _response, next) => {
  const origin = request.get('Origin');
  if (request.method === 'GET' || request.method === 'HEAD' || origin === undefined) {
    next();
    return;
  }
  const host = URL.canParse(origin) ? new URL(origin).host : undefined;
  next(
    host === request.get('Host')
      ? undefined
      : new HttpProblem(403, 'Writes are accepted from this site’s own pages only.'),
  );
};

function serveInterface(app: Express, webDir: string): void {
  app.use(
    '/assets',
    staticFiles(join(webDir, 'assets'), {
      enableBrotli: true,
      orderPreference: ['br', 'gz'],
      serveStatic: { immutable: true, maxAge: '1y' },
    }),
  );
  const page = existsSync(join(webDir, 'index.html')) ? readFileSync(join(webDir, 'index.html'), 'utf8') : '';
  const sendPage: RequestHandler = (_request, response) => {
    response
      .setHeader('Cache-Control', 'no-store')
      .type('html')
      .send(page.replaceAll('__CSP_NONCE__', String(response.locals.nonce)));
  };
  // by its own name too: what is kept for a start without a connection has its nonce like any other page
  app.get('/index.html', sendPage);
  app.use(express.static(webDir, { index: false }));
  app.get('/{*path}', sendPage);
}

/** Figures of the running are for a monitor on this machine, or one that says the word it was given. */
const fromNearby: RequestHandler = (request, _response, next) => {
  const word = process.env.JUTBANK_METRICS_TOKEN;
  const told = request.get('Authorization');
  const here = request.socket.remoteAddress ?? '';
  const near = here === '127.0.0.1' || here === '::1' || here === '::ffff:127.0.0.1';
  // behind a proxy everybody is near
  const allowed =
    word === undefined ? near && request.get('X-Forwarded-For') === undefined : told === `Bearer ${word}`;
  next(allowed ? undefined : new HttpProblem(404, 'There is no such route.'));
};

/** Codes of certificates are for those who hold one, not to be tried one after the other. */
const certificateLimit = (): RequestHandler =>
  rateLimit({
    windowMs: 60_000,
    limit: 60,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    handler: (_request, response) =>
      sendProblem(response, new HttpProblem(429, 'Too many certificates were looked up. Wait a minute.')),
  });
