/** A small part of a drawing, enlarged beside it: what one would miss at the size of a card. */
import type { Drawing, Frame } from '@jutbank/core/drawing';
import { PieceDrawing } from './PieceDrawing.tsx';

const WIDTH = 62;
const HEIGHT = 50;

export function Inset({ drawing, frame }: { drawing: Drawing; frame: Frame }) {
  return (
    <span className="inset" aria-hidden>
      <PieceDrawing drawing={{ ...drawing, ...frame }} width={WIDTH} height={HEIGHT} label="" />
    </span>
  );
}
