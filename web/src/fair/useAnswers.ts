/** What the table answers of the piece on it, asked anew with every tap; the last answer stays until the next is there. */
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { findingsOf } from '@jutbank/core/condition';
import type { FairJudgement, FairQuestion, FairSight } from '@jutbank/core/fair';
import { ApiProblem } from '../base/api.ts';
import { observationsOf, questionOf, type OnTable } from './atTable.ts';
import type { Table } from './table.ts';

export interface Answers {
  readonly sight: FairSight | undefined;
  readonly index: number | undefined;
  readonly question: FairQuestion | undefined;
  /** the last ceiling that was told; `current` says whether it is of just this question */
  readonly judged: FairJudgement | undefined;
  readonly current: boolean;
  /** why there is no answer; undefined where there is one, or nobody is there to give it */
  readonly problem: Error | undefined;
  /** nobody is there to answer */
  readonly away: boolean;
}

export function useAnswers(table: Table, on: OnTable): Answers {
  const picked = on.pattern?.id ?? null;
  const observations = observationsOf(on);
  const looks = observations.length > 0 || picked !== null;
  const again = { placeholderData: keepPreviousData, retry: false } as const;
  const sight = useQuery({
    queryKey: ['fair', table.name, 'look', picked, observations],
    queryFn: () => table.look({ observations, pattern: picked }),
    enabled: looks,
    ...again,
  });
  const grading = {
    construction: on.pattern?.construction ?? 'slipjoint',
    findings: findingsOf(on.look),
    completeness: {},
  } as const;
  const grade = useQuery({
    queryKey: ['fair', table.name, 'grade', grading],
    queryFn: () => table.conditionIndex(grading),
    enabled: picked !== null,
    ...again,
  });
  const question = questionOf(on, grade.data);
  const judged = useQuery({
    queryKey: ['fair', table.name, 'judge', question],
    queryFn: () => (question ? table.judge(question) : Promise.reject(new Error('nothing is asked'))),
    enabled: question !== undefined && grade.data !== undefined,
    ...again,
  });
  const trouble = [sight, grade, judged].map((asked) => asked.error).find((error) => error !== null);
  const away = trouble instanceof ApiProblem && trouble.status === 0;
  return {
    sight: looks ? sight.data : undefined,
    index: grade.data,
    question,
    judged: judged.data,
    current: judged.isSuccess && !judged.isPlaceholderData,
    problem: away ? undefined : (trouble ?? undefined),
    away,
  };
}
