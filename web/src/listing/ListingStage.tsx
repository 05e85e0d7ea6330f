/** The listing's words, written from the record; what an edit dropped; and what the marketplace answers. */
import { listingRoutes, type ListingBody, type ListingDraft } from '@jutbank/contract/listing';
import { Button } from '@mui/material';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import type { Money } from '@jutbank/core/money';
import { offerRoutes } from '@jutbank/contract/worth';
import { Link, useNavigate } from 'react-router';
import { pieceRoutes, type PieceSheet, type MarketMessage } from '@jutbank/contract/pieces';
import { useAnswer, useKeptAnswers } from '../base/answers.ts';
import { ApiProblem, send } from '../base/api.ts';
import { useMay, useSession } from '../base/session.ts';
import { Failed, Loading } from '../base/states.tsx';
import { useSheet } from '../pieces/useSheet.ts';
import { StageBar } from '../pieces/StageBar.tsx';
import { inLine, useStage, useTakeSheet } from '../pieces/usePiece.ts';
import { Submit } from '../parts/fields/Submit.tsx';
import { TextInput } from '../parts/fields/TextInput.tsx';
import { useContractForm } from '../parts/fields/useContractForm.ts';
import { MoneyInput } from '../parts/fields/figures.tsx';
import { Opening } from '../parts/Opening.tsx';
import { dayText, moneyText } from '../parts/words.ts';
import { Postage } from './Postage.tsx';
import { Blocks, Shots, WordingProblems } from './Wanting.tsx';
import './listing.css';

export default function ListingStage() {
  const sheet = useSheet();
  const mayWork = useMay('work');
  const draft = useAnswer(listingRoutes.draft, { params: { id: sheet.id } });
  if (draft.isPending) return <Loading />;
  if (draft.isError) return <Failed error={draft.error} retry={() => void draft.refetch()} />;
  const up = sheet.listing !== null && sheet.listing.state !== 'draft';
  return (
    <div className="stage twocol">
      <div>
        {up ? <Published sheet={sheet} /> : <Draft sheet={sheet} draft={draft.data} />}
        {mayWork && <SecondExample id={sheet.id} />}
      </div>
      <Aside sheet={sheet} draft={draft.data} />
    </div>
  );
}

const asBody = (value: ListingBody) => value;

function Draft({ sheet, draft }: { sheet: PieceSheet; draft: ListingDraft }) {
  const mayWork = useMay('work');
  const state = useStage(
    sheet,
    listingRoutes.putListing,
    sheet.listing ? { title: sheet.listing.title, body: sheet.listing.body } : draft.written,
    asBody,
  );
  const { value } = state;
  const differs = value.title !== draft.written.title || value.body !== draft.written.body;
  return (
    <section>
      <StageBar title="The listing" state={state} />
      <div style={{ display: 'grid', gap: 14 }}>
        <TextInput
          label="Title"
          value={value.title}
          disabled={!mayWork}
          problem={state.problem?.at('/title')}
          onChange={(title) => state.set({ ...value, title })}
        />
        <TextInput
          label="Text"
          value={value.body}
          disabled={!mayWork}
          rows={14}
          maxRows={26}
          problem={state.problem?.at('/body')}
          onChange={(body) => state.set({ ...value, body })}
        />
        {mayWork && differs && (
          <div>
            <Button onClick={() => state.set(draft.written)}>Write it anew from the record</Button>
          </div>
        )}
      </div>
    </section>
  );
}

function TakeDown({ sheet }: { sheet: PieceSheet }) {
  const takeSheet = useTakeSheet();
  const form = useContractForm(listingRoutes.takeDown, {
    params: { id: sheet.id },
    version: sheet.version,
    empty: { because: '' },
    onSent: takeSheet,
  });
  return (
    <form className="fields" noValidate onSubmit={form.onSubmit}>
      <TextInput
        label="Why"
        why="It stays in the ledger; the text is kept as a draft"
        {...form.field('because')}
      />
      <Submit form={form} words="Take it down" />
    </form>
  );
}

