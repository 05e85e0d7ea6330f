/** Findings by part and defect; the grade follows, and says what holds it down. */
import { Button, MenuItem, TextField } from '@mui/material';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import {
  DEFECTS,
  findingInWords,
  measureUnit,
  PARTS,
  SEVERITIES,
  type Defect,
  type Finding,
  type GradeAnswer,
  type Part,
  type Severity,
} from '@jutbank/core/condition';
import type { Construction } from '@jutbank/core/reference';
import type { ConditionBody } from '@jutbank/contract/condition';
import { call } from '../app/api.ts';
import { useMay } from '../app/session.ts';
import { useShortcuts } from '../app/shortcuts.ts';
import { useSheet } from '../intake/PiecePage.tsx';
import { StageBar } from '../parts/StageBar.tsx';
import { useStage } from '../parts/usePiece.ts';
import { sentence } from '../parts/words.ts';

const asBody = (value: ConditionBody) => value;

const PARTS_OF: Record<Construction, readonly Part[]> = {
  slipjoint: [
    'scales',
    'bolster',
    'shield',
    'pin',
    'liner',
    'blade',
    'edge',
    'tip',
    'tang',
    'spring',
    'box',
    'papers',
  ],
  'locking-folder': [
    'scales',
    'clip',
    'opener',
    'pivot',
    'liner',
    'blade',
    'edge',
    'tip',
    'lock',
    'finish',
    'box',
    'papers',
    'sheath',
  ],
  fixed: ['grip', 'guard', 'pommel', 'blade', 'edge', 'tip', 'finish', 'sheath', 'box', 'papers'],
  bayonet: ['grip', 'guard', 'pommel', 'blade', 'edge', 'tip', 'finish', 'scabbard', 'frog'],
  'multi-tool': [
    'scales',
    'liner',
    'blade',
    'edge',
    'tip',
    'tool',
    'spring',
    'pin',
    'sheath',
    'box',
    'papers',
  ],
  automatic: [
    'scales',
    'bolster',
    'liner',
    'blade',
    'edge',
    'tip',
    'lock',
    'spring',
    'opener',
    'box',
    'papers',
  ],
  balisong: ['scales', 'pin', 'pivot', 'blade', 'edge', 'tip', 'finish', 'lock', 'sheath'],
};
const ITEMS: Record<string, readonly string[]> = {
  box: ['original', 'service', 'later', 'none', 'not-applicable'],
  papers: ['original', 'later', 'none', 'not-applicable'],
  sheath: ['original', 'period', 'reproduction', 'none', 'not-applicable'],
  scabbard: ['original', 'period', 'reproduction', 'none'],
  frog: ['original', 'period', 'none'],
};
const ITEMS_OF = (construction: Construction): string[] =>
  construction === 'bayonet'
    ? ['scabbard', 'frog', 'papers']
    : construction === 'fixed'
      ? ['sheath', 'box', 'papers']
      : ['box', 'papers'];

