import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { bladeOutline, BLADE_SHAPES } from '../drawing/index.ts';
import { CARD, measureLine, planeFromCard, planeFromRule, type Plane, type Point } from './plane.ts';
import { compareOutlines } from './compare.ts';
import { measureOutline } from './outline.ts';
import { otsu, segment, type Raster } from './segment.ts';

const plane = (made: ReturnType<typeof planeFromRule>): Plane => {
  if (!made.ok) throw new Error(made.error.message);
  return made.value;
};

describe('scale', () => {
  test('two clicks on a rule give millimetres and how sure they are', () => {
    const rule = plane(planeFromRule({ x: 100, y: 50 }, { x: 600, y: 50 }, 50));
    expect(rule.mmPerPixel).toBeCloseTo(0.1, 12);
    expect(rule.relative).toBeCloseTo((Math.SQRT2 * 0.8) / 500, 12);
    const line = measureLine(rule, { x: 0, y: 0 }, { x: 300, y: 400 });
    expect(line.mm).toBeCloseTo(50, 9);
    // 1.96 × √((50 × 0.00226)² + (√2 × 0.8 × 0.1)²) = 0.314
    expect(line.plusMinus).toBeCloseTo(0.314, 3);
  });
  test('a card’s corners undo the tilt, whichever corner was first and whichever way round', () => {
    const tilted = (p: Point): Point => {
      const w = 1 + 0.001 * p.x - 0.0006 * p.y;
      return { x: (80 + 7 * p.x + 0.4 * p.y) / w, y: (60 - 0.3 * p.x + 6.6 * p.y) / w };
    };
    const corners = [
      { x: 0, y: 0 },
      { x: CARD.width, y: 0 },
      { x: CARD.width, y: CARD.height },
      { x: 0, y: CARD.height },
    ].map(tilted);
    const [a, b] = [tilted({ x: 10, y: 5 }), tilted({ x: 70, y: 45 })];
    for (const start of [0, 1, 2, 3])
      for (const way of [1, -1]) {
        const order = [0, 1, 2, 3].map((i) => corners[(start + way * i + 8) % 4] ?? a);
        expect(measureLine(plane(planeFromCard(order)), a, b).mm).toBeCloseTo(Math.hypot(60, 40), 6);
      }
  });
  test('clicks that cannot be measured by are refused in words', () => {
    const said = (made: ReturnType<typeof planeFromRule>) => (made.ok ? '' : made.error.message);
    expect(said(planeFromRule({ x: 0, y: 0 }, { x: 3, y: 0 }, 50))).toContain('too near');
    expect(said(planeFromRule({ x: 0, y: 0 }, { x: 300, y: 0 }, 0))).toContain('above 0');
    const square = [
      { x: 0, y: 0 },
      { x: 100, y: 0 },
      { x: 0, y: 60 },
      { x: 100, y: 60 },
    ];
    expect(said(planeFromCard(square))).toContain('cross over');
    expect(said(planeFromCard(square.slice(0, 3)))).toContain('four corners');
  });
});

describe('an outline', () => {
  test('a turned rectangle measures what it is', () => {
    const [cos, sin] = [Math.cos(0.6), Math.sin(0.6)];
    const corner = (x: number, y: number) => ({ x: 30 + x * cos - y * sin, y: -12 + x * sin + y * cos });
    const measured = measureOutline([corner(0, 0), corner(80, 0), corner(80, 12), corner(0, 12)]);
    expect(measured?.length).toBeCloseTo(80, 6);
    expect(measured?.height).toBeCloseTo(12, 6);
    expect(measured?.area).toBeCloseTo(960, 6);
    for (const s of measured?.stations ?? []) expect(s.height).toBeCloseTo(12, 6);
    expect(measured?.stations).toHaveLength(10);
  });
  test('nothing, a line or two points measure nothing', () => {
    expect(measureOutline([])).toBeUndefined();
    expect(measureOutline([{ x: 0, y: 0 }, { x: 5, y: 5 }])).toBeUndefined(); // prettier-ignore
  });
});

describe('against the reference outline', () => {
  test.each(BLADE_SHAPES)('%s: an unworn blade has lost nothing, however it lies', (shape) => {
    const size = { shape, length: 82, height: 18 };
    const outline = bladeOutline(size);
    const turned = outline.map((p) => ({ x: -p.x * 0.8 + p.y * 0.6, y: p.x * 0.6 + p.y * 0.8 }));
    expect(compareOutlines(outline, turned)?.loss.percent).toBeLessThan(0.6);
  });
  test('what was lost is told by place, near its true area', () => {
    const size = { shape: 'spear' as const, length: 80, height: 18 };
    const whole = measureOutline(bladeOutline(size))?.area ?? 0;
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 6, noNaN: true }),
        fc.double({ min: 0, max: 2.5, noNaN: true }),
        (tip, edge) => {
          const worn = bladeOutline(size, { tip, edge, spine: 0 });
          const lost = 100 * (1 - (measureOutline(worn)?.area ?? 0) / whole);
          const found = compareOutlines(bladeOutline(size), worn);
          expect(Math.abs((found?.loss.percent ?? 0) - lost)).toBeLessThan(1.2);
          const {
            tip: t,
            edge: e,
            spine: s,
          } = found ?? { tip: { mm2: 0 }, edge: { mm2: 0 }, spine: { mm2: 0 } };
          expect(t.mm2 + e.mm2 + s.mm2).toBeCloseTo(found?.loss.mm2 ?? -1, 6);
        },
      ),
      { numRuns: 12 },
    );
  });
});

function drawn(width: number, height: number, inside: (x: number, y: number) => boolean): Raster {
  const data = new Uint8ClampedArray(4 * width * height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const light = 1 - (0.25 * x) / width;
      const v = (inside(x, y) ? 120 : 225) * light;
      data.set([v, v, v, 255], 4 * (y * width + x));
    }
  return { width, height, data };
}

describe('blade from ground', () => {
  test('a bar in uneven light is found to a fraction of a pixel, its hole filled', () => {
    const raster = drawn(
      400,
      200,
      (x, y) => x >= 60 && x < 340 && y >= 80 && y < 120 && Math.hypot(x - 200, y - 100) > 8,
    );
    const found = segment(raster, { x: 0, y: 0, width: 400, height: 200 });
    const measured = measureOutline(found?.contour ?? []);
    expect(measured?.length).toBeGreaterThan(278);
    expect(measured?.length).toBeLessThan(282);
    expect(Math.abs((measured?.area ?? 0) / (280 * 40) - 1)).toBeLessThan(0.02);
  });
  test('an even picture has no outline, and says so', () => {
    expect(
      segment(
        drawn(120, 80, () => false),
        { x: 0, y: 0, width: 120, height: 80 },
      ),
    ).toBeUndefined();
  });
  test('Otsu parts two heaps between them', () => {
    const { threshold, strength } = otsu(
      Float32Array.from({ length: 200 }, (_, i) => (i % 2 ? 10 : 1) + (i % 7) / 10),
    );
    expect(threshold).toBeGreaterThan(1.6);
    expect(threshold).toBeLessThan(10);
    expect(strength).toBeGreaterThan(0.9);
  });
});
