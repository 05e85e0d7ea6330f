/** One picture large: walked through by arrow keys, and put into the frame in which it goes out. */
import { Button, Dialog, Slider } from '@mui/material';
import { useEffect, useId, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import type { DrawingRecipe } from '@jutbank/core/drawing';
import type { PictureRecord, PieceSheet } from '@jutbank/contract/pieces';
import { frameAt, wholeFrame, type Frame } from '@jutbank/core/imaging';
import { Beside } from './Beside.tsx';
import { isScaled } from './scaled.ts';

/** A step of the frame by an arrow key, as a share of the picture. */
const STEP = 0.01;

export function PictureView({
  sheet,
  at,
  recipe,
  disabled,
  onTurn,
  onFrame,
  onClose,
}: {
  sheet: PieceSheet;
  at: number;
  /** the form it is or may be */
  recipe: DrawingRecipe;
  disabled: boolean;
  onTurn: (at: number) => void;
  onFrame: (picture: PictureRecord, frame: Frame | null) => void;
  onClose: () => void;
}) {
  const heading = useId();
  const { pictures } = sheet;
  const picture = pictures[at];
  if (!picture) return null;
  const turn = (by: -1 | 1) => onTurn((at + by + pictures.length) % pictures.length);
  return (
    <Dialog open maxWidth="lg" fullWidth onClose={onClose} aria-labelledby={heading}>
      <Shown
        key={picture.id}
        heading={heading}
        sheet={sheet}
        picture={picture}
        recipe={recipe}
        disabled={disabled}
        place={`${at + 1} of ${pictures.length}`}
        onTurn={turn}
        onFrame={(frame) => onFrame(picture, frame)}
        onClose={onClose}
      />
    </Dialog>
  );
}

function Shown({
  heading,
  sheet,
  picture,
  recipe,
  disabled,
  place,
  onTurn,
  onFrame,
  onClose,
}: {
  heading: string;
  sheet: PieceSheet;
  picture: PictureRecord;
  recipe: DrawingRecipe;
  disabled: boolean;
  place: string;
  onTurn: (by: -1 | 1) => void;
  onFrame: (frame: Frame | null) => void;
  onClose: () => void;
}) {
  const [frame, setFrame] = useState<Frame>();
  const [beside, setBeside] = useState(false);
  const grip = useRef<{ readonly x: number; readonly y: number; readonly from: Frame }>(undefined);
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => box.current?.focus(), []);
  const share = (e: PointerEvent) => {
    const size = box.current?.getBoundingClientRect();
    return size ? { x: e.clientX / size.width, y: e.clientY / size.height } : { x: 0, y: 0 };
  };
  const to = (x: number, y: number) => frame && setFrame(frameAt(picture, { x, y, width: frame.width }));
  const keys = (e: KeyboardEvent) => {
    const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[e.key];
    if (!by) return;
    const [x = 0, y = 0] = by;
    if (frame) to(frame.x + x * STEP, frame.y + y * STEP);
    else if (x !== 0) onTurn(x < 0 ? -1 : 1);
    else return;
    e.preventDefault();
  };
  return (
    <div className="pictureview">
      {beside && isScaled(picture) ? (
        <Beside sheet={sheet} picture={picture} recipe={recipe} />
      ) : (
        <div
          ref={box}
          // the picture itself takes the arrow keys: with a frame they move it, without one they turn to the next
          className="framing"
          role="group"
          aria-label={frame ? 'The frame: arrow keys move it' : 'Arrow keys turn to the next picture'}
          tabIndex={0}
          onKeyDown={keys}
          onPointerDown={(e) => {
            if (!frame) return;
            grip.current = { ...share(e), from: frame };
            e.currentTarget.setPointerCapture(e.pointerId);
          }}
          onPointerMove={(e) => {
            const held = grip.current;
            if (!held) return;
            const now = share(e);
            to(held.from.x + now.x - held.x, held.from.y + now.y - held.y);
          }}
          onPointerUp={() => (grip.current = undefined)}
        >
          <img
            src={`/api/v1/pictures/${frame ? picture.hash : picture.shown}/full`}
            alt={picture.caption || 'Picture of the piece'}
            draggable={false}
          />
          {frame && (
            <span
              className="frame"
              style={{
                left: `${100 * frame.x}%`,
                top: `${100 * frame.y}%`,
                width: `${100 * frame.width}%`,
                height: `${100 * frame.height}%`,
              }}
            />
          )}
        </div>
      )}
      <div className="pictureview-acts">
        <b id={heading}>{picture.caption || 'Without a caption'}</b>
        <span className="soft">
          {place}, <span className="num">{`${picture.width} × ${picture.height}`}</span>
          {picture.frame && ', framed'}
          {picture.mmPerPixel !== null && ', with a scale bar'}
        </span>
        <span className="grow" />
        {frame ? (
          <>
            <Slider
              aria-label="Width of the frame"
              size="small"
              min={15}
              max={100}
              value={Math.round(frame.width * 100)}
              onChange={(_, n) =>
                setFrame(frameAt(picture, { x: frame.x, y: frame.y, width: Number(n) / 100 }))
              }
            />
            <Button
              variant="contained"
              onClick={() => {
                onFrame(frame);
                setFrame(undefined);
              }}
            >
              Keep the frame
            </Button>
            <Button onClick={() => setFrame(undefined)}>Leave it</Button>
          </>
        ) : (
          <>
            {isScaled(picture) && (
              <Button onClick={() => setBeside(!beside)}>
                {beside ? 'The picture alone' : 'Beside its form, or another'}
              </Button>
            )}
            {!disabled && !beside && (
              <Button onClick={() => setFrame(picture.frame ?? wholeFrame(picture))}>Frame it</Button>
            )}
            {!disabled && picture.frame && <Button onClick={() => onFrame(null)}>All of it</Button>}
            <Button
              component="a"
              href={`/api/v1/pictures/${picture.hash}/full`}
              target="_blank"
              rel="noreferrer"
            >
              As it was taken
            </Button>
            <Button onClick={onClose}>Close</Button>
          </>
        )}
      </div>
    </div>
  );
}
