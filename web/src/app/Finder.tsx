import { shopRoutes, type SearchHit } from '@jutbank/contract/shop';
import { Dialog, OutlinedInput } from '@mui/material';
import { keepPreviousData } from '@tanstack/react-query';
import { useDeferredValue, useState } from 'react';
import { useNavigate } from 'react-router';
import { useAnswer } from '../base/answers.ts';

const ADDRESS: Record<SearchHit['kind'], (id: string) => string> = {
  piece: (id) => `/pieces/${id}`,
  maker: (id) => `/reference?maker=${id}`,
  pattern: (id) => `/reference/patterns/${id}`,
  variant: (id) => `/reference/variants/${id}`,
  mark: (id) => `/reference?mark=${id}`,
};

export default function Finder({ onClose }: { onClose: () => void }) {
  const [q, setQ] = useState('');
  const [at, setAt] = useState(0);
  const wanted = useDeferredValue(q.trim());
  const navigate = useNavigate();
  const hits = useAnswer(
    shopRoutes.search,
    { query: { q: wanted } },
    { enabled: wanted.length > 0, placeholderData: keepPreviousData },
  );
  const items = wanted.length > 0 ? (hits.data?.items ?? []) : [];
  const open = (hit: SearchHit | undefined) => {
    if (!hit) return;
    onClose();
    void navigate(ADDRESS[hit.kind](hit.id));
  };
  return (
    <Dialog
      open
      onClose={onClose}
      fullWidth
      maxWidth="sm"
      aria-label="Find anything"
      slotProps={{ container: { sx: { alignItems: 'flex-start' } } }}
    >
      <div style={{ padding: 14 }}>
        <OutlinedInput
          fullWidth
          autoFocus
          value={q}
          placeholder="Stock number, words, a stamp (? for a letter you cannot read)"
          inputProps={{
            'aria-label': 'What to find',
            role: 'combobox',
            'aria-expanded': items.length > 0,
            'aria-controls': 'hits',
            style: { fontSize: 16 },
          }}
          onChange={(event) => {
            setQ(event.target.value);
            setAt(0);
          }}
          onKeyDown={(event) => {
            if (event.key === 'ArrowDown') setAt(Math.min(items.length - 1, at + 1));
            else if (event.key === 'ArrowUp') setAt(Math.max(0, at - 1));
            else if (event.key === 'Enter') open(items[at]);
            else return;
            event.preventDefault();
          }}
        />
        <ul id="hits" role="listbox" aria-label="Found" style={{ marginTop: 10 }}>
          {items.map((hit, i) => (
            <li key={`${hit.kind} ${hit.id}`} role="option" aria-selected={i === at}>
              <button
                type="button"
                className="cand"
                aria-pressed={i === at}
                onClick={() => open(hit)}
                tabIndex={-1}
              >
                <b>{hit.label}</b>{' '}
                <span className="soft">
                  {hit.kind} · {hit.hint}
                </span>
              </button>
            </li>
          ))}
        </ul>
        {wanted.length > 0 && hits.isSuccess && items.length === 0 && (
          <p className="soft" style={{ paddingTop: 8 }}>
            Nothing is called that here.
          </p>
        )}
      </div>
    </Dialog>
  );
}
