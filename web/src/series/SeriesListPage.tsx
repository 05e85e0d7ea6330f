/** What is followed: the shop's own series and the want lists of customers, each with how far it is. */
import { seriesRoutes, type SeriesSummary } from '@jutbank/contract/series';
import { Link, useNavigate } from 'react-router';
import { useAnswer, useKeptAnswers } from '../base/answers.ts';
import { useMay } from '../base/session.ts';
import { Failed, Loading } from '../base/states.tsx';
import { Opening } from '../parts/Opening.tsx';
import { PageTitle } from '../parts/PageTitle.tsx';
import { useVocabulary } from '../reference/vocabulary.ts';
import { SeriesForm } from './SeriesForm.tsx';
import { ruleInWords } from './words.ts';
import './series.css';

export default function SeriesListPage() {
  const mayWork = useMay('work');
  const navigate = useNavigate();
  const answers = useKeptAnswers();
  const series = useAnswer(seriesRoutes.listSeries);
  const words = useVocabulary().data;
  if (series.isPending) return <Loading />;
  if (series.isError) return <Failed error={series.error} retry={() => void series.refetch()} />;
  const { items } = series.data;
  const own = items.filter((s) => s.contactId === null);
  const wanted = items.filter((s) => s.contactId !== null);
  const list = (of: readonly SeriesSummary[]) => (
    <ul className="series-list">
      {of.map((s) => (
        <li key={s.id}>
          <Link to={`/series/${s.id}`}>
            <b>{s.name}</b>
            <span className="soft">
              {[s.buyerName, ruleInWords(s.rule, words)].filter(Boolean).join(' · ')}
            </span>
            <Filled filled={s.filled} of={s.of} />
            <span className="num">
              {s.filled} of {s.of}
            </span>
            <span className="soft">
              {s.doubles === 0 ? '' : s.doubles === 1 ? '1 double' : `${s.doubles} doubles`}
            </span>
          </Link>
        </li>
      ))}
    </ul>
  );
  return (
    <div className="page">
      <div className="pagehead">
        <PageTitle>Series</PageTitle>
        <span className="soft">What exists, what is here, what is double, what somebody waits for.</span>
      </div>
      {mayWork && (
        <Opening words="Follow a series" strong={items.length === 0}>
          {() => (
            <SeriesForm
              onKept={(kept) => {
                void answers.invalidate(seriesRoutes.listSeries);
                void navigate(`/series/${kept.id}`);
              }}
            />
          )}
        </Opening>
      )}
      {items.length === 0 && (
        <p className="soft" style={{ marginTop: 12 }}>
          Nothing is followed yet. A series is a rule over the reference: every form of a pattern, everything
          with one stamp, one of each handle, every year’s knife. It fills itself from what is decided on the
          bench; a customer’s want list is one, too, and speaks up when something of it comes in.
        </p>
      )}
      {own.length > 0 && (
        <>
          <h2 className="sec">The shop’s own</h2>
          {list(own)}
        </>
      )}
      {wanted.length > 0 && (
        <>
          <h2 className="sec">Wanted by customers</h2>
          {list(wanted)}
        </>
      )}
    </div>
  );
}

/** How far a series is: a notch each up to sixty, then a bar. */
function Filled({ filled, of }: { filled: number; of: number }) {
  const notched = of > 0 && of <= 60;
  const step = 240 / Math.max(1, of);
  return (
    <svg
      className="filled"
      viewBox="0 0 240 14"
      preserveAspectRatio="none"
      role="img"
      aria-label={`${filled} of ${of} filled`}
    >
      <line x1="0" y1="13.5" x2="240" y2="13.5" className="axis" />
      {notched ? (
        Array.from({ length: of }, (_, i) => (
          <rect
            key={i}
            x={i * step + 0.75}
            y={i < filled ? 2 : 9}
            width={Math.max(1, step - 1.5)}
            height={i < filled ? 11 : 4}
            className={i < filled ? 'is' : 'is-not'}
          />
        ))
      ) : (
        <rect x="0" y="2" width={of === 0 ? 0 : (240 * filled) / of} height="11" className="is" />
      )}
    </svg>
  );
}
