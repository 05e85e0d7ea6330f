export interface RunningDatabase {
  url(database: string): string;
  readonly socket: string;
  readonly port: number;
  readonly pid: number;
  readonly gone: Promise<string>;
  stop(): Promise<void>;
  kill(): Promise<void>;
}
export function freePort(): Promise<number>;
export function isAlive(pid: number): boolean;
export function startMariaDb(
  folder: string,
  options: { durable: boolean; port?: number },
): Promise<RunningDatabase>;
