/** A drawing as it is made: parts in the order in which they are drawn, each with its shapes. */
import {
  around,
  boxOf,
  moved,
  pathData,
  type Box,
  type Move,
  type Point,
  type Run,
} from '../geometry/path.ts';
import type { PartState } from './recipe.ts';

/** Surfaces by what they are made of; tints for both themes and for paper stand in `palette.ts`. */
export type Paint =
  | 'steel'
  | 'cut'
  | 'spring'
  | 'nickel'
  | 'brass'
  | 'titanium'
  | 'blued'
  | 'phosphated'
  | 'black'
  | 'well'
  | 'hole'
  | 'horn'
  | 'bone'
  | 'stag'
  | 'ebony'
  | 'wood'
  | 'fibre'
  | 'celluloid'
  | 'laminate'
  | 'carbon'
  | 'layered'
  | 'leather'
  | 'strap'
  | 'pale'
  | 'dark'
  | 'red'
  | 'green'
  | 'orange';
/** Weight and tone of a line: the outline, a part laid on, a line inside a part, its fine and its textured lines. */
export type Ink =
  'outline' | 'secondary' | 'inner' | 'fine' | 'heavy' | 'texture' | 'shade' | 'light' | 'stitch' | 'lost';

/** Pixels per millimetre from which a shape is worth drawing. */
export const DETAIL = { texture: 1.5, fittings: 3, lettering: 4 } as const;
interface Common {
  /** fewest pixels per millimetre at which it is drawn; 0 always */
  readonly from: number;
}
export interface Area extends Common {
  readonly kind: 'area';
  readonly d: string;
  readonly paint: Paint;
  readonly ink: Ink;
}
export interface Lines extends Common {
  readonly kind: 'lines';
  readonly d: string;
  readonly ink: Ink;
}
/** Small surfaces of a texture or of a shadow, without an outline. */
export interface Patches extends Common {
  readonly kind: 'patches';
  readonly d: string;
  readonly tone: 'texture' | 'light';
}
export interface Letters extends Common {
  readonly kind: 'letters';
  readonly text: string;
  readonly x: number;
  readonly y: number;
  /** degrees clockwise */
  readonly angle: number;
  /** height of the letters' line, mm */
  readonly size: number;
  /** degrees by which they lean; 0 is upright */
  readonly slant: number;
  readonly painted: boolean;
}
export type Shape = Area | Lines | Patches | Letters;

export interface DrawnPart {
  /** 'blade:1', 'scales', 'bolster:rear' … */
  readonly part: string;
  readonly state: PartState;
  readonly shapes: readonly Shape[];
  /** where a label, a pin or a leader line goes, mm */
  readonly anchor: Readonly<{ x: number; y: number }>;
  readonly box: Box;
}
export interface Drawing {
  readonly widthMm: number;
  readonly heightMm: number;
  /** where the drawing begins: a folder's handle begins at x = 0, a straight knife's guard stands there */
  readonly left: number;
  readonly top: number;
  readonly parts: readonly DrawnPart[];
  /** what it shows, in words */
  readonly name: string;
}

type Mutable = {
  state: PartState;
  shapes: Shape[];
  boxes: Box[];
  anchor: Point | undefined;
  lines: Map<string, number>;
  /** has a surface, and so a box of its own that lines on it lie in */
  surfaced: boolean;
};

/** Blades of one handle that are kept; a server's long run is kept from growing without end. */
const MOST_KEPT = 200;
const partsOf = new WeakMap<object, Map<string, readonly (readonly [string, Mutable])[]>>();

export class Sheet {
  readonly #parts = new Map<string, Mutable>();
  #moves: readonly Move[] = [];

