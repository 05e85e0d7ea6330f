/** The listing's words, written from the record; what an edit dropped; and what the marketplace answers. */
import { listingRoutes, type ListingBody, type ListingDraft } from '@jutbank/contract/listing';
import { Button } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { useEffect } from 'react';
import { Link } from 'react-router';
import type { PieceSheet, MarketMessage } from '@jutbank/contract/pieces';
import { useAnswer } from '../base/answers.ts';
import { ApiProblem, send } from '../base/api.ts';
import { useMay, useSession } from '../base/session.ts';
import { Failed, Loading } from '../base/states.tsx';
import { useSheet } from '../pieces/useSheet.ts';
import { StageBar } from '../pieces/StageBar.tsx';
import { inLine, useStage, useTakeSheet } from '../pieces/usePiece.ts';
import { Submit } from '../parts/fields/Submit.tsx';
import { TextInput } from '../parts/fields/TextInput.tsx';
import { useContractForm } from '../parts/fields/useContractForm.ts';
import { dayText, moneyText } from '../parts/words.ts';

export default function ListingStage() {
  const sheet = useSheet();
  const draft = useAnswer(listingRoutes.draft, { params: { id: sheet.id } });
  if (draft.isPending) return <Loading />;
  if (draft.isError) return <Failed error={draft.error} retry={() => void draft.refetch()} />;
  const up = sheet.listing !== null && sheet.listing.state !== 'draft';
  return (
    <div className="stage twocol">
      {up ? <Published sheet={sheet} /> : <Draft sheet={sheet} draft={draft.data} />}
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

function Published({ sheet }: { sheet: PieceSheet }) {
  const { listing } = sheet;
  if (!listing) return null;
  return (
    <section>
      <h2 className="sec">
        {listing.state === 'ended' ? 'The listing, taken down' : 'The listing, as it is up'}{' '}
        <small>{listing.publishedAt && `since ${dayText(listing.publishedAt)}`}</small>
      </h2>
      <h3 style={{ fontSize: 15, marginBottom: 8 }}>{listing.title}</h3>
      <pre className="words">{listing.body}</pre>
    </section>
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
      {draft.blocks.map((b) => (
        <div key={b} className="note bad" style={{ marginBottom: 8 }}>
          {b}
        </div>
      ))}
      {draft.problems.map((p) => (
        <div key={p.detail} className="note bad" style={{ marginBottom: 8 }}>
          <b>
            {p.kind === 'disclosure-dropped'
              ? 'Something known is not told'
              : 'The wording is stronger than the evidence'}
          </b>
          {p.detail}
        </div>
      ))}
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

const ERRAND_WORDS = {
  publish: 'It is not up yet.',
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
