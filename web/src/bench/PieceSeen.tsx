/** The piece as far as it has been looked at: the drawing is the checklist, and a click takes a part in hand. */
import { useMemo } from 'react';
import type { Candidate, Observation } from '@jutbank/core/bench';
import {
  anyPattern,
  cardView,
  commonFrame,
  decides,
  drawPiece,
  featuresOfPart,
  partDrawnInWords,
  recipeOfPiece,
  type DrawnPart,
  type DrawingRecipe,
  type Seen,
  type View,
} from '@jutbank/core/drawing';
import type { Construction, Feature } from '@jutbank/core/reference';
import type { Vocabulary } from '@jutbank/contract/reference';
import { PieceDrawing } from '../parts/PieceDrawing.tsx';
import { Roving } from '../parts/Roving.tsx';
import { useWidth } from '../parts/useWidth.ts';
import type { VariantNames } from '../reference/vocabulary.ts';
import { recipeOfVariant } from '../reference/useForms.ts';
import { Leaders, type Label } from './Leaders.tsx';
import type { Item } from './items.ts';

/** px at most */
const WIDEST = 470;

/** Closed and open, or both sides of what is known by its blade; a straight knife has one. */
const VIEWS_SHOWN: Readonly<Record<Construction, readonly View[]>> = {
  slipjoint: ['mark-side', 'open'],
  'multi-tool': ['mark-side', 'open'],
  'locking-folder': ['open', 'pile-side'],
  automatic: ['open', 'pile-side'],
  balisong: ['open', 'mark-side'],
  fixed: ['open'],
  bayonet: ['open'],
};

interface Props {
  readonly construction: Construction;
  readonly observations: readonly Observation[];
  readonly lead: Candidate | undefined;
  /** a candidate that is pointed at: its form is laid under the piece */
  readonly under: string | undefined;
  readonly inHand: Item | undefined;
  readonly vocabulary: Vocabulary;
  readonly names: VariantNames;
  readonly onTake: (feature: Feature) => void;
}

export function PieceSeen({
  construction,
  observations,
  lead,
  under,
  inHand,
  vocabulary,
  names,
  onTake,
}: Props) {
  const formOf = (variant: string | undefined) => {
    const known = names.get(variant ?? '')?.variant;
    const pattern = vocabulary.patterns.find((p) => p.id === known?.pattern);
    return { pattern: pattern ?? anyPattern(construction), variant: known };
  };
  const { pattern, variant } = formOf(lead?.variant);
  const seen = useMemo(() => seenOf(observations, lead), [observations, lead]);
  const recipe = recipeOfPiece(
    { pattern, variant, features: vocabulary.features, marks: vocabulary.marks, codes: vocabulary.codes },
    seen,
  );
  const expected = recipeOfVariant(vocabulary, pattern, variant);
  const laid = under === undefined ? undefined : formOf(under);
  const taken = inHand?.kind === 'feature' ? inHand.feature : undefined;
  const [box, width] = useWidth<HTMLElement>(WIDEST);
  const nothing = Object.keys(seen).length === 0;
  return (
    <section ref={box} className="piece-seen" aria-label="The piece, as far as it has been looked at">
      <h2 className="sec">
        The piece, as far as it has been looked at{' '}
        <small>{nothing ? 'nothing seen yet: all of it is dashed' : 'click a part to take it in hand'}</small>
      </h2>
      {VIEWS_SHOWN[construction].map((view, i) => (
        <OneView
          key={view}
          view={view}
          width={width}
          recipe={recipe}
          expected={expected}
          laid={laid && recipeOfVariant(vocabulary, laid.pattern, laid.variant)}
          taken={taken}
          labels={i === 0 ? labelsOf(recipe, seen, vocabulary.features, taken) : []}
          features={vocabulary.features}
          onTake={onTake}
        />
      ))}
    </section>
  );
}

