/** One thing to look at after the other, answered by number keys; a whole section is good at one stroke. */
import { useMemo, useRef, useState } from 'react';
import {
  defectInWords,
  measureUnit,
  partInWords,
  SEVERITIES,
  severityInWords,
  type Defect,
  type InspectionStep,
  type Severity,
} from '@jutbank/core/condition';
import type { Construction } from '@jutbank/core/reference';
import type { ConditionBody } from '@jutbank/contract/condition';
import type { PieceSheet } from '@jutbank/contract/intake';
import { useShortcuts } from '../app/shortcuts.ts';
import type { StageState } from '../parts/usePiece.ts';
import { sentence } from '../parts/words.ts';
import {
  allGood,
  findingOf,
  lookList,
  nextOpen,
  seenOf,
  withItem,
  withStep,
  type Draft,
  type Looked,
  type Seen,
} from './inspecting.ts';
import { AreaPainter } from './AreaPainter.tsx';
import { SeverityPicture } from './SeverityPicture.tsx';

export function Inspect({
  sheet,
  state,
  may,
}: {
  sheet: PieceSheet;
  state: StageState<ConditionBody>;
  may: boolean;
}) {
  const body = state.value;
  const { construction } = sheet.intake;
  const list = useMemo(
    () => lookList(construction, { blades: body.inspection.blades, tools: body.inspection.tools }),
    [construction, body.inspection.blades, body.inspection.tools],
  );
  const [chosen, setChosen] = useState<number>();
  const [draft, setDraft] = useState<Draft>();
  const at =
    chosen !== undefined && chosen < list.length
      ? chosen
      : body.inspected
        ? undefined
        : nextOpen(list, body, 0);
  const looked = at === undefined ? undefined : list[at];

  const go = (to: number | undefined) => {
    setDraft(undefined);
    setChosen(to);
  };
  /** Says something of what is in hand and goes on to the next thing nobody looked at. */
  const say = (next: Pick<ConditionBody, 'findings' | 'completeness' | 'inspection'>) => {
    if (!may || at === undefined) return;
    state.set({ ...body, ...next });
    go(nextOpen(list, { ...body, ...next }, at + 1));
  };
  const add = (defect: Defect, said: { severity: Severity | null; measure: number | null; side: string }) => {
    if (!may || looked?.kind !== 'step') return;
    const finding = findingOf(
      { step: looked.step, defect },
      { severity: said.severity, measure: said.measure, side: said.side || null, note: null },
    );
    state.set({ ...body, findings: [...body.findings, finding] });
    setDraft(undefined);
    // stays: there may be more of it here
    setChosen(at);
  };
  const keys = useKeys({ looked, list, at, body, draft, may, setDraft, say, add, go, undo: state.undo });
  useShortcuts('Inspection', keys);
  const open = list.filter((l) => seenOf(l, body) === undefined).length;
  return (
    <>
      <Counts sheet={sheet} state={state} may={may} />
      {looked ? (
        <InHand
          key={looked.step.id}
          looked={looked}
          construction={construction}
          body={body}
          draft={draft}
          may={may}
          onDraft={setDraft}
          onAdd={add}
          onGood={() => say(withStep(body, looked.step.id, 'good'))}
          onNot={() => say(withStep(body, looked.step.id, 'not-examined'))}
          onItem={(item) => looked.kind === 'item' && say(withItem(body, looked.step.item, item))}
          onSection={() => say(allGood(body, list, looked.section))}
          onNext={() => at !== undefined && go(nextOpen(list, body, at + 1))}
        />
      ) : (
        <div className="note good">
          <b>{body.inspected ? 'The inspection is finished.' : 'Everything was looked at.'}</b>
          {body.inspected
            ? 'As it was found is kept for good. Open it again on the right to look once more.'
            : 'Finish the inspection on the right.'}
        </div>
      )}
      <p className="soft" style={{ fontSize: 12.5 }} role="status">
        {open === 0 ? 'Nothing is left to look at.' : `${open} of ${list.length} still to look at.`}
      </p>
      <Sections list={list} body={body} at={at} onTake={go} />
    </>
  );
}

const SEEN_SIGN: Record<Exclude<Seen, undefined>, string> = {
  good: '✓',
  found: '!',
  'not-examined': '–',
  said: '✓',
};
const SEEN_WORDS: Record<Exclude<Seen, undefined>, string> = {
  good: 'good',
  found: 'something found',
  'not-examined': 'not examined',
  said: 'said',
};

