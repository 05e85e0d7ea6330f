/** The numbers for the different ends: what each is, of which day, and what it assumes. */
import { type Estimate, mixtureQuantile } from '../market/index.ts';

export const BASES = ['market', 'retail-ask', 'insurance-replacement', 'quick-sale'] as const;
export type Basis = (typeof BASES)[number];

export const BASIS_DEFINITIONS: Readonly<Record<Basis, string>> = {
  market: 'What it would most likely bring between a willing buyer and a willing seller, neither pressed.',
  'retail-ask': 'What a shop would ask that can wait for its buyer.',
  'insurance-replacement': 'What finding an equal one from a dealer within reasonable time could cost.',
  'quick-sale': 'What the trade would pay at once.',
};

export interface BasisOfValue {
  readonly basis: Basis;
  /** base currency */
  readonly amount: number;
  readonly definition: string;
  readonly assumptions: readonly string[];
  /** an appraisal for this purpose may need a licensed appraiser */
  readonly licensed: boolean;
}

/** Points of the estimate in its kind of venue that the bases stand on. */
export const BASIS_SETTINGS = { replacement: 0.75, quick: 0.25, traderMarginPct: 30 } as const;

/**
 * @param market in the kind of venue where such pieces usually change hands
 * @param retail from a dealer, @param trade between dealers
 * @param askRatio the ask that pays best, ÷ estimate
 */
export function basesOfValue(
  market: Estimate,
  retail: Estimate,
  trade: Estimate,
  askRatio: number,
  settings: { replacement: number; quick: number; traderMarginPct: number } = BASIS_SETTINGS,
): BasisOfValue[] {
  const thin = market.thin ? ['few sales of this variant are known; the figure leans on its kin'] : [];
  const at = (estimate: Estimate, share: number) => Math.exp(mixtureQuantile(estimate.byVariant, share));
  return [
    {
      basis: 'market',
      amount: market.estimate,
      definition: BASIS_DEFINITIONS.market,
      assumptions: ['the middle of the estimate, all the buyer pays, postage not', ...thin],
      licensed: false,
    },
    {
      basis: 'retail-ask',
      amount: retail.estimate * askRatio,
      definition: BASIS_DEFINITIONS['retail-ask'],
      assumptions: [
        `${Math.round(askRatio * 100)} % of the estimate from a dealer: the ask that pays best`,
        ...thin,
      ],
      licensed: false,
    },
    {
      basis: 'insurance-replacement',
      amount: at(retail, settings.replacement),
      definition: BASIS_DEFINITIONS['insurance-replacement'],
      assumptions: [
        `the ${Math.round(settings.replacement * 100)} % point of the estimate from a dealer`,
        'equal in condition and completeness',
        ...thin,
      ],
      licensed: true,
    },
    {
      basis: 'quick-sale',
      amount: at(trade, settings.quick) * (1 - settings.traderMarginPct / 100),
      definition: BASIS_DEFINITIONS['quick-sale'],
      assumptions: [
        `the ${Math.round(settings.quick * 100)} % point between private hands, less a margin of ${settings.traderMarginPct} % for the trader`,
        ...thin,
      ],
      licensed: false,
    },
  ];
}