/** What was seen of each feature; what speaks against the leading form differs. */
function seenOf(observations: readonly Observation[], lead: Candidate | undefined): Record<string, Seen> {
  const against = new Set(
    lead?.evidence.flatMap((e) => (e.verdict === 'disagrees' && e.feature !== undefined ? [e.feature] : [])),
  );
  return Object.fromEntries(
    observations.flatMap((o): [string, Seen][] => {
      if (!('feature' in o)) return [];
      const state = against.has(o.feature) ? 'differs' : 'measure' in o ? 'measured' : 'recorded';
      if ('state' in o) return o.state === 'not-there' ? [[o.feature, { state: 'not-there' }]] : [];
      // drawn as nobody knows how: only that it is unlike what is recorded
      if ('other' in o) return [[o.feature, { state: 'differs' }]];
      return [[o.feature, 'measure' in o ? { measure: o.measure, state } : { value: o.value, state }]];
    }),
  );
}

function labelsOf(
  recipe: DrawingRecipe,
  seen: Readonly<Record<string, Seen>>,
  features: readonly Feature[],
  taken: Feature | undefined,
): Label[] {
  const drawing = drawPiece(recipe, cardView(recipe));
  const hidden = cardView(recipe) === 'mark-side';
  const placeOf = (feature: Feature): DrawnPart | undefined => {
    // a blade that is folded away cannot be pointed at
    return drawing.parts.find(
      (p) => decides(feature, recipe.construction, p.part) && !(hidden && p.part.startsWith('blade')),
    );
  };
  const said = Object.entries(seen).flatMap(([id, { value, state }]): Label[] => {
    const feature = features.find((f) => f.id === id);
    const part = feature && placeOf(feature);
    if (!feature || !part || feature.id === taken?.id || value === undefined || feature.kind === 'count')
      return [];
    const word = feature.values?.find((v) => v.id === value)?.label ?? String(value);
    return [
      {
        id,
        text: state === 'differs' ? `${word.toLowerCase()} seen, not expected` : word.toLowerCase(),
        at: part.anchor,
        tone: state === 'differs' ? 'warn' : 'plain',
      },
    ];
  });
  const now = taken && placeOf(taken);
  return [
    ...(now && taken
      ? [{ id: taken.id, text: `${taken.label}?`, at: now.anchor, tone: 'hand' as const }]
      : []),
    ...said,
  ].slice(0, MOST_LABELS);
}
const MOST_LABELS = 7;

function OneView({
  view,
  width,
  recipe,
  expected,
  laid,
  taken,
  labels,
  features,
  onTake,
}: {
  view: View;
  width: number;
  recipe: DrawingRecipe;
  expected: DrawingRecipe;
  laid: DrawingRecipe | undefined;
  taken: Feature | undefined;
  labels: readonly Label[];
  features: readonly Feature[];
  onTake: (feature: Feature) => void;
}) {
  const drawing = drawPiece(recipe, view);
  const other = laid && drawPiece(laid, view);
  const differing = new Set(drawing.parts.filter((p) => p.state === 'differs').map((p) => p.part));
  const ghost = differing.size > 0 ? drawPiece(expected, view) : undefined;
  const frame = commonFrame(other ? [drawing, other] : [drawing]);
  const perMm = width / frame.widthMm;
  const toTake = (part: string) => featuresOfPart(part, features, recipe.construction)[0];
  return (
    <Leaders labels={labels} frame={frame} perMm={perMm}>
      <Roving className="stack" role="group" aria-label="Parts of the piece">
        {other && (
          <div className="laid-under">
            <PieceDrawing drawing={{ ...other, ...frame }} width={width} scale={perMm} label="" />
          </div>
        )}
        <PieceDrawing
          drawing={{ ...drawing, ...frame }}
          width={width}
          scale={perMm}
          label={`${view === 'open' ? 'Open' : 'Closed'}: ${drawing.name}`}
          emphasis={(part) => (taken && decides(taken, recipe.construction, part) ? 'lit' : undefined)}
          onPart={(part) => {
            const feature = toTake(part);
            if (feature) onTake(feature);
          }}
          partLabel={(part) => (toTake(part) ? `Look at the ${partDrawnInWords(part)}` : undefined)}
        />
        {ghost && (
          <div className="expected">
            <PieceDrawing
              drawing={{ ...ghost, parts: ghost.parts.filter((p) => differing.has(p.part)), ...frame }}
              width={width}
              scale={perMm}
              label=""
            />
          </div>
        )}
      </Roving>
    </Leaders>
  );
}
