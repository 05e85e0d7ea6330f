/** Who did what: the ledger of the whole shop, asked by person, kind and day. */
import { provenanceRoutes } from '@jutbank/contract/provenance';
import { usePages } from '../base/answers.ts';
import { useState } from 'react';
import { Link } from 'react-router';
import { Failed, Loading } from '../base/states.tsx';
import { optionsOf, Select, TextInput } from '../parts/fields/index.ts';
import { counted, sentence } from '../parts/words.ts';

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
    <TextInput
      type="date"
      label={label}
      value={asked[name]}
      onChange={(text) => setAsked({ ...asked, [name]: text })}
    />
  );
  return (
    <div className="page">
      <div className="pagehead">
        <h1>Who did what</h1>
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
        <div className="scroll" tabIndex={0} role="region" aria-label="Entries of the ledger">
          <table className="grid">
            <thead>
              <tr>
                <th>When</th>
                <th>Who</th>
                <th>What</th>
                <th>Piece</th>
                <th className="r">Entry</th>
              </tr>
            </thead>
            <tbody>
              {entries.map((entry) => (
                <tr key={entry.seq}>
                  <td className="num">{entry.at.slice(0, 16).replace('T', ' ')}</td>
                  <td>{entry.by}</td>
                  <td>
                    <details>
                      <summary>{sentence(entry.kind)}</summary>
                      <pre className="words mono" style={{ fontSize: 11.5 }}>
                        {JSON.stringify(entry.body, null, 1)}
                      </pre>
                    </details>
                  </td>
                  <td>
                    {entry.pieceId !== null && (
                      <Link to={`/pieces/${entry.pieceId}`}>
                        <span className="mono">{entry.stockNumber}</span> {entry.title}
                      </Link>
                    )}
                  </td>
                  <td className="r num" title={entry.hash}>
                    {entry.seq}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      {list.hasNextPage && (
        <button
          type="button"
          className="quiet"
          disabled={list.isFetchingNextPage}
          onClick={() => void list.fetchNextPage()}
        >
          earlier ones
        </button>
      )}
    </div>
  );
}
