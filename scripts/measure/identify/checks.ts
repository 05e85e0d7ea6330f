/** Whether the first check the engine proposes is worth as much as the best one, by the oracle's own information. */
import type { IdentifyAnswer, Observation } from '@jutbank/core/bench';
import type { Oracle } from './oracle.ts';
import type { Piece } from './piece.ts';
import { seenSubjects } from './score.ts';
import type { World } from './world.ts';

const entropy = (p: Float64Array) => p.reduce((h, x) => (x > 0 ? h - x * Math.log2(x) : h), 0);

/** Sizes that could be read, in steps as fine as the tolerances. */
function sizes(world: World, feature: string): number[] {
  const nominal = world.contents.patterns.flatMap((p) => p.measures?.[feature]?.value ?? []);
  const low = Math.min(...nominal) * 0.9;
  const step = (Math.max(...nominal) * 1.05 - low) / 40;
  return Array.from({ length: 41 }, (_, i) => low + i * step);
}

/** Expected bits of a sure reading, by enumerating its outcomes. */
function bitsOf(
  oracle: Oracle,
  piece: Piece,
  outcomes: readonly Observation[],
  before: Float64Array,
): number {
  const joints = outcomes.map((o) => oracle.joint([...piece.observations, o], piece.found));
  const totals = joints.map((j) => j.reduce((a, b) => a + b, 0));
  const all = totals.reduce((a, b) => a + b, 0);
  if (all <= 0) return 0;
  const after = joints.reduce((sum, joint, i) => {
    const total = totals[i] ?? 0;
    return total > 0 ? sum + (total / all) * entropy(joint.map((x) => x / total)) : sum;
  }, 0);
  return Math.max(0, entropy(before) - after);
}

export function checksCompared(
  world: World,
  oracle: Oracle,
  piece: Piece,
  answer: IdentifyAnswer,
): { suggested: number; best: number } | undefined {
  const before = oracle.posterior(piece.observations, piece.found);
  const seen = seenSubjects(piece.observations);
  const first = answer.nextChecks[0];
  if (!first) return undefined;
  const possible = new Map<string, Observation[]>();
  const likely = new Set(world.truths.flatMap((t, v) => ((before[v] ?? 0) > 0.01 ? [t.construction] : [])));
  for (const feature of world.features) {
    if (seen.has(`feature ${feature.id}`)) continue;
    if (feature.constructions && !feature.constructions.some((c) => likely.has(c))) continue;
    possible.set(
      feature.id,
      feature.kind === 'measure'
        ? sizes(world, feature.id).map((measure) => ({ feature: feature.id, measure, resolution: 0.1 }))
        : (feature.values ?? []).map((v) => ({ feature: feature.id, value: v.id })),
    );
  }
  if (![...seen].some((s) => s.startsWith('mark ')))
    possible.set(
      'mark',
      world.contents.marks.map((k) => ({ mark: k.id })),
    );
  const bits = new Map([...possible].map(([id, outcomes]) => [id, bitsOf(oracle, piece, outcomes, before)]));
  // a code that is proposed is weighed as well, among the makers that bear it
  const suggested = first.feature ?? (first.mark ? 'mark' : '');
  const best = Math.max(...bits.values());
  if (best < 0.02 || !bits.has(suggested)) return undefined;
  return { suggested: bits.get(suggested) ?? 0, best };
}
