/** The shop: its settings, its people, what it goes by, and whether the ledger is whole. */
import { SHOP_PAGES } from './pages.ts';
import { shopRoutes } from '@jutbank/contract/shop';
import { provenanceRoutes } from '@jutbank/contract/provenance';
import { Button } from '@mui/material';
import { Link } from 'react-router';
import { SECRETS } from '@jutbank/contract/http';
import { useAnswer, useKeptAnswers } from '../base/answers.ts';
import { useMay, useSession } from '../base/session.ts';
import { PageTitle } from '../parts/PageTitle.tsx';
import { MultiSelect, optionsOf, Select } from '../parts/fields/choices.tsx';
import { Submit } from '../parts/fields/Submit.tsx';
import { TextInput } from '../parts/fields/TextInput.tsx';
import { useContractForm } from '../parts/fields/useContractForm.ts';
import { People } from './People.tsx';

export default function ShopPage() {
  return (
    <div className="page">
      <div className="pagehead">
        <PageTitle>Shop</PageTitle>
      </div>
      <div className="twocol">
        <section>
          <Settings />
          <Further />
          <Ledger />
        </section>
        <People />
      </div>
    </div>
  );
}

function Settings() {
  const { shop } = useSession();
  const own = useMay('own');
  const answers = useKeptAnswers();
  const { name, stockScheme, readerSees, dayFirst } = shop;
  const form = useContractForm(shopRoutes.putShop, {
    empty: { name, stockScheme, readerSees, dayFirst },
    onSent: () => answers.invalidate(shopRoutes.session),
  });
  const readers = form.field('readerSees');
  const order = form.field('dayFirst');
  return (
    <form className="fields" style={{ marginBottom: 24 }} noValidate onSubmit={form.onSubmit}>
      <h2 className="sec">
        Settings <small>books kept in {shop.baseCurrency}</small>
      </h2>
      <TextInput label="Name of the shop" disabled={!own} {...form.field('name')} />
      <TextInput
        label="Stock numbers"
        why="The zeros in braces are the running number."
        mono
        disabled={!own}
        {...form.field('stockScheme')}
      />
      <MultiSelect
        label="Readers are told"
        disabled={!own}
        options={optionsOf(SECRETS, (secret) => secret)}
        {...readers}
        onChange={(told) => readers.onChange(told ?? [])}
      />
      <Select
        label="12/09/2026 is read as"
        why="A month's name is never in doubt; this is for figures alone."
        disabled={!own}
        options={[
          { value: 'day', label: '12 September 2026' },
          { value: 'month', label: '9 December 2026' },
        ]}
        value={order.value === false ? 'month' : 'day'}
        onChange={(first) => order.onChange(first !== 'month')}
      />
      {own && <Submit form={form} words="Keep" said={() => 'Kept.'} />}
    </form>
  );
}

function Further() {
  return (
    <section style={{ marginBottom: 24 }}>
      <h2 className="sec">What the shop goes by</h2>
      <table className="grid">
        <tbody>
          {SHOP_PAGES.map(([to, name, of]) => (
            <tr key={to}>
              <td>
                <Link to={to}>{name}</Link>
              </td>
              <td className="soft">{of}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

function Ledger() {
  const own = useMay('own');
  const check = useAnswer(provenanceRoutes.verify, {}, { enabled: false });
  return (
    <section>
      <h2 className="sec">Ledger</h2>
      <Button onClick={() => void check.refetch()} disabled={check.isFetching}>
        Check that nothing was rewritten
      </Button>{' '}
      {own && <Link to="/audit">Who did what</Link>}
      {check.data && (
        <p role="status" style={{ marginTop: 8 }} className={check.data.intact ? undefined : 'warn'}>
          {check.data.intact ? (
            <>
              All <span className="num">{check.data.entries}</span> entries follow from one another; nothing
              was rewritten.
            </>
          ) : (
            `The chain breaks at entry ${check.data.firstBroken ?? '?'}.`
          )}
        </p>
      )}
    </section>
  );
}
