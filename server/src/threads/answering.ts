/** The thread's own side: what it answers with. */
import { parentPort, workerData } from 'node:worker_threads';
import { openDatabase, type Database } from '../db/index.ts';
import { problemOf } from '../http/index.ts';
import type { Reply, Request, Work } from './messages.ts';

/** Connections of the thread's own to the database that its starter uses. */
export const databaseOfThread = (): Database =>
  openDatabase((workerData as { url: string }).url, { connections: 2 });

/** Answers one question after the other. */
export function answering<W extends Work<W>>(work: W): void {
  const known = new Map<string, (question: never) => Promise<unknown>>(Object.entries(work));
  const reply = (message: Reply<unknown>) => parentPort?.postMessage(message);
  let last: Promise<unknown> = Promise.resolve();
  parentPort?.on('message', ({ id, does, question }: Request) => {
    const answer = async () => {
      const how = known.get(does);
      if (!how) throw new Error(`this thread does not know how to ${does}`);
      return how(question as never);
    };
    last = last.then(answer).then(
      (answer) => reply({ id, answer }),
      (error: unknown) => {
        const { status, detail, errors, code } = problemOf(error);
        // a fault of ours keeps its trace, for the log of whoever asked
        if (status !== 500) reply({ id, problem: { status, detail, errors, code } });
        else reply({ id, error: error instanceof Error ? (error.stack ?? error.message) : String(error) });
      },
    );
  });
}
