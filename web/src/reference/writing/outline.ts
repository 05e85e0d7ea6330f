/** An outline as it is written: a point to a line, its two numbers in mm apart by a blank, a comma or a semicolon. */
export const outlineLines = (outline: readonly (readonly [number, number])[] | null | undefined): string[] =>
  (outline ?? []).map(([x, y]) => `${x} ${y}`);

/** What cannot be read stays in it as NaN, for the pack's check to tell; no line is no outline. */
export function outlineIn(lines: readonly string[] | undefined): [number, number][] | undefined {
  if (lines === undefined || lines.length === 0) return undefined;
  return lines.map((line) => {
    const [x = NaN, y = NaN] = line
      .trim()
      .split(/[\s,;]+/)
      .map(Number);
    return [x, y];
  });
}
