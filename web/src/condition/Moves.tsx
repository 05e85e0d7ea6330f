/** Parts that went from one piece to another: recorded on both. */
import { pieceRoutes, type PieceSheet } from '@jutbank/contract/pieces';
import { conditionRoutes, MOVE_REASONS, type PartMove } from '@jutbank/contract/condition';
import { Button } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { PARTS, type Part } from '@jutbank/core/condition';
import { edtfInWords } from '@jutbank/core/dates';
import { useAnswer } from '../base/answers.ts';
import { send } from '../base/api.ts';
import { Field } from '../parts/Field.tsx';
import { inLine, useTakeSheet } from '../pieces/usePiece.ts';
import { sentence } from '../parts/words.ts';

export function Moves({
  sheet,
  moves,
  may,
  onDone,
}: {
  sheet: PieceSheet;
  moves: readonly PartMove[];
  may: boolean;
  onDone: () => void;
}) {
  return (
    <>
      <h2 className="sec" style={{ marginTop: 18 }}>
        Parts that moved <small>recorded on both pieces</small>
      </h2>
      {moves.length === 0 && <p className="soft">None is known.</p>}
      {moves.map((m) => (
        <Move key={m.id} move={m} piece={sheet.id} />
      ))}
      {may && <NewMove sheet={sheet} onDone={onDone} />}
    </>
  );
}

function Move({ move, piece }: { move: PartMove; piece: string }) {
  const came = move.to.piece?.id === piece;
  const other = came ? move.from : move.to;
  return (
    <p>
      <b>{sentence(move.part)}</b> {came ? 'came from' : 'went to'}{' '}
      {other.piece ? (
        <Link to={`/pieces/${other.piece.id}/condition`}>
          {other.piece.stockNumber} {other.piece.title}
        </Link>
      ) : (
        other.where || 'somewhere unknown'
      )}{' '}
      <span className="soft">
        ({sentence(move.why).toLowerCase()}
        {move.movedOn !== null && `, ${edtfInWords(move.movedOn)}`}
        {move.note !== '' && `: ${move.note}`})
      </span>
    </p>
  );
}

function NewMove({ sheet, onDone }: { sheet: PieceSheet; onDone: () => void }) {
  const takeSheet = useTakeSheet();
  const [part, setPart] = useState<Part>('clip');
  const [way, setWay] = useState<'came' | 'went'>('came');
  const [why, setWhy] = useState<PartMove['why']>('exchanged');
  const [other, setOther] = useState('');
  const pieces = useAnswer(pieceRoutes.listPieces, { query: { limit: 200 } });
  const named = pieces.data?.items.find((p) => p.stockNumber === other.trim().split(' ')[0]);
  const save = useMutation({
    mutationFn: async () => {
      const here = { piece: sheet.id, where: '' };
      const there = { piece: named?.id ?? null, where: named ? '' : other.trim() };
      await inLine(sheet.id, () =>
        send(conditionRoutes.movePart, {
          body: { part, why, from: way === 'came' ? there : here, to: way === 'came' ? here : there },
        }),
      );
      return send(pieceRoutes.piece, { params: { id: sheet.id } });
    },
    onSuccess: (fresh) => {
      takeSheet(fresh);
      setOther('');
      onDone();
    },
  });
  return (
    <form
      className="fieldrow"
      onSubmit={(e) => {
        e.preventDefault();
        save.mutate();
      }}
    >
      <Field label="Part">
        {(id) => (
          <select id={id} className="line" value={part} onChange={(e) => setPart(e.target.value as Part)}>
            {PARTS.map((p) => (
              <option key={p} value={p}>
                {sentence(p)}
              </option>
            ))}
          </select>
        )}
      </Field>
      <Field label="Way">
        {(id) => (
          <select
            id={id}
            className="line"
            value={way}
            onChange={(e) => setWay(e.target.value as 'came' | 'went')}
          >
            <option value="came">came from</option>
            <option value="went">went to</option>
          </select>
        )}
      </Field>
      <Field label="The other piece" grow>
        {(id) => (
          <input
            id={id}
            className="line"
            list="other-pieces"
            placeholder="stock number, or where"
            value={other}
            onChange={(e) => setOther(e.target.value)}
          />
        )}
      </Field>
      <datalist id="other-pieces">
        {pieces.data?.items
          .filter((p) => p.id !== sheet.id)
          .map((p) => (
            <option key={p.id} value={`${p.stockNumber} ${p.title}`} />
          ))}
      </datalist>
      <Field label="Reason">
        {(id) => (
          <select
            id={id}
            className="line"
            value={why}
            onChange={(e) => setWhy(e.target.value as PartMove['why'])}
          >
            {MOVE_REASONS.map((r) => (
              <option key={r} value={r}>
                {sentence(r).toLowerCase()}
              </option>
            ))}
          </select>
        )}
      </Field>
      <Button type="submit" disabled={save.isPending || other.trim() === ''}>
        Record the move
      </Button>
      {save.error && (
        <p className="problem" role="alert">
          {String(save.error.message)}
        </p>
      )}
    </form>
  );
}