function Sections({
  list,
  body,
  at,
  onTake,
}: {
  list: readonly Looked[];
  body: ConditionBody;
  at: number | undefined;
  onTake: (at: number) => void;
}) {
  const sections = [...new Set(list.map((l) => l.section))];
  return sections.map((section) => {
    const members = list.flatMap((l, i) => (l.section === section ? [{ l, i }] : []));
    return (
      <div key={section} className="looksection">
        <div className="effort">{members[0]?.l.title}</div>
        <div className="lookrow">
          {members.map(({ l, i }) => {
            const seen = seenOf(l, body);
            const name = l.kind === 'item' ? sentence(l.step.item) : sentence(l.step.id.split(':')[0] ?? '');
            return (
              <button
                key={l.step.id}
                type="button"
                className={`look ${seen ?? 'open'}`}
                aria-current={i === at ? 'step' : undefined}
                title={seen === undefined ? `${name}: not looked at yet` : `${name}: ${SEEN_WORDS[seen]}`}
                onClick={() => onTake(i)}
              >
                <i aria-hidden="true">{seen === undefined ? '·' : SEEN_SIGN[seen]}</i>
                {l.kind === 'item' && seen !== undefined
                  ? `${name}: ${sentence(body.completeness[l.step.item] ?? '').toLowerCase()}`
                  : name}
              </button>
            );
          })}
        </div>
      </div>
    );
  });
}

/** How many blades and tools there are: each is looked at by itself. */
function Counts({
  sheet,
  state,
  may,
}: {
  sheet: PieceSheet;
  state: StageState<ConditionBody>;
  may: boolean;
}) {
  const { inspection } = state.value;
  const kinds = (['blades', 'tools'] as const).filter(
    (kind) =>
      kind === 'blades' ||
      sheet.intake.construction === 'multi-tool' ||
      sheet.intake.construction === 'slipjoint',
  );
  return (
    <div className="counts">
      {kinds.map((kind) => (
        <span key={kind} className="chips" role="group" aria-label={sentence(kind)}>
          <span className="soft">{sentence(kind)}</span>
          {Array.from({ length: 5 }, (_, i) => (kind === 'blades' ? i + 1 : i)).map((n) => (
            <button
              key={n}
              type="button"
              className="chip"
              disabled={!may}
              aria-pressed={inspection[kind] === n}
              onClick={() => state.set({ ...state.value, inspection: { ...inspection, [kind]: n } })}
            >
              {n}
            </button>
          ))}
        </span>
      ))}
    </div>
  );
}

function InHand({
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
  onNext,
}: {
  looked: Looked;
  construction: Construction;
  body: ConditionBody;
  draft: Draft | undefined;
  may: boolean;
  onDraft: (draft: Draft | undefined) => void;
  onAdd: (defect: Defect, said: { severity: Severity | null; measure: number | null; side: string }) => void;
  onGood: () => void;
  onNot: () => void;
  onItem: (state: string) => void;
  onSection: () => void;
  onNext: () => void;
}) {
  if (looked.kind === 'item')
    return (
      <div className="askbox" aria-live="polite">
        <div className="big">{sentence(looked.step.item)}</div>
        <div className="q">{looked.step.ask}</div>
        <span className="chips" role="group" aria-label={sentence(looked.step.item)}>
          {looked.step.states.map((state, i) => (
            <button
              key={state}
              type="button"
              className="chip"
              disabled={!may}
              aria-pressed={body.completeness[looked.step.item] === state}
              onClick={() => onItem(state)}
            >
              <i>{i + 1}</i>
              {sentence(state)}
            </button>
          ))}
        </span>
      </div>
    );
  const { step } = looked;
  const seen = seenOf(looked, body);
  return (
    <div className="askbox" aria-live="polite">
      <div className="big">
        {looked.title}: {partInWords(step.part)}
      </div>
      <div className="q">{step.ask}</div>
      {draft?.step.id === step.id ? (
        <HowBad
          draft={draft}
          step={step}
          construction={construction}
          onAdd={onAdd}
          onBack={() => onDraft(undefined)}
        />
      ) : (
        <>
          <span className="chips" role="group" aria-label="What is found">
            {step.defects.map((defect, i) => (
              <button
                key={defect}
                type="button"
                className="chip"
                disabled={!may}
                onClick={() => onDraft({ step, defect })}
              >
                <i>{i + 1}</i>
                {sentence(defectInWords(defect))}
              </button>
            ))}
          </span>
          <span className="chips" style={{ marginTop: 8 }}>
            {seen === 'found' ? (
              <button type="button" className="chip" onClick={onNext}>
                <i>↵</i>Go on
              </button>
            ) : (
              <button
                type="button"
                className="chip"
                disabled={!may}
                aria-pressed={seen === 'good'}
                onClick={onGood}
              >
                <i>0</i>Good
              </button>
            )}
            <button
              type="button"
              className="chip"
              disabled={!may}
              aria-pressed={seen === 'not-examined'}
              onClick={onNot}
            >
              <i>-</i>Not examined
            </button>
            <button type="button" className="chip" disabled={!may} onClick={onSection}>
              <i>g</i>All of “{looked.title}” good
            </button>
          </span>
          {step.caution !== undefined && <p className="caution">{step.caution}</p>}
        </>
      )}
    </div>
  );
}

/** Told by how much of the surface it takes. */
const BY_AREA: readonly Defect[] = ['finish-loss', 'wear'];
const SIDES = ['front', 'rear', 'both'] as const;

