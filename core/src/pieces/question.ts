/** The one question that the bench is asked of a piece, whoever asks it: the sheet of what is kept, the bench of what is not yet. */
import type { FoundPlace, IdentifyQuestion, Observation, Within } from '../bench/index.ts';
import type { Construction } from '../reference/index.ts';

export const SOURCE_OF_PIECE = [
  'fair',
  'estate',
  'online',
  'specialist-dealer',
  'auction',
  'private',
] as const;
/** Where a piece came from. */
export type SourceOfPiece = (typeof SOURCE_OF_PIECE)[number];

/** How often an imitation is met hangs on where one buys; of some places nothing is known of that. */
const FOUND: Readonly<Record<SourceOfPiece, FoundPlace>> = {
  fair: 'fair',
  estate: 'estate',
  online: 'online',
  'specialist-dealer': 'specialist-dealer',
  auction: 'unknown',
  private: 'unknown',
};

/** What of a piece the bench goes by. */
export interface PieceToIdentify {
  readonly observations: readonly Observation[];
  readonly construction: Construction;
  readonly sourceKind: SourceOfPiece | null;
  /** makers and patterns to look among */
  readonly narrowing: Pick<Within, 'makers' | 'patterns'> | null;
  readonly decided: { readonly variant: string | null; readonly pattern: string | null } | null;
  readonly sealed: boolean;
}

export const questionOf = (piece: PieceToIdentify) =>
  ({
    observations: piece.observations,
    within: { constructions: [piece.construction], ...piece.narrowing },
    found: piece.sourceKind === null ? 'unknown' : FOUND[piece.sourceKind],
    decided: piece.decided && { variant: piece.decided.variant, pattern: piece.decided.pattern },
    sealed: piece.sealed,
  }) satisfies IdentifyQuestion;
