/** Five minutes of drills: how far one is, and one question after the other, by keyboard or thumb. */
import { trainingRoutes, type DrillProgress, type DrillQuestionAnswer } from '@jutbank/contract/training';
import type { DrillKind } from '@jutbank/core/training';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { useAnswer, useKeptAnswers } from '../base/answers.ts';
import { send } from '../base/api.ts';
import { Failed, Loading } from '../base/states.tsx';
import { ActButton } from '../parts/ActButton.tsx';
import { optionsOf, Select } from '../parts/fields/index.ts';
import { PageTitle } from '../parts/PageTitle.tsx';
import { counted } from '../parts/words.ts';
import { DrillSession } from './DrillSession.tsx';
import './training.css';

const KIND_WORDS: Readonly<Record<DrillKind, string>> = {
  stamp: 'Stamps',
  code: 'Date codes',
  number: 'Pattern numbers',
  differ: 'What changed',
  belongs: 'What does not belong',
  bracket: 'Brackets',
  imitation: 'Original or imitation',
  grade: 'Grades',
  price: 'Prices',
};

export default function DrillsPage() {
  const answers = useKeptAnswers();
  const progress = useAnswer(trainingRoutes.progress);
  const [maker, setMaker] = useState<string | null>(null);
  const [kind, setKind] = useState<DrillKind | null>(null);
  const [questions, setQuestions] = useState<readonly DrillQuestionAnswer[]>();
  const begin = useMutation({
    mutationFn: () =>
      send(trainingRoutes.nextDrills, {
        query: { ...(maker === null ? {} : { maker }), ...(kind === null ? {} : { kind }) },
      }),
    onSuccess: ({ items }) => setQuestions(items),
  });
  if (questions !== undefined && questions.length > 0)
    return (
      <DrillSession
        questions={questions}
        onDone={() => {
          setQuestions(undefined);
          void answers.invalidate(trainingRoutes.progress);
        }}
      />
    );
  if (progress.isPending) return <Loading />;
  if (progress.isError) return <Failed error={progress.error} retry={() => void progress.refetch()} />;
  const { due, makers, kinds, days, stale } = progress.data;
  const fresh = progress.data.new;
  if (makers.length === 0 && kinds.length === 0)
    return (
      <div className="page">
        <PageTitle>Drills</PageTitle>
        <p className="soft">
          There is nothing to ask yet. Questions are made from the shop’s own reference: import a pack, or
          write down stamps, codes and forms.
        </p>
      </div>
    );
  return (
    <div className="page drills">
      <div className="pagehead">
        <PageTitle>Drills</PageTitle>
        <span className="soft">
          Questions from the shop’s own reference and pieces. What one knows comes back rarely, what one
          misses soon.
        </span>
      </div>
      <div className="begin">
        <Select
          label="Of the maker"
          none="all"
          options={makers.map((m) => ({ value: m.id, label: m.name }))}
          value={maker}
          onChange={setMaker}
        />
        <Select
          label="About"
          none="everything, the commonest first"
          options={optionsOf(
            kinds.map((k) => k.kind),
            (k) => KIND_WORDS[k],
          )}
          value={kind}
          onChange={setKind}
        />
        <ActButton does="Begin: about five minutes" disabled={begin.isPending} onAct={() => begin.mutate()} />
      </div>
      <p className="due num">
        {due === 0 ? 'Nothing is due.' : `${counted(due)} due.`}{' '}
        <span className="soft">
          {fresh === 0 ? 'Everything was asked once.' : `${counted(fresh)} not asked yet.`}
          {stale > 0 && ` ${counted(stale)} say something else by now, and are asked anew.`}
        </span>
      </p>
      {begin.isError && <p className="problem">{begin.error.message}</p>}
      {questions?.length === 0 && (
        <p className="note good">
          <b>Nothing is due, and nothing is new.</b> Come back tomorrow, or choose another maker.
        </p>
      )}
      <div className="twocol">
        <Learnt head="By maker" rows={makers.map((m) => ({ ...m, key: m.id }))} />
        <Learnt
          head="By what is asked"
          rows={kinds.map((k) => ({ ...k, key: k.kind, name: KIND_WORDS[k.kind] }))}
        />
      </div>
      <Days days={days} />
    </div>
  );
}

type Counts = Pick<DrillProgress, 'known' | 'learning' | 'new' | 'due'>;

function Learnt({
  head,
  rows,
}: {
  head: string;
  rows: readonly (Counts & { readonly key: string; readonly name: string })[];
}) {
  return (
    <section>
      <h2 className="sec">
        {head} <small>known, learning, not asked yet</small>
      </h2>
      <table className="grid learnt">
        <tbody>
          {rows.map((row) => (
            <tr key={row.key}>
              <td>{row.name}</td>
              <td>
                <LearntBar {...row} />
              </td>
              <td className="num r">
                {counted(row.known)} · {counted(row.learning)} · {counted(row.new)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

function LearntBar({ known, learning, new: fresh }: Counts) {
  const all = Math.max(1, known + learning + fresh);
  const width = (n: number) => (200 * n) / all;
  return (
    <svg
      className="learnt-bar"
      viewBox="0 0 200 12"
      preserveAspectRatio="none"
      role="img"
      aria-label={`${known} known, ${learning} learning, ${fresh} not asked yet`}
    >
      <rect x="0" y="8" width="200" height="3" className="fresh" />
      <rect x={width(known)} y="4" width={width(learning)} height="7" className="learning" />
      <rect x="0" y="0" width={width(known)} height="11" className="known" />
    </svg>
  );
}

/** The last days on which something was answered: right above the line, wrong below it. */
function Days({ days }: { days: DrillProgress['days'] }) {
  if (days.length === 0) return null;
  const most = Math.max(1, ...days.map((d) => Math.max(d.right, d.wrong)));
  const high = (n: number) => (34 * n) / most;
  const right = days.reduce((n, d) => n + d.right, 0);
  const wrong = days.reduce((n, d) => n + d.wrong, 0);
  return (
    <section>
      <h2 className="sec">
        The last days <small>right above the line, wrong below</small>
      </h2>
      <svg
        className="drill-days"
        viewBox={`0 0 ${days.length * 22} 72`}
        width={days.length * 22}
        height="72"
        role="img"
        aria-label={`${right} right and ${wrong} wrong on ${days.length} days`}
      >
        {days.map((d, i) => (
          <g key={d.day}>
            <rect x={i * 22 + 3} y={36 - high(d.right)} width="16" height={high(d.right)} className="known" />
            <rect x={i * 22 + 3} y="37" width="16" height={high(d.wrong)} className="missed" />
          </g>
        ))}
        <path d={`M0 36.5H${days.length * 22}`} className="axis" />
      </svg>
      <p className="soft num">
        {counted(right)} right, {counted(wrong)} wrong on {days.length} {days.length === 1 ? 'day' : 'days'}
      </p>
    </section>
  );
}
