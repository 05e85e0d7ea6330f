/** Leave it or treat it: every way with its grades, its odds and its money; and the record of what was done. */
import { optionsOf, Select, Tick } from '../parts/fields/choices.tsx';
import { DayInput } from '../parts/fields/figures.tsx';
import { TextInput } from '../parts/fields/TextInput.tsx';
import {
  conditionRoutes,
  type TreatmentBody,
  type PricedTreatment,
  type ComparedTreatment,
} from '@jutbank/contract/condition';
import { pieceRoutes, type PieceSheet } from '@jutbank/contract/pieces';
import { Button, ButtonBase } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import {
  defectInWords,
  DEFECTS,
  findingInWords,
  partInWords,
  PARTS,
  SEVERITIES,
  type Defect,
  type Finding,
  type Part,
  type ScaleId,
  type Severity,
  type TreatmentPlan,
} from '@jutbank/core/condition';
import { useAnswer } from '../base/answers.ts';
import { ApiProblem, send } from '../base/api.ts';
import { Failed, Loading } from '../base/states.tsx';
import { useUnsaved } from '../base/unsaved.ts';
import { Roving } from '../parts/Roving.tsx';
import { inLine, useTakeSheet } from '../pieces/usePiece.ts';
import { moneyText, sentence, today } from '../parts/words.ts';

const gradeOn = (way: ComparedTreatment, scale: ScaleId) =>
  sentence(way.grades.find((g) => g.scale === scale)?.grade ?? '');

export function Treat({
  sheet,
  may,
  onDone,
}: {
  sheet: PieceSheet;
  may: boolean;
  /** a treatment was recorded: findings have changed */
  onDone: () => void;
}) {
  const [doing, setDoing] = useState<PricedTreatment | 'other'>();
  const options = useAnswer(conditionRoutes.weighTreatments, { params: { id: sheet.id } });
  if (options.isPending) return <Loading />;
  if (options.isError) return <Failed error={options.error} retry={() => void options.refetch()} />;
  const scale = sheet.quotedScale;
  const sealed = options.data.items.some((o) => o.sealed);
  const best = options.data.items.reduce((a, b) =>
    Number(b.gain?.amount ?? -Infinity) > Number(a.gain?.amount ?? -Infinity) ? b : a,
  );
  return (
    <div className="stage twocol">
      <section aria-label="The ways">
        <h2 className="sec">
          The ways <small>on the {scale} scale, money as the shop would sell it</small>
        </h2>
        <p className="soft" style={{ marginBottom: 8 }}>
          {sealed
            ? 'It is still in its package: as long as it is, only opening it is a question. What a seal brings, and how often something is wrong inside, are the shop’s own figures.'
            : 'Often leaving it is right: what is done cannot be undone, and has to be said.'}
        </p>
        {(sheet.condition.inspected || sealed) &&
          options.data.items.map((o) => (
            <Way
              key={o.plan?.kind ?? 'leave'}
              option={o}
              sheet={sheet}
              scale={scale}
              best={o === best}
              may={may && sheet.condition.inspected}
              onDo={() => setDoing(o)}
            />
          ))}
        {may && sheet.condition.inspected && (
          <Button onClick={() => setDoing('other')} style={{ marginTop: 10 }}>
            Record something else that was done
          </Button>
        )}
        {!sheet.condition.inspected && (
          <div className="note" style={{ marginTop: 10 }}>
            <b>Record before you touch.</b>Finish the inspection first: as it was found is kept for good, and
            only then may anything be done to it.
          </div>
        )}
      </section>
      <section aria-label="What was done">
        {doing !== undefined && (
          <Doing
            key={doing === 'other' ? 'other' : doing.plan?.kind}
            sheet={sheet}
            option={doing === 'other' ? undefined : doing}
            onDone={(recorded) => {
              setDoing(undefined);
              if (recorded) onDone();
            }}
          />
        )}
        {doing === undefined && (
          <p className="soft">
            Choose a way to see what it would change, or record what was done with its product, grit, day and
            reason.
          </p>
        )}
      </section>
    </div>
  );
}

