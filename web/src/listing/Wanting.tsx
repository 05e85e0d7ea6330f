/** What a listing still wants: each thing with the way to where it is mended. */
import { useMemo } from 'react';
import { Link } from 'react-router';
import { drawPiece, foundOn, type DrawingRecipe } from '@jutbank/core/drawing';
import { drawnShot } from '@jutbank/core/listing';
import type { ListingBlock, ListingDraft } from '@jutbank/contract/listing';
import type { PieceSheet } from '@jutbank/contract/pieces';
import { PieceDrawing } from '../parts/PieceDrawing.tsx';
import { useForms } from '../reference/useForms.ts';

const STAGE_WORDS: Readonly<Record<ListingBlock['stage'], string>> = {
  intake: 'To the pictures',
  bench: 'To the bench',
  condition: 'To the inspection',
  worth: 'To the price',
  listing: 'To the text',
};

export function Blocks({ id, blocks }: { id: string; blocks: readonly ListingBlock[] }) {
  return blocks.map((b) => (
    <div key={b.text} className="note bad" style={{ marginBottom: 8 }}>
      {b.text} <Link to={`/pieces/${id}/${b.stage}`}>{STAGE_WORDS[b.stage]}</Link>
    </div>
  ));
}

export function WordingProblems({ problems }: Pick<ListingDraft, 'problems'>) {
  return problems.map((p) => (
    <div key={p.detail} className="note bad" style={{ marginBottom: 8 }}>
      <b>
        {p.kind === 'disclosure-dropped'
          ? 'Something known is not told'
          : p.kind === 'refuted-story'
            ? 'A refuted story is told again'
            : 'The wording is stronger than the evidence'}
      </b>
      {p.detail}
    </div>
  ));
}

/** Where to stand for a picture: the piece from there, and the part it is about. */
function ShotDrawn({ shot, recipe }: { shot: string; recipe: DrawingRecipe }) {
  const { view, parts } = drawnShot(shot);
  const drawing = useMemo(() => drawPiece(recipe, view), [recipe, view]);
  const about = drawing.parts.filter((p) => parts.some((part) => foundOn(part, p.part))).map((p) => p.part);
  // what a form does not have cannot be lit on it
  const emphasis = (drawn: string) =>
    about.length === 0 ? undefined : about.includes(drawn) ? 'lit' : 'faded';
  return <PieceDrawing drawing={drawing} width={92} height={46} label="" emphasis={emphasis} />;
}

/** Pictures a buyer looks for, and findings that none shows. */
export function Shots({
  shots,
  unseen,
  sheet,
}: Pick<ListingDraft, 'shots' | 'unseen'> & { sheet: PieceSheet }) {
  const { variant, pattern } = sheet.readings.which;
  const as = { construction: sheet.intake.construction, variant, pattern };
  const recipe = useForms([as])(as);
  const next = shots.find((s) => !s.done);
  return (
    <>
      <h2 className="sec" style={{ marginTop: 16 }}>
        Pictures{' '}
        <small>
          {shots.filter((s) => s.done).length} of {shots.length}
          {next && `; next: ${next.ask.toLowerCase()}`}
        </small>
      </h2>
      {/* as they go up: in their order, framed, with their scale bars */}
      <Link
        className="strip"
        to={`/pieces/${sheet.id}/intake`}
        aria-label="Order, name and frame the pictures"
      >
        {sheet.pictures.map((p) => (
          <img
            key={p.id}
            src={`/api/v1/pictures/${p.shown}/thumb`}
            alt={p.caption || 'Picture of the piece'}
          />
        ))}
      </Link>
      <ul className="shots">
        {shots.map((s) => (
          <li key={s.id} className={s.done ? 'done' : ''}>
            <ShotDrawn shot={s.id} recipe={recipe} />
            <span>{s.ask}</span>
          </li>
        ))}
      </ul>
      {unseen.length > 0 && (
        <p className="soft">
          No picture shows: {unseen.join('; ')}. Pin it on one at the inspection, or the text alone tells it.
        </p>
      )}
    </>
  );
}
