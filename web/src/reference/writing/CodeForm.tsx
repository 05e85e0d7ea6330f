/** The code editor: what is read from the stamp, and what that means, without writing a program. */
import { Select } from '../../parts/fields/choices.tsx';
import { TextInput } from '../../parts/fields/TextInput.tsx';
import type { Code } from '@jutbank/core/reference';
import { Citation, given, named, type FormProps } from './formParts.tsx';
import type { AnyCode, Props } from './codeParts.ts';
import { DateParts } from './DateCodeForm.tsx';
import { Segments } from './NumberCodeForm.tsx';
import { SerialParts } from './SerialCodeForm.tsx';

const BLANK: Record<Code['kind'], Record<string, unknown>> = {
  date: { reads: [], rules: [], segments: undefined, format: undefined, number: undefined },
  'pattern-number': {
    segments: [],
    reads: undefined,
    rules: undefined,
    format: undefined,
    number: undefined,
  },
  serial: { format: '^(\\d+)$', number: 1, reads: undefined, rules: undefined, segments: undefined },
};

export function CodeForm({ value, set, words }: FormProps<Code>) {
  const code = value as AnyCode;
  const put = set as (patch: Partial<AnyCode>) => void;
  const props: Props = { value: code, set: put, words };
  return (
    <>
      <TextInput
        label="Title"
        why="“Tick marks”, “Pattern stamp”."
        at="/title"
        value={value.title}
        onChange={(title) => put(given('title', title) as Partial<AnyCode>)}
      />
      <Select
        label="Maker"
        at="/maker"
        none="Nobody’s in particular"
        value={value.maker}
        options={named(words.makers)}
        onChange={(maker) => put(given('maker', maker) as Partial<AnyCode>)}
      />
      <Select
        label="Kind"
        why="Signs that give a year, a number that spells the pattern, or a running number."
        at="/kind"
        value={value.kind}
        options={[
          { value: 'date', label: 'Date code' },
          { value: 'pattern-number', label: 'Pattern number' },
          { value: 'serial', label: 'Serial number' },
        ]}
        onChange={(kind) =>
          kind && put({ kind, ...BLANK[kind as Code['kind']] } as unknown as Partial<AnyCode>)
        }
      />
      {value.kind === 'date' && <DateParts {...props} />}
      {value.kind === 'pattern-number' && <Segments {...props} />}
      {value.kind === 'serial' && <SerialParts {...props} />}
      <Citation value={value} set={put as never} words={words} />
    </>
  );
}
