/** One drawn picture measured as the screen would: scale, outline, comparison with the unworn one. */
import type { Random } from '@jutbank/core/random';
import { bladeOutline, type BladeSize, type BladeWear } from '@jutbank/core/drawing';
import {
  compareOutlines,
  measureOutline,
  planeFromCard,
  planeFromRule,
  segment,
  type Point,
} from '@jutbank/core/imaging';
import { drawBlade, type View } from './drawn.ts';

export interface Errors {
  /** of the true length, in percent */
  readonly length: number;
  readonly area: number;
  /** measured less true loss of area, in points */
  readonly loss: number;
  readonly trueLoss: number;
}

/** How well a person clicks in an enlarged picture, one standard deviation in pixels either way. */
const CLICKS = 0.4;
const clicked = (p: Point, luck: Random): Point => ({
  x: p.x + CLICKS * luck.normal(),
  y: p.y + CLICKS * luck.normal(),
});

export function measureDrawn(
  size: BladeSize,
  wear: BladeWear,
  view: View,
  by: 'rule' | 'card',
  luck: Random,
): Errors | undefined {
  const drawn = drawBlade(size, wear, view, luck);
  const plane =
    by === 'rule'
      ? planeFromRule(clicked(drawn.rule[0], luck), clicked(drawn.rule[1], luck), 50)
      : planeFromCard(drawn.card.map((p) => clicked(p, luck)));
  if (!plane.ok) return undefined;
  const found = segment(drawn.raster, { x: 0, y: 0, width: view.width, height: view.height });
  const own = found && measureOutline(found.contour.map(plane.value.toMm));
  const unworn = bladeOutline(size);
  const truth = measureOutline(bladeOutline(size, wear, 600));
  const whole = measureOutline(unworn);
  const compared = own && compareOutlines(unworn, own.laid);
  if (!own || !truth || !whole || !compared) return undefined;
  const trueLoss = 100 * (1 - truth.area / whole.area);
  return {
    length: 100 * (own.length / truth.length - 1),
    area: 100 * (own.area / truth.area - 1),
    loss: compared.loss.percent - trueLoss,
    trueLoss,
  };
}
