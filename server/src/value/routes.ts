import type { RequestHandler } from 'express';
import multer from 'multer';
import { z } from 'zod';
import { comparableRow, valueRoutes } from '@jutbank/contract/value';
import { raiseRevision } from '../db/index.ts';
import {
  answer,
  conflict,
  decodeCursor,
  HttpProblem,
  invalid,
  notFound,
  pageOf,
  type Mount,
} from '../http/index.ts';
import { cancelJob, findJob, queueJob } from '../jobs/index.ts';
import type { Library } from '../reference/index.ts';
import { shopOf } from '../shop/index.ts';
import { importComparables, knownFor, rawFromCsv, rawFromRows, type RawFile } from './importComparables.ts';
import { answerEstimate, type Markets } from './market.ts';
import { normaliseRow } from './normalise.ts';
import {
  comparablesByIds,
  countComparables,
  insertComparables,
  knownHashes,
  listComparables,
  storeRates,
} from './queries.ts';

/** Larger files go in as a job, so that the answer does not have to wait. */
const ROWS_AT_ONCE = 20_000;
const MOST_BYTES = 64 * (1 << 20);

const upload: RequestHandler = multer({
  storage: multer.memoryStorage(),
  limits: { fileSize: MOST_BYTES, files: 1, fields: 20 },
}).single('file');
const jsonRows = z.object({ rows: z.array(comparableRow).max(200_000) });

export const COMPARABLES_JOB = 'import-comparables';

export function mountValue(mount: Mount, library: Library, markets: Markets): void {
  const { database } = mount;

  mount.writes(valueRoutes.addRates, async (tx, { body }) => {
    const shop = await shopOf(tx);
    if (body.base !== shop.baseCurrency)
      throw invalid([{ pointer: '/base', message: `this shop’s rates are for one ${shop.baseCurrency}` }]);
    const counts = await storeRates(tx, body.rates);
    if (counts.added + counts.updated > 0) await raiseRevision(tx, 'rates');
    return answer(counts);
  });

  mount.reads(valueRoutes.listRates, async () => {
    const shop = await shopOf(database);
    const latest = await database.rows<{ currency: string; date: string; rate: string }>(
      'SELECT e.currency, e.day AS date, e.rate FROM exchange_rate e JOIN (SELECT currency, MAX(day) AS day FROM exchange_rate GROUP BY currency) l ON l.currency = e.currency AND l.day = e.day ORDER BY e.currency',
    );
    return answer({
      base: shop.baseCurrency,
      latest: latest.map((r) => ({ ...r, rate: String(Number(r.rate)) })),
    });
  });

  mount.reads(valueRoutes.importComparables, async ({ request, response, query, person }) => {
    await new Promise<void>((resolve, reject) =>
      upload(request, response, (error: unknown) => (error ? reject(error) : resolve())),
    );
    const file = request.is('multipart/form-data')
      ? fileOf(request.file)
      : rowsOf(await jsonBody(request, response));
    const check = query.check === '1';
    if (!check && file.rows.length > ROWS_AT_ONCE) {
      const id = await queueJob(database, COMPARABLES_JOB, file, person.id);
      response.setHeader('Location', `/api/v1/jobs/${id}`);
      response.status(202).json({ job: id });
      return undefined;
    }
    const known = await knownFor(library);
    return answer(await database.transaction((tx) => importComparables(tx, file, known, { check })));
  });

  mount.writes(valueRoutes.addComparable, async (tx, { body }) => {
    const cells = Object.fromEntries(
      Object.entries(body).map(([name, value]) => [name, value === null ? '' : String(value)]),
    );
    const { row, errors } = normaliseRow(cells, await knownFor(library), false);
    if (!row) throw invalid(errors.map((e) => ({ pointer: `/${e.column}`, message: e.message })));
    if ((await knownHashes(tx, [row.hash])).size > 0) throw conflict('This very sale is known already.');
    const { ids } = await insertComparables(tx, [row]);
    await raiseRevision(tx, 'comparables');
    const record = (await comparablesByIds(tx, ids)).get(ids[0] ?? '');
    if (!record) throw new Error('the comparable was not stored');
    return answer(record);
  });

  mount.reads(valueRoutes.listComparables, async ({ query }) => {
    const filter = { pattern: query.pattern, variant: query.variant, priceKind: query.priceKind };
    const rows = await listComparables(database, filter, decodeCursor(query.cursor, 2), query.limit + 1);
    return answer(
      pageOf(
        rows,
        query.limit,
        await countComparables(database, filter),
        ({ sale_day: _, ...record }) => record,
        (row) => [row.sale_day, row.id],
      ),
    );
  });

  mount.reads(valueRoutes.estimate, async ({ body }) =>
    answer(await answerEstimate(database, await markets.on(body.asOf), body)),
  );

  mount.reads(valueRoutes.job, async ({ params }) => {
    const job = await findJob(database, params.id);
    if (!job) throw notFound('task');
    return answer(job);
  });
  mount.writes(valueRoutes.cancelJob, async (tx, { params }) => {
    await cancelJob(tx, params.id);
    const job = await findJob(tx, params.id);
    if (!job) throw notFound('task');
    return answer(job);
  });
}

function fileOf(file: { buffer: Buffer } | undefined): RawFile {
  if (!file) throw invalid([{ pointer: '/file', message: 'choose a CSV file: the part is called “file”' }]);
  return rawFromCsv(file.buffer);
}

function rowsOf(body: unknown): RawFile {
  const parsed = jsonRows.safeParse(body);
  if (parsed.success) return rawFromRows(parsed.data.rows);
  throw invalid(
    parsed.error.issues
      .slice(0, 50)
      .map((issue) => ({ pointer: `/${issue.path.join('/')}`, message: issue.message })),
  );
}

async function jsonBody(
  request: Parameters<RequestHandler>[0],
  response: Parameters<RequestHandler>[1],
): Promise<unknown> {
  const { json } = await import('express');
  await new Promise<void>((resolve, reject) =>
    json({ limit: MOST_BYTES })(request, response, (error: unknown) =>
      error ? reject(error as Error) : resolve(),
    ),
  );
  if (request.body === undefined)
    throw new HttpProblem(415, 'Send a CSV file as multipart, or JSON {rows: […]}.');
  return request.body as unknown;
}