function Way({
  option,
  sheet,
  scale,
  best,
  may,
  onDo,
}: {
  option: PricedTreatment;
  sheet: PieceSheet;
  scale: ScaleId;
  best: boolean;
  may: boolean;
  onDo: () => void;
}) {
  const { plan, done, failed, sealed } = option;
  const title = plan?.title ?? (sealed ? 'Keep it sealed' : 'Leave it');
  const gain = option.gain && Number(option.gain.amount);
  return (
    <article className={best ? 'way best' : 'way'} aria-label={title}>
      <header>
        <b>{title}</b>
        {best && <span className="soft"> the best on average</span>}
        <span className="grow" />
        {gain != null && plan && (
          <span className={gain < 0 ? 'num warn' : 'num'}>
            {gain >= 0 ? '+' : ''}
            {moneyText(option.gain)}
          </span>
        )}
      </header>
      <dl>
        <dt>Grade</dt>
        <dd>
          {sealed && !sheet.condition.inspected ? (
            'as from the maker, unseen'
          ) : (
            <>
              {gradeOn(done, scale)} <span className="soft num">{done.index.toFixed(1)}</span>
            </>
          )}
        </dd>
        <dt>Brings</dt>
        <dd className="num">{done.estimate ? moneyText(done.estimate, true) : 'not known'}</dd>
        {plan && (
          <>
            <dt>Costs</dt>
            <dd className="num">
              {done.estimate ? moneyText({ ...done.estimate, amount: plan.cost }) : plan.cost}
            </dd>
            <dt>{sealed ? 'Flawed inside' : 'Goes wrong'}</dt>
            <dd>
              <span className="num">{Math.round(option.failure * 100)}</span> in 100
              {failed && (
                <>
                  , then{' '}
                  {sealed ? (
                    <span className="num">{failed.estimate ? moneyText(failed.estimate, true) : 'less'}</span>
                  ) : (
                    <>
                      {gradeOn(failed, scale).toLowerCase()}{' '}
                      <span className="num soft">{failed.index.toFixed(1)}</span>
                    </>
                  )}
                </>
              )}
            </dd>
            <dt>Takes away</dt>
            <dd>
              {option.removes
                .flatMap((i) => sheet.condition.findings[i] ?? [])
                .map((f) => findingInWords(f))
                .join('; ') || (sealed ? 'the seal, and what it brings' : 'no finding')}
            </dd>
            <dt>To be said</dt>
            <dd>
              {option.newDisclosures.join('; ') || 'that it was done'}
              {plan.reversible ? '' : ' – cannot be undone'}
            </dd>
          </>
        )}
      </dl>
      {plan?.cautions.map((c) => (
        <p key={c} className="caution">
          {c}
        </p>
      ))}
      {plan && (
        <Button variant="text" className="quiet" disabled={!may} onClick={onDo}>
          It was done: record it
        </Button>
      )}
    </article>
  );
}

const KINDS_WITH_GRIT: readonly TreatmentPlan['kind'][] = [
  'polish',
  'sharpen',
  'take-out-nicks',
  're-tip',
  'remove-rust',
  'refinish',
  'other',
];

