/** A piece whose material attacks its neighbours is kept apart, with a day to look at it again. */
import { Submit } from '../parts/fields/Submit.tsx';
import { DayInput } from '../parts/fields/figures.tsx';
import { TextInput } from '../parts/fields/TextInput.tsx';
import { useContractForm } from '../parts/fields/useContractForm.ts';
import { conditionRoutes, type ConditionFile } from '@jutbank/contract/condition';
import { pieceRoutes, type PieceSheet } from '@jutbank/contract/pieces';
import { useKeptAnswers } from '../base/answers.ts';
import { dayText } from '../parts/words.ts';

const inDays = (days: number) => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10);
const REVIEW_DAYS = 30;

export function Quarantine({ sheet, file, may }: { sheet: PieceSheet; file: ConditionFile; may: boolean }) {
  const answers = useKeptAnswers();
  const open = file.quarantine.find((q) => q.endedOn === null);
  const fresh = async () => {
    await answers.invalidateBelow(pieceRoutes.piece.path, { id: sheet.id });
    await answers.invalidate(pieceRoutes.tray);
  };
  const keep = useContractForm(conditionRoutes.quarantine, {
    params: { id: sheet.id },
    version: sheet.version,
    empty: { since: inDays(0), reviewOn: inDays(REVIEW_DAYS), reason: '' },
    onSent: fresh,
  });
  const release = useContractForm(conditionRoutes.release, {
    params: { id: open?.id ?? '' },
    empty: { endedOn: inDays(0), outcome: '' },
    onSent: fresh,
  });
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
          <b>In quarantine since {dayText(open.since)}</b>
          {open.reason}. To be looked at again on {dayText(open.reviewOn)}.
          {may && (
            <form className="fieldrow" noValidate onSubmit={release.onSubmit}>
              <TextInput
                label="What was seen at the review"
                placeholder="no smell, no new rust on the test plate"
                {...release.field('outcome')}
              />
              <Submit form={release} words="Let it out" />
            </form>
          )}
        </div>
      ) : may ? (
        <form className="fieldrow" noValidate onSubmit={keep.onSubmit}>
          <TextInput
            label="Why it is kept apart"
            placeholder="smells of vinegar, the test plate rusted"
            {...keep.field('reason')}
          />
          <DayInput label="Look again on" {...keep.field('reviewOn')} />
          <Submit form={keep} words="Keep it apart" />
          {keep.field('since').problem !== undefined && (
            <p className="problem" role="alert">
              {keep.field('since').problem}
            </p>
          )}
        </form>
      ) : (
        <p className="soft">It is not kept apart.</p>
      )}
      {file.quarantine.map(
        (q) =>
          q.endedOn !== null && (
            <p key={q.id} className="soft">
              {dayText(q.since)} – {dayText(q.endedOn)}: {q.reason}
              {q.outcome !== '' && `; ${q.outcome}`}
            </p>
          ),
      )}
    </>
  );
}
