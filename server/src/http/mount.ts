/**
 * Turns a route of the contract into an Express handler: role, shape, idempotency, version, answer. Every route
 * goes through here, so none of it can be forgotten.
 */
import { createHash } from 'node:crypto';
import express, { type Request, type RequestHandler, type Response, type Router } from 'express';
import type { z } from 'zod';
import type { Access, Route } from '@jutbank/contract/http';
import type { Person, Role } from '@jutbank/contract/shop';
import { Busy, DUPLICATE_KEY, errorNumber, type Database, type Queries } from '../db/index.ts';
import { HttpProblem, invalid, sendProblem } from './problem.ts';

/** The one place that says who may do what. */
const MAY: Record<Access, readonly Role[]> = {
  public: ['owner', 'appraiser', 'clerk', 'reader'],
  read: ['owner', 'appraiser', 'clerk', 'reader'],
  work: ['owner', 'appraiser', 'clerk'],
  appraise: ['owner', 'appraiser'],
  own: ['owner'],
};

export interface Call<P, Q, B> {
  readonly params: P;
  readonly query: Q;
  readonly body: B;
  readonly person: Person;
  readonly request: Request;
  readonly response: Response;
  /** the version in If-Match; undefined when there was none */
  readonly ifMatch: number | undefined;
}

export interface Answered<A> {
  readonly body: A;
  readonly status?: number;
  readonly etag?: string;
  readonly headers?: Record<string, string>;
  /** what the next request would otherwise wait for: done once the transaction is committed, before the answer */
  readonly afterCommit?: () => Promise<unknown>;
}
export const answer = <A>(body: A, more: Omit<Answered<A>, 'body'> = {}): Answered<A> => ({ body, ...more });

/** Who nobody is: routes with public access see this person when nobody is signed in. */
const NOBODY: Person = { id: '', name: '', email: '', role: 'reader' };

export type PersonOf = (request: Request) => Promise<Person | undefined>;

export class Mount {
  constructor(
    readonly router: Router,
    readonly database: Database,
    readonly personOf: PersonOf,
  ) {}

  /** A route that reads, or that looks after its own transaction. */
  reads<P, Q, B, A>(
    route: Route<P, Q, B, A>,
    handle: (call: Call<P, Q, B>) => Promise<Answered<A> | undefined>,
  ): void {
    this.#on(route, async (call) => {
      const answered = await handle(call);
      if (answered) this.#send(call.response, route, answered);
    });
  }

  /**
   * A route that changes something: one transaction, retried on deadlock. With an Idempotency-Key the first answer
   * is stored in the same transaction, and given again to a repeat.
   */
  writes<P, Q, B, A>(
    route: Route<P, Q, B, A>,
    handle: (tx: Queries, call: Call<P, Q, B>) => Promise<Answered<A>>,
  ): void {
    this.preparedWrites(route, async () => undefined, handle);
  }

  /** As above, for what must be read or reckoned first: nothing but its own connection is used inside the transaction. */
  preparedWrites<P, Q, B, A, R>(
    route: Route<P, Q, B, A>,
    prepare: (call: Call<P, Q, B>) => Promise<R>,
    handle: (tx: Queries, call: Call<P, Q, B>, prepared: R) => Promise<Answered<A>>,
  ): void {
    this.#on(route, async (call) => {
      const key = call.request.get('Idempotency-Key');
      const act = async (around?: (tx: Queries, run: () => Promise<Answered<A>>) => Promise<Answered<A>>) => {
        const prepared = await prepare(call);
        return this.database.transaction((tx) => {
          const run = () => handle(tx, call, prepared);
          return around ? around(tx, run) : run();
        });
      };
      const answered =
        key === undefined || route.method !== 'post' ? await act() : await this.#once(route, key, call, act);
      await answered.afterCommit?.();
      this.#send(call.response, route, answered);
    });
  }

  async #once<P, Q, B, A>(
    route: Route<P, Q, B, A>,
    key: string,
    call: Call<P, Q, B>,
    act: (
      around: (tx: Queries, run: () => Promise<Answered<A>>) => Promise<Answered<A>>,
    ) => Promise<Answered<A>>,
  ): Promise<Answered<A>> {
    if (key.length === 0 || key.length > 200)
      throw new HttpProblem(400, 'Idempotency-Key has 1 to 200 characters.');
    const hash = createHash('sha256')
      .update(JSON.stringify([route.method, call.request.originalUrl, call.body]))
      .digest('hex');
    const stored = async (queries: Queries): Promise<Answered<A> | undefined> => {
      const row = await queries.row<{ request_hash: string; status: number; body: A }>(
        'SELECT request_hash, status, body FROM idempotency_key WHERE person_id = ? AND request_key = ?',
        [call.person.id, key],
      );
      if (!row) return undefined;
      if (row.request_hash !== hash)
        throw new HttpProblem(422, 'This Idempotency-Key was used for another request.');
      return answer(row.body, { status: row.status });
    };
    const before = await stored(this.database);
    if (before) return before;
    try {
      return await act(async (tx, run) => {
        // a second request with the same key waits here for the first to end
        await tx.run('INSERT INTO idempotency_key (person_id, request_key, request_hash) VALUES (?, ?, ?)', [
          call.person.id,
          key,
          hash,
        ]);
        const answered = await run();
        await tx.run(
          'UPDATE idempotency_key SET status = ?, body = ? WHERE person_id = ? AND request_key = ?',
          [answered.status ?? route.status, JSON.stringify(answered.body), call.person.id, key],
        );
        return answered;
      });
    } catch (error) {
      const first = errorNumber(error) === DUPLICATE_KEY ? await stored(this.database) : undefined;
      if (first) return first;
      throw error;
    }
  }

  #on<P, Q, B, A>(route: Route<P, Q, B, A>, act: (call: Call<P, Q, B>) => Promise<void>): void {
    const reading: RequestHandler[] = [];
    if (
      route.carries === 'json' &&
      (route.method === 'post' || route.method === 'put' || route.method === 'patch')
    )
      reading.push(express.json({ limit: route.bodyLimit }));
    const guard: RequestHandler = (request, response, next) => {
      this.#authorise(route.access, request).then(
        (person) => {
          response.locals.person = person;
          next();
        },
        (error: unknown) => next(error),
      );
    };
    this.router[route.method](route.path, guard, ...reading, (request: Request, response: Response, next) => {
      const call: Call<P, Q, B> = {
        params: check(route.params, request.params, '/path'),
        query: check(route.query, request.query, '/query'),
        body: route.carries === 'json' ? check(route.body, request.body ?? {}, '') : (undefined as B),
        person: response.locals.person as Person,
        request,
        response,
        ifMatch: versionIn(request.get('If-Match')),
      };
      act(call).catch(next);
    });
  }

  async #authorise(access: Access, request: Request): Promise<Person> {
    const person = await this.personOf(request);
    if (access === 'public') return person ?? NOBODY;
    if (!person) throw new HttpProblem(401);
    if (!MAY[access].includes(person.role))
      throw new HttpProblem(403, `This is not for the role ${person.role}.`);
    return person;
  }

  #send<P, Q, B, A>(response: Response, route: Route<P, Q, B, A>, answered: Answered<A>): void {
    for (const [name, value] of Object.entries(answered.headers ?? {})) response.setHeader(name, value);
    if (answered.etag !== undefined) response.setHeader('ETag', answered.etag);
    response.status(answered.status ?? route.status);
    if (route.status === 204) response.end();
    else response.json(answered.body);
  }
}

