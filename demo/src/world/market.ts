/** Nine years of invented sales and rates. */
import { SCALES } from '@jutbank/core/condition';
import { COMPARABLE_COLUMNS } from '@jutbank/contract/market';
import { demoPack } from './reference.ts';
import type { Random } from '@jutbank/core/random';
import type { Variant } from '@jutbank/core/reference';

const BASE_PRICE: Record<string, number> = {
  'harbour-jack': 95,
  'orchard-pruner': 60,
  'three-hand-whittler': 120,
  'ferry-pen': 45,
  'drovers-stock': 85,
  'pattern-1-long': 210,
  'pattern-1-short': 170,
  'pattern-3': 120,
  'deck-knife': 260,
  petrel: 150,
  skua: 95,
  'rigger-two': 55,
  'bosun-tool': 75,
  yearly: 200,
  'pike-petrel': 40,
};
const KIND_LOG: Record<string, number> = {
  production: 0,
  service: 0.45,
  'commercial-twin': 0.3,
  exclusive: 0.5,
  limited: 0.75,
  prototype: 1.4,
  reissue: 0.1,
  counterfeit: -0.9,
  reproduction: -0.2,
};
const VENUES = [
  { kind: 'auction', names: ['Tollgate Rooms', 'Mereside Auctions'], log: -0.1 },
  { kind: 'retail', names: ['Lantern Row', 'Cutler’s Stair'], log: 0.12 },
  { kind: 'fair', names: ['Hollin Quay fair', 'Norham blade fair'], log: 0 },
  { kind: 'private', names: ['private'], log: -0.14 },
  { kind: 'online', names: ['Quayside market', 'Bladeboard'], log: -0.03 },
] as const;
const PER_EURO: Record<string, number> = { EUR: 1, GBP: 0.86, SEK: 11.1, USD: 1.09 };

const iso = (date: Date) => date.toISOString().slice(0, 10);

/** Monthly rates that wander a little, for the nine years up to `today`. */
export function demoRates(chance: Random, today: Date): { date: string; currency: string; rate: string }[] {
  const rates: { date: string; currency: string; rate: string }[] = [];
  for (const currency of ['GBP', 'SEK', 'USD']) {
    let drift = 0;
    for (let back = 110; back >= 0; back--) {
      drift = drift * 0.9 + chance.normal() * 0.008;
      const day = new Date(Date.UTC(today.getUTCFullYear(), today.getUTCMonth() - back, 1));
      rates.push({
        date: iso(day),
        currency,
        rate: ((PER_EURO[currency] ?? 1) * Math.exp(drift)).toFixed(4),
      });
    }
  }
  return rates;
}

/** What this shop watches the prices of: the patterns it deals in; the rest of the reference is only for recognising. */
const traded = (demoPack.variants ?? []).filter((v) => v.pattern in BASE_PRICE);

const MODERN = new Set(['petrel', 'skua', 'pike-petrel', 'bosun-tool']);
const ARMS = new Set(['pattern-1-long', 'pattern-1-short', 'pattern-3', 'deck-knife']);

/** The scale on which a price is quoted, by its number in the list, so that nothing else depends on it. */
function scaleQuoted(pattern: string, n: number): 'collector' | 'user' | 'finish' | undefined {
  const turn = n % 10;
  if (turn > 4) return undefined;
  if (turn < (MODERN.has(pattern) ? 3 : 1)) return 'user';
  return ARMS.has(pattern) ? 'finish' : 'collector';
}
const gradeAt = (scale: string, index: number): string =>
  SCALES.find((s) => s.id === scale)?.grades.find((g) => index >= g.from)?.grade ?? '';

/** What one buyer pays differs so much from what the next does, on logs. */
export const TASTES = 0.2;

/** What pieces are worth here, which nobody in the demo knows. */
export class DemoMarket {
  readonly #effect: ReadonlyMap<string, number>;
  constructor(chance: Random) {
    this.#effect = new Map(traded.map((v) => [v.id, chance.normal() * 0.18]));
  }

