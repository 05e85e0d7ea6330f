/** Parts that went from one piece to another: recorded on both. */
import { chosen, optionsOf, Select, SuggestInput } from '../parts/fields/choices.tsx';
import { Submit } from '../parts/fields/Submit.tsx';
import { useContractForm } from '../parts/fields/useContractForm.ts';
import { pieceRoutes, type PieceSheet } from '@jutbank/contract/pieces';
import { conditionRoutes, MOVE_REASONS, type PartMove } from '@jutbank/contract/condition';
import { Link } from 'react-router';
import { PARTS, type Part } from '@jutbank/core/condition';
import { edtfInWords } from '@jutbank/core/dates';
import { send } from '../base/api.ts';
import { useTakeSheet } from '../pieces/usePiece.ts';
import { pieceNamed, usePieceSearch } from '../pieces/usePieceSearch.ts';
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
  const form = useContractForm(conditionRoutes.movePart, {
    empty: MOVE,
    toBody: ({ part, way, why, other }: MoveForm) => {
      const { named } = search;
      const here = { piece: sheet.id, where: '' };
      const there = { piece: named?.id ?? null, where: named ? '' : other.trim() };
      return { part, why, from: way === 'came' ? there : here, to: way === 'came' ? here : there };
    },
    onSent: async () => {
      takeSheet(await send(pieceRoutes.piece, { params: { id: sheet.id } }));
      form.set('other', '');
      onDone();
    },
  });
  const search = usePieceSearch(form.values.other, [sheet.id]);
  return (
    <form className="fieldrow" noValidate onSubmit={form.onSubmit}>
      <Select label="Part" options={optionsOf(PARTS, sentence)} {...chosen(form.field('part'))} />
      <Select
        label="Way"
        options={optionsOf(['came', 'went'], (way) => (way === 'came' ? 'came from' : 'went to'))}
        {...chosen(form.field('way'))}
      />
      <SuggestInput
        label="The other piece"
        hint="stock number, or where"
        suggestions={search.offered.map(pieceNamed)}
        {...form.field('other')}
      />
      <Select
        label="Reason"
        options={optionsOf(MOVE_REASONS, (r) => sentence(r).toLowerCase())}
        {...chosen(form.field('why'))}
      />
      <Submit form={form} words="Record the move" disabled={form.values.other.trim() === '' || search.busy} />
    </form>
  );
}

interface MoveForm {
  part: Part;
  way: 'came' | 'went';
  why: PartMove['why'];
  /** a stock number, or where it came from or went to */
  other: string;
}
const MOVE: MoveForm = { part: 'clip', way: 'came', why: 'exchanged', other: '' };
