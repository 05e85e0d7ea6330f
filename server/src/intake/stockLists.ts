/** A shop moves in: its own list of stock becomes pieces, all the good rows together, and can be taken back. */
import { createHash } from 'node:crypto';
import { ulid } from 'ulid';
import type { ReferenceIndex } from '@jutbank/core/bench';
import {
  guessStockMapping,
  stockNotation,
  stockRowReader,
  stockWordsSaid,
  type RowProblem,
  type StockRow,
} from '@jutbank/core/intake';
import type { ListMapping } from '@jutbank/core/lists';
import {
  MOST_STOCK_ROWS,
  stockListRoutes,
  stockMapping,
  type ListedPiece,
  type StockListAnswer,
  type StockListSummary,
  type StockLook,
} from '@jutbank/contract/intake';
import type { RowError } from '@jutbank/contract/lists';
import { intakeBody, pricingBody, type IntakeBody } from '@jutbank/contract/pieces';
import type { Person } from '@jutbank/contract/shop';
import { todayIso } from '../clock/index.ts';
import { instant, placeholders, rowsBy, type Queries, type Transaction } from '../db/index.ts';
import { answer, bytesOf, invalid, notFound, uploads, type Mount, type UploadedFile } from '../http/index.ts';
import { appendEntries } from '../ledger/index.ts';
import { csvInTurns, isCsvError, lookAtList, mappingIn, rememberMapping, textOf } from '../lists/index.ts';
import { createPieces, numberKey, numbersInUse, type NewPiece, type Readers } from '../pieces/index.ts';
import { shopOf } from '../shop/index.ts';

const upload = uploads(16 * (1 << 20), 'a CSV file');
const LONGEST_NUMBER = 60;
const LONGEST_PLACE = 120;
/** Pieces shown of what would come in. */
const SHOWN = 12;

export function mountStockLists(mount: Mount, readers: Readers): void {
  const { database } = mount;

  mount.handle(stockListRoutes.lookAtStockList, async ({ request, response }) => {
    const uploaded = await upload(request, response);
    const { baseCurrency } = await shopOf(database);
    const reading = {
      kind: 'stock',
      schema: stockMapping,
      // what no column says holds for every row: in the shop's own currency, built as most are
      guess: (header: readonly string[], rows: readonly (readonly string[])[]) => {
        const guessed = guessStockMapping(header, rows);
        const said = Object.values(guessed.columns);
        return {
          ...guessed,
          fixed: {
            construction: 'slipjoint',
            ...(said.includes('currency') ? {} : { currency: baseCurrency }),
          },
        };
      },
      notation: stockNotation,
      words: stockWordsSaid,
    } as const;
    return answer<StockLook>(await lookAtList(database, uploaded, reading, await readers.library.index()));
  });

  mount.handlePrepared(
    stockListRoutes.takeInStockList,
    async ({ request, response }) => {
      const uploaded = await upload(request, response);
      const mapping = mappingIn(stockMapping, uploaded.fields);
      if (!mapping)
        throw invalid([
          { pointer: '/mapping', message: 'say which columns say what; a look at the file offers it' },
        ]);
      const list = await readStockList(uploaded, mapping, await readers.library.index());
      return { list, mapping, print: uploaded.print };
    },
    async (tx, { query, person }, { list, mapping }) => {
      const check = query.check === '1';
      const { good, known, refused } = await newRows(tx, list);
      const id = !check && good.length > 0 ? ulid() : null;
      if (id !== null) {
        await rememberMapping(tx, 'stock', list.header, mapping);
        await takeIn(tx, { id, name: list.name, rows: good }, person);
      }
      return answer<StockListAnswer>({
        id,
        rows: list.rows,
        added: good.length,
        alreadyKnown: known,
        rejected: list.rows - good.length - known,
        errors: [...list.errors, ...refused].sort((a, b) => a.line - b.line),
        warnings: [...list.warnings],
        first: good.slice(0, SHOWN).map(listedOf(await readers.library.atHand(tx))),
      });
    },
  );

  mount.handle(stockListRoutes.listStockLists, async () => answer({ items: await summariesOf(database) }));

  mount.handle(stockListRoutes.stockList, async ({ params }) => {
    const [summary] = await summariesOf(database, params.id);
    if (!summary) throw notFound('list');
    const rows = await database.rows<{
      id: string;
      stock_number: string;
      title: string;
      pictures: string[];
      has: number;
    }>(
      `SELECT p.id, p.stock_number, p.title, r.pictures,
         (SELECT COUNT(*) FROM picture i WHERE i.piece_id = p.id AND i.removed = 0) AS has
       FROM stock_list_row r JOIN piece p ON p.id = r.piece_id WHERE r.list_id = ? ORDER BY r.line`,
      [params.id],
    );
    return answer({
      ...summary,
      list: rows.map(({ stock_number, has, ...row }) => ({
        ...row,
        stockNumber: stock_number,
        has: Number(has),
      })),
    });
  });

  mount.handleInTransaction(stockListRoutes.takeBackStockList, async (tx, { params, person }) => {
    if (!(await tx.row('SELECT id FROM stock_list WHERE id = ? FOR UPDATE', [params.id])))
      throw notFound('list');
    const there = await piecesOf(tx, params.id);
    const untouched = there.filter((piece) => piece.untouched);
    if (untouched.length > 0) {
      const ids = untouched.map(({ id }) => id);
      // what hangs on a piece by its own paper, such as a document, keeps it
      await tx.run(`DELETE IGNORE FROM piece WHERE id IN (${placeholders(ids)})`, ids);
    }
    const left = new Set((await piecesOf(tx, params.id)).map(({ id }) => id));
    const gone = there.filter(({ id }) => !left.has(id));
    if (gone.length > 0)
      await appendEntries(
        tx,
        gone.map(({ id, stockNumber }) => ({
          pieceId: id,
          kind: 'taken-back',
          person,
          body: { stockNumber, list: params.id },
        })),
      );
    return answer({ takenBack: gone.length, kept: left.size });
  });
}

