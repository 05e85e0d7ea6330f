/** The shop: its settings, its people, what it goes by, and whether the ledger is whole. */
import { shopRoutes } from '@jutbank/contract/shop';
import { provenanceRoutes } from '@jutbank/contract/provenance';
import { Button, TextField } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { SECRETS } from '@jutbank/contract/http';
import { useAnswer, useKeptAnswers } from '../base/answers.ts';
import { ApiProblem, send } from '../base/api.ts';
import { useMay, useSession } from '../base/session.ts';
import { People } from './People.tsx';

export default function ShopPage() {
  return (
    <div className="page">
      <div className="pagehead">
        <h1>Shop</h1>
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

const asProblem = (error: unknown) => (error instanceof ApiProblem ? error : undefined);

function Settings() {
  const { shop } = useSession();
  const own = useMay('own');
  const answers = useKeptAnswers();
  const [name, setName] = useState(shop.name);
  const [stockScheme, setScheme] = useState(shop.stockScheme);
  const [readerSees, setReaderSees] = useState(shop.readerSees);
  const save = useMutation({
    mutationFn: () => send(shopRoutes.putShop, { body: { name, stockScheme, readerSees } }),
    onSuccess: () => answers.invalidate(shopRoutes.session),
  });
  const problem = asProblem(save.error);
  return (
    <form
      style={{ display: 'grid', gap: 14, marginBottom: 24 }}
      onSubmit={(e) => {
        e.preventDefault();
        save.mutate();
      }}
    >
      <h2 className="sec">
        Settings <small>books kept in {shop.baseCurrency}</small>
      </h2>
      <TextField
        label="Name of the shop"
        value={name}
        disabled={!own}
        onChange={(e) => setName(e.target.value)}
        error={!!problem?.at('/name')}
        helperText={problem?.at('/name')}
      />
      <TextField
        label="Stock numbers"
        value={stockScheme}
        disabled={!own}
        onChange={(e) => setScheme(e.target.value)}
        error={!!problem?.at('/stockScheme')}
        helperText={problem?.at('/stockScheme') ?? 'The zeros in braces are the running number.'}
        slotProps={{ htmlInput: { className: 'mono' } }}
      />
      <div className="chips" role="group" aria-label="What readers are told">
        <span className="soft">Readers are told</span>
        {SECRETS.map((secret) => (
          <button
            key={secret}
            type="button"
            className="chip"
            disabled={!own}
            aria-pressed={readerSees.includes(secret)}
            onClick={() =>
              setReaderSees(
                readerSees.includes(secret)
                  ? readerSees.filter((s) => s !== secret)
                  : [...readerSees, secret],
              )
            }
          >
            {secret}
          </button>
        ))}
      </div>
      {own && (
        <div>
          <Button type="submit" variant="contained" disabled={save.isPending}>
            Keep
          </Button>{' '}
          {save.isSuccess && <span className="soft">Kept.</span>}
        </div>
      )}
    </form>
  );
}

const FURTHER = [
  ['/track-record', 'How well we have done', 'what was said, against what came of it'],
  ['/pricing-settings', 'Pricing settings', 'channels, tax, margins, what is wanted of a piece'],
  ['/rates', 'Exchange rates', 'the last known of each currency, daily or from a list'],
  ['/condition-rules', 'Condition rules', 'what each scale and the index go by'],
] as const;

function Further() {
  return (
    <section style={{ marginBottom: 24 }}>
      <h2 className="sec">What the shop goes by</h2>
      <table className="grid">
        <tbody>
          {FURTHER.map(([to, name, of]) => (
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
