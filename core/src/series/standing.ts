/** How a series stands: what is owned, double, sold, wanted and wanted better, and how far it is from whole. */
import { Decimal } from 'decimal.js';
import type { Tier } from '../bench/index.ts';
import { money, type Money } from '../money/index.ts';
import type { FeatureReading, Range } from '../reference/index.ts';
import { yearOf, type SeriesSlot } from './rule.ts';

/** A piece that may fill a slot. */
export interface Holding {
  readonly piece: string;
  /** what it was decided to be */
  readonly variant: string;
  readonly tier: Tier;
  /** EDTF: when it was made, as its sheet says */
  readonly made: string | null;
  /** of the features that some slot asks for: what was seen */
  readonly seen: Readonly<Record<string, FeatureReading>>;
  readonly sold: boolean;
  /** condition index 0–100; null where it was not inspected */
  readonly conditionIndex: number | null;
  readonly worth: Money | null;
  /** days in stock */
  readonly days: number;
}

export const SLOT_WISHES = ['want', 'have', 'skip'] as const;
/** What somebody said of a slot: it is wanted, they have one that is not in the shop, or they do not care for it. */
export interface SlotWish {
  readonly wish: (typeof SLOT_WISHES)[number];
  readonly atMost: Money | null;
  /** condition index that it must have at least */
  readonly leastIndex: number | null;
}

export type SlotState = 'owned' | 'upgrade' | 'elsewhere' | 'missing' | 'skipped';

/** Why one of several is the one to sell; the strongest first. */
export type WhySell =
  | { readonly why: 'worse'; readonly by: number }
  | { readonly why: 'not-inspected' }
  | { readonly why: 'less-sure' }
  | { readonly why: 'dearer'; readonly worth: Money }
  | { readonly why: 'longer'; readonly days: number };

export interface Double {
  readonly holding: Holding;
  readonly why: readonly WhySell[];
}

export interface SlotStanding {
  readonly slot: SeriesSlot;
  readonly state: SlotState;
  /** the best example here */
  readonly best: Holding | undefined;
  /** the rest, the one to sell first at the head */
  readonly doubles: readonly Double[];
  readonly sold: readonly Holding[];
  readonly wish: SlotWish | undefined;
}

/** A piece whose form was refuted, or on which nothing was seen, fills nothing. */
const FILLS: ReadonlySet<Tier> = new Set(['confirmed', 'probable', 'type-consistent']);
const SURENESS: readonly Tier[] = ['type-consistent', 'probable', 'confirmed'];

/** Whether a piece is one of those that a slot asks for. */
export function fills(slot: SeriesSlot, piece: Pick<Holding, 'variant' | 'tier' | 'made' | 'seen'>): boolean {
  if (!FILLS.has(piece.tier) || !slot.variants.includes(piece.variant)) return false;
  if (slot.year !== undefined && slot.variants.length > 0 && !isOfYear(slot, piece)) return false;
  const asked = slot.value;
  return (
    asked === undefined ||
    piece.seen[asked.feature] === undefined ||
    piece.seen[asked.feature] === asked.value
  );
}
/** A form of one year is of that year whatever its other signs allow; any other needs to be dated to it. */
function isOfYear(slot: SeriesSlot, piece: Pick<Holding, 'variant' | 'made'>): boolean {
  return slot.edition?.index != null || yearOf(piece.made) === slot.year;
}

/** @param upgradeBelow condition index below which the best example is to be replaced; a slot's own wish goes first */
export function standingOf(
  slots: readonly SeriesSlot[],
  holdings: readonly Holding[],
  wishes: ReadonlyMap<string, SlotWish>,
  upgradeBelow: number | null,
): SlotStanding[] {
  const taken = new Set<string>();
  return slots.map((slot): SlotStanding => {
    // one piece stands in one slot: where two ask for it, in the first
    const those = holdings.filter((h) => !taken.has(h.piece) && fills(slot, h));
    for (const { piece } of those) taken.add(piece);
    const here = those.filter((h) => !h.sold).sort(better);
    const [best, ...rest] = here;
    const wish = wishes.get(slot.key);
    const least = wish?.leastIndex ?? upgradeBelow;
    const state = (): SlotState => {
      if (wish?.wish === 'skip') return 'skipped';
      // what nobody inspected may be good enough
      if (best)
        return least !== null && best.conditionIndex !== null && best.conditionIndex < least
          ? 'upgrade'
          : 'owned';
      return wish?.wish === 'have' ? 'elsewhere' : 'missing';
    };
    return {
      slot,
      state: state(),
      best,
      doubles: best ? rest.map((holding) => ({ holding, why: whySell(holding, best) })).reverse() : [],
      sold: those.filter((h) => h.sold),
      wish,
    };
  });
}

