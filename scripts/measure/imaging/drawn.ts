/** Pictures drawn with known truth: a blade on a ground, seen by a camera that may tilt, in uneven, noisy light. */
import type { Random } from '@jutbank/core/random';
import { bladeAt, type BladeSize, type BladeWear } from '@jutbank/core/drawing';
import { CARD, type Point, type Raster } from '@jutbank/core/imaging';

export interface View {
  readonly width: number;
  readonly height: number;
  /** how far the camera stands off, and how many pixels a millimetre is straight ahead */
  readonly away: number;
  readonly pixelsPerMm: number;
  /** degrees by which the table tips away from the camera */
  readonly tilt: number;
  /** degrees by which the blade lies turned on the table */
  readonly turned: number;
  /** standard deviation of noise, 0–255 */
  readonly noise: number;
  /** how much darker one corner is than the other, 0–1 */
  readonly uneven: number;
  readonly ground: readonly [number, number, number];
  readonly steel: readonly [number, number, number];
}

export interface Drawn {
  readonly raster: Raster;
  /** ends of a rule of 50 mm lying straight ahead */
  readonly rule: readonly [Point, Point];
  readonly card: readonly Point[];
}

const radians = (degrees: number) => (degrees * Math.PI) / 180;

/** Where a point of the table, in mm about the middle, comes to lie in the picture. */
function seen(view: View, p: Point): Point {
  const [cos, sin] = [Math.cos(radians(view.tilt)), Math.sin(radians(view.tilt))];
  const deep = view.away + p.y * sin;
  const focal = view.pixelsPerMm * view.away;
  return { x: view.width / 2 + (focal * p.x) / deep, y: view.height / 2 + (focal * p.y * cos) / deep };
}

/** The point of the table that a place in the picture shows. */
function onTable(view: View, u: number, v: number): Point {
  const [cos, sin] = [Math.cos(radians(view.tilt)), Math.sin(radians(view.tilt))];
  const focal = view.pixelsPerMm * view.away;
  const down = (v - view.height / 2) / focal;
  const y = (down * view.away) / (cos - down * sin);
  return { x: ((u - view.width / 2) * (view.away + y * sin)) / focal, y };
}

/** Four places within a pixel are looked at, so that edges come out soft as in a photograph. */
const WITHIN = [
  [0.25, 0.25],
  [0.75, 0.25],
  [0.25, 0.75],
  [0.75, 0.75],
] as const;

export function drawBlade(size: BladeSize, wear: BladeWear, view: View, luck: Random): Drawn {
  const { width, height } = view;
  const data = new Uint8ClampedArray(4 * width * height);
  const [cos, sin] = [Math.cos(radians(view.turned)), Math.sin(radians(view.turned))];
  const isSteel = (p: Point) => {
    const x = p.x * cos + p.y * sin + size.length / 2;
    const y = -p.x * sin + p.y * cos + size.height / 2;
    const there = bladeAt(size, wear, x);
    return there !== undefined && y >= there.spine && y <= there.edge;
  };
  for (let v = 0; v < height; v++)
    for (let u = 0; u < width; u++) {
      const share =
        WITHIN.reduce((n, [du, dv]) => n + (isSteel(onTable(view, u - 0.5 + du, v - 0.5 + dv)) ? 1 : 0), 0) /
        4;
      const light = 1 - view.uneven * ((0.7 * u) / width + (0.3 * v) / height);
      const at = 4 * (v * width + u);
      for (let c = 0; c < 3; c++) {
        const colour = share * (view.steel[c] ?? 0) + (1 - share) * (view.ground[c] ?? 0);
        data[at + c] = colour * light + view.noise * luck.normal();
      }
      data[at + 3] = 255;
    }
  const corner = (x: number, y: number) => seen(view, { x: x * CARD.width, y: 45 + y * CARD.height });
  return {
    raster: { width, height, data },
    rule: [seen(view, { x: -25, y: 0 }), seen(view, { x: 25, y: 0 })],
    card: [corner(-0.5, -0.5), corner(0.5, -0.5), corner(0.5, 0.5), corner(-0.5, 0.5)],
  };
}
