/** What is asked of the list: the usual questions in a row, the rarer ones below. */
import { Button } from '@mui/material';
import { useEffect, useState } from 'react';
import { INVENTORY_SORTS, inventoryRoutes, type InventorySort } from '@jutbank/contract/inventory';
import { STAGES } from '@jutbank/core/pieces';
import { CONSTRUCTIONS } from '@jutbank/core/reference';
import { useAnswer } from '../base/answers.ts';
import { optionsOf, Select, TextInput, Tick } from '../parts/fields/index.ts';
import { STAGE_WORDS } from '../parts/words.ts';
import { useVocabulary } from '../reference/vocabulary.ts';
import type { Asking } from './useInventory.ts';

const SORT_WORDS: Readonly<Record<InventorySort, string>> = {
  newest: 'newest first',
  oldest: 'oldest first',
  changed: 'last changed first',
  title: 'by name',
  dearest: 'dearest first',
  cheapest: 'cheapest first',
};
const RARE = ['source', 'lot', 'askFrom', 'askTo', 'days'] as const;

export function Filters({ asking, currency }: { asking: Asking; currency: string }) {
  const { filter, set } = asking;
  const vocabulary = useVocabulary();
  const choices = useAnswer(inventoryRoutes.choices).data;
  const [more, setMore] = useState(RARE.some((name) => filter[name] !== undefined));
  const named = (list: readonly { readonly id: string; readonly name: string }[]) =>
    list.map(({ id, name }) => ({ value: id, label: name }));
  const patterns = (vocabulary.data?.patterns ?? []).filter(
    (p) => filter.maker === undefined || p.maker === filter.maker,
  );
  return (
    <>
      <div className="inventory-filters">
        <Typed label="Words" name="q" asking={asking} type="search" />
        <Select
          label="Where it stands"
          none="everywhere"
          options={[
            { value: 'here', label: 'all that are here' },
            ...STAGES.map((s) => ({ value: s, label: STAGE_WORDS[s] })),
          ]}
          value={filter.stage ?? null}
          onChange={(stage) => set('stage', stage)}
        />
        <Select
          label="Construction"
          none="all"
          options={optionsOf(CONSTRUCTIONS)}
          value={filter.construction ?? null}
          onChange={(construction) => set('construction', construction)}
        />
        <Select
          label="Maker"
          none="all makers"
          options={named(vocabulary.data?.makers ?? [])}
          value={filter.maker ?? null}
          onChange={(maker) => set('maker', maker)}
        />
        <Select
          label="Pattern"
          none="all patterns"
          options={named(patterns)}
          value={filter.pattern ?? null}
          onChange={(pattern) => set('pattern', pattern)}
        />
        <Select
          label="Where it lies"
          none="anywhere"
          options={(choices?.places ?? []).map((place) => ({ value: place, label: place }))}
          value={filter.place ?? null}
          onChange={(place) => set('place', place)}
        />
        <Select
          label="In which order"
          options={INVENTORY_SORTS.map((s) => ({ value: s, label: SORT_WORDS[s] }))}
          value={filter.sort ?? INVENTORY_SORTS[0]}
          onChange={(sort) => set('sort', sort)}
        />
      </div>
      {more && (
        <div className="inventory-filters">
          <Select
            label="From whom"
            none="anybody"
            options={(choices?.sources ?? []).map((source) => ({ value: source, label: source }))}
            value={filter.source ?? null}
            onChange={(source) => set('source', source)}
          />
          <Select
            label="Lot"
            none="any"
            options={named(choices?.lots ?? [])}
            value={filter.lot ?? null}
            onChange={(lot) => set('lot', lot)}
          />
          <Typed label="Asked at least" name="askFrom" asking={asking} unit={currency} />
          <Typed label="Asked at most" name="askTo" asking={asking} unit={currency} />
          <Typed label="In stock for at least" name="days" asking={asking} unit="days" />
        </div>
      )}
      <div className="inventory-more">
        <Tick
          label="Only what wants a look"
          value={filter.warned !== undefined}
          onChange={(warned) => set('warned', warned ? '1' : null)}
        />
        <Button variant="text" className="quiet" aria-expanded={more} onClick={() => setMore(!more)}>
          {more ? 'Fewer questions' : 'More questions'}
        </Button>
      </div>
    </>
  );
}

const PAUSE_MS = 250;

/** A field that asks once typing has paused: not with every letter. */
function Typed({
  label,
  name,
  asking,
  unit,
  type,
}: {
  label: string;
  name: 'q' | 'askFrom' | 'askTo' | 'days';
  asking: Asking;
  unit?: string;
  type?: 'search';
}) {
  const asked = String(asking.filter[name] ?? '');
  const [typed, setTyped] = useState(asked);
  const [seen, setSeen] = useState(asked);
  // another view was chosen: what stood here was not typed for it
  if (seen !== asked) {
    setSeen(asked);
    if (typed.trim() !== asked) setTyped(asked);
  }
  const figure = name === 'q' ? typed.trim() : typed.trim().replace(',', '.');
  const wrong = name !== 'q' && figure !== '' && !/^\d{1,9}(\.\d{1,2})?$/.test(figure);
  useEffect(() => {
    if (wrong || figure === asked) return;
    const timer = setTimeout(() => asking.set(name, figure), PAUSE_MS);
    return () => clearTimeout(timer);
  });
  return (
    <TextInput
      label={label}
      value={typed}
      {...(unit === undefined ? {} : { unit, inputMode: 'decimal' as const })}
      {...(type === undefined ? {} : { type })}
      problem={wrong ? `“${typed}” is not ${unit === 'days' ? 'a number of days' : 'an amount'}` : undefined}
      onChange={setTyped}
    />
  );
}
