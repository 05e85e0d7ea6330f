/**
 * A photograph and what it is held against, at one scale: the form as it is drawn, another photograph, or another
 * piece's. Under each other, or one laid over the other, with their differences in figures.
 */
import { Button, Slider } from '@mui/material';
import { useState, type KeyboardEvent, type PointerEvent, type ReactNode } from 'react';
import { cardView, drawPiece, type DrawingRecipe, type View } from '@jutbank/core/drawing';
import type { Point, Region } from '@jutbank/core/imaging';
import { formatQuantity } from '@jutbank/core/units';
import { inventoryRoutes } from '@jutbank/contract/inventory';
import { pieceRoutes, type PieceSheet } from '@jutbank/contract/pieces';
import { useAnswer } from '../base/answers.ts';
import { Select } from '../parts/fields/choices.tsx';
import { PieceDrawing } from '../parts/PieceDrawing.tsx';
import { Roving } from '../parts/Roving.tsx';
import { useWidth } from '../parts/useWidth.ts';
import { BesideFigures } from './BesideFigures.tsx';
import { Photograph } from './Photograph.tsx';
import { across, isScaled, type Scaled } from './scaled.ts';

const VIEW_WORDS: Partial<Record<View, string>> = {
  'mark-side': 'Mark side',
  'pile-side': 'Pile side',
  open: 'Open',
  tang: 'Tang',
};
/** px at most, and by how many an arrow key moves what is laid over */
const WIDEST = 900;
const STEP = 4;
const FORM = 'form';

export function Beside({
  sheet,
  picture,
  recipe,
}: {
  sheet: PieceSheet;
  picture: Scaled;
  recipe: DrawingRecipe;
}) {
  const [box, width] = useWidth<HTMLDivElement>(WIDEST);
  const [view, setView] = useState<View>(cardView(recipe));
  const [against, setAgainst] = useState<string>(FORM);
  const [over, setOver] = useState(false);
  const [share, setShare] = useState(55);
  const [flipped, setFlipped] = useState(false);
  const [turned, setTurned] = useState(0);
  const own = sheet.pictures.filter(isScaled).filter((p) => p.id !== picture.id);
  const { pieces, other, missing } = useOther(sheet, against, own);
  const [within, setWithin] = useState<Readonly<Record<string, Region | undefined>>>({});
  const [outlines, setOutlines] = useState<Readonly<Record<string, readonly Point[]>>>({});
  const drawing = drawPiece(recipe, view);
  const perMm = width / Math.max(across(picture), other ? across(other) : 0);
  const photograph = (of: Scaled, part: boolean) => (
    <Photograph
      picture={of}
      perMm={perMm}
      within={within[of.id]}
      outline={outlines[of.id]}
      {...(part && {
        onWithin: (box) => {
          setWithin({ ...within, [of.id]: box });
          setOutlines({});
        },
      })}
    />
  );
  const shown = other
    ? photograph(other, !over)
    : against === FORM && <PieceDrawing drawing={drawing} width={width} scale={perMm} />;
  const choices = [
    { value: FORM, label: 'The form, as it is drawn' },
    ...own.map((p) => ({ value: p.id, label: p.caption || 'Another picture of it' })),
    ...pieces.map((p) => ({ value: p.id, label: `${p.stockNumber} ${p.title}` })),
  ];
  return (
    <div className="beside-form" ref={box}>
      <div className="beside-acts">
        <Select
          label="Held against"
          value={against}
          options={choices}
          onChange={(value) => {
            setAgainst(value ?? FORM);
            setOutlines({});
          }}
        />
        {against === FORM && (
          <Roving className="chips" role="group" aria-label="View of the drawing">
            {(Object.keys(VIEW_WORDS) as View[]).map((v) => (
              <button
                key={v}
                type="button"
                className="chip"
                aria-pressed={v === view}
                onClick={() => setView(v)}
              >
                {VIEW_WORDS[v]}
              </button>
            ))}
          </Roving>
        )}
        <Button variant="text" aria-pressed={over} onClick={() => setOver(!over)}>
          {over ? 'Under each other' : 'Lay it over'}
        </Button>
        <Button variant="text" aria-pressed={flipped} onClick={() => setFlipped(!flipped)}>
          Flip it
        </Button>
        {over && (
          <>
            <Slider
              size="small"
              aria-label={other ? 'How much of the other shows' : 'How much of the drawing shows'}
              value={share}
              onChange={(_, n) => setShare(Number(n))}
            />
            <Slider
              size="small"
              aria-label="Turned, degrees"
              min={-15}
              max={15}
              step={0.5}
              value={turned}
              onChange={(_, n) => setTurned(Number(n))}
            />
          </>
        )}
      </div>
      <div className="beside-picture">
        {photograph(picture, true)}
        {over && shown && (
          <Laid
            key={against}
            label={`${other ? 'The other picture' : 'The drawing'}: arrow keys move it`}
            share={share}
            turned={turned}
            flipped={flipped}
          >
            {shown}
          </Laid>
        )}
      </div>
      {missing !== undefined && (
        <p className="problem" role="status">
          {missing}
        </p>
      )}
      {!over && <div style={{ transform: `scaleX(${flipped ? -1 : 1})` }}>{shown}</div>}
      {other && (
        <BesideFigures
          one={picture}
          other={other}
          within={within}
          outlines={outlines}
          onOutlines={setOutlines}
        />
      )}
      <p className="soft">
        One scale: the picture shows {formatQuantity(across(picture), 'length', 1)} across;{' '}
        {other
          ? `the other ${formatQuantity(across(other), 'length', 1)}.`
          : `the form is drawn ${formatQuantity(drawing.widthMm, 'length', 0.1)} by ${formatQuantity(drawing.heightMm, 'length', 0.1)}.`}
      </p>
    </div>
  );
}

