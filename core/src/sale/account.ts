/** What a sale comes to: the invoice, what was given back since, what is left, and what goes to whoever owned the piece. */
import { Decimal } from 'decimal.js';
import { minorDigits, taxIn, taxShare, type SaleTax } from '../money/index.ts';

/** Amounts are decimal strings in the currency of the sale. */
export interface SoldFor {
  readonly currency: string;
  readonly price: string;
  /** postage that the buyer pays beside the price */
  readonly postage: string;
  /** of the channel, postage and packing paid by the shop among them */
  readonly fees: string;
  readonly tax: SaleTax;
  /** what the goods themselves cost, for a tax on the margin */
  readonly paid: string;
  /** all that was spent on the piece; null where nobody knows */
  readonly cost: string | null;
}
export interface Credit {
  readonly refund: string;
  /** fees that the channel gave back */
  readonly feesBack: string;
  /** the piece came back; otherwise money alone was given back and the sale stands */
  readonly pieceBack: boolean;
}
export interface SaleAccount {
  /** price and postage less everything given back */
  readonly revenue: string;
  readonly fees: string;
  readonly tax: string;
  readonly left: string;
  /** null while the piece is with the shop again, or where the cost is unknown */
  readonly cost: string | null;
  /** what the sale gained or lost; null where the cost of what was sold is unknown */
  readonly result: string | null;
  readonly returned: boolean;
}

/**
 * The account of a sale after its credits. A refund is taken from the price first, from the postage after it. Tax follows
 * the price that is left; once the piece is back, what was kept of the price is no margin over goods any more, so nothing
 * is set against it. Which tax a shop owes is for its tax adviser to say.
 */
export function accountOf(sold: SoldFor, credits: readonly Credit[]): SaleAccount {
  const digits = minorDigits(sold.currency);
  const text = (x: Decimal) => x.toFixed(digits);
  const sum = (of: (credit: Credit) => string) =>
    credits.reduce((total, credit) => total.plus(of(credit)), new Decimal(0));
  const refunded = sum((credit) => credit.refund);
  const returned = credits.some((credit) => credit.pieceBack);
  const price = Decimal.max(0, new Decimal(sold.price).minus(refunded));
  const revenue = new Decimal(sold.price).plus(sold.postage).minus(refunded);
  const fees = new Decimal(sold.fees).minus(sum((credit) => credit.feesBack));
  const tax = taxIn(sold.currency, sold.tax, price, returned ? new Decimal(0) : new Decimal(sold.paid));
  const left = revenue.minus(fees).minus(tax);
  const cost = returned ? null : sold.cost;
  const result = returned ? left : cost === null ? null : left.minus(cost);
  return {
    revenue: text(revenue),
    fees: text(fees),
    tax: text(tax),
    left: text(left),
    cost,
    result: result === null ? null : text(result),
    returned,
  };
}

/** By how much a further credit changes the tax of a sale: never more than nothing. */
export function taxOfCredit(sold: SoldFor, before: readonly Credit[], credit: Credit): string {
  const [was, is] = [accountOf(sold, before), accountOf(sold, [...before, credit])];
  return new Decimal(is.tax).minus(was.tax).toFixed(minorDigits(sold.currency));
}

/** What may still be given back of a sale: price and postage less what was. */
export function refundable(
  sold: Pick<SoldFor, 'currency' | 'price' | 'postage'>,
  credits: readonly Credit[],
): string {
  const back = credits.reduce((total, credit) => total.plus(credit.refund), new Decimal(0));
  return new Decimal(sold.price).plus(sold.postage).minus(back).toFixed(minorDigits(sold.currency));
}

export interface InvoiceLine {
  readonly label: string;
  readonly amount: string;
}
/** A sum as it stands on an invoice or, negative, on a credit note. */
export interface TaxLine {
  readonly scheme: SaleTax['on'];
  readonly pct: number;
  /** without and of the tax; null under a scheme on the margin, where the tax is not shown, and where there is none */
  readonly net: string | null;
  readonly tax: string | null;
}

/** The tax line of a sum by the scheme of the sale; the tax is inside the price, postage carries none here. */
export function taxLine(currency: string, tax: SaleTax, price: string, total: string): TaxLine {
  if (tax.on !== 'sales') return { scheme: tax.on, pct: tax.pct, net: null, tax: null };
  const digits = minorDigits(currency);
  const inside = new Decimal(price).times(taxShare(tax)).toDecimalPlaces(digits, Decimal.ROUND_HALF_UP);
  return {
    scheme: tax.on,
    pct: tax.pct,
    net: new Decimal(total).minus(inside).toFixed(digits),
    tax: inside.toFixed(digits),
  };
}

/** What was agreed with the owner of a piece that is sold for them. */
export interface ConsignmentTerms {
  /** percent of the price that the shop keeps */
  readonly sharePct: number;
  /** kept beside the share, whatever the price */
  readonly fee: string | null;
  /** the least the share comes to */
  readonly least: string | null;
  /** who bears what the channel takes */
  readonly channelFeesBy: 'shop' | 'owner';
}
export interface Settlement {
  readonly price: string;
  readonly share: string;
  readonly fee: string;
  readonly channelFees: string;
  /** what the owner is paid; never below nothing */
  readonly payout: string;
}

/** The owner's part of a price. @param channelFees what the channel took of it */
export function settlementOf(
  currency: string,
  price: string,
  channelFees: string,
  terms: ConsignmentTerms,
): Settlement {
  const digits = minorDigits(currency);
  const round = (x: Decimal.Value) => new Decimal(x).toDecimalPlaces(digits, Decimal.ROUND_HALF_UP);
  const share = Decimal.max(
    round(new Decimal(price).times(terms.sharePct).div(100)),
    round(terms.least ?? 0),
  );
  const fee = round(terms.fee ?? 0);
  const borne = terms.channelFeesBy === 'owner' ? round(channelFees) : round(0);
  const payout = Decimal.max(0, new Decimal(price).minus(share).minus(fee).minus(borne));
  const text = (x: Decimal) => x.toFixed(digits);
  return {
    price: text(round(price)),
    share: text(share),
    fee: text(fee),
    channelFees: text(borne),
    payout: text(payout),
  };
}

/** How far a sale has been paid. @param payments in the currency of the sale; a refund that was paid out is negative */
export function paidState(
  currency: string,
  due: string,
  payments: readonly string[],
): { readonly paid: string; readonly open: string; readonly state: 'open' | 'part' | 'paid' | 'over' } {
  const digits = minorDigits(currency);
  const paid = payments.reduce((total, payment) => total.plus(payment), new Decimal(0));
  const open = new Decimal(due).minus(paid);
  return {
    paid: paid.toFixed(digits),
    open: open.toFixed(digits),
    state: open.isZero() ? 'paid' : open.isNegative() ? 'over' : paid.isZero() ? 'open' : 'part',
  };
}
