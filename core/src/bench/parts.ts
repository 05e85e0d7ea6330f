/**
 * A part of a piece: the variant's own, or exchanged for a donor's (engines.md, Identification).
 */
import type { SwapClass } from '../reference/index.ts';
import type { ReferenceIndex } from './compile.ts';

export interface PartWeight {
  readonly part: string;
  readonly swap: SwapClass;
  /** changed by a re-work that a stamp on the piece tells of: what differs is history, not an exchange */
  readonly reworked: boolean;
  /** chance that the part is no longer the variant's own: per row where a re-work changed it, else for all alike */
  readonly exchange: Float64Array | number;
  readonly signs: readonly number[];
  /** per row: ΠL of the part's observations as the variant's own */
  readonly whole: Float64Array;
  /** per group: the mean of that over plausible donors */
  readonly donors: Float64Array;
  /** what just any piece would show */
  readonly background: number;
}

export const exchangeOf = (part: PartWeight, r: number): number =>
  typeof part.exchange === 'number' ? part.exchange : (part.exchange[r] ?? 0);
/** The part as the variant's own, (1−s)·ΠL. */
export const ownOf = (part: PartWeight, r: number): number =>
  (1 - exchangeOf(part, r)) * (part.whole[r] ?? 0);
/** The part as a donor's, s·D. */
export const donorOf = (index: ReferenceIndex, part: PartWeight, r: number): number =>
  exchangeOf(part, r) * (part.donors[index.groupOf[r] ?? 0] ?? 0);
