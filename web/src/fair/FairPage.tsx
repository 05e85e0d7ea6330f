/** At the fair: which, a quick look, the asked price – and the most to pay, with why. From a packed bag without a connection. */
import type { FairNote } from '@jutbank/contract/fair';
import { CARE, type Care } from '@jutbank/core/worth';
import { Button } from '@mui/material';
import { useEffect, useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import { ApiProblem } from '../base/api.ts';
import { useMay, useSession } from '../base/session.ts';
import { Loading } from '../base/states.tsx';
import { FileChooser } from '../parts/FileChooser.tsx';
import { PageTitle } from '../parts/PageTitle.tsx';
import { Select } from '../parts/fields/choices.tsx';
import { MoneyInput } from '../parts/fields/figures.tsx';
import { TextInput } from '../parts/fields/TextInput.tsx';
import { usePattern } from '../reference/vocabulary.ts';
import { noteOf, NOTHING_YET, type OnTable } from './atTable.ts';
import type { BagLabel } from './bag.ts';
import { BagLine } from './BagLine.tsx';
import { Ceiling } from './Ceiling.tsx';
import { FairNotes } from './FairNotes.tsx';
import { shrunk } from './photograph.ts';
import { QuickLookTaps } from './QuickLook.tsx';
import { withSeen, type Chosen, type Seen, type Table } from './table.ts';
import { useAnswers, type Answers } from './useAnswers.ts';
import { useBag, useTable } from './useBag.ts';
import { Outbox, useOutbox, type OutboxState } from './useOutbox.tsx';
import { Checks, Find, Sight, Unnamed } from './Which.tsx';
import './fair.css';

const CARES = Object.keys(CARE) as Care[];

export default function FairPage() {
  const bag = useBag();
  const table = useTable(bag.label);
  const outbox = useOutbox();
  const [round, setRound] = useState(0);
  return (
    <div className="fair">
      <PageTitle>At the table</PageTitle>
      <BagLine bag={bag} />
      <Outbox state={outbox} />
      <OnTheTable
        key={round}
        table={table}
        label={bag.label}
        outbox={outbox}
        onNext={() => setRound(round + 1)}
      />
    </div>
  );
}

/** One piece, from the first look at it to the decision. */
function OnTheTable({
  table,
  label,
  outbox,
  onNext,
}: {
  table: Table;
  label: BagLabel | undefined;
  outbox: OutboxState;
  onNext: () => void;
}) {
  const [on, setOn] = useState(NOTHING_YET);
  const change = (more: Partial<OnTable>) => setOn((before) => ({ ...before, ...more }));
  const naming = useNamedInAddress((pattern) => change({ pattern }));
  const [photo, setPhoto] = useState<Blob>();
  const answers = useAnswers(table, on);
  const { pattern, seen } = on;
  const see = (one: Seen) => change({ seen: withSeen(seen, one) });
  const photograph = (file: File) => {
    void shrunk(file).then(setPhoto);
    if (!pattern) change({ pattern: { id: null, name: '', construction: 'slipjoint' } });
  };
  const find = (
    <Find
      table={table}
      onPick={(chosen, variant = '') => change({ pattern: chosen, variant })}
      onSee={see}
      onPhotograph={pattern?.id === null ? undefined : photograph}
    />
  );
  const sight = (
    <Sight
      table={table}
      seen={seen}
      sight={answers.sight}
      picked={pattern?.id != null}
      form={on.variant}
      onForget={(one) => change({ seen: seen.filter((other) => other !== one) })}
      onPick={(chosen) => change({ pattern: chosen, variant: '' })}
      onForm={(variant) => change({ variant })}
    />
  );
  const checks = <Checks sight={answers.sight} onSee={see} />;
  if (!pattern)
    return naming ? (
      <Loading />
    ) : (
      <>
        {find}
        {answers.problem && <p className="problem">{answers.problem.message}</p>}
        {sight}
        {checks}
        {seen.length === 0 && <FairNotes />}
      </>
    );
  return (
    <>
      <div className="which">
        {photo && <Photo picture={photo} />}
        <b>{pattern.id === null ? 'Photographed' : pattern.name}</b>
        <FileChooser label="Photograph it" accept="image/*" camera look="quiet" onChoose={photograph}>
          {photo ? 'retake' : 'photograph'}
        </FileChooser>
        <button type="button" onClick={onNext}>
          start over
        </button>
      </div>
      {pattern.id === null ? (
        <>
          {find}
          <Unnamed value={pattern} onChange={(named) => change({ pattern: named })} />
        </>
      ) : (
        <Select
          label="Which form"
          value={on.variant}
          none={seen.length > 0 ? 'As what was seen tells' : 'Cannot tell: any of them'}
          options={(answers.sight?.forms ?? []).map((form) => ({ value: form.id, label: form.name }))}
          onChange={(id) => change({ variant: id ?? '' })}
        />
      )}
      {sight}
      <Asked on={on} problem={answers.problem} onChange={change} />
      <QuickLookTaps
        construction={pattern.construction}
        look={on.look}
        onLook={(look) => change({ look })}
        withIt={on.withIt}
        onWithIt={(withIt) => change({ withIt })}
      />
      {checks}
      <TextInput
        label="What the seller says"
        value={on.said}
        maxLength={500}
        placeholder="kept as hearsay"
        onChange={(said) => change({ said })}
      />
      <Decision
        answers={answers}
        ready={pattern.name.trim() !== ''}
        onDecide={(decision) => {
          const judged = answers.current ? answers.judged : undefined;
          outbox.add(noteOf({ ...on, pattern }, decision, answers.question, judged, label), photo);
          onNext();
        }}
      />
    </>
  );
}

/** What they ask, and how sure one is of what one counts on. */
function Asked({
  on,
  problem,
  onChange,
}: {
  on: OnTable;
  problem: Error | undefined;
  onChange: (more: Partial<OnTable>) => void;
}) {
  const { shop } = useSession();
  return (
    <div className="asked">
      <MoneyInput
        label="They ask"
        value={on.asked}
        currency={shop.baseCurrency}
        problem={problem instanceof ApiProblem ? problem.at('/asked') : undefined}
        onChange={(asked) => onChange({ asked })}
      />
      <div>
        <h2>How sure?</h2>
        <div className="segments" role="group" aria-label="How sure">
          {CARES.map((care) => (
            <button
              key={care}
              type="button"
              aria-pressed={on.care === care}
              onClick={() => onChange({ care })}
            >
              {care}
            </button>
          ))}
        </div>
      </div>
    </div>
  );
}

/** The ceiling, always in sight, and what is decided over it. */
function Decision({
  answers: { judged, question, index, problem, away },
  ready,
  onDecide,
}: {
  answers: Answers;
  ready: boolean;
  onDecide: (decision: FairNote['decision']) => void;
}) {
  const mayWork = useMay('work');
  return (
    <div className="ceiling" aria-live="polite">
      {away && (
        <p className="note bad" role="status">
          No connection, and no bag is packed. What you decide is kept and sent later
          {judged ? '; the ceiling is the last one known.' : '.'}
        </p>
      )}
      {problem && <p className="problem">{problem.message}</p>}
      {question && judged ? (
        <Ceiling answer={judged} index={index} />
      ) : (
        question && !problem && !away && <Loading />
      )}
      {mayWork && (
        <div className="decide">
          <Button variant="contained" disabled={!ready} onClick={() => onDecide('bought')}>
            Bought
          </Button>
          <Button disabled={!ready} onClick={() => onDecide('thinking')}>
            Thinking
          </Button>
          <Button disabled={!ready} onClick={() => onDecide('left')}>
            Left it
          </Button>
        </div>
      )}
    </div>
  );
}

function Photo({ picture }: { picture: Blob }) {
  const [address, setAddress] = useState<string>();
  useEffect(() => {
    const made = URL.createObjectURL(picture);
    setAddress(made);
    return () => URL.revokeObjectURL(made);
  }, [picture]);
  return address === undefined ? null : <img src={address} alt="What was photographed" />;
}

/** `/fair?pattern=…`: a pattern that was named elsewhere, on its own page for instance. */
function useNamedInAddress(pick: (chosen: Chosen) => void): boolean {
  const [parameters, setParameters] = useSearchParams();
  const asked = usePattern(parameters.get('pattern') ?? undefined);
  const named = asked.data?.pattern;
  const take = useRef(pick);
  useEffect(() => {
    take.current = pick;
  });
  useEffect(() => {
    if (!named) return;
    take.current({ id: named.id, name: named.name, construction: named.construction });
    setParameters({}, { replace: true });
  }, [named, setParameters]);
  return parameters.has('pattern') && !asked.isError;
}
