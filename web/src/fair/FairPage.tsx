/** At the fair: which, a quick look, the asked price – and the most to pay, with why. From a packed bag without a connection. */
import type { FairNote } from '@jutbank/contract/fair';
import type { IntakeBody } from '@jutbank/contract/pieces';
import type { Care } from '@jutbank/core/worth';
import { Button } from '@mui/material';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { useSearchParams } from 'react-router';
import { findingsOf, type Finding, type QuickLook } from '@jutbank/core/condition';
import type { FairQuestion } from '@jutbank/core/fair';
import { ALTERATIONS, type Alteration } from '@jutbank/core/market';
import { ApiProblem } from '../base/api.ts';
import { useMay, useSession } from '../base/session.ts';
import { Loading } from '../base/states.tsx';
import { FileChooser } from '../parts/FileChooser.tsx';
import { Select } from '../parts/fields/choices.tsx';
import { MoneyInput } from '../parts/fields/figures.tsx';
import { TextInput } from '../parts/fields/TextInput.tsx';
import { usePattern } from '../reference/vocabulary.ts';
import type { BagLabel } from './bag.ts';
import { BagLine } from './BagLine.tsx';
import { Ceiling } from './Ceiling.tsx';
import { FairNotes } from './FairNotes.tsx';
import { shrunk } from './photograph.ts';
import { mayHaveSheath, NOTHING_WITH_IT, QuickLookTaps, type WithIt } from './QuickLook.tsx';
import { withSeen, type Chosen, type Seen, type Table } from './table.ts';
import { useBag, useTable } from './useBag.ts';
import { Outbox, useOutbox, type OutboxState } from './useOutbox.tsx';
import { Checks, Find, Sight, Unnamed } from './Which.tsx';
import './fair.css';

const CARES: Care[] = ['careful', 'even', 'bold'];