/** The best to keep first: by condition, then by how sure it is, then what stood shorter, so that the older goes. */
const better = (a: Holding, b: Holding): number =>
  (b.conditionIndex ?? -1) - (a.conditionIndex ?? -1) ||
  SURENESS.indexOf(b.tier) - SURENESS.indexOf(a.tier) ||
  a.days - b.days ||
  a.piece.localeCompare(b.piece);

/** Points of the condition index that are seen with the eye. */
const SEEN_APART = 1;

function whySell(piece: Holding, kept: Holding): WhySell[] {
  const why: WhySell[] = [];
  if (piece.conditionIndex === null) why.push({ why: 'not-inspected' });
  else if (kept.conditionIndex !== null && kept.conditionIndex - piece.conditionIndex >= SEEN_APART)
    why.push({ why: 'worse', by: kept.conditionIndex - piece.conditionIndex });
  if (SURENESS.indexOf(piece.tier) < SURENESS.indexOf(kept.tier)) why.push({ why: 'less-sure' });
  if (piece.worth && kept.worth?.currency === piece.worth.currency)
    if (new Decimal(piece.worth.amount).gt(kept.worth.amount))
      why.push({ why: 'dearer', worth: piece.worth });
  if (piece.days > kept.days) why.push({ why: 'longer', days: piece.days });
  return why;
}

export interface MoneyRange {
  readonly low: Money;
  readonly likely: Money;
  readonly high: Money;
}
export interface Completion {
  readonly filled: number;
  readonly of: number;
  /** worth of the best examples here; slots filled elsewhere are in neither sum */
  readonly owned: MoneyRange;
  /** what is missing would cost so much */
  readonly missing: MoneyRange;
  /** share 0–1 of the money; null where there is no price for anything */
  readonly share: { readonly low: number; readonly likely: number; readonly high: number } | null;
  /** slots, owned or missing, that nobody can price: they are in no sum */
  readonly unpriced: number;
}

/**
 * Completion in number and in money. The ends of the ranges are added as they are, as if everything were cheap or
 * everything dear at once: what moves one collector's prices moves them together.
 * @param priceOf by slot: of the best example where one is here, else of one as it is wanted
 */
export function completionOf(
  standings: readonly SlotStanding[],
  priceOf: (key: string) => MoneyRange | undefined,
  currency: string,
): Completion {
  const nothing = money(0, currency);
  const sum = { owned: zero(nothing), missing: zero(nothing) };
  let filled = 0;
  let of = 0;
  let unpriced = 0;
  for (const { slot, state } of standings) {
    if (state === 'skipped') continue;
    of += 1;
    if (state !== 'missing') filled += 1;
    if (state === 'elsewhere') continue;
    const price = priceOf(slot.key);
    if (!price) unpriced += 1;
    else if (state === 'missing') sum.missing = added(sum.missing, price);
    else sum.owned = added(sum.owned, price);
  }
  const share = (owned: Money, missing: Money) => {
    const all = new Decimal(owned.amount).plus(missing.amount);
    return all.isZero() ? null : new Decimal(owned.amount).div(all).toNumber();
  };
  const likely = share(sum.owned.likely, sum.missing.likely);
  return {
    filled,
    of,
    ...sum,
    share:
      likely === null
        ? null
        : {
            low: share(sum.owned.low, sum.missing.high) ?? likely,
            likely,
            high: share(sum.owned.high, sum.missing.low) ?? likely,
          },
    unpriced,
  };
}
const zero = (nothing: Money): MoneyRange => ({ low: nothing, likely: nothing, high: nothing });
const added = (a: MoneyRange, b: MoneyRange): MoneyRange => {
  const plus = (x: Money, y: Money) => money(new Decimal(x.amount).plus(y.amount), x.currency);
  return { low: plus(a.low, b.low), likely: plus(a.likely, b.likely), high: plus(a.high, b.high) };
};

/** How hard a slot is to fill: how many are left so far as that can be told, and how often one was seen for sale. */
export interface Rarity {
  readonly left: Range | null;
  readonly seen: { readonly count: number; readonly years: number };
}

/** Missing slots, the hardest to get first: fewer sales a year go before, fewer left where sales are alike. */
export function hardestFirst(
  standings: readonly SlotStanding[],
  rarityOf: (key: string) => Rarity | undefined,
): SlotStanding[] {
  const rank = ({ slot }: SlotStanding) => {
    const rarity = rarityOf(slot.key);
    const rate = rarity && rarity.seen.years > 0 ? rarity.seen.count / rarity.seen.years : 0;
    return { rate, left: rarity?.left?.likely ?? Infinity };
  };
  return standings
    .filter((s) => s.state === 'missing')
    .map((s) => ({ s, ...rank(s) }))
    .sort((a, b) => a.rate - b.rate || (a.left === b.left ? 0 : a.left - b.left))
    .map(({ s }) => s);
}
