/** What somebody's list says, and what each of it means to us: one line a saying, chosen from what is possible. */
import { CellSelect } from '../parts/fields/choices.tsx';
import { Button } from '@mui/material';
import { useState, type ReactNode } from 'react';
import { counted } from '../parts/words.ts';

const SHOWN = 12;
const UNSAID = '?';

export interface Saying {
  readonly id: string;
  readonly said: string;
  /** of what it is said */
  readonly of: ReactNode;
  readonly rows: number;
  readonly meaning: string;
  /** it means nothing yet */
  readonly open: boolean;
  /** nobody has said anything of it: that it means nothing is still to be chosen */
  readonly unsaid?: boolean;
  readonly none: string;
  readonly choices: readonly { readonly id: string; readonly name: string }[];
  readonly onMean: (meaning: string) => void;
}

export function MeaningTable({
  title,
  label,
  sayings,
}: {
  title: string;
  label: string;
  sayings: readonly Saying[];
}) {
  const [all, setAll] = useState(false);
  if (sayings.length === 0) return null;
  const open = sayings.filter((saying) => saying.open).length;
  return (
    <>
      <h2 className="sec" style={{ marginTop: 12 }}>
        {title}{' '}
        <small>
          {open === 0
            ? 'each has its meaning'
            : `${counted(open)} of ${counted(sayings.length)} mean nothing yet`}
        </small>
      </h2>
      <div
        className="scroll"
        tabIndex={0}
        role="region"
        aria-label={label}
        style={{ maxHeight: 240, overflowY: 'auto' }}
      >
        <table className="grid">
          <tbody>
            {(all ? sayings : sayings.slice(0, SHOWN)).map((saying) => (
              <tr key={saying.id}>
                <td>
                  {saying.said} <span className="soft">{saying.of}</span>
                </td>
                <td className="r num soft" style={{ width: 80 }}>
                  {counted(saying.rows)} {saying.rows === 1 ? 'row' : 'rows'}
                </td>
                <td style={{ width: '45%' }}>
                  <CellSelect
                    label={`What “${saying.said}” means`}
                    value={saying.unsaid ? UNSAID : saying.meaning}
                    none={saying.none}
                    options={[
                      ...(saying.unsaid ? [{ value: UNSAID, label: 'say what it means' }] : []),
                      ...saying.choices.map((one) => ({ value: one.id, label: one.name })),
                    ]}
                    onChange={(meaning) => meaning !== UNSAID && saying.onMean(meaning ?? '')}
                  />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {!all && sayings.length > SHOWN && (
        <Button onClick={() => setAll(true)}>Show all {counted(sayings.length)}</Button>
      )}
    </>
  );
}
