/** What somebody's list calls patterns and forms, and what each means in the reference. */
import { Button } from '@mui/material';
import { useState } from 'react';
import type { NameSaid } from '@jutbank/core/value';
import { useVariantNames, useVocabulary } from '../parts/names.ts';
import { counted } from '../parts/words.ts';
import type { Mapping } from './ImportColumns.tsx';

const NAMES_SHOWN = 12;

/** Names that are none of the reference's ids, and what each means. */
export function ImportNames({
  names,
  mapping,
  onChange,
}: {
  names: readonly NameSaid[];
  mapping: Mapping;
  onChange: (mapping: Mapping) => void;
}) {
  const [all, setAll] = useState(false);
  const vocabulary = useVocabulary();
  const patterns = [...new Set(names.flatMap((n) => n.pattern ?? []))];
  const variants = [...useVariantNames(patterns).values()].map((v) => v.variant);
  if (names.length === 0) return null;
  const patternName = (id: string) => vocabulary.data?.patterns.find((p) => p.id === id)?.name ?? id;
  const open = names.filter((n) => (mapping.names[n.column][n.key] ?? '') === '').length;
  return (
    <>
      <h2 className="sec" style={{ marginTop: 12 }}>
        Their names{' '}
        <small>
          {open === 0
            ? 'each has its meaning'
            : `${counted(open)} of ${counted(names.length)} mean nothing yet`}
        </small>
      </h2>
      <div
        className="scroll"
        tabIndex={0}
        role="region"
        aria-label="Names in the file"
        style={{ maxHeight: 240, overflowY: 'auto' }}
      >
        <table className="grid">
          <tbody>
            {(all ? names : names.slice(0, NAMES_SHOWN)).map((n) => (
              <tr key={`${n.column} ${n.key}`}>
                <td>
                  {n.said} {n.pattern !== null && <span className="soft">of {patternName(n.pattern)}</span>}
                </td>
                <td className="r num soft">
                  {counted(n.rows)} {n.rows === 1 ? 'row' : 'rows'}
                </td>
                <td>
                  <select
                    className="plainselect"
                    aria-label={`What “${n.said}” means`}
                    value={mapping.names[n.column][n.key] ?? ''}
                    onChange={(e) =>
                      onChange({
                        ...mapping,
                        names: {
                          ...mapping.names,
                          [n.column]: { ...mapping.names[n.column], [n.key]: e.target.value },
                        },
                      })
                    }
                  >
                    <option value="">
                      {n.column === 'pattern' ? 'none of ours: leave the rows out' : 'form not told'}
                    </option>
                    {(n.column === 'pattern'
                      ? (vocabulary.data?.patterns ?? [])
                      : variants.filter((v) => v.pattern === n.pattern)
                    ).map((one) => (
                      <option key={one.id} value={one.id}>
                        {one.name}
                      </option>
                    ))}
                  </select>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {!all && names.length > NAMES_SHOWN && (
        <Button onClick={() => setAll(true)}>Show all {counted(names.length)}</Button>
      )}
    </>
  );
}