/** A row that can come in, with what makes it this one. */
interface GoodRow {
  readonly line: number;
  readonly hash: string;
  readonly row: StockRow;
  readonly intake: IntakeBody;
}
interface ReadList {
  readonly name: string;
  readonly header: readonly string[];
  readonly rows: number;
  readonly good: readonly GoodRow[];
  readonly errors: readonly RowError[];
  readonly warnings: readonly RowError[];
  /** counted from 1 */
  readonly numberColumn: number | null;
}

/** @throws 422 when the file is no text, or longer than one list may be */
async function readStockList(
  uploaded: UploadedFile,
  mapping: ListMapping,
  index: ReferenceIndex,
): Promise<ReadList> {
  const file = await csvInTurns(textOf(await bytesOf(uploaded)).text);
  if (file.header.every((name) => name === ''))
    throw invalid([{ pointer: '/file', message: 'this file is empty: its first line names the columns' }]);
  if (file.rows.length > MOST_STOCK_ROWS)
    throw invalid([
      {
        pointer: '/file',
        message: `this list has ${file.rows.length} rows; take in at most ${MOST_STOCK_ROWS} at once`,
      },
    ]);
  const twice = file.header.find((name, i) => file.header.indexOf(name) !== i);
  if (twice !== undefined)
    throw invalid([{ pointer: '/file', message: `the column “${twice}” stands in the header twice` }]);
  const read = stockRowReader(mapping, { makers: index.makers, patterns: index.patterns, today: todayIso() });
  const columnOf = new Map(Object.entries(mapping.columns).map(([name, column]) => [column, name]));
  const good: GoodRow[] = [];
  const errors: RowError[] = [];
  const warnings: RowError[] = [];
  const numberOf = (column: RowProblem['column']): number | null => {
    const at = file.header.indexOf(columnOf.get(column) ?? '');
    return at < 0 ? null : at + 1;
  };
  const told = (line: number, { column, value, message }: RowProblem): RowError => ({
    line,
    column,
    columnNumber: numberOf(column),
    value: value.slice(0, 200),
    message,
  });
  const seen = new Map<string, number>();
  for (const row of file.rows) {
    if (isCsvError(row)) {
      errors.push({
        line: row.line,
        column: null,
        columnNumber: null,
        value: row.value,
        message: row.message,
      });
      continue;
    }
    const cells = Object.fromEntries(file.header.map((name, i) => [name, row.cells[i] ?? '']));
    const { row: piece, errors: wrong, warnings: odd } = read(cells);
    errors.push(...wrong.map((problem) => told(row.line, problem)));
    if (!piece) continue;
    const { intake, problems } = checked(piece);
    errors.push(...problems.map((problem) => told(row.line, problem)));
    if (!intake) continue;
    warnings.push(...odd.map((problem) => told(row.line, problem)));
    // two alike in one list are two pieces; the list once more is not
    const said = JSON.stringify(Object.entries(cells).filter(([, cell]) => cell.trim() !== ''));
    const times = (seen.get(said) ?? 0) + 1;
    seen.set(said, times);
    const hash = createHash('sha256').update(`${times} ${said}`).digest('hex');
    good.push({ line: row.line, hash, row: piece, intake });
  }
  return {
    name: uploaded.name,
    header: file.header,
    rows: file.rows.length,
    good,
    errors,
    warnings,
    numberColumn: numberOf('stock_number'),
  };
}