function HowBad({
  draft,
  step,
  construction,
  onAdd,
  onBack,
}: {
  draft: Draft;
  step: InspectionStep;
  construction: Construction;
  onAdd: (defect: Defect, said: { severity: Severity | null; measure: number | null; side: string }) => void;
  onBack: () => void;
}) {
  const [side, setSide] = useState('');
  const [typed, setTyped] = useState('');
  const [problem, setProblem] = useState<string>();
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
    onAdd(draft.defect, { severity: null, measure: value, side });
  };
  return (
    <>
      <div className="big">{sentence(defectInWords(draft.defect))}: how bad?</div>
      <div className="howbad" role="group" aria-label="How bad">
        {SEVERITIES.map((severity, i) => (
          <button
            key={severity}
            type="button"
            className="chip"
            onClick={() => onAdd(draft.defect, { severity, measure: null, side })}
          >
            <SeverityPicture defect={draft.defect} severity={severity} />
            <span>
              <i>{i + 1}</i>
              {sentence(severity)}
            </span>
            <small>{severityInWords(draft.defect, severity)}</small>
          </button>
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
          <label className="soft" htmlFor="howmuch">
            or measured, in {unit === 'mm' ? 'mm' : '%'}
          </label>
          <input
            ref={line}
            id="howmuch"
            className="line num"
            style={{ width: 84 }}
            inputMode="decimal"
            value={typed}
            aria-invalid={problem !== undefined}
            onChange={(e) => {
              setTyped(e.target.value);
              setProblem(undefined);
            }}
          />
          <button type="submit" className="chip">
            Take it
          </button>
        </form>
      )}
      {BY_AREA.includes(draft.defect) && (
        <>
          <p className="soft" style={{ fontSize: 12 }}>
            or painted: what is gone, on the outline
          </p>
          <AreaPainter construction={construction} onShare={(percent) => setTyped(String(percent))} />
        </>
      )}
      {problem !== undefined && (
        <p className="problem" role="alert">
          {problem}
        </p>
      )}
      <span className="chips" style={{ marginTop: 8, alignItems: 'center' }}>
        {step.sided && (
          <span className="chips" role="group" aria-label="Which side">
            <span className="soft">Side</span>
            {SIDES.map((s) => (
              <button
                key={s}
                type="button"
                className="chip"
                aria-pressed={side === s}
                onClick={() => setSide(side === s ? '' : s)}
              >
                {sentence(s)}
              </button>
            ))}
          </span>
        )}
        <button type="button" className="chip" onClick={onBack}>
          <i>Esc</i>Back
        </button>
      </span>
    </>
  );
}

interface KeyContext {
  readonly looked: Looked | undefined;
  readonly list: readonly Looked[];
  readonly at: number | undefined;
  readonly body: ConditionBody;
  readonly draft: Draft | undefined;
  readonly may: boolean;
  readonly setDraft: (draft: Draft | undefined) => void;
  readonly say: (next: Pick<ConditionBody, 'findings' | 'completeness' | 'inspection'>) => void;
  readonly add: (
    defect: Defect,
    said: { severity: Severity | null; measure: number | null; side: string },
  ) => void;
  readonly go: (to: number | undefined) => void;
  readonly undo: () => void;
}

function useKeys(context: KeyContext) {
  const { looked, list, at, body, draft, may, setDraft, say, add, go, undo } = context;
  return useMemo(() => {
    const step = (by: number) => at !== undefined && go((at + by + list.length) % list.length);
    const move = [
      { key: 'ArrowDown', does: 'Next thing to look at', run: () => step(1) },
      { key: 'ArrowUp', does: 'The one before', run: () => step(-1) },
    ];
    if (!looked || !may) return move;
    if (draft)
      return [
        ...SEVERITIES.map((severity, i) => ({
          key: String(i + 1),
          does: sentence(severity),
          run: () => add(draft.defect, { severity, measure: null, side: '' }),
        })),
        { key: 'm', does: 'Type a measure', run: () => document.getElementById('howmuch')?.focus() },
        { key: 'Escape', does: 'Another defect', run: () => setDraft(undefined) },
      ];
    const choices =
      looked.kind === 'item'
        ? looked.step.states.map((state) => ({
            does: sentence(state),
            run: () => say(withItem(body, looked.step.item, state)),
          }))
        : looked.step.defects.map((defect) => ({
            does: sentence(defectInWords(defect)),
            run: () => setDraft({ step: looked.step, defect }),
          }));
    return [
      ...choices.slice(0, 9).map((c, i) => ({ key: String(i + 1), ...c })),
      ...(looked.kind === 'step'
        ? [
            { key: '0', does: 'Good', run: () => say(withStep(body, looked.step.id, 'good')) },
            {
              key: '-',
              does: 'Not examined',
              run: () => say(withStep(body, looked.step.id, 'not-examined')),
            },
            {
              key: 'g',
              does: 'All of the section good',
              run: () => say(allGood(body, list, looked.section)),
            },
          ]
        : []),
      {
        key: 'Enter',
        does: 'Go on to what is open',
        run: () => at !== undefined && go(nextOpen(list, body, at + 1)),
      },
      { key: 'z', does: 'Undo', run: undo },
      ...move,
    ];
  }, [add, at, body, draft, go, list, looked, may, say, setDraft, undo]);
}
