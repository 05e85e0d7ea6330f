/** A series slot by slot: what fills it, what it would cost, how rare it is, whether it can be bought new. */
import type { ReferenceIndex, Row } from '@jutbank/core/bench';
import { VENUE_OF_SHOP } from '@jutbank/core/market';
import { money, type Money } from '@jutbank/core/money';
import {
  completionOf,
  fills,
  hardestFirst,
  slotsOf,
  standingOf,
  type MoneyRange,
  type Rarity,
  type SeriesSlot,
  type SlotStanding,
  type SlotWish,
} from '@jutbank/core/series';
import type { SeriesDetail, SeriesSlotAnswer, SeriesSummary } from '@jutbank/contract/series';
import type { AvailabilityOn } from '@jutbank/core/reference';
import { todayIso } from '../clock/index.ts';
import type { Queries } from '../db/index.ts';
import { estimateIn, type MarketOnDay, type Markets } from '../market/index.ts';
import { availabilityToday, scarcityOfVariants, type Library } from '../reference/index.ts';
import { piecesOfForms, wishesOf, type PieceInSeries, type StoredSeries } from './queries.ts';

export interface Follows {
  readonly database: Queries;
  readonly library: Library;
  readonly markets: Markets;
}

export interface StoodSeries {
  readonly series: StoredSeries;
  readonly standings: readonly SlotStanding[];
  /** by piece */
  readonly pieces: ReadonlyMap<string, PieceInSeries>;
}

const featuresOf = (slots: readonly SeriesSlot[]): string[] => [
  ...new Set(slots.flatMap((slot) => slot.value?.feature ?? [])),
];

/** The slots of a rule, by the reference as it is and the year of today. */
export const slotsIn = (index: ReferenceIndex, rule: StoredSeries['rule']): SeriesSlot[] =>
  slotsOf(
    rule,
    { variants: index.rows.map((row) => row.variant), features: index.contents.features },
    Number(todayIso().slice(0, 4)),
  );

/** How some series stand, in three queries however many they are. */
export async function standingsOf(
  db: Queries,
  index: ReferenceIndex,
  all: readonly StoredSeries[],
): Promise<StoodSeries[]> {
  const asked = all.map((series) => ({ series, slots: slotsIn(index, series.rule) }));
  const slots = asked.flatMap((a) => a.slots);
  const [wishes, pieces] = await Promise.all([
    wishesOf(
      db,
      all.map((series) => series.id),
    ),
    piecesOfForms(db, [...new Set(slots.flatMap((slot) => slot.variants))], featuresOf(slots)),
  ]);
  const byId = new Map(pieces.map((piece) => [piece.piece, piece]));
  return asked.map(({ series, slots: own }) => ({
    series,
    standings: standingOf(
      own,
      series.contactId === null ? pieces : boughtBy(pieces, series.contactId),
      wishes.get(series.id) ?? NO_WISHES,
      series.upgradeBelow,
    ),
    pieces: byId,
  }));
}
const NO_WISHES: ReadonlyMap<string, SlotWish> = new Map();

/** What a customer has of the shop: what was sold to them, which is sold no more. */
const boughtBy = (pieces: readonly PieceInSeries[], contact: string): PieceInSeries[] =>
  pieces.filter((piece) => piece.sold && piece.buyer === contact).map((piece) => ({ ...piece, sold: false }));

export function summaryOf({ series, standings }: StoodSeries): SeriesSummary {
  const counted = standings.filter((s) => s.state !== 'skipped');
  return {
    ...series,
    filled: counted.filter((s) => s.state !== 'missing').length,
    of: counted.length,
    doubles: counted.reduce((sum, s) => sum + s.doubles.length, 0),
  };
}

