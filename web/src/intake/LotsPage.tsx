/** Lots: what each cost, what has come back of it, and when it broke even. */
import { lotRoutes } from '@jutbank/contract/intake';
import { Button, TextField } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { useAnswer, useKeptAnswers } from '../base/answers.ts';
import { ApiProblem, send } from '../base/api.ts';
import { useMay, useSession } from '../base/session.ts';
import { Failed, Loading } from '../base/states.tsx';
import { moneyText } from '../parts/words.ts';
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
        <h1>Lots</h1>
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
                    : `paid for itself on ${lot.brokeEvenOn}`}
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
  const [name, setName] = useState('');
  const [price, setPrice] = useState('');
  const add = useMutation({
    mutationFn: () =>
      send(lotRoutes.create, {
        body: {
          name,
          currency: shop.baseCurrency,
          costs:
            price.trim() === ''
              ? []
              : [{ label: 'Price of the lot', amount: price.trim().replace(',', '.') }],
        },
      }),
    onSuccess: (lot) => {
      void answers.invalidate(lotRoutes.listLots);
      void navigate(`/lots/${lot.id}`);
    },
  });
  const problem = add.error instanceof ApiProblem ? add.error : undefined;
  return (
    <form
      className="lotnew"
      noValidate
      onSubmit={(e) => {
        e.preventDefault();
        add.mutate();
      }}
    >
      <TextField
        label="Name of the lot"
        value={name}
        onChange={(e) => setName(e.target.value)}
        error={!!problem?.at('/name')}
        helperText={problem?.at('/name')}
      />
      <TextField
        label={`What it cost, in ${shop.baseCurrency}`}
        value={price}
        onChange={(e) => setPrice(e.target.value)}
        error={!!problem?.at('/costs')}
        helperText={problem?.at('/costs')}
        slotProps={{ htmlInput: { inputMode: 'decimal', className: 'num' } }}
      />
      <Button type="submit" variant="contained" disabled={add.isPending}>
        Begin a lot
      </Button>
      {problem && problem.errors.length === 0 && <p className="problem">{problem.message}</p>}
    </form>
  );
}
