/** Measuring from a picture: scale by two clicks or a card, lengths, the blade's outline and what it has lost. */
import { TextInput } from '../parts/fields/TextInput.tsx';
import { Button, ButtonBase } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useMemo, useRef, useState } from 'react';
import type { Finding } from '@jutbank/core/condition';
import {
  measureLine,
  measureOutline,
  planeFromCard,
  planeFromRule,
  simplified,
  type Comparison,
  type Point,
} from '@jutbank/core/imaging';
import type { PieceSheet, PictureRecord } from '@jutbank/contract/pieces';
import { Empty, Failed, Loading } from '../base/states.tsx';
import { KeepLength, KeepScale } from './KeepMeasured.tsx';
import { Loss } from './Loss.tsx';
import { rasterOf } from '../parts/measuring/raster.ts';
import { useMeasuring } from '../parts/measuring/useMeasuring.ts';

interface Props {
  readonly sheet: PieceSheet;
  readonly may: boolean;
  /** takes a finding into the inspection; absent while that is closed */
  readonly onFinding: ((finding: Finding) => void) | undefined;
}

export function Measure({ sheet, may, onFinding }: Props) {
  const [chosen, setChosen] = useState<string>();
  const picture = sheet.pictures.find((p) => p.id === chosen) ?? sheet.pictures.at(-1);
  if (!picture)
    return (
      <Empty title="There is no picture yet">
        <p className="soft">
          Take one from straight above, with a rule or a card lying beside the blade, and add it at intake.
        </p>
      </Empty>
    );
  return (
    <div className="stage">
      <div className="surfaces" role="group" aria-label="Picture">
        {sheet.pictures.map((p, i) => (
          <Button
            variant="text"
            key={p.id}
            className="quiet"
            aria-pressed={p === picture}
            onClick={() => setChosen(p.id)}
          >
            {p.caption || `Picture ${i + 1}`}
          </Button>
        ))}
      </div>
      <OnPicture key={picture.id} sheet={sheet} picture={picture} may={may} onFinding={onFinding} />
    </div>
  );
}

/** Places all over the rule or card that gave the scale: what lies there is not the blade. */
function onScale(card: readonly Point[], rule: readonly Point[]): Point[] {
  const corners = card.length === 4 ? card : rule;
  return corners.flatMap((a) =>
    corners.flatMap((b) =>
      Array.from({ length: 40 }, (_, i) => ({
        x: a.x + ((b.x - a.x) * i) / 39,
        y: a.y + ((b.y - a.y) * i) / 39,
      })),
    ),
  );
}

/** The outline as the reference takes it, to be copied into a pattern: along from its end, then down. */
function OutlineInMm({ laid }: { laid: readonly Point[] }) {
  const [turned, setTurned] = useState(false);
  const length = Math.max(...laid.map((p) => p.x));
  const lines = simplified(laid, OUTLINE_TOLERANCE_MM).map(({ x, y }) =>
    [turned ? length - x : x, turned ? -y : y].map((n) => n.toFixed(1)).join(' '),
  );
  return (
    <details style={{ marginBottom: 8 }}>
      <summary className="soft">In millimetres, for the outline of a pattern</summary>
      <TextInput
        label="A point to a line"
        why="The tang of a blade, or the butt of a handle, comes first; the back is above."
        mono
        readOnly
        rows={4}
        maxRows={8}
        value={lines.join('\n')}
        onChange={() => undefined}
      />
      <Button variant="text" className="quiet" aria-pressed={turned} onClick={() => setTurned(!turned)}>
        Turn it round
      </Button>
    </details>
  );
}
const OUTLINE_TOLERANCE_MM = 0.15;

type Tool = 'rule' | 'card' | 'line' | 'region' | 'drag';
const NEEDED: Record<Exclude<Tool, 'drag'>, number> = { rule: 2, card: 4, line: 2, region: 2 };
const SAY: Record<Exclude<Tool, 'drag'>, readonly string[]> = {
  rule: ['Click one mark of the rule.', 'Click the other mark.'],
  card: ['Click a corner of the card.', 'The next corner, going round.', 'The third.', 'And the last.'],
  line: ['Click where it begins.', 'Click where it ends.'],
  region: ['Click one corner of the part.', 'Click the corner opposite.'],
};

