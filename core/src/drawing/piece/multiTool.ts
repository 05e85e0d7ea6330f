/** A multi-tool: blades and tools at both ends, a corkscrew and a spike at the back, a shackle at the butt. */
import type { Form } from '../geometry/form.ts';
import {
  arc,
  closed,
  ellipse,
  lerp,
  polyline,
  smooth,
  strap,
  turned,
  type Knot,
  type Move,
  type Point,
} from '../geometry/path.ts';
import { bladeStyles, drawBlade } from './blade.ts';
import { drawLanyard, drawShackle, drawShield } from './fittings.ts';
import { handleOf } from './handles.ts';
import { stateOf, type DrawingRecipe } from './recipe.ts';
import { DETAIL, type Pencil, type Sheet } from './sheet.ts';
import { OPENED, seatOf, type Stand } from './slipjoint.ts';
import { drawRoundness, drawTexture } from './texture.ts';
import { paintOfLiner, paintOfScales } from './tint.ts';

/** Outlines in a tool's own frame, as a blade's: the pin at the origin, the end at `n`, the back at `s`. */
const TOOLS: Readonly<Record<'opener' | 'driver' | 'saw', (n: number, s: number) => Knot[]>> = {
  opener: (n, s) => [
    [8.5, s, 'corner'],
    [n - 9, s, 'corner'],
    [n - 6.5, s - 0.6],
    [n - 1.2, s - 0.9, 'corner'],
    [n, s - 3.4, 'corner'],
    [n - 0.4, s - 5.6],
    [n - 3, s - 6.2, 'corner'],
    [n - 4.6, s - 4.6],
    [n - 7.2, s - 4.8],
    [n - 8.6, s - 7.4],
    [n - 8.2, s - 9.6, 'corner'],
    [n - 15, s - 10],
    [9, s - 10, 'corner'],
  ],
  driver: (n, s) => [
    [8.5, s, 'corner'],
    [n - 13, s, 'corner'],
    [n - 10, s - 1.4],
    [n, s - 2.2, 'corner'],
    [n, s - 7.4, 'corner'],
    [n - 7, s - 8],
    [n - 9, s - 9.4],
    [n - 12, s - 10],
    [9, s - 10, 'corner'],
  ],
  saw: (n, s) => [
    [8.5, s, 'corner'],
    [n - 5, s],
    [n, s - 2.2, 'corner'],
    [n, s - 8.2, 'corner'],
    ...Array.from({ length: Math.floor((n - 13) / 1.5) }, (_, i): Knot => [
      n - 1 - i * 1.5 - (i % 2 ? 0.75 : 0),
      s - (i % 2 ? 7.8 : 9),
      'corner',
    ]),
    [10, s - 9, 'corner'],
  ],
};

export function drawMultiTool(sheet: Sheet, recipe: DrawingRecipe, stand: Stand): void {
  const { styles, handleLength: length, handleHeight: height } = recipe;
  const handle = handleOf(recipe, 'equal-end');
  // a ring or bar hangs beside the shackle
  drawLanyard(
    sheet.part('lanyard', stateOf(recipe, 'lanyard')),
    styles.lanyard ?? 'none',
    [0.6, height * 0.2],
    -1,
  );
  drawShackle(sheet.part('shackle', stateOf(recipe, 'shackle')), styles.shackle ?? 'none', [
    0.4,
    -height * 0.12,
  ]);
  drawTools(sheet, recipe, handle, stand);
  drawBackTools(sheet, recipe, handle, stand === OPENED);
  const plates = sheet.part('liner', stateOf(recipe, 'liner'));
  plates.area(handle.inset(-0.5, 0.8).region(), paintOfLiner(styles.liner), 'secondary');
  const texture = styles.scales ?? 'smooth';
  const state = stateOf(recipe, 'scales');
  sheet.kept(handle, ['scales', texture, styles.tint, state], () => {
    const scales = sheet.part('scales', state);
    scales.area(handle.region(), paintOfScales(texture, styles.tint));
    drawTexture(scales, texture, handle, 2, length - 2);
    drawRoundness(scales, handle, 1, length - 1, 4);
    scales.anchor([length * 0.6, handle.middle(length * 0.6)]);
  });
  const pins = sheet.part('pins', recipe.handleState);
  for (const x of [seatOf(handle, height, 'rear').x, length * 0.5, seatOf(handle, height, 'front').x])
    pins.area(
      ellipse(x, handle.middle(x) + (x === length * 0.5 ? height * 0.3 : 0), 1.15),
      'nickel',
      'secondary',
    );
  drawShield(
    sheet.part('shield', stateOf(recipe, 'shield')),
    styles.shield ?? 'none',
    length * 0.32,
    handle.middle(length * 0.32),
    0.9,
  );
}

