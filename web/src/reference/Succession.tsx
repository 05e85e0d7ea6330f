/** What changed from one form of a pattern to the next, each drawn to the same scale; some of them side by side. */
import { edtfInWords } from '@jutbank/core/dates';
import { cardView, drawPiece, insetOf, type Drawing } from '@jutbank/core/drawing';
import { differencesOf, type Pattern, type Variant } from '@jutbank/core/reference';
import type { Vocabulary } from '@jutbank/contract/reference';
import { Button } from '@mui/material';
import { useRef, useState } from 'react';
import { Link } from 'react-router';
import { CellTick } from '../parts/fields/choices.tsx';
import { Inset } from '../parts/Inset.tsx';
import { PieceDrawing } from '../parts/PieceDrawing.tsx';
import { sentence } from '../parts/words.ts';
import { Differences } from './Differences.tsx';
import { recipeOfVariant } from './useForms.ts';

const MOST_COMPARED = 4;
/** px that the longest form is drawn wide */
const DRAWN = 190;

/** @param variants in the order of their years */
export function Succession({
  pattern,
  variants,
  vocabulary,
}: {
  pattern: Pattern;
  variants: readonly Variant[];
  vocabulary: Vocabulary;
}) {
  const [chosen, setChosen] = useState<readonly string[]>([]);
  const beside = useRef<HTMLHeadingElement>(null);
  const compared = variants.filter((v) => chosen.includes(v.id));
  const recipes = variants.map((v) => recipeOfVariant(vocabulary, pattern, v));
  const drawings = recipes.map((r) => drawPiece(r, cardView(r)));
  const longest = Math.max(1, ...drawings.map((d) => d.widthMm));
  // one scale for all, so that a longer form is seen to be longer
  const perMm = (DRAWN - 4) / longest;
  return (
    <section>
      <h2 className="sec">
        What changed <small>each against the one before; tick two to four to compare</small>
      </h2>
      <table className="grid succession">
        <tbody>
          {variants.map((v, i) => (
            <Form
              key={v.id}
              variant={v}
              drawing={drawings[i]}
              before={drawings[i - 1]}
              perMm={perMm}
              changes={changes(variants[i - 1], v, vocabulary)}
              ticked={chosen.includes(v.id)}
              tickable={chosen.includes(v.id) || chosen.length < MOST_COMPARED}
              onTick={(taken) => setChosen(taken ? [...chosen, v.id] : chosen.filter((id) => id !== v.id))}
            />
          ))}
        </tbody>
      </table>
      {compared.length > 1 && (
        <div className="comparebar">
          <Button
            variant="contained"
            onClick={() => {
              beside.current?.scrollIntoView({ block: 'start' });
              beside.current?.focus();
            }}
          >
            Show the {compared.length} side by side
          </Button>
          <Button variant="text" className="quiet" onClick={() => setChosen([])}>
            Untick them
          </Button>
        </div>
      )}
      {compared.length > 1 && (
        <>
          <h2 className="sec" style={{ marginTop: 18 }} ref={beside} tabIndex={-1}>
            Side by side <small>only what differs</small>
          </h2>
          <Differences variants={compared} pattern={pattern} words={vocabulary} />
        </>
      )}
    </section>
  );
}

function changes(before: Variant | undefined, v: Variant, vocabulary: Vocabulary): string {
  if (!before) return 'where it begins';
  const words = differencesOf([before, v]).flatMap((d) => {
    const values = d.kind === 'feature' ? (d.cells[1] ?? []) : [];
    if (d.kind !== 'feature' || values.length === 0) return [];
    const known = vocabulary.features.find((f) => f.id === d.id);
    const said = values
      .map((value) => known?.values?.find((x) => x.id === value)?.label.toLowerCase() ?? String(value))
      .join(' or ');
    return [`${known?.label.toLowerCase() ?? d.id}: ${said}`];
  });
  return words.length === 0 ? 'nothing that can be seen' : words.join('; ');
}

function Form({
  variant: v,
  drawing,
  before,
  perMm,
  changes,
  ticked,
  tickable,
  onTick,
}: {
  variant: Variant;
  drawing: Drawing | undefined;
  /** the form before it */
  before: Drawing | undefined;
  perMm: number;
  changes: string;
  ticked: boolean;
  tickable: boolean;
  onTick: (taken: boolean) => void;
}) {
  const inset = drawing && before && insetOf([before, drawing]);
  return (
    <tr>
      <td style={{ width: 28 }}>
        <CellTick label={`Compare ${v.name}`} value={ticked} disabled={!tickable} onChange={onTick} />
      </td>
      <td className="drawn">
        {drawing && <PieceDrawing drawing={drawing} scale={perMm} width={DRAWN} label="" />}
      </td>
      <td style={{ width: '30%' }}>
        <Link to={`/reference/variants/${v.id}`}>{v.name}</Link>
        <div className="soft" style={{ fontSize: 12 }}>
          {v.window == null ? 'not dated' : edtfInWords(v.window)}
          {v.kind !== 'production' && ` · ${sentence(v.kind).toLowerCase()}`}
        </div>
      </td>
      <td className="soft">
        {changes}
        {drawing && inset && <Inset drawing={drawing} frame={inset} />}
      </td>
    </tr>
  );
}
