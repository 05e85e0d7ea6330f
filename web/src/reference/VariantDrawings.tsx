/** A form in its views, on one rule: as it is carried, open, and its tang. */
import { drawPiece, type DrawingRecipe, type View } from '@jutbank/core/drawing';
import { useMemo } from 'react';
import { PieceDrawing } from '../parts/PieceDrawing.tsx';
import { Rule } from './Rule.tsx';

const TITLES: Partial<Record<View, string>> = {
  'mark-side': 'Mark side',
  'pile-side': 'Pile side',
  open: 'Open',
};
const viewsOf = ({ construction }: DrawingRecipe): View[] => {
  if (construction === 'fixed' || construction === 'bayonet') return ['mark-side'];
  return construction === 'locking-folder' ? ['open', 'pile-side'] : ['mark-side', 'open'];
};
/** px for the views side by side, and the height they may take */
const WIDTH = 1120;
const HEIGHT = 230;
const APART = 36;

export function VariantDrawings({ recipe }: { recipe: DrawingRecipe }) {
  const views = useMemo(
    () => viewsOf(recipe).map((view) => ({ view, drawing: drawPiece(recipe, view) })),
    [recipe],
  );
  const widths = views.reduce((sum, { drawing }) => sum + drawing.widthMm, 0);
  const tallest = Math.max(...views.map(({ drawing }) => drawing.heightMm));
  const perMm = Math.min((WIDTH - APART * views.length) / widths, HEIGHT / tallest, 4.2);
  const assumed = views.some(({ drawing }) => drawing.parts.some((p) => p.state === 'assumed'));
  return (
    <section className="variant-drawn" aria-label="Drawn as it is recorded">
      <div className="views">
        {views.map(({ view, drawing }) => (
          <figure key={view}>
            <PieceDrawing drawing={drawing} scale={perMm} width={WIDTH} />
            <Rule lengthMm={drawing.widthMm} perMm={perMm} />
            <figcaption className="soft">{TITLES[view]}</figcaption>
          </figure>
        ))}
      </div>
      <p className="soft drawn-note">
        Drawn from what is recorded, {perMm.toFixed(1)} pixels to the millimetre
        {assumed ? '; what is dashed nobody recorded, and is drawn as usual.' : '.'}
      </p>
    </section>
  );
}
