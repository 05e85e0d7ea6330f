/** What comes in from the marketplace: questions answered from the record, offers with what taking them leaves. */
import { Button } from '@mui/material';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import { listingRoutes } from '@jutbank/contract/listing';
import type { MarketMessage, PieceSheet } from '@jutbank/contract/pieces';
import { offerRoutes } from '@jutbank/contract/worth';
import type { Money } from '@jutbank/core/money';
import { useAnswer } from '../base/answers.ts';
import { send } from '../base/api.ts';
import { useMay, useSession } from '../base/session.ts';
import { useShortcuts } from '../base/shortcuts.ts';
import { isHere, inLine, useTakeSheet } from '../pieces/usePiece.ts';
import { MoneyInput } from '../parts/fields/figures.tsx';
import { Submit } from '../parts/fields/Submit.tsx';
import { TextInput } from '../parts/fields/TextInput.tsx';
import { useContractForm } from '../parts/fields/useContractForm.ts';
import { dayText, moneyText } from '../parts/words.ts';

export function Messages({ sheet }: { sheet: PieceSheet }) {
  const { shop } = useSession();
  const mayWork = useMay('work');
  const takeSheet = useTakeSheet();
  const { mutate: bring, isPending } = useMutation({
    mutationFn: () => inLine(sheet.id, () => send(listingRoutes.fetchMessages, { params: { id: sheet.id } })),
    onSuccess: takeSheet,
  });
  const live = sheet.listing?.state === 'published' && sheet.listing.marketplaceRef !== null;
  useEffect(() => {
    if (live && mayWork) bring();
  }, [live, mayWork, bring]);
  return (
    <section>
      <h2 className="sec">
        From {shop.channelName}
        {live && mayWork && (
          <Button variant="text" className="quiet soft" onClick={() => bring()} disabled={isPending}>
            Look for new ones
          </Button>
        )}
      </h2>
      {sheet.listing?.waiting.map((errand) => (
        <p
          key={`${errand.kind} ${errand.since}`}
          className={errand.refused ? 'note bad' : 'note'}
          role="status"
        >
          <b>{ERRAND_WORDS[errand.kind]}</b>
          {errand.refused
            ? ` ${shop.channelName} refused it. ${errand.problem ?? ''}`
            : ` It is told again by itself until ${shop.channelName} answers.`}
        </p>
      ))}
      {sheet.listing?.messages.length === 0 && <p className="soft">Nobody has written yet.</p>}
      {sheet.listing?.messages.map((m) => (
        <Message key={m.id} sheet={sheet} message={m} />
      ))}
    </section>
  );
}

/** What taking the offer leaves, what waiting is worth, and another price to name instead. */
function Advice({ sheet, message }: { sheet: PieceSheet; message: MarketMessage }) {
  const takeSheet = useTakeSheet();
  const { shop } = useSession();
  const amount = message.amount;
  const judged = useQuery({
    queryKey: [offerRoutes.judgeOffer.path, sheet.id, message.id, sheet.version],
    queryFn: () =>
      send(offerRoutes.judgeOffer, {
        params: { id: sheet.id },
        body: { amount: amount ?? { amount: '0', currency: shop.baseCurrency }, bidder: message.from },
      }),
    retry: false,
  });
  const [named, setNamed] = useState<Money | null | undefined>(undefined);
  const counter = named === undefined ? (judged.data?.counter ?? null) : named;
  const countering = useMutation({
    mutationFn: () =>
      inLine(sheet.id, () =>
        send(listingRoutes.answer, {
          params: { id: sheet.id, message: message.id },
          body: { text: '', decline: false, counter },
        }),
      ),
    onSuccess: takeSheet,
  });
  const { worth } = sheet.readings;
  return (
    <div style={{ margin: '6px 0' }}>
      <p className="soft">
        Asked <span className="num">{moneyText(sheet.pricing.ask)}</span>
        {sheet.pricing.floor && (
          <>
            , not below <span className="num">{moneyText(sheet.pricing.floor)}</span>
          </>
        )}
        {worth && (
          <>
            , worth <span className="num">{moneyText(worth.estimate, true)}</span>
          </>
        )}
        .
      </p>
      {judged.data && (
        <>
          <p>
            <b>{ADVICE_WORDS[judged.data.advice]}</b> It leaves{' '}
            <span className="num">{moneyText(judged.data.net)}</span>; waiting is worth{' '}
            <span className="num">{moneyText(judged.data.waiting)}</span>. {judged.data.why}
          </p>
          <form
            className="desk-act"
            noValidate
            onSubmit={(event) => {
              event.preventDefault();
              if (counter) countering.mutate();
            }}
          >
            <MoneyInput
              label="Name another price"
              why=""
              currency={shop.baseCurrency}
              value={judged.data.counter}
              onChange={(next) => setNamed(next)}
            />
            <Button type="submit" disabled={!counter || countering.isPending}>
              Counter
            </Button>
          </form>
        </>
      )}
      {countering.isError && <p className="problem">{countering.error.message}</p>}
    </div>
  );
}
const ADVICE_WORDS = { take: 'Take it.', counter: 'Counter it.', wait: 'Wait.' } as const;

