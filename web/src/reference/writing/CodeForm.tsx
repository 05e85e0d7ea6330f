/** The code editor: what is read from the stamp, and what that means, without writing a program. */
import { DateInput, MultiSelect, NumberInput, Rows, Select, TextInput } from '../../parts/fields/index.ts';
import { useState } from 'react';
import {
  impliedValues,
  type ImpliedFeature,
  type Code,
  type CodeRead,
  type CodeRule,
  type DateCode,
  type PatternNumberCode,
  type Segment,
  type SerialCode,
  type YearRule,
} from '@jutbank/core/reference';
import { Citation, given, named, type FormProps } from './formParts.tsx';
import { slugOf } from './draft.ts';

type AnyCode = Partial<DateCode> & Partial<PatternNumberCode> & Partial<SerialCode>;
type Props = FormProps<AnyCode>;

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

function DateParts({ value, set }: Props) {
  const reads = value.reads ?? [];
  const rules = value.rules ?? [];
  return (
    <>
      <Rows
        title="Reads"
        why="What one takes from the metal: something counted, or one of several."
        items={reads}
        fresh={(): CodeRead => ({ id: '', label: '', type: 'count', min: 0, max: 9 })}
        add="read"
        onChange={(next) => set({ reads: next })}
      >
        {(read, patch, i) => (
          <>
            <div className="across">
              <TextInput
                label={`Read ${i + 1}`}
                at={`/reads/${i}`}
                value={read.label}
                onChange={(label) =>
                  patch(
                    read.id === '' || read.id === slugOf(read.label)
                      ? { label, id: slugOf(label) }
                      : { label },
                  )
                }
              />
              <Select
                label="Is"
                at={`/reads/${i}/type`}
                value={read.type}
                options={[
                  { value: 'count', label: 'Counted' },
                  { value: 'choice', label: 'One of' },
                ]}
                onChange={(type) =>
                  patch(
                    type === 'choice'
                      ? { type, min: undefined, max: undefined, values: [] }
                      : { type: 'count', min: 0, max: 9, values: undefined },
                  )
                }
              />
            </div>
            {read.type === 'count' ? (
              <div className="across">
                <NumberInput
                  label="From"
                  at={`/reads/${i}/min`}
                  value={read.min}
                  onChange={(min) => patch(given('min', min))}
                />
                <NumberInput
                  label="To"
                  at={`/reads/${i}/max`}
                  value={read.max}
                  onChange={(max) => patch(given('max', max))}
                />
              </div>
            ) : (
              <CommaList
                label="Values"
                at={`/reads/${i}/values`}
                value={read.values ?? []}
                onChange={(values) => patch({ values })}
              />
            )}
          </>
        )}
      </Rows>
      <Rows
        title="Rules"
        why="Which arrangement counts from which year. A stamp that several rules read has several readings."
        items={rules}
        fresh={(): CodeRule => ({
          year: { base: 1900, plus: reads.find((r) => r.type === 'count')?.id ?? '' },
        })}
        add="rule"
        onChange={(next) => set({ rules: next })}
      >
        {(rule, patch, i) => <Rule rule={rule} reads={reads} patch={patch} i={i} />}
      </Rows>
    </>
  );
}

function CommaList({
  label,
  at,
  value,
  onChange,
}: {
  label: string;
  at: string;
  value: readonly string[];
  onChange: (value: string[]) => void;
}) {
  const [typed, setTyped] = useState(value.join(', '));
  return (
    <TextInput
      label={label}
      at={at}
      why="Parted by commas."
      mono
      value={typed}
      onChange={(text) => {
        setTyped(text);
        onChange(
          text
            .split(',')
            .map((v) => v.trim())
            .filter(Boolean),
        );
      }}
    />
  );
}

type Way = 'plus' | 'minus' | 'letters' | 'digits' | 'ranges' | 'table';
const WAYS: readonly { value: Way; label: string }[] = [
  { value: 'plus', label: 'A year plus a count' },
  { value: 'minus', label: 'A year minus a count' },
  { value: 'letters', label: 'Letters in order' },
  { value: 'digits', label: 'The year’s last digits' },
  { value: 'ranges', label: 'Ranges of a serial' },
  { value: 'table', label: 'A table' },
];
const wayOf = (year: YearRule): Way => WAYS.find((w) => w.value in year)?.value ?? 'plus';

