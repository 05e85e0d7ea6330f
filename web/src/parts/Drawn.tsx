/** A stamp as it is struck, on its tang: lettering really drawn so, the counted signs in their arrangement. */
import { useMemo } from 'react';
import { drawStampOnTang, spokenStamp, stampOf } from '@jutbank/core/drawing';
import type { Code, DateCode, Mark } from '@jutbank/core/reference';
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

/** The counted signs as they stand so far: how many, in which arrangement. */
export function signsOf(
  code: DateCode,
  reads: Readonly<Record<string, string | number>>,
): CountedSigns | undefined {
  const counted = code.reads.find((r) => r.type === 'count' && reads[r.id] !== undefined);
  const arranged = code.reads.find((r) => r.type === 'choice' && reads[r.id] !== undefined);
  return counted
    ? { count: Number(reads[counted.id]), where: arranged ? String(reads[arranged.id]) : 'below' }
    : undefined;
}
