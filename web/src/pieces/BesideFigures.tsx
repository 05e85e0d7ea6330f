/** Two photographs of one scale in figures: length, height and area of what lies on each, and how far they are apart. */
import { measureOutline, type OutlineMeasures, type Point, type Region } from '@jutbank/core/imaging';
import { formatQuantity } from '@jutbank/core/units';
import { Button } from '@mui/material';
import { useState } from 'react';
import { rasterOf } from '../parts/measuring/raster.ts';
import { useMeasuring } from '../parts/measuring/useMeasuring.ts';
import { signed } from '../parts/words.ts';
import type { Scaled } from './scaled.ts';

const FIGURES = [
  {
    name: 'Length',
    of: (m: OutlineMeasures) => m.length,
    text: (mm: number) => formatQuantity(mm, 'length', 0.1),
  },
  {
    name: 'Height',
    of: (m: OutlineMeasures) => m.height,
    text: (mm: number) => formatQuantity(mm, 'length', 0.1),
  },
  {
    name: 'Area',
    of: (m: OutlineMeasures) => m.area,
    text: (mm2: number) => `${(mm2 / 100).toFixed(1)} cm²`,
  },
] as const;

const inMm = (picture: Scaled, contour: readonly Point[] | undefined): OutlineMeasures | undefined =>
  contour &&
  measureOutline(contour.map(({ x, y }) => ({ x: x * picture.mmPerPixel, y: y * picture.mmPerPixel })));

/**
 * @param within parts of the pictures in which to look, by picture
 * @param outlines what was found on them, by picture
 */
export function BesideFigures({
  one,
  other,
  within,
  outlines,
  onOutlines,
}: {
  one: Scaled;
  other: Scaled;
  within: Readonly<Record<string, Region | undefined>>;
  outlines: Readonly<Record<string, readonly Point[]>>;
  onOutlines: (outlines: Readonly<Record<string, readonly Point[]>>) => void;
}) {
  const measuring = useMeasuring();
  const [problem, setProblem] = useState<string>();
  const outline = async (picture: Scaled, then: (contour: readonly Point[]) => void) => {
    try {
      const raster = await rasterOf(picture.hash);
      const whole = { x: 0, y: 0, width: raster.width, height: raster.height };
      measuring.findOutline(raster, within[picture.id] ?? whole, [], then);
    } catch (error) {
      setProblem(error instanceof Error ? error.message : String(error));
    }
  };
  const compare = () => {
    setProblem(undefined);
    void outline(
      one,
      (first) => void outline(other, (second) => onOutlines({ [one.id]: first, [other.id]: second })),
    );
  };
  const first = inMm(one, outlines[one.id]);
  const second = inMm(other, outlines[other.id]);
  const wrong = problem ?? measuring.problem;
  if (!first || !second)
    return (
      <p style={{ margin: 0 }}>
        <Button variant="outlined" disabled={measuring.busy !== undefined} onClick={compare}>
          {measuring.busy ? 'Looking for their outlines…' : 'Compare their sizes'}
        </Button>{' '}
        <span className="soft">A box dragged on a picture tells where to look.</span>
        {wrong !== undefined && (
          <span className="problem" role="alert">
            {' '}
            {wrong}
          </span>
        )}
      </p>
    );
  return (
    <>
      <div className="scroll" tabIndex={0} role="region" aria-label="Their sizes">
        <table className="grid">
          <thead>
            <tr>
              <th>By its outline</th>
              <th className="r">This picture</th>
              <th className="r">The other</th>
              <th className="r">The other is</th>
            </tr>
          </thead>
          <tbody>
            {FIGURES.map(({ name, of, text }) => (
              <tr key={name}>
                <th scope="row">{name}</th>
                <td className="r num">{text(of(first))}</td>
                <td className="r num">{text(of(second))}</td>
                <td className="r num">{signed(100 * (of(second) / of(first) - 1), 1)} %</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <p className="soft">
        Of what is outlined on each picture. Where that is not the piece, drag a box around it and compare
        again.
      </p>
    </>
  );
}