function freshYear(way: Way, reads: readonly CodeRead[]): YearRule {
  const counted = reads.find((r) => r.type === 'count')?.id ?? '';
  const chosen = reads.find((r) => r.type === 'choice')?.id ?? counted;
  switch (way) {
    case 'plus':
      return { base: 1900, plus: counted };
    case 'minus':
      return { base: 1900, minus: counted };
    case 'letters':
      return { letters: '', base: 1900, read: chosen };
    case 'digits':
      return { digits: counted, century: 1900 };
    case 'ranges':
      return { ranges: [], read: counted };
    case 'table':
      return { table: {}, read: chosen };
  }
}

function Rule({
  rule,
  reads,
  patch,
  i,
}: {
  rule: CodeRule;
  reads: readonly CodeRead[];
  patch: (patch: Partial<CodeRule>) => void;
  i: number;
}) {
  const at = `/rules/${i}`;
  const year = rule.year;
  const put = (next: YearRule) => patch({ year: next });
  const which = (label: string, current: string, of: (id: string) => YearRule) => (
    <Select
      label={label}
      at={`${at}/year`}
      value={current}
      options={reads.map((r) => ({ value: r.id, label: r.label }))}
      onChange={(id) => put(of(id ?? ''))}
    />
  );
  return (
    <>
      <div className="across">
        {reads
          .filter(
            (r) =>
              r.type === 'count' &&
              !(
                ('plus' in year && year.plus === r.id) ||
                ('minus' in year && year.minus === r.id) ||
                ('digits' in year && year.digits === r.id)
              ),
          )
          .map((r) => (
            <NumberInput
              key={r.id}
              label={`When ${r.label.toLowerCase()} is`}
              why="Empty: any."
              at={`${at}/when/${r.id}`}
              value={rule.when?.[r.id] === undefined ? undefined : Number(rule.when[r.id])}
              onChange={(n) => {
                const others = Object.entries(rule.when ?? {}).filter(([key]) => key !== r.id);
                patch({ when: Object.fromEntries(n === null ? others : [...others, [r.id, n]]) });
              }}
            />
          ))}
        {reads
          .filter((r) => r.type === 'choice')
          .map((r) => (
            <Select
              key={r.id}
              label={`When ${r.label.toLowerCase()} is`}
              at={`${at}/when/${r.id}`}
              none="Any"
              value={rule.when?.[r.id] === undefined ? undefined : String(rule.when[r.id])}
              options={(r.values ?? []).map((v) => ({ value: v, label: v }))}
              onChange={(v) => {
                const others = Object.entries(rule.when ?? {}).filter(([key]) => key !== r.id);
                patch({ when: Object.fromEntries(v === null ? others : [...others, [r.id, v]]) });
              }}
            />
          ))}
        <Select
          label="The year is"
          at={`${at}/year`}
          value={wayOf(year)}
          options={WAYS}
          onChange={(way) => put(freshYear((way ?? 'plus') as Way, reads))}
        />
      </div>
      <div className="across" key={wayOf(year)}>
        {'base' in year && (
          <NumberInput
            label={'letters' in year ? 'First letter is' : 'Year'}
            at={`${at}/year/base`}
            value={year.base}
            onChange={(base) => put({ ...year, base: base ?? 0 })}
          />
        )}
        {'plus' in year && which('Plus', year.plus, (plus) => ({ ...year, plus }))}
        {'minus' in year && which('Minus', year.minus, (minus) => ({ ...year, minus }))}
        {'letters' in year && (
          <>
            <TextInput
              label="Letters"
              why="In order; leave out those that were skipped."
              at={`${at}/year/letters`}
              mono
              value={year.letters}
              onChange={(letters) => put({ ...year, letters: letters.replaceAll(' ', '') })}
            />
            {which('Read', year.read, (read) => ({ ...year, read }))}
          </>
        )}
        {'digits' in year && (
          <>
            <NumberInput
              label="Century"
              at={`${at}/year/century`}
              value={year.century}
              onChange={(century) => put({ ...year, century: century ?? 0 })}
            />
            {which('Digits', year.digits, (digits) => ({ ...year, digits }))}
          </>
        )}
        {('ranges' in year || 'table' in year) && which('Read', year.read, (read) => ({ ...year, read }))}
      </div>
      <div className="across">
        <Select
          label="And the month is"
          at={`${at}/month`}
          none="Not told"
          value={rule.month?.read}
          options={reads.map((r) => ({ value: r.id, label: r.label }))}
          onChange={(read) =>
            patch({
              month:
                read === null
                  ? undefined
                  : reads.find((r) => r.id === read)?.type === 'choice'
                    ? { letters: 'ABCDEFGHJKLM', read }
                    : { read },
            })
          }
        />
        {rule.month != null && 'letters' in rule.month && (
          <TextInput
            label="Letters of the months"
            why="From January on, in order."
            at={`${at}/month/letters`}
            mono
            value={rule.month.letters}
            onChange={(letters) => {
              if (rule.month != null)
                patch({ month: { letters: letters.replaceAll(' ', ''), read: rule.month.read } });
            }}
          />
        )}
      </div>
      {'ranges' in year && (
        <Rows
          title="Ranges"
          items={year.ranges}
          fresh={() => ({ from: (year.ranges.at(-1)?.to ?? 0) + 1, to: 0, window: '' })}
          add="range"
          onChange={(ranges) => put({ ...year, ranges })}
        >
          {(range, change, k) => (
            <div className="across">
              <NumberInput
                label={`From ${k + 1}`}
                at={`${at}/year/ranges/${k}/from`}
                value={range.from}
                onChange={(n) => change({ from: n ?? 0 })}
              />
              <NumberInput
                label="To"
                at={`${at}/year/ranges/${k}/to`}
                value={range.to}
                onChange={(n) => change({ to: n ?? 0 })}
              />
              <DateInput
                label="Made"
                at={`${at}/year/ranges/${k}/window`}
                value={range.window}
                onChange={(w) => change({ window: w ?? '' })}
              />
            </div>
          )}
        </Rows>
      )}
      {'table' in year && (
        <Rows
          title="Signs"
          items={Object.entries(year.table)}
          fresh={(): [string, string] => ['', '']}
          add="sign"
          onChange={(rows) => put({ ...year, table: Object.fromEntries(rows.map((r) => [r[0], r[1]])) })}
        >
          {(row, change, k) => (
            <div className="across">
              <TextInput
                label={`Sign ${k + 1}`}
                at={`${at}/year/table`}
                mono
                value={row[0]}
                onChange={(sign) => change([sign, row[1]])}
              />
              <DateInput
                label="Made"
                at={`${at}/year/table/${row[0]}`}
                value={row[1]}
                onChange={(w) => change([row[0], w ?? ''])}
              />
            </div>
          )}
        </Rows>
      )}
    </>
  );
}

