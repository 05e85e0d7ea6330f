/** One price by hand, in seconds: what was said last stays for the next one. */
import { marketRoutes } from '@jutbank/contract/market';
import { useRef } from 'react';
import { PRICE_KINDS, VENUE_KINDS } from '@jutbank/core/market';
import type { Vocabulary } from '@jutbank/contract/reference';
import { useKeptAnswers } from '../base/answers.ts';
import { Select } from '../parts/fields/choices.tsx';
import { Submit } from '../parts/fields/Submit.tsx';
import { TextInput } from '../parts/fields/TextInput.tsx';
import { useContractForm } from '../parts/fields/useContractForm.ts';
import { useSession } from '../base/session.ts';
import { usePattern } from '../reference/vocabulary.ts';
import { sentence } from '../parts/words.ts';

/** Cells as they are typed: what each must be is for the server to say, in the words of a list that is imported. */
const EMPTY = {
  sale_date: '',
  price: '',
  currency: '',
  price_kind: 'sold',
  venue: '',
  venue_kind: 'auction',
  pattern: '',
  variant: '',
  condition_index: '',
};
type Cells = typeof EMPTY;

export function AddByHand({ vocabulary }: { vocabulary: Vocabulary | undefined }) {
  const { shop } = useSession();
  const answers = useKeptAnswers();
  const price = useRef<HTMLInputElement>(null);
  const form = useContractForm(marketRoutes.addComparable, {
    empty: { ...EMPTY, currency: shop.baseCurrency },
    toBody: (cells: Cells) => Object.fromEntries(Object.entries(cells).filter(([, v]) => v.trim() !== '')),
    onSent: () => {
      form.reset({ ...form.values, price: '', condition_index: '' });
      price.current?.focus();
      void answers.invalidate(marketRoutes.listComparables);
    },
  });
  const variants = usePattern(form.values.pattern || undefined).data?.variants ?? [];
  const choice = (
    key: keyof Cells,
    label: string,
    options: readonly { readonly id: string; readonly name: string }[],
    none?: string,
  ) => (
    <Select
      label={label}
      {...form.field(key)}
      none={none}
      disabled={options.length === 0}
      options={options.map((o) => ({ value: o.id, label: o.name }))}
      onChange={(value) => {
        if (key === 'pattern') form.set('variant', '');
        form.set(key, value ?? '');
      }}
    />
  );
  const words = (list: readonly string[]) => list.map((id) => ({ id, name: sentence(id) }));
  return (
    <form className="askbox" style={{ margin: 0 }} noValidate onSubmit={form.onSubmit}>
      <h2 className="sec">Write down a price</h2>
      <div className="fields across">
        <TextInput label="Date" autoFocus placeholder="2026-11-25" {...form.field('sale_date')} />
        <TextInput label="Price" inputMode="decimal" inputRef={price} {...form.field('price')} />
        <TextInput label="Currency" {...form.field('currency')} />
        {choice('price_kind', 'Kind', words(PRICE_KINDS))}
        {choice('pattern', 'Pattern', vocabulary?.patterns ?? [])}
        {choice('variant', 'Form', variants, 'Not told')}
        {choice('venue_kind', 'Venue', words(VENUE_KINDS))}
        <TextInput label="House or fair" {...form.field('venue')} />
        <TextInput label="Index 0–100" inputMode="decimal" {...form.field('condition_index')} />
      </div>
      <div style={{ marginTop: 10 }}>
        <Submit form={form} words="Add" said={() => 'Added; the next one may follow.'} />
      </div>
    </form>
  );
}
