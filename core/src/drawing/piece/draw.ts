/** The drawing of a piece from its recipe: to scale, part by part, a function of the recipe alone. */
import { around, type Box } from '../geometry/path.ts';
import { drawBalisong } from './balisong.ts';
import { drawFromAbove, drawLocking } from './locking.ts';
import { drawMultiTool } from './multiTool.ts';
import { stateOf, type DrawingRecipe } from './recipe.ts';
import { Sheet, type Drawing } from './sheet.ts';
import { CLOSED, drawSlipjoint, OPENED } from './slipjoint.ts';
import { spokenName } from './spoken.ts';
import { drawBayonet } from './bayonet.ts';
import { drawFixed } from './straight.ts';
import { drawTangOn } from './tang.ts';

export const VIEWS = ['mark-side', 'pile-side', 'open', 'from-above', 'tang'] as const;
export type View = (typeof VIEWS)[number];

/**
 * A straight knife is `open` when it is drawn without its sheath or scabbard.
 * @returns widths and places in mm. A folder's handle runs from x = 0 to its closed length; a straight knife's guard
 * stands at x = 0 and its blade runs to minus its length.
 */
export function drawPiece(recipe: DrawingRecipe, view: View): Drawing {
  const sheet = new Sheet();
  if (view === 'tang')
    drawTangOn(
      sheet,
      recipe.stamp,
      stateOf(recipe, 'finish'),
      recipe.styles['property-mark'] ?? 'none',
      stateOf(recipe, 'property-mark'),
    );
  else if (view === 'from-above' && hasLayers(recipe)) drawFromAbove(sheet, recipe);
  else drawSide(sheet, recipe, view);
  return sheet.finish(spokenName(recipe));
}
const hasLayers = ({ construction }: DrawingRecipe) =>
  construction !== 'fixed' && construction !== 'bayonet' && construction !== 'balisong';

function drawSide(sheet: Sheet, recipe: DrawingRecipe, view: View): void {
  const open = view === 'open';
  const stand = open ? OPENED : CLOSED;
  switch (recipe.construction) {
    case 'slipjoint':
      drawSlipjoint(sheet, recipe, stand);
      return;
    case 'multi-tool':
      drawMultiTool(sheet, recipe, stand);
      return;
    case 'locking-folder':
    case 'automatic':
      drawLocking(sheet, recipe, { open, side: view === 'pile-side' ? 'pile' : 'mark' });
      return;
    case 'balisong':
      drawBalisong(sheet, recipe, open);
      return;
    case 'fixed':
      drawFixed(sheet, recipe, !open);
      return;
    case 'bayonet':
      drawBayonet(sheet, recipe, !open);
  }
}

/** How a construction is shown where there is room for one view: a folder by its handle, what locks and what is straight open. */
export const cardView = ({ construction }: Pick<DrawingRecipe, 'construction'>): View =>
  construction === 'slipjoint' || construction === 'multi-tool' ? 'mark-side' : 'open';

const viewsOf = (recipe: DrawingRecipe): View[] => [
  cardView(recipe),
  ...VIEWS.filter((view) => view !== cardView(recipe)),
];
/** The first view in which pieces differ, the card's own before the others; none where they are drawn alike. */
export const viewThatDiffers = (recipes: readonly DrawingRecipe[]): View | undefined =>
  recipes[0] &&
  viewsOf(recipes[0]).find(
    (view) => differingParts(recipes.map((recipe) => drawPiece(recipe, view))).length > 0,
  );

/** The views that show how two or more pieces differ, each something that none before it does. */
export function viewsThatDiffer(recipes: readonly DrawingRecipe[]): View[] {
  const [first] = recipes;
  if (!first) return [];
  const told = new Set<string>();
  return viewsOf(first).filter((view) => {
    const news = differingParts(recipes.map((recipe) => drawPiece(recipe, view))).filter(
      (part) => !told.has(part),
    );
    for (const part of news) told.add(part);
    return news.length > 0;
  });
}
/** Parts whose shapes are not the same on all, or that some do not have. */
export function differingParts(drawings: readonly Drawing[]): string[] {
  const names = [...new Set(drawings.flatMap((d) => d.parts.map((p) => p.part)))];
  return names.filter((name) => {
    const shapes = drawings.map((d) => JSON.stringify(d.parts.find((p) => p.part === name)?.shapes ?? null));
    return new Set(shapes).size > 1;
  });
}

export type Frame = Pick<Drawing, 'left' | 'top' | 'widthMm' | 'heightMm'>;
/** One frame for drawings that lie over each other. */
export function commonFrame(drawings: readonly Frame[]): Frame {
  const left = Math.min(...drawings.map((d) => d.left));
  const top = Math.min(...drawings.map((d) => d.top));
  return {
    left,
    top,
    widthMm: Math.max(...drawings.map((d) => d.left + d.widthMm)) - left,
    heightMm: Math.max(...drawings.map((d) => d.top + d.heightMm)) - top,
  };
}

/** mm; a part that reaches farther is seen at the size of a card */
const SMALL_MM = 14;
const INSET_MARGIN_MM = 1.5;
/**
 * Where drawings differ in small parts alone: the frame of the largest of these, to be shown enlarged beside a card,
 * at which one would miss it. A drawing without the part has the same frame.
 * @returns undefined where they are alike, or differ in something that is seen anyway
 */
export function insetOf(drawings: readonly Drawing[]): Frame | undefined {
  const boxes = differingParts(drawings).map((name) =>
    around(drawings.flatMap((d) => d.parts.filter((p) => p.part === name).map((p) => p.box))),
  );
  const reach = (box: Box) => Math.max(box.right - box.left, box.bottom - box.top);
  if (boxes.length === 0 || boxes.some((box) => reach(box) > SMALL_MM)) return undefined;
  const box = boxes.reduce((a, b) => (reach(b) > reach(a) ? b : a));
  return {
    left: box.left - INSET_MARGIN_MM,
    top: box.top - INSET_MARGIN_MM,
    widthMm: box.right - box.left + 2 * INSET_MARGIN_MM,
    heightMm: box.bottom - box.top + 2 * INSET_MARGIN_MM,
  };
}
