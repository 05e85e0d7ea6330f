/** Where a piece lies; the ledger keeps where it lay before. */
import { Button } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { inventoryRoutes } from '@jutbank/contract/inventory';
import { pieceRoutes, type PieceSheet } from '@jutbank/contract/pieces';
import { useAnswer, useKeptAnswers } from '../base/answers.ts';
import { ApiProblem, send } from '../base/api.ts';
import { SuggestInput } from '../parts/fields/index.ts';
import { inLine } from './usePiece.ts';

export function Place({ sheet, disabled }: { sheet: PieceSheet; disabled: boolean }) {
  const answers = useKeptAnswers();
  const places = useAnswer(inventoryRoutes.choices).data?.places ?? [];
  const [place, setPlace] = useState(sheet.place);
  const move = useMutation({
    mutationFn: () =>
      inLine(sheet.id, () => send(inventoryRoutes.movePieces, { body: { pieces: [sheet.id], place } })),
    onSuccess: () => answers.invalidate(pieceRoutes.piece, inventoryRoutes.choices, inventoryRoutes.listRows),
  });
  const problem = move.error instanceof ApiProblem ? move.error.message : undefined;
  if (disabled)
    return sheet.place === '' ? null : (
      <p>
        It lies in <b>{sheet.place}</b>.
      </p>
    );
  return (
    <form
      className="desk-act"
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        move.mutate();
      }}
    >
      <SuggestInput
        label="Where it lies"
        hint="a drawer, the safe, at the grinder’s"
        suggestions={places}
        value={place}
        problem={problem}
        onChange={setPlace}
      />
      {place.trim() !== sheet.place && (
        <Button type="submit" disabled={move.isPending}>
          Move it
        </Button>
      )}
    </form>
  );
}