const ERRAND_WORDS = {
  publish: 'It is not up yet.',
  reprice: 'Its new price has not arrived yet.',
  answer: 'An answer has not arrived yet.',
  end: 'It is still to be taken down.',
} as const;

function Message({ sheet, message }: { sheet: PieceSheet; message: MarketMessage }) {
  const mayWork = useMay('work');
  const maySell = useMay('appraise');
  const takeSheet = useTakeSheet();
  const form = useContractForm(listingRoutes.answer, {
    params: { id: sheet.id, message: message.id },
    empty: { text: '', decline: false },
    onSent: takeSheet,
  });
  const decline = useMutation({
    mutationFn: () =>
      inLine(sheet.id, () =>
        send(listingRoutes.answer, {
          params: { id: sheet.id, message: message.id },
          body: { text: '', decline: true },
        }),
      ),
    onSuccess: takeSheet,
  });
  const open = message.state === 'open' && mayWork && isHere(sheet);
  return (
    <article className={open ? 'askbox' : 'note'} style={{ marginBottom: 10 }}>
      <b>
        {message.kind === 'offer' ? (
          <>
            Offer of <span className="num">{moneyText(message.amount)}</span>
          </>
        ) : (
          'Question'
        )}{' '}
        <span className="soft">
          from {message.from}, {dayText(message.at)}
        </span>
      </b>
      <p>{message.text}</p>
      {message.answer && <p className="soft">Answered: {message.answer}</p>}
      {!open && message.state !== 'open' && <p className="soft">{message.state}</p>}
      {open && message.kind === 'question' && <Answers sheet={sheet} message={message} onSent={takeSheet} />}
      {open && message.kind === 'question' && (
        <form className="fields" noValidate style={{ marginTop: 8 }} onSubmit={form.onSubmit}>
          <TextInput label="Answer" rows={1} {...form.field('text')} />
          <Submit form={form} words="Send" />
        </form>
      )}
      {open && message.kind === 'offer' && message.amount && maySell && (
        <Advice sheet={sheet} message={message} />
      )}
      {open && message.kind === 'offer' && (
        <div style={{ display: 'flex', gap: 8, marginTop: 8 }}>
          {maySell && (
            <Button component={Link} to={`/pieces/${sheet.id}/sale?offer=${message.id}`} variant="contained">
              Accept
            </Button>
          )}
          <Button onClick={() => decline.mutate()} disabled={decline.isPending}>
            Decline
          </Button>
        </div>
      )}
      {decline.isError && <p className="problem">{decline.error.message}</p>}
    </article>
  );
}

/** Answers from what is stored, each sent by its key; what is sent stands beside the key in full. */
function Answers({
  sheet,
  message,
  onSent,
}: {
  sheet: PieceSheet;
  message: MarketMessage;
  onSent: (sheet: PieceSheet) => void;
}) {
  const params = { id: sheet.id, message: message.id };
  const answers = useAnswer(listingRoutes.answers, { params });
  const answering = useMutation({
    mutationFn: (text: string) =>
      inLine(sheet.id, () => send(listingRoutes.answer, { params, body: { text, decline: false } })),
    onSuccess: onSent,
  });
  // keys are the first open question's: no two questions share one
  const first = sheet.listing?.messages.find((m) => m.state === 'open' && m.kind === 'question');
  const keyed = first?.id === message.id;
  const items = answers.data?.items ?? [];
  const say = (text: string) => {
    if (!answering.isPending) answering.mutate(text);
  };
  useShortcuts(
    'A question',
    keyed
      ? items.map((text, i) => ({ key: String(i + 1), does: 'Send this answer', run: () => say(text) }))
      : [],
  );
  if (items.length === 0) return null;
  return (
    <div className="answers">
      <p className="soft">From the record:</p>
      {items.map((text, i) => (
        <Button
          key={text}
          variant="text"
          className="quiet"
          disabled={answering.isPending}
          onClick={() => say(text)}
        >
          {keyed && <kbd>{i + 1}</kbd>}
          <span>{text}</span>
        </Button>
      ))}
      {answering.isError && <p className="problem">{answering.error.message}</p>}
    </div>
  );
}
