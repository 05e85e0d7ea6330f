/** Rows that no reading of a feature can tell apart: worked out once per reference revision and feature. */
import type { ReferenceIndex } from './compile.ts';
import { SILENT, type Column, type MeasureColumn } from './compiled.ts';
import { customScopes } from './customs.ts';

export interface Cells {
  readonly cellOf: Int32Array;
  /** per cell */
  readonly set: Int32Array;
  readonly group: Int32Array;
  /** per cell: the scope of customs that speaks for it, −1 where none does */
  readonly scope: Int32Array;
}
export interface MeasureCells {
  readonly cellOf: Int32Array;
  readonly nominal: Float64Array;
  readonly spread: Float64Array;
  readonly group: Int32Array;
  readonly notApplicable: Uint8Array;
  /** rows in each */
  readonly size: Float64Array;
  /** per group: how far patterns of its construction lie apart, as the width of a smooth density over their sizes */
  readonly bandwidth: Float64Array;
}

const ofColumns = new WeakMap<Column, Cells>();
const ofMeasures = new WeakMap<MeasureColumn, MeasureCells>();

export function cellsOf(index: ReferenceIndex, column: Column): Cells {
  const known = ofColumns.get(column);
  if (known) return known;
  const scopeOf = customScopes(index, column);
  const cellOf = new Int32Array(index.rows.length);
  const at = new Map<number, number>();
  const set: number[] = [];
  const group: number[] = [];
  const scope: number[] = [];
  const sets = column.sets.length + 2;
  const groups = index.groups.length;
  for (let r = 0; r < cellOf.length; r++) {
    const s = column.setOf[r] ?? SILENT;
    const g = index.groupOf[r] ?? 0;
    const c = scopeOf?.[r] ?? -1;
    const key = ((c + 1) * sets + s + 2) * groups + g;
    let cell = at.get(key);
    if (cell === undefined) {
      cell = set.push(s) - 1;
      group.push(g);
      scope.push(c);
      at.set(key, cell);
    }
    cellOf[r] = cell;
  }
  const cells = {
    cellOf,
    set: Int32Array.from(set),
    group: Int32Array.from(group),
    scope: Int32Array.from(scope),
  };
  ofColumns.set(column, cells);
  return cells;
}

export function measureCellsOf(index: ReferenceIndex, column: MeasureColumn): MeasureCells {
  const known = ofMeasures.get(column);
  if (known) return known;
  const cellOf = new Int32Array(index.rows.length);
  const at = new Map<string, number>();
  const first: number[] = [];
  const size: number[] = [];
  for (let r = 0; r < cellOf.length; r++) {
    const key = `${column.nominal[r]} ${column.spread[r]} ${index.groupOf[r]} ${column.notApplicable[r]}`;
    let cell = at.get(key);
    if (cell === undefined) {
      cell = first.push(r) - 1;
      size.push(0);
      at.set(key, cell);
    }
    cellOf[r] = cell;
    size[cell] = (size[cell] ?? 0) + 1;
  }
  const cells = {
    cellOf,
    nominal: Float64Array.from(first, (r) => column.nominal[r] ?? NaN),
    spread: Float64Array.from(first, (r) => column.spread[r] ?? 0),
    group: Int32Array.from(first, (r) => index.groupOf[r] ?? 0),
    notApplicable: Uint8Array.from(first, (r) => column.notApplicable[r] ?? 0),
    size: Float64Array.from(size),
    bandwidth: bandwidths(index, column),
  };
  ofMeasures.set(column, cells);
  return cells;
}

/** Silverman's rule over the distinct sizes of a construction's patterns: 1.06·σ·n^(−1/5). */
function bandwidths(index: ReferenceIndex, column: MeasureColumn): Float64Array {
  const sizes = index.groups.map(() => new Map<string, number>());
  const ofConstruction = new Map<string, number[]>();
  for (const row of index.rows) {
    const nominal = column.nominal[row.index] ?? NaN;
    if (Number.isNaN(nominal)) continue;
    const seen = sizes[index.constructionOf[row.group] ?? 0];
    if (seen?.has(row.pattern.id)) continue;
    seen?.set(row.pattern.id, nominal);
    const list = ofConstruction.get(row.construction) ?? [];
    ofConstruction.set(row.construction, [...list, nominal]);
  }
  return Float64Array.from(index.groups, ({ construction }) => {
    const list = ofConstruction.get(construction) ?? [];
    const mean = list.reduce((a, b) => a + b, 0) / Math.max(1, list.length);
    const variance = list.reduce((a, x) => a + (x - mean) ** 2, 0) / Math.max(1, list.length - 1);
    const width = 1.06 * Math.sqrt(variance) * Math.max(1, list.length) ** -0.2;
    return list.length < 3 ? Math.max(0.1 * mean, width) : Math.max(width, 0.01 * mean, 1e-3);
  });
}
