/** One series: every form drawn in the order in which it was made, what is here in ink, what is missing faint. */
import { seriesRoutes, type SeriesDetail, type SeriesSlotAnswer } from '@jutbank/contract/series';
import type { DrawnAs } from '@jutbank/core/drawing';
import { Button } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { useAnswer, useKeptAnswers } from '../base/answers.ts';
import { send } from '../base/api.ts';
import { useMay } from '../base/session.ts';
import { Failed, Loading } from '../base/states.tsx';
import { Opening } from '../parts/Opening.tsx';
import { PageTitle } from '../parts/PageTitle.tsx';
import { Roving } from '../parts/Roving.tsx';
import { moneyText } from '../parts/words.ts';
import { FormDrawing } from '../reference/FormDrawing.tsx';
import { useForms } from '../reference/useForms.ts';
import { useVocabulary } from '../reference/vocabulary.ts';
import { SeriesForm } from './SeriesForm.tsx';
import { SlotPanel } from './SlotPanel.tsx';
import { editionInWords, rangeText, ruleInWords, STATE_WORDS } from './words.ts';
import './series.css';

const SHOWS = {
  all: 'All',
  missing: 'Missing',
  doubles: 'Double',
  wanted: 'Wanted',
  upgrade: 'A better one wanted',
} as const;
type Shows = keyof typeof SHOWS;

const shown: Readonly<Record<Shows, (slot: SeriesSlotAnswer) => boolean>> = {
  all: () => true,
  missing: (s) => s.state === 'missing',
  doubles: (s) => s.doubles.length > 0,
  wanted: (s) => s.wish?.wish === 'want',
  upgrade: (s) => s.state === 'upgrade',
};

export default function SeriesPage() {
  const { id = '' } = useParams();
  const mayWork = useMay('work');
  const answers = useKeptAnswers();
  const navigate = useNavigate();
  const series = useAnswer(seriesRoutes.series, { params: { id } });
  const words = useVocabulary().data;
  const [show, setShow] = useState<Shows>('all');
  const [open, setOpen] = useState<string>();
  const panel = useRef<HTMLElement>(null);
  const remove = useMutation({
    mutationFn: (version: number) => send(seriesRoutes.removeSeries, { params: { id }, version }),
    onSuccess: () => {
      void answers.invalidate(seriesRoutes.listSeries);
      void navigate('/series');
    },
  });
  if (series.isPending) return <Loading />;
  if (series.isError) return <Failed error={series.error} retry={() => void series.refetch()} />;
  const of = series.data;
  const kept = (next: SeriesDetail) => {
    answers.set(seriesRoutes.series, { params: { id } }, next);
    void answers.invalidate(seriesRoutes.listSeries);
  };
  const slots = of.slots.filter(shown[show]);
  const chosen =
    of.slots.find((slot) => slot.key === open) ??
    of.slots.find((slot) => slot.key === of.hardest[0]) ??
    of.slots[0];
  return (
    <div className="page">
      <div className="pagehead">
        <PageTitle>{of.name}</PageTitle>
        <span className="soft">
          {[of.buyerName, ruleInWords(of.rule, words)].filter(Boolean).join(' · ')}
        </span>
      </div>
      <Completion of={of} />
      {of.note !== '' && <p className="soft">{of.note}</p>}
      {of.slots.length === 0 ? (
        <p className="note">
          <b>The reference has no form that this asks for.</b> Write the forms down, or change what is asked
          for.
        </p>
      ) : (
        <>
          <Roving className="chips" role="group" aria-label="What is shown">
            {(Object.keys(SHOWS) as Shows[]).map((key) => (
              <button
                key={key}
                type="button"
                className="quiet"
                aria-pressed={show === key}
                onClick={() => setShow(key)}
              >
                {SHOWS[key]} <span className="num">{of.slots.filter(shown[key]).length}</span>
              </button>
            ))}
          </Roving>
          <div className="series">
            <Board
              slots={slots}
              chosen={chosen?.key}
              onChoose={(key) => {
                setOpen(key);
                // under the board on a narrow screen: what was asked for comes into sight
                requestAnimationFrame(() => panel.current?.scrollIntoView({ block: 'nearest' }));
              }}
            />
            {chosen && (
              <SlotPanel
                ref={panel}
                key={`${chosen.key} ${of.version}`}
                slot={chosen}
                of={of}
                onKept={kept}
                mayWork={mayWork}
              />
            )}
          </div>
        </>
      )}
      {mayWork && (
        <div className="series-acts">
          <Opening words="Change what it asks for">
            {(close) => (
              <SeriesForm
                of={of}
                onKept={(next) => {
                  kept(next);
                  close();
                }}
              />
            )}
          </Opening>
          <Opening words="Follow it no longer">
            {() => (
              <p>
                What was said of its forms is forgotten; the pieces stay as they are.{' '}
                <Button
                  variant="outlined"
                  disabled={remove.isPending}
                  onClick={() => remove.mutate(of.version)}
                >
                  Forget the series
                </Button>
                {remove.isError && <span className="problem">{remove.error.message}</span>}
              </p>
            )}
          </Opening>
        </div>
      )}
    </div>
  );
}