  /** Everything drawn by `draw` is moved first, as a blade is about its pin. */
  through(move: Move, draw: () => void): void {
    const before = this.#moves;
    this.#moves = [move, ...before];
    draw();
    this.#moves = before;
  }
  /**
   * Parts drawn before from the same values are taken over as they were: forms of a pattern share their blades.
   * @param values everything that the parts drawn by `draw` depend on, besides the scope
   */
  kept(scope: object, values: readonly unknown[], draw: () => void): void {
    // the pile side is the mark side moved: the same values, not the same shapes
    const key = JSON.stringify([this.#moves.length, ...values]);
    const parts = partsOf.get(scope) ?? new Map<string, readonly (readonly [string, Mutable])[]>();
    const known = parts.get(key);
    if (known) {
      for (const [name, part] of known) this.#parts.set(name, part);
      return;
    }
    const before = new Set(this.#parts.keys());
    draw();
    if (parts.size >= MOST_KEPT) parts.clear();
    partsOf.set(
      scope,
      parts.set(
        key,
        [...this.#parts].filter(([name]) => !before.has(name)),
      ),
    );
  }
  part(name: string, state: PartState = 'recorded'): Pencil {
    let part = this.#parts.get(name);
    if (!part) {
      part = { state, shapes: [], boxes: [], anchor: undefined, lines: new Map(), surfaced: false };
      this.#parts.set(name, part);
    }
    const moves = this.#moves;
    return new Pencil(part, moves.length > 0 ? (p) => moves.reduce((at, move) => move(at), p) : undefined);
  }
  finish(name: string): Drawing {
    const parts = [...this.#parts].flatMap(([part, made]): DrawnPart[] => {
      if (made.boxes.length === 0) return [];
      const box = around(made.boxes);
      const [x, y] = made.anchor ?? [(box.left + box.right) / 2, (box.top + box.bottom) / 2];
      return [{ part, state: made.state, shapes: made.shapes, anchor: { x, y }, box }];
    });
    const box = parts.length ? around(parts.map((p) => p.box)) : { left: 0, top: 0, right: 1, bottom: 1 };
    return {
      widthMm: box.right - box.left,
      heightMm: box.bottom - box.top,
      left: box.left,
      top: box.top,
      parts,
      name,
    };
  }
}

/** Draws on one part. Lines of one weight that follow each other become one path. */
export class Pencil {
  readonly #part: Mutable;
  readonly #move: Move | undefined;
  constructor(part: Mutable, move: Move | undefined) {
    this.#part = part;
    this.#move = move;
  }
  /** A surface; a second run inside the first is a hole in it. */
  area(runs: Run | readonly Run[], paint: Paint, ink: Ink = 'outline', from = 0): this {
    const placed = this.#placed(runs);
    this.#part.boxes.push(boxOf(placed));
    this.#part.lines.clear();
    this.#part.surfaced = true;
    this.#part.shapes.push({ kind: 'area', d: pathData(placed), paint, ink, from });
    return this;
  }
  line(runs: Run | readonly Run[], ink: Ink = 'inner', from = ink === 'texture' ? DETAIL.texture : 0): this {
    const placed = this.#placed(runs);
    if (placed.length === 0) return this;
    if (!this.#part.surfaced) this.#part.boxes.push(boxOf(placed));
    const d = pathData(placed, ink === 'outline' || ink === 'secondary' ? 2 : 1);
    const key = `${ink} ${from}`;
    const at = this.#part.lines.get(key);
    const before = at === undefined ? undefined : this.#part.shapes[at];
    if (at !== undefined && before?.kind === 'lines') this.#part.shapes[at] = { ...before, d: before.d + d };
    else {
      this.#part.lines.set(key, this.#part.shapes.length);
      this.#part.shapes.push({ kind: 'lines', d, ink, from });
    }
    return this;
  }
  patches(runs: readonly Run[], tone: Patches['tone'] = 'texture'): this {
    const placed = this.#placed(runs);
    if (placed.length > 0)
      this.#part.shapes.push({ kind: 'patches', d: pathData(placed, 1), tone, from: DETAIL.texture });
    return this;
  }
  /** Letters stay readable: turned upside down they are written the other way. */
  letters(
    at: Point,
    text: string,
    size: number,
    { slant = 0, painted = false, turn = 0, from = DETAIL.lettering as number } = {},
  ): this {
    const [x, y] = this.#place(at);
    const [nextX, nextY] = this.#place([at[0] + 1, at[1]]);
    if (!this.#part.surfaced) {
      const half = [...text].length * size * 0.31;
      this.#part.boxes.push({ left: x - half, top: y - size, right: x + half, bottom: y + size * 0.3 });
    }
    let angle = (Math.atan2(nextY - y, nextX - x) * 180) / Math.PI + turn;
    if (angle > 91 || angle < -91) angle += angle > 0 ? -180 : 180;
    this.#part.shapes.push({ kind: 'letters', text, x, y, angle, size, slant, painted, from });
    return this;
  }
  /** Which way a small step to the right and one down go on the sheet: a turned part writes the other way round. */
  sense([x, y]: Point): readonly [across: 1 | -1, down: 1 | -1] {
    const from = this.#place([x, y]);
    const along = this.#place([x + 1, y]);
    const below = this.#place([x, y + 1]);
    return [along[0] < from[0] ? -1 : 1, below[1] < from[1] ? -1 : 1];
  }
  anchor(at: Point): this {
    this.#part.anchor = this.#place(at);
    return this;
  }
  #place(p: Point): Point {
    return this.#move ? this.#move(p) : p;
  }
  #placed(runs: Run | readonly Run[]): readonly Run[] {
    const list: readonly Run[] = 'segments' in runs ? [runs] : runs;
    const move = this.#move;
    return move ? list.map((run) => moved(run, move)) : list;
  }
}