function Segments({ value, set, words }: Props) {
  const counts = words.features.filter((f) => f.kind === 'count');
  return (
    <Rows
      title="Segments"
      why="From left to right; the stamp must be used up by them."
      items={value.segments ?? []}
      fresh={(): Segment => ({ id: '', table: {} })}
      add="segment"
      onChange={(segments) => set({ segments })}
    >
      {(segment, patch, i) => {
        const at = `/segments/${i}`;
        const byDigits = segment.digits != null;
        return (
          <>
            <div className="across">
              <TextInput
                label={`Segment ${i + 1}`}
                at={`${at}/id`}
                value={segment.id}
                onChange={(id) => patch({ id })}
              />
              <Select
                label="Is read by"
                at={at}
                value={segment.literal != null ? 'literal' : byDigits ? 'digits' : 'table'}
                options={[
                  { value: 'table', label: 'Signs with a meaning' },
                  { value: 'digits', label: 'Digits' },
                  { value: 'literal', label: 'The same in every stamp' },
                ]}
                onChange={(by) =>
                  patch(
                    by === 'digits'
                      ? { digits: 1, table: undefined, literal: undefined }
                      : by === 'literal'
                        ? {
                            literal: '-',
                            digits: undefined,
                            feature: undefined,
                            pattern: undefined,
                            table: undefined,
                          }
                        : {
                            literal: undefined,
                            digits: undefined,
                            feature: undefined,
                            pattern: undefined,
                            table: {},
                          },
                  )
                }
              />
              <Select
                label="Stands"
                at={`${at}/optional`}
                value={
                  segment.repeat ? (segment.optional ? 'any' : 'many') : segment.optional ? 'maybe' : 'once'
                }
                options={[
                  { value: 'once', label: 'Once' },
                  { value: 'maybe', label: 'Once or not' },
                  { value: 'many', label: 'Once or more' },
                  { value: 'any', label: 'Any number of times' },
                ]}
                onChange={(n) =>
                  patch({ repeat: n === 'many' || n === 'any', optional: n === 'maybe' || n === 'any' })
                }
              />
            </div>
            {segment.literal != null ? (
              <TextInput
                label="Stands there"
                why="A hyphen counts only where it is asked for so."
                at={`${at}/literal`}
                mono
                value={segment.literal}
                onChange={(literal) => patch({ literal: literal === '' ? '-' : literal })}
              />
            ) : byDigits ? (
              <div className="across">
                <TextInput
                  label="How many"
                  why="1, or a range such as 2-3"
                  at={`${at}/digits`}
                  value={String(segment.digits)}
                  onChange={(d) => patch({ digits: d })}
                />
                <Select
                  label="They mean"
                  at={`${at}/feature`}
                  value={segment.pattern ? 'pattern' : (segment.feature ?? undefined)}
                  options={[{ value: 'pattern', label: 'The pattern' }, ...named(counts)]}
                  onChange={(v) =>
                    patch(
                      v === 'pattern'
                        ? { pattern: true, feature: undefined }
                        : { pattern: undefined, feature: v },
                    )
                  }
                />
              </div>
            ) : (
              <Signs segment={segment} words={words} at={at} onChange={(table) => patch({ table })} />
            )}
          </>
        );
      }}
    </Rows>
  );
}

