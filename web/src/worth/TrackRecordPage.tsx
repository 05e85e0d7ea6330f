/** How well the house has done: what it said against what came of it, with how far so few can tell. */
import { worthRoutes, type AppraisedAndSold, type TrackRecord } from '@jutbank/contract/worth';
import { Link } from 'react-router';
import { HEARD_FROM, type Band, type RangesHeld, type Share, type Basis } from '@jutbank/core/worth';
import { useAnswer } from '../base/answers.ts';
import { Failed, Loading } from '../base/states.tsx';
import { PageTitle } from '../parts/PageTitle.tsx';
import { useWidth } from '../parts/useWidth.ts';
import { counted, dayText, moneyText } from '../parts/words.ts';
import { BASIS_WORDS } from './words.ts';
import './worth.css';

export default function TrackRecordPage() {
  const told = useAnswer(worthRoutes.trackRecord);
  if (told.isPending) return <Loading />;
  if (told.isError) return <Failed error={told.error} retry={() => void told.refetch()} />;
  const { pieces, ranges, by, probabilities, asks, declined, house } = told.data;
  return (
    <div className="page">
      <div className="pagehead">
        <PageTitle>How well we have done</PageTitle>
        <span className="soft">what was said in kept appraisals, against what came of it</span>
      </div>
      {ranges === null ? (
        <p className="soft">
          No appraised piece has been sold yet. What is appraised before it is sold stands here, with how far
          the figure was off and whether the range held.
        </p>
      ) : (
        <div className="twocol">
          <section>
            <p className="num appraisedfigure">
              {ranges.held} of {ranges.of}
            </p>
            <p className="soft">sold inside the range that was stated; four of five should.</p>
            <p>
              {far(ranges)} The middle one sold for {times(ranges.ofFigure)} its figure and{' '}
              {times(ranges.ofConcluded)} what the appraiser concluded.
            </p>
            <p className="soft">{heardText(house)}</p>
            <SaidAndWas pieces={pieces} />
          </section>
          <section>
            <h2 className="sec">By what, whose, when and by whom</h2>
            <table className="grid">
              <thead>
                <tr>
                  <th>Of</th>
                  <th className="r">Inside</th>
                  <th className="r">It may be</th>
                  <th className="r">Sold ÷ figure</th>
                </tr>
              </thead>
              <tbody>
                {by.map((b) => (
                  <tr key={`${b.group} ${b.name}`}>
                    <td>
                      {b.group === 'basis' ? BASIS_WORDS[b.name as Basis] : b.name || 'maker not known'}{' '}
                      <span className="soft">{b.group}</span>
                    </td>
                    <td className="r num">
                      {b.held.held} of {b.held.of}
                    </td>
                    <td className="r num">{between(b.held)}</td>
                    <td className="r num">{b.held.ofFigure.toFixed(2)}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </section>
        </div>
      )}
      <div className="twocol" style={{ marginTop: 26 }}>
        <section>
          <h2 className="sec">
            What it was <small>probabilities, where it was confirmed later</small>
          </h2>
          {probabilities.length === 0 ? (
            <p className="soft">Nothing that was open in an appraisal has been confirmed since.</p>
          ) : (
            <Probabilities bands={probabilities} />
          )}
          <h2 className="sec" style={{ marginTop: 22 }}>
            Asks and patience
          </h2>
          {asks.length === 0 ? (
            <p className="soft">Nothing has been put up yet.</p>
          ) : (
            <table className="grid">
              <thead>
                <tr>
                  <th>Asked, of the estimate</th>
                  <th className="r">Sold</th>
                  <th className="r">Still up</th>
                  <th className="r">Middle one took</th>
                </tr>
              </thead>
              <tbody>
                {asks.map((a) => (
                  <tr key={a.from}>
                    <td>{askText(a.from, a.to)}</td>
                    <td className="r num">{counted(a.sold)}</td>
                    <td className="r num">{counted(a.open)}</td>
                    <td className="r num">{a.weeks === null ? '–' : `${a.weeks.toFixed(1)} weeks`}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
        </section>
        <section>
          <h2 className="sec">Offers turned down, and what came after</h2>
          {declined.length === 0 ? (
            <p className="soft">No offer has been turned down.</p>
          ) : (
            <table className="grid">
              <tbody>
                {declined.map((d, i) => (
                  <tr key={i}>
                    <td>
                      <Link to={`/pieces/${d.pieceId}/worth`}>{d.title}</Link>
                      <span className="soft" style={{ display: 'block' }}>
                        {moneyText(d.offer)} on {dayText(d.at)}
                      </span>
                    </td>
                    <td className="r num">
                      {d.sold ? moneyText(d.sold) : <span className="soft">not sold yet</span>}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
        </section>
      </div>
    </div>
  );
}

function heardText(house: TrackRecord['house']): string {
  if (house === null) return `From ${HEARD_FROM} sold pieces on, ranges go by how these have held as well.`;
  const percent = Math.round(100 * Math.abs(house.stretch - 1));
  const ranges =
    percent === 0
      ? 'Ranges stand as the market says'
      : `Ranges are now ${percent} % ${house.stretch > 1 ? 'wider' : 'narrower'} than the market alone says`;
  return `${ranges}, since ${counted(house.of)} of our own were heard.`;
}

const inHundred = (x: number) => Math.round(100 * x);
const between = (s: Share) => `${inHundred(s.low)}–${inHundred(s.high)} in 100`;
const times = (x: number) => `${x.toFixed(2)} ×`;
const far = (s: RangesHeld) =>
  s.low <= 0.8 && s.high >= 0.8
    ? `Of so few, ${between(s)} may be the truth: it agrees with what is stated.`
    : `${between(s)} may be the truth, which is not what is stated.`;
const askText = (from: number, to: number) =>
  from === 0
    ? `below ${inHundred(to)} %`
    : to >= 99
      ? `above ${inHundred(from)} %`
      : `${inHundred(from)}–${inHundred(to)} %`;

function Probabilities({ bands }: { bands: readonly Band[] }) {
  return (
    <table className="grid">
      <thead>
        <tr>
          <th>Stated</th>
          <th className="r">It was so</th>
          <th className="r">It may be</th>
        </tr>
      </thead>
      <tbody>
        {bands.map((b) => (
          <tr key={b.from}>
            <td className="num">{inHundred(b.stated)} in 100</td>
            <td className="r num">
              {b.held} of {b.of}
            </td>
            <td className="r num">{between(b)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** px, as wide as it is drawn where there is room */
const WIDEST = 560;
const HEIGHT = 300;
const EDGE = 46;

/** Each piece as a stroke from low to high over its figure, with what it brought as a dot; the diagonal is what was said. */
function SaidAndWas({ pieces }: { pieces: readonly AppraisedAndSold[] }) {
  const [box, width] = useWidth<HTMLElement>(WIDEST);
  const amounts = pieces.flatMap((p) => [p.low, p.high, p.sold].map((m) => Math.log(Number(m.amount))));
  const [low, high] = [Math.min(...amounts) - 0.1, Math.max(...amounts) + 0.1];
  const at = (log: number) => (log - low) / (high - low || 1);
  const x = (amount: string) => EDGE + at(Math.log(Number(amount))) * (width - EDGE - 24);
  const y = (amount: string) => HEIGHT - EDGE - at(Math.log(Number(amount))) * (HEIGHT - EDGE - 8);
  const ticks = [5, 10, 20, 50, 100, 200, 500, 1000, 2000, 5000, 10_000].filter(
    (t) => Math.log(t) > low && Math.log(t) < high,
  );
  return (
    <figure ref={box} className="saidandwas">
      <svg
        viewBox={`0 0 ${width} ${HEIGHT}`}
        width={width}
        height={HEIGHT}
        role="img"
        aria-label={`Said against sold for ${pieces.length} pieces; ${pieces.filter((p) => Number(p.sold.amount) >= Number(p.low.amount) && Number(p.sold.amount) <= Number(p.high.amount)).length} lie inside what was stated`}
      >
        {ticks.map((t) => (
          <g key={t} className="tick">
            <line x1={x(String(t))} x2={x(String(t))} y1={8} y2={HEIGHT - EDGE} />
            <line x1={EDGE} x2={width - 24} y1={y(String(t))} y2={y(String(t))} />
            <text x={x(String(t))} y={HEIGHT - EDGE + 14} textAnchor="middle">
              {counted(t)}
            </text>
            <text x={EDGE - 5} y={y(String(t)) + 4} textAnchor="end">
              {counted(t)}
            </text>
          </g>
        ))}
        <line className="diagonal" x1={EDGE} y1={HEIGHT - EDGE} x2={width - 24} y2={8} />
        {pieces.map((p) => {
          const inside =
            Number(p.sold.amount) >= Number(p.low.amount) && Number(p.sold.amount) <= Number(p.high.amount);
          return (
            <g key={p.appraisal} className={inside ? 'inside' : 'outside'}>
              <title>{`${p.title}: said ${moneyText(p.figure)}, sold ${moneyText(p.sold)}`}</title>
              <line
                x1={x(p.figure.amount)}
                x2={x(p.figure.amount)}
                y1={y(p.low.amount)}
                y2={y(p.high.amount)}
              />
              <circle cx={x(p.figure.amount)} cy={y(p.sold.amount)} r={3.4} />
            </g>
          );
        })}
      </svg>
      <figcaption className="soft">
        Across: the figure; up: what it sold for, over the range that was stated. On the line it sold for what
        was said. In {pieces[0]?.figure.currency ?? 'the shop’s currency'}.
      </figcaption>
    </figure>
  );
}
