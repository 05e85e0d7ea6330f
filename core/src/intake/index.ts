export { ALLOCATION_METHODS, type Allocation, allocateLot } from './allocation.ts';
export { dealPictures } from './dealPictures.ts';
export { pastedPieces, type PastedPiece } from './pastedPieces.ts';