function Signs({
  segment,
  words,
  at,
  onChange,
}: {
  segment: Segment;
  words: Props['words'];
  at: string;
  onChange: (table: NonNullable<Segment['table']>) => void;
}) {
  const meanings = words.features.flatMap((f) =>
    (f.values ?? []).map((v) => ({
      value: `${f.id} ${v.id}`,
      label: `${f.label}: ${v.label.toLowerCase()}`,
    })),
  );
  return (
    <Rows
      title="Signs"
      items={Object.entries(segment.table ?? {})}
      fresh={(): [string, ImpliedFeature] => ['', { feature: '', value: '' }]}
      add="sign"
      onChange={(rows) => onChange(Object.fromEntries(rows.map((r) => [r[0], r[1]])))}
    >
      {(row, change, k) => (
        <div className="across">
          <TextInput
            label={`Sign ${k + 1}`}
            at={`${at}/table/${row[0]}`}
            mono
            value={row[0]}
            onChange={(sign) => change([sign, row[1]])}
          />
          <Select
            label="Means"
            at={`${at}/table/${row[0]}/value`}
            value={`${row[1].feature} ${impliedValues(row[1])[0] ?? ''}`}
            options={meanings}
            onChange={(meaning) => {
              const [feature = '', v = ''] = (meaning ?? '').split(' ');
              change([row[0], { feature, value: v }]);
            }}
          />
          <MultiSelect
            label="or"
            why="A sign may stand for several: it agrees with any of them."
            at={`${at}/table/${row[0]}/values`}
            value={impliedValues(row[1]).slice(1).map(String)}
            options={(words.features.find((f) => f.id === row[1].feature)?.values ?? [])
              .filter((v) => v.id !== impliedValues(row[1])[0])
              .map((v) => ({ value: v.id, label: v.label }))}
            onChange={(others) => {
              const [first = ''] = impliedValues(row[1]);
              const { feature } = row[1];
              change([
                row[0],
                !others?.length ? { feature, value: first } : { feature, values: [first, ...others] },
              ]);
            }}
          />
        </div>
      )}
    </Rows>
  );
}

const SHAPE = /^\^(?<before>[A-Za-z0-9 -]*)\(\\d(?:\{(?<digits>\d+)\}|\+)\)(?<after>[A-Za-z0-9 -]*)\$$/;
const formatOf = (before: string, digits: number | undefined, after: string) =>
  `^${before}(\\d${digits === undefined ? '+' : `{${digits}}`})${after}$`;

function SerialParts({ value, set, words }: Props) {
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
