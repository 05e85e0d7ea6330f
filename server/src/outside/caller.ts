/**
 * How services outside the house are called: never inside a transaction, with a time-out, again after a while with some
 * jitter, and not at all for a time once they have failed often.
 */
import {
  ConsecutiveBreaker,
  ExponentialBackoff,
  handleWhen,
  circuitBreaker,
  retry,
  wrap,
  BrokenCircuitError,
} from 'cockatiel';
import { HttpProblem } from '../http/index.ts';

/** The service did not do what it was asked; nothing here hangs on it. */
export class Unanswered extends HttpProblem {
  constructor(
    name: string,
    /** false: it said no, and would say so again */
    readonly again: boolean,
    told: string,
  ) {
    super(502, `${name} ${told}. Nothing was lost; try again later.`);
  }
}

const TIMEOUT_MS = 8000;
const TRIES = 3;
const OPEN_AFTER = 5;
const OPEN_FOR_MS = 20_000;
const MOST_ANSWER_BYTES = 8 << 20;

export interface CallOptions {
  readonly body?: unknown;
  /** the same for every telling of one thing: the service does it once */
  readonly key?: string;
}
export type Call = (path: string, asked?: CallOptions) => Promise<unknown>;

/** @param name as it stands at the beginning of a sentence */
export function caller(name: string, url: string): Call {
  const worthAgain = handleWhen((error) => error instanceof Unanswered && error.again);
  const policy = wrap(
    circuitBreaker(worthAgain, {
      halfOpenAfter: OPEN_FOR_MS,
      breaker: new ConsecutiveBreaker(OPEN_AFTER),
    }),
    retry(worthAgain, {
      maxAttempts: TRIES - 1,
      backoff: new ExponentialBackoff({ initialDelay: 150, maxDelay: 1500 }),
    }),
  );
  const once = async (path: string, { body, key }: CallOptions): Promise<unknown> => {
    const response = await fetch(`${url}${path}`, {
      signal: AbortSignal.timeout(TIMEOUT_MS),
      redirect: 'error',
      headers: {
        ...(body === undefined ? {} : { 'content-type': 'application/json' }),
        ...(key === undefined ? {} : { 'idempotency-key': key }),
      },
      ...(body === undefined ? {} : { method: 'POST', body: JSON.stringify(body) }),
    }).catch(() => {
      throw new Unanswered(name, true, 'does not answer');
    });
    if (!response.ok) {
      await response.body?.cancel();
      throw new Unanswered(
        name,
        response.status >= 500 || response.status === 429,
        `answered ${response.status}`,
      );
    }
    const text = await response.text().catch(() => {
      throw new Unanswered(name, true, 'broke off its answer');
    });
    if (text.length > MOST_ANSWER_BYTES) throw new Unanswered(name, false, 'answered far too much');
    try {
      return JSON.parse(text);
    } catch {
      throw new Unanswered(name, false, 'answered what nobody understands');
    }
  };
  return (path, asked = {}) =>
    policy
      // what is told without a key might be done twice: it is not told again
      .execute(() => once(path, asked))
      .catch((error: unknown) => {
        if (error instanceof BrokenCircuitError)
          throw new Unanswered(name, true, 'has not answered for a while');
        throw error;
      });
}
