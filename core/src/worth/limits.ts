/** Limits worked back from what is left: the lowest price that is enough, the most to pay (formats.md, Money routes). */
import { Decimal } from 'decimal.js';
import { minorDigits, NO_TAX, taxIn, taxShare, type SaleTax } from '../money/index.ts';
import { netOf, type Channel } from './net.ts';

type Maybe<T> = T | null | undefined;

/** What is wanted of the difference between net and cost; without one, that it is not below zero. */
export type Target =
  { readonly marginPct: number } | { readonly markUpPct: number } | { readonly profit: string };

/** Whether what is left is enough. Margin: profit as a share of net; mark-up: as a share of cost. */
export function reaches(net: Decimal, cost: Decimal, target: Maybe<Target>): boolean {
  const profit = net.minus(cost);
  if (target == null) return !profit.isNegative() || profit.isZero();
  if ('marginPct' in target) return profit.times(100).gte(net.times(target.marginPct));
  if ('markUpPct' in target) return profit.times(100).gte(cost.times(target.markUpPct));
  return profit.gte(target.profit);
}

/** The net from which on a cost is covered with its target. */
function neededNet(cost: Decimal, target: Maybe<Target>): Decimal {
  if (target == null) return cost;
  if ('marginPct' in target) return cost.div(new Decimal(1).minus(new Decimal(target.marginPct).div(100)));
  if ('markUpPct' in target) return cost.times(new Decimal(1).plus(new Decimal(target.markUpPct).div(100)));
  return cost.plus(target.profit);
}

/** What is left of a price after the channel and the tax that it holds; `paid` is what the goods themselves cost. */
export function leftOf(
  currency: string,
  channel: Channel,
  price: string,
  tax: SaleTax,
  paid: string,
): { readonly net: string; readonly tax: string; readonly left: string } {
  const { net } = netOf(currency, channel, price);
  const due = taxIn(currency, tax, new Decimal(price), new Decimal(paid));
  const digits = minorDigits(currency);
  return { net, tax: due.toFixed(digits), left: new Decimal(net).minus(due).toFixed(digits) };
}

/** Rounding of commission, payment fee, two taxes and insurance moves what is left by no more than this, in minor units. */
const ROUNDING = 5;
/** Where fees eat almost all of every further cent, so many prices are tried. */
const MOST_TRIED = 40_000;

/**
 * The lowest price of which enough is left: exact to the minor unit, though each fee is rounded by itself and the net of
 * a price one cent higher may be a cent lower. Undefined when no price is enough.
 * @param sold how the price is taxed and what was paid for the goods; untaxed where it is not told
 * @returns the price, and what is left of it after fees and tax
 */
export function breakEven(
  currency: string,
  channel: Channel,
  cost: string,
  target?: Maybe<Target>,
  sold: { readonly tax: SaleTax; readonly paid: string } = { tax: NO_TAX, paid: '0' },
): { ask: string; net: string } | undefined {
  const digits = minorDigits(currency);
  const unit = new Decimal(10).pow(-digits);
  const costs = new Decimal(cost);
  const needed = neededNet(costs, target);
  let tried = 0;
  for (const stretch of taxed(stretchesOf(channel), sold.tax, new Decimal(sold.paid))) {
    const near = needed.minus(unit.times(ROUNDING));
    const at = (p: Decimal) => stretch.slope.times(p).plus(stretch.constant);
    let from = stretch.from;
    if (at(from).lt(near)) {
      if (stretch.slope.lte(0)) continue;
      from = near.minus(stretch.constant).div(stretch.slope);
    }
    const sure = needed.plus(unit.times(ROUNDING));
    for (
      let p = from.div(unit).floor().times(unit);
      p.lte(stretch.to.plus(unit)) && tried < MOST_TRIED;
      p = p.plus(unit), tried++
    ) {
      if (p.isNegative()) continue;
      const ask = p.toFixed(digits);
      const { left } = leftOf(currency, channel, ask, sold.tax, sold.paid);
      if (reaches(new Decimal(left), costs, target)) return { ask, net: left };
      if (at(p).lt(near) && stretch.slope.lte(0)) break;
      if (at(p).gt(sure) && stretch.slope.gt(0)) break;
    }
  }
  return undefined;
}

interface Stretch {
  readonly from: Decimal;
  readonly to: Decimal;
  /** unrounded net = slope × price + constant */
  readonly slope: Decimal;
  readonly constant: Decimal;
}

/** The net before rounding, a straight line between the prices at which the commission's minimum and maximum begin. */
function stretchesOf(channel: Channel): Stretch[] {
  const number = (x: Maybe<string | number>) => new Decimal(x ?? 0);
  const commission = number(channel.commissionPct).div(100);
  const payment = number(channel.paymentPct).div(100);
  const taxed = new Decimal(1).plus(number(channel.taxOnFeesPct).div(100));
  const insurance = number(channel.insurancePct).div(100);
  const postage = number(channel.postageCharged);
  const onPostage = channel.commissionOn === 'price-and-postage' ? postage : new Decimal(0);
  const endless = new Decimal('1e15');
  const priceWhere = (fee: Maybe<string>, none: Decimal) =>
    fee == null
      ? none
      : commission.isZero()
        ? endless
        : Decimal.max(0, new Decimal(fee).div(commission).minus(onPostage));
  const minimum = priceWhere(channel.commissionMin, new Decimal(0));
  const maximum = priceWhere(channel.commissionMax, endless);
  const fixed = (fee: Decimal, slope: Decimal, from: Decimal, to: Decimal): Stretch => ({
    from,
    to,
    slope: new Decimal(1).minus(taxed.times(slope.plus(payment))).minus(insurance),
    constant: postage
      .minus(
        taxed.times(
          fee.plus(payment.times(postage)).plus(number(channel.fixedFee)).plus(number(channel.paymentFixed)),
        ),
      )
      .minus(number(channel.postageCost))
      .minus(number(channel.packing)),
  });
  const none = new Decimal(0);
  const low = Decimal.min(minimum, maximum);
  return [
    // the maximum is applied last: where it lies below the minimum it is what holds
    fixed(
      Decimal.min(number(channel.commissionMin), number(channel.commissionMax ?? channel.commissionMin)),
      none,
      none,
      low,
    ),
    fixed(commission.times(onPostage), commission, low, Decimal.max(low, maximum)),
    fixed(number(channel.commissionMax), none, Decimal.max(low, maximum), endless),
  ].filter((s) => s.from.lt(s.to));
}

