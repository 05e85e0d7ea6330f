/** A pattern's forms along the year rule, and what changed from one to the next. */
import { referenceRoutes } from '@jutbank/contract/reference';
import { Link, useParams } from 'react-router';
import { edtfInWords, periodOf } from '@jutbank/core/dates';
import { patternByYear, type Variant } from '@jutbank/core/reference';
import { useAnswer } from '../base/answers.ts';
import { useMay } from '../base/session.ts';
import { Failed, Loading } from '../base/states.tsx';
import { PageTitle } from '../parts/PageTitle.tsx';
import { CONSTRUCTION_WORDS, counted } from '../parts/words.ts';
import { Stories } from './MakerSays.tsx';
import { YearRule, type RuleBar } from '../parts/YearRule.tsx';
import { Succession } from './Succession.tsx';
import { useVocabulary } from './vocabulary.ts';
import './reference.css';

export default function PatternPage() {
  const { id = '' } = useParams();
  const mayWrite = useMay('appraise');
  const detail = useAnswer(referenceRoutes.pattern, { params: { id } });
  const vocabulary = useVocabulary();
  if (detail.isError) return <Failed error={detail.error} retry={() => void detail.refetch()} />;
  if (!detail.data || !vocabulary.data) return <Loading />;
  const { pattern, maker } = detail.data;
  const variants = [...detail.data.variants].sort((a, b) => beginning(a) - beginning(b));
  const production = patternByYear(pattern, variants);
  const most = Math.max(0, ...production.map((y) => y.made));
  const changeOvers = detail.data.windows;
  const featureLabel = (fid: string) => vocabulary.data.features.find((f) => f.id === fid)?.label ?? fid;
  const valueLabel = (fid: string, value: string | number) =>
    vocabulary.data.features
      .find((f) => f.id === fid)
      ?.values?.find((v) => v.id === value)
      ?.label.toLowerCase() ?? String(value);
  const bars = variants.flatMap((v): RuleBar[] =>
    v.window == null
      ? []
      : [
          {
            label: v.name,
            source: v.made?.quantity == null ? 'number unknown' : `${counted(v.made.quantity)} made`,
            strict: [v.window],
            lenient: [],
            binds: 'both',
          },
        ],
  );
  return (
    <div className="page">
      <div className="pagehead">
        <PageTitle>{pattern.name}</PageTitle>
        <span className="soft">
          <Link to={`/reference?maker=${maker.id}`}>{maker.name}</Link> ·{' '}
          {CONSTRUCTION_WORDS[pattern.construction]}
          {pattern.number != null && <span className="mono"> · no. {pattern.number}</span>}
        </span>
        <span className="grow" />
        {mayWrite && (
          <>
            <Link className="quiet" to={`/reference/write/patterns/${pattern.id}`}>
              Edit
            </Link>
            <Link className="quiet" to={`/reference/write/windows?maker=${maker.id}&pattern=${pattern.id}`}>
              + dated window
            </Link>
            <Link className="quiet" to={`/reference/write/variants?pattern=${pattern.id}`}>
              + variant
            </Link>
          </>
        )}
      </div>
      <div className={variants.length > MOST_BESIDE ? undefined : 'twocol'}>
        <section>
          <h2 className="sec">Forms along the years</h2>
          {bars.length === 0 ? (
            <p className="soft">No form is dated yet.</p>
          ) : (
            <YearRule
              core={undefined}
              bars={bars}
              label={`Forms of ${pattern.name}`}
              {...(most > 0
                ? { strip: production.map((y) => ({ year: y.year, strength: y.made / most })) }
                : {})}
            />
          )}
          {most > 0 && (
            <p className="soft" style={{ fontSize: 12.5 }}>
              Above the ticks: made each year, at most <span className="num">{counted(most)}</span>
              {production.every((y) => y.told)
                ? ', as told.'
                : '; years that nobody told are shared out evenly.'}
            </p>
          )}
          {changeOvers.length > 0 && (
            <>
              <h2 className="sec" style={{ marginTop: 16 }}>
                Change-overs <small>what dates a piece of this pattern</small>
              </h2>
              <table className="grid">
                <tbody>
                  {changeOvers.map((w) => (
                    <tr key={w.id}>
                      <td>
                        <Link to={`/reference/write/windows/${w.id}`}>
                          {featureLabel(w.feature)}: {valueLabel(w.feature, w.value)}
                        </Link>
                      </td>
                      <td className="num">{edtfInWords(w.window)}</td>
                      <td className="soft">
                        {vocabulary.data.sources.find((x) => x.id === w.source)?.title ?? 'no source'}
                        {w.page != null && `, p. ${w.page}`}
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </>
          )}
          <Stories stories={detail.data.stories} words={vocabulary.data} />
        </section>
        <Succession pattern={pattern} variants={variants} vocabulary={vocabulary.data} />
      </div>
    </div>
  );
}

/** With more forms than these the rule and the list have the whole width, one below the other. */
const MOST_BESIDE = 14;

const beginning = (v: Variant): number =>
  v.window == null ? Infinity : Number(periodOf(v.window).start.earliest);