function Completion({ of: { completion, contactId } }: { of: SeriesDetail }) {
  const { filled, of, owned, missing, share, unpriced } = completion;
  const inHundred = (n: number) => Math.round(n * 100);
  return (
    <dl className="completion">
      <div>
        <dt>Filled</dt>
        <dd className="num">
          {filled} of {of}
        </dd>
      </div>
      <div>
        <dt>{contactId === null ? 'Worth of the best here' : 'Worth of what they have from here'}</dt>
        <dd className="num">
          {moneyText(owned.likely, true)} <small>{rangeText(owned)}</small>
        </dd>
      </div>
      <div>
        <dt>What is missing would cost</dt>
        <dd className="num">
          {moneyText(missing.likely, true)} <small>{rangeText(missing)}</small>
        </dd>
      </div>
      <div>
        <dt>In money</dt>
        <dd className="num">
          {share === null ? (
            '—'
          ) : (
            <>
              {inHundred(share.likely)} in 100{' '}
              <small>
                {inHundred(share.low)} to {inHundred(share.high)}
              </small>
            </>
          )}
        </dd>
      </div>
      {unpriced > 0 && (
        <div>
          <dt>Without a price</dt>
          <dd className="num">
            {unpriced} <small>no sale near them: they are in no sum</small>
          </dd>
        </div>
      )}
    </dl>
  );
}

function Board({
  slots,
  chosen,
  onChoose,
}: {
  slots: readonly SeriesSlotAnswer[];
  chosen: string | undefined;
  onChoose: (key: string) => void;
}) {
  const words = useVocabulary().data;
  const as = (slot: SeriesSlotAnswer): DrawnAs => ({
    construction: words?.patterns.find((p) => p.id === slot.pattern)?.construction ?? 'fixed',
    pattern: slot.pattern,
    variant: slot.variants[0] ?? null,
  });
  const recipeOf = useForms(slots.map(as));
  if (slots.length === 0) return <p className="soft board">None.</p>;
  return (
    <Roving className="board" role="group" aria-label="The forms in the order in which they were made">
      {slots.map((slot) => (
        <button
          key={slot.key}
          type="button"
          className={`slot ${slot.state}`}
          aria-pressed={slot.key === chosen}
          onClick={() => onChoose(slot.key)}
        >
          <FormDrawing recipe={recipeOf(as(slot))} width={132} height={52} label="" />
          <b>{slot.name}</b>
          <span className="soft num">{editionInWords(slot)}</span>
          <span className="stand">
            <i aria-hidden />
            {STATE_WORDS[slot.state]}
            {slot.doubles.length > 0 && ` · ${slot.doubles.length} double`}
            {slot.sold.length > 0 && ` · ${slot.sold.length} sold`}
            {slot.offers.length > 0 && ' · one is here'}
            {slot.wish?.wish === 'want' && ' · wanted'}
          </span>
        </button>
      ))}
    </Roving>
  );
}
