/** A piece drawn as it was found: what is gone of a blade is gone, and what was exchanged says so. */
import type { Finding } from '../../condition/index.ts';
import { drawPiece, type View } from './draw.ts';
import type { BladeRecipe, DrawingRecipe } from './recipe.ts';
import type { Drawing } from './sheet.ts';
import { foundOn } from './spoken.ts';

type Told = Pick<Finding, 'part' | 'defect' | 'measure'>;

/**
 * Only a loss that was measured is drawn: the words for how bad it is tell no share. Of several on one blade the worst
 * counts, as each is a share of the blade when new.
 */
export function drawAsFound(recipe: DrawingRecipe, findings: readonly Told[], view: View): Drawing {
  const drawing = drawPiece(
    { ...recipe, blades: recipe.blades.map((blade, i) => worn(blade, i + 1, findings)) },
    view,
  );
  const exchanged = findings.filter((f) => f.defect === 'replaced');
  if (exchanged.length === 0) return drawing;
  return {
    ...drawing,
    parts: drawing.parts.map((part) =>
      exchanged.some((f) => foundOn(f.part, part.part)) ? { ...part, state: 'exchanged' } : part,
    ),
  };
}

/** Less than this is left of no blade that is still one. */
const LEAST_LEFT = 0.2;

function worn(blade: BladeRecipe, number: number, findings: readonly Told[]): BladeRecipe {
  // a blade without a number is the first
  const losses = findings.flatMap(({ part, defect, measure }) =>
    defect === 'blade-loss' && measure != null && Number(part.split(':')[1] ?? 1) === number
      ? [measure / 100]
      : [],
  );
  return losses.length === 0 ? blade : { ...blade, fullness: Math.max(LEAST_LEFT, 1 - Math.max(...losses)) };
}
