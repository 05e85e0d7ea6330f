/** What threads are asked and answer. */
import type { HttpProblem } from '../http/index.ts';

/** Every kind of question a thread answers; questions and answers are plain data, for they are copied. */
export type Work<W> = { readonly [K in keyof W]: (question: never) => Promise<unknown> };

export interface Request {
  readonly id: number;
  readonly does: string;
  readonly question: unknown;
}
export type Told = Pick<HttpProblem, 'status' | 'detail' | 'errors' | 'code'>;
export type Reply<A> =
  | { readonly id: number; readonly answer: A }
  | { readonly id: number; readonly problem: Told }
  | { readonly id: number; readonly error: string };
