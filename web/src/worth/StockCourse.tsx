/** The stock from valuation to valuation: cost and worth as two lines over the days on which it was valued. */
import type { StockValuation } from '@jutbank/contract/worth';
import { dayText, moneyText } from '../parts/words.ts';

const WIDTH = 480;
const HEIGHT = 96;
const EDGE = 8;

export function StockCourse({ history }: { history: StockValuation['history'] }) {
  const first = history[0];
  const last = history.at(-1);
  if (!first || !last || history.length < 2)
    return <p className="soft">How it moves shows from the second valuation on.</p>;
  const [from, to] = [Date.parse(first.at), Date.parse(last.at)];
  const most = Math.max(1, ...history.flatMap((h) => [Number(h.cost.amount), Number(h.worth.amount)]));
  const x = (at: string) => EDGE + ((Date.parse(at) - from) / (to - from || 1)) * (WIDTH - 2 * EDGE);
  const y = (amount: string) => HEIGHT - 4 - (Number(amount) / most) * (HEIGHT - 14);
  const line = (of: 'cost' | 'worth') =>
    history.map((h) => `${x(h.at).toFixed(1)},${y(h[of].amount).toFixed(1)}`).join(' ');
  return (
    <figure className="stockcourse">
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        role="img"
        aria-label={`From ${moneyText(first.worth, true)} on ${dayText(first.at)} to ${moneyText(last.worth, true)} on ${dayText(last.at)}; cost from ${moneyText(first.cost, true)} to ${moneyText(last.cost, true)}`}
      >
        <line className="ground" x1={EDGE} x2={WIDTH - EDGE} y1={HEIGHT - 4} y2={HEIGHT - 4} />
        <polyline className="worth" points={line('worth')} />
        <polyline className="cost" points={line('cost')} />
        {history.map((h) => (
          <g key={h.at}>
            <circle className="worth" cx={x(h.at)} cy={y(h.worth.amount)} r="3" />
            <rect className="cost" x={x(h.at) - 2.5} y={y(h.cost.amount) - 2.5} width="5" height="5" />
          </g>
        ))}
      </svg>
      <figcaption className="soft">
        <span>{dayText(first.at)}</span>
        <span>● worth ■ cost</span>
        <span>{dayText(last.at)}</span>
      </figcaption>
    </figure>
  );
}
