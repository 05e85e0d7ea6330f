/** What a series is: its rule, whose it is, and from which condition an example is good enough. */
import { useState } from 'react';
import { contactRoutes } from '@jutbank/contract/contacts';
import { seriesRoutes, type SeriesBody, type SeriesDetail } from '@jutbank/contract/series';
import { SERIES_RULES, type SeriesRule } from '@jutbank/core/series';
import { useAnswer } from '../base/answers.ts';
import { useMay } from '../base/session.ts';
import {
  NumberInput,
  optionsOf,
  ReferencePicker,
  Select,
  Submit,
  TextInput,
  useContractForm,
  chosen,
  type Bound,
} from '../parts/fields/index.ts';
import { sentence } from '../parts/words.ts';
import { useVariantNames, useVocabulary } from '../reference/vocabulary.ts';
import { RULE_WORDS } from './words.ts';

/** The parts of every rule side by side: what was chosen for one is still there when another was looked at. */
interface RuleFields {
  kind: SeriesRule['kind'];
  patterns: string[];
  mark: string;
  feature: string;
  variants: string[];
}
type Values = Omit<SeriesBody, 'rule'> & { rule: RuleFields };
const NEW: Values = {
  name: '',
  rule: { kind: 'patterns', patterns: [], mark: '', feature: '', variants: [] },
  contactId: null,
  upgradeBelow: null,
  note: '',
};

const valuesOf = ({ name, rule, contactId, upgradeBelow, note }: SeriesBody): Values => ({
  name,
  rule: { ...NEW.rule, ...rule },
  contactId,
  upgradeBelow,
  note,
});

function ruleOf(fields: RuleFields, before: SeriesRule | undefined): SeriesBody['rule'] {
  const { kind, patterns, mark, feature, variants } = fields;
  switch (kind) {
    case 'patterns':
      // kinds that were asked for by name stay asked for
      return {
        kind,
        patterns,
        ...(before?.kind === kind && before.kinds ? { kinds: [...before.kinds] } : {}),
      };
    case 'years':
      return { kind, patterns };
    case 'values':
      return { kind, patterns, feature };
    case 'stamp':
      return { kind, mark };
    case 'picked':
      return { kind, variants };
  }
}

export function SeriesForm({ of, onKept }: { of?: SeriesDetail; onKept: (kept: SeriesDetail) => void }) {
  const words = useVocabulary().data;
  const seesBuyers = useMay('work');
  const contacts = useAnswer(contactRoutes.listContacts, { query: { limit: 200 } }, { enabled: seesBuyers });
  const empty = of ? valuesOf(of) : NEW;
  const toBody = ({ rule, ...rest }: Values): SeriesBody => ({ ...rest, rule: ruleOf(rule, of?.rule) });
  const added = useContractForm(seriesRoutes.addSeries, { empty, toBody, onSent: onKept });
  const changed = useContractForm(seriesRoutes.putSeries, {
    empty,
    toBody,
    params: { id: of?.id ?? '' },
    version: of?.version ?? 0,
    onSent: onKept,
  });
  const form = of ? changed : added;
  const { kind } = form.values.rule;
  const patternOptions = (words?.patterns ?? []).map((p) => ({ value: p.id, label: p.name }));
  return (
    <form className="fields series-form" noValidate onSubmit={form.onSubmit}>
      <TextInput label="Name" {...form.field('name')} />
      <Select
        label="It asks for"
        options={optionsOf(SERIES_RULES, (rule) => sentence(RULE_WORDS[rule]))}
        {...chosen(form.field('rule.kind'))}
      />
      {(kind === 'patterns' || kind === 'years' || kind === 'values') && (
        <ReferencePicker
          label="Patterns or models"
          options={patternOptions}
          {...form.field('rule.patterns')}
        />
      )}
      {kind === 'values' && (
        <Select
          label="Of each"
          options={(words?.features ?? [])
            .filter((f) => f.kind !== 'measure')
            .map((f) => ({ value: f.id, label: f.label }))}
          {...chosen(form.field('rule.feature'))}
        />
      )}
      {kind === 'stamp' && (
        <ReferencePicker
          label="Stamp"
          options={(words?.marks ?? []).map((m) => ({ value: m.id, label: m.lines.join(' ') }))}
          {...one(form.field('rule.mark'))}
        />
      )}
      {kind === 'picked' && (
        <PickedForms
          patternOptions={patternOptions}
          begun={[...new Set((of?.slots ?? []).map((slot) => slot.pattern))]}
          {...form.field('rule.variants')}
        />
      )}
      {seesBuyers && (
        <Select
          label="Whose want list it is"
          none="the shop’s own"
          options={(contacts.data?.items ?? []).map((c) => ({ value: c.id, label: c.name }))}
          {...form.field('contactId')}
        />
      )}
      <NumberInput
        label="A better one is wanted below"
        why="condition index, 0 to 100; empty: whatever is there is good enough"
        {...form.field('upgradeBelow')}
      />
      <TextInput label="Note" rows={2} {...form.field('note')} />
      <Submit form={form} words={of ? 'Keep it' : 'Follow it'} />
    </form>
  );
}

/** One of a list that is found by typing: the last that was taken. */
const one = ({ value, onChange, problem }: Bound<string>) => ({
  value: value === '' ? [] : [value],
  onChange: (next: string[]) => onChange(next.at(-1) ?? ''),
  problem,
});

function PickedForms({
  value,
  patternOptions,
  begun,
  onChange,
  problem,
}: {
  value: readonly string[];
  patternOptions: readonly { value: string; label: string }[];
  begun: readonly string[];
  onChange: (variants: string[]) => void;
  problem: string | undefined;
}) {
  const [patterns, setPatterns] = useState<readonly string[]>(begun);
  const names = useVariantNames(patterns);
  return (
    <>
      <ReferencePicker
        label="From the patterns"
        options={patternOptions}
        value={patterns}
        onChange={setPatterns}
      />
      <ReferencePicker
        label="Forms"
        options={[...names].map(([id, { label }]) => ({ value: id, label }))}
        value={value}
        onChange={onChange}
        problem={problem}
      />
    </>
  );
}
