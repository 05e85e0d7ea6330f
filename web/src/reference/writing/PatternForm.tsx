/** The form of a pattern: its numbers, sizes and how many were made. */
import { LinesInput, TextInput } from '../../parts/fields/TextInput.tsx';
import { Rows } from '../../parts/fields/Rows.tsx';
import { Select, optionsOf } from '../../parts/fields/choices.tsx';
import { SizeInput } from '../../parts/fields/figures.tsx';
import { outlineIn, outlineLines } from './outline.ts';
import { DrawingForm } from './DrawingForm.tsx';
import { Varieties } from './FeatureValues.tsx';
import { CONSTRUCTIONS, type Pattern } from '@jutbank/core/reference';
import { dimensionOfUnit } from '@jutbank/core/units';
import { CONSTRUCTION_WORDS } from '../../parts/words.ts';
import { given, named, type FormProps } from './formParts.tsx';

export function PatternForm({ value, set, words }: FormProps<Pattern>) {
  return (
    <>
      <Select
        label="Maker"
        at="/maker"
        value={value.maker}
        options={named(words.makers)}
        onChange={(maker) => set(given('maker', maker))}
      />
      <TextInput label="Name" at="/name" value={value.name} onChange={(name) => set({ name })} />
      <TextInput
        label="Number"
        why="As the pattern stamp spells it, so that a code can lead here."
        at="/number"
        mono
        value={value.number}
        onChange={(number) => set(given('number', number))}
      />
      <Select
        label="Construction"
        at="/construction"
        value={value.construction}
        options={optionsOf(CONSTRUCTIONS, (c) => CONSTRUCTION_WORDS[c])}
        onChange={(construction) => set(given('construction', construction) as Partial<Pattern>)}
      />
      <Measures value={value} set={set} words={words} />
      <LinesInput
        label="Blade outline"
        why="When new, in mm, a point to a line: along from the tang, then down from the spine. Worn blades are laid on it."
        at="/outline"
        mono
        rows={3}
        maxRows={6}
        value={outlineLines(value.outline)}
        onChange={(lines) => set(given('outline', outlineIn(lines)) as Partial<Pattern>)}
      />
      <Varieties
        value={value}
        set={set}
        words={words}
        of={(f) =>
          !f.constructions ||
          (value.construction !== undefined && f.constructions.includes(value.construction))
        }
      />
      <DrawingForm value={value} set={set} words={words} />
      <YearCounts
        label="Made by year"
        why="How many of all forms together: the share of each form follows from its window."
        at="/madeByYear"
        value={value.madeByYear}
        onChange={(madeByYear) => set(given('madeByYear', madeByYear))}
      />
    </>
  );
}

type Measured = { measures?: Pattern['measures'] };
export function Measures({ value, set, words }: FormProps<Measured>) {
  const measures = words.features.filter((f) => f.kind === 'measure');
  const rows = Object.entries(value.measures ?? {});
  return (
    <Rows
      title="Nominal sizes"
      why="New and unworn. The tolerance holds 95 of 100 new pieces."
      items={rows.map(([id, m]) => ({
        id,
        value: m.value as number | undefined,
        tolerance: m.tolerance ?? undefined,
      }))}
      fresh={() => ({
        id: measures.find((f) => !rows.some(([id]) => id === f.id))?.id ?? '',
        value: undefined,
        tolerance: undefined,
      })}
      add="size"
      onChange={(items) =>
        set({
          measures: Object.fromEntries(
            items.map((m) => [
              m.id,
              { value: m.value as number, ...(m.tolerance === undefined ? {} : { tolerance: m.tolerance }) },
            ]),
          ),
        })
      }
    >
      {(item, patch, i) => {
        const feature = measures.find((f) => f.id === item.id);
        const dimension = dimensionOfUnit(feature?.unit);
        return (
          <div className="across">
            <Select
              label={`Size ${i + 1}`}
              at={`/measures/${item.id}`}
              value={item.id}
              options={named(measures)}
              onChange={(id) => patch({ id: id ?? '' })}
            />
            <SizeInput
              label="Nominal"
              at={`/measures/${item.id}/value`}
              dimension={dimension}
              value={item.value}
              onChange={(v) => patch({ value: v })}
            />
            <SizeInput
              label="Tolerance ±"
              at={`/measures/${item.id}/tolerance`}
              dimension={dimension}
              value={item.tolerance}
              onChange={(v) => patch({ tolerance: v })}
            />
          </div>
        );
      }}
    </Rows>
  );
}

/** `1934: 3000` line by line. */
export function YearCounts({
  value,
  onChange,
  ...row
}: {
  label: string;
  why: string;
  at: string;
  value: Readonly<Record<string, number>> | null | undefined;
  onChange: (value: Record<string, number> | undefined) => void;
}) {
  return (
    <LinesInput
      {...row}
      mono
      rows={3}
      value={Object.entries(value ?? {}).map(([year, n]) => `${year}: ${n}`)}
      onChange={(lines) => {
        const pairs = (lines ?? []).flatMap((l) => {
          const [year = '', n = ''] = l.split(':').map((x) => x.trim().replaceAll(' ', ''));
          return year === '' ? [] : [[year, Number(n)] as const];
        });
        onChange(pairs.length === 0 ? undefined : Object.fromEntries(pairs));
      }}
    />
  );
}
