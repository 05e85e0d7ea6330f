/** A photograph and the form it is, drawn to the photograph's own scale: under each other, or one laid over the other. */
import { Button, Slider } from '@mui/material';
import { useState, type KeyboardEvent, type PointerEvent } from 'react';
import { cardView, drawPiece, type DrawingRecipe, type View } from '@jutbank/core/drawing';
import { formatQuantity } from '@jutbank/core/units';
import type { PictureRecord } from '@jutbank/contract/pieces';
import { PieceDrawing } from '../parts/PieceDrawing.tsx';
import { Roving } from '../parts/Roving.tsx';
import { useWidth } from '../parts/useWidth.ts';

const VIEW_WORDS: Partial<Record<View, string>> = {
  'mark-side': 'Mark side',
  'pile-side': 'Pile side',
  open: 'Open',
  tang: 'Tang',
};
/** px at most, and by how many an arrow key moves the drawing */
const WIDEST = 900;
const STEP = 4;

export function BesideForm({
  picture,
  recipe,
}: {
  picture: PictureRecord & { readonly mmPerPixel: number };
  recipe: DrawingRecipe;
}) {
  const [box, width] = useWidth<HTMLDivElement>(WIDEST);
  const [view, setView] = useState<View>(cardView(recipe));
  const [over, setOver] = useState(false);
  const [share, setShare] = useState(55);
  const [flipped, setFlipped] = useState(false);
  const [turned, setTurned] = useState(0);
  const [at, setAt] = useState({ x: 0, y: 0 });
  const [held, setHeld] = useState<{ x: number; y: number }>();
  const drawing = drawPiece(recipe, view);
  const perMm = width / (picture.width * picture.mmPerPixel);
  const shown = <PieceDrawing drawing={drawing} width={width} scale={perMm} />;
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
  const laid = `translate(calc(-50% + ${at.x}px), calc(-50% + ${at.y}px)) rotate(${turned}deg) scaleX(${flipped ? -1 : 1})`;
  return (
    <div className="beside-form" ref={box}>
      <div className="beside-acts">
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
              aria-label="How much of the drawing shows"
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
        <img
          src={`/api/v1/pictures/${picture.hash}/full`}
          alt={picture.caption || 'Picture of the piece'}
          style={{ width }}
          draggable={false}
        />
        {over && (
          <div
            className="laid"
            role="group"
            aria-label="The drawing: arrow keys move it"
            tabIndex={0}
            style={{ opacity: share / 100, transform: laid }}
            onKeyDown={keys}
            onPointerDown={(e) => {
              setHeld({ x: e.clientX - at.x, y: e.clientY - at.y });
              e.currentTarget.setPointerCapture(e.pointerId);
            }}
            onPointerMove={move}
            onPointerUp={() => setHeld(undefined)}
          >
            {shown}
          </div>
        )}
      </div>
      {!over && <div style={{ transform: `scaleX(${flipped ? -1 : 1})` }}>{shown}</div>}
      <p className="soft">
        One scale: the picture shows {formatQuantity(picture.width * picture.mmPerPixel, 'length', 1)} across;
        the form is drawn {formatQuantity(drawing.widthMm, 'length', 0.1)} by{' '}
        {formatQuantity(drawing.heightMm, 'length', 0.1)}.
      </p>
    </div>
  );
}
