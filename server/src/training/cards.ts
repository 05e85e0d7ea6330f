/** What a person has learnt, from the tables. */
import type { DrillCard } from '@jutbank/core/training';
import type { DrillProgress } from '@jutbank/contract/training';
import { instant, type Queries, type Transaction } from '../db/index.ts';
import { todayIso } from '../clock/index.ts';

interface CardRow {
  question: string;
  basis: string;
  due: string;
  stability: number;
  difficulty: number;
  elapsed_days: number;
  scheduled_days: number;
  learning_steps: number;
  reps: number;
  lapses: number;
  state: number;
  last_review: string | null;
}
const cardOf = (row: CardRow): DrillCard => ({
  question: row.question,
  basis: row.basis,
  due: instant(row.due),
  stability: Number(row.stability),
  difficulty: Number(row.difficulty),
  elapsedDays: Number(row.elapsed_days),
  scheduledDays: Number(row.scheduled_days),
  learningSteps: Number(row.learning_steps),
  reps: Number(row.reps),
  lapses: Number(row.lapses),
  state: Number(row.state),
  lastReview: row.last_review === null ? null : instant(row.last_review),
});

export const cardsOf = async (db: Queries, person: string): Promise<Map<string, DrillCard>> =>
  new Map(
    (await db.rows<CardRow>('SELECT * FROM drill_card WHERE person_id = ?', [person])).map((row) => [
      row.question,
      cardOf(row),
    ]),
  );

/** The card of one question, locked: of two answers at once one comes after the other. */
export async function lockedCard(
  tx: Transaction,
  person: string,
  question: string,
): Promise<DrillCard | undefined> {
  // the person is there before any card is: one lock for both
  await tx.row('SELECT id FROM person WHERE id = ? FOR UPDATE', [person]);
  const row = await tx.row<CardRow>('SELECT * FROM drill_card WHERE person_id = ? AND question = ?', [
    person,
    question,
  ]);
  return row && cardOf(row);
}

/** ISO instants as the database takes them. */
const stored = (at: string | null): string | null => at && at.replace('T', ' ').replace('Z', '');

export async function keepCard(
  tx: Transaction,
  person: string,
  card: DrillCard,
  right: boolean,
): Promise<void> {
  await tx.run(
    `REPLACE INTO drill_card (person_id, question, basis, due, stability, difficulty, elapsed_days, scheduled_days,
       learning_steps, reps, lapses, state, last_review) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
    [
      person,
      card.question,
      card.basis,
      stored(card.due),
      card.stability,
      card.difficulty,
      card.elapsedDays,
      card.scheduledDays,
      card.learningSteps,
      card.reps,
      card.lapses,
      card.state,
      stored(card.lastReview),
    ],
  );
  await tx.run(
    `INSERT INTO drill_day (person_id, day, right_n, wrong_n) VALUES (?, ?, ?, ?)
     ON DUPLICATE KEY UPDATE right_n = right_n + VALUES(right_n), wrong_n = wrong_n + VALUES(wrong_n)`,
    [person, todayIso(), right ? 1 : 0, right ? 0 : 1],
  );
}

/** The last days on which something was answered, the oldest first. */
const MOST_DAYS = 28;
export const daysOf = async (db: Queries, person: string): Promise<DrillProgress['days']> =>
  (
    await db.rows<{ day: string; right_n: number; wrong_n: number }>(
      'SELECT day, right_n, wrong_n FROM drill_day WHERE person_id = ? ORDER BY day DESC LIMIT ?',
      [person, MOST_DAYS],
    )
  )
    .map(({ day, right_n, wrong_n }) => ({ day, right: Number(right_n), wrong: Number(wrong_n) }))
    .reverse();
