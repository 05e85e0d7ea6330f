/** Lots: what each cost, what has come back of it, and when it broke even. */
import { lotRoutes } from '@jutbank/contract/intake';
import { Link, useNavigate } from 'react-router';
import { useAnswer, useKeptAnswers } from '../base/answers.ts';
import { useMay, useSession } from '../base/session.ts';
import { Failed, Loading } from '../base/states.tsx';
import { PageTitle } from '../parts/PageTitle.tsx';
import { decimal } from '../parts/fields/typed.ts';
import { Submit } from '../parts/fields/Submit.tsx';
import { TextInput } from '../parts/fields/TextInput.tsx';
import { useContractForm } from '../parts/fields/useContractForm.ts';
import { dayText, moneyText } from '../parts/words.ts';
import { LotSource, NO_SOURCE } from './LotSource.tsx';
import { RecoveryBar } from './RecoveryBar.tsx';
import './lots.css';

export default function LotsPage() {
  const mayWork = useMay('work');
  const lots = useAnswer(lotRoutes.listLots);
  if (lots.isPending) return <Loading />;
  if (lots.isError) return <Failed error={lots.error} retry={() => void lots.refetch()} />;
  return (
    <div className="page">
      <div className="pagehead">
        <PageTitle>Lots</PageTitle>
        <span className="soft">One price for many pieces: each carries its share to the cent.</span>
      </div>
      {mayWork && <NewLot />}
      {lots.data.items.length === 0 ? (
        <p className="soft">
          No lot yet. An estate or a collection that comes as one is entered here before its pieces are.
        </p>
      ) : (
        <ul className="lots">
          {lots.data.items.map((lot) => (
            <li key={lot.id}>
              <Link to={`/lots/${lot.id}`}>
                <b>{lot.name}</b>
                <span className="soft">
                  {lot.pieces} pieces, {lot.sold} sold{lot.kept > 0 ? `, ${lot.kept} kept` : ''}
                </span>
                <RecoveryBar share={lot.share} />
                <span className="num">
                  {moneyText({ amount: lot.recovered, currency: lot.currency })} of{' '}
                  {moneyText({ amount: lot.cost, currency: lot.currency })}
                </span>
                <span className="soft">
                  {lot.brokeEvenOn === null
                    ? 'not yet paid for itself'
                    : `paid for itself on ${dayText(lot.brokeEvenOn)}`}
                </span>
              </Link>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

function NewLot() {
  const { shop } = useSession();
  const navigate = useNavigate();
  const answers = useKeptAnswers();
  const form = useContractForm(lotRoutes.create, {
    empty: { name: '', costs: '', ...NO_SOURCE },
    toBody: ({ costs, ...lot }) => ({
      ...lot,
      currency: shop.baseCurrency,
      costs: costs.trim() === '' ? [] : [{ label: 'Price of the lot', amount: decimal(costs) }],
    }),
    onSent: (lot) => {
      void answers.invalidate(lotRoutes.listLots);
      void navigate(`/lots/${lot.id}`);
    },
  });
  return (
    <form className="lotnew" noValidate onSubmit={form.onSubmit}>
      <LotSource
        name={form.field('name')}
        sourceKind={form.field('sourceKind')}
        sourceName={form.field('sourceName')}
        acquired={form.field('acquired')}
      />
      <TextInput
        label={`What it cost, in ${shop.baseCurrency}`}
        inputMode="decimal"
        {...form.field('costs')}
      />
      <Submit form={form} words="Begin a lot" />
    </form>
  );
}
