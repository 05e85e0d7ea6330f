/** The list of comparables: chosen rows are set aside, merged into one, or taken back, each with a reason. */
import { marketRoutes, type ComparableRecord, type ComparableState } from '@jutbank/contract/market';
import { Button } from '@mui/material';
import { CellTick } from '../parts/fields/choices.tsx';
import { TextInput } from '../parts/fields/TextInput.tsx';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { useKeptAnswers } from '../base/answers.ts';
import { ApiProblem, send } from '../base/api.ts';
import { Table, type Column } from '../parts/table/Table.tsx';
import { dayText, inWords, moneyText } from '../parts/words.ts';

/** The grade as the list wrote it, and the index where it told one. */
const conditionAsTyped = (cells: ComparableRecord['cells']): string =>
  [
    cells['grade as listed'] ?? (cells.grade === undefined ? undefined : inWords(cells.grade)),
    cells.condition_index,
  ]
    .filter(Boolean)
    .join(', ');

const withIt = (cells: ComparableRecord['cells']): string =>
  [cells.box === 'original' ? 'box' : undefined, cells.alterations?.replaceAll('|', ', ')]
    .filter(Boolean)
    .join(', ');

export function ComparablesTable({
  rows,
  state,
  patternName,
  mayWork,
}: {
  rows: readonly ComparableRecord[];
  state: ComparableState;
  patternName: (id: string) => string;
  mayWork: boolean;
}) {
  const answers = useKeptAnswers();
  const [chosen, setChosen] = useState<readonly string[]>([]);
  const [reason, setReason] = useState('');
  const change = useMutation({
    mutationFn: (to: ComparableState) =>
      send(marketRoutes.changeComparables, {
        body: {
          ids: to === 'merged' ? chosen.slice(1) : chosen,
          state: to,
          into: to === 'merged' ? chosen[0] : null,
          reason,
        },
      }),
    onSuccess: () => {
      setChosen([]);
      setReason('');
      void answers.invalidate(marketRoutes.listComparables, marketRoutes.suspects);
    },
  });
  const problem = change.error instanceof ApiProblem ? change.error : undefined;
  const toggle = (id: string) =>
    setChosen(chosen.includes(id) ? chosen.filter((other) => other !== id) : [...chosen, id]);
  const columns: readonly Column<ComparableRecord>[] = [
    ...(mayWork
      ? [
          {
            id: 'chosen',
            head: 'Chosen',
            headHidden: true,
            cell: (row: ComparableRecord) => (
              <CellTick
                label={`Choose ${dayText(row.saleDate)}, ${moneyText(row.price)}`}
                value={chosen.includes(row.id)}
                onChange={() => toggle(row.id)}
              />
            ),
          },
        ]
      : []),
    { id: 'sold', head: 'Sold', className: 'num', cell: (row) => dayText(row.saleDate) },
    {
      id: 'piece',
      head: 'Piece',
      lead: true,
      cell: (row) => (
        <>
          {patternName(row.pattern)} <span className="soft">{row.variantName ?? 'variant not told'}</span>
        </>
      ),
    },
    { id: 'kind', head: 'Kind', cell: (row) => row.priceKind },
    { id: 'where', head: 'Where', cell: (row) => row.cells.venue ?? row.venueKind },
    { id: 'price', head: 'Price', figure: true, cell: (row) => moneyText(row.price) },
    { id: 'condition', head: 'Condition', className: 'after', cell: (row) => conditionAsTyped(row.cells) },
    { id: 'with', head: 'With it', className: 'soft', cell: (row) => withIt(row.cells) },
    {
      id: 'source',
      head: state === 'kept' ? 'Source' : 'Why not',
      className: 'soft',
      cell: (row) => (state === 'kept' ? row.cells.source : row.stateReason),
    },
  ];
  return (
    <>
      {chosen.length > 0 && (
        <div
          className="note"
          style={{ display: 'flex', gap: 10, flexWrap: 'wrap', alignItems: 'start', marginBottom: 10 }}
        >
          <span style={{ paddingTop: 8 }}>{chosen.length} chosen</span>
          {state === 'kept' ? (
            <>
              <TextInput label="Why" value={reason} problem={problem?.at('/reason')} onChange={setReason} />
              <Button onClick={() => change.mutate('set-aside')}>Set aside</Button>
              <Button disabled={chosen.length < 2} onClick={() => change.mutate('merged')}>
                One sale: keep the first
              </Button>
            </>
          ) : (
            <Button onClick={() => change.mutate('kept')}>Take back</Button>
          )}
          {problem && problem.errors.length === 0 && <span className="problem">{problem.message}</span>}
        </div>
      )}
      <Table
        label="List of comparables"
        rows={rows}
        columns={columns}
        keyOf={(row) => row.id}
        marked={(row) => chosen.includes(row.id)}
        {...(mayWork ? { onToggle: (row: ComparableRecord) => toggle(row.id) } : {})}
      />
    </>
  );
}
