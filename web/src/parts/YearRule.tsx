/** The year rule: a steel rule whose ticks are years, windows as bars above it, floor and ceiling as stops. */
import {
  addMonths,
  asDay,
  calendarOf,
  dayOf,
  hullOf,
  periodOf,
  spanInWords,
  type Span,
} from '@jutbank/core/dates';
import { useWidth } from './useWidth.ts';
import './drawn.css';

export interface RuleBar {
  readonly label: string;
  readonly source?: string;
  readonly strict: readonly string[];
  readonly lenient: readonly string[];
  readonly binds?: 'floor' | 'ceiling' | 'both' | undefined;
  readonly setAside?: boolean;
}
export interface YearRuleProps {
  readonly core: string | undefined;
  readonly outer?: string | undefined;
  readonly bars?: readonly RuleBar[];
  /** yearly strength 0–1 drawn above the ticks */
  readonly strip?: readonly { year: number; strength: number }[];
  readonly years?: readonly { year: number; probability: number }[];
  readonly label: string;
}

/** px, as wide as it is ever drawn; its words keep their size however narrow it gets */
const WIDEST = 1200;
const EDGE = 8;
const BAR = 27;
/** height of the years under the bars */
const AXIS = 34;
/** With more bars than these the years stay at the window's foot while the bars go by. */
const MOST_IN_SIGHT = 12;
/** px; a rule narrower than this names its tallest ticks only */
const NARROW = 420;
/** How wide a letter of a bar's words is, about, px. */
const LETTER = 6.2;

export const spansOf = (texts: readonly string[]): Span[] => texts.flatMap((text) => periodOf(text).strict);

export function YearRule({ core, outer, bars = [], strip, years, label }: YearRuleProps) {
  const coreSpan = core === undefined || core === '../..' ? undefined : hullOf(spansOf([core]));
  const outerSpan = outer === undefined || outer === '../..' ? undefined : hullOf(spansOf([outer]));
  const [box, width] = useWidth<HTMLDivElement>(WIDEST);
  const { from, to } = extent([coreSpan, outerSpan], bars, strip, years);
  const x = (day: number) =>
    EDGE + ((Math.min(to, Math.max(from, day)) - from) / (to - from)) * (width - 2 * EDGE);
  const top = bars.length * BAR + (strip || years ? 26 : 0) + 6;
  const ends = (span: Span | undefined) => span && { left: x(span.from), right: x(span.to + 1) };
  const bracket = ends(coreSpan);
  const mostLikely = Math.max(1e-9, ...(years ?? []).map((y) => y.probability));
  const stops = (from: number, to: number) =>
    bracket && (
      <path
        d={`M${bracket.left} ${from}V${to}M${bracket.right} ${from}V${to}`}
        stroke="var(--accent)"
        strokeWidth="1.2"
      />
    );
  return (
    <div ref={box} className={bars.length > MOST_IN_SIGHT ? 'year-rule long' : 'year-rule'}>
      <svg viewBox={`0 0 ${width} ${top}`} width={width} height={top} role="img" aria-label={label}>
        <defs>
          <pattern
            id="soft-days"
            width="4"
            height="4"
            patternUnits="userSpaceOnUse"
            patternTransform="rotate(45)"
          >
            <path d="M0 0v4" stroke="var(--ink)" strokeWidth="1.3" />
          </pattern>
        </defs>
        {[
          { span: ends(outerSpan), opacity: 0.07 },
          { span: bracket, opacity: 0.14 },
        ].map(
          ({ span, opacity }) =>
            span && (
              <rect
                key={opacity}
                x={span.left}
                y="2"
                width={Math.max(1.5, span.right - span.left)}
                height={top - 4}
                fill="var(--accent)"
                opacity={opacity}
              />
            ),
        )}
        {bars.map((bar, i) => (
          <Bar key={bar.label} bar={bar} y={i * BAR} x={x} width={width} />
        ))}
        {years?.map((y) => {
          const h = (22 * y.probability) / mostLikely;
          return (
            <rect
              key={y.year}
              x={x(dayOf(y.year))}
              width={Math.max(0.8, x(dayOf(y.year + 1)) - x(dayOf(y.year)) - 0.6)}
              y={top - 2 - h}
              height={h}
              fill="var(--accent)"
              opacity="0.55"
            />
          );
        })}
        {strip?.map((y) => (
          <rect
            key={y.year}
            x={x(dayOf(y.year))}
            width={Math.max(0.8, x(dayOf(y.year + 1)) - x(dayOf(y.year)))}
            y={top - 2 - 20 * y.strength}
            height={Math.max(0.6, 20 * y.strength)}
            fill="var(--purple)"
            opacity={0.35 + 0.6 * y.strength}
          />
        ))}
        {stops(2, top)}
      </svg>
      <svg className="years" viewBox={`0 0 ${width} ${AXIS}`} width={width} height={AXIS} aria-hidden>
        {stops(0, AXIS - 4)}
        <Ticks from={from} to={to} x={x} width={width} />
      </svg>
    </div>
  );
}