function Published({ sheet }: { sheet: PieceSheet }) {
  const { listing } = sheet;
  const mayPublish = useMay('appraise');
  if (!listing) return null;
  return (
    <section>
      <h2 className="sec">
        {listing.state === 'ended' ? 'The listing, taken down' : 'The listing, as it is up'}{' '}
        <small>{listing.publishedAt && `since ${dayText(listing.publishedAt)}`}</small>
      </h2>
      <p style={{ marginBottom: 10 }}>
        Asked: <span className="num">{moneyText(sheet.pricing.ask)}</span>{' '}
        {listing.state === 'published' && (
          <Link to={`/pieces/${sheet.id}/worth`}>Change the price; the marketplace is told</Link>
        )}
      </p>
      <h3 style={{ fontSize: 15, marginBottom: 8 }}>{listing.title}</h3>
      <pre className="words">{listing.body}</pre>
      {listing.state === 'published' && mayPublish && (
        <Opening words="Take it down">{() => <TakeDown sheet={sheet} />}</Opening>
      )}
    </section>
  );
}

/** A new piece of the same kind: what is common is there already. */
function SecondExample({ id }: { id: string }) {
  const navigate = useNavigate();
  const answers = useKeptAnswers();
  const second = useMutation({
    mutationFn: () => send(listingRoutes.secondExample, { params: { id } }),
    onSuccess: (sheet) => {
      void answers.invalidate(pieceRoutes.tray);
      void navigate(`/pieces/${sheet.id}/intake`);
    },
  });
  return (
    <p style={{ marginTop: 14, display: 'flex', gap: 10, alignItems: 'center', flexWrap: 'wrap' }}>
      <Button disabled={second.isPending} onClick={() => second.mutate()}>
        Take in a second example of the same
      </Button>
      <Link to="/listing-desk">Listing desk</Link>
    </p>
  );
}

function Aside({ sheet, draft }: { sheet: PieceSheet; draft: ListingDraft }) {
  const { shop } = useSession();
  const mayPublish = useMay('appraise');
  const takeSheet = useTakeSheet();
  const publish = useMutation({
    mutationFn: () =>
      inLine(sheet.id, () =>
        send(listingRoutes.publish, { params: { id: sheet.id }, version: sheet.version }),
      ),
    onSuccess: takeSheet,
  });
  const problem = publish.error instanceof ApiProblem ? publish.error : undefined;
  if (sheet.listing && sheet.listing.state !== 'draft') return <Messages sheet={sheet} />;
  const ready = draft.blocks.length === 0 && draft.problems.length === 0;
  return (
    <section>
      <h2 className="sec">Before it goes up</h2>
      <Blocks id={sheet.id} blocks={draft.blocks} />
      <WordingProblems problems={draft.problems} />
      {ready && (
        <div className="note good" style={{ marginBottom: 8 }}>
          <b>Everything known is told.</b>The claim is as strong as the evidence, not stronger.
        </div>
      )}
      <p style={{ margin: '10px 0' }}>
        Price: <span className="num">{moneyText(sheet.pricing.ask)}</span>{' '}
        <Link to={`/pieces/${sheet.id}/worth`}>change</Link>
      </p>
      {problem && (
        <div role="alert">
          {(problem.errors.length > 0 ? problem.errors : [{ pointer: '', message: problem.message }]).map(
            (e) => (
              <p key={e.message} className="problem">
                {e.message}
              </p>
            ),
          )}
        </div>
      )}
      {mayPublish && (
        <Button variant="contained" disabled={!ready || publish.isPending} onClick={() => publish.mutate()}>
          Put it up on {shop.channelName}
        </Button>
      )}
      <Shots shots={draft.shots} unseen={draft.unseen} />
      <h2 className="sec" style={{ marginTop: 16 }}>
        Postage
      </h2>
      <Opening words="Ask the carriers">{() => <Postage id={sheet.id} />}</Opening>
      <h2 className="sec" style={{ marginTop: 20 }}>
        To think of
      </h2>
      {draft.cautions.map((c) => (
        <p key={c} className="soft" style={{ marginBottom: 6 }}>
          {c}
        </p>
      ))}
    </section>
  );
}

function Messages({ sheet }: { sheet: PieceSheet }) {
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
  const open = message.state === 'open' && mayWork && sheet.sale === null;
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
