/** What is left of a price after the channel (formats.md, "Money routes"). */
import { Decimal } from 'decimal.js';
import { minorDigits } from '../money/index.ts';

type Maybe<T> = T | null | undefined;
export interface Channel {
  commissionPct?: Maybe<number>;
  commissionOn?: Maybe<'price' | 'price-and-postage'>;
  commissionMin?: Maybe<string>;
  commissionMax?: Maybe<string>;
  fixedFee?: Maybe<string>;
  paymentPct?: Maybe<number>;
  paymentFixed?: Maybe<string>;
  taxOnFeesPct?: Maybe<number>;
  postageCharged?: Maybe<string>;
  postageCost?: Maybe<string>;
  packing?: Maybe<string>;
  insurancePct?: Maybe<number>;
}

export interface Net {
  gross: string;
  commission: string;
  fixedFee: string;
  paymentFee: string;
  taxOnFees: string;
  postageCost: string;
  packing: string;
  insurance: string;
  net: string;
}

/** Each line is rounded by itself, halves away from zero; tax is taken on the rounded fees. Amounts in `currency`. */
export function netOf(currency: string, channel: Channel, price: string): Net {
  const digits = minorDigits(currency);
  const round = (x: Decimal) => x.toDecimalPlaces(digits, Decimal.ROUND_HALF_UP);
  const amount = (text: Maybe<string>) => round(new Decimal(text ?? 0));
  const percentOf = (x: Decimal, pct: Maybe<number>) => round(x.times(pct ?? 0).div(100));
  const at = new Decimal(price);
  const gross = at.plus(amount(channel.postageCharged));
  let commission = percentOf(
    channel.commissionOn === 'price-and-postage' ? gross : at,
    channel.commissionPct,
  );
  if (channel.commissionMin != null) commission = Decimal.max(commission, amount(channel.commissionMin));
  if (channel.commissionMax != null) commission = Decimal.min(commission, amount(channel.commissionMax));
  const fixedFee = amount(channel.fixedFee);
  const paymentFee = percentOf(gross, channel.paymentPct).plus(amount(channel.paymentFixed));
  const taxOnFees = percentOf(commission.plus(fixedFee).plus(paymentFee), channel.taxOnFeesPct);
  const postageCost = amount(channel.postageCost);
  const packing = amount(channel.packing);
  const insurance = percentOf(at, channel.insurancePct);
  const net = [commission, fixedFee, paymentFee, taxOnFees, postageCost, packing, insurance].reduce(
    (left, fee) => left.minus(fee),
    gross,
  );
  const text = (x: Decimal) => x.toFixed(digits);
  return {
    gross: text(gross),
    commission: text(commission),
    fixedFee: text(fixedFee),
    paymentFee: text(paymentFee),
    taxOnFees: text(taxOnFees),
    postageCost: text(postageCost),
    packing: text(packing),
    insurance: text(insurance),
    net: text(net),
  };
}
