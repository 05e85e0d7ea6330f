/** One question after the other: a number or a tap answers, Enter goes on, each answer says why. */
import { trainingRoutes, type DrillQuestionAnswer, type DrillVerdict } from '@jutbank/contract/training';
import { Button } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Link } from 'react-router';
import { send } from '../base/api.ts';
import { useShortcuts } from '../base/shortcuts.ts';
import { MarkDrawing, signsOf } from '../parts/Drawn.tsx';
import { PageTitle } from '../parts/PageTitle.tsx';
import { dayText, today } from '../parts/words.ts';
import { FormDrawing } from '../reference/FormDrawing.tsx';
import { useForms } from '../reference/useForms.ts';
import { useVocabulary } from '../reference/vocabulary.ts';

export function DrillSession({
  questions,
  onDone,
}: {
  questions: readonly DrillQuestionAnswer[];
  onDone: () => void;
}) {
  const [at, setAt] = useState(0);
  const [right, setRight] = useState(0);
  const [missed, setMissed] = useState<readonly (DrillVerdict & { ask: string })[]>([]);
  const question = questions[at];
  if (!question) return <Finished right={right} of={questions.length} missed={missed} onDone={onDone} />;
  return (
    <div className="page drill">
      <div className="pagehead">
        <PageTitle name="Drills">
          Question {at + 1} <span className="soft">of {questions.length}</span>
        </PageTitle>
        <span className="grow" />
        <Button variant="text" className="quiet" onClick={onDone}>
          Stop here
        </Button>
      </div>
      <Question
        key={question.id}
        question={question}
        onNext={(verdict) => {
          if (verdict?.right) setRight(right + 1);
          else if (verdict) setMissed([...missed, { ...verdict, ask: question.ask }]);
          setAt(at + 1);
        }}
      />
    </div>
  );
}

function Question({
  question,
  onNext,
}: {
  question: DrillQuestionAnswer;
  onNext: (verdict: DrillVerdict | undefined) => void;
}) {
  const [begun] = useState(() => Date.now());
  const [taken, setTaken] = useState<string>();
  const on = useRef<HTMLButtonElement>(null);
  const answered = useMutation({
    mutationFn: (choice: string) =>
      send(trainingRoutes.answerDrill, {
        body: {
          question: question.id,
          basis: question.basis,
          choice,
          took: Math.min(3_600_000, Date.now() - begun),
        },
      }),
  });
  const { mutate } = answered;
  const verdict = answered.data;
  // what says something else by now, or is asked no more, is passed over
  const over = verdict !== undefined || answered.isError;
  const keys = useMemo(
    () =>
      over
        ? // what goes on has the focus: the key is the button's own
          [{ key: 'Enter', does: 'The next question' }]
        : question.choices.map((choice, i) => ({
            key: String(i + 1),
            does: `Answer ${i + 1}`,
            run: () => {
              setTaken(choice);
              mutate(choice);
            },
          })),
    [over, question.choices, mutate],
  );
  useShortcuts('Drill', keys);
  useEffect(() => {
    if (over) on.current?.focus();
  }, [over]);
  return (
    <>
      <h2 className="asked">{question.ask}</h2>
      <DrillDrawing question={question} />
      <ol className="choices">
        {question.choices.map((choice, i) => {
          const state =
            verdict === undefined
              ? ''
              : choice === verdict.answer
                ? 'is-right'
                : choice === taken
                  ? 'is-wrong'
                  : 'faded';
          return (
            <li key={choice}>
              <button
                type="button"
                className={state}
                disabled={answered.isPending || over}
                aria-pressed={choice === taken}
                onClick={() => {
                  setTaken(choice);
                  mutate(choice);
                }}
              >
                <kbd>{i + 1}</kbd> {choice}
                {state === 'is-right' && <em>right</em>}
                {state === 'is-wrong' && <em>taken</em>}
              </button>
            </li>
          );
        })}
      </ol>
      <div role="status">
        {verdict && (
          <div className={verdict.right ? 'note good' : 'note'}>
            <b>{verdict.right ? 'Right.' : `It is ${verdict.answer}.`}</b>
            {verdict.because}{' '}
            {verdict.source && (
              <span className="soft">
                {verdict.source.title}
                {verdict.source.page === null ? '' : `, page ${verdict.source.page}`}.{' '}
              </span>
            )}
            <Link to={verdict.opens}>Read it up</Link>{' '}
            <span className="soft num">{comesBack(verdict.due)}</span>
          </div>
        )}
        {answered.isError && <p className="problem">{answered.error.message}</p>}
      </div>
      {over && (
        <Button ref={on} variant="contained" onClick={() => onNext(verdict)}>
          Next <kbd className="act-key">⏎</kbd>
        </Button>
      )}
    </>
  );
}

const comesBack = (due: string): string =>
  due.slice(0, 10) <= today() ? 'Comes back today.' : `Comes back ${dayText(due.slice(0, 10))}.`;

function DrillDrawing({ question: { drawn } }: { question: DrillQuestionAnswer }) {
  const words = useVocabulary().data;
  const forms = drawn?.what === 'forms' ? drawn.variants : [];
  const as = (variant: string) => ({ construction: 'fixed' as const, variant, pattern: null });
  const recipeOf = useForms(forms.map(as));
  if (drawn?.what === 'forms')
    return (
      <div className="drill-drawn">
        {forms.map((variant) => (
          <FormDrawing key={variant} recipe={recipeOf(as(variant))} width={300} height={120} label="" />
        ))}
      </div>
    );
  const mark = words?.marks.find((m) => m.id === drawn?.mark);
  if (!mark || drawn === null) return null;
  const code = words?.codes.find((c) => c.id === drawn.code);
  const signs = code?.kind === 'date' ? signsOf(code, drawn.reads ?? {}) : undefined;
  return (
    <div className="drill-drawn">
      <MarkDrawing mark={mark} width={260} signs={signs} {...(code ? { codes: [code] } : {})} />
    </div>
  );
}

function Finished({
  right,
  of,
  missed,
  onDone,
}: {
  right: number;
  of: number;
  missed: readonly (DrillVerdict & { ask: string })[];
  onDone: () => void;
}) {
  const on = useRef<HTMLButtonElement>(null);
  useEffect(() => on.current?.focus(), []);
  return (
    <div className="page drill">
      <PageTitle name="Drills">
        {right} of {of} right
      </PageTitle>
      {missed.length > 0 && (
        <>
          <h2 className="sec" style={{ marginTop: 14 }}>
            To look at again
          </h2>
          <table className="grid">
            <tbody>
              {missed.map((m) => (
                <tr key={m.ask}>
                  <td className="soft">{m.ask}</td>
                  <td>
                    <b>{m.answer}</b>
                    <div className="soft">{m.because}</div>
                  </td>
                  <td>
                    <Link to={m.opens}>Read it up</Link>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
      <Button ref={on} variant="contained" style={{ marginTop: 14 }} onClick={onDone}>
        Done <kbd className="act-key">⏎</kbd>
      </Button>
    </div>
  );
}
