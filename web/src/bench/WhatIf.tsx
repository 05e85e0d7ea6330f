/** “What if I misread this”, “what if this part was exchanged”: the answer without it, beside the answer with it. */
import { ButtonBase } from '@mui/material';
import { useState } from 'react';
import { subjectKey, type IdentifyAnswer, type Observation } from '@jutbank/core/bench';
import { edtfInWords } from '@jutbank/core/dates';
import type { PieceSheet } from '@jutbank/contract/pieces';
import { Roving } from '../parts/Roving.tsx';
import type { VariantNames } from '../reference/vocabulary.ts';
import { inHundred } from '../parts/TierBadge.tsx';
import { inWords } from '../parts/words.ts';
import { useIdentification } from './useIdentification.ts';
import type { Wording } from './wording.ts';

const partOf = (o: Observation, words: Wording): string =>
  'number' in o
    ? o.part
    : 'feature' in o
      ? (words.vocabulary.features.find((f) => f.id === o.feature)?.part ?? 'tang')
      : 'tang';

const named = (o: Observation, words: Wording): string =>
  'mark' in o
    ? 'the stamp'
    : 'code' in o
      ? words.code(o.code).toLowerCase()
      : 'number' in o
        ? `the number on the ${o.part}`
        : words.feature(o.feature).toLowerCase();

const MOST_SHOWN = 5;

export function WhatIf({
  sheet,
  answer,
  observations,
  words,
  names,
}: {
  sheet: PieceSheet;
  answer: IdentifyAnswer;
  observations: readonly Observation[];
  words: Wording;
  names: VariantNames;
}) {
  const [misread, setMisread] = useState<ReadonlySet<string>>(new Set());
  const [exchanged, setExchanged] = useState<ReadonlySet<string>>(new Set());
  const kept = observations.filter((o) => !misread.has(subjectKey(o)) && !exchanged.has(partOf(o, words)));
  const asked = kept.length < observations.length;
  const other = useIdentification(sheet, kept, asked);
  const parts = [...new Set(observations.map((o) => partOf(o, words)))];
  const toggle = (set: ReadonlySet<string>, key: string) =>
    new Set(set.has(key) ? [...set].filter((k) => k !== key) : [...set, key]);
  return (
    <div className="whatif">
      <Roving className="chips" role="group" aria-label="What if I misread">
        <span className="soft">I misread</span>
        {observations.map((o) => (
          <ButtonBase
            key={subjectKey(o)}
            className="chip"
            aria-pressed={misread.has(subjectKey(o))}
            onClick={() => setMisread(toggle(misread, subjectKey(o)))}
          >
            {named(o, words)}
          </ButtonBase>
        ))}
      </Roving>
      <Roving className="chips" role="group" aria-label="What if it was exchanged">
        <span className="soft">Exchanged</span>
        {parts.map((part) => (
          <ButtonBase
            key={part}
            className="chip"
            aria-pressed={exchanged.has(part)}
            onClick={() => setExchanged(toggle(exchanged, part))}
          >
            {inWords(part)}
          </ButtonBase>
        ))}
      </Roving>
      {!asked ? (
        <p className="soft">Choose what to doubt: the answer without it appears here, nothing is changed.</p>
      ) : (
        other.data && <Compared before={answer} after={other.data} names={names} />
      )}
    </div>
  );
}

function Compared({
  before,
  after,
  names,
}: {
  before: IdentifyAnswer;
  after: IdentifyAnswer;
  names: VariantNames;
}) {
  const of = (answer: IdentifyAnswer, variant: string) =>
    answer.candidates.find((c) => c.variant === variant)?.probability ?? 0;
  const variants = [...new Set([...before.candidates, ...after.candidates].map((c) => c.variant))]
    .map((variant) => ({ variant, was: of(before, variant), is: of(after, variant) }))
    .sort((a, b) => Math.max(b.was, b.is) - Math.max(a.was, a.is))
    .slice(0, MOST_SHOWN);
  return (
    <table className="grid" aria-live="polite">
      <thead>
        <tr>
          <th>
            <span className="visually-hidden">Answer</span>
          </th>
          <th className="r">As seen</th>
          <th className="r">Without it</th>
        </tr>
      </thead>
      <tbody>
        {variants.map((v) => (
          <tr key={v.variant}>
            <td>{names.get(v.variant)?.label ?? inWords(v.variant)}</td>
            <td className="r num">{inHundred(v.was)}</td>
            <td className="r num">{inHundred(v.is)}</td>
          </tr>
        ))}
        <tr>
          <td>Something not in the reference</td>
          <td className="r num">{inHundred(before.unlisted)}</td>
          <td className="r num">{inHundred(after.unlisted)}</td>
        </tr>
        <tr>
          <td>Made</td>
          <td className="r num">{edtfInWords(before.dating.core)}</td>
          <td className="r num">{edtfInWords(after.dating.core)}</td>
        </tr>
      </tbody>
    </table>
  );
}
