/** At the fair: which, a quick look, the asked price – and the most to pay, with why. Works while the connection drops. */
import { Button, MenuItem, TextField } from '@mui/material';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { useSearchParams } from 'react-router';
import type { Finding, GradeAnswer } from '@jutbank/core/condition';
import type { Construction } from '@jutbank/core/reference';
import type { Care, FairAnswer, FairNote, FairQuestion } from '@jutbank/contract/sale';
import type { IntakeBody } from '@jutbank/contract/intake';
import { ALTERATIONS, type Alteration } from '@jutbank/core/value';
import { ApiProblem, call } from '../app/api.ts';
import { useMay, useSession } from '../app/session.ts';
import { Failed, Loading } from '../app/states.tsx';
import { MoneyField } from '../intake/IntakeForm.tsx';
import { usePattern, useVocabulary } from '../parts/names.ts';
import { moneyText } from '../parts/words.ts';
import { CONDITION_STEPS, findingsOf, QUICK_LOOK, type QuickLook } from './quickLook.ts';
import { keep, sendWaiting, waiting } from './outbox.ts';
import { Steps } from './Steps.tsx';
import './fair.css';

const VERDICT = {
  pay: 'Below the ceiling',
  haggle: 'Haggle',
  leave: 'Leave it',
  'no-price': 'What do they ask?',
} as const;
const CARES: Care[] = ['careful', 'even', 'bold'];
const LAST = 'jutbank.fair.last';

