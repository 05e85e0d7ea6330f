/** What was decided at the last tables: to come back to what was only thought about. */
import { fairRoutes, type FairNote } from '@jutbank/contract/fair';
import { keepPreviousData } from '@tanstack/react-query';
import { Link } from 'react-router';
import { useAnswer } from '../base/answers.ts';
import { dayText, moneyText } from '../parts/words.ts';
import { FormDrawing } from '../reference/FormDrawing.tsx';
import { useForms } from '../reference/useForms.ts';

const SHOWN = 12;
const drawnAs = ({ construction, question }: FairNote) => ({
  construction,
  pattern: question?.pattern,
  variant: question?.variant,
});
const DECIDED = { bought: 'bought', thinking: 'thinking about it', left: 'left' } as const;

export function FairNotes() {
  const notes = useAnswer(fairRoutes.fairNotes, { once: true }, { placeholderData: keepPreviousData });
  const items = notes.data?.items.slice(0, SHOWN) ?? [];
  const recipeOf = useForms(items.map(({ note }) => drawnAs(note)));
  if (items.length === 0) return null;
  return (
    <section>
      <h2>The last tables</h2>
      <ul className="lasttables">
        {items.map(({ id, note, pieceId, picture, told }) => (
          <li key={id}>
            {picture === null ? (
              <span className="noimage">
                <FormDrawing recipe={recipeOf(drawnAs(note))} width={52} height={40} label="" />
              </span>
            ) : (
              <img src={`/api/v1/pictures/${picture}/thumb`} alt="" loading="lazy" />
            )}
            <span>
              {pieceId === null ? <b>{note.title}</b> : <Link to={`/pieces/${pieceId}`}>{note.title}</Link>}
              <small>
                {dayText(note.notedAt)}, {DECIDED[note.decision]}
                {note.question?.asked && `, asked ${moneyText(note.question.asked)}`}
                {note.ceiling && `, ceiling ${moneyText(note.ceiling)}`}
              </small>
              {note.note !== '' && <small>“{note.note}”</small>}
              {told.map((what) => (
                <small key={what} className="warn">
                  {what}
                </small>
              ))}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
