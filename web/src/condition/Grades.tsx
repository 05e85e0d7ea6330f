/** The grade in every school, what holds it down, and what has to be disclosed. */
import { Button } from '@mui/material';
import type { NumbersAnswer } from '@jutbank/core/bench';
import { mainScale, type GradeAnswer } from '@jutbank/core/condition';
import type { Construction } from '@jutbank/core/reference';
import { Link } from 'react-router';
import { sentence } from '../parts/words.ts';

export function Grades({
  grade,
  construction,
  numbers,
  inspected,
  untouched,
  may,
  onFinish,
}: {
  grade: GradeAnswer;
  construction: Construction;
  /** numbers on its parts, read at the bench: stated beside the grade, never mixed in */
  numbers: NumbersAnswer | undefined;
  inspected: boolean;
  /** nobody has looked at anything yet */
  untouched: boolean;
  may: boolean;
  onFinish: () => void;
}) {
  const main = mainScale(construction);
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
      {numbers && numbers.verdict !== 'one-only' && (
        <p style={{ fontSize: 12.5 }}>
          <b>{numbers.verdict === 'matching' ? 'Matching numbers' : 'Numbers differ'}</b>{' '}
          <span className="soft">
            on {numbers.parts.map((p) => p.part).join(', ')}; stated beside the grade, not mixed in
          </span>
        </p>
      )}
      <Button
        fullWidth
        style={{ margin: '12px 0' }}
        variant={inspected ? 'outlined' : 'contained'}
        disabled={!may}
        onClick={onFinish}
      >
        {inspected ? 'Open the inspection again' : 'The inspection is finished'}
      </Button>
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
