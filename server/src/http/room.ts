/**
 * Room on the disk: before it is all gone, writes are refused in words while reads go on. What is left is for the
 * database and the log, which fare badly with none at all.
 */
import { statfs } from 'node:fs/promises';
import { diskFull } from './faults.ts';

const KEPT_FREE_BYTES = 48 * 2 ** 20;
const LOOKED_AT_MS = 1500;

export class Room {
  #until = 0;
  #enough = true;

  /** @param folder on the disk that is watched; @param keptFree bytes that are never written to */
  constructor(
    readonly folder: string,
    readonly keptFree = KEPT_FREE_BYTES,
  ) {}

  async isEnough(): Promise<boolean> {
    if (Date.now() < this.#until) return this.#enough;
    this.#until = Date.now() + LOOKED_AT_MS;
    this.#enough = await statfs(this.folder).then(
      (space) => space.bavail * space.bsize >= this.keptFree,
      // a folder that cannot be looked at is told by whatever writes to it
      () => true,
    );
    return this.#enough;
  }

  /** @throws 507 while there is none */
  async need(): Promise<void> {
    if (!(await this.isEnough())) throw diskFull();
  }
}
