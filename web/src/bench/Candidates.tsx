/** What it may be, each with its weight; what cannot be proved; and the appraiser's own decision. */
import { oddsOf } from './wording.ts';
import { useMemo } from 'react';
import type { Alert, IdentifyAnswer } from '@jutbank/core/bench';
import { cardView, differingParts, drawPiece, insetOf } from '@jutbank/core/drawing';
import { edtfInWords } from '@jutbank/core/dates';
import type { PieceSheet } from '@jutbank/contract/pieces';
import type { Vocabulary } from '@jutbank/contract/reference';
import { inHundred, TierMarks, TIER_LOOK, weightLook } from '../parts/TierBadge.tsx';
import { inWords } from '../parts/words.ts';
import { Inset } from '../parts/Inset.tsx';
import { PieceDrawing } from '../parts/PieceDrawing.tsx';
import { recipeOfVariant } from '../reference/useForms.ts';
import type { VariantNames } from '../reference/vocabulary.ts';
import { Decision } from './Decision.tsx';

/** Candidates shown at once; thinner ones add nothing a person could act on. */
const SHOWN = 6;
const THINNEST = 0.004;
/** px of a drawing, alone and with an inset beside it */
const WIDTH = 200;
const BESIDE_INSET = 118;

interface Props {
  readonly sheet: PieceSheet;
  readonly answer: IdentifyAnswer;
  readonly vocabulary: Vocabulary;
  readonly chosen: string | undefined;
  readonly onChoose: (variant: string) => void;
  readonly saved: boolean;
  readonly names: VariantNames;
  /** what is pointed at: its form is laid under the piece */
  readonly onPoint: (variant: string | undefined) => void;
}

const ALERT_WORDS: Record<Alert['kind'], string> = {
  'serial-beyond-run': 'Number beyond the run',
  'run-does-not-exist': 'No such run',
  'serial-seen-before': 'Number seen before',
  'known-counterfeit-tell': 'Known tell',
  'made-after-the-claimed-event': 'Made after the claimed event',
};

const shownOf = (answer: IdentifyAnswer) =>
  answer.candidates.filter((c, i) => i === 0 || c.probability > THINNEST).slice(0, SHOWN);

/** Each candidate's form; only what tells it from the leading one is inked, and enlarged where it is small. */
function drawnApart(answer: IdentifyAnswer, vocabulary: Vocabulary, names: VariantNames) {
  const drawings = shownOf(answer).map((c) => {
    const variant = names.get(c.variant)?.variant;
    const pattern = vocabulary.patterns.find((p) => p.id === c.pattern);
    if (!variant || !pattern) return undefined;
    const recipe = recipeOfVariant(vocabulary, pattern, variant);
    return drawPiece(recipe, cardView(recipe));
  });
  const [first] = drawings;
  return drawings.map((drawing, i) => {
    if (!drawing) return undefined;
    const apart = i > 0 && first ? new Set(differingParts([first, drawing])) : undefined;
    const emphasis = (part: string) => (apart && !apart.has(part) ? ('faded' as const) : undefined);
    // the leading one shows where the next differs from it
    const other = i > 0 ? first : drawings[1];
    return { drawing, emphasis, inset: other && insetOf([other, drawing]) };
  });
}

export function Candidates({ sheet, answer, vocabulary, chosen, onChoose, saved, names, onPoint }: Props) {
  const shown = shownOf(answer);
  const nothingSeen = sheet.observations.length === 0;
  const unlisted = weightLook(answer.unlisted);
  // pointing at one draws the piece anew, not every candidate
  const drawn = useMemo(() => drawnApart(answer, vocabulary, names), [answer, vocabulary, names]);
  return (
    <>
      <h2 className="sec">
        Candidates <small>{vocabulary.patterns.length} patterns known</small>
      </h2>
      {shown.map((c, i) => {
        const look = weightLook(c.probability);
        const named = names.get(c.variant);
        return (
          <button
            key={c.variant}
            type="button"
            className="cand"
            aria-pressed={(chosen ?? shown[0]?.variant) === c.variant}
            onClick={() => onChoose(c.variant)}
            onPointerEnter={() => onPoint(c.variant)}
            onPointerLeave={() => onPoint(undefined)}
          >
            <b>{named?.label ?? inWords(c.variant)}</b>
            <div className="soft" style={{ fontSize: 12 }}>
              {[
                named?.window === undefined ? undefined : edtfInWords(named.window),
                named?.made,
                c.exchanged.length > 0 ? `${c.exchanged.join(', ')} exchanged` : undefined,
              ]
                .filter(Boolean)
                .join(' · ')}
            </div>
            {drawn[i] && (
              <span className="with-inset">
                <PieceDrawing
                  drawing={drawn[i].drawing}
                  emphasis={drawn[i].emphasis}
                  width={drawn[i].inset ? BESIDE_INSET : WIDTH}
                  height={66}
                  label=""
                />
                {drawn[i].inset && <Inset drawing={drawn[i].drawing} frame={drawn[i].inset} />}
              </span>
            )}
            <div className="bar">
              <span style={{ width: `${Math.max(0.5, c.probability * 100)}%`, background: look.colour }} />
            </div>
            <div className="cw">
              <TierMarks filled={look.filled} colour={look.colour} />
              <b>
                {nothingSeen
                  ? 'nothing seen yet'
                  : i === 0 && look.word === 'unlikely'
                    ? 'leads narrowly'
                    : look.word}
              </b>
              <span className="num">{inHundred(c.probability)}</span>
            </div>
          </button>
        );
      })}
      <div className="cand" style={{ cursor: 'default' }}>
        <b>Something not in the reference</b>
        <div className="bar">
          <span
            style={{ width: `${Math.max(0.5, answer.unlisted * 100)}%`, background: 'var(--greyblue)' }}
          />
        </div>
        <div className="cw">
          <TierMarks filled={unlisted.filled} colour="var(--greyblue)" />
          <b>{unlisted.word === 'leads' ? 'more likely than not' : unlisted.word}</b>
          <span className="num">{inHundred(answer.unlisted)}</span>
        </div>
      </div>
      <div
        className="note"
        style={{ borderLeftColor: TIER_LOOK[answer.attribution.tier].colour, marginTop: 8 }}
      >
        <b>{TIER_LOOK[answer.attribution.tier].word}</b>
        {answer.attribution.reasons.join(' ')}
        {answer.attribution.cannotBeProvedBecause.length > 0 && (
          <p className="soft">
            Cannot be proved, because {answer.attribution.cannotBeProvedBecause.join('; ')}.
          </p>
        )}
      </div>
      {answer.putTogether && (
        <div className="note bad" style={{ marginTop: 8 }}>
          <b>Put together from two</b>
          {answer.putTogether.pieces.map((p) => (
            <p key={p.variant}>
              {p.parts.map(inWords).join(', ')}: {names.get(p.variant)?.label ?? inWords(p.variant)}
            </p>
          ))}
          <p className="soft">That is {oddsOf(answer.putTogether.weight)} than any one variant.</p>
        </div>
      )}
      {answer.alerts.map((alert) => (
        <div key={alert.detail} className="note bad" style={{ marginTop: 8 }}>
          <b>{ALERT_WORDS[alert.kind]}</b>
          {alert.detail}
        </div>
      ))}
      <Decision sheet={sheet} answer={answer} chosen={chosen} names={names} saved={saved} />
    </>
  );
}
