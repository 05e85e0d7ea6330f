/** The parts of a pattern number: its segments and what each implies. */
import { MultiSelect, Select } from '../../parts/fields/choices.tsx';
import { Rows } from '../../parts/fields/Rows.tsx';
import { TextInput } from '../../parts/fields/TextInput.tsx';
import { impliedValues, type ImpliedFeature, type Segment } from '@jutbank/core/reference';
import { named } from './formParts.tsx';
import type { Props } from './codeParts.ts';

export function Segments({ value, set, words }: Props) {
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