/** What the schema of intake calls its parts, in the columns of a list. */
const COLUMN_OF: Readonly<Record<string, RowProblem['column']>> = {
  title: 'title',
  sourceName: 'source_name',
  sourcePlace: 'source_place',
  price: 'cost',
  sellerStatement: 'seller_statement',
  cameWith: 'came_with',
  shopNote: 'note',
  ask: 'ask',
  floor: 'floor',
};

/** The row as intake would send it, held to the same limits. */
function checked(row: StockRow): { intake?: IntakeBody; problems: RowProblem[] } {
  const { cost, note, maker: _, pattern: __, ...rest } = row;
  const intake = intakeBody.safeParse({ ...rest, price: cost, shopNote: note, asFound: null });
  const pricing = pricingBody.safeParse({ ask: row.ask, floor: row.floor });
  const problems = [...(intake.error?.issues ?? []), ...(pricing.error?.issues ?? [])].map(
    (issue): RowProblem => ({
      column: COLUMN_OF[String(issue.path[0])] ?? 'note',
      value: '',
      message: issue.message,
    }),
  );
  if ((row.stockNumber?.length ?? 0) > LONGEST_NUMBER)
    problems.push({
      column: 'stock_number',
      value: row.stockNumber ?? '',
      message: `at most ${LONGEST_NUMBER} characters`,
    });
  if (row.place.length > LONGEST_PLACE)
    problems.push({ column: 'place', value: row.place, message: `at most ${LONGEST_PLACE} characters` });
  return problems.length === 0 && intake.success ? { intake: intake.data, problems } : { problems };
}

/** Those that are not in stock already. A number that another piece has, or another row, is told. */
async function newRows(
  tx: Transaction,
  list: ReadList,
): Promise<{ good: GoodRow[]; known: number; refused: RowError[] }> {
  const hashes = list.good.map(({ hash }) => hash);
  const there = new Set(
    hashes.length === 0
      ? []
      : (
          await tx.rows<{ row_hash: string }>(
            `SELECT row_hash FROM stock_list_row WHERE row_hash IN (${placeholders(hashes)})`,
            hashes,
          )
        ).map((row) => row.row_hash),
  );
  const fresh = list.good.filter(({ hash }) => !there.has(hash));
  const inUse = await numbersInUse(
    tx,
    fresh.flatMap(({ row }) => row.stockNumber ?? []),
  );
  const inList = new Set<string>();
  const refused: RowError[] = [];
  const good = fresh.filter(({ line, row: { stockNumber } }) => {
    if (stockNumber === null) return true;
    const key = numberKey(stockNumber);
    const why = inUse.has(key)
      ? 'another piece in stock has this number'
      : inList.has(key)
        ? 'a row before this one has the same number'
        : undefined;
    inList.add(key);
    if (why === undefined) return true;
    const column = 'stock_number';
    refused.push({ line, column, columnNumber: list.numberColumn, value: stockNumber, message: why });
    return false;
  });
  return { good, known: list.good.length - fresh.length, refused };
}

async function takeIn(
  tx: Transaction,
  list: { readonly id: string; readonly name: string; readonly rows: readonly GoodRow[] },
  person: Person,
): Promise<void> {
  const { id, name, rows } = list;
  await tx.run('INSERT INTO stock_list (id, name, person, taken_in) VALUES (?, ?, ?, ?)', [
    id,
    name.slice(0, 200),
    person.name,
    rows.length,
  ]);
  const pieces = await createPieces(
    tx,
    rows.map((row) => newPiece(row)),
    person,
  );
  await tx.insertMany(
    'INSERT INTO stock_list_row (piece_id, list_id, line, row_hash, pictures) VALUES ?',
    rows.map(({ line, hash, row }, i) => [pieces[i] ?? '', id, line, hash, JSON.stringify(row.pictures)]),
  );
}