function OnPicture({ sheet, picture, may, onFinding }: Props & { picture: PictureRecord }) {
  const raster = useQuery({
    queryKey: ['raster', picture.hash],
    queryFn: () => rasterOf(picture.hash),
    staleTime: Infinity,
    gcTime: 30_000,
  });
  const [tool, setTool] = useState<Tool>('rule');
  const [clicks, setClicks] = useState<readonly Point[]>([]);
  const [rule, setRule] = useState<readonly Point[]>([]);
  const [card, setCard] = useState<readonly Point[]>([]);
  const [between, setBetween] = useState('50');
  const [lines, setLines] = useState<readonly (readonly [Point, Point])[]>([]);
  const [region, setRegion] = useState<readonly Point[]>([]);
  const [outline, setOutline] = useState<readonly Point[]>([]);
  const [comparison, setComparison] = useState<Comparison>();
  const measuring = useMeasuring();
  const drawing = useRef<SVGSVGElement>(null);
  const dragged = useRef<number>(undefined);
  const made =
    card.length === 4
      ? planeFromCard(card)
      : rule[0] && rule[1]
        ? planeFromRule(rule[0], rule[1], Number(between.replace(',', '.')))
        : undefined;
  const plane = made?.ok ? made.value : undefined;
  const measures = useMemo(
    () => (plane && outline.length > 2 ? measureOutline(outline.map(plane.toMm)) : undefined),
    [outline, plane],
  );
  if (raster.isPending) return <Loading />;
  if (raster.isError) return <Failed error={raster.error} retry={() => void raster.refetch()} />;

  const at = (e: { clientX: number; clientY: number }): Point => {
    const box = drawing.current?.getBoundingClientRect();
    return box
      ? {
          x: ((e.clientX - box.left) / box.width) * picture.width,
          y: ((e.clientY - box.top) / box.height) * picture.height,
        }
      : { x: 0, y: 0 };
  };
  const take = (next: Tool) => {
    setTool(next);
    setClicks([]);
  };
  const click = (p: Point) => {
    if (tool === 'drag') return;
    const next = [...clicks, p];
    if (next.length < NEEDED[tool]) {
      setClicks(next);
      return;
    }
    setClicks([]);
    const [a, b] = next;
    if (tool === 'card') setCard(next);
    if (tool === 'rule') {
      setRule(next);
      setCard([]);
    }
    if (tool === 'line' && a && b) setLines([...lines, [a, b]]);
    if (tool === 'region') setRegion(next);
    if (tool !== 'line') setTool('line');
  };
  const within = () => {
    const [a, b] = region;
    const whole = { x: 0, y: 0, width: raster.data.width, height: raster.data.height };
    if (!a || !b) return whole;
    const x = Math.max(0, Math.round(Math.min(a.x, b.x)));
    const y = Math.max(0, Math.round(Math.min(a.y, b.y)));
    return {
      x,
      y,
      width: Math.min(whole.width, Math.round(Math.max(a.x, b.x))) - x,
      height: Math.min(whole.height, Math.round(Math.max(a.y, b.y))) - y,
    };
  };
  const knob = picture.width / 160;
  const path = (points: readonly Point[]) => points.map((p) => `${p.x},${p.y}`).join(' ');
  return (
    <div className="measuring">
      <section aria-label="The picture">
        <div className="surface measured">
          <img
            src={`/api/v1/pictures/${picture.hash}/full`}
            alt={picture.caption || 'Picture of the piece'}
          />
          <svg
            ref={drawing}
            viewBox={`0 0 ${picture.width} ${picture.height}`}
            role="application"
            aria-label="Click on the picture to measure"
            onClick={(e) => click(at(e))}
            onPointerMove={(e) => {
              const i = dragged.current;
              if (i !== undefined) setOutline(outline.map((p, k) => (k === i ? at(e) : p)));
            }}
            onPointerUp={() => (dragged.current = undefined)}
          >
            {card.length === 4 && <polygon points={path(card)} className="scaleline" />}
            {card.length === 0 && rule.length === 2 && <polyline points={path(rule)} className="scaleline" />}
            {region.length === 2 && <rect {...within()} className="regionline" />}
            {lines.map(([a, b], i) => (
              <g key={i}>
                <polyline points={path([a, b])} className="measureline" />
                <text
                  x={(a.x + b.x) / 2}
                  y={(a.y + b.y) / 2 - knob * 2}
                  fontSize={knob * 5}
                  textAnchor="middle"
                >
                  {i + 1}
                </text>
              </g>
            ))}
            {outline.length > 2 && <polygon points={path(outline)} className="outlineline" />}
            {tool === 'drag' &&
              outline.map((p, i) => (
                <circle
                  key={i}
                  cx={p.x}
                  cy={p.y}
                  r={knob * 1.6}
                  className="knob"
                  onPointerDown={(e) => {
                    e.currentTarget.ownerSVGElement?.setPointerCapture(e.pointerId);
                    dragged.current = i;
                    setComparison(undefined);
                  }}
                />
              ))}
            {clicks.map((p, i) => (
              <circle key={i} cx={p.x} cy={p.y} r={knob} className="clicked" />
            ))}
          </svg>
        </div>
        <p className="soft" role="status">
          {tool === 'drag' ? 'Drag a point of the outline where it is wrong.' : SAY[tool][clicks.length]}
        </p>
      </section>
      <section aria-label="Measures">
        <h2 className="sec">Scale</h2>
        <div className="chips">
          <ButtonBase className="chip" aria-pressed={tool === 'rule'} onClick={() => take('rule')}>
            Two marks of a rule
          </ButtonBase>
          <ButtonBase className="chip" aria-pressed={tool === 'card'} onClick={() => take('card')}>
            Corners of a card
          </ButtonBase>
        </div>
        {card.length === 0 && (
          <div style={{ marginTop: 6, maxWidth: 120 }}>
            <TextInput label="Between, mm" inputMode="decimal" value={between} onChange={setBetween} />
          </div>
        )}
        {made && !made.ok && (
          <p className="problem" role="alert">
            {made.error.message}
          </p>
        )}
        {plane ? (
          <p className="soft">
            A pixel is <span className="num">{plane.mmPerPixel.toFixed(4)} mm</span>, sure to{' '}
            <span className="num">{(196 * plane.relative).toFixed(2)} %</span>. The blade must lie as flat as
            the {card.length === 4 ? 'card' : 'rule'}.{' '}
            {may && <KeepScale sheet={sheet} picture={picture} mmPerPixel={plane.mmPerPixel} />}
          </p>
        ) : (
          <p className="soft">Nothing can be measured before the scale is known.</p>
        )}
        <h2 className="sec" style={{ marginTop: 12 }}>
          Lengths
        </h2>
        <ButtonBase
          className="chip"
          disabled={!plane}
          aria-pressed={tool === 'line'}
          onClick={() => take('line')}
        >
          Measure a length
        </ButtonBase>
        {plane &&
          lines.map(([a, b], i) => {
            const { mm, plusMinus } = measureLine(plane, a, b);
            return (
              <div key={i} className="lengthline">
                <span className="num soft">{i + 1}</span>
                <span className="num">
                  {mm.toFixed(1)} ± {plusMinus.toFixed(1)} mm
                </span>
                <KeepLength sheet={sheet} mm={mm} plusMinus={plusMinus} may={may} />
                <Button
                  variant="text"
                  className="quiet"
                  aria-label={`Drop length ${i + 1}`}
                  onClick={() => setLines(lines.filter((_, k) => k !== i))}
                >
                  ×
                </Button>
              </div>
            );
          })}
        <h2 className="sec" style={{ marginTop: 12 }}>
          Blade outline
        </h2>
        <div className="chips">
          <ButtonBase className="chip" aria-pressed={tool === 'region'} onClick={() => take('region')}>
            Only a part of the picture
          </ButtonBase>
          <ButtonBase
            className="chip"
            disabled={!plane || measuring.busy !== undefined}
            onClick={() => {
              setComparison(undefined);
              measuring.findOutline(raster.data, within(), onScale(card, rule), setOutline);
            }}
          >
            Find the outline
          </ButtonBase>
          <ButtonBase
            className="chip"
            disabled={outline.length === 0}
            aria-pressed={tool === 'drag'}
            onClick={() => take(tool === 'drag' ? 'line' : 'drag')}
          >
            Correct it
          </ButtonBase>
        </div>
        {measuring.busy && (
          <div className="progressline" role="status">
            <progress value={measuring.busy.share} max={1} /> {measuring.busy.doing}
            <Button variant="text" className="quiet" onClick={measuring.cancel}>
              Cancel
            </Button>
          </div>
        )}
        {measuring.problem !== undefined && (
          <p className="problem" role="alert">
            {measuring.problem}
          </p>
        )}
        {plane && measures && (
          <>
            <dl className="measuredlist">
              <dt>Length</dt>
              <dd className="num">
                {measures.length.toFixed(1)} ±{' '}
                {(1.96 * plane.relative * measures.length + plane.mmPerPixel).toFixed(1)} mm
                <KeepLength
                  sheet={sheet}
                  mm={measures.length}
                  plusMinus={1.96 * plane.relative * measures.length + plane.mmPerPixel}
                  may={may}
                />
              </dd>
              <dt>Greatest height</dt>
              <dd className="num">{measures.height.toFixed(1)} mm</dd>
              <dt>Area</dt>
              <dd className="num">{measures.area.toFixed(0)} mm²</dd>
              <dt>Height at ten stations</dt>
              <dd className="num">{measures.stations.map((s) => s.height.toFixed(1)).join(' · ')} mm</dd>
            </dl>
            <OutlineInMm laid={measures.laid} />
            <Loss
              sheet={sheet}
              picture={picture}
              outline={outline}
              measured={outline.map(plane.toMm)}
              measuring={measuring}
              comparison={comparison}
              onCompared={setComparison}
              onFinding={onFinding}
            />
          </>
        )}
      </section>
    </div>
  );
}
