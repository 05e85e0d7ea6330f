/** What stands on the shop's papers: letterhead, terms, and the words for each way of being taxed. */
import { useState } from 'react';
import { paperSettingsRoutes, type PaperSettings, type VersionedPapers } from '@jutbank/contract/shop';
import { useAnswer, useKeptAnswers } from '../base/answers.ts';
import { useMay, useSession } from '../base/session.ts';
import './shop.css';
import { Failed, Loading } from '../base/states.tsx';
import {
  chosen,
  NumberInput,
  Select,
  Submit,
  TextInput,
  useContractForm,
  type ContractForm,
} from '../parts/fields/index.ts';
import { Button } from '@mui/material';
import { sectionsInOrder, type ListingSection } from '@jutbank/core/listing';

export default function PaperSettingsPage() {
  const settings = useAnswer(paperSettingsRoutes.papers);
  const [kept, setKept] = useState<number>();
  if (settings.isPending) return <Loading />;
  if (settings.isError) return <Failed error={settings.error} retry={() => void settings.refetch()} />;
  const { version } = settings.data;
  return <Form key={version} seen={settings.data} justKept={kept === version} onKept={setKept} />;
}

function Form({
  seen,
  justKept,
  onKept,
}: {
  seen: VersionedPapers;
  justKept: boolean;
  onKept: (version: number) => void;
}) {
  const own = useMay('own');
  const { shop } = useSession();
  const answers = useKeptAnswers();
  const form = useContractForm(paperSettingsRoutes.putPapers, {
    empty: seen.settings,
    version: seen.version,
    toBody: (settings: PaperSettings) => settings,
    onSent: (kept) => {
      onKept(kept.version);
      answers.set(paperSettingsRoutes.papers, {}, kept);
    },
  });
  const text = (
    name: 'address' | 'phone' | 'email' | 'taxNumber' | 'registration',
    label: string,
    rows?: number,
  ) => <TextInput label={label} disabled={!own} {...(rows ? { rows } : {})} {...form.field(name)} />;
  const figure = (
    name: 'dueInDays' | 'gapYears' | 'keepBuyersYears',
    label: string,
    unit: string,
    why: string,
  ) => {
    const bound = form.field(name);
    return (
      <NumberInput
        label={label}
        unit={unit}
        why={why}
        disabled={!own}
        {...bound}
        onChange={(n, understood) => bound.onChange(n ?? 0, understood && n !== null)}
      />
    );
  };
  const v = form.values;
  const head = [
    v.address,
    [v.phone, v.email].filter((x) => x !== '').join(' · '),
    v.taxNumber && `Tax number ${v.taxNumber}`,
    v.registration,
  ];
  return (
    <div className="page">
      <div className="pagehead">
        <h1>Papers</h1>
        <span className="soft">
          What stands on invoices, certificates and reports from now on; those that are out stay as they are.
        </span>
      </div>
      <form className="twocol" noValidate onSubmit={form.onSubmit}>
        <section className="fields">
          <h2 className="sec">Letterhead</h2>
          {text('address', 'Address', 3)}
          <div className="fields across">
            {text('phone', 'Telephone')}
            {text('email', 'E-mail')}
          </div>
          <div className="fields across">
            {text('taxNumber', 'Tax number')}
            {text('registration', 'Registration')}
          </div>
          <h2 className="sec" style={{ marginTop: 12 }}>
            Terms
          </h2>
          {figure('dueInDays', 'An invoice is due in', 'days', 'Told on the invoice as a day')}
          <TextInput label="Payment" rows={2} disabled={!own} {...form.field('paymentTerms')} />
          <TextInput label="Returns" rows={2} disabled={!own} {...form.field('returnTerms')} />
          {own && <Submit form={form} words="Keep" />}
          {justKept && !form.changed && (
            <span className="soft" role="status">
              Kept.
            </span>
          )}
        </section>
        <section className="fields">
          <h2 className="sec">Said of the tax</h2>
          <p className="soft">
            As the shop’s tax adviser words it; each invoice carries the line of its own scheme.
          </p>
          <TextInput label="Without tax" rows={2} disabled={!own} {...form.field('wording.untaxed')} />
          <TextInput
            label="Taxed on the whole price"
            rows={2}
            disabled={!own}
            {...form.field('wording.onSale')}
          />
          <TextInput
            label="Taxed on the margin"
            rows={2}
            disabled={!own}
            {...form.field('wording.onMargin')}
          />
          <ListingStyle form={form} disabled={!own} />
          <h2 className="sec" style={{ marginTop: 12 }}>
            Provenance and privacy
          </h2>
          <div className="fields across">
            {figure('gapYears', 'A gap is told beyond', 'years', 'In the record of owners')}
            {figure(
              'keepBuyersYears',
              'Buyers’ names are kept',
              'years',
              'On invoices, after they ask to be forgotten',
            )}
          </div>
          <h2 className="sec" style={{ marginTop: 12 }}>
            So it stands at the head
          </h2>
          <div className="note">
            <b>{shop.name}</b>
            {head
              .filter((line) => line !== '')
              .map((line) => (
                <p key={line} className="soft" style={{ whiteSpace: 'pre-line' }}>
                  {line}
                </p>
              ))}
          </div>
        </section>
      </form>
    </div>
  );
}