function versionIn(header: string | undefined): number | undefined {
  const match = /^(?:W\/)?"v(\d+)"$/.exec(header ?? '');
  return match ? Number(match[1]) : undefined;
}

const escape = (key: PropertyKey) => String(key).replaceAll('~', '~0').replaceAll('/', '~1');

/** A body whose shape hangs on the address, checked like any other. */
export const parsedBody = <T>(schema: z.ZodType<T>, body: unknown): T => check(schema, body, '');

/** Zod's findings as pointers into the document. */
function check<T>(schema: z.ZodType<T>, input: unknown, prefix: string): T {
  const parsed = schema.safeParse(input);
  if (parsed.success) return parsed.data;
  throw invalid(
    parsed.error.issues.slice(0, 100).map((issue) => {
      const unknown =
        issue.code === 'unrecognized_keys' && issue.keys[0] !== undefined ? [issue.keys[0]] : [];
      return {
        pointer: prefix + [...issue.path, ...unknown].map((key) => `/${escape(key)}`).join(''),
        message: issue.message,
      };
    }),
  );
}

/** Anything thrown anywhere below, told without a stack trace. */
export function problemOf(error: unknown): HttpProblem {
  if (error instanceof HttpProblem) return error;
  if (error instanceof Busy)
    return new HttpProblem(503, 'Too much is going on at once. Nothing was begun: try again in a moment.');
  const known = error as { type?: string; status?: number; code?: string };
  if (known.type === 'entity.too.large' || known.code === 'LIMIT_FILE_SIZE')
    return new HttpProblem(413, 'This is larger than what is accepted here.');
  if (known.type === 'entity.parse.failed') return new HttpProblem(400, 'This is not JSON.');
  if (known.type === 'encoding.unsupported' || known.type === 'charset.unsupported')
    return new HttpProblem(415);
  if (known.code?.startsWith('LIMIT_'))
    return new HttpProblem(422, 'The upload has parts that are not expected.');
  if (known.code === 'ECONNREFUSED' || known.code === 'PROTOCOL_CONNECTION_LOST') return new HttpProblem(503);
  if (typeof known.status === 'number' && known.status >= 400 && known.status < 500)
    return new HttpProblem(known.status);
  return new HttpProblem(500, 'The fault is noted in the log. Nothing was changed.');
}

export { sendProblem };
