/** Comparables: by hand, by list, searched, set aside, merged, taken back, exported. */
import { type Request, type Response, json } from 'express';
import { stringify } from 'csv-stringify/sync';
import { z } from 'zod';
import { guessMapping, guessNotation, wordsSaid } from '@jutbank/core/market';
import {
  COMPARABLE_COLUMNS,
  columnMapping,
  comparableRow,
  marketRoutes,
  type FileLook,
} from '@jutbank/contract/market';
import { instant } from '../db/index.ts';
import {
  answer,
  bytesOf,
  conflict,
  decodeCursor,
  HttpProblem,
  invalid,
  notFound,
  pageOf,
  safeCell,
  through,
  uploads,
  type Mount,
} from '../http/index.ts';
import { queueJob } from '../jobs/index.ts';
import { lookAtList, mappingIn, rememberMapping, textOf } from '../lists/index.ts';
import type { Library } from '../reference/index.ts';
import {
  importComparables,
  referenceKnown,
  rawFromCsv,
  rawFromRows,
  type RawFile,
} from './importComparables.ts';
import type { Markets } from './market.ts';
import { normaliseRow } from './normalise.ts';
import { todayIso } from '../clock/index.ts';
import {
  changeStates,
  comparablesByIds,
  countComparables,
  furtherColumns,
  insertComparables,
  listComparables,
  stampRevision,
} from './queries.ts';

/** Larger files go in as a job, so that the answer does not have to wait. */
const ROWS_AT_ONCE = 20_000;
const MOST_BYTES = 64 * (1 << 20);

const upload = uploads(MOST_BYTES, 'a CSV file');
const jsonRows = z.object({ rows: z.array(comparableRow).max(200_000) });

export const COMPARABLES_JOB = 'import-comparables';
/** What the job is given. */
export interface ComparablesJob {
  /** as it came: a text is read again in less time than a hundred thousand rows are packed and unpacked */
  readonly list: { readonly text: string; readonly mapping: Mapping | undefined } | RawFile;
  readonly name: string;
  readonly person: string;
}
type Mapping = z.infer<typeof columnMapping>;
const PRICE_LISTS = {
  kind: 'prices',
  schema: columnMapping,
  guess: guessMapping,
  notation: guessNotation,
  words: wordsSaid,
} as const;

/** The rows of a list that goes in as a task. */
export const listOfJob = async ({ list, name }: ComparablesJob): Promise<RawFile> => ({
  ...('text' in list ? await rawFromCsv(Buffer.from(list.text), list.mapping) : list),
  name,
});

