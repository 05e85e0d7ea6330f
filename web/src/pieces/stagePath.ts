import { hasLeft } from '@jutbank/core/pieces';
import type { PieceSlip } from '@jutbank/contract/pieces';

/** The stage at which a piece stands is where one goes on. */
export function stagePath({ stage }: Pick<PieceSlip, 'stage'>): string {
  if (stage === 'listed') return 'listing';
  return hasLeft(stage) ? 'sale' : stage;
}