/** Pieces of the same pattern, and the picture of the one that was taken. */
function useOther(sheet: PieceSheet, against: string, own: readonly Scaled[]) {
  const { pattern } = sheet.readings.which;
  const kin = useAnswer(
    inventoryRoutes.listRows,
    { query: { limit: 100, ...(pattern !== null && { pattern }) } },
    { enabled: pattern !== null },
  );
  const pieces = (kin.data?.items ?? []).filter((row) => row.id !== sheet.id && row.picture !== null);
  const isPiece = pieces.some((row) => row.id === against);
  const their = useAnswer(pieceRoutes.piece, { params: { id: against } }, { enabled: isPiece });
  const other = isPiece ? their.data?.pictures.find(isScaled) : own.find((p) => p.id === against);
  return {
    pieces,
    other,
    missing:
      isPiece && their.data && !other
        ? `No picture of ${their.data.stockNumber} has a scale: measure one at its condition first.`
        : undefined,
  };
}

/** What is laid over: dragged, or moved by the arrow keys. */
function Laid({
  label,
  share,
  turned,
  flipped,
  children,
}: {
  label: string;
  share: number;
  turned: number;
  flipped: boolean;
  children: ReactNode;
}) {
  const [at, setAt] = useState({ x: 0, y: 0 });
  const [held, setHeld] = useState<{ x: number; y: number }>();
  const move = (e: PointerEvent) => held && setAt({ x: e.clientX - held.x, y: e.clientY - held.y });
  const keys = (e: KeyboardEvent) => {
    const by = { ArrowLeft: [-STEP, 0], ArrowRight: [STEP, 0], ArrowUp: [0, -STEP], ArrowDown: [0, STEP] }[
      e.key
    ];
    if (!by) return;
    e.preventDefault();
    e.stopPropagation();
    setAt({ x: at.x + (by[0] ?? 0), y: at.y + (by[1] ?? 0) });
  };
  return (
    <div
      className="laid"
      role="group"
      aria-label={label}
      tabIndex={0}
      style={{
        opacity: share / 100,
        transform: `translate(calc(-50% + ${at.x}px), calc(-50% + ${at.y}px)) rotate(${turned}deg) scaleX(${flipped ? -1 : 1})`,
      }}
      onKeyDown={keys}
      onPointerDown={(e) => {
        setHeld({ x: e.clientX - at.x, y: e.clientY - at.y });
        e.currentTarget.setPointerCapture(e.pointerId);
      }}
      onPointerMove={move}
      onPointerUp={() => setHeld(undefined)}
    >
      {children}
    </div>
  );
}
