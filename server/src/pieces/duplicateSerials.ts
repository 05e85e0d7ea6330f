/** Running numbers that another piece bears or that the shop watches for. */
import type { Alert, Observation, ReferenceIndex } from '@jutbank/core/bench';
import { readSerial, type SerialCode } from '@jutbank/core/reference';
import type { Queries } from '../db/index.ts';

export interface Numbered {
  /** undefined for observations that belong to no stored piece */
  readonly id: string | undefined;
  readonly observations: readonly Observation[];
}

interface Borne {
  piece_id: string;
  subject: string;
  text: string;
  told: string;
}
interface Watched {
  code_id: string;
  text: string;
  note: string;
}
interface ReadNumber {
  readonly code: SerialCode;
  readonly number: number;
}

const numbersRead = (index: ReferenceIndex, observations: readonly Observation[]): ReadNumber[] =>
  observations.flatMap((o) => {
    const code = 'code' in o ? index.codes.get(o.code) : undefined;
    if (code?.kind !== 'serial' || !('text' in o) || o.text == null) return [];
    const number = readSerial(code, o.text)?.number;
    return number === undefined ? [] : [{ code, number }];
  });

/** Whether what was observed includes a running number: what else bears it may have changed with it. */
export const bearsNumber = (index: ReferenceIndex, observations: readonly Observation[]): boolean =>
  numbersRead(index, observations).length > 0;

/** For each piece, in order, its numbers that were seen before; two queries however many pieces are asked about. */
export async function duplicateSerials(
  db: Queries,
  index: ReferenceIndex,
  pieces: readonly Numbered[],
): Promise<Alert[][]> {
  const read = pieces.map((piece) => numbersRead(index, piece.observations));
  const codes = [...new Set(read.flat().map((r) => r.code.id))];
  if (codes.length === 0) return pieces.map(() => []);
  const marks = codes.map(() => '?').join(',');
  const borne = await db.rows<Borne>(
    `SELECT o.piece_id, o.subject, JSON_VALUE(o.body, '$.text') AS text, CONCAT(p.stock_number, ', ', p.title) AS told
     FROM observation o JOIN piece p ON p.id = o.piece_id WHERE o.subject IN (${marks})`,
    codes.map((id) => `code ${id}`),
  );
  const watched = await db.rows<Watched>(
    `SELECT code_id, text, note FROM watched_number WHERE code_id IN (${marks})`,
    codes,
  );
  return pieces.map((piece, i) =>
    (read[i] ?? []).flatMap(({ code, number }): Alert[] => {
      const same = (text: string) => readSerial(code, text)?.number === number;
      return [
        ...borne
          .filter((b) => b.piece_id !== piece.id && b.subject === `code ${code.id}` && same(b.text))
          .map(({ told }): Alert => ({
            kind: 'serial-seen-before',
            detail: `Number ${number} is also recorded on ${told}: one of the two is not what it seems, or they are of different runs.`,
          })),
        ...watched
          .filter((w) => w.code_id === code.id && same(w.text))
          .map(({ note }): Alert => ({
            kind: 'serial-seen-before',
            detail: `Number ${number} is on the shop’s watch-list${note === '' ? '' : `: ${note}`}.`,
          })),
      ];
    }),
  );
}
