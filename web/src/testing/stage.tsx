/** A stage on the sheet of a piece, as the piece's page would show it. */
import type { ReactNode } from 'react';
import { Outlet, Route, Routes } from 'react-router';
import type { PieceSheet } from '@jutbank/contract/pieces';
import type { Role } from '@jutbank/contract/shop';
import { serve, show, type Answers, type Request } from './screen.tsx';

/** @returns every request that came, in order */
export function openStage(
  stage: ReactNode,
  sheet: PieceSheet,
  answers: Answers = {},
  role: Role = 'owner',
): Request[] {
  const came = serve(answers);
  show(
    <Routes>
      <Route element={<Outlet context={sheet} />}>
        <Route path="*" element={stage} />
      </Route>
    </Routes>,
    { role },
  );
  return came;
}
