/** What a piece is drawn from: the form it is, else its pattern, else any of its construction. */
import type { ReferenceIndex } from '@jutbank/core/bench';
import { recipeOfRecords, type DrawingRecipe } from '@jutbank/core/drawing';
import type { Construction } from '@jutbank/core/reference';

export interface DrawnAs {
  readonly construction: Construction;
  readonly variant?: string | null | undefined;
  readonly pattern?: string | null | undefined;
}
export function recipeIn(index: ReferenceIndex, { construction, variant, pattern }: DrawnAs): DrawingRecipe {
  const row = index.variants.get(variant ?? '');
  const { features, marks, codes } = index.contents;
  return recipeOfRecords({
    pattern: row?.pattern ?? index.patterns.get(pattern ?? '') ?? { name: 'A piece', construction },
    variant: row?.variant,
    features,
    marks,
    codes,
  });
}
