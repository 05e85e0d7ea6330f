/** Connections to whichever of several databases answers: one is used until it fails, then the next. */
import mysql from 'mysql2/promise';

export const errorNumber = (error: unknown): number | undefined => {
  const errno = (error as { errno?: unknown } | null)?.errno;
  return typeof errno === 'number' ? errno : undefined;
};

/** Every connection was in use for too long: nothing was begun, and it may be tried again. */
export class Busy extends Error {
  constructor() {
    super('every connection to the database is in use');
  }
}
const LONGEST_WAIT_MS = 15_000;
const LONGEST_CONNECT_MS = 4000;
/** Statements that take longer are ended by the database; none of ours should. */
const LONGEST_STATEMENT_S = 60;
const LONGEST_LOCK_WAIT_S = 10;

/** Set in every connection. In a transaction what is read is what stands committed now, under whatever lock is held. */
const SESSION = [
  'NAMES utf8mb4 COLLATE utf8mb4_uca1400_ai_ci',
  "time_zone = '+00:00'",
  "sql_mode = 'STRICT_ALL_TABLES,ERROR_FOR_DIVISION_BY_ZERO,NO_ENGINE_SUBSTITUTION'",
  "tx_isolation = 'READ-COMMITTED'",
  `max_statement_time = ${LONGEST_STATEMENT_S}`,
  `innodb_lock_wait_timeout = ${LONGEST_LOCK_WAIT_S}`,
].join(', ');

const GONE = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'ETIMEDOUT',
  'ENOTFOUND',
  'EHOSTUNREACH',
  'ENETUNREACH',
  'EPIPE',
  'PROTOCOL_CONNECTION_LOST',
  'ER_SERVER_SHUTDOWN',
]);
/** A node of a cluster that is not part of it just now. */
const NOT_READY = 1047;

const isGone = (error: unknown): boolean =>
  GONE.has((error as { code?: string }).code ?? '') || errorNumber(error) === NOT_READY;

export class Hosts {
  readonly #pools: mysql.Pool[];
  #at = 0;

  /** @param clock what the database takes for now is what this process does, not what its own machine does */
  constructor(
    url: string,
    connections: number,
    readonly clock: boolean,
  ) {
    this.#pools = expandHosts(url).map((uri) => {
      const pool = mysql.createPool({
        uri,
        connectionLimit: connections,
        connectTimeout: LONGEST_CONNECT_MS,
        dateStrings: true,
        timezone: 'Z',
        supportBigNumbers: true,
        bigNumberStrings: false,
        multipleStatements: false,
      });
      pool.pool.on('connection', (connection) => {
        connection.query(`SET ${SESSION}`);
      });
      return pool;
    });
  }

  /** @throws Busy when none is free in time; what the last host said when none answers */
  async connection(): Promise<mysql.PoolConnection> {
    for (let tries = 1; ; tries++) {
      const at = this.#at;
      const pool = this.#pools[at];
      if (!pool) throw new Error('no host of a database is named');
      try {
        const connection = await freeOf(pool);
        if (this.clock) await connection.query('SET timestamp = ?', [Date.now() / 1000]);
        return connection;
      } catch (error) {
        if (!isGone(error)) throw error;
        this.#next(at);
        if (tries >= this.#pools.length) throw error;
      }
    }
  }

  async use<T>(work: (connection: mysql.PoolConnection) => Promise<T>): Promise<T> {
    const connection = await this.connection();
    try {
      return await work(connection);
    } catch (error) {
      this.afterError(error);
      throw error;
    } finally {
      connection.release();
    }
  }

  /** What a statement met may mean that this host is no good any more. */
  afterError(error: unknown): void {
    if (errorNumber(error) === NOT_READY) this.#next(this.#at);
  }

  /** Whoever else has moved on already has moved on for all. */
  #next(from: number): void {
    if (this.#at === from) this.#at = (from + 1) % this.#pools.length;
  }

  async end(): Promise<void> {
    await Promise.all(this.#pools.map((pool) => pool.end()));
  }
}

async function freeOf(pool: mysql.Pool): Promise<mysql.PoolConnection> {
  const waiting = pool.getConnection();
  let timer: NodeJS.Timeout | undefined;
  const tooLong = new Promise<never>((_, reject) => {
    timer = setTimeout(() => reject(new Busy()), LONGEST_WAIT_MS);
  });
  try {
    return await Promise.race([waiting, tooLong]);
  } catch (error) {
    // one that comes after all is for the next
    if (error instanceof Busy)
      waiting.then(
        (late) => late.release(),
        () => undefined,
      );
    throw error;
  } finally {
    clearTimeout(timer);
  }
}

/** `mysql://u:p@a:1,b:2/db` to one address for each host. */
export function expandHosts(url: string): string[] {
  const match = /^(mysql:\/\/[^@]+@)([^/]+)(\/.*)$/.exec(url);
  if (!match) return [url];
  return (match[2] ?? '').split(',').map((host) => `${match[1]}${host}${match[3]}`);
}
