/** The one thing that is looked at now: its question, what may be found, and how bad it is. */
import { ButtonBase } from '@mui/material';
import { Roving } from '../parts/Roving.tsx';
import { LineInput } from '../parts/fields/LineInput.tsx';
import { useMemo, useRef, useState } from 'react';
import {
  defectInWords,
  measureUnit,
  SEVERITIES,
  severityInWords,
  type Defect,
} from '@jutbank/core/condition';
import { closeUp, drawPiece, type DrawingRecipe } from '@jutbank/core/drawing';
import type { Construction } from '@jutbank/core/reference';
import { sentence } from '../parts/words.ts';
import { AreaPainter } from './AreaPainter.tsx';
import { ALTERED } from './inspectKeys.ts';
import {
  inHandInWords,
  onSide,
  seenOf,
  sidesOf,
  type Body,
  type Draft,
  type HowBad,
  type Looked,
} from './inspecting.ts';
import { SEVERITY_ASPECT, SeverityPicture } from './SeverityPicture.tsx';

export function InHand({
  looked,
  construction,
  body,
  draft,
  may,
  onDraft,
  onAdd,
  onGood,
  onNot,
  onItem,
  onSection,
  onEverything,
  onNext,
  bladeNames,
  recipe,
}: {
  looked: Looked;
  construction: Construction;
  body: Body;
  draft: Draft | undefined;
  may: boolean;
  onDraft: (draft: Draft | undefined) => void;
  onAdd: (bad: HowBad) => void;
  onGood: () => void;
  onNot: () => void;
  onItem: (state: string) => void;
  onSection: () => void;
  onEverything: () => void;
  onNext: () => void;
  bladeNames: readonly string[];
  /** the piece as it is drawn: what is painted is painted on it */
  recipe: DrawingRecipe;
}) {
  if (looked.kind === 'item')
    return (
      <div className="askbox" aria-live="polite">
        <div className="big">{sentence(looked.step.item)}</div>
        <div className="q">{looked.step.ask}</div>
        <Roving className="chips" role="group" aria-label={sentence(looked.step.item)}>
          {looked.step.states.map((state, i) => (
            <ButtonBase
              key={state}
              className="chip"
              disabled={!may}
              aria-pressed={body.completeness[looked.step.item] === state}
              onClick={() => onItem(state)}
            >
              <i>{i + 1}</i>
              {sentence(state)}
            </ButtonBase>
          ))}
        </Roving>
      </div>
    );
  const { step } = looked;
  const seen = seenOf(looked, body);
  return (
    <div className="askbox" aria-live="polite">
      <div className="big">{inHandInWords(looked, bladeNames)}</div>
      <div className="q">{step.ask}</div>
      {draft?.step.id === step.id ? (
        <AskHowBad
          draft={draft}
          construction={construction}
          recipe={recipe}
          onDraft={onDraft}
          onAdd={onAdd}
        />
      ) : (
        <>
          <Roving className="chips" role="group" aria-label="What is found">
            {step.defects.map((defect, i) => (
              <ButtonBase
                key={defect}
                className="chip"
                disabled={!may}
                onClick={() => onDraft({ step, defect, side: undefined })}
              >
                <i>{i + 1}</i>
                {sentence(defectInWords(defect))}
              </ButtonBase>
            ))}
          </Roving>
          <Roving className="chips" style={{ marginTop: 8 }} role="group" aria-label="What it is like">
            {seen === 'found' ? (
              <ButtonBase className="chip" onClick={onNext}>
                <i>↵</i>Go on
              </ButtonBase>
            ) : (
              <ButtonBase className="chip" disabled={!may} aria-pressed={seen === 'good'} onClick={onGood}>
                <i>0</i>Good
              </ButtonBase>
            )}
            <ButtonBase
              className="chip"
              disabled={!may}
              aria-pressed={seen === 'not-examined'}
              onClick={onNot}
            >
              <i>-</i>Not examined
            </ButtonBase>
            <ButtonBase className="chip" disabled={!may} onClick={onSection}>
              <i>g</i>All of “{looked.title}” good
            </ButtonBase>
            <ButtonBase className="chip" disabled={!may} onClick={onEverything}>
              <i>a</i>All that is open is good
            </ButtonBase>
          </Roving>
          {step.caution !== undefined && <p className="caution">{step.caution}</p>}
        </>
      )}
    </div>
  );
}

