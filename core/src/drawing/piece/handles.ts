/** Profiles of handles: two lines along a share of the length, two rounded ends; the butt at 0, the blade's end at 1. */
import { formOf, keptForm, type Form } from '../geometry/form.ts';
import { monotone } from '../geometry/graph.ts';
import type { Point } from '../geometry/path.ts';
import type { DrawingRecipe } from './recipe.ts';
import { tracedHandle } from './tracedHandle.ts';
import type { StyleOf } from './vocabulary.ts';

export type Profile = StyleOf<'profile'>;
interface Lines {
  /** x as a share of the length, y as a share of the height from the middle */
  readonly top: readonly Point[];
  readonly bottom: readonly Point[];
  /** how far from each end the rounding begins, as a share of the height, and how square it is */
  readonly ends: readonly [butt: number, front: number];
  readonly fullness?: number;
}
const LINES: Readonly<Record<Profile, Lines>> = {
  'equal-end': {
    top: [
      [0, -0.49],
      [0.5, -0.5],
      [1, -0.49],
    ],
    bottom: [
      [0, 0.49],
      [0.5, 0.5],
      [1, 0.49],
    ],
    ends: [0.52, 0.52],
  },
  serpentine: {
    top: [
      [0, -0.33],
      [0.14, -0.42],
      [0.36, -0.5],
      [0.6, -0.49],
      [0.8, -0.44],
      [1, -0.47],
    ],
    bottom: [
      [0, 0.5],
      [0.16, 0.49],
      [0.4, 0.4],
      [0.62, 0.43],
      [0.84, 0.5],
      [1, 0.49],
    ],
    ends: [0.44, 0.52],
  },
  'swell-end': {
    top: [
      [0, -0.5],
      [0.2, -0.48],
      [0.55, -0.4],
      [1, -0.36],
    ],
    bottom: [
      [0, 0.5],
      [0.22, 0.5],
      [0.6, 0.4],
      [1, 0.38],
    ],
    ends: [0.55, 0.4],
  },
  'swell-centre': {
    top: [
      [0, -0.4],
      [0.5, -0.5],
      [1, -0.4],
    ],
    bottom: [
      [0, 0.38],
      [0.5, 0.5],
      [1, 0.38],
    ],
    ends: [0.44, 0.44],
  },
  sleeveboard: {
    top: [
      [0, -0.4],
      [0.5, -0.46],
      [1, -0.5],
    ],
    bottom: [
      [0, 0.38],
      [0.5, 0.46],
      [1, 0.5],
    ],
    ends: [0.4, 0.52],
  },
  trapper: {
    top: [
      [0, -0.4],
      [0.25, -0.44],
      [0.6, -0.4],
      [1, -0.44],
    ],
    bottom: [
      [0, 0.5],
      [0.2, 0.49],
      [0.55, 0.42],
      [0.85, 0.45],
      [1, 0.42],
    ],
    ends: [0.55, 0.5],
  },
  congress: {
    top: [
      [0, -0.38],
      [0.5, -0.5],
      [1, -0.38],
    ],
    bottom: [
      [0, 0.5],
      [0.5, 0.36],
      [1, 0.5],
    ],
    ends: [0.3, 0.3],
    fullness: 0.7,
  },
  canoe: {
    top: [
      [0, -0.26],
      [0.2, -0.38],
      [0.5, -0.42],
      [0.8, -0.38],
      [1, -0.26],
    ],
    bottom: [
      [0, 0.34],
      [0.25, 0.5],
      [0.5, 0.48],
      [0.75, 0.5],
      [1, 0.34],
    ],
    ends: [0.4, 0.4],
    fullness: 0.42,
  },
  teardrop: {
    top: [
      [0, -0.5],
      [0.3, -0.47],
      [0.7, -0.36],
      [1, -0.3],
    ],
    bottom: [
      [0, 0.5],
      [0.3, 0.48],
      [0.7, 0.37],
      [1, 0.32],
    ],
    ends: [0.6, 0.34],
  },
  dogleg: {
    top: [
      [0, -0.28],
      [0.25, -0.36],
      [0.55, -0.5],
      [1, -0.46],
    ],
    bottom: [
      [0, 0.5],
      [0.25, 0.46],
      [0.5, 0.36],
      [0.75, 0.44],
      [1, 0.44],
    ],
    ends: [0.5, 0.5],
  },
  coffin: {
    top: [
      [0, -0.5],
      [0.1, -0.49],
      [0.9, -0.36],
      [1, -0.36],
    ],
    bottom: [
      [0, 0.5],
      [0.1, 0.49],
      [0.9, 0.36],
      [1, 0.36],
    ],
    ends: [0.16, 0.2],
    fullness: 0.3,
  },
  swayback: {
    top: [
      [0, -0.3],
      [0.12, -0.42],
      [0.31, -0.5],
      [0.54, -0.5],
      [0.8, -0.42],
      [0.92, -0.38],
      [1, -0.28],
    ],
    bottom: [
      [0, 0.36],
      [0.16, 0.39],
      [0.31, 0.42],
      [0.46, 0.38],
      [0.65, 0.24],
      [0.73, 0.28],
      [0.82, 0.42],
      [0.9, 0.46],
      [1, 0.36],
    ],
    ends: [0.44, 0.3],
  },
  straight: {
    top: [
      [0, -0.42],
      [0.3, -0.5],
      [0.64, -0.49],
      [0.9, -0.47],
      [1, -0.36],
    ],
    bottom: [
      [0, 0.5],
      [0.18, 0.47],
      [0.4, 0.46],
      [0.62, 0.34],
      [0.72, 0.34],
      [0.86, 0.46],
      [1, 0.36],
    ],
    ends: [0.34, 0.34],
  },
};

/**
 * The handle of what is drawn, in mm: the butt at x = 0, its middle height at y = 0.
 * @param usual the profile where none is known
 * @param mirrored the butt at greater x, as a locking folder is shown
 */
export function handleOf(recipe: DrawingRecipe, usual: Profile, mirrored = false): Form {
  const { styles, handleLength: length, handleHeight: height, handleOutline: outline } = recipe;
  if (outline)
    return keptForm(`${JSON.stringify(outline)} ${length} ${String(mirrored)}`, () =>
      tracedHandle(outline, length, mirrored),
    );
  const profile = styles.profile ?? usual;
  return keptForm(`${profile} ${length} ${height} ${String(mirrored)}`, () =>
    profiledHandle(profile, length, height, mirrored),
  );
}

function profiledHandle(profile: Profile, length: number, height: number, mirrored: boolean): Form {
  const { top, bottom, ends, fullness = 0.58 } = LINES[profile];
  const graph = (points: readonly Point[]) => {
    const placed = points.map(([x, y]): Point => [(mirrored ? 1 - x : x) * length, y * height]);
    return monotone(mirrored ? placed.reverse() : placed);
  };
  const end = (share: number) => ({ radius: Math.min(share * height, length / 3), fullness });
  const [leftEnd, rightEnd] = mirrored ? [end(ends[1]), end(ends[0])] : [end(ends[0]), end(ends[1])];
  return formOf({ left: 0, right: length, top: graph(top), bottom: graph(bottom), leftEnd, rightEnd });
}
