/** For and against one candidate: a weight for each observation, and on opening it the same in words, with its source. */
import { useState } from 'react';
import type { DatedClaim, Evidence } from '@jutbank/core/bench';
import { oddsOf, type Wording } from './wording.ts';

const signed = (weight: number) => `${weight >= 0 ? '+' : '−'}${Math.abs(weight).toFixed(1)}`;

interface Props {
  readonly evidence: readonly Evidence[];
  readonly claims: readonly DatedClaim[];
  readonly words: Wording;
  readonly exchanged: readonly string[];
}

export function EvidenceTable({ evidence, claims, words, exchanged }: Props) {
  const [opened, setOpened] = useState<string>();
  const widest = Math.max(6, ...evidence.map((e) => Math.abs(e.weight)));
  const total = evidence.reduce((sum, e) => sum + e.weight, 0);
  return (
    <div aria-label="Evidence" role="group">
      {[...evidence]
        .sort((a, b) => Math.abs(b.weight) - Math.abs(a.weight))
        .map((e) => {
          const share = Math.min(50, (50 * Math.abs(e.weight)) / widest);
          const name = e.feature ? words.feature(e.feature) : e.mark ? 'Stamp' : words.code(e.code ?? '');
          return (
            <div key={name}>
              <button
                type="button"
                className="evi"
                aria-expanded={opened === name}
                onClick={() => setOpened(opened === name ? undefined : name)}
              >
                <span>{name}</span>
                <span className="mono" style={{ fontSize: 12, overflowWrap: 'anywhere' }}>
                  {shown(e, e.observed, words)}
                  {exchanged.includes(e.part) && <span className="warn"> exchanged?</span>}
                </span>
                <span className="scale">
                  <span className={e.weight >= 0 ? 'pos' : 'neg'} style={{ width: `${share}%` }} />
                </span>
                <span className="num" style={{ textAlign: 'right' }}>
                  {signed(e.weight)}
                </span>
              </button>
              {opened === name && <InWords e={e} claims={claims} words={words} exchanged={exchanged} />}
            </div>
          );
        })}
      <div className="evi">
        <b>Together</b>
        <span />
        <span />
        <b className="num" style={{ textAlign: 'right' }}>
          {signed(total)}
        </b>
      </div>
    </div>
  );
}

const shown = (e: Evidence, value: string | number, words: Wording): string =>
  e.mark ? words.mark(String(value)) : words.value(e.feature, value);

function InWords({ e, claims, words, exchanged }: Omit<Props, 'evidence'> & { e: Evidence }) {
  const expected = e.expected.map((x) => shown(e, x, words)).join(' or ');
  const claim = claims.find(
    ({ because }) =>
      ('feature' in because && because.feature === e.feature) ||
      ('mark' in because && because.mark === e.mark) ||
      ('code' in because && because.code === e.code),
  );
  return (
    <p className="soft inwords">
      {e.verdict === 'agrees' && `As this variant shows it${expected === '' ? '' : ` (${expected})`}.`}
      {e.verdict === 'disagrees' &&
        `This variant shows ${expected === '' ? 'nothing of the kind' : expected}.`}
      {e.verdict === 'silent' &&
        'This variant does not record it: it is weighed by what its maker usually did at the time.'}
      {exchanged.includes(e.part) && ` It fits only if the ${e.part} was exchanged.`}{' '}
      {Math.abs(e.weight) < 0.5
        ? 'It hardly speaks either way.'
        : `It makes this candidate ${oddsOf(e.weight)} against the rest.`}
      {claim && claim.sources.length > 0 && (
        <> Dated by {claim.sources.map((s) => words.source(s.source, s.page)).join(', ')}.</>
      )}
    </p>
  );
}
