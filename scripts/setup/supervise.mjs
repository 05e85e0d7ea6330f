/** Keeps something running: what ends is started again, after a wait that grows, until it fails too often. */
import { say } from './say.mjs';

/** It cannot run as things are: the message says what to do, and trying again would not help. */
export class CannotRun extends Error {}

const FIRST_WAIT_MS = 500;
const LONGEST_WAIT_MS = 15_000;
const MOST_FAILURES = 8;
/** Whatever was up so long had started well: what ends it then is the first failure. */
const WELL_AFTER_MS = 2000;

/** @param {number} ms */
const wait = (ms) => new Promise((resolve) => setTimeout(resolve, ms));

/**
 * @typedef {{ gone: Promise<unknown>, stop(): Promise<void> }} Running
 */

/**
 * @template {Running} T
 * @param {string} name as it is said to people: “the database”
 * @param {(again: boolean) => Promise<T>} start @throws CannotRun
 * @param {(reason: string) => void} onGiveUp
 * @returns {Promise<{ current(): T, stop(): Promise<void> }>}
 */
export async function keepRunning(name, start, onGiveUp) {
  let running = await start(false);
  let stopping = false;
  let failures = 0;
  const watch = async () => {
    for (;;) {
      const began = Date.now();
      const how = await running.gone;
      if (stopping) return;
      if (Date.now() - began > WELL_AFTER_MS) failures = 0;
      for (;;) {
        failures++;
        if (failures > MOST_FAILURES) {
          onGiveUp(`${name} ended ${MOST_FAILURES} times in a row (${String(how)}).`);
          return;
        }
        const pause = Math.min(LONGEST_WAIT_MS, FIRST_WAIT_MS * 2 ** (failures - 1));
        say(`${name} ended (${String(how)}); starting it again in ${(pause / 1000).toFixed(1)} s`);
        await wait(pause);
        if (stopping) return;
        try {
          running = await start(true);
          say(`${name} is back`);
          break;
        } catch (error) {
          if (error instanceof CannotRun && failures >= 3) {
            onGiveUp(`${name} cannot be started again: ${error.message}`);
            return;
          }
          if (!(error instanceof Error)) throw error;
          say(`${name} did not start: ${error.message}`);
        }
      }
    }
  };
  const watching = watch();
  return {
    current: () => running,
    stop: async () => {
      stopping = true;
      await running.stop();
      await Promise.race([watching, wait(1000)]);
    },
  };
}
