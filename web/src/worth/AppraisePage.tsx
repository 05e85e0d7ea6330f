/** An appraisal in the making: what it is for on the left, what it rests on beside it; nothing is kept before it is signed. */
import {
  worthRoutes,
  type AppraisalBody,
  PURPOSES,
  type Purpose,
  type SaleCheck,
} from '@jutbank/contract/worth';
import { Button } from '@mui/material';
import { keepPreviousData, useMutation } from '@tanstack/react-query';
import { useState, type ReactNode } from 'react';
import { useNavigate } from 'react-router';
import { BASES, type Basis } from '@jutbank/core/worth';
import { useAnswer, useKeptAnswers } from '../base/answers.ts';
import { invalidatePiece } from '../pieces/usePiece.ts';
import { ApiProblem, send } from '../base/api.ts';
import { useMay, useSession } from '../base/session.ts';
import { Failed, Loading } from '../base/states.tsx';
import { useUnsaved } from '../base/unsaved.ts';
import { useSheet } from '../pieces/useSheet.ts';
import { optionsOf, Select, Tick } from '../parts/fields/choices.tsx';
import { DayInput } from '../parts/fields/figures.tsx';
import { TextInput } from '../parts/fields/TextInput.tsx';
import { dayText, moneyText, today } from '../parts/words.ts';
import { Evidence } from './Evidence.tsx';
import { BASIS_WORDS, PURPOSE_WORDS } from './words.ts';
import './worth.css';

interface Assumed {
  text: string;
  extraordinary: boolean;
  effect: string;
}

