/** What a picture told, kept: a length as a reading of the bench, its scale as a bar on the picture. */
import { benchRoutes } from '@jutbank/contract/bench';
import type { PictureRecord, PieceSheet } from '@jutbank/contract/pieces';
import type { Observation } from '@jutbank/core/bench';
import { formatQuantity } from '@jutbank/core/units';
import { Button } from '@mui/material';
import { useState } from 'react';
import { ApiProblem, send } from '../base/api.ts';
import { CellSelect } from '../parts/fields/choices.tsx';
import { usePictures } from '../pieces/usePictures.ts';
import { inLine, useTakeSheet } from '../pieces/usePiece.ts';
import { useVocabulary } from '../reference/vocabulary.ts';

/** The picture goes out with a scale bar from then on. */
export function KeepScale({
  sheet,
  picture,
  mmPerPixel,
}: {
  sheet: PieceSheet;
  picture: PictureRecord;
  mmPerPixel: number;
}) {
  const { change, busy, problem } = usePictures(sheet);
  if (picture.mmPerPixel === mmPerPixel) return <>It goes out with a scale bar.</>;
  return (
    <>
      <Button
        variant="text"
        className="quiet"
        disabled={busy}
        onClick={() => change(picture.id, { mmPerPixel })}
      >
        Give the picture a scale bar
      </Button>
      {problem !== undefined && <span className="problem">{problem}</span>}
    </>
  );
}

/** Takes a length over as what the bench measured, with the picture named as where it comes from. */
export function KeepLength({
  sheet,
  mm,
  plusMinus,
  may,
}: {
  sheet: PieceSheet;
  mm: number;
  plusMinus: number;
  may: boolean;
}) {
  const vocabulary = useVocabulary();
  const takeSheet = useTakeSheet();
  const [kept, setKept] = useState<string>();
  const [problem, setProblem] = useState<string>();
  const features = (vocabulary.data?.features ?? []).filter(
    (f) =>
      f.kind === 'measure' &&
      (f.unit ?? 'mm') === 'mm' &&
      (f.constructions == null || f.constructions.includes(sheet.intake.construction)),
  );
  if (!may || features.length === 0) return null;
  const keep = (feature: string) => {
    const resolution = Math.max(0.1, Number(plusMinus.toFixed(1)));
    const measure = Number((Math.round(mm / 0.1) * 0.1).toFixed(1));
    const observation: Observation = { feature, measure, resolution, text: `${measure} mm from a picture` };
    const others = sheet.observations.filter((o) => !('feature' in o) || o.feature !== feature);
    inLine(sheet.id, () =>
      send(benchRoutes.putObservations, {
        params: { id: sheet.id },
        body: { observations: [...others, observation] },
        version: sheet.version,
      }),
    ).then(
      (fresh) => {
        takeSheet(fresh);
        setKept(features.find((f) => f.id === feature)?.label ?? feature);
        setProblem(undefined);
      },
      (error: unknown) => setProblem(error instanceof ApiProblem ? error.message : String(error)),
    );
  };
  if (kept !== undefined)
    return (
      <span className="soft">
        kept as {kept.toLowerCase()}, {formatQuantity(mm, 'length', Math.max(0.1, plusMinus))}
      </span>
    );
  return (
    <>
      <CellSelect
        label="Keep as"
        value={null}
        none="keep as…"
        options={features.map((f) => ({ value: f.id, label: f.label }))}
        onChange={(feature) => feature !== null && keep(feature)}
      />
      {problem !== undefined && <span className="problem">{problem}</span>}
    </>
  );
}
