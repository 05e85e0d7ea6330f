import { useMemo } from 'react';
import { referenceRoutes } from '@jutbank/contract/reference';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import type { Variant } from '@jutbank/core/reference';
import { useAnswer } from '../base/answers.ts';
import { send } from '../base/api.ts';
import { counted } from '../parts/words.ts';

export interface Named {
  readonly variant: Variant;
  readonly label: string;
  readonly window: string | undefined;
  readonly made: string | undefined;
}
export type VariantNames = ReadonlyMap<string, Named>;

/** Names of the variants of the patterns in play, fetched with their patterns. */
export function useVariantNames(patterns: readonly string[]): VariantNames {
  const details = useQuery({
    queryKey: [referenceRoutes.pattern.path, 'several', [...patterns].sort()],
    queryFn: () => Promise.all(patterns.map((id) => send(referenceRoutes.pattern, { params: { id } }))),
    staleTime: 60_000,
    placeholderData: keepPreviousData,
  });
  return useMemo(
    () =>
      new Map(
        (details.data ?? []).flatMap((d) =>
          d.variants.map((v): [string, Named] => [
            v.id,
            {
              variant: v,
              label: `${d.pattern.name}, ${v.name}`,
              window: v.window ?? undefined,
              made: v.made?.quantity == null ? undefined : `${counted(v.made.quantity)} made`,
            },
          ]),
        ),
      ),
    [details.data],
  );
}

/** All names of the reference: what ids mean in words. */
export const useVocabulary = () => useAnswer(referenceRoutes.vocabulary, {}, { staleTime: 60_000 });

/** A pattern with its variants; nothing is fetched until one is named. */
export function usePattern(pattern: unknown) {
  const id = typeof pattern === 'string' ? pattern : undefined;
  return useAnswer(referenceRoutes.pattern, { params: { id } }, { enabled: id !== undefined });
}
