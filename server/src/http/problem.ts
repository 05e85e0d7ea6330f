/** What goes wrong, as values of known kinds, and as problem+json at the edge (RFC 9457). */
import type { Response } from 'express';
import { PROBLEM_CODES, type Problem, type ProblemStatus } from '@jutbank/contract/http';
import type { InputProblem } from '@jutbank/core/result';

const TITLES: Record<ProblemStatus, string> = {
  400: 'The request cannot be read',
  401: 'Please sign in',
  403: 'Not allowed for your role',
  404: 'Not found',
  409: 'This cannot be done now',
  412: 'Somebody changed it meanwhile',
  413: 'Too large',
  415: 'This kind of file is not accepted',
  422: 'Some of the input is not right',
  428: 'The version is missing',
  429: 'Too many attempts',
  500: 'Something went wrong here',
  502: 'A service outside does not answer',
  503: 'The server is not ready for this',
  507: 'The disk is full',
};

export type ProblemCode = Problem['code'];
const known = (status: number): status is ProblemStatus => status in TITLES;
/** The general kind of a status that has no name of its own here. */
const general = (status: number): ProblemStatus => (known(status) ? status : status < 500 ? 400 : 500);

export class HttpProblem extends Error {
  constructor(
    readonly status: number,
    readonly detail?: string,
    readonly errors?: readonly InputProblem[],
    readonly code?: ProblemCode,
  ) {
    super(detail ?? TITLES[general(status)]);
  }
}

export const notFound = (what: string) => new HttpProblem(404, `There is no such ${what}.`);
export const invalid = (errors: readonly InputProblem[]) =>
  new HttpProblem(
    422,
    errors.length === 1 ? errors[0]?.message : `${errors.length} things are not right.`,
    errors,
  );
export const conflict = (detail: string) => new HttpProblem(409, detail);

/** When whoever met a busy or lost database may ask again. */
const RETRY_AFTER_SECONDS = 2;

export function sendProblem(response: Response, problem: HttpProblem): void {
  if (response.headersSent) {
    response.destroy();
    return;
  }
  if (problem.status === 503) response.setHeader('Retry-After', String(RETRY_AFTER_SECONDS));
  response
    .status(problem.status)
    .type('application/problem+json')
    .send(
      JSON.stringify({
        type: 'about:blank',
        title: TITLES[general(problem.status)],
        status: problem.status,
        code: problem.code ?? PROBLEM_CODES[general(problem.status)],
        ...(problem.detail === undefined ? {} : { detail: problem.detail }),
        ...(problem.errors === undefined ? {} : { errors: [...problem.errors] }),
      } satisfies Problem),
    );
}

/**
 * Whoever writes says which version they have seen. @throws 428 where they do not, 412 where another came before
 * @param what it is, for the message: “this contact”
 */
export function checkVersion(ifMatch: number | undefined, version: number, what: string): void {
  if (ifMatch === undefined) throw new HttpProblem(428, 'Send If-Match with the version you have seen.');
  if (ifMatch !== version) throw new HttpProblem(412, `Somebody changed ${what} meanwhile.`);
}
