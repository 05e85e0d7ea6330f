/** The listing desk: one piece after the other, from its price to the marketplace, without leaving the keyboard. */
import { Button, ButtonBase } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import type { Money } from '@jutbank/core/money';
import { listingRoutes, type DeskRow } from '@jutbank/contract/listing';
import { pieceRoutes, type PieceSheet } from '@jutbank/contract/pieces';
import { worthRoutes } from '@jutbank/contract/worth';
import { useAnswer, useKeptAnswers } from '../base/answers.ts';
import { ApiProblem, send } from '../base/api.ts';
import { useMay, useSession } from '../base/session.ts';
import { useShortcuts } from '../base/shortcuts.ts';
import { Failed, Loading } from '../base/states.tsx';
import { PageTitle } from '../parts/PageTitle.tsx';
import { MoneyInput } from '../parts/fields/index.ts';
import { moneyText } from '../parts/words.ts';
import { inLine, usePieceQuery, useTakeSheet } from '../pieces/usePiece.ts';
import { Blocks, Shots, WordingProblems } from './Wanting.tsx';
import './listing.css';

export default function DeskPage() {
  const desk = useAnswer(listingRoutes.desk);
  // what went up stays in its place, so that nothing moves under one's hands
  const [up, setUp] = useState<ReadonlySet<string>>(new Set());
  const [query, setQuery] = useSearchParams();
  const items = useMemo(() => desk.data?.items ?? [], [desk.data]);
  const at = Math.max(
    0,
    items.findIndex((row) => row.id === query.get('piece')),
  );
  const go = (to: number) => {
    const row = items[Math.min(items.length - 1, Math.max(0, to))];
    if (row) setQuery({ piece: row.id }, { replace: true });
  };
  const nextAfter = (from: number) => {
    const next = items.findIndex((row, i) => i > from && !up.has(row.id));
    if (next >= 0) go(next);
  };
  useShortcuts('The listing desk', [
    { key: 'mod+ArrowDown', does: 'Next piece', run: () => go(at + 1) },
    { key: 'mod+ArrowUp', does: 'Piece before', run: () => go(at - 1) },
  ]);
  if (desk.isPending) return <Loading />;
  if (desk.isError) return <Failed error={desk.error} retry={() => void desk.refetch()} />;
  const current = items[at];
  return (
    <div className="page">
      <div className="pagehead">
        <PageTitle>Listing desk</PageTitle>
        <span className="soft">
          {desk.data.ready} ready, {desk.data.waiting} nearly{up.size > 0 && `, ${up.size} put up`}
        </span>
        <span className="grow" />
        <span className="soft hide-small">
          <kbd>Ctrl</kbd> <kbd>↑</kbd> <kbd>↓</kbd> walks, <kbd>Ctrl</kbd> <kbd>Enter</kbd> puts up
        </span>
      </div>
      {current === undefined ? (
        <p className="soft">
          Nothing waits to be listed. What is decided, inspected and priced comes here by itself.
        </p>
      ) : (
        <div className="desk">
          <Queue items={items} at={at} up={up} onChoose={go} />
          <Piece
            key={current.id}
            row={current}
            isUp={up.has(current.id)}
            onUp={() => {
              setUp(new Set([...up, current.id]));
              nextAfter(at);
            }}
          />
        </div>
      )}
    </div>
  );
}

function Queue({
  items,
  at,
  up,
  onChoose,
}: {
  items: readonly DeskRow[];
  at: number;
  up: ReadonlySet<string>;
  onChoose: (at: number) => void;
}) {
  return (
    <nav className="desk-queue" aria-label="What waits to be listed">
      {items.map((row, i) => (
        <ButtonBase
          key={row.id}
          aria-current={i === at}
          onClick={() => onChoose(i)}
          tabIndex={i === at ? 0 : -1}
        >
          {row.picture ? (
            <img src={`/api/v1/pictures/${row.picture}/thumb`} alt="" />
          ) : (
            <span className="none" />
          )}
          <span>{row.title}</span>
          <small>
            <span className="mono">{row.stockNumber}</span>{' '}
            {up.has(row.id)
              ? 'put up'
              : row.missing.length === 0
                ? `ready, ${moneyText(row.ask)}`
                : row.missing.map((m) => m.text.split(':')[0]).join(', ')}
          </small>
        </ButtonBase>
      ))}
    </nav>
  );
}

