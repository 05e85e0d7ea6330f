/** A second factor by time-based codes (RFC 6238), as every authenticator shows them. */
import { Secret, TOTP } from 'otpauth';

const DIGITS = 6;
const PERIOD_S = 30;
/** Clocks differ: one code before and one after are right, too. */
const WINDOW = 1;

const totp = (secret: string, label = '', issuer = '') =>
  new TOTP({
    secret: Secret.fromBase32(secret),
    algorithm: 'SHA1',
    digits: DIGITS,
    period: PERIOD_S,
    label,
    issuer,
  });

export const newSecret = (): string => new Secret({ size: 20 }).base32;
export const addressOf = (secret: string, person: string, shop: string): string =>
  totp(secret, person, shop).toString();

/**
 * @param last the step of the code that was taken last: none counts twice
 * @returns the step of a right code; undefined for a wrong one
 */
export function stepOf(
  secret: string,
  code: string,
  last: number | null,
  now = Date.now(),
): number | undefined {
  const delta = totp(secret).validate({ token: code.trim(), window: WINDOW, timestamp: now });
  if (delta === null) return undefined;
  const step = Math.floor(now / 1000 / PERIOD_S) + delta;
  return last !== null && step <= last ? undefined : step;
}
