/** Where pieces and lots come from. */
export const SOURCE_OF_PIECE = [
  'fair',
  'estate',
  'online',
  'specialist-dealer',
  'auction',
  'private',
] as const;
export type SourceOfPiece = (typeof SOURCE_OF_PIECE)[number];
