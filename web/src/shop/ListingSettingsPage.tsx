/** What all listings say: in which order and in which languages, how long they run, and what buyers are told to think of. */
import { Button } from '@mui/material';
import { PLACES_OF_SALE, sectionsInOrder, type ListingSection } from '@jutbank/core/listing';
import { CONSTRUCTIONS } from '@jutbank/core/reference';
import { LANGUAGE_NAMES, LANGUAGES } from '@jutbank/core/words';
import { useMay } from '../base/session.ts';
import { PageTitle } from '../parts/PageTitle.tsx';
import { chosen, NumberInput, optionsOf, Rows, Select, Submit, TextInput } from '../parts/fields/index.ts';
import { StoredPapers, type PaperFormProps } from './StoredPapers.tsx';
import { usePaperForm, type PaperForm } from './usePaperForm.ts';
import './shop.css';

export default function ListingSettingsPage() {
  return <StoredPapers form={({ key, ...props }) => <Form key={key} {...props} />} />;
}

const OFFERS = [
  { value: 'unsaid', label: 'nothing is said' },
  { value: 'open', label: 'open to offers' },
  { value: 'fixed', label: 'the price is fixed' },
] as const;
const SECONDS = LANGUAGES.filter((l) => l !== 'en').map((value) => ({ value, label: LANGUAGE_NAMES[value] }));

function Form({ seen, justKept, onKept }: PaperFormProps) {
  const own = useMay('own');
  const form = usePaperForm(seen, onKept);
  const { second } = form.values.listing;
  const days = form.field('listing.runsForDays');
  return (
    <div className="page">
      <div className="pagehead">
        <PageTitle>Listings</PageTitle>
        <span className="soft">
          What all of them say beside what is known of the piece; what is up stays as it went up.
        </span>
      </div>
      <form className="twocol" noValidate onSubmit={form.onSubmit}>
        <section className="fields">
          <h2 className="sec">In English</h2>
          <Words form={form} at="listing" disabled={!own} />
          <div className="fields across">
            <Select
              label="Offers"
              disabled={!own}
              options={OFFERS}
              {...chosen(form.field('listing.offers'))}
            />
            <NumberInput
              label="A listing runs for"
              unit="days"
              why="Empty: until it is taken down"
              disabled={!own}
              {...days}
              onChange={(n, understood) => days.onChange(n, understood)}
            />
          </div>
          <h2 className="sec" style={{ marginTop: 12 }}>
            In a second language <small>written from the same record, checked by the same rules</small>
          </h2>
          <Select
            label="Language"
            disabled={!own}
            options={SECONDS}
            none="English alone"
            {...form.field('listing.second.language')}
          />
          {second.language !== null && <Words form={form} at="listing.second" disabled={!own} />}
          {own && <Submit form={form} words="Keep" />}
          {justKept && !form.changed && (
            <span className="soft" role="status">
              Kept.
            </span>
          )}
        </section>
        <section className="fields">
          <h2 className="sec">
            To think of <small>as the shop’s adviser worded it; local law decides</small>
          </h2>
          <Cautions form={form} disabled={!own} />
          <h2 className="sec" style={{ marginTop: 12 }}>
            Order of the sections
          </h2>
          <Order form={form} disabled={!own} />
        </section>
      </form>
    </div>
  );
}

/** The shop's own words in one language. */
function Words({
  form,
  at,
  disabled,
}: {
  form: PaperForm;
  at: 'listing' | 'listing.second';
  disabled: boolean;
}) {
  return (
    <>
      <TextInput label="Why things are sold" disabled={disabled} {...form.field(`${at}.reason`)} />
      <div className="fields across">
        <TextInput label="Postage at home" disabled={disabled} {...form.field(`${at}.postageHome`)} />
        <TextInput label="Postage abroad" disabled={disabled} {...form.field(`${at}.postageAbroad`)} />
      </div>
      <TextInput label="Terms" rows={2} disabled={disabled} {...form.field(`${at}.terms`)} />
    </>
  );
}

const PLACE_WORDS = { online: 'online', counter: 'at the counter' } as const;

function Cautions({ form, disabled }: { form: PaperForm; disabled: boolean }) {
  const [age, long] = [form.field('cautions.minimumAge'), form.field('cautions.longBlade')];
  const own = form.values.cautions.own;
  const { language } = form.values.listing.second;
  return (
    <>
      <div className="fields across">
        <NumberInput
          label="Sold from the age of"
          unit="years"
          why="Empty: “to adults only”"
          disabled={disabled}
          {...age}
          onChange={(n, understood) => age.onChange(n, understood)}
        />
        <NumberInput
          label="A blade is named beyond"
          unit="mm"
          why="Empty: its length is not named among the cautions"
          disabled={disabled}
          {...long}
          onChange={(n, understood) => long.onChange(n, understood)}
        />
      </div>
      <Rows
        title="Own caution"
        items={own}
        fresh={() => ({ text: '', second: '', construction: null, place: null })}
        add="another caution"
        onChange={(next) => form.set('cautions.own', next)}
      >
        {(caution, set, i) => (
          <div className="fields">
            <TextInput
              label="Says"
              disabled={disabled}
              value={caution.text}
              problem={form.field(`cautions.own.${i}.text`).problem}
              onChange={(text) => set({ text })}
            />
            {language !== null && (
              <TextInput
                label={`In ${LANGUAGE_NAMES[language]}`}
                disabled={disabled}
                value={caution.second}
                onChange={(second) => set({ second })}
              />
            )}
            <div className="fields across">
              <Select
                label="Of"
                disabled={disabled}
                none="every construction"
                options={optionsOf(CONSTRUCTIONS)}
                value={caution.construction}
                onChange={(construction) => set({ construction })}
              />
              <Select
                label="Where it is sold"
                disabled={disabled}
                none="everywhere"
                options={optionsOf(PLACES_OF_SALE, (p) => PLACE_WORDS[p])}
                value={caution.place}
                onChange={(place) => set({ place })}
              />
            </div>
          </div>
        )}
      </Rows>
    </>
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

function Order({ form, disabled }: { form: PaperForm; disabled: boolean }) {
  const order = sectionsInOrder(form.values.listing.order);
  const move = (at: number, by: -1 | 1) => {
    const next = [...order];
    const [taken] = next.splice(at, 1);
    if (taken) next.splice(at + by, 0, taken);
    form.set('listing.order', next);
  };
  return (
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
  );
}
