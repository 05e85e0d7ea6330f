/** Answers about the whole stock, reckoned once between one entry of the ledger and the next. */
import type { Queries } from '../db/index.ts';

/** Answers that are kept at once; questions beyond this are asked too differently for any to be asked again. */
const MOST_KEPT = 200;

/**
 * Whatever changes a piece writes an entry, and entries stand in one line in the order of their commits: while the last
 * one is the same, so is everything that is told of pieces alone. What hangs on the day must have the day in its key.
 * @returns by a key of what is asked the answer as it was reckoned, or as it is reckoned now
 */
export function untilNextEntry<Answer>(
  db: Queries,
): (key: string, reckon: () => Promise<Answer>) => Promise<Answer> {
  let at = -1;
  let kept = new Map<string, Promise<Answer>>();
  return async (key, reckon) => {
    const head = await db.row<{ seq: number }>('SELECT seq FROM ledger_head WHERE id = 1');
    const seq = Number(head?.seq ?? 0);
    if (seq !== at || kept.size >= MOST_KEPT) {
      at = seq;
      kept = new Map();
    }
    const known = kept.get(key);
    if (known) return known;
    const own = kept;
    const answer = reckon();
    own.set(key, answer);
    // what failed is asked again
    answer.catch(() => own.delete(key));
    return answer;
  };
}