/** Tools share the pins with the blades: the opener behind the butt, saw and driver where there is room. */
function drawTools(sheet: Sheet, recipe: DrawingRecipe, handle: Form, stand: Stand): void {
  const { styles, handleLength: length, handleHeight: height } = recipe;
  const open = stand === OPENED;
  const tools = [
    { tool: 'saw', slot: 'saw', end: 'front', share: 0.62, stands: 132 },
    { tool: 'driver', slot: 'driver', end: 'rear', share: 0.5, stands: 118 },
    {
      tool: 'opener',
      slot: 'can-opener',
      end: 'rear',
      share: styles['can-opener'] === 'long' ? 0.5 : 0.42,
      stands: 152,
    },
  ] as const;
  for (const { tool, slot, end, share, stands } of tools) {
    const style = styles[slot] ?? 'none';
    if (style === 'none') continue;
    const seat = seatOf(handle, height, end);
    sheet.through(turned(180 + (open ? stands : 0), seat.x, seat.y, seat.mirror), () => {
      const n = seat.toEnd + length * share;
      const pencil = sheet.part(`tool:${tool}`, stateOf(recipe, slot));
      pencil.area(
        closed(
          arc(0, 0, Math.min(5.2, seat.tang), 90, 270),
          smooth([...TOOLS[tool](n, seat.back)].reverse()),
        ),
        'steel',
      );
      if (tool === 'driver')
        pencil.line(
          polyline([
            [n - (style === 'wide' ? 6 : 3.5), seat.back - 2.2],
            [n - (style === 'wide' ? 6.4 : 3.9), seat.back - 7.4],
          ]),
          'fine',
        );
      if (tool === 'opener' && (styles.pull ?? 'none') !== 'none')
        pencil.area(ellipse(n * 0.5, seat.back - 1.6, 2.6, 0.7), 'cut', 'secondary');
      pencil.anchor([n * 0.8, seat.back - 5]);
    });
  }
  const order = recipe.blades
    .map((blade, index) => ({ blade, index }))
    .sort((a, b) => b.blade.layer - a.blade.layer);
  for (const { blade, index } of order) {
    const seat = seatOf(handle, height, blade.end);
    const angle = stand(blade, index, recipe.blades);
    const move: Move = turned(180 + angle, seat.x, seat.y, seat.mirror);
    sheet.through(move, () => {
      drawBlade(sheet, {
        part: `blade:${index + 1}`,
        state: blade.state,
        form: blade.form,
        reach: seat.toEnd + blade.length,
        height: Math.min(blade.height ?? height * 0.66, height * 0.7),
        back: seat.back,
        heel: seat.toEnd + 9,
        tang: { radius: seat.tang, square: false, choil: 'notch' },
        styles: bladeStyles(styles),
        fullness: blade.fullness,
        stamp: index === 0 && angle > 80 ? recipe.stamp : undefined,
        stampAt: seat.toEnd + 4.8,
        outline: index === 0 ? recipe.bladeOutline : undefined,
      });
    });
  }
}

function drawBackTools(sheet: Sheet, recipe: DrawingRecipe, handle: Form, open: boolean): void {
  const { styles, handleLength: length } = recipe;
  const corkscrew = styles.corkscrew ?? 'none';
  if (corkscrew !== 'none') {
    const x = length * 0.5;
    sheet.through(turned(open ? 90 : 0, x, handle.bottom(x) - (open ? 2.4 : 0.6)), () => {
      drawCorkscrew(sheet.part('tool:corkscrew', stateOf(recipe, 'corkscrew')), corkscrew);
    });
  }
  const spike = styles.spike ?? 'none';
  if (spike === 'none') return;
  const [x, long] = [length * 0.84, length * 0.55];
  sheet.through(turned(open ? 58 : 0, x, handle.bottom(x) - (open ? 2.4 : 0.4), -1), () => {
    const pencil = sheet.part('tool:spike', stateOf(recipe, 'spike'));
    const sides: Knot[] =
      spike === 'tapered'
        ? [
            [-2.5, -1.9, 'corner'],
            [6, -2.2],
            [long * 0.55, -1.5],
            [long, 0.6, 'corner'],
            [long * 0.55, 2],
            [6, 2.4],
            [-2.5, 2, 'corner'],
          ]
        : [
            [-2.5, -1.9, 'corner'],
            [6, -2.2],
            [long * 0.42, -2.1, 'corner'],
            [long * 0.44, -1.2, 'corner'],
            [long * 0.72, -1, 'corner'],
            [long * 0.74, -0.4, 'corner'],
            [long, 0.6, 'corner'],
            [long * 0.74, 1.3, 'corner'],
            [long * 0.44, 1.7, 'corner'],
            [long * 0.42, 2.3, 'corner'],
            [-2.5, 2, 'corner'],
          ];
    pencil.area(closed(smooth(sides), arc(-2.5, 0, 2, 100, 260)), 'steel', 'secondary').line(
      polyline([
        [7, 0.5],
        [long - 4, 0.7],
      ]),
      'fine',
      DETAIL.texture,
    );
  });
}

/** A wire wound about an axis: its far turns first, then the near ones over them. */
function drawCorkscrew(pencil: Pencil, style: 'four-turns' | 'five-turns' | 'fluted'): void {
  const turns = style === 'four-turns' ? 4 : 5;
  const [from, to, radius] = [9, 34, 3];
  pencil.area(
    closed(
      polyline([
        [-2.6, -1.7],
        [from, -1.25],
        [from, 1.25],
        [-2.6, 1.7],
      ]),
    ),
    'steel',
    'secondary',
  );
  const half = (turn: number, near: boolean) => {
    const points = Array.from({ length: 7 }, (_, i): Point => {
      const share = (turn + (near ? 0.5 : 0) + i / 12) / turns;
      const r = radius * Math.min(1, 0.2 + share * 6) * (share > 0.93 ? 1 - (share - 0.93) * 6 : 1);
      return [lerp(from, to, share), r * Math.cos(share * turns * 2 * Math.PI)];
    });
    return strap(points, () => (turn === turns - 1 && near ? 0.9 : 1.5));
  };
  const each = (near: boolean) => Array.from({ length: turns }, (_, i) => half(i, near));
  for (const run of each(false)) pencil.area(run, 'spring', 'secondary');
  for (const run of each(true)) pencil.area(run, 'steel', 'secondary');
  if (style === 'fluted')
    pencil.line(
      polyline([
        [from + 1, 0],
        [to - 4, 0],
      ]),
      'fine',
    );
  pencil.anchor([to * 0.7, 0]);
}
