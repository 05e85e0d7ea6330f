/** Two candidates side by side with the piece in the middle: only where they differ or the piece does. */
import { CellSelect } from '../parts/fields/choices.tsx';
import { useState } from 'react';
import type { Candidate, IdentifyAnswer, Observation } from '@jutbank/core/bench';
import { differencesOf, type FeatureReading, type Variant } from '@jutbank/core/reference';
import type { Vocabulary } from '@jutbank/contract/reference';
import type { VariantNames } from '../reference/vocabulary.ts';
import { inWords } from '../parts/words.ts';
import { Wording } from './wording.ts';

interface Row {
  readonly title: string;
  readonly left: string;
  readonly piece: string;
  readonly right: string;
  readonly fits: 'left' | 'right' | 'both' | 'neither' | 'not-seen';
}

export function CandidateComparison({
  left,
  answer,
  observations,
  vocabulary,
  names,
}: {
  left: Candidate;
  answer: IdentifyAnswer;
  observations: readonly Observation[];
  vocabulary: Vocabulary;
  names: VariantNames;
}) {
  const others = answer.candidates.filter((c) => c.variant !== left.variant);
  const [against, setAgainst] = useState<string>();
  const right = others.find((c) => c.variant === against) ?? others[0];
  const a = names.get(left.variant)?.variant;
  const b = right && names.get(right.variant)?.variant;
  if (!right || !a || !b) return <p className="soft">There is no second candidate to stand beside it.</p>;
  const rows = rowsOf(a, b, observations, new Wording(vocabulary));
  return (
    <table className="grid beside">
      <thead>
        <tr>
          <th>
            <span className="visually-hidden">Feature</span>
          </th>
          <th>{names.get(left.variant)?.label}</th>
          <th>This piece</th>
          <th>
            <CellSelect
              label="The other candidate"
              value={right.variant}
              options={others.map((c) => ({
                value: c.variant,
                label: names.get(c.variant)?.label ?? inWords(c.variant),
              }))}
              onChange={(id) => id !== null && setAgainst(id)}
            />
          </th>
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => (
          <tr key={row.title}>
            <td className="soft">{row.title}</td>
            <td className={row.fits === 'left' ? 'fits' : undefined}>{row.left}</td>
            <td>
              {row.fits === 'not-seen' ? <span className="soft">{row.piece}</span> : <b>{row.piece}</b>}
            </td>
            <td className={row.fits === 'right' ? 'fits' : undefined}>{row.right}</td>
          </tr>
        ))}
        {rows.length === 0 && (
          <tr>
            <td colSpan={4}>Nothing recorded tells these two apart.</td>
          </tr>
        )}
      </tbody>
    </table>
  );
}

function rowsOf(a: Variant, b: Variant, observations: readonly Observation[], words: Wording): Row[] {
  const feature = (id: string) => observations.find((o) => 'feature' in o && o.feature === id);
  return differencesOf([a, b]).map((d): Row => {
    if (d.kind === 'marks') {
      const [left = [], right = []] = d.cells;
      const seen = observations.flatMap((o) => ('mark' in o ? [o.mark] : []));
      return {
        title: 'Stamp',
        left: left.map(words.mark).join(' or ') || '–',
        piece: seen.length === 0 ? 'not looked at yet' : seen.map(words.mark).join(', '),
        right: right.map(words.mark).join(' or ') || '–',
        fits:
          seen.length === 0
            ? 'not-seen'
            : fit(
                seen.some((m) => left.includes(m)),
                seen.some((m) => right.includes(m)),
              ),
      };
    }
    const o = feature(d.id);
    if (d.kind === 'measure') {
      const [left, right] = d.cells;
      const measure = o && 'measure' in o ? o.measure : undefined;
      const near = (m: typeof left) =>
        measure !== undefined && !!m && Math.abs(m.value - measure) <= (m.tolerance ?? 0.01 * m.value);
      return {
        title: words.feature(d.id),
        left: left ? words.value(d.id, left.value) : '–',
        piece: measure === undefined ? 'not measured yet' : words.value(d.id, measure),
        right: right ? words.value(d.id, right.value) : '–',
        fits: measure === undefined ? 'not-seen' : fit(near(left), near(right)),
      };
    }
    const [left = [], right = []] = d.cells;
    const list = (values: readonly FeatureReading[]) =>
      values.length === 0 ? 'not recorded' : values.map((v) => words.value(d.id, v)).join(' or ');
    const value = o && 'value' in o ? o.value : undefined;
    return {
      title: words.feature(d.id),
      left: list(left),
      piece:
        value !== undefined
          ? words.value(d.id, value)
          : o && 'other' in o
            ? o.other
            : o && 'state' in o
              ? inWords(o.state)
              : 'not looked at yet',
      right: list(right),
      fits:
        o && 'other' in o
          ? 'neither'
          : value === undefined
            ? 'not-seen'
            : fit(left.includes(value), right.includes(value)),
    };
  });
}

const fit = (left: boolean, right: boolean): Row['fits'] =>
  left && right ? 'both' : left ? 'left' : right ? 'right' : 'neither';
