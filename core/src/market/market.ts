/** A fitted market made ready to be asked: its columns found again, prices brought to its base. */
import type { Comparable, MarketReference, RateOn } from './comparable.ts';
import { Columns, describeSale, type Described, type Sparse } from './columns.ts';
import { askingVarianceInflation, paidInBase, withoutPostage } from './fit.ts';
import type { FittedMarket } from './fitted.ts';
import { noiseLevels, scaleAt, soundness } from './noise.ts';
import { VALUE_SETTINGS, type ValueSettings } from './settings.ts';
import { studentDensityAt0 } from './studentT.ts';

/** A price as the regression sees it. */
export interface PricedRow {
  readonly sale: Comparable;
  /** base currency at the rate of its day, as written down: premium to be added, postage perhaps inside */
  readonly stated: number;
  /** base currency, all the buyer paid, postage not */
  readonly converted: number;
  readonly x: Sparse;
  /** log of what was paid less what the fit says of it, the variant's own effect included */
  readonly residual: number;
  /** precision of its log */
  readonly weight: number;
  /** of one such price */
  readonly variance: number;
  /** P(no gross error) */
  readonly sound: number;
}

export class Market {
  readonly columns: Columns;
  readonly #variants: ReadonlyMap<string, number>;

  constructor(
    readonly fitted: FittedMarket,
    readonly reference: MarketReference,
    readonly rateOn: RateOn,
    readonly settings: ValueSettings = VALUE_SETTINGS,
  ) {
    this.columns = Columns.from(fitted.plan, reference, settings);
    this.#variants = new Map(fitted.plan.variants.map((id, v) => [id, v]));
  }

  describe(of: Described): Sparse {
    return this.columns.describe(of);
  }

  variantNumber(id: string | undefined): number | undefined {
    return id === undefined ? undefined : this.#variants.get(id);
  }

  /** What the columns say, the variant's own effect left out. */
  withoutVariant(x: Sparse): number {
    return x.columns.reduce((sum, j, n) => sum + (x.values[n] ?? 0) * (this.fitted.theta[j] ?? 0), x.beyond);
  }

  /** Scale of the noise of one price so described. */
  scale(of: Described, sale?: Pick<Comparable, 'conditionBy' | 'shippingIncluded'>): number {
    return scaleAt(this.fitted.noise, noiseLevels({ ...sale, ...of }, this.reference));
  }

  /** Undefined where there is no rate for its day. */
  price(sale: Comparable): PricedRow | undefined {
    const paid = paidInBase(sale, this.rateOn);
    if (paid === undefined) return undefined;
    const { settings, fitted } = this;
    const converted = withoutPostage(paid, sale.shippingIncluded, fitted.postage);
    const described = describeSale(sale);
    const x = this.describe(described);
    const effect = x.variant < 0 ? 0 : (fitted.effect[x.variant] ?? 0);
    const residual = Math.log(converted) - this.withoutVariant(x) - effect;
    const r2 = residual ** 2;
    const s2 = this.scale(described, sale) ** 2;
    const crowd = askingVarianceInflation(sale, fitted.asked, fitted.noise, settings);
    const nu = fitted.noise.df;
    const sound = soundness(r2, s2, fitted.noise, studentDensityAt0(nu), settings);
    const stated = paid / (1 + (sale.buyerPremiumPct ?? 0) / 100);
    return {
      sale,
      stated,
      converted,
      x,
      residual,
      variance: s2,
      sound,
      weight: (sound * (nu + 1)) / (nu + r2 / s2) / (s2 * crowd),
    };
  }
}
