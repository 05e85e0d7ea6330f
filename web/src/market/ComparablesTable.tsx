/** The list of comparables: chosen rows are set aside, merged into one, or taken back, each with a reason. */
import { marketRoutes, type ComparableRecord, type ComparableState } from '@jutbank/contract/market';
import { Button } from '@mui/material';
import { CellTick, TextInput } from '../parts/fields/index.ts';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { useKeptAnswers } from '../base/answers.ts';
import { ApiProblem, send } from '../base/api.ts';
import { inWords, moneyText } from '../parts/words.ts';

const AFTER_NUMBERS = { paddingLeft: 20 };

/** The grade as the list wrote it, and the index where it told one. */
const conditionAsTyped = (cells: ComparableRecord['cells']): string =>
  [
    cells['grade as listed'] ?? (cells.grade === undefined ? undefined : inWords(cells.grade)),
    cells.condition_index,
  ]
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
      <div className="scroll" tabIndex={0} role="region" aria-label="List of comparables">
        <table className="grid">
          <thead>
            <tr>
              {mayWork && (
                <th>
                  <span className="visually-hidden">Chosen</span>
                </th>
              )}
              <th>Sold</th>
              <th>Piece</th>
              <th>Kind</th>
              <th>Where</th>
              <th className="r">Price</th>
              <th style={AFTER_NUMBERS}>Condition</th>
              <th>With it</th>
              <th>{state === 'kept' ? 'Source' : 'Why not'}</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => (
              <tr key={row.id} className={chosen.includes(row.id) ? 'on' : ''}>
                {mayWork && (
                  <td>
                    <CellTick
                      label={`Choose ${row.saleDate}, ${moneyText(row.price)}`}
                      value={chosen.includes(row.id)}
                      onChange={() => toggle(row.id)}
                    />
                  </td>
                )}
                <td className="num">{row.saleDate}</td>
                <td>
                  {patternName(row.pattern)}{' '}
                  <span className="soft">{row.variantName ?? 'variant not told'}</span>
                </td>
                <td>{row.priceKind}</td>
                <td>{row.cells.venue ?? row.venueKind}</td>
                <td className="r num">{moneyText(row.price)}</td>
                <td style={AFTER_NUMBERS}>{conditionAsTyped(row.cells)}</td>
                <td className="soft">
                  {[
                    row.cells.box === 'original' ? 'box' : undefined,
                    row.cells.alterations?.replaceAll('|', ', '),
                  ]
                    .filter(Boolean)
                    .join(', ')}
                </td>
                <td className="soft">{state === 'kept' ? row.cells.source : row.stateReason}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </>
  );
}