interface Chosen {
  readonly id: string;
  readonly name: string;
  readonly construction: Construction;
}

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
  const outbox = useOutbox();
  const findings = findingsOf(look);
  const grade = useQuery({
    queryKey: ['fair-grade', pattern?.construction, findings],
    queryFn: () =>
      call<GradeAnswer>('POST', '/grade', {
        body: { construction: pattern?.construction, findings, completeness: {} },
      }),
    enabled: pattern !== undefined,
    placeholderData: (previous) => previous,
  });
  const item = (there: boolean) => (there ? ('original' as const) : ('none' as const));
  const question: FairQuestion | undefined = pattern && {
    pattern: pattern.id,
    variant: variant === '' ? null : variant,
    conditionIndex: grade.data?.conditionIndex ?? null,
    box: item(withIt.box),
    papers: item(withIt.papers),
    sheath:
      pattern.construction === 'fixed' || pattern.construction === 'bayonet' ? item(withIt.sheath) : null,
    alterations: alterationsIn(findings),
    asked,
    care,
  };
  const judged = useQuery({
    queryKey: ['fair', question],
    queryFn: async () => {
      const answer = await call<FairAnswer>('POST', '/fair/judge', { body: question });
      localStorage.setItem(LAST, JSON.stringify(answer));
      return answer;
    },
    enabled: question !== undefined && grade.data !== undefined,
    placeholderData: (previous) => previous,
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
    setRound(round + 1);
  };
  const decide = (decision: FairNote['decision']) => {
    if (!pattern || !question) return;
    outbox.add({
      key: crypto.randomUUID(),
      notedAt: new Date().toISOString(),
      title: pattern.name,
      construction: pattern.construction,
      question,
      decision,
      paid: decision === 'bought' ? asked : null,
      note: judged.data ? `Ceiling then: ${judged.data.most.bid ?? 'none'} ${judged.data.most.currency}` : '',
    });
    begin();
  };
  return (
    <div className="fair">
      <h1>At the table</h1>
      <Outbox state={outbox} />
      {pattern ? (
        <>
          <div className="which">
            <b>{pattern.name}</b>
            <button type="button" onClick={begin}>
              another
            </button>
          </div>
          <Variant pattern={pattern.id} value={variant} onChange={setVariant} />
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
                .filter((i) => i !== 'sheath' || question?.sheath !== null)
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
            <MoneyField
              key={round}
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
        </>
      ) : naming ? (
        <Loading />
      ) : (
        <PickPattern onPick={setPattern} />
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
          {judged.data ? (
            <Ceiling
              answer={judged.data}
              why={why}
              onWhy={() => setWhy(!why)}
              index={grade.data?.conditionIndex}
            />
          ) : (
            !judged.isError && <Loading />
          )}
          {mayWork && (
            <div className="decide">
              <Button variant="contained" onClick={() => decide('bought')}>
                Bought
              </Button>
              <Button onClick={() => decide('thinking')}>Thinking</Button>
              <Button onClick={() => decide('left')}>Left it</Button>
            </div>
          )}
        </div>
      )}
    </div>
  );
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
      <button
        type="button"
        className="quiet soft"
        style={{ textAlign: 'left' }}
        aria-expanded={why}
        onClick={onWhy}
      >
        {why ? 'Enough.' : 'Why?'} It would bring {moneyText(answer.estimate, true)},{' '}
        {moneyText(answer.low, true)}–{moneyText(answer.high, true)}
        {answer.thin ? '; few sales known' : ''}
        {index === undefined ? '' : `; index ${Math.round(index)}`}
      </button>
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

const MOST_SHOWN = 7;
function PickPattern({ onPick }: { onPick: (chosen: Chosen) => void }) {
  const [words, setWords] = useState('');
  const vocabulary = useVocabulary();
  if (vocabulary.isPending) return <Loading />;
  if (vocabulary.isError) return <Failed error={vocabulary.error} retry={() => void vocabulary.refetch()} />;
  const wanted = words.toLowerCase().split(/\s+/).filter(Boolean);
  const makers = new Map(vocabulary.data.makers.map((m) => [m.id, m.name]));
  const found = vocabulary.data.patterns
    .map((p) => ({ ...p, text: `${p.name} ${makers.get(p.maker) ?? ''} ${p.number ?? ''}` }))
    .filter((p) => wanted.every((w) => p.text.toLowerCase().includes(w)));
  return (
    <section>
      <input
        className="pickbox"
        aria-label="Which pattern or model is it?"
        placeholder="Which is it? Name, maker, number"
        autoFocus
        value={words}
        onChange={(e) => setWords(e.target.value)}
        onKeyDown={(e) => {
          const first = found[0];
          if (e.key === 'Enter' && first)
            onPick({ id: first.id, name: first.name, construction: first.construction });
        }}
      />
      <div className="found">
        {found.slice(0, MOST_SHOWN).map((p) => (
          <button
            key={p.id}
            type="button"
            onClick={() => onPick({ id: p.id, name: p.name, construction: p.construction })}
          >
            <b>{p.name}</b> <span className="soft">{makers.get(p.maker)}</span>
          </button>
        ))}
      </div>
      {found.length === 0 && (
        <p className="soft" style={{ padding: '10px 0' }}>
          {vocabulary.data.patterns.length === 0
            ? 'The reference is empty: without it nothing can be priced. Import a pack first.'
            : 'Nothing in the reference is called so. Without knowing what it is there is no ceiling.'}
        </p>
      )}
    </section>
  );
}

function Variant({
  pattern,
  value,
  onChange,
}: {
  pattern: string;
  value: string;
  onChange: (id: string) => void;
}) {
  const detail = usePattern(pattern);
  const variants = detail.data?.variants ?? [];
  return (
    <TextField
      select
      label="Which form"
      value={variants.length === 0 ? '' : value}
      onChange={(e) => onChange(e.target.value)}
    >
      <MenuItem value="">Cannot tell: any of them</MenuItem>
      {variants.map((v) => (
        <MenuItem key={v.id} value={v.id}>
          {v.name}
        </MenuItem>
      ))}
    </TextField>
  );
}

interface OutboxState {
  readonly count: number;
  readonly told: string | undefined;
  add(note: FairNote): void;
  send(): void;
}
function useOutbox(): OutboxState {
  const [count, setCount] = useState(() => waiting(localStorage).length);
  const [told, setTold] = useState<string>();
  const send = useMutation({
    mutationFn: () => sendWaiting(localStorage),
    // one run after another: two at once would send the same note twice, and the second would be told it is known
    scope: { id: 'fair-outbox' },
    networkMode: 'always',
    onSuccess: ({ sent, refused }) => {
      setCount(waiting(localStorage).length);
      if (refused[0]) setTold(`“${refused[0].note.title}” was not taken: ${refused[0].why}`);
      else if (sent > 0) setTold(sent === 1 ? 'Kept.' : `${sent} notes sent.`);
    },
  });
  const { mutate } = send;
  useEffect(() => {
    const go = () => mutate();
    if (waiting(localStorage).length > 0) go();
    addEventListener('online', go);
    return () => removeEventListener('online', go);
  }, [mutate]);
  return {
    count,
    told,
    add: (note) => {
      keep(localStorage, note);
      setCount(waiting(localStorage).length);
      setTold(undefined);
      mutate();
    },
    send: () => mutate(),
  };
}

function Outbox({ state }: { state: OutboxState }) {
  if (state.count > 0)
    return (
      <p className="note" role="status">
        {state.count === 1 ? 'One note waits' : `${state.count} notes wait`} for a connection.{' '}
        <button type="button" className="quiet" onClick={() => state.send()}>
          Send now
        </button>
      </p>
    );
  return state.told === undefined ? null : (
    <p className="note good" role="status">
      {state.told}
    </p>
  );
}
