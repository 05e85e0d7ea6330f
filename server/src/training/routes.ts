import {
  afterAnswer,
  DRILL_KINDS,
  learntOf,
  nextQuestions,
  type DrillCard,
  type DrillQuestion,
} from '@jutbank/core/training';
import { trainingRoutes, type DrillProgress } from '@jutbank/contract/training';
import { rowsBy } from '../db/index.ts';
import { answer, conflict, notFound, type Mount } from '../http/index.ts';
import type { Readers } from '../pieces/index.ts';
import { cardsOf, daysOf, keepCard, lockedCard } from './cards.ts';
import { allQuestions, questionById, wrongAtBench } from './questions.ts';

export function mountTraining(mount: Mount, readers: Readers): void {
  const { database, library } = readers;

  mount.handle(trainingRoutes.progress, async ({ person }) => {
    const [index, questions, cards, days] = await Promise.all([
      library.index(),
      allQuestions(readers),
      cardsOf(database, person.id),
      daysOf(database, person.id),
    ]);
    const now = new Date().toISOString();
    const counted = (of: readonly DrillQuestion[]) => countsOf(of, cards, now);
    const byMaker = rowsBy(questions, (q) => q.maker ?? '');
    const byKind = rowsBy(questions, (q) => q.kind);
    return answer({
      ...counted(questions),
      stale: questions.filter((q) => learntOf(cards.get(q.id), q.basis) === 'stale').length,
      makers: [...byMaker]
        .flatMap(([id, of]) => {
          const maker = index.makers.get(id);
          return maker ? [{ id, name: maker.name, ...counted(of) }] : [];
        })
        .sort((a, b) => a.name.localeCompare(b.name)),
      kinds: DRILL_KINDS.flatMap((kind) => {
        const of = byKind.get(kind);
        return of ? [{ kind, ...counted(of) }] : [];
      }),
      days,
    });
  });

  mount.handle(trainingRoutes.nextDrills, async ({ query, person }) => {
    const [index, questions, cards] = await Promise.all([
      library.index(),
      allQuestions(readers),
      cardsOf(database, person.id),
    ]);
    const asked = questions.filter(
      (q) =>
        (query.maker === undefined || q.maker === query.maker) &&
        (query.kind === undefined || q.kind === query.kind),
    );
    const next = nextQuestions(
      asked,
      cards,
      new Date().toISOString(),
      query.limit,
      await wrongAtBench(database, index, person.id),
    );
    return answer({
      items: next.map(({ id, kind, ask, drawn, choices, basis }) => ({
        id,
        kind,
        ask,
        drawn,
        choices: [...choices],
        basis,
        learnt: learntOf(cards.get(id), basis),
      })),
    });
  });

  mount.handlePrepared(
    trainingRoutes.answerDrill,
    async ({ body }) => {
      const question = await questionById(readers, body.question);
      if (!question) throw notFound('question');
      if (question.basis !== body.basis)
        throw conflict('The reference says something else by now: this question is asked anew.');
      return question;
    },
    async (tx, { body, person }, question) => {
      const answered = question.choices[question.right] ?? '';
      const right = body.choice === answered;
      const before = await lockedCard(tx, person.id, question.id);
      const card = afterAnswer(question, before, right, body.took, new Date().toISOString());
      await keepCard(tx, person.id, card, right);
      const { because, source, opens } = question;
      return answer({ right, answer: answered, because, source, opens, due: card.due });
    },
  );
}

function countsOf(
  questions: readonly DrillQuestion[],
  cards: ReadonlyMap<string, DrillCard>,
  now: string,
): Pick<DrillProgress, 'known' | 'learning' | 'new' | 'due'> {
  const counts = { known: 0, learning: 0, new: 0, due: 0 };
  for (const { id, basis } of questions) {
    const card = cards.get(id);
    const learnt = learntOf(card, basis);
    counts[learnt === 'stale' ? 'new' : learnt] += 1;
    if (learnt !== 'new' && learnt !== 'stale' && card && card.due <= now) counts.due += 1;
  }
  return counts;
}
