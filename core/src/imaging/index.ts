export * from './compare.ts';
export * from './outline.ts';
export {
  CARD,
  CLICK_SD,
  distance,
  measureLine,
  planeFromCard,
  planeFromRule,
  type MeasuredLine,
  type Plane,
  type Point,
} from './plane.ts';
export { otsu, segment, type Progress, type Raster, type Region, type Segmented } from './segment.ts';
export * from './framing.ts';
