/** Comparables: what things sold for elsewhere; by hand in seconds, by CSV with each error at its place. */
import { Button, MenuItem, TextField } from '@mui/material';
import { keepPreviousData, useInfiniteQuery, useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { PRICE_KINDS, VENUE_KINDS } from '@jutbank/core/value';
import { COMPARABLE_STATES, type ComparableRecord, type ComparableState } from '@jutbank/contract/value';
import type { Page } from '@jutbank/contract/http';
import type { Vocabulary } from '@jutbank/contract/reference';
import { ApiProblem, call, get } from '../app/api.ts';
import { useMay, useSession } from '../app/session.ts';
import { Failed, Loading } from '../app/states.tsx';
import { sentence, counted } from '../parts/words.ts';
import { useVocabulary } from '../parts/names.ts';
import { ComparablesTable } from './ComparablesTable.tsx';
import { ImportWizard } from './ImportWizard.tsx';
import { Suspects } from './Suspects.tsx';

export default function ComparablesPage() {
  const mayWork = useMay('work');
  const [pattern, setPattern] = useState('');
  const [kind, setKind] = useState('');
  const [venue, setVenue] = useState('');
  const [state, setState] = useState<ComparableState>('kept');
  const [words, setWords] = useState('');
  const filter = new URLSearchParams(
    Object.entries({ pattern, priceKind: kind, venueKind: venue, state, q: words.trim() }).filter(
      ([, v]) => v !== '',
    ),
  ).toString();
  const vocabulary = useVocabulary();
  const list = useInfiniteQuery({
    queryKey: ['comparables', filter],
    placeholderData: keepPreviousData,
    queryFn: ({ pageParam, signal }) =>
      get<Page<ComparableRecord>>(
        `/comparables?limit=50&${filter}${pageParam && `&cursor=${pageParam}`}`,
        signal,
      ),
    initialPageParam: '',
    getNextPageParam: (page) => page.nextCursor ?? undefined,
  });
  const patternName = (id: string) => vocabulary.data?.patterns.find((p) => p.id === id)?.name ?? id;
  const total = list.data?.pages[0]?.total ?? 0;
  return (
    <div className="page">
      <div className="pagehead">
        <h1>Comparables</h1>
        <span className="soft">
          <span className="num">{counted(total)}</span> prices
        </span>
        <span className="grow" />
        <a className="quiet" href={`/api/v1/comparables/export.csv?${filter}`}>
          Export
        </a>
        <TextField
          label="Words"
          value={words}
          onChange={(e) => setWords(e.target.value)}
          sx={{ width: 130 }}
        />
        <TextField
          select
          label="Pattern"
          value={pattern}
          onChange={(e) => setPattern(e.target.value)}
          sx={{ width: 220 }}
        >
          <MenuItem value="">All patterns</MenuItem>
          {vocabulary.data?.patterns.map((p) => (
            <MenuItem key={p.id} value={p.id}>
              {p.name}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          select
          label="Kind"
          value={kind}
          onChange={(e) => setKind(e.target.value)}
          sx={{ width: 130 }}
        >
          <MenuItem value="">All kinds</MenuItem>
          {PRICE_KINDS.map((k) => (
            <MenuItem key={k} value={k}>
              {sentence(k)}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          select
          label="Venue"
          value={venue}
          onChange={(e) => setVenue(e.target.value)}
          sx={{ width: 120 }}
        >
          <MenuItem value="">All venues</MenuItem>
          {VENUE_KINDS.map((k) => (
            <MenuItem key={k} value={k}>
              {sentence(k)}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          select
          label="Counted"
          value={state}
          onChange={(e) => setState(e.target.value as ComparableState)}
          sx={{ width: 120 }}
        >
          {COMPARABLE_STATES.map((k) => (
            <MenuItem key={k} value={k}>
              {sentence(k)}
            </MenuItem>
          ))}
        </TextField>
      </div>
      {mayWork && (
        <div
          className="columns"
          style={{ gridTemplateColumns: 'repeat(auto-fit, minmax(300px, 1fr))', marginBottom: 20 }}
        >
          <AddByHand vocabulary={vocabulary.data} />
          <ImportWizard />
        </div>
      )}
      {list.isPending ? (
        <Loading />
      ) : list.isError ? (
        <Failed error={list.error} retry={() => void list.refetch()} />
      ) : total === 0 ? (
        <p className="soft">
          {words !== '' || pattern !== '' || kind !== '' || venue !== '' || state !== 'kept'
            ? 'No price fits what was asked.'
            : 'No price is known yet. Import a list, or write down the first one: every estimate leans on them.'}
        </p>
      ) : (
        <>
          <Suspects patternName={patternName} />
          <ComparablesTable
            key={state}
            rows={list.data.pages.flatMap((p) => p.items)}
            state={state}
            patternName={patternName}
            mayWork={mayWork}
          />
          {list.hasNextPage && (
            <Button
              sx={{ mt: 1.5 }}
              onClick={() => void list.fetchNextPage()}
              disabled={list.isFetchingNextPage}
            >
              Show more
            </Button>
          )}
        </>
      )}
    </div>
  );
}

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

function AddByHand({ vocabulary }: { vocabulary: Vocabulary | undefined }) {
  const { shop } = useSession();
  const queries = useQueryClient();
  const [cells, setCells] = useState({ ...EMPTY, currency: shop.baseCurrency });
  const add = useMutation({
    mutationFn: () =>
      call<ComparableRecord>('POST', '/comparables', {
        body: Object.fromEntries(Object.entries(cells).filter(([, v]) => v.trim() !== '')),
      }),
    onSuccess: () => {
      setCells({ ...cells, price: '', condition_index: '' });
      void queries.invalidateQueries({ queryKey: ['comparables'] });
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
  return (
    <form
      className="askbox"
      style={{ margin: 0 }}
      onSubmit={(e) => {
        e.preventDefault();
        add.mutate();
      }}
    >
      <h2 className="sec">Write down a price</h2>
      <div style={{ display: 'grid', gap: 10, gridTemplateColumns: 'repeat(auto-fit, minmax(120px, 1fr))' }}>
        {field('sale_date', 'Date')}
        {field('price', 'Price')}
        {field('currency', 'Currency')}
        <TextField
          select
          label="Kind"
          value={cells.price_kind}
          onChange={(e) => setCells({ ...cells, price_kind: e.target.value })}
        >
          {PRICE_KINDS.map((k) => (
            <MenuItem key={k} value={k}>
              {sentence(k)}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          select
          label="Venue"
          value={cells.venue_kind}
          onChange={(e) => setCells({ ...cells, venue_kind: e.target.value })}
        >
          {VENUE_KINDS.map((k) => (
            <MenuItem key={k} value={k}>
              {sentence(k)}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          select
          label="Pattern"
          value={cells.pattern}
          error={!!problem?.at('/pattern')}
          helperText={problem?.at('/pattern')}
          onChange={(e) => setCells({ ...cells, pattern: e.target.value })}
        >
          {(vocabulary?.patterns ?? []).map((p) => (
            <MenuItem key={p.id} value={p.id}>
              {p.name}
            </MenuItem>
          ))}
        </TextField>
        {field('variant', 'Variant (id)')}
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
        {add.isSuccess && <span className="soft">Added.</span>}
      </div>
    </form>
  );
}
