/** The thread in which markets are fitted: started when first needed, asked one thing at a time. */
import { Worker } from 'node:worker_threads';
import type { FitReply, FitRequest } from './fitWorker.ts';
import type { MarketFit } from './storedFit.ts';

interface Waiting {
  readonly resolve: (fit: MarketFit) => void;
  readonly reject: (error: Error) => void;
}

export class Fitter {
  #worker: Worker | undefined;
  #next = 1;
  readonly #waiting = new Map<number, Waiting>();

  constructor(readonly url: string) {}

  /** @param rest for a fit from what was known once, see `FitRequest` */
  fit(asOf: string, rest: Omit<FitRequest, 'id' | 'asOf'> = {}): Promise<MarketFit> {
    const worker = (this.#worker ??= this.#start());
    const id = this.#next++;
    return new Promise((resolve, reject) => {
      this.#waiting.set(id, { resolve, reject });
      worker.postMessage({ id, asOf, ...rest } satisfies FitRequest);
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
    const worker = new Worker(new URL('./fitThread.mjs', import.meta.url), {
      workerData: { url: this.url },
      // what the server was started with is not for this thread
      execArgv: [],
      env: { ...process.env, NODE_OPTIONS: '' },
    });
    worker.on('message', (reply: FitReply) => {
      const waiting = this.#waiting.get(reply.id);
      this.#waiting.delete(reply.id);
      if ('fit' in reply) waiting?.resolve(reply.fit);
      else waiting?.reject(new Error(reply.error));
    });
    const lost = (error: Error) => {
      if (this.#worker === worker) this.#worker = undefined;
      for (const { reject } of this.#waiting.values()) reject(error);
      this.#waiting.clear();
    };
    worker.on('error', lost);
    worker.on('exit', () => lost(new Error('the fitting thread ended')));
    // a server that stops does not wait for a fit
    worker.unref();
    return worker;
  }
}