/** What goes beyond intake is written as its own stage would: where it lies, what is asked, what came with it, which it may be. */
function newPiece({ row, intake }: GoodRow): NewPiece {
  const { stockNumber, ask, floor, place, completeness, maker, pattern } = row;
  const narrowing = {
    makers: maker === null || pattern !== null ? [] : [maker],
    patterns: pattern === null ? [] : [pattern],
  };
  const narrowed = narrowing.makers.length + narrowing.patterns.length > 0;
  const cameWith = Object.keys(completeness).length > 0;
  return {
    intake,
    stockNumber,
    more: {
      place,
      ask: ask?.amount ?? null,
      ask_currency: ask?.currency ?? null,
      floor_price: floor?.amount ?? null,
      floor_currency: floor?.currency ?? null,
      completeness: JSON.stringify(completeness),
      narrowing: narrowed ? JSON.stringify(narrowing) : null,
    },
    entries: [
      ...(place === '' ? [] : [{ kind: 'moved', body: { from: '', to: place } }]),
      ...(narrowed ? [{ kind: 'narrowed', body: narrowing }] : []),
      ...(cameWith ? [{ kind: 'inspected', body: { findings: [], completeness, inspected: false } }] : []),
      ...(ask || floor ? [{ kind: 'priced', body: { ask, floor, note: '' } }] : []),
    ],
  };
}

const listedOf =
  (index: ReferenceIndex) =>
  ({ line, row, intake }: GoodRow): ListedPiece => ({
    line,
    stockNumber: row.stockNumber,
    title: intake.title,
    construction: intake.construction,
    pattern: index.patterns.get(row.pattern ?? '')?.name ?? null,
    acquired: intake.acquired,
    price: intake.price,
    ask: row.ask,
    place: row.place,
    pictures: row.pictures.length,
    shopNote: intake.shopNote,
  });

/** Lists, newest first, or the one that is asked for. */
async function summariesOf(db: Queries, id?: string): Promise<StockListSummary[]> {
  const rows = await db.rows<{
    id: string;
    name: string;
    person: string;
    at: string;
    pieces: number;
    bare: number | null;
  }>(
    `SELECT l.id, l.name, l.person, l.at, COUNT(r.piece_id) AS pieces,
       SUM(r.piece_id IS NOT NULL AND NOT EXISTS (SELECT 1 FROM picture i WHERE i.piece_id = r.piece_id AND i.removed = 0)) AS bare
     FROM stock_list l LEFT JOIN stock_list_row r ON r.list_id = l.id
     ${id === undefined ? '' : 'WHERE l.id = ?'} GROUP BY l.id ORDER BY l.id DESC LIMIT 50`,
    id === undefined ? [] : [id],
  );
  return rows.map(({ id: list, name, person, at, pieces, bare }) => ({
    id: list,
    name,
    person,
    at: instant(at),
    pieces: Number(pieces),
    bare: Number(bare ?? 0),
  }));
}

/** Kinds of entries that a list itself and its pictures write; whatever else stands there is somebody's work. */
const BY_THE_LIST = ['taken-in', 'moved', 'narrowed', 'inspected', 'priced', 'picture-added'];

/** The pieces of a list, and whether nothing was done to each but that it came in and was shown. */
async function piecesOf(
  tx: Transaction,
  list: string,
): Promise<{ id: string; stockNumber: string; untouched: boolean }[]> {
  const pieces = await tx.rows<{ id: string; stock_number: string; version: number }>(
    `SELECT p.id, p.stock_number, p.version FROM stock_list_row r JOIN piece p ON p.id = r.piece_id
     WHERE r.list_id = ? ORDER BY p.id FOR UPDATE`,
    [list],
  );
  const entries = rowsBy(
    await tx.rows<{ piece_id: string; kind: string }>(
      'SELECT e.piece_id, e.kind FROM stock_list_row r JOIN ledger_entry e ON e.piece_id = r.piece_id WHERE r.list_id = ?',
      [list],
    ),
    (row) => row.piece_id,
  );
  return pieces.map(({ id, stock_number, version }) => {
    const own = entries.get(id) ?? [];
    // each picture raised the version by one; anything more is somebody's
    const shown = own.filter(({ kind }) => kind === 'picture-added').length;
    const untouched = own.every(({ kind }) => BY_THE_LIST.includes(kind)) && Number(version) === 1 + shown;
    return { id, stockNumber: stock_number, untouched };
  });
}