function Bar({ bar, y, x, width }: { bar: RuleBar; y: number; x: (day: number) => number; width: number }) {
  const letters = Math.floor((width - 2 * EDGE) / LETTER);
  // the source gives way to the name
  const fits = bar.label.length + (bar.source?.length ?? 0) + 2 <= letters;
  const strict = spansOf(bar.strict);
  const lenient = spansOf(bar.lenient);
  const dim = bar.setAside ? 0.16 : bar.binds ? 1 : 0.4;
  const rect = (span: Span, fill: string, opacity: number, key: string) => (
    <rect
      key={key}
      x={x(span.from)}
      y={y + 17}
      width={Math.max(1, x(span.to + 1) - x(span.from))}
      height="7"
      fill={fill}
      opacity={opacity}
    />
  );
  const first = strict[0];
  const last = strict.at(-1);
  return (
    <g>
      <text
        x={EDGE}
        y={y + 13}
        className="rule-label"
        textDecoration={bar.setAside ? 'line-through' : undefined}
      >
        {bar.label.length <= letters ? bar.label : `${bar.label.slice(0, letters - 1)}…`}
      </text>
      {!fits && <title>{[bar.label, bar.source].filter(Boolean).join(', ')}</title>}
      {bar.source !== undefined && fits && (
        <text x={width - EDGE} y={y + 13} className="rule-source" textAnchor="end">
          {bar.source}
        </text>
      )}
      {lenient.map((span, i) => rect(span, 'url(#soft-days)', 0.8 * dim + 0.2, `l${i}`))}
      {strict.map((span, i) => rect(span, 'var(--sheet)', 1, `b${i}`))}
      {strict.map((span, i) => rect(span, 'var(--ink)', dim, `s${i}`))}
      {first && (bar.binds === 'floor' || bar.binds === 'both') && (
        <path d={`M${x(first.from)} ${y + 15}v11`} stroke="var(--accent)" strokeWidth="3" />
      )}
      {last && (bar.binds === 'ceiling' || bar.binds === 'both') && (
        <path d={`M${x(last.to + 1)} ${y + 15}v11`} stroke="var(--accent)" strokeWidth="3" />
      )}
    </g>
  );
}

