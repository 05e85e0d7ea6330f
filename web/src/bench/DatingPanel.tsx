/** The year rule with what binds, what the stamps say, and why the chosen candidate stands where it stands. */
import { Button } from '@mui/material';
import { useState } from 'react';
import { edtfInWords, periodInWords, periodOf } from '@jutbank/core/dates';
import { impliedValues } from '@jutbank/core/reference';
import type { Bound, IdentifyAnswer, Observation, Subject } from '@jutbank/core/bench';
import type { PieceSheet } from '@jutbank/contract/pieces';
import type { Vocabulary } from '@jutbank/contract/reference';
import { inWords } from '../parts/words.ts';
import { YearRule, type RuleBar } from '../parts/YearRule.tsx';
import type { VariantNames } from '../reference/vocabulary.ts';
import { CandidateComparison } from './CandidateComparison.tsx';
import { EvidenceTable } from './EvidenceTable.tsx';
import { Afterwards } from './Afterwards.tsx';
import { WhatIf } from './WhatIf.tsx';
import { Wording } from './wording.ts';

export function DatingPanel({
  answer,
  vocabulary,
  chosen,
  observations,
  sheet,
  names,
}: {
  answer: IdentifyAnswer;
  vocabulary: Vocabulary;
  chosen: string | undefined;
  observations: readonly Observation[];
  sheet: PieceSheet;
  names: VariantNames;
}) {
  const { dating } = answer;
  const [view, setView] = useState<keyof typeof VIEW_WORDS>('weights');
  const words = new Wording(vocabulary);
  const candidate = answer.candidates.find((c) => c.variant === chosen) ?? answer.candidates[0];
  const bars = dating.claims.map((claim): RuleBar => {
    const floor = dating.floor.some((b) => sameSubject(b.because, claim.because));
    const ceiling = dating.ceiling.some((b) => sameSubject(b.because, claim.because));
    const source = claim.sources[0];
    return {
      label: words.subject(claim.because),
      ...(source ? { source: words.source(source.source, source.page) } : {}),
      strict: claim.strict,
      lenient: claim.lenient,
      binds: floor && ceiling ? 'both' : floor ? 'floor' : ceiling ? 'ceiling' : undefined,
      setAside: claim.setAside,
    };
  });
  const { made } = dating;
  const form = made && made.basis !== 'bracket' ? formOf(sheet, answer, names) : undefined;
  if (form?.window !== undefined)
    bars.push({ label: `Form: ${form.label}`, strict: [form.window], lenient: [form.window] });
  return (
    <>
      <h2 className="sec">
        When it was made{' '}
        <small>
          {bars.length === 0
            ? 'nothing dated was seen yet'
            : bars.length === 1
              ? 'one dated feature'
              : `${bars.length} dated features`}
        </small>
      </h2>
      {observations.length === 0 ? (
        <p className="soft">
          Answer what is asked on the left; windows of every dated feature appear here and overlap.
        </p>
      ) : (
        <>
          <YearRule
            core={made?.core ?? dating.core}
            outer={made?.outer ?? dating.outer}
            bars={bars}
            years={dating.years}
            label={`Made ${edtfInWords(made?.core ?? dating.core)}, at the outside ${edtfInWords(made?.outer ?? dating.outer)}`}
          />
          <Made sheet={sheet} dating={dating} words={words} />
          <Binding dating={dating} words={words} />
        </>
      )}
      {dating.conflicts.map((conflict, i) => (
        <div key={i} className={i === 0 ? 'note bad' : 'note'} style={{ marginTop: 8 }}>
          <b>{i === 0 ? 'What was seen cannot all be from one time.' : 'Or:'}</b>
          {conflict.insteadRead ? (
            <>
              Read {words.reads(conflict.insteadRead.code, conflict.insteadRead.reads)} instead, and
              everything agrees on {edtfInWords(conflict.leaves)}.
            </>
          ) : (
            <>
              Set aside {conflict.setAside.map((s) => words.subject(s).toLowerCase()).join(' and ')} (
              {EXPLANATION[conflict.explanation]}) and the rest gives {edtfInWords(conflict.leaves)}.
            </>
          )}
        </div>
      ))}
      {dating.disputed.map((dispute, i) => (
        <div key={i} className="note" style={{ marginTop: 8 }}>
          <b>Sources disagree on {words.subject(dispute.because).toLowerCase()}.</b>
          {dispute.between.map((s) => words.source(s, null)).join(' against ')}: all allow{' '}
          {edtfInWords(dispute.strict)}, any allows {edtfInWords(dispute.lenient)}.
        </div>
      ))}
      <Codes answer={answer} words={words} />
      <Afterwards answer={answer} words={words} names={names} />
      {candidate && candidate.evidence.length > 0 && (
        <>
          <h2 className="sec" style={{ marginTop: 16 }}>
            <span>Why {names.get(candidate.variant)?.label ?? inWords(candidate.variant)}</span>
            <span style={{ display: 'flex', gap: 10 }}>
              {(['weights', 'beside', 'what-if'] as const).map((v) => (
                <Button
                  variant="text"
                  key={v}
                  className="quiet soft"
                  aria-pressed={view === v}
                  onClick={() => setView(v)}
                >
                  {VIEW_WORDS[v]}
                </Button>
              ))}
            </span>
          </h2>
          {view === 'weights' && (
            <EvidenceTable
              evidence={candidate.evidence}
              claims={dating.claims}
              words={words}
              exchanged={candidate.exchanged}
            />
          )}
          {view === 'beside' && (
            <CandidateComparison
              left={candidate}
              answer={answer}
              observations={observations}
              vocabulary={vocabulary}
              names={names}
            />
          )}
          {view === 'what-if' && (
            <WhatIf sheet={sheet} answer={answer} observations={observations} words={words} names={names} />
          )}
        </>
      )}
    </>
  );
}

