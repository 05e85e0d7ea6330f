export interface RunningDatabase {
  url(database: string): string;
  readonly socket: string;
  readonly port: number;
  readonly pid: number;
  readonly gone: Promise<string>;
  stop(): Promise<void>;
  kill(): Promise<void>;
}
/** A node of a cluster, see mariadb.mjs. */
export interface ClusterNode {
  readonly user: string;
  readonly args: readonly string[];
  readonly password: string;
  readonly joins: boolean;
}
export function freePort(): Promise<number>;
export function isAlive(pid: number): boolean;
export function startMariaDb(
  folder: string,
  options: { durable: boolean; port?: number; node?: ClusterNode },
): Promise<RunningDatabase>;
export function secret(path: string): string;
