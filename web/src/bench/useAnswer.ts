/** The engine's answer to what was seen so far; the one before stays until the next is there. */
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import type { IdentifyAnswer, Observation } from '@jutbank/core/bench';
import type { PieceSheet } from '@jutbank/contract/intake';
import { call } from '../app/api.ts';

const FOUND: Record<string, string> = {
  fair: 'fair',
  estate: 'estate',
  online: 'online',
  'specialist-dealer': 'specialist-dealer',
};

export function useAnswer(sheet: PieceSheet, observations: readonly Observation[], enabled = true) {
  return useQuery({
    queryKey: ['identify', sheet.id, sheet.intake.construction, sheet.intake.sourceKind, observations],
    queryFn: ({ signal }) =>
      call<IdentifyAnswer>('POST', '/identify', {
        body: {
          observations,
          within: { constructions: [sheet.intake.construction] },
          found: FOUND[sheet.intake.sourceKind ?? ''] ?? 'unknown',
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
