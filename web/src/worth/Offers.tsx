/** Offers for a piece: judged against waiting, and kept with what was decided. */
import { offerRoutes, type OfferRecord } from '@jutbank/contract/worth';
import { Button } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import type { Money } from '@jutbank/core/money';
import type { PieceSheet } from '@jutbank/contract/pieces';
import { useKeptAnswers } from '../base/answers.ts';
import { isHere, invalidatePiece } from '../pieces/usePiece.ts';
import { ApiProblem, send } from '../base/api.ts';
import { useMay, useSession } from '../base/session.ts';
import { useUnsaved } from '../base/unsaved.ts';
import { MoneyInput } from '../parts/fields/figures.tsx';
import { TextInput } from '../parts/fields/TextInput.tsx';
import { dayText, moneyText } from '../parts/words.ts';

const ADVICE = { take: 'Take it', counter: 'Counter', wait: 'Wait' } as const;

export function Offers({ sheet, offers }: { sheet: PieceSheet; offers: readonly OfferRecord[] }) {
  const { shop } = useSession();
  const mayDecide = useMay('appraise') && isHere(sheet);
  const answers = useKeptAnswers();
  const [amount, setAmount] = useState<Money | null>(null);
  const [bidder, setBidder] = useState('');
  const [round, setRound] = useState(0);
  useUnsaved(amount !== null || bidder !== '');
  // without an amount the server says what is missing, beside the field
  const offered = { amount: amount ?? { amount: '', currency: shop.baseCurrency }, bidder };
  const judge = useMutation({
    mutationFn: () => send(offerRoutes.judgeOffer, { params: { id: sheet.id }, body: offered }),
  });
  const log = useMutation({
    mutationFn: (decision: OfferRecord['decision']) =>
      send(offerRoutes.logOffer, {
        params: { id: sheet.id },
        body: { ...offered, decision, counter: decision === 'countered' ? judge.data?.counter : null },
      }),
    onSuccess: () => {
      judge.reset();
      setAmount(null);
      setBidder('');
      setRound(round + 1);
      void invalidatePiece(answers, sheet.id);
    },
  });
  const problem = [judge.error, log.error].find((e) => e instanceof ApiProblem);
  return (
    <>
      <h2 className="sec" style={{ marginTop: 18 }}>
        Offers
      </h2>
      {mayDecide && (
        <form
          className="fieldrow"
          noValidate
          onSubmit={(e) => {
            e.preventDefault();
            if (amount) judge.mutate();
          }}
        >
          <div style={{ width: 190 }}>
            <MoneyInput
              key={round}
              label="Somebody offers"
              value={amount}
              currency={shop.baseCurrency}
              problem={problem?.at('/amount')}
              onChange={(next) => {
                setAmount(next);
                judge.reset();
              }}
            />
          </div>
          <TextInput label="Who" value={bidder} onChange={setBidder} />
          <Button type="submit" disabled={!amount || judge.isPending}>
            Judge it
          </Button>
        </form>
      )}
      {problem && problem.errors.length === 0 && (
        <p className="problem" role="alert">
          {problem.message}
        </p>
      )}
      {judge.data && (
        <div className="note" role="status" style={{ marginTop: 8 }}>
          <b>
            {ADVICE[judge.data.advice]}
            {judge.data.advice === 'counter' && ` at ${moneyText(judge.data.counter)}`}
          </b>
          It leaves {moneyText(judge.data.net)}; waiting is worth {moneyText(judge.data.waiting)}.{' '}
          {judge.data.why}
          <div style={{ display: 'flex', gap: 8, marginTop: 8, flexWrap: 'wrap' }}>
            <Button onClick={() => log.mutate('taken')}>Taken</Button>
            <Button onClick={() => log.mutate('countered')}>
              Countered at {moneyText(judge.data.counter)}
            </Button>
            <Button onClick={() => log.mutate('refused')}>Refused</Button>
          </div>
        </div>
      )}
      {offers.length === 0 ? (
        <p className="soft" style={{ marginTop: 6 }}>
          None written down yet.
        </p>
      ) : (
        <table className="grid" style={{ marginTop: 8 }}>
          <tbody>
            {offers.map((o) => (
              <tr key={o.id}>
                <td className="num">{dayText(o.at)}</td>
                <td>{o.bidder === '' ? 'somebody' : o.bidder}</td>
                <td className="r num">{moneyText(o.amount)}</td>
                <td>
                  {o.decision}
                  {o.counter && <span className="num"> at {moneyText(o.counter)}</span>}{' '}
                  <span className="soft">advice was: {ADVICE[o.advice].toLowerCase()}</span>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </>
  );
}
