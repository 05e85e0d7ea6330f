/** The parts of a date code: what is read, and the year each reading gives. */
import { DateInput, NumberInput } from '../../parts/fields/figures.tsx';
import { Rows } from '../../parts/fields/Rows.tsx';
import { Select } from '../../parts/fields/choices.tsx';
import { TextInput } from '../../parts/fields/TextInput.tsx';
import { useState } from 'react';
import type { CodeRead, CodeRule, YearRule } from '@jutbank/core/reference';
import { given } from './formParts.tsx';
import { slugOf } from './draft.ts';
import type { Props } from './codeParts.ts';

export function DateParts({ value, set }: Props) {
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
