/** Price over time: what was paid against what it comes to for this piece, weight as size, the estimate as a band. */
import { Chart, LinearScale, LogarithmicScale, PointElement, ScatterController, Tooltip } from 'chart.js';
import { useMemo, useState } from 'react';
import { Scatter } from 'react-chartjs-2';
import { PALETTES } from '@jutbank/core/drawing';
import { formatMoney } from '@jutbank/core/money';
import type { EstimateAnswer } from '@jutbank/contract/market';
import { useMode } from '../base/mode.ts';
import { dayText } from '../parts/words.ts';

Chart.register(ScatterController, PointElement, LinearScale, LogarithmicScale, Tooltip);
Chart.defaults.font.family = "'Archivo Variable', sans-serif";

const yearOf = (date: string): number => {
  const [year = 2000, month = 7, day = 1] = date.split('-').map(Number);
  return year + (month - 1) / 12 + (day - 1) / 365;
};

export function PriceChart({ worth }: { worth: EstimateAnswer }) {
  const { mode } = useMode();
  const c = PALETTES[mode];
  const rows = useMemo(
    () =>
      worth.comparables
        .filter((row) => row.adjusted && row.converted)
        .sort((a, b) => (a.saleDate < b.saleDate ? -1 : 1)),
    [worth],
  );
  // the sale in hand, walked to with the arrows
  const [at, setAt] = useState<number>();
  const held = at === undefined ? undefined : rows[at];
  const data = useMemo(() => {
    const heaviest = Math.max(1e-9, ...rows.map((r) => r.weight));
    const points = (of: 'adjusted' | 'converted') =>
      rows.map((r) => ({ x: yearOf(r.saleDate), y: Number(r[of]?.amount) }));
    return {
      datasets: [
        {
          label: 'for this piece',
          data: points('adjusted'),
          pointRadius: rows.map((r) => 3 + 7 * Math.sqrt(r.weight / heaviest)),
          backgroundColor: `${c.accent}cc`,
          borderColor: c.accent,
        },
        {
          label: 'paid',
          data: points('converted'),
          pointRadius: 3,
          backgroundColor: 'transparent',
          borderColor: c.soft,
        },
      ],
    };
  }, [rows, c]);
  const band = useMemo(
    () => ({
      id: 'band',
      beforeDatasetsDraw(chart: Chart) {
        const y = chart.scales.y;
        if (!y) return;
        const { left, right } = chart.chartArea;
        const [low, middle, high] = [worth.low, worth.estimate, worth.high].map((m) =>
          y.getPixelForValue(Number(m.amount)),
        );
        const { ctx } = chart;
        ctx.save();
        ctx.fillStyle = `${c.accent}1f`;
        ctx.fillRect(left, high ?? 0, right - left, (low ?? 0) - (high ?? 0));
        ctx.strokeStyle = c.accent;
        ctx.beginPath();
        ctx.moveTo(left, middle ?? 0);
        ctx.lineTo(right, middle ?? 0);
        ctx.stroke();
        ctx.restore();
      },
    }),
    [worth, c],
  );
  const ring = useMemo(
    () => ({
      id: 'ring',
      afterDatasetsDraw(chart: Chart) {
        const { x, y } = chart.scales;
        if (!held || !x || !y) return;
        const { ctx } = chart;
        const across = x.getPixelForValue(yearOf(held.saleDate));
        const [own, paid] = [held.adjusted, held.converted].map((m) => y.getPixelForValue(Number(m?.amount)));
        ctx.save();
        ctx.strokeStyle = c.ink;
        ctx.lineWidth = 2;
        ctx.beginPath();
        ctx.moveTo(across, paid ?? 0);
        ctx.lineTo(across, own ?? 0);
        ctx.stroke();
        ctx.beginPath();
        ctx.arc(across, own ?? 0, 12, 0, 2 * Math.PI);
        ctx.stroke();
        ctx.restore();
      },
    }),
    [held, c],
  );
  const currency = worth.estimate.currency;
  const walk = (key: string): boolean => {
    const last = rows.length - 1;
    const next = {
      ArrowRight: at === undefined ? 0 : Math.min(last, at + 1),
      ArrowLeft: at === undefined ? last : Math.max(0, at - 1),
      Home: 0,
      End: last,
    }[key];
    if (key === 'Escape') setAt(undefined);
    if (next === undefined || last < 0) return false;
    setAt(next);
    return true;
  };
  return (
    <>
      <div
        style={{ height: 240, position: 'relative' }}
        tabIndex={0}
        role="group"
        aria-label="Sales over time: the arrows walk from sale to sale"
        onKeyDown={(e) => {
          if (walk(e.key)) e.preventDefault();
        }}
        onBlur={() => setAt(undefined)}
      >
        <Scatter
          key={mode + worth.estimate.amount + String(at)}
          aria-label={`Sales over time; the estimate is ${formatMoney(worth.estimate)} between ${formatMoney(worth.low)} and ${formatMoney(worth.high)}. The same figures stand in the table beside it.`}
          role="img"
          data={data}
          plugins={[band, ring]}
          options={{
            animation: false,
            maintainAspectRatio: false,
            plugins: {
              tooltip: {
                callbacks: {
                  label: (item) =>
                    `${item.dataset.label ?? ''}: ${formatMoney({ amount: String(item.parsed.y), currency })}`,
                },
              },
            },
            scales: {
              x: {
                type: 'linear',
                grid: { color: c.hair },
                ticks: { color: c.soft, callback: (v) => String(v), stepSize: 1, precision: 0 },
                border: { color: c.ink },
              },
              y: {
                type: 'logarithmic',
                grid: { color: c.hair },
                ticks: {
                  color: c.soft,
                  maxTicksLimit: 7,
                  callback: (v) => formatMoney({ amount: String(v), currency }, { whole: true }),
                },
                border: { color: c.ink },
              },
            },
          }}
        />
      </div>
      <p className="soft" style={{ fontSize: 12 }} aria-live="polite">
        {held
          ? `${dayText(held.saleDate)}, ${held.venue}: ${formatMoney(held.paid)} was ${held.priceKind === 'sold' ? 'paid' : held.priceKind}; for this piece ${held.adjusted ? formatMoney(held.adjusted) : ''}; weighs ${(100 * held.weight).toFixed(1)} %`
          : 'Filled: what each sale comes to for this piece, larger where it weighs more. Hollow: what was paid. Band: the range. The arrows walk from sale to sale.'}
      </p>
    </>
  );
}
