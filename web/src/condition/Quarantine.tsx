/** A piece whose material attacks its neighbours is kept apart, with a day to look at it again. */
import { conditionRoutes, type ConditionFile } from '@jutbank/contract/condition';
import { Button } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { pieceRoutes, type PieceSheet } from '@jutbank/contract/pieces';
import { useKeptAnswers } from '../base/answers.ts';
import { ApiProblem, send } from '../base/api.ts';
import { Field } from '../parts/Field.tsx';
import { inLine } from '../pieces/usePiece.ts';
import { dayText } from '../parts/words.ts';

const inDays = (days: number) => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10);
const REVIEW_DAYS = 30;

export function Quarantine({ sheet, file, may }: { sheet: PieceSheet; file: ConditionFile; may: boolean }) {
  const answers = useKeptAnswers();
  const open = file.quarantine.find((q) => q.endedOn === null);
  const [reason, setReason] = useState('');
  const [reviewOn, setReviewOn] = useState(inDays(REVIEW_DAYS));
  const [outcome, setOutcome] = useState('');
  const fresh = async () => {
    await answers.invalidateBelow(pieceRoutes.piece.path, { id: sheet.id });
    await answers.invalidate(pieceRoutes.tray);
  };
  const keep = useMutation({
    mutationFn: () =>
      inLine(sheet.id, () =>
        send(conditionRoutes.quarantine, {
          params: { id: sheet.id },
          body: { since: inDays(0), reviewOn, reason },
          version: sheet.version,
        }),
      ),
    onSuccess: fresh,
  });
  const release = useMutation({
    mutationFn: () =>
      send(conditionRoutes.release, { params: { id: open?.id }, body: { endedOn: inDays(0), outcome } }),
    onSuccess: fresh,
  });
  const problem = keep.error instanceof ApiProblem ? keep.error : undefined;
  return (
    <>
      <h2 className="sec">Kept apart</h2>
      {file.vapour.length > 0 && !open && (
        <div className="note bad">
          <b>{file.vapour.join(', ')}</b>Old plastics shrink and give off acid vapour that rusts their
          neighbours: keep it apart, ventilate, look again in a month.
        </div>
      )}
      {open ? (
        <div className="note bad">
          <b>In quarantine since {dayText(`${open.since}T00:00:00Z`)}</b>
          {open.reason}. To be looked at again on {dayText(`${open.reviewOn}T00:00:00Z`)}.
          {may && (
            <form
              className="fieldrow"
              onSubmit={(e) => {
                e.preventDefault();
                release.mutate();
              }}
            >
              <Field label="What was seen at the review" grow>
                {(id) => (
                  <input
                    id={id}
                    className="line"
                    placeholder="no smell, no new rust on the test plate"
                    value={outcome}
                    onChange={(e) => setOutcome(e.target.value)}
                  />
                )}
              </Field>
              <Button type="submit" disabled={release.isPending}>
                Let it out
              </Button>
            </form>
          )}
        </div>
      ) : may ? (
        <form
          className="fieldrow"
          onSubmit={(e) => {
            e.preventDefault();
            keep.mutate();
          }}
        >
          <Field label="Why it is kept apart" problem={problem?.at('/reason')} grow>
            {(id) => (
              <input
                id={id}
                className="line"
                placeholder="smells of vinegar, the test plate rusted"
                value={reason}
                onChange={(e) => setReason(e.target.value)}
              />
            )}
          </Field>
          <Field label="Look again on" problem={problem?.at('/reviewOn')}>
            {(id) => (
              <input
                id={id}
                className="line num"
                type="date"
                style={{ width: 150 }}
                value={reviewOn}
                onChange={(e) => setReviewOn(e.target.value)}
              />
            )}
          </Field>
          <Button type="submit" disabled={keep.isPending}>
            Keep it apart
          </Button>
        </form>
      ) : (
        <p className="soft">It is not kept apart.</p>
      )}
      {problem && problem.at('/reason') === undefined && problem.at('/reviewOn') === undefined && (
        <p className="problem" role="alert">
          {problem.at('/since') ?? problem.message}
        </p>
      )}
      {file.quarantine
        .filter((q) => q.endedOn !== null)
        .map((q) => (
          <p key={q.id} className="soft">
            {dayText(`${q.since}T00:00:00Z`)} – {dayText(`${q.endedOn}T00:00:00Z`)}: {q.reason}
            {q.outcome !== '' && `; ${q.outcome}`}
          </p>
        ))}
    </>
  );
}
