/** Anything thrown anywhere below, told without a stack trace: what happened, and whether it may have been done. */
import {
  Busy,
  DISK_FULL,
  errorNumber,
  STATEMENT_TIMED_OUT,
  STOOD_IN_THE_WAY,
  VALUE_REFUSED,
} from '../db/index.ts';
import { HttpProblem } from './problem.ts';

/** What drivers and sockets say when the other side is gone. */
const AWAY = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ENOENT',
  'ENOTFOUND',
  'EHOSTUNREACH',
  'ETIMEDOUT',
  'PROTOCOL_CONNECTION_LOST',
  'ER_SERVER_SHUTDOWN',
  'ER_CONNECTION_KILLED',
  'POOL_CLOSED',
]);

export const databaseAway = (): HttpProblem =>
  new HttpProblem(
    503,
    'The database does not answer just now. What was being saved may or may not be saved: it is safe to send the same again.',
    undefined,
    'database-away',
  );
export const diskFull = (): HttpProblem =>
  new HttpProblem(
    507,
    'The disk is full: nothing more can be saved until there is room. What is there can still be read.',
    undefined,
    'disk-full',
  );

export function problemOf(error: unknown): HttpProblem {
  if (error instanceof HttpProblem) return error;
  if (error instanceof Busy)
    return new HttpProblem(
      503,
      'Too much is going on at once. Nothing was begun: try again in a moment.',
      undefined,
      'busy',
    );
  const known = error as {
    type?: string;
    status?: number;
    code?: string;
    syscall?: string;
    fatal?: boolean;
    message?: string;
  };
  const errno = errorNumber(error);
  if (known.code === 'ENOSPC' || known.code === 'EDQUOT' || (errno !== undefined && DISK_FULL.has(errno)))
    return diskFull();
  if (errno !== undefined && VALUE_REFUSED.has(errno))
    return new HttpProblem(422, 'One of these values cannot be kept as it is.');
  if (errno !== undefined && STOOD_IN_THE_WAY.has(errno))
    return new HttpProblem(
      503,
      'Others were changing the same for too long. Nothing was changed: try again in a moment.',
      undefined,
      'busy',
    );
  if (errno === STATEMENT_TIMED_OUT)
    return new HttpProblem(
      503,
      'The database took too long over this. Try again in a moment.',
      undefined,
      'busy',
    );
  if (
    known.fatal === true ||
    (known.code !== undefined && AWAY.has(known.code) && known.syscall !== 'open') ||
    /closed state|Pool is closed/.test(known.message ?? '')
  )
    return databaseAway();
  if (known.type === 'entity.too.large' || known.code === 'LIMIT_FILE_SIZE')
    return new HttpProblem(413, 'This is larger than what is accepted here.');
  if (known.type === 'entity.parse.failed') return new HttpProblem(400, 'This is not JSON.');
  if (known.type === 'encoding.unsupported' || known.type === 'charset.unsupported')
    return new HttpProblem(415);
  if (known.code?.startsWith('LIMIT_'))
    return new HttpProblem(422, 'The upload has parts that are not expected.');
  if (typeof known.status === 'number' && known.status >= 400 && known.status < 500)
    return new HttpProblem(known.status);
  return new HttpProblem(
    500,
    'The fault is noted in the log. What was being saved may or may not be saved: look before you send it again.',
  );
}
