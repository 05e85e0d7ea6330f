/** What a choice looks like: its part cut out of the piece, drawn as the choice would have it. */
import { useMemo } from 'react';
import {
  differingParts,
  drawPiece,
  isSlot,
  readStyles,
  viewThatDiffers,
  type Drawing,
  type DrawingRecipe,
  type SlotName,
} from '@jutbank/core/drawing';
import type { Feature } from '@jutbank/core/reference';
import { PieceDrawing } from '../parts/PieceDrawing.tsx';

/** mm around the part that are shown with it, and the most that is shown along the piece */
const MARGIN = 5;
const WIDEST = 46;
/** px */
const WIDTH = 92;
const HEIGHT = 52;

type Drawn = ReadonlyMap<string, Drawing>;
const NONE: Drawn = new Map();

/** The recipe with other styles, which are then known. */
export function withStyles(recipe: DrawingRecipe, styles: Readonly<Record<string, string>>): DrawingRecipe {
  const slots = Object.keys(styles).filter(isSlot);
  return {
    ...recipe,
    styles: { ...recipe.styles, ...styles },
    known: { ...recipe.known, ...Object.fromEntries(slots.map((slot) => [slot, 'recorded' as const])) },
  };
}

/** Each choice in the view in which they differ, cut to the first part in which they do. */
export function drawnApart(
  choices: readonly { readonly id: string; readonly recipe: DrawingRecipe }[],
): Drawn {
  const view = viewThatDiffers(choices.map((c) => c.recipe));
  if (view === undefined) return NONE;
  const drawings = choices.map(({ id, recipe }) => ({ id, drawing: drawPiece(recipe, view) }));
  const [part] = differingParts(drawings.map((d) => d.drawing));
  const boxes = drawings.flatMap(({ drawing }) =>
    drawing.parts.filter((p) => p.part === part).map((p) => p.box),
  );
  if (boxes.length === 0) return NONE;
  const left = Math.min(...boxes.map((b) => b.left)) - MARGIN;
  const top = Math.min(...boxes.map((b) => b.top)) - MARGIN;
  const widthMm = Math.min(WIDEST, Math.max(...boxes.map((b) => b.right)) + MARGIN - left);
  const heightMm = Math.max(...boxes.map((b) => b.bottom)) + MARGIN - top;
  return new Map(drawings.map(({ id, drawing }) => [id, { ...drawing, left, top, widthMm, heightMm }]));
}

/** A drawing for each value of a feature; none where one of them cannot be drawn. */
export function useChoiceDrawings(feature: Feature | undefined, recipe: DrawingRecipe | undefined): Drawn {
  return useMemo(() => {
    if (feature?.kind !== 'category' || !recipe) return NONE;
    const styles = (feature.values ?? []).map(({ id }) => ({
      id,
      styles: readStyles(feature, id, recipe.construction),
    }));
    if (styles.some((s) => Object.keys(s.styles).length === 0)) return NONE;
    return drawnApart(styles.map((s) => ({ id: s.id, recipe: withStyles(recipe, s.styles) })));
  }, [feature, recipe]);
}
/** A drawing for each style of a slot. */
export const useStyleDrawings = (slot: SlotName, styles: readonly string[], recipe: DrawingRecipe): Drawn =>
  useMemo(
    () => drawnApart(styles.map((style) => ({ id: style, recipe: withStyles(recipe, { [slot]: style }) }))),
    [slot, styles, recipe],
  );

export function ChoiceDrawing({ drawing }: { drawing: Drawing }) {
  return (
    <span className="choice-drawing">
      <PieceDrawing drawing={drawing} width={WIDTH} height={HEIGHT} label="" />
    </span>
  );
}
