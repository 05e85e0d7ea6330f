/** The engine's answer to what was seen so far; the one before stays until the next is there. */
import { benchRoutes } from '@jutbank/contract/bench';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import type { Observation, FoundPlace } from '@jutbank/core/bench';
import type { PieceSheet, SourceOfPiece } from '@jutbank/contract/pieces';
import { send } from '../base/api.ts';

const FOUND: Partial<Record<SourceOfPiece, FoundPlace>> = {
  fair: 'fair',
  estate: 'estate',
  online: 'online',
  'specialist-dealer': 'specialist-dealer',
};

export function useAnswer(sheet: PieceSheet, observations: readonly Observation[], enabled = true) {
  // the same question as the sheet's own reading, but for what is not saved yet
  const question = {
    observations,
    within: { constructions: [sheet.intake.construction], ...sheet.narrowing },
    found: (sheet.intake.sourceKind && FOUND[sheet.intake.sourceKind]) ?? 'unknown',
    decided: sheet.attribution && {
      variant: sheet.attribution.variant,
      pattern: sheet.attribution.pattern,
    },
    sealed: sheet.sealed,
  };
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