export default function AppraisePage() {
  const sheet = useSheet();
  const { shop, person } = useSession();
  const may = useMay('appraise');
  const answers = useKeptAnswers();
  const navigate = useNavigate();
  const [basis, setBasis] = useState<Basis>('market');
  const [effectiveDate, setEffectiveDate] = useState(today());
  const [purpose, setPurpose] = useState<Purpose>('insurance');
  const [begun] = useState({
    intendedUser: '',
    interest: 'The shop owns the piece.',
    limiting: '',
    because: '',
    signature: person.name,
    concluded: '',
  });
  const [texts, setTexts] = useState(begun);
  const [assumptions, setAssumptions] = useState<Assumed[]>([]);
  const [checks, setChecks] = useState<ReadonlyMap<string, SaleCheck>>(new Map());
  const asked = { basis, effectiveDate, currency: shop.baseCurrency };
  const draft = useAnswer(
    worthRoutes.appraisalDraft,
    { params: { id: sheet.id }, body: asked },
    { placeholderData: keepPreviousData, enabled: may },
  );
  const sign = useMutation({
    mutationFn: (known: AppraisalBody['known']) =>
      send(worthRoutes.appraise, {
        params: { id: sheet.id },
        body: {
          ...asked,
          known,
          purpose,
          ...texts,
          assumptions: assumptions
            .filter((a) => a.text.trim() !== '')
            .map(({ text, extraordinary, effect }) => ({
              text,
              extraordinary,
              effectPct: effect.trim() === '' ? null : Number(effect.replace(',', '.')),
            })),
          checks: [...checks.values()],
        },
      }),
    onSuccess: (made) => {
      void invalidatePiece(answers, sheet.id);
      void navigate(`/appraisals/${made.id}`);
    },
    onError: (error) => {
      // figures that moved are drawn anew beside what was typed
      if (error instanceof ApiProblem && error.status === 409) void draft.refetch();
    },
  });
  useUnsaved(
    (texts !== begun || assumptions.length > 0 || checks.size > 0) && !sign.isPending && !sign.isSuccess,
  );

  const problem = sign.error instanceof ApiProblem ? sign.error : undefined;
  if (!may) return <p className="soft stage">Only an appraiser or the owner appraises.</p>;
  const text = (
    key: keyof typeof texts,
    label: string,
    more: { rows?: number; hint?: string } = {},
  ): ReactNode => (
    <TextInput
      label={label}
      value={texts[key]}
      {...(more.rows ? { rows: more.rows } : {})}
      why={more.hint}
      problem={problem?.at(`/${key}`)}
      onChange={(words) => setTexts({ ...texts, [key]: words })}
    />
  );
  const early = draft.error instanceof ApiProblem ? draft.error.at('/effectiveDate') : undefined;
  return (
    <div className="stage appraise">
      <form
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          if (draft.data) sign.mutate(draft.data.known);
        }}
      >
        <h2 className="sec">Appraise it</h2>
        <div className="fields across">
          <Select
            label="Basis of value"
            value={basis}
            options={optionsOf(BASES, (b) => BASIS_WORDS[b])}
            onChange={(b) => b !== null && setBasis(b)}
          />
          <Select
            label="For"
            value={purpose}
            options={optionsOf(PURPOSES, (p) => PURPOSE_WORDS[p])}
            onChange={(p) => p !== null && setPurpose(p)}
          />
        </div>
        <DayInput
          label="As of"
          why="Later sales do not count."
          value={effectiveDate}
          problem={early}
          onChange={(day, understood) => understood && day !== '' && setEffectiveDate(day)}
        />
        {text('intendedUser', 'Who will use it')}
        {text('interest', 'Your interest in the piece', { rows: 2 })}
        <Assumptions list={assumptions} onChange={setAssumptions} problem={problem} />
        {text('limiting', 'Limiting conditions', { rows: 2 })}
        {text('concluded', `Concluded value, ${shop.baseCurrency}`, {
          hint: draft.data ? `The figure is ${moneyText(draft.data.figure)}.` : '',
        })}
        {text('because', 'Why this value', { rows: 3 })}
        {text('signature', 'Signed')}
        {problem && problem.errors.length === 0 && (
          <p className="problem" role="alert">
            {problem.message}
          </p>
        )}
        <div>
          <Button type="submit" variant="contained" disabled={sign.isPending || !draft.data}>
            Sign and keep
          </Button>
          <p className="soft" style={{ marginTop: 6 }}>
            It is kept as it is and never changed. For tax, court or insurance a licensed appraiser may be
            needed.
          </p>
        </div>
      </form>
      <section aria-label="What it rests on" aria-busy={draft.isFetching}>
        {draft.isError && !early ? (
          <Failed error={draft.error} retry={() => void draft.refetch()} />
        ) : draft.data ? (
          <Evidence
            evidence={draft.data}
            heading={`What it rests on, ${dayText(effectiveDate)}`}
            checks={checks}
            onCheck={(check) => setChecks(new Map(checks).set(check.comparable, check))}
          />
        ) : (
          <Loading />
        )}
      </section>
    </div>
  );
}

function Assumptions({
  list,
  onChange,
  problem,
}: {
  list: readonly Assumed[];
  onChange: (list: Assumed[]) => void;
  problem: ApiProblem | undefined;
}) {
  const change = (i: number, to: Partial<Assumed>) =>
    onChange(list.map((a, k) => (k === i ? { ...a, ...to } : a)));
  return (
    <fieldset className="assumptions">
      <legend>Assumptions</legend>
      {list.map((assumed, i) => (
        <div key={i} className="assumption">
          <TextInput
            label="It is assumed that"
            value={assumed.text}
            problem={problem?.at(`/assumptions/${i}/text`)}
            onChange={(text) => change(i, { text })}
          />
          <TextInput
            label="Were it not so, %"
            inputMode="decimal"
            value={assumed.effect}
            problem={problem?.at(`/assumptions/${i}/effectPct`)}
            onChange={(effect) => change(i, { effect })}
          />
          <Tick
            label="extraordinary"
            value={assumed.extraordinary}
            onChange={(extraordinary) => change(i, { extraordinary })}
          />
          <Button onClick={() => onChange(list.filter((_, k) => k !== i))}>Take out</Button>
        </div>
      ))}
      <Button onClick={() => onChange([...list, { text: '', extraordinary: false, effect: '' }])}>
        Add an assumption
      </Button>
    </fieldset>
  );
}
