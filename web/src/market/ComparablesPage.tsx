/** Comparables: what things sold for elsewhere; by hand in seconds, by CSV with each error at its place. */
import { usePages } from '../base/answers.ts';
import { Button, MenuItem, TextField } from '@mui/material';
import { useEffect, useState } from 'react';
import { PRICE_KINDS, VENUE_KINDS } from '@jutbank/core/market';
import {
  COMPARABLE_STATES,
  type ComparableState,
  marketRoutes,
  type ComparableFilter,
} from '@jutbank/contract/market';
import { useMay } from '../base/session.ts';
import { Failed, Loading } from '../base/states.tsx';
import { sentence, counted } from '../parts/words.ts';
import { useVocabulary } from '../reference/vocabulary.ts';
import { AddByHand } from './AddByHand.tsx';
import { ComparablesTable } from './ComparablesTable.tsx';
import { ImportWizard } from './ImportWizard.tsx';
import { Suspects } from './Suspects.tsx';

export default function ComparablesPage() {
  const mayWork = useMay('work');
  const [pattern, setPattern] = useState('');
  const [kind, setKind] = useState('');
  const [venue, setVenue] = useState('');
  const [state, setState] = useState<ComparableState>('kept');
  const [search, setSearch] = useState('');
  const [opened, setOpened] = useState<'hand' | 'list' | 'none'>();
  const given = { pattern, priceKind: kind, venueKind: venue, state, q: search.trim() };
  const filter = new URLSearchParams(Object.entries(given).filter(([, v]) => v !== '')).toString();
  const vocabulary = useVocabulary();
  // an empty choice is none: its kinds are those of the selects
  const list = usePages(marketRoutes.listComparables, { ...(given as Partial<ComparableFilter>), limit: 50 });
  const patternName = (id: string) => vocabulary.data?.patterns.find((p) => p.id === id)?.name ?? id;
  const total = list.data?.pages[0]?.total ?? 0;
  const nothing = list.isSuccess && total === 0 && filter === 'state=kept';
  // a shop without prices begins with a list, and keeps it in hand once the first one went in
  useEffect(() => {
    if (nothing) setOpened((before) => before ?? 'list');
  }, [nothing]);
  const tool = opened ?? 'none';
  const words = (list: readonly string[]) => list.map((id) => [id, sentence(id)] as const);
  const choice = (
    label: string,
    width: number,
    value: string,
    put: (value: string) => void,
    options: readonly (readonly [id: string, words: string])[],
  ) => (
    <TextField select label={label} value={value} onChange={(e) => put(e.target.value)} sx={{ width }}>
      {options.map(([id, name]) => (
        <MenuItem key={id} value={id}>
          {name}
        </MenuItem>
      ))}
    </TextField>
  );
  return (
    <div className="page">
      <div className="pagehead">
        <h1>Comparables</h1>
        <span className="soft">
          <span className="num">{counted(total)}</span> prices
        </span>
        <span className="grow" />
        {mayWork &&
          (
            [
              ['hand', 'Write one down'],
              ['list', 'Take in a list'],
            ] as const
          ).map(([id, words]) => (
            <button
              key={id}
              type="button"
              className="quiet"
              aria-pressed={tool === id}
              onClick={() => setOpened(tool === id ? 'none' : id)}
            >
              {words}
            </button>
          ))}
        <a className="quiet" href={`/api/v1/comparables/export.csv?${filter}`}>
          Export
        </a>
      </div>
      <div className="filters">
        <TextField
          label="Words"
          value={search}
          onChange={(e) => setSearch(e.target.value)}
          sx={{ width: 130 }}
        />
        {choice('Pattern', 220, pattern, setPattern, [
          ['', 'All patterns'],
          ...(vocabulary.data?.patterns ?? []).map((p) => [p.id, p.name] as const),
        ])}
        {choice('Kind', 120, kind, setKind, [['', 'All kinds'], ...words(PRICE_KINDS)])}
        {choice('Venue', 120, venue, setVenue, [['', 'All venues'], ...words(VENUE_KINDS)])}
        {choice('Counted', 120, state, (s) => setState(s as ComparableState), words(COMPARABLE_STATES))}
      </div>
      {mayWork && tool !== 'none' && (
        <div style={{ marginBottom: 20, maxWidth: 900 }}>
          {tool === 'hand' ? <AddByHand vocabulary={vocabulary.data} /> : <ImportWizard />}
        </div>
      )}
      {list.isPending ? (
        <Loading />
      ) : list.isError ? (
        <Failed error={list.error} retry={() => void list.refetch()} />
      ) : total === 0 ? (
        <p className="soft">
          {!nothing
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
