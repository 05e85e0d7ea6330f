/** The forms of blades: back and edge as shares of length and height. */
import type { Knot } from '../geometry/path.ts';
import type { BladeForm } from './vocabulary.ts';

/** Back and edge from heel to tip: along it 0–1, across it 0 at the back and 1 at the edge. */
export interface Outline {
  readonly back: readonly Knot[];
  readonly edge: readonly Knot[];
  /** where a false edge is ground on the back */
  readonly swedge?: readonly [from: number, to: number];
  /** the tip is measured in heights, not in lengths: from this share of the way on, so many heights long */
  readonly tip?: readonly [from: number, heights: number];
  readonly ridge?: true;
}
export const OUTLINES: Readonly<Record<BladeForm, Outline>> = {
  clip: {
    back: [
      [0, 0],
      [0.56, 0, 'corner'],
      [0.64, 0.085],
      [0.74, 0.21],
      [0.86, 0.345],
      [1, 0.46],
    ],
    edge: [
      [0, 1],
      [0.52, 1],
      [0.68, 0.975],
      [0.82, 0.88],
      [0.92, 0.72],
      [1, 0.46],
    ],
    swedge: [0.57, 0.93],
  },
  'long-clip': {
    back: [
      [0, 0],
      [0.34, 0, 'corner'],
      [0.46, 0.07],
      [0.62, 0.2],
      [0.82, 0.36],
      [1, 0.5],
    ],
    edge: [
      [0, 1],
      [0.5, 1],
      [0.66, 0.97],
      [0.82, 0.87],
      [0.93, 0.7],
      [1, 0.5],
    ],
    swedge: [0.36, 0.95],
  },
  spear: {
    back: [
      [0, 0],
      [0.6, 0],
      [0.76, 0.06],
      [0.89, 0.22],
      [1, 0.5],
    ],
    edge: [
      [0, 1],
      [0.52, 1],
      [0.7, 0.965],
      [0.86, 0.83],
      [1, 0.5],
    ],
    swedge: [0.62, 0.94],
  },
  pen: {
    back: [
      [0, 0],
      [0.66, 0],
      [0.82, 0.08],
      [0.93, 0.27],
      [1, 0.52],
    ],
    edge: [
      [0, 1],
      [0.58, 1],
      [0.77, 0.95],
      [0.91, 0.79],
      [1, 0.52],
    ],
  },
  sheepfoot: {
    back: [
      [0, 0],
      [0.68, 0],
      [0.8, 0.07],
      [0.9, 0.3],
      [0.965, 0.66],
      [1, 1],
    ],
    edge: [
      [0, 1],
      [0.5, 1],
      [1, 1],
    ],
  },
  lambfoot: {
    back: [
      [0, 0],
      [0.5, 0.12],
      [0.8, 0.26],
      [0.92, 0.46],
      [1, 0.99],
    ],
    edge: [
      [0, 1],
      [0.5, 1],
      [1, 0.99],
    ],
  },
  spey: {
    back: [
      [0, 0],
      [0.8, 0, 'corner'],
      [0.9, 0.1],
      [1, 0.24],
    ],
    edge: [
      [0, 1],
      [0.7, 1],
      [0.83, 0.95],
      [0.93, 0.72],
      [1, 0.24],
    ],
  },
  drop: {
    back: [
      [0, 0],
      [0.3, 0],
      [0.52, 0.035],
      [0.76, 0.17],
      [1, 0.46],
    ],
    edge: [
      [0, 1],
      [0.36, 1],
      [0.58, 0.985],
      [0.78, 0.88],
      [0.92, 0.68],
      [1, 0.46],
    ],
    swedge: [0.56, 0.96],
  },
  straight: {
    back: [
      [0, 0],
      [0.7, 0],
      [1, 0.02],
    ],
    edge: [
      [0, 1],
      [0.6, 1],
      [0.78, 0.93],
      [0.91, 0.66],
      [1, 0.02],
    ],
  },
  'chisel-point': {
    back: [
      [0, 0],
      [0.55, 0],
      [1, 0.26],
    ],
    edge: [
      [0, 1],
      [0.72, 0.97, 'corner'],
      [1, 0.26],
    ],
    swedge: [0.6, 0.96],
  },
  leaf: {
    back: [
      [0, 0.03],
      [0.14, 0],
      [0.32, 0.02],
      [0.6, 0.14],
      [1, 0.56],
    ],
    edge: [
      [0, 0.97],
      [0.25, 1],
      [0.52, 0.99],
      [0.78, 0.88],
      [1, 0.56],
    ],
  },
  pruner: {
    back: [
      [0, 0],
      [0.4, 0],
      [0.7, 0.12],
      [0.88, 0.42],
      [1, 1],
    ],
    edge: [
      [0, 1],
      [0.3, 0.9],
      [0.55, 0.8],
      [0.75, 0.82],
      [0.9, 0.92],
      [1, 1],
    ],
  },
  dagger: {
    back: [
      [0, 0.02],
      [0.5, 0],
      [0.74, 0.1],
      [1, 0.5],
    ],
    edge: [
      [0, 0.98],
      [0.5, 1],
      [0.74, 0.9],
      [1, 0.5],
    ],
    tip: [0.5, 3.2],
    ridge: true,
  },
  bayonet: {
    back: [
      [0, 0],
      [0.83, 0, 'corner'],
      [0.9, 0.1],
      [1, 0.52],
    ],
    edge: [
      [0, 1],
      [0.82, 1],
      [0.91, 0.92],
      [1, 0.52],
    ],
    swedge: [0.835, 0.97],
    tip: [0.82, 1.5],
  },
};
