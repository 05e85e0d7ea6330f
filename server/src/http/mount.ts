/**
 * Turns a route of the contract into an Express handler: role, shape, idempotency, version, answer. Every route
 * goes through here, so none of it can be forgotten.
 */
import { createHash } from 'node:crypto';
import express, { type Request, type RequestHandler, type Response, type Router } from 'express';
import type { z } from 'zod';
import type { Route, Secret } from '@jutbank/contract/http';
import { accessOf, type Person } from '@jutbank/contract/shop';
import type { Database, Transaction } from '../db/index.ts';
import { answeredOnce, onceOf, type Answered, type Once } from './once.ts';
import { HttpProblem, invalid, sendProblem } from './problem.ts';
import type { Room } from './room.ts';
import { unkeepable } from './text.ts';
import { withheld } from './visibility.ts';

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

/** A body as it came; the key it came with. */
export interface Document {
  readonly bytes: Uint8Array;
  readonly once: Once | undefined;
}

/** Who nobody is: routes with public access see this person when nobody is signed in. */
const NOBODY: Person = { id: '', name: '', email: '', role: 'reader' };

export type PersonOf = (request: Request) => Promise<Person | undefined>;

export class Mount {
  /** every route that is there, by method and path, and whether it only reads */
  readonly mounted = new Map<string, 'reads' | 'writes'>();

  constructor(
    readonly router: Router,
    readonly database: Database,
    readonly personOf: PersonOf,
    readonly room: Room,
    /** what the owner has opened to readers */
    readonly readersSee: () => Promise<readonly Secret[]>,
  ) {}