/** The record of one treatment: what was used, when, by whom, why, and what it took away. */
function Doing({
  sheet,
  option,
  onDone,
}: {
  sheet: PieceSheet;
  option: PricedTreatment | undefined;
  onDone: (recorded: boolean) => void;
}) {
  const takeSheet = useTakeSheet();
  const currency = sheet.readings.worth?.estimate.currency ?? sheet.cost?.currency ?? 'EUR';
  const kind = option?.plan?.kind ?? 'other';
  const [title, setTitle] = useState('');
  const [product, setProduct] = useState('');
  const [grit, setGrit] = useState('');
  const [doneOn, setDoneOn] = useState(today());
  const [doneBy, setDoneBy] = useState('');
  const [reason, setReason] = useState('');
  const [cost, setCost] = useState(option?.plan?.cost ?? '');
  const [removes, setRemoves] = useState<readonly number[]>(option?.removes ?? []);
  const [adds, setAdds] = useState<readonly Finding[]>(option?.adds ?? []);
  // whether it can be undone is said by whoever did it, never assumed
  const [reversible, setReversible] = useState(false);
  const [pictures, setPictures] = useState<TreatmentBody['pictures']>({ before: [], after: [] });
  useUnsaved(title !== '' || reason !== '' || product !== '');
  const save = useMutation({
    mutationFn: async () => {
      const price = cost.trim().replace(',', '.');
      await inLine(sheet.id, () =>
        send(conditionRoutes.treat, {
          params: { id: sheet.id },
          body: {
            kind,
            title,
            product,
            grit,
            doneOn,
            doneBy,
            reason,
            reversible,
            cost: price === '' ? null : { amount: price, currency },
            removes,
            adds,
            ...(option?.plan?.supplies
              ? { completeness: { [option.plan.supplies.item]: option.plan.supplies.state } }
              : {}),
            pictures,
          },
          version: sheet.version,
        }),
      );
      return send(pieceRoutes.piece, { params: { id: sheet.id } });
    },
    onSuccess: (fresh) => {
      takeSheet(fresh);
      onDone(true);
    },
  });
  const problem = save.error instanceof ApiProblem ? save.error : undefined;
  const field = (
    label: string,
    at: string,
    value: string,
    onChange: (v: string) => void,
    more: { placeholder?: string; inputMode?: 'decimal' } = {},
  ) => <TextInput label={label} value={value} problem={problem?.at(at)} onChange={onChange} {...more} />;
  return (
    <form
      className="askbox"
      onSubmit={(e) => {
        e.preventDefault();
        save.mutate();
      }}
    >
      <div className="big">{option?.plan?.title ?? 'Something else that was done'}</div>
      <div className="q">What was found stays on record; this changes only how the piece stands today.</div>
      {kind === 'other' &&
        field('In your own words', '/title', title, setTitle, {
          placeholder: 'soaked in oil',
        })}
      {field('Product', '/product', product, setProduct, { placeholder: 'what was used' })}
      {KINDS_WITH_GRIT.includes(kind) && field('Grit', '/grit', grit, setGrit, { placeholder: '3000' })}
      <DayInput label="Day" value={doneOn} problem={problem?.at('/doneOn')} onChange={setDoneOn} />
      {field('By', '/doneBy', doneBy, setDoneBy, { placeholder: 'who did it' })}
      {field('Why', '/reason', reason, setReason)}
      {field(`Cost, ${currency}`, '/cost/amount', cost, setCost, { inputMode: 'decimal' })}
      <fieldset className="tfield">
        <legend>Took away</legend>
        {sheet.condition.findings.length === 0 && <span className="soft">Nothing was found on it.</span>}
        {sheet.condition.findings.map((f: Finding, i) => (
          <Tick
            key={`${findingInWords(f)} ${i}`}
            label={findingInWords(f)}
            value={removes.includes(i)}
            onChange={(gone) => setRemoves(gone ? [...removes, i] : removes.filter((k) => k !== i))}
          />
        ))}
      </fieldset>
      <Left adds={adds} onChange={setAdds} />
      {(['before', 'after'] as const).map(
        (side) =>
          sheet.pictures.length > 0 && (
            <div key={side} className="tfield">
              <span>Pictures {side}</span>
              <Roving className="chips" role="group" aria-label={`Pictures ${side}`}>
                {sheet.pictures.map((p, i) => (
                  <ButtonBase
                    key={p.id}
                    className="chip"
                    aria-pressed={pictures[side].includes(p.id)}
                    onClick={() =>
                      setPictures({
                        ...pictures,
                        [side]: pictures[side].includes(p.id)
                          ? pictures[side].filter((x) => x !== p.id)
                          : [...pictures[side], p.id],
                      })
                    }
                  >
                    {p.caption || `Picture ${i + 1}`}
                  </ButtonBase>
                ))}
              </Roving>
            </div>
          ),
      )}
      <Tick label="It can be undone" value={reversible} onChange={setReversible} />
      {option?.plan?.cautions.map((c) => (
        <p key={c} className="caution">
          {c}
        </p>
      ))}
      {problem && problem.errors.length === 0 && (
        <p className="problem" role="alert">
          {problem.message}
        </p>
      )}
      <div style={{ display: 'flex', gap: 8, marginTop: 10 }}>
        <Button type="submit" variant="contained" disabled={save.isPending}>
          Record it
        </Button>
        <Button onClick={() => onDone(false)}>Not now</Button>
      </div>
    </form>
  );
}

/** What a treatment left behind: each trace can be taken off the record before it is kept, and others put on. */
function Left({
  adds,
  onChange,
}: {
  adds: readonly Finding[];
  onChange: (adds: readonly Finding[]) => void;
}) {
  const [part, setPart] = useState<Part | ''>('');
  const [defect, setDefect] = useState<Defect | ''>('');
  const [severity, setSeverity] = useState<Severity | ''>('light');
  return (
    <fieldset className="tfield">
      <legend>Leaves behind</legend>
      {adds.length === 0 && <span className="soft">Nothing to be seen.</span>}
      {adds.map((f, i) => (
        <span key={`${findingInWords(f)} ${i}`}>
          {findingInWords(f)}{' '}
          <Button
            variant="text"
            className="quiet"
            aria-label={`Take off: ${findingInWords(f)}`}
            onClick={() => onChange(adds.filter((_, k) => k !== i))}
          >
            ×
          </Button>
        </span>
      ))}
      <div className="threechoices">
        <Select
          label="On"
          value={part}
          options={optionsOf(PARTS, partInWords)}
          none="choose"
          onChange={(v) => setPart(v ?? '')}
        />
        <Select
          label="What"
          value={defect}
          options={optionsOf(DEFECTS, defectInWords)}

          none="choose"
          onChange={(v) => setDefect(v ?? '')}
        />
        <Select
          label="How much"
          value={severity}
          options={optionsOf(SEVERITIES, (s) => s)}

          onChange={(v) => setSeverity(v ?? '')}
        />
        <Button
          disabled={part === '' || defect === '' || severity === ''}
          onClick={() => {
            if (part === '' || defect === '' || severity === '') return;
            onChange([...adds, { part, defect, severity }]);
            setDefect('');
          }}
        >
          Add
        </Button>
      </div>
    </fieldset>
  );
}
