/** Forms to one scale: what differs in full ink, what is equal faded; or one laid over the other. */
import { Slider } from '@mui/material';
import { useMemo, useState } from 'react';
import {
  cardView,
  commonFrame,
  differingParts,
  drawPiece,
  partDrawnInWords,
  viewsThatDiffer,
  type Drawing,
  type View,
} from '@jutbank/core/drawing';
import type { Pattern, Variant } from '@jutbank/core/reference';
import type { Vocabulary } from '@jutbank/contract/reference';
import { PieceDrawing } from '../parts/PieceDrawing.tsx';
import { Roving } from '../parts/Roving.tsx';
import { recipeOfVariant } from './useForms.ts';
import './reference.css';

const VIEW_WORDS: Record<View, string> = {
  'mark-side': 'from the mark side',
  'pile-side': 'from the pile side',
  open: 'open',
  'from-above': 'from above',
  tang: 'the tang',
};
/** px that the longest is drawn wide */
const WIDTH = 250;

export function DrawnApart({
  variants,
  pattern,
  words,
}: {
  variants: readonly Variant[];
  pattern: Pattern;
  words: Vocabulary;
}) {
  const recipes = useMemo(
    () => variants.map((v) => recipeOfVariant(words, pattern, v)),
    [variants, pattern, words],
  );
  const views = useMemo(() => viewsThatDiffer(recipes), [recipes]);
  const [chosen, setView] = useState<View>();
  const [first] = recipes;
  if (!first) return null;
  const view = chosen && views.includes(chosen) ? chosen : (views[0] ?? cardView(first));
  const drawings = recipes.map((recipe) => drawPiece(recipe, view));
  const parts = differingParts(drawings);
  const perMm = (WIDTH - 4) / Math.max(...drawings.map((d) => d.widthMm));
  return (
    <section className="drawn-apart" aria-label="Drawn to one scale">
      {views.length > 1 && (
        <Roving className="chips" role="group" aria-label="Where they differ">
          {views.map((v) => (
            <button
              key={v}
              type="button"
              className="quiet"
              aria-pressed={v === view}
              onClick={() => setView(v)}
            >
              {VIEW_WORDS[v]}
            </button>
          ))}
        </Roving>
      )}
      {parts.length === 0 && (
        <p className="soft">Drawn alike: nothing that is recorded of them shows from outside.</p>
      )}
      <div className="apart">
        {drawings.map((drawing, i) => (
          <figure key={variants[i]?.id}>
            <PieceDrawing
              drawing={drawing}
              scale={perMm}
              width={WIDTH}
              emphasis={
                parts.length === 0 ? () => undefined : (part) => (parts.includes(part) ? 'differs' : 'faded')
              }
            />
            <figcaption>
              {variants[i]?.name}
              <span className="soft">{saidOf(drawing, parts)}</span>
            </figcaption>
          </figure>
        ))}
      </div>
      {drawings.length === 2 && parts.length > 0 && drawings[0] && drawings[1] && (
        <LaidOver
          under={drawings[0]}
          over={drawings[1]}
          names={[variants[0]?.name ?? '', variants[1]?.name ?? '']}
        />
      )}
    </section>
  );
}
/** The differing parts by name, those that this one does not have among them. */
const saidOf = (drawing: Drawing, parts: readonly string[]): string =>
  [
    ...new Set(
      parts.map(
        (part) => `${drawing.parts.some((p) => p.part === part) ? '' : 'no '}${partDrawnInWords(part)}`,
      ),
    ),
  ].join(', ');

function LaidOver({
  under,
  over,
  names,
}: {
  under: Drawing;
  over: Drawing;
  names: readonly [string, string];
}) {
  const [share, setShare] = useState(50);
  const frame = commonFrame([under, over]);
  return (
    <div className="laid-over">
      <div className="stack">
        <PieceDrawing drawing={{ ...under, ...frame }} width={420} label="" />
        <div className="over" style={{ opacity: share / 100 }}>
          <PieceDrawing drawing={{ ...over, ...frame }} width={420} label="" />
        </div>
      </div>
      <div className="mix">
        <span>{names[0]}</span>
        <Slider
          size="small"
          value={share}
          onChange={(_, value) => setShare(Number(value))}
          aria-label={`How much of ${names[1]} lies over ${names[0]}`}
          valueLabelDisplay="off"
        />
        <span>{names[1]}</span>
      </div>
    </div>
  );
}
