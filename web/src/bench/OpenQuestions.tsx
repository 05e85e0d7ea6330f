/** What nobody can explain on this piece: kept as a question until somebody answers it. */
import { LineInput } from '../parts/fields/LineInput.tsx';
import { pieceRoutes } from '@jutbank/contract/pieces';
import { benchRoutes, type PieceQuestion } from '@jutbank/contract/bench';
import { Button } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { useAnswer, useKeptAnswers } from '../base/answers.ts';
import { ApiProblem, send } from '../base/api.ts';
import { useMay } from '../base/session.ts';
import { dayText } from '../parts/words.ts';
import './bench.css';

export function OpenQuestions({ piece }: { piece: string }) {
  const answers = useKeptAnswers();
  const may = useMay('work');
  const [asked, setAsked] = useState('');
  const list = useAnswer(benchRoutes.questions, { query: { piece } });
  const ask = useMutation({
    mutationFn: () => send(benchRoutes.askQuestion, { params: { id: piece }, body: { asked } }),
    onSuccess: async () => {
      setAsked('');
      await answers.invalidate(benchRoutes.questions);
      await answers.invalidate(pieceRoutes.piece);
    },
  });
  const problem = ask.error instanceof ApiProblem ? ask.error : undefined;
  return (
    <section aria-label="Open questions">
      <div className="effort">Not explained</div>
      {list.data?.items.map((q) => (
        <QuestionLine key={q.id} question={q} />
      ))}
      {may && (
        <form
          className="askline"
          onSubmit={(e) => {
            e.preventDefault();
            ask.mutate();
          }}
        >
          <LineInput
            label="Something nobody can explain"
            hint="A mark nobody can explain, initials, a number…"
            value={asked}
            onChange={setAsked}
          />
          <Button type="submit" disabled={ask.isPending || asked.trim() === ''}>
            Keep as question
          </Button>
        </form>
      )}
      {problem && <p className="problem">{problem.at('/asked') ?? problem.message}</p>}
    </section>
  );
}

/** One question, and the field to answer it. */
export function QuestionLine({
  question,
  withPiece = false,
}: {
  question: PieceQuestion;
  withPiece?: boolean;
}) {
  const answers = useKeptAnswers();
  const may = useMay('appraise');
  const [open, setOpen] = useState(false);
  const [text, setText] = useState('');
  const answer = useMutation({
    mutationFn: (body: { answer: string | null }) =>
      send(benchRoutes.answerQuestion, { params: { id: question.id }, body }),
    onSuccess: async () => {
      setOpen(false);
      await answers.invalidate(benchRoutes.questions);
      await answers.invalidate(pieceRoutes.piece);
    },
  });
  return (
    <div className={question.answer === null ? 'note' : 'note good'} style={{ marginBottom: 6 }}>
      {withPiece && (
        <b>
          <Link to={`/pieces/${question.piece.id}/bench`}>
            {question.piece.stockNumber} {question.piece.title}
          </Link>
        </b>
      )}
      {question.asked}
      <span className="soft">
        {' '}
        ({question.askedBy}, {dayText(question.askedAt)})
      </span>
      {question.answer !== null && (
        <div>
          {question.answer}{' '}
          <span className="soft">
            ({question.answeredBy}
            {question.answeredAt !== null && `, ${dayText(question.answeredAt)}`})
          </span>
        </div>
      )}
      {may && !open && (
        <Button
          variant="text"
          className="quiet soft"
          onClick={() => (question.answer === null ? setOpen(true) : answer.mutate({ answer: null }))}
        >
          {question.answer === null ? 'answer' : 'open again'}
        </Button>
      )}
      {open && (
        <form
          className="askline"
          onSubmit={(e) => {
            e.preventDefault();
            answer.mutate({ answer: text });
          }}
        >
          <LineInput label="Answer" value={text} onChange={setText} />
          <Button type="submit" disabled={text.trim() === '' || answer.isPending}>
            Keep answer
          </Button>
        </form>
      )}
    </div>
  );
}