function Ticks({
  from,
  to,
  x,
  width,
}: {
  from: number;
  to: number;
  x: (day: number) => number;
  width: number;
}) {
  const first = calendarOf(asDay(Math.ceil(from))).year;
  const last = calendarOf(asDay(Math.floor(to))).year;
  const span = last - first;
  const step = span > 160 ? 20 : span > 70 ? 10 : 5;
  const years = Array.from({ length: span + 1 }, (_, i) => first + i).filter(
    (year) => span <= 90 || year % (step / 5) === 0,
  );
  return (
    <g>
      <path d={`M0 1H${width}`} stroke="var(--ink)" strokeWidth="1.6" />
      {years.map((year) => {
        const at = x(dayOf(year));
        const major = year % (step * 2) === 0;
        const medium = year % step === 0;
        return (
          <g key={year}>
            <path
              d={`M${at} 1v${major ? 16 : medium ? 11 : 6}`}
              stroke="var(--ink)"
              strokeWidth={major ? 1.3 : 0.8}
            />
            {(width < NARROW ? major : medium) && at < width - 34 && (
              <text x={at + 3} y={28} className="rule-year">
                {year}
              </text>
            )}
          </g>
        );
      })}
    </g>
  );
}

function extent(
  spans: readonly (Span | undefined)[],
  bars: readonly RuleBar[],
  strip: YearRuleProps['strip'],
  years: YearRuleProps['years'],
): { from: number; to: number } {
  const days = [
    ...spans.flatMap((s) => (s ? [s.from, s.to] : [])),
    ...bars.flatMap((b) => spansOf(b.strict).flatMap((s) => [s.from, s.to])),
  ].filter(Number.isFinite);
  const inYears = [...(strip ?? []), ...(years ?? [])].map((y) => Number(dayOf(y.year)));
  const all = [...days, ...inYears].map(Number);
  if (all.length === 0) return { from: dayOf(1900), to: dayOf(2030) };
  // the bracket is what is looked at: windows that run on for decades are cut, not allowed to squeeze it
  const heart = spans.find((s) => s && Number.isFinite(s.from) && Number.isFinite(s.to));
  const room = heart && !strip ? Math.max(12 * 365, (heart.to - heart.from) * 2.2) : Infinity;
  const low = heart ? Math.max(Math.min(...all), heart.from - room) : Math.min(...all);
  const high = heart ? Math.min(Math.max(...all), heart.to + room) : Math.max(...all);
  return { from: addMonths(asDay(low), -12), to: addMonths(asDay(Math.max(high, low + 365)), 18) };
}

/** The bracket as a short strip for a slip. */
export function SmallRule({ core, outer }: { core: string; outer: string }) {
  const span = hullOf(spansOf([core]));
  const wide = hullOf(spansOf([outer]));
  if (!span || !wide || !Number.isFinite(span.from) || !Number.isFinite(span.to)) return null;
  const middle = (span.from + span.to) / 2;
  // an outer bracket that is open on a side runs off the strip, it does not stretch it
  const finite = Number.isFinite(wide.from) && Number.isFinite(wide.to) ? wide : span;
  const reach = Math.max(9 * 365, (finite.to - finite.from) * 0.7);
  const x = (day: number) => Math.min(108, Math.max(0, 54 + ((day - middle) / reach) * 54));
  const first = calendarOf(asDay(Math.round(middle - reach))).year;
  const last = calendarOf(asDay(Math.round(middle + reach))).year;
  const step = last - first > 80 ? 10 : last - first > 40 ? 5 : 1;
  return (
    <svg width="108" height="13" viewBox="0 0 108 13" role="img" aria-label={spanInWords(span)}>
      <rect
        x={x(wide.from)}
        y="1"
        width={Math.max(1, x(wide.to) - x(wide.from))}
        height="5"
        fill="var(--accent)"
        opacity="0.25"
      />
      <rect
        x={x(span.from)}
        y="1"
        width={Math.max(2, x(span.to) - x(span.from))}
        height="5"
        fill="var(--accent)"
      />
      <path d="M0 8H108" stroke="var(--ink)" strokeWidth="1" />
      {Array.from({ length: last - first + 1 }, (_, i) => first + i)
        .filter((year) => year % step === 0)
        .map((year) => (
          <path
            key={year}
            d={`M${x(dayOf(year))} 8v${year % 10 === 0 ? 5 : 2.5}`}
            stroke="var(--ink)"
            strokeWidth="0.7"
          />
        ))}
    </svg>
  );
}