/** The same stretches after tax; one on the margin begins where the price passes what was paid. */
function taxed(stretches: readonly Stretch[], tax: SaleTax, paid: Decimal): Stretch[] {
  if (tax.on === 'none') return [...stretches];
  const share = taxShare(tax);
  const from = tax.on === 'margin' ? paid : new Decimal(0);
  return stretches
    .flatMap((s): Stretch[] => [
      { ...s, to: Decimal.min(s.to, from) },
      {
        from: Decimal.max(s.from, from),
        to: s.to,
        slope: s.slope.minus(share),
        constant: s.constant.plus(share.times(from)),
      },
    ])
    .filter((s) => s.from.lt(s.to));
}

export interface Buying {
  readonly premiumPct?: Maybe<number>;
  readonly premiumMin?: Maybe<string>;
  readonly taxOnPremiumPct?: Maybe<number>;
  readonly taxOnHammerPct?: Maybe<number>;
  readonly otherCosts?: Maybe<string>;
  /** bids are whole steps of this; one minor unit when it is not told */
  readonly increment?: Maybe<string>;
}

export interface Bought {
  readonly premium: Decimal;
  readonly taxOnPremium: Decimal;
  readonly taxOnHammer: Decimal;
  readonly otherCosts: Decimal;
  readonly cost: Decimal;
}

/** What a hammer price costs in all; each line is rounded by itself, halves away from zero. */
export function costOf(currency: string, buying: Buying, bid: Decimal): Bought {
  const digits = minorDigits(currency);
  const percent = (x: Decimal, pct: Maybe<number>) =>
    x
      .times(pct ?? 0)
      .div(100)
      .toDecimalPlaces(digits, Decimal.ROUND_HALF_UP);
  const premium = Decimal.max(percent(bid, buying.premiumPct), new Decimal(buying.premiumMin ?? 0));
  const taxOnPremium = percent(premium, buying.taxOnPremiumPct);
  const taxOnHammer = percent(bid, buying.taxOnHammerPct);
  const otherCosts = new Decimal(buying.otherCosts ?? 0);
  return {
    premium,
    taxOnPremium,
    taxOnHammer,
    otherCosts,
    cost: bid.plus(premium).plus(taxOnPremium).plus(taxOnHammer).plus(otherCosts),
  };
}

export interface MostToPay {
  readonly currency: string;
  readonly net: string;
  readonly bid: string | null;
  readonly cost: string | null;
  readonly steps: readonly { readonly name: string; readonly amount: string }[];
}

/**
 * The highest bid that still leaves the target of what `price` brings through the channel. Tax on the margin falls as
 * more is bid; what counts as paid for the goods is the hammer price with its premium.
 */
export function mostToPay(
  currency: string,
  buying: Buying,
  channel: Channel,
  price: string,
  target?: Maybe<Target>,
  tax: SaleTax = NO_TAX,
): MostToPay {
  const digits = minorDigits(currency);
  const text = (x: Decimal) => x.toFixed(digits);
  const sold = netOf(currency, channel, price);
  const net = new Decimal(sold.net);
  const increment = new Decimal(buying.increment ?? new Decimal(10).pow(-digits));
  const taxOf = (bid: Decimal, bought: Bought) =>
    taxIn(currency, tax, new Decimal(price), bid.plus(bought.premium));
  const enough = (steps: Decimal) => {
    const bid = increment.times(steps);
    const bought = costOf(currency, buying, bid);
    return reaches(net.minus(taxOf(bid, bought)), bought.cost, target);
  };
  const steps = [
    { name: 'sold for', amount: text(new Decimal(price)) },
    { name: 'fees and postage of the channel', amount: text(net.minus(price)) },
    { name: 'left of the sale', amount: sold.net },
  ];
  if (!enough(new Decimal(1))) return { currency, net: sold.net, bid: null, cost: null, steps };
  let [low, high] = [new Decimal(1), Decimal.max(2, net.div(increment).ceil().plus(2))];
  while (high.minus(low).gt(1)) {
    const middle = low.plus(high).div(2).floor();
    if (enough(middle)) low = middle;
    else high = middle;
  }
  const bid = increment.times(low);
  const bought = costOf(currency, buying, bid);
  const due = taxOf(bid, bought);
  const minus = (name: string, x: Decimal) => (x.isZero() ? [] : [{ name, amount: text(x.negated()) }]);
  return {
    currency,
    net: sold.net,
    bid: text(bid),
    cost: text(bought.cost),
    steps: [
      ...steps,
      ...minus(tax.on === 'margin' ? 'tax on the margin' : 'tax on the sale', due),
      { name: 'kept as profit', amount: text(bought.cost.minus(net.minus(due))) },
      { name: 'may cost in all', amount: text(bought.cost) },
      ...minus('other costs', bought.otherCosts),
      ...minus('tax on the hammer price', bought.taxOnHammer),
      ...minus('tax on the premium', bought.taxOnPremium),
      ...minus('buyer’s premium', bought.premium),
      { name: 'most to bid', amount: text(bid) },
    ],
  };
}
