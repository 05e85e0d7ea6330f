/** What was started is stopped in turn, whether somebody ends it, something gives up, or it cannot even begin. */
import { CannotRun } from './supervise.mjs';

/** @type {(() => Promise<void>)[]} what is to be done at the end, the last first */
export const undo = [];
let stopping = false;

/** @param {number} code */
export async function stop(code) {
  if (stopping) return;
  stopping = true;
  for (const step of undo.reverse()) await step().catch(() => undefined);
  process.exit(code);
}
process.on('SIGINT', () => void stop(0));
process.on('SIGTERM', () => void stop(0));

/** @param {string} reason */
export const over = (reason) => {
  process.stderr.write(`\n${reason}\n`);
  void stop(1);
};

/**
 * For whatever fails before it ran: what runs already is stopped too.
 * @param {unknown} error
 * @returns {Promise<never>}
 */
export async function notEvenOnce(error) {
  if (!(error instanceof CannotRun)) throw error;
  process.stderr.write(`\n${error.message}\n`);
  await stop(1);
  // stopped by somebody else meanwhile
  return new Promise(() => undefined);
}
