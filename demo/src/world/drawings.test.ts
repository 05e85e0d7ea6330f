import { describe, expect, test } from '@jest/globals';
import {
  cardView,
  differingParts,
  drawPiece,
  readStyles,
  recipeOfRecords,
  SLOTS,
  isSlot,
  VIEWS,
  type DrawingRecipe,
} from '@jutbank/core/drawing';
import type { Variant } from '@jutbank/core/reference';
import { demoPack } from './reference.ts';

const { variants = [], patterns = [], features = [], marks = [], codes = [] } = demoPack;
function recipeOf(variant: Variant): DrawingRecipe {
  const pattern = patterns.find((p) => p.id === variant.pattern);
  if (!pattern) throw new Error(`no pattern ${variant.pattern}`);
  return recipeOfRecords({ pattern, variant, features, marks, codes });
}
/** Parts that the features in which two variants differ may change; a stamp changes the mark. */
function partsAllowed(one: Variant, other: Variant): string[] {
  const construction = recipeOf(one).construction;
  return features.flatMap((feature) => {
    const values = [one, other].map((v) => v.features?.[feature.id]?.[0]);
    if (values[0] === values[1]) return [];
    if (feature.kind === 'count') return ['blade', 'tool'];
    return values
      .flatMap((value) => (value === undefined ? [] : Object.keys(readStyles(feature, value, construction))))
      .flatMap((slot) => (isSlot(slot) ? SLOTS[slot].parts : []));
  });
}

describe('the whole reference, drawn', () => {
  const ofPattern = patterns.map((p) => variants.filter((v) => v.pattern === p.id));
  test('two forms of a pattern differ in the parts that are recorded to differ, and in no other', () => {
    const wrong: string[] = [];
    let pairs = 0;
    for (const forms of ofPattern)
      for (const [i, one] of forms.entries())
        for (const other of forms.slice(i + 1)) {
          pairs++;
          const allowed = [...partsAllowed(one, other), 'mark'];
          const parts = VIEWS.flatMap((view) =>
            differingParts([drawPiece(recipeOf(one), view), drawPiece(recipeOf(other), view)]),
          );
          // letters of the stamp stand on the blade too
          const stamp = one.marks?.[0] !== other.marks?.[0];
          for (const part of parts)
            if (!allowed.some((a) => part.startsWith(a)) && !(stamp && part === 'blade:1'))
              wrong.push(`${one.id} and ${other.id}: ${part}`);
          const recorded = allowed.filter((a) => a !== 'mark');
          if (recorded.length > 0 && parts.length === 0)
            wrong.push(`${one.id} and ${other.id} are drawn alike`);
        }
    expect(pairs).toBeGreaterThan(400);
    expect(wrong).toEqual([]);
  });
  test('each says what it shows', () => {
    const jack = variants.find((v) => v.id === 'hj-naval-2');
    expect(jack && drawPiece(recipeOf(jack), 'mark-side').name).toBe(
      'Harbour jack, Service issue, second form: two blades, grooved bolsters, horn scales, anchor shield, bar',
    );
  });
  test('all of it in less than a third of a second', () => {
    const recipes = variants.map(recipeOf);
    // time of the processor, at its quickest of three: what else the machine does meanwhile is not measured
    const took = [1, 2, 3].map(() => {
      const began = process.cpuUsage();
      for (const recipe of recipes) drawPiece(recipe, cardView(recipe));
      const { user, system } = process.cpuUsage(began);
      return (user + system) / 1000;
    });
    expect(variants.length).toBeGreaterThan(200);
    expect(Math.min(...took)).toBeLessThan(300);
  });
});