export default function ConditionStage() {
  const sheet = useSheet();
  const mayWork = useMay('work') && sheet.sale === null;
  const state = useStage<ConditionBody>(sheet, 'condition', sheet.condition, asBody);
  const { findings, completeness, inspected } = state.value;
  const construction = sheet.intake.construction;
  const grade = useQuery({
    queryKey: ['grade', construction, findings, completeness],
    queryFn: ({ signal }) =>
      call<GradeAnswer>('POST', '/grade', { body: { construction, findings, completeness }, signal }),
    placeholderData: keepPreviousData,
    staleTime: Infinity,
  });
  const set = (next: Partial<ConditionBody>) => state.set({ ...state.value, ...next });
  const keys = useMemo(() => [{ key: 'z', does: 'Undo', run: () => state.undo() }], [state]);
  useShortcuts('Condition', keys);
  return (
    <div className="stage twocol">
      <section>
        <StageBar title="Findings" state={state} />
        {mayWork && (
          <AddFinding construction={construction} onAdd={(f) => set({ findings: [...findings, f] })} />
        )}
        {findings.length === 0 && (
          <p className="soft" style={{ padding: '10px 0' }}>
            {inspected
              ? 'Inspected; nothing was found.'
              : 'Nothing is recorded yet. Work through the parts; then say the inspection is finished.'}
          </p>
        )}
        <ol>
          {findings.map((f, i) => (
            <li
              key={`${findingInWords(f)} ${i}`}
              className="f"
              style={{ gridTemplateColumns: '1fr auto auto' }}
            >
              <span>{findingInWords(f)}</span>
              <span className="num soft" title="share of the condition this costs">
                −{((grade.data?.deductions[i]?.share ?? 0) * 100).toFixed(1)}
              </span>
              <button
                type="button"
                className="quiet"
                disabled={!mayWork}
                aria-label={`Take away: ${findingInWords(f)}`}
                onClick={() => set({ findings: findings.filter((_, k) => k !== i) })}
              >
                ×
              </button>
            </li>
          ))}
        </ol>
        <h2 className="sec" style={{ marginTop: 18 }}>
          What is with it
        </h2>
        {ITEMS_OF(construction).map((item) => (
          <div key={item} className="f">
            <span className="fn">{sentence(item)}</span>
            <span className="chips" role="group" aria-label={sentence(item)}>
              {(ITEMS[item] ?? []).map((option) => (
                <button
                  key={option}
                  type="button"
                  className="chip"
                  disabled={!mayWork}
                  aria-pressed={completeness[item] === option}
                  onClick={() =>
                    set({
                      completeness: {
                        ...completeness,
                        [item]: completeness[item] === option ? null : option,
                      },
                    })
                  }
                >
                  {sentence(option)}
                </button>
              ))}
            </span>
          </div>
        ))}
        <div style={{ marginTop: 16 }}>
          <Button
            variant={inspected ? 'outlined' : 'contained'}
            disabled={!mayWork}
            onClick={() => set({ inspected: !inspected })}
          >
            {inspected ? 'Open the inspection again' : 'The inspection is finished'}
          </Button>
        </div>
      </section>
      <section aria-label="Grades">
        {grade.data && <Grades grade={grade.data} inspected={inspected} />}
      </section>
    </div>
  );
}

function Grades({ grade, inspected }: { grade: GradeAnswer; inspected: boolean }) {
  return (
    <>
      <h2 className="sec">
        Grades{' '}
        <small>{inspected ? 'every school side by side' : 'so far; the inspection is not finished'}</small>
      </h2>
      <p style={{ marginBottom: 10 }}>
        Condition index{' '}
        <span className="num" style={{ fontSize: 20, fontWeight: 650 }}>
          {grade.conditionIndex.toFixed(1)}
        </span>{' '}
        <span className="soft">of 100</span>
      </p>
      {grade.grades.map((g) => (
        <div key={g.scale} style={{ borderTop: '1px solid var(--hair)', padding: '9px 0' }}>
          <div style={{ display: 'flex', gap: 10, alignItems: 'baseline', flexWrap: 'wrap' }}>
            <span className="soft" style={{ width: 74 }}>
              {sentence(g.scale)}
            </span>
            <b style={{ fontSize: 16 }}>{sentence(g.grade)}</b>
            <span className="soft">
              {g.scale === 'finish' ? (
                <>
                  <span className="num">{g.from.toFixed(0)} %</span> of the original finish
                </>
              ) : g.would !== g.grade ? (
                `would otherwise be ${g.would.replace('-', ' ')}`
              ) : (
                ''
              )}
            </span>
          </div>
          {g.caps.map((cap, i) => (
            <div key={i} className="warn" style={{ fontSize: 12.5 }}>
              {sentence(cap.says)}
            </div>
          ))}
          <div className="soft" style={{ fontSize: 12.5 }}>
            {g.toNextUp}
          </div>
        </div>
      ))}
      <h2 className="sec" style={{ marginTop: 14 }}>
        To be disclosed <small>every one of them goes into the listing</small>
      </h2>
      {grade.disclosures.length === 0 ? (
        <p className="soft">Nothing so far.</p>
      ) : (
        <ul>
          {grade.disclosures.map((d) => (
            <li key={d}>– {d}</li>
          ))}
        </ul>
      )}
    </>
  );
}

