/** What stands on the shop's papers: letterhead, terms, and the words for each way of being taxed. */
import { useMay, useSession } from '../base/session.ts';
import { PageTitle } from '../parts/PageTitle.tsx';
import './shop.css';
import { NumberInput, Submit, TextInput } from '../parts/fields/index.ts';
import { StoredPapers, type PaperFormProps } from './StoredPapers.tsx';
import { usePaperForm } from './usePaperForm.ts';

export default function PaperSettingsPage() {
  return <StoredPapers form={({ key, ...props }) => <Form key={key} {...props} />} />;
}

function Form({ seen, justKept, onKept }: PaperFormProps) {
  const own = useMay('own');
  const { shop } = useSession();
  const form = usePaperForm(seen, onKept);
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
        <PageTitle>Papers</PageTitle>
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
