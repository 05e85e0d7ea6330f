/** The listing's words, written from the record; what an edit dropped; and what the marketplace answers. */
import { ActButton } from '../parts/ActButton.tsx';
import { listingRoutes, type ListingBody, type ListingDraft } from '@jutbank/contract/listing';
import { Button, Tab, Tabs } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { LANGUAGE_NAMES, type Language } from '@jutbank/core/words';
import { Link, useNavigate } from 'react-router';
import { pieceRoutes, type PieceSheet } from '@jutbank/contract/pieces';
import { useAnswer, useKeptAnswers } from '../base/answers.ts';
import { ApiProblem, send } from '../base/api.ts';
import { useMay, useSession } from '../base/session.ts';
import { Failed, Loading } from '../base/states.tsx';
import { NoLongerNew } from '../reference/NoLongerNew.tsx';
import { useSheet } from '../pieces/useSheet.ts';
import { StageBar } from '../pieces/StageBar.tsx';
import { inLine, useStage, useTakeSheet } from '../pieces/usePiece.ts';
import { Submit } from '../parts/fields/Submit.tsx';
import { TextInput } from '../parts/fields/TextInput.tsx';
import { useContractForm } from '../parts/fields/useContractForm.ts';
import { Opening } from '../parts/Opening.tsx';
import { dayText, moneyText, today } from '../parts/words.ts';
import { Elsewhere } from '../pieces/Elsewhere.tsx';
import { Messages } from './Messages.tsx';
import { Postage, TakenQuotes } from './Postage.tsx';
import { Blocks, Shots, WordingProblems } from './Wanting.tsx';
import './listing.css';

/** Up, or ended by a sale; what was taken down or has run out is a draft again. */
const isUp = ({ listing }: PieceSheet): boolean =>
  listing !== null &&
  listing.state !== 'draft' &&
  (listing.state === 'ended' || listing.expiresOn === null || listing.expiresOn >= today());

export default function ListingStage() {
  const sheet = useSheet();
  const mayWork = useMay('work');
  const draft = useAnswer(listingRoutes.draft, { params: { id: sheet.id } });
  if (draft.isPending) return <Loading />;
  if (draft.isError) return <Failed error={draft.error} retry={() => void draft.refetch()} />;
  const up = isUp(sheet);
  return (
    <div className="stage twocol">
      <div>
        {up ? <Published sheet={sheet} draft={draft.data} /> : <Draft sheet={sheet} draft={draft.data} />}
        <Elsewhere sheet={sheet} />
        {mayWork && <SecondExample id={sheet.id} />}
      </div>
      <Aside sheet={sheet} draft={draft.data} />
    </div>
  );
}

/** Its text in each language the shop writes; what is typed into one is not lost by turning to the other. */
function Draft({ sheet, draft }: { sheet: PieceSheet; draft: ListingDraft }) {
  const [language, turn] = useState<Language>('en');
  const { second } = draft;
  const shown = second?.language === language ? second : undefined;
  return (
    <section>
      {sheet.listing?.state === 'published' && sheet.listing.expiresOn !== null && (
        <p className="note">
          <b>It ran out on {dayText(sheet.listing.expiresOn)}.</b> Put up again it runs anew.
        </p>
      )}
      {second && (
        <Tabs value={language} aria-label="Language of the text" onChange={(_, to: Language) => turn(to)}>
          <Tab value="en" label={LANGUAGE_NAMES.en} />
          <Tab value={second.language} label={LANGUAGE_NAMES[second.language]} />
        </Tabs>
      )}
      {shown ? (
        <Words
          key={language}
          sheet={sheet}
          language={language}
          stored={shown.kept ?? shown.written}
          written={shown.written}
        />
      ) : (
        <Words
          key="en"
          sheet={sheet}
          language="en"
          stored={sheet.listing ?? draft.written}
          written={draft.written}
        />
      )}
    </section>
  );
}

type Text = ListingDraft['written'];
const asBody = (value: ListingBody) => value;

function Words({
  sheet,
  language,
  stored,
  written,
}: {
  sheet: PieceSheet;
  language: Language;
  stored: Text;
  written: Text;
}) {
  const mayWork = useMay('work');
  const state = useStage(
    sheet,
    listingRoutes.putListing,
    { title: stored.title, body: stored.body, language },
    asBody,
  );
  const { value } = state;
  const differs = value.title !== written.title || value.body !== written.body;
  return (
    <div lang={language}>
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
            <Button onClick={() => state.set({ ...written, language })}>Write it anew from the record</Button>
          </div>
        )}
      </div>
    </div>
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

function Published({ sheet, draft }: { sheet: PieceSheet; draft: ListingDraft }) {
  const { listing } = sheet;
  const mayPublish = useMay('appraise');
  if (!listing) return null;
  return (
    <section>
      <h2 className="sec">
        {listing.state === 'ended' ? 'The listing, taken down' : 'The listing, as it is up'}{' '}
        <small>
          {listing.publishedAt && `since ${dayText(listing.publishedAt)}`}
          {listing.expiresOn !== null && `, until ${dayText(listing.expiresOn)}`}
        </small>
      </h2>
      <p style={{ marginBottom: 10 }}>
        Asked: <span className="num">{moneyText(sheet.pricing.ask)}</span>{' '}
        {listing.state === 'published' && (
          <Link to={`/pieces/${sheet.id}/worth`}>Change the price; the marketplace is told</Link>
        )}
      </p>
      <h3 style={{ fontSize: 15, marginBottom: 8 }}>{listing.title}</h3>
      <pre className="words">{listing.body}</pre>
      {draft.second?.kept && (
        <div lang={draft.second.language}>
          <h3 style={{ fontSize: 15, margin: '16px 0 8px' }}>
            {draft.second.kept.title} <small className="soft">{LANGUAGE_NAMES[draft.second.language]}</small>
          </h3>
          <pre className="words">{draft.second.kept.body}</pre>
        </div>
      )}
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
  if (isUp(sheet)) return <Messages sheet={sheet} />;
  const problems = [...draft.problems, ...(draft.second?.problems ?? [])];
  const ready = draft.blocks.length === 0 && problems.length === 0;
  return (
    <section>
      <h2 className="sec">Before it goes up</h2>
      <Blocks id={sheet.id} blocks={draft.blocks} />
      <WordingProblems problems={problems} />
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
        <ActButton
          does={`Put it up on ${shop.channelName}`}
          disabled={!ready || publish.isPending}
          onAct={() => publish.mutate()}
        />
      )}
      <Shots shots={draft.shots} unseen={draft.unseen} sheet={sheet} />
      <h2 className="sec" style={{ marginTop: 16 }}>
        Postage
      </h2>
      <TakenQuotes postage={draft.postage} />
      <Opening words="Ask the carriers">{() => <Postage sheet={sheet} />}</Opening>
      <h2 className="sec" style={{ marginTop: 20 }}>
        To think of
      </h2>
      <NoLongerNew variant={sheet.attribution?.variant} />
      {draft.cautions.map((c) => (
        <p key={c} className="soft" style={{ marginBottom: 6 }}>
          {c}
        </p>
      ))}
    </section>
  );
}
