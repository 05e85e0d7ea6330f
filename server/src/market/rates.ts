/** Exchange rates: sent, fetched from a source day by day, or read from somebody's list. */
import { readRateList } from '@jutbank/core/market';
import type { ExchangeRate } from '@jutbank/core/money';
import { marketRoutes, type RatesKnown, type RatesStored } from '@jutbank/contract/market';
import { raiseRevision, type Database, type Queries, type Transaction } from '../db/index.ts';
import { answer, bytesOf, invalid, uploads, type Mount } from '../http/index.ts';
import { findShop, shopOf, pricingSettingsOf } from '../shop/index.ts';
import { csvInTurns, isCsvError, textOf } from '../lists/index.ts';
import { todayIso } from '../clock/index.ts';
import type { RateSource } from '../outside/index.ts';

const uploadedList = uploads(8 << 20, 'a CSV file');
const FETCHED_AT_FIRST_DAYS = 400;
const DAY_MS = 86_400_000;
const SHOWN_BEFORE = 40;
const isoDay = (ms: number) => new Date(ms).toISOString().slice(0, 10);

export function mountRates(mount: Mount, source: RateSource): void {
  const { database } = mount;

  mount.handleInTransaction(marketRoutes.addRates, async (tx, { body }) => {
    const shop = await shopOf(tx);
    if (body.base !== shop.baseCurrency)
      throw invalid([{ pointer: '/base', message: `this shop’s rates are for one ${shop.baseCurrency}` }]);
    return answer(await storeRates(tx, body.rates, 'sent'));
  });

  mount.handle(marketRoutes.listRates, async () => answer(await ratesKnown(database)));

  mount.handlePrepared(
    marketRoutes.fetchRates,
    () => askRates(database, source),
    async (tx, _call, asked) => answer(await keepRates(tx, asked)),
  );

  mount.handlePrepared(
    marketRoutes.importRates,
    async ({ request, response }) => {
      const upload = await uploadedList(request, response);
      const file = await csvInTurns(textOf(await bytesOf(upload)).text);
      const rows = file.rows.flatMap((row) => (isCsvError(row) ? [] : [row]));
      const read = readRateList(file.header, rows, file.separator !== ',', todayIso());
      if (!read)
        throw invalid([
          {
            pointer: '/file',
            message:
              'the first line must name date, currency and rate, or date and a column for each currency',
          },
        ]);
      const broken = file.rows.flatMap((row) => (isCsvError(row) ? [{ ...row, column: null }] : []));
      const errors = [...read.errors, ...broken]
        .sort((a, b) => a.line - b.line)
        .map((e) => ({ ...e, columnNumber: e.column === null ? null : file.header.indexOf(e.column) + 1 }));
      return { rates: read.rates, rows: file.rows.length, errors, name: upload.name, print: upload.print };
    },
    async (tx, { query }, { rates, rows, errors, name }) => {
      const { baseCurrency } = await shopOf(tx);
      const others = rates.filter((r) => r.currency !== baseCurrency);
      const stored = await storeRates(tx, others, name.slice(0, 120), query.check === '1');
      return answer({ rows, errors, ...stored });
    },
  );
}

/** Asks the source for the days since its last rate; several copies of the server may do so at once. */
async function askRates(database: Queries, source: RateSource): Promise<AskedRates> {
  const { baseCurrency } = await shopOf(database);
  const last = await database.row<{ day: string | null }>(
    "SELECT MAX(day) AS day FROM exchange_rate WHERE source LIKE 'source: %'",
  );
  const to = todayIso();
  const from = last?.day ?? isoDay(Date.now() - FETCHED_AT_FIRST_DAYS * DAY_MS);
  const found = await source.between(baseCurrency, from, to);
  return { ...found, from, to };
}
interface AskedRates {
  readonly source: string;
  readonly rates: readonly ExchangeRate[];
  readonly from: string;
  readonly to: string;
}
const keepRates = async (tx: Transaction, { source, rates, from, to }: AskedRates) => ({
  ...(await storeRates(tx, rates, `source: ${source}`.slice(0, 120))),
  source,
  from,
  to,
});

