/** The most to pay, how what is asked stands to it, and why. */
import { Button } from '@mui/material';
import { useState } from 'react';
import type { FairJudgement } from '@jutbank/core/fair';
import { moneyText } from '../parts/words.ts';
import { Steps } from '../parts/Steps.tsx';

const VERDICT = {
  pay: 'Below the ceiling',
  haggle: 'Haggle',
  leave: 'Leave it',
  'no-price': 'What do they ask?',
} as const;

export function Ceiling({ answer, index }: { answer: FairJudgement; index: number | undefined }) {
  const [why, setWhy] = useState(false);
  const { currency, bid } = answer.most;
  return (
    <>
      <div className="top">
        <span>
          <span className="soft">Most to pay</span>
          <br />
          <span className="most">{bid === null ? 'nothing' : moneyText({ amount: bid, currency })}</span>
        </span>
        <span className="verdict" data-verdict={answer.verdict}>
          {VERDICT[answer.verdict]}
          {answer.atAsked && (
            <span className="soft leaves">
              leaves {moneyText(answer.atAsked.left)}
              {answer.atAsked.marginPct !== null && `, ${answer.atAsked.marginPct.toFixed(0)} % of the net`}
            </span>
          )}
        </span>
      </div>
      <Button variant="text" className="quiet soft why" aria-expanded={why} onClick={() => setWhy(!why)}>
        {why ? 'Enough.' : 'Why?'}{' '}
        {answer.supported ? 'It would bring' : 'No sale near it is known; by kind it might bring'}{' '}
        {moneyText(answer.estimate, true)}, {moneyText(answer.low, true)}–{moneyText(answer.high, true)}
        {answer.thin && answer.supported ? '; few sales known' : ''}
        {index === undefined ? '' : `; index ${Math.round(index)}`}
      </Button>
      {why && (
        <>
          <Steps steps={answer.most.steps} currency={currency} />
          {answer.notes.map((note) => (
            <p key={note} className="soft">
              {note}
            </p>
          ))}
        </>
      )}
    </>
  );
}
