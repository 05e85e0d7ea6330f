/** What no longer holds of a note when it comes in: a phone may have been without a connection for a day. */
import { Decimal } from 'decimal.js';
import { checkObservation, type Observation, type ReferenceIndex } from '@jutbank/core/bench';
import { formatMoney } from '@jutbank/core/money';
import type { FairNote } from '@jutbank/contract/fair';
import { isGone } from '../db/index.ts';
import { duplicateSerials, type Readers } from '../pieces/index.ts';
import { judgeFair } from './judge.ts';

export interface SinceTheTable {
  /** what was seen, as far as the reference still knows it */
  readonly observations: readonly Observation[];
  readonly told: readonly string[];
}
/** A ceiling that moved by less is the same to anybody. */
const MOVED = 0.1;

export async function sinceTheTable(readers: Readers, note: FairNote): Promise<SinceTheTable> {
  const index = await readers.library.index();
  const observations = note.observations.filter((o) => checkObservation(index, o).length === 0);
  const left = note.observations.length - observations.length;
  const [alerts = []] = await duplicateSerials(readers.database, index, [{ id: undefined, observations }]);
  return {
    observations,
    told: [
      ...(left > 0
        ? [
            left === 1
              ? 'One thing that was seen is not in the reference any more and was left out.'
              : `${left} things that were seen are not in the reference any more and were left out.`,
          ]
        : []),
      ...alerts.map((alert) => alert.detail),
      ...(await ceilingSince(readers, index, { ...note, observations: [...observations] })),
    ],
  };
}

async function ceilingSince(readers: Readers, index: ReferenceIndex, note: FairNote): Promise<string[]> {
  const { question, ceiling, paid } = note;
  // the server's own answer of a moment ago needs no second
  if (question === null || ceiling === undefined || note.packedAt == null) return [];
  if (!index.patterns.has(question.pattern))
    return [`The pattern it was taken for is not in the reference any more; it was taken in without it.`];
  try {
    const { most } = await judgeFair(readers, { ...question, observations: note.observations });
    const now = most.bid === null ? null : { amount: most.bid, currency: most.currency };
    const then = ceiling === null ? 'nothing' : formatMoney(ceiling);
    const over =
      paid != null &&
      now !== null &&
      paid.currency === now.currency &&
      new Decimal(paid.amount).gt(now.amount)
        ? ' What was paid is above it.'
        : '';
    return moved(ceiling?.amount, now?.amount)
      ? [
          `At the table the most to pay was ${then}; by what is known now it is ${now === null ? 'nothing' : formatMoney(now)}.${over}`,
        ]
      : [];
  } catch (error) {
    // a note is kept whether or not its market can be reckoned again
    if (isGone(error)) throw error;
    return [];
  }
}

function moved(then: string | undefined, now: string | undefined): boolean {
  if (then === undefined || now === undefined) return then !== now;
  return new Decimal(now).div(then).minus(1).abs().gt(MOVED);
}
