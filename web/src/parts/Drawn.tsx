/** A stamp as it is struck, on its tang: lettering really drawn so, the counted signs in their arrangement. */
import { useMemo } from 'react';
import { drawStampOnTang, spokenStamp, stampOf } from '@jutbank/core/drawing';
import type { Code, Mark } from '@jutbank/core/reference';
import { PieceDrawing } from './PieceDrawing.tsx';
import './drawn.css';

/** Signs counted beside the lettering, where their arrangement puts them. */
export interface CountedSigns {
  readonly count: number;
  /** as the code's arrangement says it: above, below, before, after the name */
  readonly where: string;
}

type Stamp = Pick<Mark, 'lines' | 'lettering' | 'codes'>;
export function MarkDrawing({
  mark,
  width = 104,
  signs,
  codes,
}: {
  mark: Stamp;
  width?: number;
  signs?: CountedSigns | undefined;
  /** whose signs stand on the stamp; without them only counted ones are drawn */
  codes?: readonly Code[];
}) {
  const drawing = useMemo(() => {
    const stamp = stampOf(mark, codes, signs);
    return drawStampOnTang(stamp, spokenStamp(stamp));
  }, [mark, codes, signs]);
  return <PieceDrawing drawing={drawing} width={width} />;
}
