/** Plain words about what the scripts are doing, and a clean way to give up. */

/** @param {string} text */
export const say = (text) => process.stdout.write(`· ${text}\n`);

/**
 * Ends with a message that says what to do.
 * @param {string} text
 * @returns {never}
 */
export function giveUp(text) {
  process.stderr.write(`\n${text}\n`);
  process.exit(1);
}
