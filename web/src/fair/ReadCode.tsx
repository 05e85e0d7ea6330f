/** A date code at the table: each of its signs, then it is read. */
import { Button } from '@mui/material';
import { useState } from 'react';
import type { FairCheck } from '@jutbank/core/fair';
import type { CodeRead } from '@jutbank/core/reference';
import { Select } from '../parts/fields/choices.tsx';
import { TextInput } from '../parts/fields/TextInput.tsx';
import { inWords, sentence } from '../parts/words.ts';
import type { Seen } from './table.ts';

/** Counts go so far where the code sets no limit; a list of more is typed. */
const USUAL_MOST = 12;
const MOST_LISTED = 40;
const isTyped = (read: CodeRead): boolean =>
  read.type === 'count' && read.max != null && read.max - (read.min ?? 0) > MOST_LISTED;

export function ReadCode({
  ask,
  code,
  onSee,
}: {
  ask: string;
  code: NonNullable<FairCheck['code']>;
  onSee: (seen: Seen) => void;
}) {
  const [reads, setReads] = useState<Readonly<Record<string, string>>>({});
  const give = (read: CodeRead, value: string) => {
    const { [read.id]: _, ...rest } = reads;
    setReads(value === '' ? rest : { ...rest, [read.id]: value });
  };
  const given = code.reads.filter((read) => reads[read.id] !== undefined);
  return (
    <div className="readcode">
      {code.reads.map((read) =>
        isTyped(read) ? (
          <TextInput
            key={read.id}
            label={read.label}
            inputMode="numeric"
            value={reads[read.id] ?? ''}
            onChange={(value) => give(read, value.replace(/\D/g, ''))}
          />
        ) : (
          <Select
            key={read.id}
            label={read.label}
            value={reads[read.id] ?? ''}
            none="not seen"
            options={valuesOf(read).map((value) => ({ value, label: sentence(value) }))}
            onChange={(value) => give(read, value ?? '')}
          />
        ),
      )}
      <Button
        variant="contained"
        disabled={given.length === 0}
        onClick={() =>
          onSee({
            label: `${ask.replace(/:.*$/, '')}: ${given.map((read) => `${read.label.toLowerCase()} ${inWords(reads[read.id] ?? '')}`).join(', ')}`,
            make: {
              code: code.id,
              reads: Object.fromEntries(
                given.map((read) => [
                  read.id,
                  read.type === 'count' ? Number(reads[read.id]) : (reads[read.id] ?? ''),
                ]),
              ),
            },
          })
        }
      >
        Read
      </Button>
    </div>
  );
}

function valuesOf(read: CodeRead): string[] {
  if (read.type === 'choice') return read.values ?? [];
  const from = read.min ?? 0;
  const to = read.max ?? Math.max(from, USUAL_MOST);
  return Array.from({ length: to - from + 1 }, (_, i) => String(from + i));
}