function Piece({ row, isUp, onUp }: { row: DeskRow; isUp: boolean; onUp: () => void }) {
  const sheet = usePieceQuery(row.id);
  if (sheet.isPending) return <Loading />;
  if (sheet.isError) return <Failed error={sheet.error} retry={() => void sheet.refetch()} />;
  return <OnDesk sheet={sheet.data} isUp={isUp} onUp={onUp} />;
}

function OnDesk({ sheet, isUp, onUp }: { sheet: PieceSheet; isUp: boolean; onUp: () => void }) {
  const { shop } = useSession();
  const mayPublish = useMay('appraise');
  const takeSheet = useTakeSheet();
  const answers = useKeptAnswers();
  const params = { id: sheet.id };
  const draft = useAnswer(listingRoutes.draft, { params });
  const [ask, setAsk] = useState<Money | null>(sheet.pricing.ask);
  const [understood, setUnderstood] = useState(true);
  const price = async (): Promise<PieceSheet> => {
    const { ask: before, floor, note } = sheet.pricing;
    if (ask?.amount === before?.amount && ask?.currency === before?.currency) return sheet;
    const priced = await send(worthRoutes.putPricing, {
      params,
      body: { ask, floor, note },
      version: sheet.version,
    });
    takeSheet(priced);
    return priced;
  };
  const act = useMutation({
    mutationFn: (publish: boolean) =>
      inLine(sheet.id, async () => {
        const priced = await price();
        return publish ? send(listingRoutes.publish, { params, version: priced.version }) : priced;
      }),
    onSuccess: (fresh, publish) => {
      takeSheet(fresh);
      void answers.invalidate(pieceRoutes.tray);
      if (publish) onUp();
    },
  });
  const run = (publish: boolean) => {
    if (mayPublish && understood && !act.isPending && !isUp) act.mutate(publish);
  };
  useShortcuts('This piece', [{ key: 'mod+Enter', does: 'Put it up', run: () => run(true) }]);
  const problem = act.error instanceof ApiProblem ? act.error : undefined;
  const worth = sheet.readings.worth;
  return (
    <section>
      <h2 className="sec">
        <span>
          <Link to={`/pieces/${sheet.id}/listing`}>{sheet.title}</Link>{' '}
          <span className="mono soft">{sheet.stockNumber}</span>
        </span>
        <small>
          {worth
            ? `worth ${moneyText(worth.estimate, true)}, ${moneyText(worth.low, true)} – ${moneyText(worth.high, true)}`
            : 'no estimate'}
        </small>
      </h2>
      {isUp ? (
        <p className="note good">
          <b>It is up on {shop.channelName}.</b>
        </p>
      ) : (
        <form
          className="desk-act"
          noValidate
          onSubmit={(event) => {
            event.preventDefault();
            run(false);
          }}
        >
          <MoneyInput
            label="Price"
            currency={shop.baseCurrency}
            value={ask}
            disabled={!mayPublish}
            problem={problem?.at('/ask')}
            autoFocus
            onChange={(next, read) => {
              setAsk(next);
              setUnderstood(read);
            }}
          />
          {mayPublish && (
            <Button variant="contained" disabled={act.isPending} onClick={() => run(true)}>
              Put it up on {shop.channelName}
            </Button>
          )}
        </form>
      )}
      {problem &&
        (problem.errors.length > 0 ? problem.errors : [{ pointer: '', message: problem.message }]).map(
          (e) => (
            <p key={e.message} className="problem" role="alert">
              {e.message}
            </p>
          ),
        )}
      {draft.data && (
        <>
          <Blocks
            id={sheet.id}
            blocks={draft.data.blocks.filter((b) => b.stage !== 'worth' || ask === null)}
          />
          <WordingProblems problems={draft.data.problems} />
          <h3 style={{ fontSize: 15, margin: '6px 0' }}>
            {sheet.listing?.title ?? draft.data.written.title}
          </h3>
          <pre className="words">{sheet.listing?.body ?? draft.data.written.body}</pre>
          <Shots shots={draft.data.shots} unseen={draft.data.unseen} sheet={sheet} />
        </>
      )}
    </section>
  );
}
