/** The sheet of the piece whose page this stage is on. */
import { useOutletContext } from 'react-router';
import type { PieceSheet } from '@jutbank/contract/pieces';

export const useSheet = () => useOutletContext<PieceSheet>();
