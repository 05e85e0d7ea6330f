/** The engine's answer to what was seen so far; the one before stays until the next is there. */
import { benchRoutes } from '@jutbank/contract/bench';
import { keepPreviousData } from '@tanstack/react-query';
import type { Observation } from '@jutbank/core/bench';
import { questionOf } from '@jutbank/core/pieces';
import type { PieceSheet } from '@jutbank/contract/pieces';
import { useAnswer } from '../base/answers.ts';

export function useIdentification(sheet: PieceSheet, observations: readonly Observation[], enabled = true) {
  // the same question as the sheet's own reading, but for what is not saved yet
  const question = questionOf({
    ...sheet.intake,
    observations,
    narrowing: sheet.narrowing,
    decided: sheet.attribution,
    sealed: sheet.sealed,
  });
  return useAnswer(
    benchRoutes.identify,
    {
      body: {
        ...question,
        limit: 12,
        piece: sheet.id,
      },
    },
    { placeholderData: keepPreviousData, staleTime: Infinity, gcTime: 60_000, enabled },
  );
}
