/** The values of one feature, as a form, a pattern or a maker shows it; several mean any of them. */
import { MultiSelect } from '../../parts/fields/choices.tsx';
import { NumberInput } from '../../parts/fields/figures.tsx';
import { TextInput } from '../../parts/fields/TextInput.tsx';
import type { Feature, FeatureReading } from '@jutbank/core/reference';
import { named, Section, type FormProps } from './formParts.tsx';

export function FeatureValues({
  feature,
  value,
  before,
  onChange,
}: {
  feature: Feature;
  value: readonly FeatureReading[];
  /** what the form it was copied from shows: a change is marked */
  before?: readonly FeatureReading[] | undefined;
  onChange: (value: FeatureReading[]) => void;
}) {
  const at = `/features/${feature.id}`;
  const changed = before !== undefined && JSON.stringify(before) !== JSON.stringify(value);
  const why = changed ? { why: 'Changed against the form it was copied from.' } : {};
  if (feature.kind === 'category')
    return (
      <MultiSelect
        label={feature.label}
        at={at}
        {...why}
        value={value.map(String)}
        options={named(feature.values ?? [])}
        onChange={(chosen) => onChange(chosen ?? [])}
      />
    );
  if (feature.kind === 'count')
    return (
      <NumberInput
        label={feature.label}
        at={at}
        {...why}
        value={typeof value[0] === 'number' ? value[0] : undefined}
        onChange={(n) => onChange(n === null ? [] : [n])}
      />
    );
  return (
    <TextInput
      label={feature.label}
      at={at}
      {...why}
      value={value.map(String).join(' | ')}
      onChange={(text) => onChange(text.trim() === '' ? [] : text.split('|').map((x) => x.trim()))}
    />
  );
}

type Varied = { features?: Record<string, FeatureReading[]> | null | undefined };

/** Varieties that left the works side by side: said once, they hold for every form that records nothing else. */
export function Varieties({
  value,
  set,
  words,
  of,
}: FormProps<Varied> & { readonly of: (feature: Feature) => boolean }) {
  const features = words.features.filter((f) => f.kind === 'category' && of(f));
  return (
    <Section title="Varieties side by side">
      <p className="why">
        What its pieces really have in several factory varieties, said in one place: every form that records
        nothing else shows any of them. Dated windows go before it.
      </p>
      {features.map((f) => (
        <FeatureValues
          key={f.id}
          feature={f}
          value={value.features?.[f.id] ?? []}
          onChange={(readings) => {
            const others = Object.fromEntries(
              Object.entries(value.features ?? {}).filter(([key]) => key !== f.id),
            );
            set({ features: readings.length === 0 ? others : { ...others, [f.id]: readings } });
          }}
        />
      ))}
    </Section>
  );
}
