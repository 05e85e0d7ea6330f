/** At the fair: which, a quick look, the asked price – and the most to pay, with why. Works while the connection drops. */
import { conditionRoutes } from '@jutbank/contract/condition';
import { fairRoutes, type FairAnswer, type FairNote, type FairQuestion } from '@jutbank/contract/fair';
import { Button } from '@mui/material';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { useSearchParams } from 'react-router';
import {
  CONDITION_STEPS,
  findingsOf,
  QUICK_LOOK,
  type Finding,
  type QuickLook,
} from '@jutbank/core/condition';
import type { Care } from '@jutbank/contract/shop';
import type { IntakeBody } from '@jutbank/contract/pieces';
import { ALTERATIONS, type Alteration } from '@jutbank/core/market';
import { queryKeyOf, useAnswer } from '../base/answers.ts';
import { ApiProblem, send } from '../base/api.ts';
import { useMay, useSession } from '../base/session.ts';
import { Loading } from '../base/states.tsx';
import { FileChooser } from '../parts/FileChooser.tsx';
import { MoneyInput } from '../parts/fields/figures.tsx';
import { usePattern } from '../reference/vocabulary.ts';
import { moneyText } from '../parts/words.ts';
import { FairNotes } from './FairNotes.tsx';
import { PickPattern, PickVariant, Unnamed, type Chosen } from './FairPick.tsx';
import { shrunk } from './photograph.ts';
import { Outbox, useOutbox } from './useOutbox.tsx';
import { Steps } from '../parts/Steps.tsx';
import './fair.css';

const VERDICT = {
  pay: 'Below the ceiling',
  haggle: 'Haggle',
  leave: 'Leave it',
  'no-price': 'What do they ask?',
} as const;
const CARES: Care[] = ['careful', 'even', 'bold'];
const LAST = 'jutbank.fair.last';

