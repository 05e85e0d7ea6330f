/** What pieces and forms are drawn from: the vocabulary's patterns, and the variants that are on the screen. */
import { keepPreviousData } from '@tanstack/react-query';
import { useMemo } from 'react';
import {
  recipeOfPiece,
  recipeOfRecords,
  type DrawingRecipe,
  type Records,
  type Seen,
} from '@jutbank/core/drawing';
import type { Construction, Variant } from '@jutbank/core/reference';
import { referenceRoutes, type DrawnForm, type Vocabulary } from '@jutbank/contract/reference';
import { useAnswer } from '../base/answers.ts';
import { useVocabulary } from './vocabulary.ts';

/** What something is drawn as: a variant, else its pattern, else any piece of its construction. */
export interface DrawnAs {
  readonly construction: Construction;
  readonly variant?: string | null | undefined;
  readonly pattern?: string | null | undefined;
}

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
    pattern: pattern ?? { name: 'A piece', construction: as.construction },
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

/** A piece as far as it has been looked at, over the form it is drawn as. */
export function usePieceRecipe(as: DrawnAs, seen: Readonly<Record<string, Seen>>): DrawingRecipe {
  const vocabulary = useVocabulary();
  const forms = useAnswer(
    referenceRoutes.forms,
    { query: { ids: as.variant ?? '' } },
    { enabled: as.variant != null, staleTime: 60_000, placeholderData: keepPreviousData },
  );
  return recipeOfPiece(recordsOf(as, vocabulary.data, forms.data?.variants), seen);
}
