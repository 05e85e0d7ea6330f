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

/** What a host answers, or does not, that is not there or not part of its cluster. */
export const isGone = (error: unknown): boolean =>
  GONE.has((error as { code?: string } | null)?.code ?? '') || errorNumber(error) === NOT_READY;

/** A host that failed is asked again after so long, and taken again when it answers. */
const ASKED_EVERY_MS = 1500;
/** A cluster that lost a node stands still until the others agree that it is gone. */
const LONGEST_AWAY_MS = 12_000;
const NEXT_ROUND_MS = 150;
const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

interface Host {
  readonly pool: mysql.Pool;
  away: boolean;
}

/**
 * The first of the named hosts that answers is the one that is used: by all copies of the server, so that what one of
 * them wrote another reads, and two of them seldom write in each other's way. A host that failed is passed over until
 * it answers again; nobody's request waits for that.
 */
export class Hosts {
  readonly #hosts: readonly Host[];
  readonly #of = new WeakMap<mysql.PoolConnection, Host>();
  #ended = false;

  /** @param clock what the database takes for now is what this process does, not what its own machine does */
  constructor(
    url: string,
    connections: number,
    readonly clock: boolean,
  ) {
    const uris = expandHosts(url);
    // a node that was just turned to may not have applied yet what another had answered
    const session = uris.length > 1 ? `${SESSION}, wsrep_sync_wait = 1` : SESSION;
    this.#hosts = uris.map((uri) => {
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
        connection.query(`SET ${session}`);
      });
      return { pool, away: false };
    });
  }

  get several(): boolean {
    return this.#hosts.length > 1;
  }

  /** @throws Busy when none is free in time; what the last host said when none answers for as long as a cluster needs */
  async connection(): Promise<mysql.PoolConnection> {
    const until = Date.now() + (this.several ? LONGEST_AWAY_MS : 0);
    for (;;) {
      const here = this.#hosts.filter((host) => !host.away);
      let last: unknown;
      for (const host of here.length > 0 ? here : this.#hosts) {
        try {
          return await this.#free(host);
        } catch (error) {
          if (!isGone(error)) throw error;
          this.#isAway(host);
          last = error;
        }
      }
      if (Date.now() >= until) throw last;
      await wait(NEXT_ROUND_MS);
    }
  }

  async #free(host: Host): Promise<mysql.PoolConnection> {
    const connection = await freeOf(host.pool);
    try {
      if (this.clock) await connection.query('SET timestamp = ?', [Date.now() / 1000]);
    } catch (error) {
      connection.destroy();
      throw error;
    }
    this.#of.set(connection, host);
    return connection;
  }

  #isAway(host: Host): void {
    if (host.away || !this.several) return;
    host.away = true;
    const ask = async () => {
      while (!this.#ended) {
        await new Promise((resolve) => setTimeout(resolve, ASKED_EVERY_MS).unref());
        try {
          const connection = await host.pool.getConnection();
          // one that is not part of its cluster yet refuses this
          await connection.query('SELECT 1 FROM DUAL').finally(() => connection.destroy());
          host.away = false;
          return;
        } catch {
          // not yet
        }
      }
    };
    void ask();
  }

  async use<T>(work: (connection: mysql.PoolConnection) => Promise<T>): Promise<T> {
    const connection = await this.connection();
    try {
      return await work(connection);
    } catch (error) {
      this.afterError(error, connection);
      throw error;
    } finally {
      connection.release();
    }
  }

  /** What a statement met may mean that this host is no good any more. */
  afterError(error: unknown, connection: mysql.PoolConnection): void {
    const host = this.#of.get(connection);
    if (host && isGone(error)) this.#isAway(host);
  }

  async end(): Promise<void> {
    this.#ended = true;
    await Promise.all(this.#hosts.map(({ pool }) => pool.end()));
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
