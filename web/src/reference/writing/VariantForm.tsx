/** A variant: what can be seen on it, when it was made, how many, and what gives an imitation away. */
import { DateInput, NumberInput } from '../../parts/fields/figures.tsx';
import { LinesInput, TextInput } from '../../parts/fields/TextInput.tsx';
import { MultiSelect, Select, optionsOf } from '../../parts/fields/choices.tsx';
import { Rows } from '../../parts/fields/Rows.tsx';
import { useVariantNames } from '../vocabulary.ts';
import {
  RUN_SPLITS,
  VARIANT_KINDS,
  type Claim,
  type FeatureReading,
  type RunShare,
  type Variant,
} from '@jutbank/core/reference';
import type { PatternDetail } from '@jutbank/contract/reference';
import { FeatureValues } from './FeatureValues.tsx';
import { given, named, Section, type FormProps } from './formParts.tsx';
import { Measures, YearCounts } from './PatternForm.tsx';

interface Props extends FormProps<Variant> {
  readonly detail: PatternDetail | undefined;
  /** the form it was copied from: what differs is marked */
  readonly before: Variant | undefined;
}

export function VariantForm({ value, set, words, detail, before }: Props) {
  const pattern = words.patterns.find((p) => p.id === value.pattern);
  const features = words.features.filter(
    (f) =>
      f.kind !== 'measure' &&
      (!pattern || !f.constructions || f.constructions.includes(pattern.construction)),
  );
  const marks = words.marks.filter((m) => m.maker == null || m.maker === pattern?.maker);
  const siblings = (detail?.variants ?? []).filter((v) => v.id !== value.id);
  const setFeature = (id: string, readings: FeatureReading[]) => {
    const others = Object.fromEntries(Object.entries(value.features ?? {}).filter(([key]) => key !== id));
    set({ features: readings.length === 0 ? others : { ...others, [id]: readings } });
  };
  const made = value.made ?? undefined;
  const isImitation = value.kind === 'counterfeit' || value.kind === 'reproduction';
  return (
    <>
      <Select
        label="Pattern"
        at="/pattern"
        value={value.pattern}
        options={named(words.patterns)}
        onChange={(id) => set(given('pattern', id))}
      />
      <TextInput
        label="Name"
        why="What sets it apart: “Naval issue, second form”."
        at="/name"
        value={value.name}
        onChange={(name) => set({ name })}
      />
      <Section title="What can be seen">
        <p className="why">
          Leave out what nobody recorded: it is then weighed by the maker’s dated windows, not held against
          the piece.
        </p>
        {features.map((f) => (
          <FeatureValues
            key={f.id}
            feature={f}
            value={value.features?.[f.id] ?? []}
            before={before?.features?.[f.id]}
            onChange={(readings) => setFeature(f.id, readings)}
          />
        ))}
        <MultiSelect
          label="Stamps"
          at="/marks"
          value={value.marks}
          options={marks.map((m) => ({ value: m.id, label: m.lines.join(' / ') }))}
          onChange={(chosen) => set(given('marks', chosen))}
        />
        <Measures value={value} set={set} words={words} />
      </Section>
      <Section title="What it is">
        <Select
          label="Kind"
          why="Moves the odds: limited runs are rare, counterfeits cluster where value is."
          at="/kind"
          value={value.kind}
          options={optionsOf(VARIANT_KINDS)}
          onChange={(kind) => set(given('kind', kind) as Partial<Variant>)}
        />
        <DateInput
          label="Made"
          why="When this form was made."
          at="/window"
          value={value.window}
          onChange={(window) => set(given('window', window))}
        />
        {(isImitation || value.kind === 'commercial-twin') && (
          <Select
            label={isImitation ? 'Imitates' : 'Twin of'}
            why={
              isImitation
                ? 'Its stamps are read by the dates of what it imitates.'
                : 'The service variant it shares its making with.'
            }
            at="/twinOf"
            value={value.twinOf}
            options={named(siblings)}
            onChange={(twin) => set(given('twinOf', twin))}
          />
        )}
        <ConvertedFrom value={value} set={set} words={words} />
        {value.kind === 'service' && (
          <TextInput
            label="Issued to"
            at="/issuedTo"
            value={value.issuedTo}
            onChange={(issuedTo) => set(given('issuedTo', issuedTo))}
          />
        )}
      </Section>
      <Section title="How many">
        <NumberInput
          label="Quantity"
          why="The prior of the bench: of two that fit alike, the commoner is likelier."
          at="/made/quantity"
          value={made?.quantity}
          onChange={(quantity) => set({ made: { basis: 'documented', ...made, quantity: quantity ?? null } })}
        />
        <Select
          label="Basis"
          at="/made/basis"
          none="Not told"
          value={made?.basis}
          options={optionsOf(['documented', 'estimated', 'unknown'])}
          onChange={(basis) => set({ made: { ...made, basis: (basis ?? 'unknown') as 'unknown' } })}
        />
        <YearCounts
          label="By year"
          why="Year and number, line by line: 1934: 3000"
          at="/made/byYear"
          value={made?.byYear}
          onChange={(byYear) => set({ made: { basis: 'documented', ...made, byYear: byYear ?? null } })}
        />
        <NumberInput
          label="Numbered run"
          why="How many numbers were given: a number beyond the run is an alarm."
          at="/edition/run"
          value={value.edition?.run}
          onChange={(run) => set({ edition: { ...value.edition, run: run ?? null } })}
        />
        <NumberInput
          label="First number"
          at="/edition/firstNumber"
          value={value.edition?.firstNumber}
          onChange={(firstNumber) => set({ edition: { ...value.edition, firstNumber: firstNumber ?? null } })}
        />
        <TextInput
          label="Made for"
          why="The shop of an exclusive."
          at="/edition/retailer"
          value={value.edition?.retailer}
          onChange={(retailer) =>
            set({ edition: { ...value.edition, retailer: retailer === '' ? null : retailer } })
          }
        />
        <NumberInput
          label="Index in an annual series"
          why="First year of the series + index − 1 is its year."
          at="/edition/index"
          value={value.edition?.index}
          onChange={(index) => set({ edition: { ...value.edition, index: index ?? null } })}
        />
        <Rows
          title="Shares of the run"
          why="Where it was divided by hand, finish or shop; each share with its own first number, if it has one."
          items={value.edition?.split ?? []}
          fresh={(): RunShare => ({ by: 'hand', of: '', run: 1 })}
          add="share"
          onChange={(split) =>
            set({ edition: { ...value.edition, split: split.length === 0 ? null : split } })
          }
        >
          {(share, patch, i) => (
            <div className="across">
              <Select
                label={`Share ${i + 1} by`}
                at={`/edition/split/${i}/by`}
                value={share.by}
                options={optionsOf(RUN_SPLITS)}
                onChange={(by) => patch({ by: (by ?? 'hand') as RunShare['by'] })}
              />
              <TextInput
                label="Which"
                at={`/edition/split/${i}/of`}
                value={share.of}
                onChange={(of) => patch({ of })}
              />
              <NumberInput
                label="How many"
                at={`/edition/split/${i}/run`}
                value={share.run}
                onChange={(run) => patch({ run: run ?? 1 })}
              />
              <NumberInput
                label="From number"
                at={`/edition/split/${i}/firstNumber`}
                value={share.firstNumber}
                onChange={(firstNumber) => patch({ firstNumber: firstNumber ?? null })}
              />
            </div>
          )}
        </Rows>
      </Section>
      {isImitation && (
        <LinesInput
          label="What gives it away"
          why="One tell to a line; shown as a warning when this is likely."
          at="/tells"
          value={value.tells}
          onChange={(tells) => set(given('tells', tells))}
        />
      )}
      <Section title="Where it is said">
        <Rows
          title="Citations"
          items={value.claims ?? []}
          fresh={(): Claim => ({ about: 'window', source: '' })}
          add="citation"
          onChange={(claims) => set({ claims })}
        >
          {(claim, patch, i) => (
            <div className="across">
              <TextInput
                label={`About ${i + 1}`}
                at={`/claims/${i}/about`}
                value={claim.about}
                onChange={(about) => patch({ about })}
              />
              <Select
                label="Source"
                at={`/claims/${i}/source`}
                value={claim.source}
                options={named(words.sources)}
                onChange={(source) => patch({ source: source ?? '' })}
              />
              <TextInput
                label="Page"
                at={`/claims/${i}/page`}
                value={claim.page}
                onChange={(page) => patch(given('page', page))}
              />
            </div>
          )}
        </Rows>
      </Section>
    </>
  );
}

/** Conversions cross patterns: the long one is shortened into another. */
function ConvertedFrom({ value, set, words }: FormProps<Variant>) {
  const pattern = words.patterns.find((p) => p.id === value.pattern);
  const related = words.patterns.filter(
    (p) => pattern && p.maker === pattern.maker && p.construction === pattern.construction,
  );
  const variants = useVariantNames(related.map((p) => p.id));
  const options = [...variants]
    .filter(([id]) => id !== value.id)
    .map(([id, { label }]) => ({ value: id, label }));
  if (options.length === 0) return null;
  return (
    <MultiSelect
      label="Converted from"
      why="Finished pieces of these were made into this one: shortened, re-hilted, opened up."
      at="/convertedFrom"
      value={value.convertedFrom}
      options={options}
      onChange={(from) => set(given('convertedFrom', from))}
    />
  );
}
