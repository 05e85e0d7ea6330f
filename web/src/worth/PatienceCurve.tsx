/** Price against time: for each ask the weeks it may stand, and what it brings in the long run. Drawn, and as a table. */
import { Button } from '@mui/material';
import { useState } from 'react';
import type { PieceFinances } from '@jutbank/contract/worth';
import { useWidth } from '../parts/useWidth.ts';
import { moneyText } from '../parts/words.ts';

/** px, as wide as it is drawn where there is room */
const WIDEST = 520;
const HEIGHT = 150;
const LEFT = 8;
const BOTTOM = 26;

export function PatienceCurve({ patience }: { patience: PieceFinances['patience'] }) {
  const [asTable, setAsTable] = useState(false);
  const [box, width] = useWidth<HTMLDivElement>(WIDEST);
  const { points, best, currency } = patience;
  const money = (x: number) => moneyText({ amount: x.toFixed(2), currency }, true);
  const first = points[0]?.price ?? 0;
  const last = points.at(-1)?.price ?? 1;
  const top = Math.max(...points.map((p) => p.value), 1);
  const x = (price: number) => LEFT + ((price - first) / (last - first)) * (width - 2 * LEFT);
  const y = (value: number) => HEIGHT - BOTTOM - (Math.max(0, value) / top) * (HEIGHT - BOTTOM - 20);
  return (
    <div ref={box}>
      {asTable ? (
        <table className="grid">
          <thead>
            <tr>
              <th className="r">Ask</th>
              <th className="r">Weeks it may stand</th>
              <th className="r">Leaves</th>
              <th className="r">Brings in the long run</th>
            </tr>
          </thead>
          <tbody>
            {points
              .filter((_, i) => i % 3 === 0)
              .map((p) => (
                <tr key={p.ratio} className={p.ratio === best.ratio ? 'on' : ''}>
                  <td className="r num">{money(p.price)}</td>
                  <td className="r num">{p.weeks.toFixed(0)}</td>
                  <td className="r num">{money(p.net)}</td>
                  <td className="r num">{money(p.value)}</td>
                </tr>
              ))}
          </tbody>
        </table>
      ) : (
        <svg
          viewBox={`0 0 ${width} ${HEIGHT}`}
          width={width}
          height={HEIGHT}
          role="img"
          aria-label={`Asking ${money(best.price)} brings most in the long run and may take ${best.weeks.toFixed(0)} weeks. The same figures stand in the table.`}
        >
          <line
            x1={LEFT}
            x2={width - LEFT}
            y1={HEIGHT - BOTTOM}
            y2={HEIGHT - BOTTOM}
            stroke="var(--ink)"
            strokeWidth="2"
          />
          {points.map((p, i) => (
            <line
              key={p.ratio}
              x1={x(p.price)}
              x2={x(p.price)}
              y1={HEIGHT - BOTTOM}
              y2={HEIGHT - BOTTOM + (i % 5 === 0 ? 7 : 4)}
              stroke="var(--rule)"
            />
          ))}
          <polyline
            points={points.map((p) => `${x(p.price).toFixed(1)},${y(p.value).toFixed(1)}`).join(' ')}
            fill="none"
            stroke="var(--accent)"
            strokeWidth="2"
          />
          <line
            x1={x(best.price)}
            x2={x(best.price)}
            y1={y(best.value)}
            y2={HEIGHT - BOTTOM}
            stroke="var(--ink)"
            strokeWidth="2"
          />
          <text
            x={Math.min(width - 150, Math.max(LEFT, x(best.price) - 60))}
            y={12}
            fontSize="12"
            fill="var(--ink)"
            fontWeight="650"
          >
            {money(best.price)}, about {best.weeks.toFixed(0)} weeks
          </text>
          <text x={LEFT} y={HEIGHT - 6} fontSize="11" fill="var(--soft)">
            {money(first)}
          </text>
          <text x={width - LEFT} y={HEIGHT - 6} fontSize="11" fill="var(--soft)" textAnchor="end">
            {money(last)}
          </text>
        </svg>
      )}
      <Button
        variant="text"
        className="quiet soft"
        aria-expanded={asTable}
        onClick={() => setAsTable(!asTable)}
      >
        {asTable ? 'As a drawing' : 'As a table'}
      </Button>
    </div>
  );
}