  /** A route that reads, or that looks after its own transaction. */
  handle<P, Q, B, A>(
    route: Route<P, Q, B, A>,
    handle: (call: Call<P, Q, B>) => Promise<Answered<A> | undefined>,
  ): void {
    this.mounted.set(`${route.method} ${route.path}`, 'reads');
    this.#on(route, async (call) => {
      const answered = await handle(call);
      if (answered) await this.#send(call, route, answered);
    });
  }

  /**
   * A route that changes something: one transaction, retried on deadlock. With an Idempotency-Key the first answer
   * is stored in the same transaction, and given again to a repeat.
   */
  handleInTransaction<P, Q, B, A>(
    route: Route<P, Q, B, A>,
    act: (tx: Transaction, call: Call<P, Q, B>) => Promise<Answered<A>>,
  ): void;
  /**
   * The same for an answer that is reckoned: `act` changes and says in a word of JSON what it changed, `tell` answers
   * once that is committed. A repeat is told from the same word.
   */
  handleInTransaction<P, Q, B, A, R>(
    route: Route<P, Q, B, A>,
    act: (tx: Transaction, call: Call<P, Q, B>) => Promise<R>,
    tell: (result: R, call: Call<P, Q, B>) => Promise<Answered<A>>,
  ): void;
  handleInTransaction<P, Q, B, A, R>(
    route: Route<P, Q, B, A>,
    act: (tx: Transaction, call: Call<P, Q, B>) => Promise<R | Answered<A>>,
    tell?: (result: R, call: Call<P, Q, B>) => Promise<Answered<A>>,
  ): void {
    this.#changes(route, () => Promise.resolve(undefined), act, tell);
  }

  /** As above, with what must be read or reckoned before the transaction begins. */
  handlePrepared<P, Q, B, A, S>(
    route: Route<P, Q, B, A>,
    prepare: (call: Call<P, Q, B>) => Promise<S>,
    act: (tx: Transaction, call: Call<P, Q, B>, prepared: S) => Promise<Answered<A>>,
  ): void;
  handlePrepared<P, Q, B, A, S, R>(
    route: Route<P, Q, B, A>,
    prepare: (call: Call<P, Q, B>) => Promise<S>,
    act: (tx: Transaction, call: Call<P, Q, B>, prepared: S) => Promise<R>,
    tell: (result: R, call: Call<P, Q, B>) => Promise<Answered<A>>,
  ): void;
  handlePrepared<P, Q, B, A, S, R>(
    route: Route<P, Q, B, A>,
    prepare: (call: Call<P, Q, B>) => Promise<S>,
    act: (tx: Transaction, call: Call<P, Q, B>, prepared: S) => Promise<R | Answered<A>>,
    tell?: (result: R, call: Call<P, Q, B>) => Promise<Answered<A>>,
  ): void {
    this.#changes(route, prepare, act, tell);
  }

  /**
   * A route whose body is read, checked and answered in a thread, so that a big document keeps nobody waiting.
   * @param ask is handed the body as it came, and the key where there is one
   */
  handleInThread<P, Q, B, A>(
    route: Route<P, Q, B, A>,
    ask: (document: Document) => Promise<Answered<A>>,
    does: 'reads' | 'writes',
  ): void {
    this.mounted.set(`${route.method} ${route.path}`, does);
    this.#route(
      route,
      [express.raw({ type: () => true, limit: route.bodyLimit })],
      async (request, response) => {
        if (does === 'writes') await this.room.need();
        const person = response.locals.person as Person;
        const bytes = Buffer.isBuffer(request.body) ? request.body : Buffer.alloc(0);
        const once = does === 'writes' ? onceOf(request, person.id, printOfBytes(bytes)) : undefined;
        await this.#send({ response, person }, route, await ask({ bytes, once }));
      },
    );
  }

  #changes<P, Q, B, A, S, R>(
    route: Route<P, Q, B, A>,
    prepare: (call: Call<P, Q, B>) => Promise<S>,
    act: (tx: Transaction, call: Call<P, Q, B>, prepared: S) => Promise<R | Answered<A>>,
    tell: ((result: R, call: Call<P, Q, B>) => Promise<Answered<A>>) | undefined,
  ): void {
    this.mounted.set(`${route.method} ${route.path}`, 'writes');
    const told = async (result: R | Answered<A>, call: Call<P, Q, B>) => {
      const answered = tell ? await tell(result as R, call) : (result as Answered<A>);
      await answered.afterCommit?.();
      return answered;
    };
    this.#on(route, async (call) => {
      const { request, person } = call;
      // signing in writes little, and taking away makes room
      if (route.method !== 'delete' && route.access !== 'public') await this.room.need();
      // an upload is read first: what it holds is part of what the key stands for
      const read = route.carries === 'upload' ? await prepare(call) : undefined;
      const once =
        (route.method !== 'post' && route.method !== 'put') || route.secret
          ? undefined
          : onceOf(request, person.id, route.carries === 'upload' ? printOf(read) : call.body);
      const answered = await answeredOnce(
        this.database,
        once,
        route.status,
        async () => {
          const prepared = route.carries === 'upload' ? (read as S) : await prepare(call);
          return (tx) => act(tx, call, prepared);
        },
        (result) => told(result, call),
      );
      await this.#send(call, route, answered);
    });
  }

  #on<P, Q, B, A>(route: Route<P, Q, B, A>, act: (call: Call<P, Q, B>) => Promise<void>): void {
    const reading: RequestHandler[] = [];
    if (
      route.carries === 'json' &&
      (route.method === 'post' || route.method === 'put' || route.method === 'patch')
    )
      reading.push(express.json({ limit: route.bodyLimit }));
    this.#route(route, reading, async (request, response) => {
      const strange = [
        ...unkeepable(request.params, '/path'),
        ...unkeepable(request.query, '/query'),
        ...(route.carries === 'json' ? unkeepable(request.body) : []),
      ];
      if (strange.length > 0) throw invalid(strange);
      await act({
        params: check(route.params, request.params, '/path'),
        query: check(route.query, request.query, '/query'),
        body: route.carries === 'json' ? check(route.body, request.body ?? {}, '') : (undefined as B),
        person: response.locals.person as Person,
        request,
        response,
        ifMatch: versionIn(request.get('If-Match')),
      });
    });
  }

  /** Who asks is known before anything of the body is read. */
  #route(
    route: Pick<Route, 'method' | 'path' | 'access' | 'hides'>,
    reading: readonly RequestHandler[],
    act: (request: Request, response: Response) => Promise<void>,
  ): void {
    const guard: RequestHandler = (request, response, next) => {
      this.#authorise(route, request).then(
        (person) => {
          response.locals.person = person;
          next();
        },
        (error: unknown) => next(error),
      );
    };
    this.router[route.method](route.path, guard, ...reading, (request: Request, response: Response, next) => {
      act(request, response).catch(next);
    });
  }

  async #authorise({ access, hides }: Pick<Route, 'access' | 'hides'>, request: Request): Promise<Person> {
    const person = await this.personOf(request);
    if (access === 'public') return person ?? NOBODY;
    if (!person) throw new HttpProblem(401);
    if (!accessOf(person.role).includes(access))
      throw new HttpProblem(403, `This is not for the role ${person.role}.`);
    if (person.role === 'reader' && hides.length > 0) {
      const seen = await this.readersSee();
      const hidden = hides.find((secret) => !seen.includes(secret));
      if (hidden !== undefined) throw new HttpProblem(403, `The owner has not opened ${hidden} to readers.`);
    }
    return person;
  }

  async #send<P, Q, B, A>(
    { response, person }: Pick<Call<P, Q, B>, 'response' | 'person'>,
    route: Route<P, Q, B, A>,
    answered: Answered<A>,
  ): Promise<void> {
    for (const [name, value] of Object.entries(answered.headers ?? {})) response.setHeader(name, value);
    if (answered.etag !== undefined) response.setHeader('ETag', answered.etag);
    response.status(answered.status ?? route.status);
    if (route.status === 204) response.end();
    else if (person.role === 'reader') response.json(withheld(answered.body, await this.readersSee()));
    else response.json(answered.body);
  }
}

const printOfBytes = (bytes: Buffer): string => createHash('sha256').update(bytes).digest('hex');

/** What an upload is, for its key: the hash of its bytes, and what was said beside it. */
const printOf = (read: unknown): unknown => (read as { print?: unknown } | undefined)?.print;

function versionIn(header: string | undefined): number | undefined {
  const match = /^(?:W\/)?"v(\d+)"$/.exec(header ?? '');
  return match ? Number(match[1]) : undefined;
}

const escape = (key: PropertyKey) => String(key).replaceAll('~', '~0').replaceAll('/', '~1');

/** A body whose shape hangs on the address, checked like any other. */
export const parsedBody = <T>(schema: z.ZodType<T>, body: unknown): T => check(schema, body, '');

/** @throws 400 for what is no JSON, 422 for what is not of the shape that the route asks for */
export function readDocument<B>(
  route: Pick<Route<unknown, unknown, B, unknown>, 'body'>,
  bytes: Uint8Array,
): B {
  let body: unknown;
  try {
    body = JSON.parse(new TextDecoder().decode(bytes));
  } catch {
    throw new HttpProblem(400, 'This is not JSON.');
  }
  const strange = unkeepable(body);
  if (strange.length > 0) throw invalid(strange);
  return check(route.body, body, '');
}

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

export { sendProblem };
