/**
 * A source of daily exchange rates that does not exist: it answers over HTTP like one that does. Every rate follows
 * from its day alone, so that tests and demonstrations repeat; there is none on Saturdays and Sundays.
 */
import { createHash } from 'node:crypto';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import express from 'express';

export interface DailyRate {
  readonly date: string;
  readonly currency: string;
  readonly rate: string;
}

/** Units for one EUR around which the rate wanders, made up. */
const MIDDLE: Readonly<Record<string, number>> = {
  EUR: 1,
  USD: 1.09,
  GBP: 0.86,
  SEK: 11.1,
  NOK: 11.7,
  DKK: 7.46,
  CHF: 0.95,
  JPY: 162,
  CAD: 1.48,
  AUD: 1.65,
};
const DAY_MS = 86_400_000;
const MOST_DAYS = 800;

const wobble = (currency: string, date: string): number =>
  (createHash('sha256').update(`${currency} ${date}`).digest()[0] ?? 0) / 255 - 0.5;

/** Units of a currency for one EUR on a day: a slow wave, and a little of each day's own. */
function inEur(currency: string, date: string): number {
  const middle = MIDDLE[currency] ?? 1;
  if (currency === 'EUR') return 1;
  const days = Date.parse(date) / DAY_MS;
  const phase = currency.charCodeAt(0) + 3 * currency.charCodeAt(1);
  return middle * (1 + 0.025 * Math.sin(days / 97 + phase) + 0.006 * wobble(currency, date));
}

/** Rates for one unit of the base on every working day from one day to another, both included. */
export function ratesBetween(base: string, from: string, to: string): DailyRate[] {
  if (!(base in MIDDLE)) return [];
  const first = Date.parse(from);
  const days = Math.min(MOST_DAYS, Math.floor((Date.parse(to) - first) / DAY_MS) + 1);
  return Array.from({ length: Math.max(0, days) }, (_, i) => new Date(first + i * DAY_MS))
    .filter((day) => day.getUTCDay() % 6 !== 0)
    .flatMap((day) => {
      const date = day.toISOString().slice(0, 10);
      return Object.keys(MIDDLE)
        .filter((currency) => currency !== base)
        .map((currency) => ({
          date,
          currency,
          rate: (inEur(currency, date) / inEur(base, date)).toFixed(4),
        }));
    });
}

/** `GET /rates?base=EUR&from=2026-11-01&to=2026-11-25` → `{ source, base, rates }`. */
export async function startRates(): Promise<{ url: string; close: () => Promise<void> }> {
  const app = express();
  const day = /^\d{4}-\d{2}-\d{2}$/;
  app.get('/rates', (request, response) => {
    const { base, from, to } = request.query;
    if (typeof base !== 'string' || !day.test(String(from)) || !day.test(String(to))) {
      response.status(400).json({ error: 'base, from and to are wanted' });
      return;
    }
    response.json({
      source: 'Harbour Exchange (simulated)',
      base,
      rates: ratesBetween(base, String(from), String(to)),
    });
  });
  const server = createServer(app);
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  return {
    url: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    close: () => new Promise((resolve) => server.close(() => resolve())),
  };
}