export default function FairPage() {
  const bag = useBag();
  const table = useTable(bag.label);
  const outbox = useOutbox();
  const [round, setRound] = useState(0);
  return (
    <div className="fair">
      <h1>At the table</h1>
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
  const { shop } = useSession();
  const mayWork = useMay('work');
  const [pattern, setPattern] = useState<Chosen>();
  const naming = useNamedInAddress(setPattern);
  const [variant, setVariant] = useState('');
  const [seen, setSeen] = useState<readonly Seen[]>([]);
  const [look, setLook] = useState<QuickLook>({});
  const [withIt, setWithIt] = useState<WithIt>(NOTHING_WITH_IT);
  const [asked, setAsked] = useState<IntakeBody['price']>(null);
  const [care, setCare] = useState<Care>('even');
  const [said, setSaid] = useState('');
  const [photo, setPhoto] = useState<Blob>();

  const observations = seen.map((one) => one.make);
  const picked = pattern?.id ?? null;
  const sight = useQuery({
    queryKey: ['fair', table.name, 'look', picked, observations],
    queryFn: () => table.look({ observations, pattern: picked }),
    enabled: seen.length > 0 || picked !== null,
    placeholderData: keepPreviousData,
    retry: false,
  });
  const findings = findingsOf(look);
  const grading = { construction: pattern?.construction ?? 'slipjoint', findings, completeness: {} } as const;
  const grade = useQuery({
    queryKey: ['fair', table.name, 'grade', grading],
    queryFn: () => table.conditionIndex(grading),
    enabled: picked !== null,
    placeholderData: keepPreviousData,
    retry: false,
  });
  const item = (there: boolean) => (there ? ('original' as const) : ('none' as const));
  const question: FairQuestion | undefined =
    pattern === undefined || picked === null
      ? undefined
      : {
          pattern: picked,
          variant: variant === '' ? null : variant,
          observations,
          conditionIndex: grade.data ?? null,
          box: item(withIt.box),
          papers: item(withIt.papers),
          sheath: mayHaveSheath(pattern.construction) ? item(withIt.sheath) : null,
          alterations: alterationsIn(findings),
          asked,
          care,
        };
  const judged = useQuery({
    queryKey: ['fair', table.name, 'judge', question],
    queryFn: () => (question ? table.judge(question) : Promise.reject(new Error('nothing is asked'))),
    enabled: question !== undefined && grade.data !== undefined,
    placeholderData: keepPreviousData,
    retry: false,
  });
  const trouble = grade.error ?? judged.error;
  const away = trouble instanceof ApiProblem && trouble.status === 0;

  const see = (one: Seen) => setSeen(withSeen(seen, one));
  const pick = (chosen: Chosen, form = '') => {
    setPattern(chosen);
    setVariant(form);
  };
  const photograph = (file: File) => {
    void shrunk(file).then(setPhoto);
    if (!pattern) setPattern({ id: null, name: '', construction: 'slipjoint' });
  };
  const decide = (decision: FairNote['decision']) => {
    if (!pattern || pattern.name.trim() === '') return;
    const most = judged.data?.most;
    outbox.add(
      {
        key: crypto.randomUUID(),
        notedAt: new Date().toISOString(),
        title: pattern.name,
        construction: pattern.construction,
        question: question
          ? { ...question, observations: null, alterations: [...question.alterations] }
          : null,
        decision,
        paid: decision === 'bought' ? asked : null,
        note: said.trim(),
        observations,
        ...(question && most
          ? { ceiling: most.bid === null ? null : { amount: most.bid, currency: most.currency } }
          : {}),
        packedAt: label?.packedAt ?? null,
      },
      photo,
    );
    onNext();
  };

  const find = (
    <Find
      table={table}
      onPick={pick}
      onSee={see}
      onPhotograph={pattern?.id === null ? undefined : photograph}
    />
  );
  const shownSight = seen.length > 0 || picked !== null ? sight.data : undefined;
  const sights = (
    <>
      {sight.isError && !away && <p className="problem">{sight.error.message}</p>}
      <Sight
        table={table}
        seen={seen}
        sight={shownSight}
        picked={picked !== null}
        onForget={(one) => setSeen(seen.filter((other) => other !== one))}
        onPick={pick}
        form={variant}
        onForm={setVariant}
      />
    </>
  );
  const checks = <Checks sight={shownSight} onSee={see} />;
  if (!pattern)
    return naming ? (
      <Loading />
    ) : (
      <>
        {find}
        {sights}
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
          <Unnamed value={pattern} onChange={setPattern} />
        </>
      ) : (
        <Select
          label="Which form"
          value={variant}
          none={seen.length > 0 ? 'As what was seen tells' : 'Cannot tell: any of them'}
          options={(sight.data?.forms ?? []).map((form) => ({ value: form.id, label: form.name }))}
          onChange={(id) => setVariant(id ?? '')}
        />
      )}
      {sights}
      <div className="asked">
        <MoneyInput
          label="They ask"
          value={asked}
          currency={shop.baseCurrency}
          problem={judged.error instanceof ApiProblem ? judged.error.at('/asked') : undefined}
          onChange={setAsked}
        />
        <div>
          <h2>How sure?</h2>
          <div className="segments" role="group" aria-label="How sure">
            {CARES.map((c) => (
              <button key={c} type="button" aria-pressed={care === c} onClick={() => setCare(c)}>
                {c}
              </button>
            ))}
          </div>
        </div>
      </div>
      <QuickLookTaps
        construction={pattern.construction}
        look={look}
        onLook={setLook}
        withIt={withIt}
        onWithIt={setWithIt}
      />
      {checks}
      <TextInput
        label="What the seller says"
        value={said}
        maxLength={500}
        placeholder="kept as hearsay"
        onChange={setSaid}
      />
      <div className="ceiling" aria-live="polite">
        {away && (
          <p className="note bad" role="status">
            No connection, and no bag is packed. What you decide is kept and sent later
            {judged.data ? '; the ceiling is the last one known.' : '.'}
          </p>
        )}
        {trouble && !away && <p className="problem">{trouble.message}</p>}
        {question && judged.data ? (
          <Ceiling answer={judged.data} index={grade.data} />
        ) : (
          question && !trouble && <Loading />
        )}
        {mayWork && <Decide ready={pattern.name.trim() !== ''} onDecide={decide} />}
      </div>
    </>
  );
}

function Decide({ ready, onDecide }: { ready: boolean; onDecide: (decision: FairNote['decision']) => void }) {
  return (
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

const alterationsIn = (findings: readonly Finding[]): Alteration[] => [
  ...new Set(
    findings
      .map((f) => f.defect)
      .filter((d): d is Alteration => (ALTERATIONS as readonly string[]).includes(d)),
  ),
];

/** `/fair?pattern=…`: a pattern that was named elsewhere, on its own page for instance. */
function useNamedInAddress(pick: (chosen: Chosen) => void): boolean {
  const [parameters, setParameters] = useSearchParams();
  const asked = usePattern(parameters.get('pattern') ?? undefined);
  const named = asked.data?.pattern;
  useEffect(() => {
    if (!named) return;
    pick({ id: named.id, name: named.name, construction: named.construction });
    setParameters({}, { replace: true });
  }, [named, pick, setParameters]);
  return parameters.has('pattern') && !asked.isError;
}
