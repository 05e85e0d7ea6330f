/** What pieces and forms are drawn from: the vocabulary's patterns, and the variants that are on the screen. */
import { keepPreviousData } from '@tanstack/react-query';
import { useMemo } from 'react';
import {
  anyPattern,
  recipeOfRecords,
  type DrawingRecipe,
  type DrawnAs,
  type Records,
} from '@jutbank/core/drawing';
import type { Variant } from '@jutbank/core/reference';
import { referenceRoutes, type DrawnForm, type Vocabulary } from '@jutbank/contract/reference';
import { useAnswer } from '../base/answers.ts';
import { useVocabulary } from './vocabulary.ts';

/** Recipes of whatever stands on a screen, its variants asked for at once. */
export function useForms(shown: readonly DrawnAs[]): (as: DrawnAs) => DrawingRecipe {
  const ids = [...new Set(shown.flatMap((as) => as.variant ?? []))].sort().slice(0, MOST_AT_ONCE).join(',');
  const vocabulary = useVocabulary();
  const forms = useAnswer(
    referenceRoutes.forms,
    { query: { ids } },
    { enabled: ids !== '', staleTime: 60_000, placeholderData: keepPreviousData },
  );
  const variants = forms.data?.variants;
  const words = vocabulary.data;
  return useMemo(() => {
    const made = new Map<string, DrawingRecipe>();
    return (as) => {
      const key = `${as.construction} ${as.pattern ?? ''} ${as.variant ?? ''}`;
      const known = made.get(key) ?? recipeOfRecords(recordsOf(as, words, variants));
      made.set(key, known);
      return known;
    };
  }, [words, variants]);
}
const MOST_AT_ONCE = 120;

function recordsOf(
  as: DrawnAs,
  words: Vocabulary | undefined,
  variants: readonly DrawnForm[] | undefined,
): Records {
  const variant = variants?.find((v) => v.id === as.variant);
  const pattern = words?.patterns.find((p) => p.id === (variant?.pattern ?? as.pattern));
  return {
    pattern: pattern ?? anyPattern(as.construction),
    variant,
    features: words?.features ?? [],
    marks: words?.marks ?? [],
    codes: words?.codes ?? [],
  };
}

/** The recipe of a variant whose record is at hand. */
export const recipeOfVariant = (
  words: Vocabulary,
  pattern: Records['pattern'],
  variant?: Variant,
): DrawingRecipe =>
  recipeOfRecords({ pattern, variant, features: words.features, marks: words.marks, codes: words.codes });
