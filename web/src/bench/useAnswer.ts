/** The engine's answer to what was seen so far; the one before stays until the next is there. */
import { benchRoutes } from '@jutbank/contract/bench';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import type { Observation } from '@jutbank/core/bench';
import { questionOf } from '@jutbank/core/pieces';
import type { PieceSheet } from '@jutbank/contract/pieces';
import { send } from '../base/api.ts';

export function useAnswer(sheet: PieceSheet, observations: readonly Observation[], enabled = true) {
  // the same question as the sheet's own reading, but for what is not saved yet
  const question = questionOf({
    ...sheet.intake,
    observations,
    narrowing: sheet.narrowing,
    decided: sheet.attribution,
    sealed: sheet.sealed,
  });
  return useQuery({
    queryKey: ['identify', sheet.id, question],
    queryFn: ({ signal }) =>
      send(benchRoutes.identify, {
        body: {
          ...question,
          limit: 12,
          piece: sheet.id,
        },
        signal,
      }),
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    gcTime: 60_000,
    enabled,
  });
}
