/** Condition: a guided inspection, what was found and where, the grade in every school, and what was done since. */
import { Button } from '@mui/material';
import { conditionRoutes } from '@jutbank/contract/condition';
import { keepPreviousData } from '@tanstack/react-query';
import { useState } from 'react';
import { numbersOf } from '@jutbank/core/bench';
import { inspectionFor, notExamined } from '@jutbank/core/condition';
import type { Construction } from '@jutbank/core/reference';
import type { ConditionBody } from '@jutbank/contract/pieces';
import { useAnswer } from '../base/answers.ts';
import { useMay } from '../base/session.ts';
import { useForms } from '../reference/useForms.ts';
import { useSheet } from '../pieces/useSheet.ts';
import { StageBar } from '../pieces/StageBar.tsx';
import { isHere, useStage } from '../pieces/usePiece.ts';
import { Found } from './Found.tsx';
import { Grades } from './Grades.tsx';
import { History } from './History.tsx';
import { Inspect } from './Inspect.tsx';
import { Measure } from './Measure.tsx';
import { Report } from './Report.tsx';
import { Treat } from './Treat.tsx';
import './condition.css';

/** Steps nobody looked at: a finished inspection says how many there are. */
const skippedSteps = (construction: Construction, body: ConditionBody): number =>
  notExamined(inspectionFor(construction, body.inspection), body.inspection, body.findings).reduce(
    (sum, section) => sum + section.steps.length,
    0,
  );

const asBody = (value: ConditionBody) => value;
const VIEWS = {
  inspect: 'Inspection',
  measure: 'Measure from a picture',
  treat: 'Leave it or treat it',
  history: 'History',
  report: 'Report',
} as const;

/** What was done to the piece changes its findings on the server: the stage then begins anew from there. */
export default function ConditionStage() {
  const [epoch, setEpoch] = useState(0);
  const [view, setView] = useState<keyof typeof VIEWS>('inspect');
  return <Condition key={epoch} view={view} onView={setView} onDone={() => setEpoch((n) => n + 1)} />;
}

function Condition({
  view,
  onView,
  onDone,
}: {
  view: keyof typeof VIEWS;
  onView: (view: keyof typeof VIEWS) => void;
  onDone: () => void;
}) {
  const sheet = useSheet();
  const mayWork = useMay('work') && isHere(sheet);
  const state = useStage(sheet, conditionRoutes.putCondition, sheet.condition, asBody);
  const { findings, completeness } = state.value;
  const construction = sheet.intake.construction;
  const { variant, pattern } = sheet.readings.which;
  const as = { construction, variant, pattern };
  const recipe = useForms([as])(as);
  const [inHand, setInHand] = useState<string>();
  const grade = useAnswer(
    conditionRoutes.grade,
    { body: { construction, findings, completeness, age: sheet.age } },
    { placeholderData: keepPreviousData, staleTime: Infinity },
  );
  const set = (next: Partial<ConditionBody>) => state.set({ ...state.value, ...next });
  return (
    <div className="conditionstage">
      <nav className="views" aria-label="Condition">
        {Object.entries(VIEWS).map(([id, words]) => (
          <Button
            variant="text"
            key={id}
            className="quiet"
            aria-pressed={view === id}
            onClick={() => onView(id as keyof typeof VIEWS)}
          >
            {words}
          </Button>
        ))}
        <span className="grow" />
        <a
          className="quiet"
          href={`/api/v1/pieces/${sheet.id}/condition-report.pdf`}
          target="_blank"
          rel="noreferrer"
        >
          Report as PDF
        </a>
      </nav>
      {view === 'inspect' && (
        <div className="threecol">
          <section aria-label="Inspection">
            <StageBar title="Look at" state={state} />
            <Inspect
              construction={construction}
              body={state.value}
              may={mayWork && !state.value.inspected}
              items
              parts={sheet.parts}
              recipe={recipe}
              onLook={setInHand}
              onChange={state.set}
              onUndo={state.undo}
            />
          </section>
          <section aria-label="What was found">
            <Found
              sheet={sheet}
              body={state.value}
              recipe={recipe}
              inHand={inHand}
              shares={grade.data?.deductions}
              may={mayWork && !state.value.inspected}
              onChange={(next) => set({ findings: next })}
            />
          </section>
          <section aria-label="Grades">
            {grade.data && (
              <Grades
                grade={grade.data}
                sheet={sheet}
                skipped={skippedSteps(construction, state.value)}
                numbers={numbersOf(sheet.observations)}
                inspected={state.value.inspected}
                untouched={
                  !state.value.inspected &&
                  state.value.findings.length === 0 &&
                  Object.keys(state.value.inspection.steps).length === 0
                }
                may={mayWork}
                onFinish={() => set({ inspected: !state.value.inspected })}
              />
            )}
          </section>
        </div>
      )}
      {view === 'measure' && (
        <Measure
          sheet={sheet}
          may={mayWork}
          onFinding={
            mayWork && !state.value.inspected ? (f) => set({ findings: [...findings, f] }) : undefined
          }
        />
      )}
      {view === 'treat' && <Treat sheet={sheet} may={mayWork} onDone={onDone} />}
      {view === 'report' && grade.data && <Report sheet={sheet} body={state.value} grade={grade.data} />}
      {view === 'history' && <History sheet={sheet} may={mayWork} onDone={onDone} />}
    </div>
  );
}
