/** Pieces that came with it and belong to it: each opens, and says the same of this one. */
import { pieceRoutes, type PieceSheet } from '@jutbank/contract/pieces';
import { Button } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { useKeptAnswers } from '../base/answers.ts';
import { ApiProblem, send } from '../base/api.ts';
import { SuggestInput } from '../parts/fields/choices.tsx';
import { STAGE_WORDS } from '../parts/words.ts';
import { stagePath } from './stagePath.ts';
import { inLine, useTakeSheet } from './usePiece.ts';
import { pieceNamed, usePieceSearch } from './usePieceSearch.ts';

export function Companions({ sheet, disabled }: { sheet: PieceSheet; disabled: boolean }) {
  const answers = useKeptAnswers();
  const takeSheet = useTakeSheet();
  const [typed, setTyped] = useState('');
  const { offered, named: chosen } = usePieceSearch(
    typed,
    [sheet.id, ...sheet.companions.map((c) => c.id)],
    !disabled,
  );
  const put = useMutation({
    mutationFn: (companions: string[]) =>
      inLine(sheet.id, () =>
        send(pieceRoutes.putCompanions, {
          params: { id: sheet.id },
          body: { companions },
          version: sheet.version,
        }),
      ),
    onSuccess: (fresh) => {
      takeSheet(fresh);
      setTyped('');
      // the others say the same from now on
      void answers.invalidate(pieceRoutes.piece);
    },
  });
  const ids = sheet.companions.map((c) => c.id);
  if (disabled && ids.length === 0) return null;
  return (
    <section aria-label="Came with it">
      <h2 className="sec">
        Came with it <small>pieces found together bear each other out</small>
      </h2>
      {sheet.companions.map((c) => (
        <p key={c.id} className="companion">
          <Link to={`/pieces/${c.id}/${stagePath(c)}`}>{pieceNamed(c)}</Link>{' '}
          <span className="soft">{STAGE_WORDS[c.stage]}</span>{' '}
          {!disabled && (
            <Button
              variant="text"
              className="quiet"
              aria-label={`${pieceNamed(c)} did not come with it`}
              disabled={put.isPending}
              onClick={() => put.mutate(ids.filter((id) => id !== c.id))}
            >
              ×
            </Button>
          )}
        </p>
      ))}
      {!disabled && (
        <form
          className="desk-act"
          noValidate
          onSubmit={(event) => {
            event.preventDefault();
            if (chosen) put.mutate([...ids, chosen.id]);
          }}
        >
          <SuggestInput
            label="Another piece of the same find"
            hint="its number or name"
            suggestions={offered.map(pieceNamed)}
            value={typed}
            problem={
              put.error instanceof ApiProblem
                ? (put.error.errors[0]?.message ?? put.error.message)
                : undefined
            }
            onChange={setTyped}
          />
          {chosen && (
            <Button type="submit" disabled={put.isPending}>
              It came with this
            </Button>
          )}
        </form>
      )}
    </section>
  );
}
