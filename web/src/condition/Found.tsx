/** What was found, what each of it costs, and where it is: pinned on the outline or on a picture. */
import { Button } from '@mui/material';
import { CellInput } from '../parts/fields/CellInput.tsx';
import { useCallback, useMemo, useState } from 'react';
import { findingInWords, type Deduction, type Finding } from '@jutbank/core/condition';
import type { ConditionBody, PieceSheet } from '@jutbank/contract/pieces';
import { drawAsFound, foundOn, partDrawnInWords, type DrawingRecipe } from '@jutbank/core/drawing';
import { PieceDrawing } from '../parts/PieceDrawing.tsx';

export function Found({
  sheet,
  body,
  recipe,
  inHand,
  shares,
  may,
  onChange,
}: {
  sheet: PieceSheet;
  body: ConditionBody;
  recipe: DrawingRecipe;
  /** the part that is looked at just now */
  inHand: string | undefined;
  shares: readonly Deduction[] | undefined;
  may: boolean;
  onChange: (findings: Finding[]) => void;
}) {
  const { findings } = body;
  const [surface, setSurface] = useState<string>();
  const [pinning, setPinning] = useState<number>();
  const drawing = useMemo(() => drawAsFound(recipe, findings, 'open'), [recipe, findings]);
  const emphasis = useCallback(
    (drawn: string) => (inHand !== undefined && foundOn(inHand, drawn) ? 'lit' : undefined),
    [inHand],
  );
  /** the part of the drawing that the last pin was put on */
  const [landed, setLanded] = useState<string>();
  const picture = sheet.pictures.find((p) => p.id === surface);
  const here = findings.flatMap((f, i) =>
    f.pin && (f.pin.picture ?? undefined) === picture?.id ? [{ pin: f.pin, i }] : [],
  );
  const put = (i: number, finding: Finding) => onChange(findings.map((f, k) => (k === i ? finding : f)));
  const pin = (x: number, y: number) => {
    const finding = pinning === undefined ? undefined : findings[pinning];
    if (pinning === undefined || !finding) return;
    put(pinning, { ...finding, pin: { picture: picture?.id ?? null, x: rounded(x), y: rounded(y) } });
    setPinning(undefined);
  };
  return (
    <>
      <h2 className="sec">
        What was found{' '}
        <small>{findings.length === 0 ? 'nothing yet' : `${findings.length}, each with what it costs`}</small>
      </h2>
      <div className="surfaces" role="group" aria-label="Where it is shown">
        <Button
          variant="text"
          className="quiet"
          aria-pressed={!picture}
          onClick={() => setSurface(undefined)}
        >
          Drawn
        </Button>
        {sheet.pictures.map((p, i) => (
          <Button
            variant="text"
            key={p.id}
            className="quiet"
            aria-pressed={picture?.id === p.id}
            onClick={() => setSurface(p.id)}
          >
            {p.caption || `Picture ${i + 1}`}
          </Button>
        ))}
      </div>
      <div
        className={pinning === undefined ? 'surface' : 'surface pinning'}
        onClick={(e) => {
          const box = e.currentTarget.getBoundingClientRect();
          pin((e.clientX - box.left) / box.width, (e.clientY - box.top) / box.height);
          const part =
            e.target instanceof Element
              ? e.target.closest('[data-part]')?.getAttribute('data-part')
              : undefined;
          setLanded(
            pinning === undefined || part == null
              ? undefined
              : `Number ${pinning + 1} lies on the ${partDrawnInWords(part)}.`,
          );
        }}
        data-testid="surface"
      >
        {picture ? (
          <img
            src={`/api/v1/pictures/${picture.hash}/full`}
            alt={picture.caption || 'Picture of the piece'}
          />
        ) : (
          <PieceDrawing drawing={drawing} width={560} height={300} emphasis={emphasis} />
        )}
        {here.map(({ pin: at, i }) => (
          <span
            key={i}
            className="pin"
            style={{ left: `${at.x * 100}%`, top: `${at.y * 100}%` }}
            title={findings[i] ? findingInWords(findings[i]) : ''}
          >
            {i + 1}
          </span>
        ))}
      </div>
      <p className="soft" role="status" style={{ minHeight: 18, fontSize: 12.5 }}>
        {pinning === undefined ? landed : `Click where number ${pinning + 1} is.`}
      </p>
      {findings.length === 0 ? (
        <p className="soft">
          {body.inspected
            ? 'Inspected; nothing was found.'
            : 'Answer what is asked on the left. What is found appears here, and on the outline once it is pinned.'}
        </p>
      ) : (
        <ol className="foundlist">
          {findings.map((f, i) => (
            <li key={`${findingInWords(f)} ${i}`}>
              <span className="num soft">{i + 1}</span>
              <span>
                {findingInWords(f)}
                {may && (
                  <CellInput
                    text
                    label={`Note on ${findingInWords({ ...f, note: null })}`}
                    hint="note"
                    value={f.note ?? ''}
                    maxLength={500}
                    onKeep={(note) => put(i, { ...f, note: note || null })}
                  />
                )}
              </span>
              <span className="num soft" title="share of the condition that this costs">
                −{((shares?.[i]?.share ?? 0) * 100).toFixed(1)} %
              </span>
              {may && (
                <>
                  <Button
                    variant="text"
                    className="quiet soft"
                    aria-pressed={pinning === i}
                    onClick={() => setPinning(pinning === i ? undefined : i)}
                  >
                    {f.pin ? 'move pin' : 'pin'}
                  </Button>
                  <Button
                    variant="text"
                    className="quiet"
                    aria-label={`Take away: ${findingInWords(f)}`}
                    onClick={() => onChange(findings.filter((_, k) => k !== i))}
                  >
                    ×
                  </Button>
                </>
              )}
            </li>
          ))}
        </ol>
      )}
    </>
  );
}

const rounded = (x: number) => Math.round(Math.min(1, Math.max(0, x)) * 1000) / 1000;
