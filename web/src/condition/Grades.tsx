/** The grade in every school, what holds it down, and what has to be disclosed. */
import { LineInput } from '../parts/fields/LineInput.tsx';
import { conditionRoutes } from '@jutbank/contract/condition';
import { Button, ButtonBase } from '@mui/material';
import { ActButton } from '../parts/ActButton.tsx';
import type { NumbersAnswer } from '@jutbank/core/bench';
import { SCALE_IDS, type GradeAnswer } from '@jutbank/core/condition';
import type { PieceSheet } from '@jutbank/contract/pieces';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { ApiProblem, send } from '../base/api.ts';
import { Roving } from '../parts/Roving.tsx';
import { inLine, useTakeSheet } from '../pieces/usePiece.ts';
import { sentence } from '../parts/words.ts';

export function Grades({
  grade,
  sheet,
  skipped,
  numbers,
  inspected,
  untouched,
  may,
  onFinish,
}: {
  grade: GradeAnswer;
  sheet: PieceSheet;
  /** steps that nobody looked at */
  skipped: number;
  /** numbers on its parts, read at the bench: stated beside the grade, never mixed in */
  numbers: NumbersAnswer | undefined;
  inspected: boolean;
  /** nobody has looked at anything yet */
  untouched: boolean;
  may: boolean;
  onFinish: () => void;
}) {
  const main = sheet.quotedScale;
  if (untouched)
    return (
      <>
        <h2 className="sec">Grades</h2>
        <p className="soft">
          Nothing has been looked at yet, so there is nothing to grade. The grade builds up as you answer.
        </p>
      </>
    );
  const ordered = [...grade.grades].sort((a, b) => Number(b.scale === main) - Number(a.scale === main));
  return (
    <>
      <h2 className="sec">
        Grades <small>{inspected ? 'every school' : 'so far'}</small>
      </h2>
      <p style={{ marginBottom: 6 }}>
        Condition index{' '}
        <span className="num" style={{ fontSize: 20, fontWeight: 650 }}>
          {grade.conditionIndex.toFixed(1)}
        </span>{' '}
        <span className="soft">of 100</span>
      </p>
      {ordered.map((g) => (
        <div key={g.scale} className={g.scale === main ? 'school main' : 'school'}>
          <div className="soft">
            {sentence(g.scale)} scale
            {g.scale === 'finish' && (
              <>
                {' · '}
                <span className="num">{g.from.toFixed(0)} %</span> of the original finish
              </>
            )}
          </div>
          <b>{sentence(g.grade)}</b>
          {g.would !== g.grade && (
            <span className="soft"> would otherwise be {sentence(g.would).toLowerCase()}</span>
          )}
          {[...new Set(g.caps.map((c) => c.says))].map((says) => (
            <div key={says} className="warn">
              {sentence(says)}
            </div>
          ))}
          {g.caps.length === 0 && <div className="soft">{g.toNextUp}</div>}
          <Link className="soft" to={`/condition-rules?scale=${g.scale}&version=${g.rules.split('/')[1]}`}>
            by rules {g.rules.replace('/', ', version ')}
          </Link>
        </div>
      ))}
      <Quoted sheet={sheet} may={may} />
      {numbers && numbers.verdict !== 'one-only' && (
        <p style={{ fontSize: 12.5 }}>
          <b>{numbers.verdict === 'matching' ? 'Matching numbers' : 'Numbers differ'}</b>{' '}
          <span className="soft">
            on {numbers.parts.map((p) => p.part).join(', ')}; stated beside the grade, not mixed in
          </span>
        </p>
      )}
      {inspected ? (
        <Button fullWidth style={{ margin: '12px 0' }} variant="outlined" disabled={!may} onClick={onFinish}>
          Open the inspection again
        </Button>
      ) : (
        <ActButton
          fullWidth
          style={{ margin: '12px 0' }}
          does={sheet.sealed ? 'Finished as sealed' : 'The inspection is finished'}
          disabled={!may}
          onAct={onFinish}
        />
      )}
      {(sheet.sealed || skipped > 0) && (
        <p className="soft" style={{ fontSize: 12.5 }}>
          {sheet.sealed
            ? 'Its package was not opened: every paper says that nothing inside was examined.'
            : `${skipped} ${skipped === 1 ? 'step was' : 'steps were'} not examined: listing, report and certificate say so, and not that no fault was found.`}
        </p>
      )}
      <h2 className="sec" style={{ marginTop: 8 }}>
        To be disclosed
      </h2>
      {grade.disclosures.length === 0 ? (
        <p className="soft">Nothing so far.</p>
      ) : (
        <ul className="disclosed">
          {grade.disclosures.map((d, i) => (
            <li key={`${d} ${i}`}>{d}</li>
          ))}
        </ul>
      )}
    </>
  );
}

/** The school it is quoted in; another than usual wants a reason. */
function Quoted({ sheet, may }: { sheet: PieceSheet; may: boolean }) {
  const takeSheet = useTakeSheet();
  const [scale, setScale] = useState(sheet.quotedScale);
  const [reason, setReason] = useState('');
  const quote = useMutation({
    mutationFn: (quoted: PieceSheet['quoted']) =>
      inLine(sheet.id, () =>
        send(conditionRoutes.putQuoted, {
          params: { id: sheet.id },
          body: { quoted },
          version: sheet.version,
        }),
      ),
    onSuccess: (fresh) => {
      takeSheet(fresh);
      setScale(fresh.quotedScale);
      setReason('');
    },
  });
  if (sheet.quoted)
    return (
      <p style={{ fontSize: 12.5 }}>
        Quoted on the {sheet.quoted.scale} scale: <span className="soft">{sheet.quoted.reason}</span>{' '}
        {may && (
          <Button variant="text" className="quiet soft" onClick={() => quote.mutate(null)}>
            as usual again
          </Button>
        )}
      </p>
    );
  if (!may) return null;
  return (
    <details style={{ fontSize: 12.5 }}>
      <summary className="soft">Quote it on another scale</summary>
      <form
        style={{ display: 'grid', gap: 6, marginTop: 6 }}
        onSubmit={(e) => {
          e.preventDefault();
          quote.mutate({ scale, reason });
        }}
      >
        <Roving className="chips" role="group" aria-label="Quoted on">
          {SCALE_IDS.map((id) => (
            <ButtonBase key={id} className="chip" aria-pressed={scale === id} onClick={() => setScale(id)}>
              {sentence(id)}
            </ButtonBase>
          ))}
        </Roving>
        <LineInput
          label="Why it is quoted so"
          hint="why it is quoted so"
          maxLength={300}
          value={reason}
          onChange={setReason}
        />
        {quote.isError && (
          <p className="problem" role="alert">
            {quote.error instanceof ApiProblem
              ? (quote.error.at('/quoted/reason') ?? quote.error.message)
              : quote.error.message}
          </p>
        )}
        <ButtonBase
          type="submit"
          className="chip"
          disabled={scale === sheet.quotedScale || reason.trim().length < 3 || quote.isPending}
        >
          Quote it so
        </ButtonBase>
      </form>
    </details>
  );
}