const VIEW_WORDS = { weights: 'what weighs how much', beside: 'side by side', 'what-if': 'what if' } as const;

const EXPLANATION = {
  'replaced-part': 'a replaced part',
  misread: 'a misreading',
  'source-wrong': 'a source that is wrong',
  'put-together': 'put together from several',
  'wrong-variant': 'another form than the one named',
} as const;

/** The form that leads or was decided, with its own years. */
function formOf(sheet: PieceSheet, answer: IdentifyAnswer, names: VariantNames) {
  const id = sheet.attribution?.variant ?? answer.candidates[0]?.variant;
  return id === undefined ? undefined : names.get(id);
}

/** One date for the piece, who says it, and what does not fit. */
function Made({
  sheet,
  dating,
  words,
}: {
  sheet: PieceSheet;
  dating: IdentifyAnswer['dating'];
  words: Wording;
}) {
  const { made } = dating;
  const own = sheet.date?.by === 'decision' ? sheet.date : undefined;
  if (!made && !own) return null;
  return (
    <>
      <p style={{ fontSize: 13, marginTop: 4 }}>
        <b className="num">Made {edtfInWords(own?.core ?? made?.core ?? '')}</b>{' '}
        <span className="soft">
          {own
            ? `by the appraiser’s judgement${own.reason ? `: ${own.reason}` : ''}`
            : made && BASIS[made.basis]}
        </span>
      </p>
      {made?.clash && (
        <div className="note bad" style={{ marginTop: 8 }}>
          <b>The form and what was seen are of different times.</b>
          Its form was made {edtfInWords(made.clash.window)}, what was seen is of{' '}
          {edtfInWords(made.clash.bracket)}
          {made.clash.because.length > 0 && (
            <>: {made.clash.because.map((s) => words.subject(s).toLowerCase()).join(', ')}</>
          )}
          . Perhaps{' '}
          {made.clash.explanations
            .slice(0, 3)
            .map((e) => EXPLANATION[e])
            .join(', or ')}
          .
        </div>
      )}
    </>
  );
}
const BASIS = {
  bracket: 'by what was seen',
  form: 'by when this form was made',
  both: 'where its form and what was seen meet',
  years: 'by the likeliest years, for what was seen does not agree',
} as const;

const sameSubject = (a: Subject, b: Subject) => JSON.stringify(a) === JSON.stringify(b);

function Binding({ dating, words }: { dating: IdentifyAnswer['dating']; words: Wording }) {
  const say = (title: string, bounds: readonly Bound[]) => {
    const first = bounds[0];
    if (!first) return null;
    return (
      <li>
        <span className="soft">{title}</span> <span className="num">{edtfInWords(first.date)}</span> because
        of {words.subject(first.because).toLowerCase()}
        {first.source !== null && <span className="soft"> ({words.source(first.source, first.page)})</span>}
        {bounds.length > 1 && <span className="soft"> and {bounds.length - 1} more</span>}
      </li>
    );
  };
  return (
    <ul style={{ fontSize: 12.5, display: 'grid', gap: 2, marginTop: 4 }}>
      {say('Not before', dating.floor)}
      {say('Not after', dating.ceiling)}
    </ul>
  );
}

function Codes({ answer, words }: { answer: IdentifyAnswer; words: Wording }) {
  return answer.codes.map((code) => (
    <div
      key={code.code}
      className={code.unread !== undefined || code.contradicts.length > 0 ? 'note bad' : 'note'}
      style={{ marginTop: 8 }}
    >
      <b>{words.code(code.code)}</b>
      {code.unread ??
        code.readings
          .map((r) =>
            [
              r.window === null ? undefined : periodInWords(periodOf(r.window)),
              ...r.implies.map((x) =>
                'pattern' in x
                  ? words.pattern(x.pattern)
                  : `${words.feature(x.feature).toLowerCase()} ${impliedValues(x)
                      .map((value) => words.value(x.feature, value))
                      .join(' or ')}`,
              ),
            ]
              .filter(Boolean)
              .join(', '),
          )
          .join(' – or ')}
      {code.contradicts.map((c) => (
        <p key={c.feature} className="warn">
          The stamp says {words.value(c.feature, c.value)}, seen was {words.value(c.feature, c.observed)}:
          exchanged, or misread.
        </p>
      ))}
    </div>
  ));
}