export function mountComparables(mount: Mount, library: Library, markets: Markets): void {
  const { database } = mount;

  mount.handle(marketRoutes.lookAtFile, async ({ request, response }) => {
    const uploaded = await upload(request, response);
    return answer<FileLook>(await lookAtList(database, uploaded, PRICE_LISTS, await library.index()));
  });

  mount.handlePrepared(
    marketRoutes.importComparables,
    async ({ request, response }) => {
      const known = referenceKnown(await library.index());
      if (!request.is('multipart/form-data')) {
        const body = await jsonBody(request, response);
        const file = rowsOf(body);
        return { known, file, list: file, mapped: undefined, print: JSON.stringify(body) };
      }
      const uploaded = await upload(request, response);
      const mapping = mappingIn(columnMapping, uploaded.fields);
      const bytes = await bytesOf(uploaded);
      const file = await rawFromCsv(bytes, mapping);
      return {
        known,
        file: { ...file, name: uploaded.name },
        list: { text: textOf(bytes).text, mapping },
        mapped: mapping && { mapping, header: file.written },
        print: uploaded.print,
      };
    },
    async (tx, { query, person }, { file, list, known, mapped }) => {
      const check = query.check === '1';
      // a mapping is remembered once rows go in by it
      if (mapped && !check) await rememberMapping(tx, 'prices', mapped.header, mapped.mapping);
      if (!check && file.rows.length > ROWS_AT_ONCE) {
        const job: ComparablesJob = { list, name: file.name ?? 'rows', person: person.name };
        const id = await queueJob(tx, COMPARABLES_JOB, job, person.id);
        return answer({ job: id }, { status: 202, headers: { Location: `/api/v1/jobs/${id}` } });
      }
      const result = await importComparables(tx, file, known, { check, person: person.name });
      return answer(result, {
        afterCommit: () => {
          if (!check && result.added > 0) markets.prefetch(todayIso());
          return Promise.resolve();
        },
      });
    },
  );

  mount.handlePrepared(
    marketRoutes.addComparable,
    () => library.index(),
    async (tx, { body }, index) => {
      const cells = Object.fromEntries(
        Object.entries(body).map(([name, value]) => [name, value === null ? '' : String(value)]),
      );
      const { row, errors } = normaliseRow(cells, referenceKnown(index), false);
      if (!row) throw invalid(errors.map((e) => ({ pointer: `/${e.column}`, message: e.message })));
      const { ids, added } = await insertComparables(tx, [row]);
      if (added === 0) throw conflict('This very sale is known already.');
      await stampRevision(tx, { ids });
      const record = (await comparablesByIds(tx, ids)).get(ids[0] ?? '');
      if (!record) throw new Error('the comparable was not stored');
      return answer(record);
    },
  );

  mount.handle(marketRoutes.listComparables, async ({ query }) => {
    const [rows, total] = await Promise.all([
      listComparables(database, query, decodeCursor(query.cursor, 2), query.limit + 1),
      countComparables(database, query),
    ]);
    return answer(
      pageOf(
        rows,
        query.limit,
        total,
        ({ sale_day: _, ...record }) => record,
        (row) => [row.sale_day, row.id],
      ),
    );
  });

  mount.handle(marketRoutes.exportComparables, async ({ query, response }) => {
    // columns of the lists' own that were kept as notes go out too: what comes in again is then the same row
    const columns = [...COMPARABLE_COLUMNS, ...(await furtherColumns(database, query))];
    response
      .type('text/csv')
      .setHeader('Content-Disposition', 'attachment; filename="comparables.csv"')
      .write(stringify([columns.map(safeCell)]));
    let after: readonly (string | number)[] | undefined;
    for (;;) {
      const rows = await listComparables(database, query, after, EXPORT_STEP);
      response.write(
        stringify(
          rows.map(({ cells }) =>
            columns.map((column) => safeCell(Object.hasOwn(cells, column) ? (cells[column] ?? '') : '')),
          ),
        ),
      );
      const last = rows.at(-1);
      if (!last || rows.length < EXPORT_STEP) break;
      after = [last.sale_day, last.id];
    }
    response.end();
    return undefined;
  });

  mount.handleInTransaction(marketRoutes.changeComparables, async (tx, { body }) => {
    if (body.state !== 'kept' && body.reason === '')
      throw invalid([{ pointer: '/reason', message: 'say why; the reason is kept' }]);
    if (body.state === 'merged') {
      const into = body.into == null ? undefined : (await comparablesByIds(tx, [body.into])).get(body.into);
      if (into?.state !== 'kept' || body.ids.includes(into.id))
        throw invalid([{ pointer: '/into', message: 'choose the one that stays' }]);
    }
    const changed = await changeStates(tx, body.ids, {
      state: body.state,
      reason: body.state === 'kept' ? null : body.reason,
      mergedInto: body.state === 'merged' ? (body.into ?? null) : null,
    });
    return answer({ changed });
  });

  mount.handle(marketRoutes.listImports, async () => {
    const rows = await database.rows<{
      id: string;
      name: string;
      person: string;
      rows_in: number;
      at: string;
      undone_at: string | null;
    }>('SELECT id, name, person, rows_in, at, undone_at FROM comparable_import ORDER BY id DESC LIMIT 50');
    return answer({
      items: rows.map((r) => ({
        id: r.id,
        name: r.name,
        person: r.person,
        rows: Number(r.rows_in),
        at: instant(r.at),
        undoneAt: r.undone_at === null ? null : instant(r.undone_at),
      })),
    });
  });

  mount.handleInTransaction(marketRoutes.undoImport, async (tx, { params, body }) => {
    const done = await tx.run(
      'UPDATE comparable_import SET undone_at = IF(?, COALESCE(undone_at, UTC_TIMESTAMP(3)), NULL) WHERE id = ?',
      [body.undone, params.id],
    );
    const there = await tx.row('SELECT 1 AS one FROM comparable_import WHERE id = ?', [params.id]);
    if (done === 0 && !there) throw notFound('import');
    const ids = await tx.rows<{ id: string }>(
      'SELECT id FROM comparable WHERE import_id = ? AND (state = ? OR state_reason = ?)',
      body.undone ? [params.id, 'kept', ''] : [params.id, '', UNDONE],
    );
    let changed = 0;
    for (let at = 0; at < ids.length; at += 5000)
      changed += await changeStates(
        tx,
        ids.slice(at, at + 5000).map((row) => row.id),
        body.undone
          ? { state: 'set-aside', reason: UNDONE, mergedInto: null }
          : { state: 'kept', reason: null, mergedInto: null },
      );
    return answer({ changed });
  });

  mount.handle(marketRoutes.suspects, async () => {
    const { fitted } = (await markets.on(todayIso())).market;
    const records = await comparablesByIds(
      database,
      fitted.suspects.map((s) => s.id),
    );
    return answer({
      items: fitted.suspects.flatMap(({ id, times }) => {
        const comparable = records.get(id);
        return comparable?.state === 'kept' ? [{ comparable, times, reason: whySuspected(times) }] : [];
      }),
    });
  });
}

const EXPORT_STEP = 2000;
const UNDONE = 'its import was undone';

/** In words: what such a distance usually comes from. */
function whySuspected(times: number): string {
  const far = times > 1 ? times : 1 / times;
  const by = `${far.toFixed(far < 10 ? 1 : 0)} times ${times > 1 ? 'more' : 'less'} than such a piece brings`;
  if (far > 8 && far < 12.5) return `${by}: a digit may have slipped`;
  if (far > 80 && far < 125) return `${by}: the decimal point may be lost`;
  if (times > 2 && far < 8) return `${by}: perhaps a lot of several, or another form`;
  return `${by}: perhaps another currency, a part, or another piece`;
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

async function jsonBody(request: Request, response: Response): Promise<unknown> {
  await through(json({ limit: MOST_BYTES }), request, response);
  if (request.body === undefined)
    throw new HttpProblem(415, 'Send a CSV file as multipart, or JSON {rows: […]}.');
  return request.body as unknown;
}
