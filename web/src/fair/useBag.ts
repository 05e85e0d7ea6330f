/** The bag in hand, and the table at which it answers; without a bag the server does. */
import { wrap } from 'comlink';
import { useMutation } from '@tanstack/react-query';
import { useEffect, useMemo, useState } from 'react';
import type { InputProblem, Result } from '@jutbank/core/result';
import { ApiProblem } from '../base/api.ts';
import { useMay, useSession } from '../base/session.ts';
import { bagLabel, isStale, packBag, type BagLabel } from './bag.ts';
import { serverTable, type Table } from './table.ts';
import type { TableWorker } from './table.worker.ts';

export interface Bag {
  readonly label: BagLabel | undefined;
  readonly packing: boolean;
  readonly problem: string | undefined;
  pack(makers: readonly string[]): void;
}

export function useBag(): Bag {
  const session = useSession();
  const mayPack = useMay('work');
  const [label, setLabel] = useState(bagLabel);
  const packing = useMutation({
    mutationFn: (makers: readonly string[]) => packBag(makers, session),
    onSuccess: setLabel,
  });
  const { mutate } = packing;
  useEffect(() => {
    // in the background: what is at hand goes on answering, and where there is no connection it stays as it is
    if (label && mayPack && isStale(label)) mutate(label.makers);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once, when the page is opened
  }, []);
  // an old bag that could not be packed again is told by its age
  const away = packing.error instanceof ApiProblem && packing.error.status === 0;
  return {
    label,
    packing: packing.isPending,
    problem: packing.error && !(away && label) ? packing.error.message : undefined,
    pack: (makers) => mutate(makers),
  };
}

export const useTable = (label: BagLabel | undefined): Table =>
  useMemo(() => (label === undefined ? serverTable() : bagTable(label.packedAt)), [label]);

/** Opened once for as long as the program runs: a reference takes seconds to lay out on a phone. */
let opened: { readonly table: Table; readonly worker: Worker } | undefined;

/** Answers of the worker that opened the bag; another bag is another worker. */
function bagTable(packedAt: string): Table {
  if (opened?.table.name === packedAt) return opened.table;
  opened?.worker.terminate();
  const worker = new Worker(new URL('./table.worker.ts', import.meta.url), { type: 'module' });
  const remote = wrap<TableWorker>(worker);
  const server = serverTable();
  const table: Table = {
    name: packedAt,
    search: (words) => remote.search(words),
    look: async (question) => answered(await remote.look(question)),
    conditionIndex: (question) => remote.conditionIndex(question),
    judge: async (question) => orAsked(await remote.judge(question), () => server.judge(question)),
    recipe: (as) => remote.recipe(as),
  };
  opened = { table, worker };
  return table;
}

/** What the bag refuses is told where the server's refusals are told. */
function answered<T>(result: Result<T, InputProblem[]>): T {
  if (result.ok) return result.value;
  throw new ApiProblem(422, 'Please check', result.error[0]?.message, result.error);
}

/** What was left at home is asked of the server where there is a connection; without one the bag says what it lacks. */
export async function orAsked<T>(result: Result<T, InputProblem[]>, ask: () => Promise<T>): Promise<T> {
  if (result.ok) return result.value;
  try {
    return await ask();
  } catch (error) {
    if (error instanceof ApiProblem && error.status === 0) return answered(result);
    throw error;
  }
}
