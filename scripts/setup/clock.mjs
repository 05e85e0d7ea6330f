/**
 * A clock that can be set, for filling in a past that was lived through the public routes: loaded before a program
 * (`node --import`), it moves what that program takes for now by the milliseconds in the file JUTBANK_CLOCK names. The
 * shop's own server never runs under it.
 */
import { readFileSync } from 'node:fs';
import { performance } from 'node:perf_hooks';

const file = process.env.JUTBANK_CLOCK ?? '';
const Real = Date;
const READ_EVERY_MS = 10;
let moved = 0;
let readAt = -Infinity;

function now() {
  if (performance.now() - readAt > READ_EVERY_MS) {
    moved = Number(readFileSync(file, 'utf8'));
    readAt = performance.now();
  }
  return Real.now() + moved;
}

globalThis.Date = /** @type {DateConstructor} */ (
  /** @type {unknown} */ (
    class extends Real {
      /** @param {[] | ConstructorParameters<DateConstructor>} told */
      constructor(...told) {
        if (told.length === 0) super(now());
        else super(...told);
      }
      /** @override */
      static now() {
        return now();
      }
    }
  )
);
