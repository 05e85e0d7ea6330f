/** Who did what: the ledger of the whole shop, asked by person, kind and day. */
import { Button } from '@mui/material';
import { provenanceRoutes, type AuditEntry } from '@jutbank/contract/provenance';
import { usePages } from '../base/answers.ts';
import { useState } from 'react';
import { Link } from 'react-router';
import { Failed, Loading } from '../base/states.tsx';
import { PageTitle } from '../parts/PageTitle.tsx';
import { optionsOf, Select } from '../parts/fields/choices.tsx';
import { DayInput } from '../parts/fields/figures.tsx';
import { Table, type Column } from '../parts/table/Table.tsx';
import { counted, momentText, sentence } from '../parts/words.ts';

const COLUMNS: readonly Column<AuditEntry>[] = [
  { id: 'when', head: 'When', className: 'num', cell: (e) => momentText(e.at) },
  { id: 'who', head: 'Who', cell: (e) => e.by },
  {
    id: 'what',
    head: 'What',
    lead: true,
    cell: (e) => (
      <details>
        <summary>{sentence(e.kind)}</summary>
        <pre className="words mono" style={{ fontSize: 11.5 }}>
          {JSON.stringify(e.body, null, 1)}
        </pre>
      </details>
    ),
  },
  {
    id: 'piece',
    head: 'Piece',
    cell: (e) =>
      e.pieceId !== null && (
        <Link to={`/pieces/${e.pieceId}`}>
          <span className="mono">{e.stockNumber}</span> {e.title}
        </Link>
      ),
  },
  { id: 'entry', head: 'Entry', figure: true, cell: (e) => <span title={e.hash}>{e.seq}</span> },
];

const EMPTY = { person: '', kind: '', from: '', to: '' };

export default function AuditPage() {
  const [asked, setAsked] = useState(EMPTY);
  const filter = new URLSearchParams(Object.entries(asked).filter(([, value]) => value !== '')).toString();
  const list = usePages(provenanceRoutes.audit, { ...asked, limit: 100 });
  if (list.isPending) return <Loading />;
  if (list.isError) return <Failed error={list.error} retry={() => void list.refetch()} />;
  const [first] = list.data.pages;
  const entries = list.data.pages.flatMap((page) => page.items);
  const choice = (name: 'person' | 'kind', label: string, values: readonly string[]) => (
    <Select
      label={label}
      value={asked[name]}
      none={name === 'person' ? 'Everybody' : 'Everything'}
      options={optionsOf(values, name === 'kind' ? sentence : (value) => value)}
      onChange={(value) => setAsked({ ...asked, [name]: value ?? '' })}
    />
  );
  const day = (name: 'from' | 'to', label: string) => (
    <DayInput
      label={label}
      edge={name === 'from' ? 'first' : 'last'}
      value={asked[name]}
      onChange={(text, understood) => understood && setAsked({ ...asked, [name]: text })}
    />
  );
  return (
    <div className="page">
      <div className="pagehead">
        <PageTitle>Who did what</PageTitle>
        <span className="soft">
          <span className="num">{counted(first?.total ?? 0)}</span> entries, each following from the one
          before
        </span>
        <span className="grow" />
        <a className="quiet" href={`/api/v1/ledger/export.csv?${filter}`}>
          Export
        </a>
      </div>
      <div className="filters">
        {choice('person', 'Who', first?.people ?? [])}
        {choice('kind', 'What', first?.kinds ?? [])}
        {day('from', 'From')}
        {day('to', 'To')}
      </div>
      {entries.length === 0 ? (
        <p className="soft">Nothing was done that fits what was asked.</p>
      ) : (
        <Table label="Entries of the ledger" rows={entries} columns={COLUMNS} keyOf={(e) => String(e.seq)} />
      )}
      {list.hasNextPage && (
        <Button
          variant="text"
          className="quiet"
          disabled={list.isFetchingNextPage}
          onClick={() => void list.fetchNextPage()}
        >
          earlier ones
        </Button>
      )}
    </div>
  );
}
