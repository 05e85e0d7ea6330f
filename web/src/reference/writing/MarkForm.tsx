/** Forms of what dates a piece: stamps, and the windows of features. */
import { DateInput, NumberInput } from '../../parts/fields/figures.tsx';
import { LinesInput, TextInput } from '../../parts/fields/TextInput.tsx';
import { MultiSelect, Select, optionsOf } from '../../parts/fields/choices.tsx';
import { STAMPED_AFTERWARDS, type DatedWindow, type Mark, type MarkHistory } from '@jutbank/core/reference';
import { Citation, given, named, type FormProps } from './formParts.tsx';

export function MarkForm({ value, set, words }: FormProps<Mark>) {
  const codes = words.codes.filter((c) => c.maker == null || value.maker == null || c.maker === value.maker);
  return (
    <>
      <Select
        label="Maker"
        at="/maker"
        none="Nobody’s in particular"
        value={value.maker}
        options={named(words.makers)}
        onChange={(maker) => set(given('maker', maker))}
      />
      <LinesInput
        label="Lines"
        why="Line by line as it stands in the metal: their number alone can part two eras."
        at="/lines"
        mono
        value={value.lines}
        onChange={(lines) => set({ lines: lines ?? [] })}
      />
      <Select
        label="Lettering"
        at="/lettering"
        none="Not told"
        value={value.lettering}
        options={optionsOf(['upright-block', 'slanted-block', 'serif', 'script', 'arched'])}
        onChange={(lettering) => set(given('lettering', lettering))}
      />
      <Select
        label="Place"
        why="A stamp in another place is another stamp."
        at="/place"
        none="Not told"
        value={value.place}
        options={optionsOf(['tang-front', 'tang-back', 'blade', 'ricasso', 'pommel', 'guard', 'sheath'])}
        onChange={(place) => set(given('place', place))}
      />
      <DateInput
        label="Used"
        why="From when to when this stamp was struck."
        at="/window"
        value={value.window}
        onChange={(window) => set(given('window', window))}
      />
      <MonthsLine value={value.carryOver} onChange={(carryOver) => set(given('carryOver', carryOver))} />
      <MultiSelect
        label="Codes on it"
        why="Signs that stand with this stamp and are read by a code."
        at="/codes"
        value={value.codes}
        options={codes.map((c) => ({ value: c.id, label: c.title ?? c.id }))}
        onChange={(chosen) => set(given('codes', chosen))}
      />
      <Select
        label="Struck afterwards"
        why="On a finished piece that came back: history, not damage. It bounds the making only from above."
        at="/history/what"
        none="No, when it was made"
        value={value.history?.what}
        options={optionsOf(STAMPED_AFTERWARDS)}
        onChange={(what) =>
          set({
            history: what === null ? undefined : ({ ...value.history, what } as MarkHistory),
          } as Partial<Mark>)
        }
      />
      {value.history != null && (
        <MultiSelect
          label="Changed with it"
          why="What these show no longer speaks for the piece as it was made."
          at="/history/changes"
          value={value.history.changes}
          options={named(words.features)}
          onChange={(changes) =>
            set({ history: { ...value.history, ...given('changes', changes) } as MarkHistory })
          }
        />
      )}
      <Citation value={value} set={set} words={words} />
    </>
  );
}

/** Months of carry-over, kept as an ISO 8601 duration. */
function MonthsLine({
  value,
  onChange,
}: {
  value: string | null | undefined;
  onChange: (iso: string | undefined) => void;
}) {
  const months = /^P(\d+)M$/.exec(value ?? '')?.[1] ?? /^P(\d+)Y$/.exec(value ?? '')?.[1];
  return (
    <NumberInput
      label="Carry-over, months"
      why="How long old stock may have been used up afterwards. Widens only the outer bracket."
      at="/carryOver"
      value={months === undefined ? undefined : Number(months) * (value?.endsWith('Y') ? 12 : 1)}
      onChange={(n) => onChange(n === null || n === 0 ? undefined : `P${n}M`)}
    />
  );
}

export function WindowForm({ value, set, words }: FormProps<DatedWindow>) {
  const feature = words.features.find((f) => f.id === value.feature);
  return (
    <>
      <Select
        label="Maker"
        why="None: it holds for everybody."
        at="/maker"
        none="Everybody"
        value={value.maker}
        options={named(words.makers)}
        onChange={(maker) => set(given('maker', maker))}
      />
      <Select
        label="Pattern"
        why="The narrowest scope that dates a value counts."
        at="/pattern"
        none="All patterns of the maker"
        value={value.pattern}
        options={named(words.patterns.filter((p) => value.maker == null || p.maker === value.maker))}
        onChange={(pattern) => set(given('pattern', pattern))}
      />
      <Select
        label="Feature"
        at="/feature"
        value={value.feature}
        options={named(words.features.filter((f) => f.kind !== 'measure'))}
        onChange={(id) => set({ ...given('feature', id), value: '' })}
      />
      {feature?.kind === 'category' ? (
        <Select
          label="Value"
          at="/value"
          value={value.value === undefined ? undefined : String(value.value)}
          options={named(feature.values ?? [])}
          onChange={(v) => set(given('value', v) as Partial<DatedWindow>)}
        />
      ) : feature?.kind === 'count' ? (
        <NumberInput
          label="Value"
          at="/value"
          value={typeof value.value === 'number' ? value.value : undefined}
          onChange={(n) => set(given('value', n) as Partial<DatedWindow>)}
        />
      ) : (
        <TextInput
          label="Value"
          at="/value"
          value={value.value === undefined ? '' : String(value.value)}
          onChange={(v) => set({ value: v })}
        />
      )}
      <DateInput
        label="Used"
        why="The change-over dates everything: a floor for the new form, a ceiling for the old."
        at="/window"
        value={value.window}
        onChange={(window) => set({ window: window ?? '' })}
      />
      <MonthsLine value={value.carryOver} onChange={(carryOver) => set(given('carryOver', carryOver))} />
      <Citation value={value} set={set} words={words} />
      <TextInput
        label="Note"
        at="/note"
        rows={2}
        value={value.note}
        onChange={(note) => set(given('note', note))}
      />
    </>
  );
}