const SECTION_WORDS: Readonly<Record<ListingSection, string>> = {
  claim: 'What it is',
  made: 'When it was made',
  marks: 'Marks as they were read',
  measures: 'Sizes and weight',
  features: 'Features',
  condition: 'Condition, and what is to be noted',
  history: 'What was done to it later',
  reason: 'Why it is sold',
  included: 'What comes with it',
  provenance: 'Provenance',
  'not-proved': 'What is not proved',
  postage: 'Postage',
  terms: 'Offers and terms',
  cautions: 'Cautions',
};
const OFFERS = [
  { value: 'unsaid', label: 'nothing is said' },
  { value: 'open', label: 'open to offers' },
  { value: 'fixed', label: 'the price is fixed' },
] as const;

/** What all listings say, and the order of their sections. */
function ListingStyle({
  form,
  disabled,
}: {
  form: ContractForm<PaperSettings, VersionedPapers>;
  disabled: boolean;
}) {
  const order = sectionsInOrder(form.values.listing.order);
  const move = (at: number, by: -1 | 1) => {
    const next = [...order];
    const [taken] = next.splice(at, 1);
    if (taken) next.splice(at + by, 0, taken);
    form.set('listing.order', next);
  };
  return (
    <>
      <h2 className="sec" style={{ marginTop: 12 }}>
        Listings <small>what all of them say, and in which order</small>
      </h2>
      <TextInput label="Why things are sold" disabled={disabled} {...form.field('listing.reason')} />
      <div className="fields across">
        <TextInput label="Postage at home" disabled={disabled} {...form.field('listing.postageHome')} />
        <TextInput label="Postage abroad" disabled={disabled} {...form.field('listing.postageAbroad')} />
      </div>
      <Select label="Offers" disabled={disabled} options={OFFERS} {...chosen(form.field('listing.offers'))} />
      <TextInput label="Terms" rows={2} disabled={disabled} {...form.field('listing.terms')} />
      <ol className="section-order">
        {order.map((section, i) => (
          <li key={section}>
            <span>{SECTION_WORDS[section]}</span>
            <Button
              variant="text"
              className="quiet"
              disabled={disabled || i === 0}
              aria-label={`${SECTION_WORDS[section]} one up`}
              onClick={() => move(i, -1)}
            >
              ↑
            </Button>
            <Button
              variant="text"
              className="quiet"
              disabled={disabled || i === order.length - 1}
              aria-label={`${SECTION_WORDS[section]} one down`}
              onClick={() => move(i, 1)}
            >
              ↓
            </Button>
          </li>
        ))}
      </ol>
    </>
  );
}
