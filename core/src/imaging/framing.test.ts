import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { FRAME_PROPORTIONS, frameAt, inFrame, pixelsOf, scaleBar, wholeFrame } from './framing.ts';

const size = fc.record({
  width: fc.integer({ min: 40, max: 4000 }),
  height: fc.integer({ min: 40, max: 4000 }),
});

describe('a frame', () => {
  test('keeps its proportions and stays inside, wherever it is dragged', () =>
    fc.assert(
      fc.property(
        size,
        fc.record({
          x: fc.double({ min: -2, max: 2, noNaN: true }),
          y: fc.double({ min: -2, max: 2, noNaN: true }),
          width: fc.double({ min: 0, max: 3, noNaN: true }),
        }),
        (of, wanted) => {
          const frame = frameAt(of, wanted);
          expect((frame.width * of.width) / (frame.height * of.height)).toBeCloseTo(FRAME_PROPORTIONS, 6);
          expect(Math.min(frame.x, frame.y)).toBeGreaterThanOrEqual(0);
          expect(Math.max(frame.x + frame.width, frame.y + frame.height)).toBeLessThanOrEqual(1 + 1e-9);
          const px = pixelsOf(of, frame);
          expect(px.left + px.width).toBeLessThanOrEqual(of.width);
          expect(px.top + px.height).toBeLessThanOrEqual(of.height);
        },
      ),
    ));
  test('the largest one lies in the middle of a picture that is wider than it', () =>
    expect(wholeFrame({ width: 1600, height: 600 })).toEqual({ x: 0.25, y: 0, width: 0.5, height: 1 }));
  test('a pin moves with it, or is left out', () => {
    const frame = { x: 0.5, y: 0.25, width: 0.5, height: 0.5 };
    expect(inFrame({ x: 0.75, y: 0.5 }, frame)).toEqual({ x: 0.5, y: 0.5 });
    expect(inFrame({ x: 0.25, y: 0.5 }, frame)).toBeUndefined();
    expect(inFrame({ x: 0.25, y: 0.5 }, null)).toEqual({ x: 0.25, y: 0.5 });
  });
});

describe('a scale bar', () => {
  test('the longest round length that takes no more than three tenths', () => {
    // 1000 px at 0.1 mm: 100 mm wide, so 30 mm at most
    expect(scaleBar(1000, 0.1)).toEqual({ mm: 20, pixels: 200 });
    expect(scaleBar(2000, 0.1)).toEqual({ mm: 50, pixels: 500 });
  });
  test('none where nothing fits, or where there is no scale', () => {
    expect(scaleBar(10, 1)).toEqual({ mm: 2, pixels: 2 });
    expect(scaleBar(3, 1)).toBeUndefined();
    expect(scaleBar(1000, 0)).toBeUndefined();
  });
});
