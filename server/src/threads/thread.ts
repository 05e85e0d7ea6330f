/**
 * A thread of its own for what would keep the request thread busy: started when first needed, asked by messages, and
 * started anew when it was lost. What it needs of the database it reads itself.
 */
import { Worker } from 'node:worker_threads';
import { HttpProblem } from '../http/index.ts';
import type { Reply, Request, Work } from './messages.ts';

interface Waiting {
  readonly resolve: (answer: never) => void;
  readonly reject: (error: Error) => void;
}

/** @typeParam W the work that its module answers with */
export class Thread<W extends Work<W>> {
  #worker: Worker | undefined;
  #next = 1;
  readonly #waiting = new Map<number, Waiting>();

  /** @param module that calls `answering`; @param url of the database, which the thread is told */
  constructor(
    readonly module: URL,
    readonly url: string,
  ) {}

  /** @throws HttpProblem where what was asked is wrong, as it would be on the request thread */
  ask<K extends keyof W & string>(
    does: K,
    question: Parameters<W[K]>[0],
  ): Promise<Awaited<ReturnType<W[K]>>> {
    const worker = (this.#worker ??= this.#start());
    const id = this.#next++;
    return new Promise((resolve, reject) => {
      this.#waiting.set(id, { resolve, reject });
      worker.postMessage({ id, does, question } satisfies Request);
    });
  }

  /** Starts the thread before somebody waits for it. */
  warm(): void {
    this.#worker ??= this.#start();
  }

  async close(): Promise<void> {
    const worker = this.#worker;
    this.#worker = undefined;
    await worker?.terminate();
  }

  #start(): Worker {
    const worker = new Worker(new URL('./entry.mjs', import.meta.url), {
      workerData: { module: this.module.href, url: this.url },
      // what the server was started with is not for this thread
      execArgv: [],
      env: { ...process.env, NODE_OPTIONS: '' },
    });
    worker.on('message', (reply: Reply<never>) => {
      const waiting = this.#waiting.get(reply.id);
      this.#waiting.delete(reply.id);
      if ('answer' in reply) waiting?.resolve(reply.answer);
      else if ('problem' in reply) {
        const { status, detail, errors, code } = reply.problem;
        waiting?.reject(new HttpProblem(status, detail, errors, code));
      } else waiting?.reject(new Error(reply.error));
    });
    const lost = (error: Error) => {
      if (this.#worker === worker) this.#worker = undefined;
      for (const { reject } of this.#waiting.values()) reject(error);
      this.#waiting.clear();
    };
    worker.on('error', lost);
    worker.on('exit', () => lost(new Error('a thread ended')));
    // a server that stops does not wait for it
    worker.unref();
    return worker;
  }
}
