/** Everything that is not explained yet, in one place; and the numbers the shop watches for. */
import { CellSelect } from '../parts/fields/choices.tsx';
import { LineInput } from '../parts/fields/LineInput.tsx';
import { benchRoutes } from '@jutbank/contract/bench';
import { Button } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { useAnswer, useKeptAnswers } from '../base/answers.ts';
import { ApiProblem, send } from '../base/api.ts';
import { useMay } from '../base/session.ts';
import { Failed, Loading } from '../base/states.tsx';
import { PageTitle } from '../parts/PageTitle.tsx';
import { QuestionLine } from './OpenQuestions.tsx';
import { useVocabulary } from '../reference/vocabulary.ts';
import './bench.css';

export default function QuestionsPage() {
  const list = useAnswer(benchRoutes.questions);
  if (list.isPending) return <Loading />;
  if (list.isError) return <Failed error={list.error} retry={() => void list.refetch()} />;
  const open = list.data.items.filter((q) => q.answer === null);
  const answered = list.data.items.filter((q) => q.answer !== null);
  return (
    <div className="page">
      <div className="pagehead">
        <PageTitle>Open questions</PageTitle>
        <span className="soft">
          <span className="num">{open.length}</span> open, <span className="num">{answered.length}</span>{' '}
          answered
        </span>
      </div>
      <div className="twocol">
        <section>
          <h2 className="sec">On pieces</h2>
          {list.data.items.length === 0 && (
            <p className="soft">
              Nothing is open. What cannot be explained at the bench is kept as a question and listed here.
            </p>
          )}
          {open.map((q) => (
            <QuestionLine key={q.id} question={q} withPiece />
          ))}
          {answered.map((q) => (
            <QuestionLine key={q.id} question={q} withPiece />
          ))}
          <Unlisted />
        </section>
        <WatchList />
      </div>
    </div>
  );
}

/** What was written at the bench because no value of the list said it: for the reference, if it turns up again. */
function Unlisted() {
  const mayWrite = useMay('appraise');
  const list = useAnswer(benchRoutes.unlisted);
  const vocabulary = useVocabulary();
  const items = list.data?.items ?? [];
  if (items.length === 0) return null;
  return (
    <>
      <h2 className="sec" style={{ marginTop: 24 }}>
        Seen, and not in the reference
      </h2>
      {items.map(({ feature, text, count, pieces }) => (
        <div key={`${feature} ${text}`} className="f" style={{ gridTemplateColumns: '1fr auto' }}>
          <span>
            {vocabulary.data?.features.find((f) => f.id === feature)?.label ?? feature}: <b>{text}</b>{' '}
            <span className="soft">
              {pieces.map((piece, i) => (
                <span key={piece.id}>
                  {i > 0 && ', '}
                  <Link to={`/pieces/${piece.id}/bench`}>{piece.stockNumber}</Link>
                </span>
              ))}
              {count > pieces.length && ` and ${count - pieces.length} more`}
            </span>
          </span>
          {mayWrite && <Link to={`/reference/write/features/${feature}`}>Write it in</Link>}
        </div>
      ))}
    </>
  );
}

function WatchList() {
  const answers = useKeptAnswers();
  const may = useMay('work');
  const [code, setCode] = useState('');
  const [text, setText] = useState('');
  const [note, setNote] = useState('');
  const list = useAnswer(benchRoutes.watchList);
  const vocabulary = useVocabulary();
  const serials = vocabulary.data?.codes.filter((c) => c.kind === 'serial') ?? [];
  const again = () => answers.invalidate(benchRoutes.watchList);
  const add = useMutation({
    mutationFn: () => send(benchRoutes.watch, { body: { code: code || (serials[0]?.id ?? ''), text, note } }),
    onSuccess: async () => {
      setText('');
      setNote('');
      await again();
    },
  });
  const remove = useMutation({
    mutationFn: (id: string) => send(benchRoutes.unwatch, { params: { id } }),
    onSuccess: again,
  });
  const problem = add.error instanceof ApiProblem ? add.error : undefined;
  return (
    <section>
      <h2 className="sec">
        Watch-list <small>the bench raises an alarm when one of these turns up</small>
      </h2>
      {list.data?.items.map((w) => (
        <div key={w.id} className="f" style={{ gridTemplateColumns: '90px 1fr auto' }}>
          <span className="mono">{w.text}</span>
          <span>
            {w.note}{' '}
            <span className="soft">
              {vocabulary.data?.codes.find((c) => c.id === w.code)?.title ?? w.code}, {w.addedBy}
            </span>
          </span>
          {may && (
            <Button variant="text" className="quiet soft" onClick={() => remove.mutate(w.id)}>
              no longer
            </Button>
          )}
        </div>
      ))}
      {list.data?.items.length === 0 && <p className="soft">No number is watched for.</p>}
      {may && serials.length > 0 && (
        <form
          className="askline"
          onSubmit={(e) => {
            e.preventDefault();
            add.mutate();
          }}
        >
          <CellSelect
            label="Which serial"
            value={code || (serials[0]?.id ?? '')}
            options={serials.map((c) => ({ value: c.id, label: c.title ?? c.id }))}
            onChange={(id) => setCode(id ?? '')}
          />
          <LineInput label="Number" hint="Number" value={text} onChange={setText} />
          <LineInput label="Why" hint="Why" value={note} onChange={setNote} />
          <Button type="submit" disabled={add.isPending || text.trim() === ''}>
            Watch for it
          </Button>
        </form>
      )}
      {problem && <p className="problem">{problem.message}</p>}
    </section>
  );
}
