/** Habits of buying and selling: what is wanted of a piece, tax, sealed pieces, the plain percentages. */
import { CARE, type Care } from '@jutbank/core/worth';
import type { PricingSettings } from '@jutbank/contract/shop';
import { TAX_BASES } from '@jutbank/core/money';
import { chosen, optionsOf, Select } from '../parts/fields/index.ts';
import { Figure, Group, type FigureOf, type SettingsProps } from './settingsFields.tsx';

const BUYING = {
  premiumPct: ['Buyer’s premium', '%', 'number'],
  premiumMin: ['Premium at least', '', 'amount'],
  taxOnPremiumPct: ['Tax on the premium', '%', 'number'],
  taxOnHammerPct: ['Tax on the hammer price', '%', 'number'],
  otherCosts: ['Way and postage', '', 'amount'],
  increment: ['Bids in steps of', '', 'amount'],
} satisfies Record<string, FigureOf>;
const SEALED = {
  premiumPct: ['A seal brings', '% more', 'number'],
  faultPct: ['Flawed inside', 'in 100', 'number'],
  lossPct: ['A flaw takes', '%', 'number'],
} satisfies Record<string, FigureOf>;
const FIXED = {
  perPoint: ['A point of the index', '%', 'number'],
  box: ['Its box', '%', 'number'],
  papers: ['Papers', '%', 'number'],
  altered: ['An alteration', '%', 'number'],
} satisfies Record<string, FigureOf>;
const keysOf = <T extends object>(figures: T) => Object.keys(figures) as (keyof T)[];

export function Buying({ form, may, currency }: SettingsProps) {
  return (
    <Group title="Buying" small="what comes on top of a bid">
      {keysOf(BUYING).map((key) => (
        <Figure
          key={key}
          of={BUYING[key]}
          bound={form.field(`buying.${key}`)}
          may={may}
          currency={currency}
        />
      ))}
    </Group>
  );
}

const CARE_WORDS: Record<Care, string> = {
  careful: 'careful: one in four brings less',
  even: 'even: the middle',
  bold: 'bold: three in five bring less',
};
const CARES = Object.keys(CARE) as Care[];

/** What must be left of a piece, said in one of three ways; each begins with a figure of its own. */
const TARGETS = {
  marginPct: {
    words: 'margin: share of what is left',
    begin: { marginPct: 30 },
    of: ['At least', '%', 'number'],
  },
  markUpPct: {
    words: 'mark-up: share of the cost',
    begin: { markUpPct: 40 },
    of: ['At least', '%', 'number'],
  },
  profit: { words: 'sum', begin: { profit: '20.00' }, of: ['At least', '', 'amount'] },
} as const;
type Target = keyof typeof TARGETS;
/** Nothing typed is no figure, which the contract refuses in words. */
function targetOf(kind: Target, value: number | string | null): PricingSettings['target'] {
  if (kind === 'profit') return { profit: String(value ?? '') };
  const percent = typeof value === 'number' ? value : NaN;
  return kind === 'marginPct' ? { marginPct: percent } : { markUpPct: percent };
}

export function Wanted({ form, may, currency }: SettingsProps) {
  const { target } = form.values;
  const kind: Target = 'marginPct' in target ? 'marginPct' : 'markUpPct' in target ? 'markUpPct' : 'profit';
  const bound = form.field('target');
  return (
    <Group title="Wanted" small="what must be left, and how boldly it is counted on">
      <Select
        label="As a"
        value={kind}
        disabled={!may}
        options={optionsOf(keysOf(TARGETS), (k) => TARGETS[k].words)}
        onChange={(next) => next !== null && form.set('target', TARGETS[next].begin)}
      />
      <Figure
        key={kind}
        of={TARGETS[kind].of}
        bound={{
          value: new Map<string, unknown>(Object.entries(target)).get(kind),
          problem: bound.problem,
          onChange: (value: number | string | null, understood?: boolean) =>
            bound.onChange(targetOf(kind, value), understood),
        }}
        may={may}
        currency={currency}
      />
      <Select
        label="Counted on"
        disabled={!may}
        options={optionsOf(CARES, (c) => CARE_WORDS[c])}
        {...chosen(form.field('care'))}
      />
      <Figure
        of={['Keeping a piece', 'a month', 'amount']}
        bound={form.field('holdingPerMonth')}
        may={may}
        currency={currency}
      />
    </Group>
  );
}

const TAX_WORDS = {
  none: 'no tax in the price',
  sales: 'on the whole sale',
  margin: 'on the margin only',
} satisfies Record<(typeof TAX_BASES)[number], string>;

export function Tax({ form, may, currency }: SettingsProps) {
  return (
    <Group title="Tax" small="held in the price; which of the two you may use is for your tax adviser to say">
      <Select
        label="Falls"
        disabled={!may}
        options={optionsOf(TAX_BASES, (on) => TAX_WORDS[on])}
        {...chosen(form.field('tax.on'))}
      />
      {form.values.tax.on !== 'none' && (
        <Figure of={['Rate', '%', 'number']} bound={form.field('tax.pct')} may={may} currency={currency} />
      )}
    </Group>
  );
}

export function Sealed({ form, may, currency }: SettingsProps) {
  return (
    <Group title="Sealed pieces" small="keep sealed or open">
      {keysOf(SEALED).map((key) => (
        <Figure
          key={key}
          of={SEALED[key]}
          bound={form.field(`sealed.${key}`)}
          may={may}
          currency={currency}
        />
      ))}
    </Group>
  );
}

export function Fixed({ form, may, currency }: SettingsProps) {
  return (
    <Group title="By fixed percentages" small="the plain way that stands beside the estimate">
      {keysOf(FIXED).map((key) => (
        <Figure key={key} of={FIXED[key]} bound={form.field(`fixed.${key}`)} may={may} currency={currency} />
      ))}
    </Group>
  );
}
