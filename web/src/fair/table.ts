/** Whoever answers at the table: the server, or the bag that was packed from it. Both by the same engines (core/fair). */
import { subjectKey, type Observation } from '@jutbank/core/bench';
import { anyPattern, recipeOfRecords, type DrawingRecipe, type DrawnAs } from '@jutbank/core/drawing';
import type { FairHit, FairJudgement, FairQuestion, FairSight, LookQuestion } from '@jutbank/core/fair';
import type { GradeQuestion } from '@jutbank/core/condition';
import type { Construction } from '@jutbank/core/reference';
import { conditionRoutes } from '@jutbank/contract/condition';
import { fairRoutes } from '@jutbank/contract/fair';
import { referenceRoutes, type Vocabulary } from '@jutbank/contract/reference';
import { send } from '../base/api.ts';

/** A pattern that was picked; what was photographed instead has none yet. */
export interface Chosen {
  readonly id: string | null;
  readonly name: string;
  readonly construction: Construction;
}
/** Something that was seen, in the words in which it is told. */
export interface Seen {
  readonly label: string;
  readonly make: Observation;
  /** the stamp it was made with: a piece has one */
  readonly ofMaking?: boolean;
}
/** What was seen with one thing more: another answer to the same question takes the place of the one before. */
export function withSeen(seen: readonly Seen[], one: Seen): Seen[] {
  const key = subjectKey(one.make);
  return [
    ...seen.filter((other) => subjectKey(other.make) !== key && !(one.ofMaking && other.ofMaking)),
    one,
  ];
}

export interface Table {
  /** what answers are kept under: another bag answers otherwise */
  readonly name: string;
  search(words: string): Promise<readonly FairHit[]>;
  look(question: LookQuestion): Promise<FairSight>;
  conditionIndex(question: GradeQuestion): Promise<number>;
  /** @throws ApiProblem where the question cannot be answered, with status 0 where nobody is there */
  judge(question: FairQuestion): Promise<FairJudgement>;
  recipe(as: DrawnAs): Promise<DrawingRecipe>;
}

/** The server at the other end of whatever connection there is; nobody at a table waits for it long. */
export function serverTable(): Table {
  let words: Promise<Vocabulary> | undefined;
  return {
    name: 'server',
    search: async (q) => (await send(fairRoutes.searchAtFair, { query: { q }, once: true })).items,
    look: (body) => send(fairRoutes.lookAtFair, { body, once: true }),
    conditionIndex: async (body) => (await send(conditionRoutes.grade, { body, once: true })).conditionIndex,
    judge: (body) => send(fairRoutes.judgeFair, { body, once: true }),
    recipe: async (as) => {
      words ??= send(referenceRoutes.vocabulary, { once: true });
      words.catch(() => (words = undefined));
      const vocabulary = await words;
      const { variants } = as.variant
        ? await send(referenceRoutes.forms, { query: { ids: as.variant }, once: true })
        : { variants: [] };
      const variant = variants[0];
      const pattern = vocabulary.patterns.find((p) => p.id === (variant?.pattern ?? as.pattern));
      const { features, marks, codes } = vocabulary;
      return recipeOfRecords({
        pattern: pattern ?? anyPattern(as.construction),
        variant,
        features,
        marks,
        codes,
      });
    },
  };
}
