/**
 * Signing in. Wrong passwords are counted by account and address together, so that nobody is locked out by others behind
 * the same address, and by account alone; past either count a wrong one is told to wait, and tries stand in one line
 * with a pause between them. A right password is let in whatever others tried before.
 */
import { HttpProblem } from '../http/index.ts';
import type { Database } from '../db/index.ts';
import { DatabaseCounters } from './attempts.ts';
import { DUMMY_HASH, verifyPassword } from './password.ts';
import { credentialsByEmail, type Credentials } from './queries.ts';
import { stepOf } from './secondFactor.ts';

const WINDOW_MS = 15 * 60_000;
const OF_A_PAIR = 10;
const OF_AN_ACCOUNT = 40;
const PAUSE_MS = 1000;
/** More than that stand in no line: they are told to come later. */
const LONGEST_LINE = 20;

const tooMany = () => new HttpProblem(429, 'Too many attempts to sign in. Wait a quarter of an hour.');

export interface Told {
  readonly email: string;
  readonly password: string;
  readonly code?: string | null | undefined;
}

export class SignIn {
  readonly #counters: DatabaseCounters;
  readonly #lines = new Map<string, { length: number; last: Promise<unknown> }>();

  constructor(
    readonly database: Database,
    readonly pauseMs = PAUSE_MS,
  ) {
    this.#counters = new DatabaseCounters(database, WINDOW_MS, 'sign-in ');
  }

  /** @throws 401 for what does not fit, with `second-factor` where a code is missing; 429 past the limits */
  async check(told: Told, address: string): Promise<Credentials & { step: number | null }> {
    const account = told.email.trim().toLowerCase().slice(0, 120);
    const pair = `${account} ${address.slice(0, 45)}`;
    const past = async () =>
      (await this.#counters.hits(pair)) >= OF_A_PAIR || (await this.#counters.hits(account)) >= OF_AN_ACCOUNT;
    const late = await past();
    const found = late ? await this.#inLine(account, () => this.#verified(told)) : await this.#verified(told);
    if (!found) {
      await this.#counters.increment(pair);
      await this.#counters.increment(account);
      if (late) throw tooMany();
      throw new HttpProblem(401, 'E-mail and password do not match.');
    }
    const step = this.#stepOf(found, told.code);
    if (step === undefined) {
      await this.#counters.increment(pair);
      if (late) throw tooMany();
      throw new HttpProblem(
        401,
        'This code is not right, or it was used before. Take the next one.',
        undefined,
        'second-factor',
      );
    }
    await this.#counters.resetKey(pair);
    return { ...found, step };
  }

  async #verified({ email, password }: Told): Promise<Credentials | undefined> {
    const found = await credentialsByEmail(this.database, email);
    const right = await verifyPassword(password, found?.passwordHash ?? (await DUMMY_HASH));
    return right ? found : undefined;
  }

  /** @returns null where no code is asked for, undefined for a wrong one */
  #stepOf({ secret, lastStep }: Credentials, code: string | null | undefined): number | null | undefined {
    if (secret === null) return null;
    if (code == null || code.trim() === '')
      throw new HttpProblem(
        401,
        'Tell the code that your authenticator shows.',
        [{ pointer: '/code', message: 'the six digits of your authenticator' }],
        'second-factor',
      );
    return stepOf(secret, code, lastStep);
  }

  /** One at a time for an account, with a pause after each. */
  async #inLine<T>(account: string, work: () => Promise<T>): Promise<T> {
    const line = this.#lines.get(account) ?? { length: 0, last: Promise.resolve() };
    if (line.length >= LONGEST_LINE) throw tooMany();
    line.length++;
    this.#lines.set(account, line);
    const turn = line.last.then(work);
    line.last = turn
      .catch(() => undefined)
      .then(() => new Promise((resolve) => setTimeout(resolve, this.pauseMs)))
      .then(() => {
        line.length--;
        if (line.length === 0) this.#lines.delete(account);
      });
    return turn;
  }
}
