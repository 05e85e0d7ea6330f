/** Running numbers that another piece bears or that somebody watches for. */
import { readSerial, type SerialCode } from '../reference/index.ts';
import type { ReferenceIndex } from './compile.ts';
import type { Alert, Observation } from './observation.ts';

/** A number that was met elsewhere, as it was read there. */
export interface KnownNumber {
  readonly code: string;
  readonly text: string;
  /** the piece that bears it, in words; or what the watch-list says of it */
  readonly told: string;
  readonly watched: boolean;
}
export interface ReadNumber {
  readonly code: SerialCode;
  readonly number: number;
}

/** Serial numbers among what was observed, as far as they can be read. */
export const numbersRead = (index: ReferenceIndex, observations: readonly Observation[]): ReadNumber[] =>
  observations.flatMap((o) => {
    const code = 'code' in o ? index.codes.get(o.code) : undefined;
    if (code?.kind !== 'serial' || !('text' in o) || o.text == null) return [];
    const number = readSerial(code, o.text)?.number;
    return number === undefined ? [] : [{ code, number }];
  });

/** Whether what was observed includes a running number: what else bears it may have changed with it. */
export const bearsNumber = (index: ReferenceIndex, observations: readonly Observation[]): boolean =>
  numbersRead(index, observations).length > 0;

/** What is to be said of numbers that were met before; the piece's own record must not be among the known ones. */
export function seenBefore(read: readonly ReadNumber[], known: readonly KnownNumber[]): Alert[] {
  return read.flatMap(({ code, number }) =>
    known
      .filter((k) => k.code === code.id && readSerial(code, k.text)?.number === number)
      .map(({ told, watched }): Alert => ({
        kind: 'serial-seen-before',
        detail: watched
          ? `Number ${number} is on the shop’s watch-list${told === '' ? '' : `: ${told}`}.`
          : `Number ${number} is also recorded on ${told}: one of the two is not what it seems, or they are of different runs.`,
      })),
  );
}
