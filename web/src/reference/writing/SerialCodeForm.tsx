/** The parts of a serial: its form, and the number in it. */
import { NumberInput } from '../../parts/fields/figures.tsx';
import { Select } from '../../parts/fields/choices.tsx';
import { TextInput } from '../../parts/fields/TextInput.tsx';
import { given, named } from './formParts.tsx';
import type { AnyCode, Props } from './codeParts.ts';

const SHAPE = /^\^(?<before>[A-Za-z0-9 -]*)\(\\d(?:\{(?<digits>\d+)\}|\+)\)(?<after>[A-Za-z0-9 -]*)\$$/;
const formatOf = (before: string, digits: number | undefined, after: string) =>
  `^${before}(\\d${digits === undefined ? '+' : `{${digits}}`})${after}$`;

export function SerialParts({ value, set, words }: Props) {
  const parts = SHAPE.exec(value.format ?? '')?.groups;
  const { before = '', after = '' } = parts ?? {};
  const digits = parts?.['digits'] === undefined ? undefined : Number(parts['digits']);
  const put = (b: string, d: number | undefined, a: string) => set({ format: formatOf(b, d, a), number: 1 });
  return (
    <>
      {parts ? (
        <div className="across">
          <TextInput
            label="Before the number"
            at="/format"
            mono
            value={before}
            onChange={(b) => put(b, digits, after)}
          />
          <NumberInput
            label="Digits"
            why="Empty: any number of them."
            at="/number"
            value={digits}
            onChange={(d) => put(before, d ?? undefined, after)}
          />
          <TextInput
            label="After the number"
            at="/format"
            mono
            value={after}
            onChange={(a) => put(before, digits, a)}
          />
        </div>
      ) : (
        <div className="across">
          <TextInput
            label="Form"
            why="A regular expression of the whole serial."
            at="/format"
            mono
            value={value.format}
            onChange={(format) => set({ format })}
          />
          <NumberInput
            label="Group of the number"
            at="/number"
            value={value.number}
            onChange={(n) => set({ number: n ?? 1 })}
          />
          <NumberInput
            label="Group of the run"
            why="Where the size of the run stands beside it: “88 of 1,200”."
            at="/runGroup"
            value={value.runGroup}
            onChange={(n) => set(given('runGroup', n) as Partial<AnyCode>)}
          />
        </div>
      )}
      <Select
        label="Pattern"
        why="The pattern whose numbered runs it counts."
        at="/pattern"
        none="Any"
        value={value.pattern}
        options={named(words.patterns.filter((p) => value.maker == null || p.maker === value.maker))}
        onChange={(pattern) => set(given('pattern', pattern) as Partial<AnyCode>)}
      />
    </>
  );
}
