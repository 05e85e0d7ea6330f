/** When what was answered is asked again: the library's FSRS, one card for each question and person. */
import { createEmptyCard, fsrs, Rating, State, type Card } from 'ts-fsrs';
import type { DrillKind, DrillQuestion } from './question.ts';

/** A card as it is kept: days as ISO instants. */
export interface DrillCard {
  readonly question: string;
  /** of the question as it was asked; another one begins anew */
  readonly basis: string;
  readonly due: string;
  readonly stability: number;
  readonly difficulty: number;
  readonly elapsedDays: number;
  readonly scheduledDays: number;
  readonly learningSteps: number;
  readonly reps: number;
  readonly lapses: number;
  readonly state: number;
  readonly lastReview: string | null;
}

// without chance in the days: the same answers always come back on the same day
const scheduler = fsrs({ enable_fuzz: false });
/** ms: who is right only after so long had to work it out */
const SLOW = 20_000;

const cardOf = (card: DrillCard): Card => ({
  due: new Date(card.due),
  stability: card.stability,
  difficulty: card.difficulty,
  elapsed_days: card.elapsedDays,
  scheduled_days: card.scheduledDays,
  learning_steps: card.learningSteps,
  reps: card.reps,
  lapses: card.lapses,
  state: card.state,
  ...(card.lastReview === null ? {} : { last_review: new Date(card.lastReview) }),
});

/**
 * @param before the card of this question, where there is one
 * @param took ms from question to answer
 * @param now ISO instant
 */
export function afterAnswer(
  { id, basis }: Pick<DrillQuestion, 'id' | 'basis'>,
  before: DrillCard | undefined,
  right: boolean,
  took: number,
  now: string,
): DrillCard {
  const at = new Date(now);
  const card = before?.basis === basis ? cardOf(before) : createEmptyCard(at);
  const rating = !right ? Rating.Again : took > SLOW ? Rating.Hard : Rating.Good;
  const { card: next } = scheduler.next(card, at, rating);
  return {
    question: id,
    basis,
    due: next.due.toISOString(),
    stability: next.stability,
    difficulty: next.difficulty,
    elapsedDays: next.elapsed_days,
    scheduledDays: next.scheduled_days,
    learningSteps: next.learning_steps,
    reps: next.reps,
    lapses: next.lapses,
    state: next.state,
    lastReview: next.last_review?.toISOString() ?? null,
  };
}

/** Days that a memory holds from which a thing is called known. */
const KNOWN_DAYS = 21;
export type Learnt = 'new' | 'learning' | 'known' | 'stale';
export function learntOf(card: DrillCard | undefined, basis: string): Learnt {
  if (!card) return 'new';
  if (card.basis !== basis) return 'stale';
  return card.state === State.Review && card.stability >= KNOWN_DAYS ? 'known' : 'learning';
}

/** New things in one session: what is due comes before. */
const MOST_NEW = 6;

/**
 * What is asked next: what is due, the longest overdue first; then new things, those first that this person gets wrong at the bench,
 * then from the commonest to the rarest, kinds in the order in which a clerk learns them.
 * @param wrongAtBench makers by how often this person's decisions on them were decided otherwise
 */
export function nextQuestions(
  questions: readonly DrillQuestion[],
  cards: ReadonlyMap<string, DrillCard>,
  now: string,
  limit: number,
  wrongAtBench: ReadonlyMap<string, number> = new Map(),
): DrillQuestion[] {
  const due: DrillQuestion[] = [];
  const fresh: DrillQuestion[] = [];
  for (const question of questions) {
    const card = cards.get(question.id);
    const learnt = learntOf(card, question.basis);
    if (learnt === 'new' || learnt === 'stale') fresh.push(question);
    else if (card && card.due <= now) due.push(question);
  }
  due.sort((a, b) => (cards.get(a.id)?.due ?? '').localeCompare(cards.get(b.id)?.due ?? ''));
  const wrong = (q: DrillQuestion) => wrongAtBench.get(q.maker ?? '') ?? 0;
  fresh.sort(
    (a, b) =>
      wrong(b) - wrong(a) ||
      LESSON[a.kind] - LESSON[b.kind] ||
      b.commonness - a.commonness ||
      a.id.localeCompare(b.id),
  );
  const taken = due.slice(0, limit);
  const room = Math.min(limit - taken.length, due.length > 0 ? MOST_NEW : limit);
  return [...taken, ...mixed(fresh, room)];
}

/** Marks before codes, codes before what needs both; grades and prices last. */
const LESSON: Readonly<Record<DrillKind, number>> = {
  stamp: 0,
  code: 1,
  number: 1,
  differ: 2,
  belongs: 2,
  bracket: 3,
  imitation: 3,
  grade: 4,
  price: 4,
};

/** One lesson after the other, but never more than half a session of one kind, so that it does not grow dull. */
function mixed(fresh: readonly DrillQuestion[], n: number): DrillQuestion[] {
  const most = Math.max(2, Math.ceil(n / 2));
  const counts = new Map<DrillKind, number>();
  const first: DrillQuestion[] = [];
  for (const question of fresh) {
    if (first.length === n) break;
    const count = counts.get(question.kind) ?? 0;
    if (count >= most) continue;
    counts.set(question.kind, count + 1);
    first.push(question);
  }
  const rest = fresh.filter((q) => !first.includes(q));
  return [...first, ...rest.slice(0, n - first.length)];
}
