/** How every route of Jutbank is described: once, here, for the server's checks, the client and OpenAPI. */
import { z } from 'zod';
import { isAmount, isCurrency, minorDigits } from '@jutbank/core/money';
import { parsePeriod } from '@jutbank/core/dates';

export type Access = 'public' | 'read' | 'work' | 'appraise' | 'own';
export type Method = 'get' | 'post' | 'put' | 'patch' | 'delete';

/** What of a shop's business may be nobody's but its own. */
export const SECRETS = ['costs', 'floors', 'margins', 'buyers'] as const;
export type Secret = (typeof SECRETS)[number];

/** Of a route: its params, query, body and answer as they are read, and the body as it is sent. */
export interface Route<P = unknown, Q = unknown, B = unknown, A = unknown, I = unknown> {
  readonly method: Method;
  /** in Express notation, below /api/v1 */
  readonly path: string;
  readonly summary: string;
  readonly room: string;
  readonly access: Access;
  readonly params: z.ZodType<P>;
  readonly query: z.ZodType<Q>;
  readonly body: z.ZodType<B, I>;
  readonly answer: z.ZodType<A>;
  readonly status: number;
  /** bytes of JSON accepted; more is 413 */
  readonly bodyLimit: number;
  /** not JSON: multipart upload or a file as answer */
  readonly carries: 'json' | 'upload' | 'file';
  /** what it tells that readers see only where the owner has opened it to them */
  readonly hides: readonly Secret[];
  /** nothing of the request is kept, not even a hash: it holds a password */
  readonly secret: boolean;
}

const NOTHING = z.object({}).loose();
export const DEFAULT_BODY_LIMIT = 1 << 20;

type RouteInput<P, Q, B, A, I> = Pick<
  Route<P, Q, B, A, I>,
  'method' | 'path' | 'summary' | 'room' | 'access'
> &
  Partial<Route<P, Q, B, A, I>>;

export function route<P = unknown, Q = unknown, B = unknown, A = unknown, I = unknown>(
  input: RouteInput<P, Q, B, A, I>,
): Route<P, Q, B, A, I> {
  return {
    params: NOTHING as unknown as z.ZodType<P>,
    query: NOTHING as unknown as z.ZodType<Q>,
    body: NOTHING as unknown as z.ZodType<B, I>,
    answer: z.unknown() as unknown as z.ZodType<A>,
    status: 200,
    bodyLimit: DEFAULT_BODY_LIMIT,
    carries: 'json',
    secret: false,
    hides: [],
    ...input,
  };
}

/** The answer of a route, with words for whoever reads the description of the routes. */
export const answers = <S extends z.ZodType>(schema: S, description: string): S =>
  schema.meta({ description });

/** An amount as it is answered: decimal text, never a float. */
export const moneyShape = z
  .object({ amount: z.string().regex(/^-?\d+(\.\d+)?$/), currency: z.string().length(3) })
  .meta({ id: 'Money' });

/** Names of what can go wrong, for programs: by the status where there is nothing more to tell apart. They never change. */
export const PROBLEM_CODES = {
  400: 'unreadable',
  401: 'signed-out',
  403: 'forbidden',
  404: 'not-found',
  409: 'conflict',
  412: 'changed-meanwhile',
  413: 'too-large',
  415: 'unsupported-type',
  422: 'invalid',
  428: 'version-missing',
  429: 'too-many-attempts',
  500: 'fault',
  502: 'service-away',
  503: 'not-ready',
  507: 'disk-full',
} as const;
export type ProblemStatus = keyof typeof PROBLEM_CODES;
/** Kinds that share their status with others. */
export const SPECIAL_CODES = ['busy', 'database-away', 'second-factor'] as const;
export const problemShape = z
  .object({
    type: z.string(),
    title: z.string(),
    status: z.number().int(),
    code: z.enum([...Object.values(PROBLEM_CODES), ...SPECIAL_CODES]),
    detail: z.string().exactOptional(),
    errors: z.array(z.object({ pointer: z.string(), message: z.string() })).exactOptional(),
  })
  .meta({ id: 'Problem' });
export type Problem = z.infer<typeof problemShape>;

export interface Page<T> {
  items: T[];
  nextCursor: string | null;
  total: number;
}
/** What readers are told only where the owner has opened it: null to them. */
export const withheld = <S extends z.ZodType>(schema: S) => schema.nullable();

/** A page of anything. */
export const pageShape = <S extends z.ZodType>(item: S) =>
  z.object({ items: z.array(item), nextCursor: z.string().nullable(), total: z.number().int() });
export const pageQuery = z.object({
  limit: z.coerce.number().int().min(1).max(200).default(50),
  cursor: z.string().max(400).optional(),
});

export const slug = z
  .string()
  .regex(/^[a-z0-9](?:[a-z0-9-]{0,78}[a-z0-9])?$/, 'an id is made of a–z, 0–9 and -, at most 80 characters');

/** Server-made ids. */
export const ulid = z.string().regex(/^[0-9A-HJKMNP-TV-Z]{26}$/, 'this is not an id');
export const byId = z.object({ id: ulid });

export const edtf = z
  .string()
  .max(120)
  .superRefine((text, context) => {
    const parsed = parsePeriod(text);
    if (!parsed.ok) context.addIssue({ code: 'custom', message: parsed.error.message });
  });

export const currency = z.string().refine(isCurrency, {
  error: (issue) => `“${String(issue.input)}” is not a currency; use three letters such as EUR`,
});

/** Twelve digits: sums of many amounts must still have room where they are kept. */
export const amount = z
  .string()
  .max(40, 'write an amount like 182.50')
  .refine(isAmount, 'write an amount like 182.50')
  .refine(
    (text) => !isAmount(text) || /^-?\d{1,12}(?:\.|$)/.test(text),
    'this is more than anything here can cost',
  );
export const moneySchema = z.object({ amount, currency }).superRefine((money, context) => {
  if (!isCurrency(money.currency) || !isAmount(money.amount)) return;
  const decimals = money.amount.split('.')[1]?.length ?? 0;
  if (decimals > minorDigits(money.currency))
    context.addIssue({
      code: 'custom',
      path: ['amount'],
      message: `${money.currency} has ${minorDigits(money.currency)} decimals`,
    });
});
export const positiveMoney = moneySchema.refine((m) => !(Number(m.amount) < 0), {
  path: ['amount'],
  error: 'must not be below 0',
});

export const text = (most: number) => z.string().trim().max(most, `at most ${most} characters`);
export const required = (most: number, message = 'please fill this in') => text(most).min(1, message);
