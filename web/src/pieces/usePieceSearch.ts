/** Another piece of the shop by what somebody types: its number, or words of its name. */
import { pieceRoutes, type PieceSlip } from '@jutbank/contract/pieces';
import { keepPreviousData } from '@tanstack/react-query';
import { useAnswer } from '../base/answers.ts';

const OFFERED = 12;
/** as many signs as the search takes */
const MOST_ASKED = 100;

export const pieceNamed = (piece: Pick<PieceSlip, 'stockNumber' | 'title'>): string =>
  `${piece.stockNumber} ${piece.title}`;

export interface PieceSearch {
  readonly offered: readonly PieceSlip[];
  /** the one that is meant: its number is typed, alone or before its name */
  readonly named: PieceSlip | undefined;
  /** what is offered is not yet of what is typed */
  readonly busy: boolean;
}

/** @param but pieces that are not meant */
export function usePieceSearch(typed: string, but: readonly string[], enabled = true): PieceSearch {
  const words = typed.trim().slice(0, MOST_ASKED);
  const found = useAnswer(
    pieceRoutes.listPieces,
    { query: { q: words, limit: OFFERED } },
    { enabled: enabled && words.length > 1, placeholderData: keepPreviousData },
  );
  const offered = (found.data?.items ?? []).filter((piece) => !but.includes(piece.id));
  const asked = words.toLowerCase();
  const named = offered.find(({ stockNumber }) => `${asked} `.startsWith(`${stockNumber.toLowerCase()} `));
  return { offered, named, busy: found.isFetching };
}
