/** The cost of a lot, spread over its pieces (formats.md, Money routes): exact in the currency's minor unit. */
import { Decimal } from 'decimal.js';
import { fromMinor, minorDigits, toMinor } from '../money/index.ts';
import { fail, succeed, type InputProblem, type Result } from '../result/index.ts';

export const ALLOCATION_METHODS = ['relative-value', 'equal', 'manual'] as const;
export type AllocationMethod = (typeof ALLOCATION_METHODS)[number];

export interface AllocationQuestion {
  readonly currency: string;
  readonly method: AllocationMethod;
  /** credits are below zero */
  readonly costs: readonly string[];
  readonly pieces: readonly { readonly value: string; readonly share?: string | null | undefined }[];
}
export interface Allocation {
  readonly currency: string;
  readonly total: string;
  readonly shares: readonly string[];
}

/** All costs are added first and shared once, by largest remainders, ties to the earlier piece. */
export function allocateLot(question: AllocationQuestion): Result<Allocation, InputProblem> {
  const { currency, method, costs, pieces } = question;
  const digits = minorDigits(currency);
  const tooFine = (text: string) => new Decimal(text).decimalPlaces() > digits;
  const fine = (pointer: string, text: string) =>
    fail({ pointer, message: `${currency} has ${digits} decimals, “${text}” has more` });
  for (const [i, cost] of costs.entries()) if (tooFine(cost)) return fine(`/costs/${i}`, cost);
  for (const [i, piece] of pieces.entries()) {
    if (new Decimal(piece.value).isNegative() && !new Decimal(piece.value).isZero())
      return fail({ pointer: `/pieces/${i}/value`, message: 'a value is not below 0' });
    if (method === 'manual' && piece.share != null && tooFine(piece.share))
      return fine(`/pieces/${i}/share`, piece.share);
  }
  const total = costs.reduce((sum, cost) => sum + toMinor(cost, currency), 0n);
  if (pieces.length === 0 && total !== 0n)
    return fail({ pointer: '/pieces', message: 'there is a cost, and no piece to carry it' });
  const given = pieces.map((p) =>
    method === 'manual' && p.share != null ? toMinor(p.share, currency) : undefined,
  );
  const rest = total - given.reduce((sum: bigint, share) => sum + (share ?? 0n), 0n);
  const open = pieces.flatMap((p, i) => (given[i] === undefined ? [{ i, value: p.value }] : []));
  if (rest !== 0n && (open.length === 0 || rest > 0n !== total > 0n || rest < 0n !== total < 0n))
    return fail({
      pointer: '/shares',
      message: `the given shares and the total of ${fromMinor(total, currency)} do not meet: ${fromMinor(rest, currency)} is left`,
    });
  const weights = method === 'equal' ? open.map(() => 1n) : weightsOf(open.map((p) => p.value));
  const shared = largestRemainders(rest, weights);
  const shares = given.map((share) => share ?? 0n);
  open.forEach((p, k) => {
    shares[p.i] = shared[k] ?? 0n;
  });
  return succeed({
    currency,
    total: fromMinor(total, currency),
    shares: shares.map((share) => fromMinor(share, currency)),
  });
}

/** Decimal values as whole numbers in the same proportion; equal ones where nothing has a value. */
function weightsOf(values: readonly string[]): bigint[] {
  const decimals = values.map((v) => new Decimal(v));
  if (decimals.every((v) => v.isZero())) return values.map(() => 1n);
  const places = Math.max(...decimals.map((v) => v.decimalPlaces()));
  return decimals.map((v) => BigInt(v.times(new Decimal(10).pow(places)).toFixed(0)));
}

function largestRemainders(total: bigint, weights: readonly bigint[]): bigint[] {
  const sum = weights.reduce((a, b) => a + b, 0n);
  if (sum === 0n) return weights.map(() => 0n);
  const sign = total < 0n ? -1n : 1n;
  const whole = total * sign;
  const floors = weights.map((w) => (whole * w) / sum);
  const left = Number(whole - floors.reduce((a, b) => a + b, 0n));
  const byRemainder = weights
    .map((w, i) => ({ i, remainder: (whole * w) % sum }))
    .sort((a, b) => (a.remainder === b.remainder ? a.i - b.i : a.remainder > b.remainder ? -1 : 1));
  for (const { i } of byRemainder.slice(0, left)) floors[i] = (floors[i] ?? 0n) + 1n;
  return floors.map((share) => share * sign);
}
