/** Comparables: what things sold for elsewhere; by hand in seconds, by CSV with each error at its place. */
import { usePages } from '../base/answers.ts';
import { Button } from '@mui/material';
import { optionsOf, Select } from '../parts/fields/choices.tsx';
import { TextInput } from '../parts/fields/TextInput.tsx';
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
import { PageTitle } from '../parts/PageTitle.tsx';
import { counted } from '../parts/words.ts';
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
  return (
    <div className="page">
      <div className="pagehead">
        <PageTitle>Comparables</PageTitle>
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
            <Button
              variant="text"
              key={id}
              className="quiet"
              aria-pressed={tool === id}
              onClick={() => setOpened(tool === id ? 'none' : id)}
            >
              {words}
            </Button>
          ))}
        <a className="quiet" href={`/api/v1/comparables/export.csv?${filter}`}>
          Export
        </a>
      </div>
      <div className="filters">
        <TextInput label="Words" type="search" value={search} onChange={setSearch} />
        <Select
          label="Pattern"
          value={pattern}
          none="All patterns"
          options={(vocabulary.data?.patterns ?? []).map((p) => ({ value: p.id, label: p.name }))}
          onChange={(id) => setPattern(id ?? '')}
        />
        <Select
          label="Kind"
          value={kind}
          none="All kinds"
          options={optionsOf<string>(PRICE_KINDS)}
          onChange={(k) => setKind(k ?? '')}
        />
        <Select
          label="Venue"
          value={venue}
          none="All venues"
          options={optionsOf<string>(VENUE_KINDS)}
          onChange={(v) => setVenue(v ?? '')}
        />
        <Select
          label="Counted"
          value={state}
          options={optionsOf(COMPARABLE_STATES)}
          onChange={(s) => s !== null && setState(s)}
        />
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
