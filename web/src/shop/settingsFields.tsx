/** The fields of the pricing settings: figures in percent or in money, and groups of them. */
import type { ReactNode } from 'react';
import type { PricingSettings } from '@jutbank/contract/shop';
import { AmountInput, NumberInput, type ContractForm } from '../parts/fields/index.ts';

export interface SettingsProps {
  readonly form: ContractForm<PricingSettings>;
  readonly may: boolean;
  readonly currency: string;
}

export function Group({ title, small, children }: { title: string; small: string; children: ReactNode }) {
  return (
    <section>
      <h2 className="sec">
        {title} <small>{small}</small>
      </h2>
      <div className="fields across">{children}</div>
    </section>
  );
}

/** What a figure is: percent or the like, with its unit, or an amount in the shop's currency. */
export type FigureOf = readonly [label: string, unit: string, as: 'number' | 'amount'];
interface Bound {
  readonly value: unknown;
  readonly problem: string | undefined;
  readonly onChange: (value: never, understood?: boolean) => void;
}

export function Figure({
  of: [label, unit, as],
  bound,
  may,
  currency,
}: {
  of: FigureOf;
  bound: Bound;
  may: boolean;
  currency: string;
}) {
  const put = bound.onChange as (value: number | string | null, understood?: boolean) => void;
  if (as === 'amount')
    return (
      <AmountInput
        label={label}
        currency={unit === '' ? currency : `${currency} ${unit}`}
        value={typeof bound.value === 'string' ? bound.value : null}
        problem={bound.problem}
        disabled={!may}
        onChange={put}
      />
    );
  return (
    <NumberInput
      label={label}
      unit={unit}
      value={typeof bound.value === 'number' ? bound.value : null}
      problem={bound.problem}
      disabled={!may}
      onChange={put}
    />
  );
}