function AddFinding({ construction, onAdd }: { construction: Construction; onAdd: (f: Finding) => void }) {
  const [part, setPart] = useState<string>(PARTS_OF[construction][0] ?? 'blade');
  const [number, setNumber] = useState('');
  const [defect, setDefect] = useState<Defect>();
  const [severity, setSeverity] = useState<Severity>('light');
  const [measure, setMeasure] = useState('');
  const [side, setSide] = useState('');
  const [note, setNote] = useState('');
  const [problem, setProblem] = useState<{ field: 'defect' | 'measure'; text: string }>();
  const unit = defect && measureUnit(defect);
  const parts = [...PARTS_OF[construction], ...PARTS.filter((p) => !PARTS_OF[construction].includes(p))];
  const add = () => {
    if (!defect) {
      setProblem({ field: 'defect', text: 'What is wrong with it?' });
      return;
    }
    const value = measure.trim() === '' ? null : Number(measure.replace(',', '.'));
    if (value !== null && !(value >= 0 && value <= 1000)) {
      setProblem({ field: 'measure', text: `“${measure}” is not a number from 0 to 1000` });
      return;
    }
    onAdd({
      part: number === '' ? part : `${part}:${number}`,
      defect,
      severity: value === null ? severity : null,
      measure: value,
      side: side.trim() || null,
      note: note.trim() || null,
    });
    setMeasure('');
    setNote('');
    setSide('');
    setProblem(undefined);
  };
  return (
    <form
      className="askbox"
      onSubmit={(e) => {
        e.preventDefault();
        add();
      }}
    >
      <div style={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fit, minmax(130px, 1fr))', gap: 10 }}>
        <TextField select label="Part" value={part} onChange={(e) => setPart(e.target.value)}>
          {parts.map((p) => (
            <MenuItem key={p} value={p}>
              {sentence(p)}
            </MenuItem>
          ))}
        </TextField>
        <TextField select label="Which" value={number} onChange={(e) => setNumber(e.target.value)}>
          <MenuItem value="">the only one</MenuItem>
          {['1', '2', '3', '4', '5'].map((n) => (
            <MenuItem key={n} value={n}>
              {n}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          select
          label="Defect"
          value={defect ?? ''}
          onChange={(e) => setDefect(e.target.value as Defect)}
          error={problem?.field === 'defect'}
          helperText={problem?.field === 'defect' ? problem.text : undefined}
        >
          {DEFECTS.map((d) => (
            <MenuItem key={d} value={d}>
              {sentence(d)}
            </MenuItem>
          ))}
        </TextField>
        {unit && (
          <TextField
            label={`Measure in ${unit === 'mm' ? 'mm' : '%'}`}
            value={measure}
            onChange={(e) => setMeasure(e.target.value)}
            error={problem?.field === 'measure'}
            helperText={problem?.field === 'measure' ? problem.text : 'instead of a severity'}
          />
        )}
      </div>
      <div className="chips" role="group" aria-label="Severity" style={{ margin: '10px 0' }}>
        {SEVERITIES.map((s) => (
          <button
            key={s}
            type="button"
            className="chip"
            aria-pressed={severity === s && measure.trim() === ''}
            onClick={() => {
              setSeverity(s);
              setMeasure('');
            }}
          >
            {sentence(s)}
          </button>
        ))}
      </div>
      <div style={{ display: 'grid', gridTemplateColumns: '110px 1fr auto', gap: 10 }}>
        <TextField label="Side" value={side} onChange={(e) => setSide(e.target.value)} />
        <TextField label="Note" value={note} onChange={(e) => setNote(e.target.value)} />
        <Button type="submit" variant="contained">
          Add
        </Button>
      </div>
    </form>
  );
}
