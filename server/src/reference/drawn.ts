/** What a piece is drawn from, in the reference as it stands. */
import type { ReferenceIndex } from '@jutbank/core/bench';
import { anyPattern, recipeOfRecords, type DrawingRecipe, type DrawnAs } from '@jutbank/core/drawing';

export function recipeIn(index: ReferenceIndex, { construction, variant, pattern }: DrawnAs): DrawingRecipe {
  const row = index.variants.get(variant ?? '');
  const { features, marks, codes } = index.contents;
  return recipeOfRecords({
    pattern: row?.pattern ?? index.patterns.get(pattern ?? '') ?? anyPattern(construction),
    variant: row?.variant,
    features,
    marks,
    codes,
  });
}
