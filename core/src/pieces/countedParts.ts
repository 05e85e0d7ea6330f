/** What comes in several on a piece: how many blades and tools an inspection looks at, and what each blade is called. */
import type { Observation } from '../bench/index.ts';
import type { Construction, Feature, FeatureReading, Pattern, Variant } from '../reference/index.ts';

/** As many as an inspection can tell apart. */
export const MOST_BLADES = 12;
export const MOST_TOOLS = 40;

export interface CountedParts {
  readonly blades: number;
  readonly tools: number;
  /** the blades' names in their order, as far as the pattern tells them: “master”, “pen” */
  readonly bladeNames: readonly string[];
  /** who says how many: somebody who counted, the form, or nobody */
  readonly by: 'bench' | 'form' | null;
}

/**
 * What was counted at the bench goes before what the form has; a multi-tool's blades and tools are counted together,
 * as they open. What nobody counted is one blade, and of a multi-tool two tools.
 * @param form what it is held to be, as far as anybody knows
 */
export function countedParts(
  construction: Construction,
  observations: readonly Observation[],
  features: readonly Feature[],
  form: { readonly pattern?: Pattern | undefined; readonly variant?: Variant | undefined },
): CountedParts {
  const { pattern, variant } = form;
  const written = pattern?.drawing?.blades ?? [];
  const seen = counted(
    features,
    (id) =>
      observations.flatMap((o) => ('feature' in o && o.feature === id && 'value' in o ? [o.value] : []))[0],
  );
  const recorded = counted(features, (id) => (variant?.features?.[id] ?? pattern?.features?.[id])?.[0]);
  const opening = seen.blade ?? recorded.blade;
  const together = construction === 'multi-tool';
  const known = opening ?? (written.length > 0 ? written.length : undefined);
  const blades = together ? Math.max(1, Math.min(written.length, known ?? 1)) : (known ?? 1);
  const tools = seen.tool ?? recorded.tool ?? (together ? (opening === undefined ? 2 : opening - blades) : 0);
  return {
    blades: between(1, MOST_BLADES, blades),
    tools: between(0, MOST_TOOLS, tools),
    bladeNames: written.slice(0, between(1, MOST_BLADES, blades)).map((blade) => blade.role),
    by:
      seen.blade !== undefined || seen.tool !== undefined
        ? 'bench'
        : known !== undefined || recorded.tool !== undefined
          ? 'form'
          : null,
  };
}

const between = (least: number, most: number, n: number) => Math.max(least, Math.min(most, Math.round(n)));

function counted(
  features: readonly Feature[],
  readingOf: (id: string) => FeatureReading | undefined,
): { readonly blade?: number; readonly tool?: number } {
  const of = (part: string) =>
    features
      .filter((f) => f.kind === 'count' && f.part === part)
      .map((f) => Number(readingOf(f.id) ?? Number.NaN))
      .find(Number.isFinite);
  const [blade, tool] = [of('blade'), of('tool')];
  return { ...(blade !== undefined && { blade }), ...(tool !== undefined && { tool }) };
}
