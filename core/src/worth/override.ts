/** A person's corrections of the adjustment grid: what a line should say instead, or that a sale does not belong. */

export interface GridLine {
  readonly id: string;
  /** undefined where the sale could not be used */
  readonly converted: number | undefined;
  readonly weight: number;
  readonly adjustments: readonly { readonly name: string; readonly percent: number }[];
}
export interface Override {
  readonly comparable: string;
  readonly line: string;
  /** null: the sale is left out altogether */
  readonly percent: number | null;
}

/**
 * exp(Σ weight·ln adjusted), each corrected line in place of the engine's; what is left out gives its weight to the
 * others. Undefined when nothing is left.
 */
export function correctedEstimate(
  rows: readonly GridLine[],
  rest: { readonly weight: number; readonly adjusted: number },
  overrides: readonly Override[],
): number | undefined {
  const leftOut = new Set(overrides.flatMap((o) => (o.percent === null ? [o.comparable] : [])));
  let weight = rest.weight;
  let log = rest.weight > 0 ? rest.weight * Math.log(rest.adjusted) : 0;
  for (const row of rows) {
    if (row.converted === undefined || row.weight === 0 || leftOut.has(row.id)) continue;
    weight += row.weight;
    log += row.weight * Math.log(correctedPrice(row, row.converted, overrides));
  }
  return weight > 0 ? Math.exp(log / weight) : undefined;
}

function correctedPrice(row: GridLine, converted: number, overrides: readonly Override[]): number {
  const own = new Map(
    overrides.flatMap((o) => (o.comparable === row.id && o.percent !== null ? [[o.line, o.percent]] : [])),
  );
  const engine = row.adjustments.filter((a) => !own.has(a.name)).map((a) => a.percent);
  return [...engine, ...own.values()].reduce((price, percent) => price * (1 + percent / 100), converted);
}