export async function detailOf(
  { database, library, markets }: Follows,
  series: StoredSeries,
): Promise<SeriesDetail> {
  const index = await library.index();
  const on = await markets.on(todayIso());
  const [stood] = await standingsOf(database, index, [series]);
  if (!stood) throw new Error('no standing was made');
  const { standings, pieces } = stood;
  const rows = standings.flatMap(({ slot }) => slot.variants.flatMap((id) => index.variants.get(id) ?? []));
  const ids = rows.map((row) => row.variant.id);
  const [prices, scarcity, availability] = await Promise.all([
    pricesOf(on, index, standings, series.upgradeBelow),
    scarcityOfVariants(database, index, rows),
    availabilityToday(database, ids),
  ]);
  const rarities = new Map(standings.map(({ slot }) => [slot.key, rarityOf(slot, scarcity)]));
  const shown = (piece: string) => {
    const found = pieces.get(piece);
    if (!found) throw new Error(`no piece ${piece} among those of the series`);
    return found.shown;
  };
  const stock = [...pieces.values()].filter((piece) => !piece.sold);
  const slots = standings.map((standing): SeriesSlotAnswer => {
    const { slot, best, doubles, sold, state, wish } = standing;
    const open = series.contactId !== null && (state === 'missing' || state === 'upgrade');
    const today = slot.variants.length === 1 ? availability.get(slot.variants[0] ?? '') : undefined;
    return {
      key: slot.key,
      name: slot.name,
      variants: [...slot.variants],
      pattern: index.variants.get(slot.variants[0] ?? '')?.pattern.id ?? '',
      window: slot.window ?? null,
      kind: slot.kind,
      edition: slot.edition ?? null,
      made: slot.made ?? null,
      state,
      best: best ? shown(best.piece) : null,
      doubles: doubles.map(({ holding, why }) => ({ piece: shown(holding.piece), why: [...why] })),
      sold: sold.map((holding) => shown(holding.piece)),
      offers: open
        ? stock
            .filter((p) => fills(slot, p) && goodEnough(p, standing, series.upgradeBelow))
            .map((p) => p.shown)
        : [],
      wish: wish ?? null,
      price: prices.get(slot.key) ?? null,
      rarity: rarities.get(slot.key) ?? NEVER_SEEN,
      availability: today ? saidOf(today) : null,
    };
  });
  return {
    ...summaryOf(stood),
    slots,
    completion: completionOf(standings, (key) => prices.get(key), on.base),
    hardest: hardestFirst(standings, (key) => rarities.get(key)).map(({ slot }) => slot.key),
  };
}

const saidOf = ({ note: { state, on, source }, gone }: AvailabilityOn) => ({ state, on, source, gone });

const NEVER_SEEN: Rarity = { left: null, seen: { count: 0, years: 0 } };

/** Whether a piece would do for a slot: one that was not inspected may. */
export function goodEnough(
  { conditionIndex }: { readonly conditionIndex: number | null },
  { wish, best }: Pick<SlotStanding, 'wish' | 'best'>,
  upgradeBelow: number | null,
): boolean {
  if (conditionIndex === null) return true;
  const least = wish?.leastIndex ?? upgradeBelow ?? 0;
  return conditionIndex >= least && conditionIndex > (best?.conditionIndex ?? -1);
}

/** A slot that several forms fill is as rare as all of them together. */
function rarityOf(slot: SeriesSlot, scarcity: Awaited<ReturnType<typeof scarcityOfVariants>>): Rarity {
  const parts = slot.variants.flatMap((id) => scarcity.get(id) ?? []);
  const known = parts.flatMap((part) => part.left ?? []);
  const sum = (of: (part: (typeof known)[number]) => number) => known.reduce((n, part) => n + of(part), 0);
  return {
    left:
      known.length > 0 && known.length === parts.length
        ? { low: sum((p) => p.low), likely: sum((p) => p.likely), high: sum((p) => p.high) }
        : null,
    seen: {
      count: parts.reduce((n, part) => n + part.seen.count, 0),
      years: Math.max(0, ...parts.map((part) => part.seen.years)),
    },
  };
}

/** Of each slot: the worth of the best example here, else of one as it is wanted. */
async function pricesOf(
  on: MarketOnDay,
  index: ReferenceIndex,
  standings: readonly SlotStanding[],
  upgradeBelow: number | null,
): Promise<Map<string, MoneyRange>> {
  const prices = new Map<string, MoneyRange>();
  for (const { slot, best, wish, state } of standings) {
    if (state === 'skipped' || state === 'elsewhere') continue;
    const rows = (best ? [best.variant] : slot.variants).flatMap((id): Row[] => {
      const row = index.variants.get(id);
      return row ? [row] : [];
    });
    const [first] = rows;
    if (!first) continue;
    // a market prices one pattern at a time: of a slot that several fill, the first
    const ofPattern = rows.filter((row) => row.pattern === first.pattern);
    const estimate = await estimateIn(
      on,
      {
        pattern: first.pattern.id,
        variants: ofPattern.map((row) => ({ variant: row.variant.id, probability: 1 / ofPattern.length })),
        conditionIndex: (best ? best.conditionIndex : (wish?.leastIndex ?? upgradeBelow)) ?? undefined,
        box: undefined,
        papers: undefined,
        sheath: undefined,
        alterations: [],
      },
      VENUE_OF_SHOP,
    );
    if (!estimate.supported) continue;
    const at = (amount: number): Money => money(amount, on.base);
    prices.set(slot.key, { low: at(estimate.low), likely: at(estimate.estimate), high: at(estimate.high) });
  }
  return prices;
}
