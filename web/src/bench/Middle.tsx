/** The year rule with what binds, what the stamps say, and why the chosen candidate stands where it stands. */
import { edtfInWords, periodInWords, periodOf } from '@jutbank/core/dates';
import type { Bound, Evidence, IdentifyAnswer, Subject } from '@jutbank/core/bench';
import type { Vocabulary } from '@jutbank/contract/reference';
import { inWords } from '../parts/words.ts';
import { YearRule, type RuleBar } from '../parts/YearRule.tsx';
import type { VariantNames } from '../parts/names.ts';

export function Middle({
  answer,
  vocabulary,
  chosen,
  seen,
  names,
}: {
  answer: IdentifyAnswer;
  vocabulary: Vocabulary;
  chosen: string | undefined;
  seen: number;
  names: VariantNames;
}) {
  const { dating } = answer;
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
      {seen === 0 ? (
        <p className="soft">
          Answer what is asked on the left; windows of every dated feature appear here and overlap.
        </p>
      ) : (
        <>
          <YearRule
            core={dating.core}
            outer={dating.outer}
            bars={bars}
            years={dating.years}
            label={`Made ${edtfInWords(dating.core)}, at the outside ${edtfInWords(dating.outer)}`}
          />
          <Binding dating={dating} words={words} />
        </>
      )}
      {dating.conflicts.map((conflict, i) => (
        <div key={i} className={i === 0 ? 'note bad' : 'note'} style={{ marginTop: 8 }}>
          <b>{i === 0 ? 'What was seen cannot all be from one time.' : 'Or:'}</b>
          Set aside {conflict.setAside.map((s) => words.subject(s).toLowerCase()).join(' and ')} (
          {EXPLANATION[conflict.explanation]}) and the rest gives {edtfInWords(conflict.leaves)}.
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
      {candidate && candidate.evidence.length > 0 && (
        <>
          <h2 className="sec" style={{ marginTop: 16 }}>
            Why {names.get(candidate.variant)?.label ?? inWords(candidate.variant)}{' '}
            <small>decibans against the rest</small>
          </h2>
          <EvidenceTable evidence={candidate.evidence} words={words} exchanged={candidate.exchanged} />
        </>
      )}
    </>
  );
}

const EXPLANATION = {
  'replaced-part': 'a replaced part',
  misread: 'a misreading',
  'source-wrong': 'a source that is wrong',
  'put-together': 'put together from several',
} as const;

const sameSubject = (a: Subject, b: Subject) => JSON.stringify(a) === JSON.stringify(b);

/** Ids of the reference in words. */
export class Wording {
  constructor(readonly vocabulary: Vocabulary) {}
  feature = (id: string) => this.vocabulary.features.find((f) => f.id === id)?.label ?? inWords(id);
  value = (feature: string | undefined, value: string | number) =>
    this.vocabulary.features
      .find((f) => f.id === feature)
      ?.values?.find((v) => v.id === value)
      ?.label.toLowerCase() ?? String(value);
  mark = (id: string) => this.vocabulary.marks.find((m) => m.id === id)?.lines.join(' / ') ?? id;
  code = (id: string) => this.vocabulary.codes.find((c) => c.id === id)?.title ?? id;
  maker = (id: string) => this.vocabulary.makers.find((m) => m.id === id)?.name ?? id;
  pattern = (id: string) => this.vocabulary.patterns.find((p) => p.id === id)?.name ?? id;
  source(id: string, page: string | null): string {
    const title = this.vocabulary.sources.find((s) => s.id === id)?.title ?? inWords(id);
    return page === null ? title : `${title.length > 30 ? `${title.slice(0, 28)}…` : title} ${page}`;
  }
  subject(s: Subject): string {
    if ('feature' in s)
      return s.value === undefined
        ? `${this.feature(s.feature)} not there`
        : `${this.feature(s.feature)}: ${this.value(s.feature, s.value)}`;
    if ('mark' in s) return `Stamp ${this.mark(s.mark)}`;
    if ('code' in s) return this.code(s.code);
    if ('maker' in s) return `${this.maker(s.maker)}’s years`;
    return 'Variants still possible';
  }
}

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
                  : `${words.feature(x.feature).toLowerCase()} ${words.value(x.feature, x.value)}`,
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

export function EvidenceTable({
  evidence,
  words,
  exchanged,
}: {
  evidence: readonly Evidence[];
  words: Wording;
  exchanged: readonly string[];
}) {
  const widest = Math.max(6, ...evidence.map((e) => Math.abs(e.weight)));
  const total = evidence.reduce((sum, e) => sum + e.weight, 0);
  return (
    <div role="table" aria-label="Evidence">
      {[...evidence]
        .sort((a, b) => Math.abs(b.weight) - Math.abs(a.weight))
        .map((e) => {
          const share = Math.min(50, (50 * Math.abs(e.weight)) / widest);
          const name = e.feature ? words.feature(e.feature) : e.mark ? 'Stamp' : words.code(e.code ?? '');
          const observed = e.mark ? words.mark(e.mark) : words.value(e.feature, e.observed);
          return (
            <div
              key={name}
              className="evi"
              role="row"
              title={
                e.expected.length > 0
                  ? `expected: ${e.expected.map((x) => (e.mark ? words.mark(String(x)) : words.value(e.feature, x))).join(' or ')}`
                  : 'this variant does not record it'
              }
            >
              <span role="cell">{name}</span>
              <span role="cell" className="mono" style={{ fontSize: 12, overflowWrap: 'anywhere' }}>
                {observed}
                {exchanged.includes(e.part) && <span className="warn"> exchanged?</span>}
              </span>
              <span role="cell" className="scale">
                <span className={e.weight >= 0 ? 'pos' : 'neg'} style={{ width: `${share}%` }} />
              </span>
              <span role="cell" className="num" style={{ textAlign: 'right' }}>
                {e.weight >= 0 ? '+' : '−'}
                {Math.abs(e.weight).toFixed(1)}
              </span>
            </div>
          );
        })}
      <div className="evi" role="row">
        <b role="cell">Together</b>
        <span role="cell" />
        <span role="cell" />
        <b role="cell" className="num" style={{ textAlign: 'right' }}>
          {total >= 0 ? '+' : '−'}
          {Math.abs(total).toFixed(1)}
        </b>
      </div>
    </div>
  );
}
