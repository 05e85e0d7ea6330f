import { shopRoutes, type SearchHit } from '@jutbank/contract/shop';
import { Dialog, OutlinedInput } from '@mui/material';
import { keepPreviousData } from '@tanstack/react-query';
import { useDeferredValue, useState } from 'react';
import { useNavigate } from 'react-router';
import { useAnswer } from '../base/answers.ts';
import { placesFor } from './pages.ts';

const ADDRESS: Record<SearchHit['kind'], (id: string) => string> = {
  piece: (id) => `/pieces/${id}`,
  sale: (id) => `/sales/${id}`,
  contact: () => '/contacts',
  lot: (id) => `/lots/${id}`,
  document: (id) => `/pieces/${id}/trail`,
  finding: (id) => `/pieces/${id}/condition`,
  note: (id) => `/pieces/${id}/intake`,
  treatment: (id) => `/pieces/${id}/condition`,
  question: (id) => `/pieces/${id}/bench`,
  number: (id) => `/pieces/${id}/bench`,
  maker: (id) => `/reference?maker=${id}`,
  pattern: (id) => `/reference/patterns/${id}`,
  variant: (id) => `/reference/variants/${id}`,
  mark: (id) => `/reference?mark=${id}`,
};

interface Found {
  readonly key: string;
  readonly to: string;
  readonly label: string;
  readonly hint: string;
}

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
  const items: readonly Found[] =
    wanted.length > 0
      ? [
          ...placesFor(wanted).map(({ to, name }) => ({ key: to + name, to, label: name, hint: 'page' })),
          ...(hits.data?.items ?? []).map((hit, i) => ({
            key: `${hit.kind} ${hit.id} ${i}`,
            to: ADDRESS[hit.kind](hit.id),
            label: hit.label,
            hint: [hit.kind, hit.hint].filter(Boolean).join(' · '),
          })),
        ]
      : [];
  const open = (found: Found | undefined) => {
    if (!found) return;
    onClose();
    void navigate(found.to);
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
          placeholder="Number, words, a stamp (? for a letter you cannot read), a page"
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
            <li key={hit.key} role="option" aria-selected={i === at}>
              <button
                type="button"
                className="cand"
                aria-pressed={i === at}
                onClick={() => open(hit)}
                tabIndex={-1}
              >
                <b>{hit.label}</b> <span className="soft">{hit.hint}</span>
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