export default function FairPage() {
  const { shop } = useSession();
  const mayWork = useMay('work');
  const [pattern, setPattern] = useState<Chosen>();
  const naming = useNamedInAddress(setPattern);
  const [variant, setVariant] = useState('');
  const [look, setLook] = useState<QuickLook>({});
  const [withIt, setWithIt] = useState<Record<'box' | 'papers' | 'sheath', boolean>>({
    box: false,
    papers: false,
    sheath: false,
  });
  const [asked, setAsked] = useState<IntakeBody['price']>(null);
  const [care, setCare] = useState<Care>('even');
  const [why, setWhy] = useState(false);
  const [round, setRound] = useState(0);
  const [photo, setPhoto] = useState<Blob>();
  const outbox = useOutbox();
  const findings = findingsOf(look);
  const grade = useAnswer(
    conditionRoutes.grade,
    {
      once: true,
      body: { construction: pattern?.construction ?? 'slipjoint', findings, completeness: {} },
    },
    { enabled: pattern !== undefined, placeholderData: keepPreviousData },
  );
  const item = (there: boolean) => (there ? ('original' as const) : ('none' as const));
  const question: FairQuestion | undefined =
    pattern?.id == null
      ? undefined
      : {
          pattern: pattern.id,
          variant: variant === '' ? null : variant,
          conditionIndex: grade.data?.conditionIndex ?? null,
          box: item(withIt.box),
          papers: item(withIt.papers),
          sheath: mayHaveSheath(pattern.construction) ? item(withIt.sheath) : null,
          alterations: alterationsIn(findings),
          asked,
          care,
        };
  const judged = useQuery({
    queryKey: queryKeyOf(fairRoutes.judgeFair, question ? { body: question } : {}),
    queryFn: async () => {
      const answer = await send(fairRoutes.judgeFair, { ...(question && { body: question }), once: true });
      localStorage.setItem(LAST, JSON.stringify(answer));
      return answer;
    },
    enabled: question !== undefined && grade.data !== undefined,
    placeholderData: keepPreviousData,
    retry: false,
  });
  const away = judged.error instanceof ApiProblem && judged.error.status === 0;
  const begin = () => {
    setPattern(undefined);
    setVariant('');
    setLook({});
    setWithIt({ box: false, papers: false, sheath: false });
    setAsked(null);
    setWhy(false);
    setPhoto(undefined);
    setRound(round + 1);
  };
  const photograph = (file: File) => {
    void shrunk(file).then(setPhoto);
    if (!pattern) setPattern({ id: null, name: '', construction: 'slipjoint' });
  };
  const decide = (decision: FairNote['decision']) => {
    if (!pattern || pattern.name.trim() === '') return;
    const note: FairNote = {
      key: crypto.randomUUID(),
      notedAt: new Date().toISOString(),
      title: pattern.name,
      construction: pattern.construction,
      question: question ?? null,
      decision,
      paid: decision === 'bought' ? asked : null,
      note:
        question && judged.data
          ? `Ceiling then: ${judged.data.most.bid ?? 'none'} ${judged.data.most.currency}`
          : '',
    };
    outbox.add(note, photo);
    begin();
  };
  return (
    <div className="fair">
      <h1>At the table</h1>
      <Outbox state={outbox} />
      {pattern ? (
        <>
          <div className="which">
            {photo && <Photo picture={photo} />}
            <b>{pattern.id === null ? 'Photographed' : pattern.name}</b>
            <FileChooser label="Photograph it" accept="image/*" camera look="quiet" onChoose={photograph}>
              {photo ? 'retake' : 'photograph'}
            </FileChooser>
            <button type="button" onClick={begin}>
              start over
            </button>
          </div>
          {pattern.id === null ? (
            <>
              <PickPattern onPick={setPattern} onPhotograph={undefined} />
              <Unnamed value={pattern} onChange={setPattern} />
            </>
          ) : (
            <PickVariant pattern={pattern.id} value={variant} onChange={setVariant} />
          )}
          <section>
            <h2>Tap what is there, again for worse; what is with it at the end</h2>
            <div className="toggles">
              {QUICK_LOOK.filter((q) => q.for === undefined || q.for.includes(pattern.construction)).map(
                (q) => {
                  const level = look[q.id] ?? 0;
                  const levels = q.findings.length;
                  return (
                    <button
                      key={q.id}
                      type="button"
                      className="toggle"
                      data-level={level}
                      aria-pressed={level > 0}
                      onClick={() => setLook({ ...look, [q.id]: (level + 1) % (levels + 1) })}
                    >
                      {q.label}
                      <small>
                        {level === 0 ? 'none' : levels === 1 ? 'yes' : CONDITION_STEPS[level - 1]}
                      </small>
                    </button>
                  );
                },
              )}
              {(['box', 'papers', 'sheath'] as const)
                .filter((i) => i !== 'sheath' || mayHaveSheath(pattern.construction))
                .map((i) => (
                  <button
                    key={i}
                    type="button"
                    className="toggle"
                    data-level={withIt[i] ? 1 : 0}
                    aria-pressed={withIt[i]}
                    onClick={() => setWithIt({ ...withIt, [i]: !withIt[i] })}
                  >
                    {i === 'box' ? 'Its box' : i === 'papers' ? 'Papers' : 'Its sheath'}
                    <small>{withIt[i] ? 'original' : 'none'}</small>
                  </button>
                ))}
            </div>
          </section>
          <div className="asked">
            <MoneyInput
              key={round}
              label="They ask"
              value={asked}
              currency={shop.baseCurrency}
              problem={judged.error instanceof ApiProblem ? judged.error.at('/asked') : undefined}
              onChange={(money) => setAsked(money)}
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
        </>
      ) : naming ? (
        <Loading />
      ) : (
        <>
          <PickPattern onPick={setPattern} onPhotograph={photograph} />
          <FairNotes />
        </>
      )}
      {pattern && (
        <div className="ceiling" aria-live="polite">
          {away && (
            <p className="note bad" role="status">
              No connection. What you decide is kept and sent later
              {judged.data ? '; the ceiling is the last one known.' : '.'}
            </p>
          )}
          {judged.isError && !away && <p className="problem">{judged.error.message}</p>}
          {question && judged.data ? (
            <Ceiling
              answer={judged.data}
              why={why}
              onWhy={() => setWhy(!why)}
              index={grade.data?.conditionIndex}
            />
          ) : (
            question && !judged.isError && <Loading />
          )}
          {mayWork && (
            <div className="decide">
              <Button
                variant="contained"
                disabled={pattern.name.trim() === ''}
                onClick={() => decide('bought')}
              >
                Bought
              </Button>
              <Button disabled={pattern.name.trim() === ''} onClick={() => decide('thinking')}>
                Thinking
              </Button>
              <Button disabled={pattern.name.trim() === ''} onClick={() => decide('left')}>
                Left it
              </Button>
            </div>
          )}
        </div>
      )}
    </div>
  );
}

const mayHaveSheath = (construction: Chosen['construction']): boolean =>
  construction === 'fixed' || construction === 'bayonet';

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

function Ceiling({
  answer,
  why,
  onWhy,
  index,
}: {
  answer: FairAnswer;
  why: boolean;
  onWhy: () => void;
  index: number | undefined;
}) {
  const { currency, bid } = answer.most;
  return (
    <>
      <div className="top">
        <span>
          <span className="soft">Most to pay</span>
          <br />
          <span className="most">{bid === null ? 'nothing' : moneyText({ amount: bid, currency })}</span>
        </span>
        <span className="verdict" data-verdict={answer.verdict}>
          {VERDICT[answer.verdict]}
          {answer.atAsked && (
            <span className="soft" style={{ display: 'block', fontWeight: 450 }}>
              leaves {moneyText(answer.atAsked.left)}
              {answer.atAsked.marginPct !== null && `, ${answer.atAsked.marginPct.toFixed(0)} % of the net`}
            </span>
          )}
        </span>
      </div>
      <Button
        variant="text"
        className="quiet soft"
        style={{ textAlign: 'left' }}
        aria-expanded={why}
        onClick={onWhy}
      >
        {why ? 'Enough.' : 'Why?'}{' '}
        {answer.supported ? 'It would bring' : 'No sale near it is known; by kind it might bring'}{' '}
        {moneyText(answer.estimate, true)}, {moneyText(answer.low, true)}–{moneyText(answer.high, true)}
        {answer.thin && answer.supported ? '; few sales known' : ''}
        {index === undefined ? '' : `; index ${Math.round(index)}`}
      </Button>
      {why && <Steps steps={answer.most.steps} currency={currency} />}
    </>
  );
}

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
