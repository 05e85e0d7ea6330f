/** One price by hand, in seconds: what was said last stays for the next one. */
import { marketRoutes } from '@jutbank/contract/market';
import { Button, MenuItem, TextField } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { PRICE_KINDS, VENUE_KINDS } from '@jutbank/core/market';
import type { Vocabulary } from '@jutbank/contract/reference';
import { useKeptAnswers } from '../base/answers.ts';
import { ApiProblem, send } from '../base/api.ts';
import { useSession } from '../base/session.ts';
import { usePattern } from '../reference/vocabulary.ts';
import { sentence } from '../parts/words.ts';

const EMPTY = {
  sale_date: '',
  price: '',
  price_kind: 'sold',
  venue: '',
  venue_kind: 'auction',
  pattern: '',
  variant: '',
  condition_index: '',
};

export function AddByHand({ vocabulary }: { vocabulary: Vocabulary | undefined }) {
  const { shop } = useSession();
  const answers = useKeptAnswers();
  const price = useRef<HTMLInputElement>(null);
  const [cells, setCells] = useState({ ...EMPTY, currency: shop.baseCurrency });
  const variants = usePattern(cells.pattern === '' ? undefined : cells.pattern).data?.variants ?? [];
  const add = useMutation({
    mutationFn: () =>
      send(marketRoutes.addComparable, {
        body: Object.fromEntries(Object.entries(cells).filter(([, v]) => v.trim() !== '')),
      }),
    onSuccess: () => {
      setCells({ ...cells, price: '', condition_index: '' });
      price.current?.focus();
      void answers.invalidate(marketRoutes.listComparables);
    },
  });
  const problem = add.error instanceof ApiProblem ? add.error : undefined;
  const field = (key: keyof typeof cells, label: string, more: object = {}) => (
    <TextField
      label={label}
      value={cells[key]}
      error={!!problem?.at(`/${key}`)}
      helperText={problem?.at(`/${key}`)}
      onChange={(e) => setCells({ ...cells, [key]: e.target.value })}
      {...more}
    />
  );
  const choice = (
    key: keyof typeof cells,
    label: string,
    options: readonly { readonly id: string; readonly name: string }[],
    none?: string,
  ) => (
    <TextField
      select
      label={label}
      value={options.some((o) => o.id === cells[key]) ? cells[key] : ''}
      error={!!problem?.at(`/${key}`)}
      helperText={problem?.at(`/${key}`)}
      disabled={options.length === 0}
      onChange={(e) =>
        setCells({ ...cells, ...(key === 'pattern' ? { variant: '' } : {}), [key]: e.target.value })
      }
    >
      {none !== undefined && <MenuItem value="">{none}</MenuItem>}
      {options.map((o) => (
        <MenuItem key={o.id} value={o.id}>
          {o.name}
        </MenuItem>
      ))}
    </TextField>
  );
  const words = (list: readonly string[]) => list.map((id) => ({ id, name: sentence(id) }));
  return (
    <form
      className="askbox"
      style={{ margin: 0 }}
      noValidate
      onSubmit={(e) => {
        e.preventDefault();
        add.mutate();
      }}
    >
      <h2 className="sec">Write down a price</h2>
      <div style={{ display: 'grid', gap: 10, gridTemplateColumns: 'repeat(auto-fit, minmax(130px, 1fr))' }}>
        {field('sale_date', 'Date', { autoFocus: true, placeholder: '2026-11-25' })}
        {field('price', 'Price', { inputRef: price })}
        {field('currency', 'Currency')}
        {choice('price_kind', 'Kind', words(PRICE_KINDS))}
        {choice('pattern', 'Pattern', vocabulary?.patterns ?? [])}
        {choice('variant', 'Form', variants, 'Not told')}
        {choice('venue_kind', 'Venue', words(VENUE_KINDS))}
        {field('venue', 'House or fair')}
        {field('condition_index', 'Index 0–100')}
      </div>
      {problem && problem.errors.length === 0 && (
        <p className="problem" role="alert">
          {problem.message}
        </p>
      )}
      <div style={{ display: 'flex', gap: 10, alignItems: 'center', marginTop: 10 }}>
        <Button type="submit" variant="contained" disabled={add.isPending}>
          Add
        </Button>
        {add.isSuccess && <span className="soft">Added; the next one may follow.</span>}
      </div>
    </form>
  );
}
