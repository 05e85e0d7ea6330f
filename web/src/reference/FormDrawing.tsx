/** A form drawn as it is recorded, in the view that shows most of it. */
import { cardView, drawPiece, type DrawingRecipe, type View } from '@jutbank/core/drawing';
import { useMemo } from 'react';
import { PieceDrawing, type PieceDrawingProps } from '../parts/PieceDrawing.tsx';

export function FormDrawing({
  recipe,
  view = cardView(recipe),
  ...shown
}: { recipe: DrawingRecipe; view?: View } & Omit<PieceDrawingProps, 'drawing'>) {
  const drawing = useMemo(() => drawPiece(recipe, view), [recipe, view]);
  return <PieceDrawing drawing={drawing} {...shown} />;
}