  readonly traded = traded;

  /** ln of the middle price in euro at a fair, unaltered and without a box. @param yearsAgo prices were lower then */
  middle(v: Variant, index: number, yearsAgo: number): number {
    return (
      Math.log(BASE_PRICE[v.pattern] ?? 80) +
      (KIND_LOG[v.kind] ?? 0) +
      (this.#effect.get(v.id) ?? 0) +
      1.6 * (index / 100 - 0.78) -
      0.035 * yearsAgo
    );
  }
}

/** @returns comparables as CSV, with asking prices, offers and a few gross errors among them */
export function demoComparables(market: DemoMarket, chance: Random, today: Date, count: number): string {
  const weights = traded.map((v) => Math.log(20 + (v.made?.quantity ?? 800)));
  const total = weights.reduce((a, b) => a + b, 0);
  const pickVariant = () => {
    let at = chance.next() * total;
    const index = weights.findIndex((w) => (at -= w) < 0);
    return traded[Math.max(0, index)];
  };
  const lines = [COMPARABLE_COLUMNS.join(',')];
  const all = traded;
  while (lines.length <= count) {
    // every variant was sold at least once; after that by how many there are
    const v = all[lines.length - 1] ?? pickVariant();
    if (!v) continue;
    const back = Math.floor(chance.next() ** 1.4 * 9 * 365) + 5;
    const day = new Date(today.getTime() - back * 86_400_000);
    const venue = chance.pick(VENUES);
    const index = Math.round(Math.min(99, Math.max(35, 78 + chance.normal() * 13)));
    const kind = chance.yes(0.14) ? 'asking' : chance.yes(0.04) ? 'offer' : 'sold';
    const box = chance.yes(0.22) ? 'original' : chance.yes(0.6) ? 'none' : '';
    const altered = chance.yes(0.1)
      ? chance.pick(['polished', 'reground', 'repaired', 'named'] as const)
      : '';
    const currency = chance.pick(['EUR', 'EUR', 'EUR', 'GBP', 'SEK', 'USD'] as const);
    const premium = venue.kind === 'auction' ? (chance.yes(0.8) ? '18' : '') : '0';
    let log = market.middle(v, index, back / 365) + venue.log;
    log += (box === 'original' ? 0.12 : 0) + (altered ? -0.18 : 0) + chance.normal() * TASTES;
    // those who buy to use mind condition less; every third price or so is quoted on a scale
    const scale = scaleQuoted(v.pattern, lines.length);
    if (scale === 'user') log -= 0.06 + 0.9 * (index / 100 - 0.78);
    log += kind === 'asking' ? 0.32 : kind === 'offer' ? -0.3 : 0;
    if (premium === '18') log -= Math.log(1.18);
    if (chance.yes(0.012)) log += chance.pick([1.6, -1.5] as const);
    const price = Math.exp(log) * (PER_EURO[currency] ?? 1);
    const rounded = currency === 'SEK' ? Math.round(price / 5) * 5 : Math.round(price);
    const cells: Record<string, string> = {
      sale_date: chance.yes(0.1) ? iso(day).slice(0, 7) : iso(day),
      price: String(Math.max(5, rounded)),
      currency,
      price_kind: kind,
      venue: chance.pick(venue.names),
      venue_kind: venue.kind,
      pattern: v.pattern,
      variant: chance.yes(0.92) ? v.id : '',
      condition_index: chance.yes(0.85) ? String(index) : '',
      ...(scale === undefined ? {} : { grade_scale: scale, grade: gradeAt(scale, index) }),
      box,
      buyer_premium_pct: premium,
      shipping_included: chance.yes(0.1) ? 'yes' : 'no',
      alterations: altered,
      source: chance.pick(['sale catalogue', 'seen at the fair', 'result list', 'correspondence']),
    };
    lines.push(COMPARABLE_COLUMNS.map((c) => cells[c] ?? '').join(','));
  }
  return lines.join('\n');
}
