/** A code read sign by sign: counts and places as chips, what is longer typed; the stamp drawn with its signs as they are read. */
import { ButtonBase } from '@mui/material';
import { useState } from 'react';
import type { Observation } from '@jutbank/core/bench';
import type { Code, CodeRead, Mark } from '@jutbank/core/reference';
import { MarkDrawing, signsOf } from '../parts/Drawn.tsx';
import { LineInput } from '../parts/fields/LineInput.tsx';
import { Roving } from '../parts/Roving.tsx';
import { onEnter } from './onEnter.ts';

/** A code's counts are chips up to so many; a serial or a two-digit year is typed. */
const MOST_COUNT_CHIPS = 13;
/** A count too great for chips: a serial within ranges, a two-digit year. */
function CountLine({
  read,
  value,
  onChange,
}: {
  read: CodeRead;
  value: string | number | undefined;
  onChange: (value: number | undefined) => void;
}) {
  const [typed, setTyped] = useState(value === undefined ? '' : String(value));
  const n = Number(typed);
  const wrong =
    typed.trim() !== '' &&
    (!/^\d+$/.test(typed.trim()) || (read.min != null && n < read.min) || (read.max != null && n > read.max));
  const take = () => {
    if (!wrong) onChange(typed.trim() === '' ? undefined : n);
  };
  return (
    <span className="chips" style={{ alignItems: 'center' }}>
      <span className="soft" style={{ display: 'flex', gap: 8, alignItems: 'center' }}>
        <span style={{ width: 72 }}>{read.label}</span>
        <LineInput
          label={read.label}
          style={{ width: 110 }}
          inputMode="numeric"
          value={typed}
          invalid={wrong}
          onChange={setTyped}
          onBlur={take}
          onKeyDown={onEnter(take)}
        />
      </span>
      {wrong && (
        <span className="problem" role="alert">
          a whole number{read.max == null ? '' : ` from ${read.min ?? 0} to ${read.max}`}
        </span>
      )}
    </span>
  );
}

export function CodeReader({
  code,
  stamp,
  observed,
  onObserve,
  inHand,
}: {
  code: Code;
  /** the stamp that carries the code, drawn with the signs as they are read */
  stamp: Mark | undefined;
  observed: Observation | undefined;
  onObserve: (o: Observation | undefined) => void;
  inHand: boolean;
}) {
  const reads = observed && 'reads' in observed ? observed.reads : {};
  const [text, setText] = useState(
    observed && 'text' in observed && 'code' in observed ? String(observed.text ?? '') : '',
  );
  if (code.kind !== 'date')
    return (
      <LineInput
        value={text}
        autoFocus={inHand}
        label={code.title ?? code.id}
        hint={code.kind === 'serial' ? 'the number' : 'as stamped'}
        onChange={setText}
        onBlur={() => onObserve(text.trim() === '' ? undefined : { code: code.id, text: text.trim() })}
        onKeyDown={(e) => {
          if (e.key === 'Enter')
            onObserve(text.trim() === '' ? undefined : { code: code.id, text: text.trim() });
        }}
      />
    );
  const put = (id: string, value: string | number | undefined) => {
    const next = Object.fromEntries(
      Object.entries({ ...reads, [id]: value }).filter(
        (entry): entry is [string, string | number] => entry[1] !== undefined,
      ),
    );
    onObserve(Object.keys(next).length === 0 ? undefined : { code: code.id, reads: next });
  };
  return (
    <div style={{ display: 'grid', gap: 6 }}>
      {inHand && stamp && <MarkDrawing mark={stamp} signs={signsOf(code, reads)} width={150} />}
      {code.reads.map((read) => {
        const from = read.min ?? 0;
        const counts = (read.max ?? Infinity) - from + 1;
        if (read.type === 'count' && counts > MOST_COUNT_CHIPS)
          return (
            <CountLine key={read.id} read={read} value={reads[read.id]} onChange={(v) => put(read.id, v)} />
          );
        const options: (string | number)[] =
          read.type === 'choice' ? (read.values ?? []) : Array.from({ length: counts }, (_, i) => from + i);
        return (
          <Roving
            key={read.id}
            className="chips"
            role="group"
            aria-label={read.label}
            style={{ alignItems: 'center' }}
          >
            <span className="soft" style={{ width: 72 }}>
              {read.label}
            </span>
            {options.map((option) => (
              <ButtonBase
                key={option}
                className="chip"
                aria-pressed={String(reads[read.id]) === String(option)}
                onClick={() => put(read.id, String(reads[read.id]) === String(option) ? undefined : option)}
              >
                {String(option).replaceAll('-', ' ')}
              </ButtonBase>
            ))}
          </Roving>
        );
      })}
    </div>
  );
}