/** @param check count only, store nothing */
async function storeRates(
  tx: Transaction,
  rates: readonly ExchangeRate[],
  source: string,
  check = false,
): Promise<RatesStored> {
  if (rates.length === 0) return { added: 0, updated: 0, unchanged: 0 };
  // who stores rates stands in line, so that two who store the same do not both call them new
  await tx.row("SELECT number FROM revision WHERE name = 'rates' FOR UPDATE");
  const days = rates.map((r) => r.date).sort();
  const known = new Map(
    (
      await tx.rows<{ currency: string; day: string; rate: string }>(
        'SELECT currency, day, rate FROM exchange_rate WHERE day BETWEEN ? AND ?',
        [days[0] ?? '', days.at(-1) ?? ''],
      )
    ).map((r) => [`${r.currency} ${r.day}`, r.rate]),
  );
  const last = new Map(rates.map((r) => [`${r.currency} ${r.date}`, r]));
  let added = 0;
  let updated = 0;
  const changed = [...last].filter(([key, rate]) => {
    const before = known.get(key);
    if (before === undefined) added++;
    else if (Number(before) !== Number(rate.rate)) updated++;
    else return false;
    return true;
  });
  if (!check && changed.length > 0) {
    const revision = await raiseRevision(tx, 'rates');
    // a rate that is replaced is still what was known until now
    await tx.run(
      `INSERT INTO exchange_rate_past (currency, day, rate, source, known_from, known_to)
       SELECT currency, day, rate, source, known_from, ? FROM exchange_rate
       WHERE day BETWEEN ? AND ? AND CONCAT(currency, ' ', day) IN (${changed.map(() => '?').join(',')})`,
      [revision, days[0] ?? '', days.at(-1) ?? '', ...changed.map(([key]) => key)],
    );
    await tx.insertMany(
      'INSERT INTO exchange_rate (currency, day, rate, source, known_from) VALUES ? ON DUPLICATE KEY UPDATE rate = VALUES(rate), source = VALUES(source), known_from = VALUES(known_from)',
      changed.map(([, r]) => [r.currency, r.date, r.rate, source, revision]),
    );
  }
  return { added, updated, unchanged: rates.length - added - updated };
}

async function ratesKnown(db: Queries): Promise<RatesKnown> {
  const { baseCurrency } = await shopOf(db);
  const rows = await db.rows<{ currency: string; day: string; rate: string; source: string }>(
    `SELECT currency, day, rate, source FROM (
       SELECT *, ROW_NUMBER() OVER (PARTITION BY currency ORDER BY day DESC) AS n FROM exchange_rate
     ) numbered WHERE n <= ? ORDER BY currency, day`,
    [SHOWN_BEFORE],
  );
  const used = new Map(
    (
      await db.rows<{ currency: string; n: number }>(
        "SELECT currency, COUNT(*) AS n FROM comparable WHERE state = 'kept' GROUP BY currency",
      )
    ).map((r) => [r.currency, Number(r.n)]),
  );
  const currencies = new Map<string, typeof rows>();
  for (const row of rows) currencies.set(row.currency, [...(currencies.get(row.currency) ?? []), row]);
  const plain = (rate: string) => String(Number(rate));
  const latest = [...currencies].flatMap(([currency, list]) => {
    const newest = list.at(-1);
    if (!newest) return [];
    return [
      {
        currency,
        date: newest.day,
        rate: plain(newest.rate),
        source: newest.source.replace(/^source: /, ''),
        used: used.get(currency) ?? 0,
        before: list.map((r) => ({ date: r.day, rate: plain(r.rate) })),
      },
    ];
  });
  const priced = [...used].filter(([currency]) => currency !== baseCurrency && !currencies.has(currency));
  return {
    base: baseCurrency,
    latest,
    missing: priced.map(([currency, prices]) => ({ currency, prices })),
  };
}

const LOOKED_AT_MS = 30 * 60_000;

/** Where the shop wants it, today's rates are fetched without anybody asking. */
export class DailyRates {
  #timer: NodeJS.Timeout | undefined;

  constructor(
    readonly database: Database,
    readonly source: RateSource,
    readonly onError: (error: unknown) => void,
  ) {}

  start(): void {
    const turn = () => {
      void this.look()
        .catch(this.onError)
        .finally(() => {
          this.#timer = setTimeout(turn, LOOKED_AT_MS);
          this.#timer.unref();
        });
    };
    turn();
  }

  stop(): void {
    clearTimeout(this.#timer);
  }

  /** Fetches where the shop has said so and nothing of today is known; whether it did. */
  async look(): Promise<boolean> {
    if (
      (await findShop(this.database)) === undefined ||
      !(await pricingSettingsOf(this.database)).settings.dailyRates
    )
      return false;
    const asked = await this.database.row<{ one: number }>(
      "SELECT 1 AS one FROM exchange_rate WHERE day = ? AND source LIKE 'source: %' LIMIT 1",
      [todayIso()],
    );
    if (asked) return false;
    const found = await askRates(this.database, this.source);
    await this.database.transaction((tx) => keepRates(tx, found));
    return true;
  }
}
