/** What a blade has lost: its outline laid on that of its pattern when new. */
import type { PictureRecord, PieceSheet } from '@jutbank/contract/pieces';
import type { Finding } from '@jutbank/core/condition';
import type { Comparison, Point } from '@jutbank/core/imaging';
import { Button, ButtonBase } from '@mui/material';
import { useState } from 'react';
import { Loading } from '../base/states.tsx';
import { usePattern } from '../reference/vocabulary.ts';
import type { useMeasuring } from '../parts/measuring/useMeasuring.ts';

/** Two outlines that fit worse than this, in mm, are not of one blade. */
const POOR_FIT = 1;

/** The worn blade laid on the pattern's outline when new: what is missing, where, and how much. */
export function Loss({
  sheet,
  picture,
  outline,
  measured,
  measuring,
  comparison,
  onCompared,
  onFinding,
}: {
  sheet: PieceSheet;
  picture: PictureRecord;
  outline: readonly Point[];
  measured: readonly Point[];
  measuring: ReturnType<typeof useMeasuring>;
  comparison: Comparison | undefined;
  onCompared: (c: Comparison) => void;
  /** takes it into the inspection; absent while that is closed */
  onFinding: ((finding: Finding) => void) | undefined;
}) {
  const [kept, setKept] = useState(false);
  const pattern = usePattern(sheet.attribution?.pattern);
  const reference = pattern.data?.pattern.outline?.map(([x, y]) => ({ x, y }));
  if (!sheet.attribution)
    return (
      <p className="soft">Decide on the bench which pattern it is: its outline when new is laid beside it.</p>
    );
  if (pattern.isPending) return <Loading />;
  if (!reference)
    return (
      <p className="soft">
        The reference has no outline of {pattern.data?.pattern.name ?? 'this pattern'} when new. It can be
        written on the pattern’s page.
      </p>
    );
  const keep = () => {
    if (!comparison) return;
    const { loss, tip, edge, spine } = comparison;
    const middle = outline.reduce((sum, p) => ({ x: sum.x + p.x, y: sum.y + p.y }), { x: 0, y: 0 });
    const finding: Finding = {
      part: 'blade',
      defect: 'blade-loss',
      measure: Number(loss.percent.toFixed(1)),
      note: `measured from a picture: tip ${tip.mm2.toFixed(0)}, edge ${edge.mm2.toFixed(0)}, spine ${spine.mm2.toFixed(0)} mm²`,
      pin: {
        picture: picture.id,
        x: Number((middle.x / outline.length / picture.width).toFixed(3)),
        y: Number((middle.y / outline.length / picture.height).toFixed(3)),
      },
    };
    onFinding?.(finding);
    setKept(true);
  };
  const xs = reference.map((p) => p.x);
  const ys = reference.map((p) => p.y);
  const box = [
    Math.min(...xs) - 3,
    Math.min(...ys) - 3,
    Math.max(...xs) + 6,
    Math.max(...ys) - Math.min(...ys) + 6,
  ];
  return (
    <>
      <h2 className="sec" style={{ marginTop: 12 }}>
        Against {pattern.data?.pattern.name} when new
      </h2>
      <ButtonBase
        className="chip"
        disabled={measuring.busy !== undefined}
        onClick={() => {
          setKept(false);
          measuring.compare(reference, measured, onCompared);
        }}
      >
        Lay it on the outline
      </ButtonBase>
      {comparison && (
        <>
          <svg className="lossmap" viewBox={box.join(' ')} role="img" aria-label="What is missing">
            <polygon points={reference.map((p) => `${p.x},${p.y}`).join(' ')} className="whole" />
            {comparison.missing.map((p) => (
              <rect key={`${p.x} ${p.y}`} x={p.x} y={p.y} width={comparison.cell} height={comparison.cell} />
            ))}
            <polygon points={comparison.aligned.map((p) => `${p.x},${p.y}`).join(' ')} className="own" />
          </svg>
          <p>
            <b className="num">{comparison.loss.percent.toFixed(1)} %</b> lost,{' '}
            {comparison.loss.mm2.toFixed(0)} mm²: tip {comparison.tip.mm2.toFixed(0)}, edge{' '}
            {comparison.edge.mm2.toFixed(0)}, spine {comparison.spine.mm2.toFixed(0)} mm².{' '}
            <span className="soft">The rest fits to {comparison.fit.toFixed(2)} mm.</span>
          </p>
          {comparison.fit > POOR_FIT ? (
            <p className="problem" role="alert">
              These two do not belong together: look whether the outline is the blade, and whose pattern it
              is.
            </p>
          ) : kept ? (
            <p role="status">Kept as a finding, with this picture.</p>
          ) : onFinding ? (
            <Button onClick={keep}>Keep as a finding</Button>
          ) : (
            <p className="soft">The inspection is finished: open it again to add a finding.</p>
          )}
        </>
      )}
    </>
  );
}