/** Told by how much of the surface it takes. */
const BY_AREA: readonly Defect[] = ['finish-loss', 'wear'];

function AskHowBad({
  draft,
  construction,
  recipe,
  onDraft,
  onAdd,
}: {
  draft: Draft;
  construction: Construction;
  recipe: DrawingRecipe;
  onDraft: (draft: Draft | undefined) => void;
  onAdd: (bad: HowBad) => void;
}) {
  const [typed, setTyped] = useState('');
  const [problem, setProblem] = useState<string>();
  const on = useMemo(
    () => closeUp(drawPiece(recipe, 'open'), draft.step.part, SEVERITY_ASPECT),
    [recipe, draft.step.part],
  );
  const line = useRef<HTMLInputElement>(null);
  const unit = measureUnit(draft.defect);
  const most = unit === 'percent' ? 100 : 1000;
  const measured = () => {
    const value = Number(typed.trim().replace(',', '.'));
    if (typed.trim() === '' || !(value >= 0 && value <= most)) {
      setProblem(`“${typed}” is not a number from 0 to ${most}`);
      line.current?.focus();
      return;
    }
    onAdd({ measure: value });
  };
  return (
    <>
      <div className="big">{sentence(defectInWords(draft.defect))}: how bad?</div>
      <div className="howbad" role="group" aria-label="How bad">
        {SEVERITIES.map((severity, i) => (
          <ButtonBase key={severity} className="chip" onClick={() => onAdd({ severity })}>
            <SeverityPicture defect={draft.defect} severity={severity} on={on} />
            <span>
              <i>{i + 1}</i>
              {sentence(severity)}
            </span>
            <small>{severityInWords(draft.defect, severity)}</small>
          </ButtonBase>
        ))}
      </div>
      {unit !== undefined && (
        <form
          className="askline"
          onSubmit={(e) => {
            e.preventDefault();
            measured();
          }}
        >
          <span className="soft">or measured, in {unit === 'mm' ? 'mm' : '%'}</span>
          <LineInput
            inputRef={line}
            label={`Measured, in ${unit === 'mm' ? 'mm' : '%'}`}
            style={{ width: 84 }}
            inputMode="decimal"
            value={typed}
            invalid={problem !== undefined}
            onChange={(text) => {
              setTyped(text);
              setProblem(undefined);
            }}
          />
          <ButtonBase type="submit" className="chip">
            Take it
          </ButtonBase>
        </form>
      )}
      {BY_AREA.includes(draft.defect) && (
        <>
          <p className="soft" style={{ fontSize: 12 }}>
            or painted: what is gone, on the part as it is drawn
          </p>
          <AreaPainter
            recipe={recipe}
            part={draft.step.part}
            onShare={(percent) => setTyped(String(percent))}
          />
        </>
      )}
      {problem !== undefined && (
        <p className="problem" role="alert">
          {problem}
        </p>
      )}
      <span className="chips" style={{ marginTop: 8, alignItems: 'center' }}>
        {draft.step.sided && (
          <Roving className="chips" role="group" aria-label="Which side">
            <span className="soft">Side</span>
            {sidesOf(construction).map(({ side: s, key }) => (
              <ButtonBase
                key={s}
                className="chip"
                aria-pressed={draft.side === s}
                onClick={() => onDraft(onSide(draft, s))}
              >
                <i>{key}</i>
                {sentence(s)}
              </ButtonBase>
            ))}
          </Roving>
        )}
        {ALTERED.includes(draft.defect) && (
          <ButtonBase
            className="chip"
            aria-pressed={draft.byMaker ?? false}
            onClick={() => onDraft({ ...draft, byMaker: !draft.byMaker })}
          >
            <i>w</i>The maker’s own work
          </ButtonBase>
        )}
        <ButtonBase className="chip" onClick={() => onDraft(undefined)}>
          <i>Esc</i>Back
        </ButtonBase>
      </span>
    </>
  );
}
