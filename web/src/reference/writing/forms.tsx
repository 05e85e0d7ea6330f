/** One form for each kind of thing a reference holds; every field says why it matters. */
import {
  DateInput,
  LinesInput,
  MultiSelect,
  NumberInput,
  Rows,
  Select,
  SizeInput,
  TextInput,
  optionsOf,
} from '../../parts/fields/index.ts';
import { Varieties } from './FeatureValues.tsx';
import {
  CONSTRUCTIONS,
  EFFORTS,
  SOURCE_KINDS,
  STAMPED_AFTERWARDS,
  STORY_VERDICTS,
  SWAP_CLASSES,
  type DatedWindow,
  type Feature,
  type FeatureValue,
  type Maker,
  type Mark,
  type MarkHistory,
  type Pattern,
  type Source,
  type Story,
} from '@jutbank/core/reference';
import { dimensionOfUnit } from '@jutbank/core/units';
import { CONSTRUCTION_WORDS } from '../../parts/words.ts';
import { Citation, given, named, type FormProps } from './formParts.tsx';
import { slugOf } from './draft.ts';

export function SourceForm({ value, set }: FormProps<Source>) {
  return (
    <>
      <TextInput
        label="Title"
        at="/title"
        why="As it stands on the cover."
        value={value.title}
        onChange={(title) => set({ title })}
      />
      <Select
        label="Kind"
        why="A works record outweighs what somebody once heard."
        at="/kind"
        value={value.kind}
        options={optionsOf(SOURCE_KINDS)}
        onChange={(kind) => set(given('kind', kind) as Partial<Source>)}
      />
      <DateInput
        label="Published"
        why="A source cannot know what came after it."
        at="/published"
        value={value.published}
        onChange={(published) => set(given('published', published))}
      />
      <NumberInput
        label="Reliability"
        why="0 to 1: how often a statement of it holds. Decides whom to believe where two disagree."
        at="/reliability"
        value={value.reliability}
        onChange={(reliability) => set(given('reliability', reliability))}
      />
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

export function MakerForm({ value, set, words }: FormProps<Maker>) {
  return (
    <>
      <TextInput label="Name" at="/name" value={value.name} onChange={(name) => set({ name })} />
      <TextInput
        label="Place"
        at="/place"
        value={value.place}
        onChange={(place) => set(given('place', place))}
      />
      <DateInput
        label="Active"
        why="Bounds every date of this maker; leave the end open if it still works."
        at="/active"
        value={value.active}
        onChange={(active) => set(given('active', active))}
      />
      <LinesInput
        label="Also known as"
        why="One name to a line: the search finds it under each."
        at="/aliases"
        rows={2}
        value={value.aliases}
        onChange={(aliases) => set(given('aliases', aliases))}
      />
      <Varieties
        value={value}
        set={set}
        words={words}
        of={(f) =>
          !f.constructions ||
          words.patterns.some((p) => p.maker === value.id && f.constructions?.includes(p.construction))
        }
      />
    </>
  );
}

export function FeatureForm({ value, set }: FormProps<Feature>) {
  return (
    <>
      <TextInput
        label="Label"
        at="/label"
        why="What one looks at: “Lanyard fitting”."
        value={value.label}
        onChange={(label) => set({ label })}
      />
      <TextInput
        label="Part"
        why="Features of one part move together when the part is exchanged."
        at="/part"
        value={value.part}
        onChange={(part) => set({ part })}
      />
      <Select
        label="Kind"
        why="A choice among values, a count, a size, or free text."
        at="/kind"
        value={value.kind}
        options={optionsOf(['category', 'count', 'measure', 'text'])}
        onChange={(kind) => set(given('kind', kind) as Partial<Feature>)}
      />
      {value.kind === 'category' && (
        <Rows
          title="Values"
          why="What can be seen, as the bench offers it under the number keys."
          items={value.values ?? []}
          fresh={(): FeatureValue => ({ id: '', label: '' })}
          add="value"
          onChange={(values) => set({ values })}
        >
          {(item, patch, i) => (
            <>
              <TextInput
                label={`Value ${i + 1}`}
                at={`/values/${i}`}
                value={item.label}
                onChange={(label) =>
                  // an id once saved is what others refer to: it follows the label only while it is new
                  patch(
                    item.id === '' || item.id === slugOf(item.label)
                      ? { label, id: slugOf(label) }
                      : { label },
                  )
                }
              />
              <MultiSelect
                label="Material"
                at={`/values/${i}/vapour`}
                value={item.vapour ? ['vapour'] : []}
                options={[{ value: 'vapour', label: 'gives off vapour: keep it apart' }]}
                onChange={(chosen) => patch({ vapour: chosen === undefined ? undefined : true })}
              />
            </>
          )}
        </Rows>
      )}
      {value.kind === 'measure' && (
        <>
          <Select
            label="Unit"
            at="/unit"
            value={value.unit}
            options={[
              { value: 'mm', label: 'Length, in mm' },
              { value: 'g', label: 'Mass, in g' },
              { value: 'deg', label: 'Angle, in degrees' },
            ]}
            onChange={(unit) => set(given('unit', unit) as Partial<Feature>)}
          />
          <Select
            label="Wear"
            why="A blade loses length to sharpening: a short one may still be right, a long one not."
            at="/wear"
            none="None"
            value={value.wear}
            options={optionsOf(['shrinks', 'grows'])}
            onChange={(wear) => set(given('wear', wear) as Partial<Feature>)}
          />
        </>
      )}
      <Select
        label="Exchanged"
        why="How easily the part is exchanged: decides whether a misfit means another variant or another part."
        at="/swap"
        none="Hard (if not told)"
        value={value.swap}
        options={optionsOf(SWAP_CLASSES)}
        onChange={(swap) => set(given('swap', swap) as Partial<Feature>)}
      />
      <Select
        label="Effort"
        why="Puts it in bench order: glance before open, loupe before gauge, strip last."
        at="/effort"
        none="Glance (if not told)"
        value={value.effort}
        options={optionsOf(EFFORTS)}
        onChange={(effort) => set(given('effort', effort) as Partial<Feature>)}
      />
      <MultiSelect
        label="Applies to"
        why="None chosen: everywhere. A feature a construction cannot have speaks against it."
        at="/constructions"
        value={value.constructions}
        options={optionsOf(CONSTRUCTIONS, (c) => CONSTRUCTION_WORDS[c])}
        onChange={(constructions) => set(given('constructions', constructions) as Partial<Feature>)}
      />
      <TextInput
        label="Question"
        why="What the bench asks, for somebody who has never seen one."
        at="/ask"
        rows={2}
        value={value.ask}
        onChange={(ask) => set(given('ask', ask))}
      />
    </>
  );
}

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
        value={(value.outline ?? []).map(([x, y]) => `${x} ${y}`)}
        onChange={(lines) => {
          const points = (lines ?? []).map((l): [number, number] => {
            const [x = NaN, y = NaN] = l
              .trim()
              .split(/[\s,;]+/)
              .map(Number);
            return [x, y];
          });
          set(given('outline', points.length === 0 ? undefined : points) as Partial<Pattern>);
        }}
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

export function StoryForm({ value, set, words }: FormProps<Story>) {
  return (
    <>
      <TextInput
        label="What is told"
        at="/told"
        rows={3}
        value={value.told}
        onChange={(told) => set({ told })}
      />
      <Select
        label="Verdict"
        why="A refuted story is kept, so that it is not told again in a listing."
        at="/verdict"
        value={value.verdict}
        options={[
          { value: 'open', label: 'Open question' },
          { value: 'supported', label: 'Supported' },
          { value: 'refuted', label: 'Refuted' },
        ].filter((o) => STORY_VERDICTS.some((v) => v === o.value))}
        onChange={(verdict) => set(given('verdict', verdict) as Partial<Story>)}
      />
      <Select
        label="Maker"
        at="/maker"
        none="–"
        value={value.maker}
        options={named(words.makers)}
        onChange={(maker) => set(given('maker', maker))}
      />
      <Select
        label="Pattern"
        at="/pattern"
        none="–"
        value={value.pattern}
        options={named(words.patterns)}
        onChange={(pattern) => set(given('pattern', pattern))}
      />
      <TextInput
        label="Because"
        why="What speaks for or against it."
        at="/because"
        rows={2}
        value={value.because}
        onChange={(because) => set(given('because', because))}
      />
      <Citation value={value} set={set} words={words} />
    </>
  );
}
