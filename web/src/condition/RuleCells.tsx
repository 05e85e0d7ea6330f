/** Cells of a rule table: what is typed stays as typed, and counts once it can be read. */
import { CellInput } from '../parts/fields/CellInput.tsx';
import { readNumber } from '../parts/fields/typed.ts';
import { useState } from 'react';
import type { Cap, DeductionRule, RuleDocument } from '@jutbank/core/condition';

export interface RuleTableProps<T> {
  readonly rules: T;
  /** what is wrong at a place of the document */
  readonly wrong: (pointer: string) => string | undefined;
  readonly may: boolean;
  readonly onChange: (document: RuleDocument) => void;
}

/** A number in a cell; what is typed stays, and counts once it is a number. */
export function NumberCell({
  label,
  value,
  wrong,
  may,
  onChange,
}: {
  label: string;
  value: number;
  wrong: string | undefined;
  may: boolean;
  onChange: (value: number) => void;
}) {
  return (
    <CellInput
      label={label}
      value={String(value)}
      problem={wrong}
      readOnly={!may}
      onType={(text) => {
        const next = readNumber(text);
        if (typeof next === 'number') onChange(next);
      }}
    />
  );
}

export const replaced = <T,>(list: readonly T[], at: number, item: T): T[] =>
  list.map((x, i) => (i === at ? item : x));

/** What a measured finding costs, as `measure: share` pairs; nothing counts until all of them can be read. */
export function MeasureCell({
  label,
  points,
  wrong,
  may,
  onChange,
}: {
  label: string;
  points: NonNullable<DeductionRule['byMeasure']>;
  wrong: string | undefined;
  may: boolean;
  onChange: (points: NonNullable<DeductionRule['byMeasure']>) => void;
}) {
  const [typed, setTyped] = useState<string>();
  const read = typed === undefined ? points : pointsOf(typed);
  const shown = typed ?? points.map(([measure, share]) => `${measure}: ${share}`).join(' · ');
  return (
    <CellInput
      label={label}
      value={shown}
      problem={read ? wrong : 'pairs of a measure and a share, like 0: 0 · 5: 0.02'}
      readOnly={!may}
      size={shown.length + 1}
      onType={(text) => {
        setTyped(text);
        const next = pointsOf(text);
        if (next) onChange(next);
      }}
      onKeep={() => read && setTyped(undefined)}
    />
  );
}

/** `0: 0 · 5: 0.02` to pairs; undefined when a pair cannot be read or none is there. */
export function pointsOf(text: string): [number, number][] | undefined {
  const pairs = text
    .split(/[·;]/)
    .map((pair) => pair.split(':').map((n) => Number(n.trim().replace(',', '.') || NaN)));
  const read = pairs.flatMap(([measure = NaN, share = NaN, ...more]): [number, number][] =>
    more.length === 0 && Number.isFinite(measure) && Number.isFinite(share) ? [[measure, share]] : [],
  );
  return read.length === pairs.length ? read : undefined;
}

export function Says({ cap, may, onChange }: { cap: Cap; may: boolean; onChange: (says: string) => void }) {
  return (
    <CellInput
      text
      label={`${cap.id} in words`}
      readOnly={!may}
      value={cap.says}
      maxLength={200}
      onKeep={(says) => says !== '' && onChange(says)}
    />
  );
}
