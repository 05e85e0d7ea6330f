import { readFileSync, readdirSync } from 'node:fs';
import { compileReference, identify } from '@jutbank/core/bench';
import { dayOf } from '@jutbank/core/dates';
import { makeWorld } from './identify/world.ts';
const all: any[] = readdirSync('/tmp/diag').filter((f) => f.endsWith('.json')).flatMap((f) => JSON.parse(readFileSync(`/tmp/diag/${f}`, 'utf8')));
const w = Number(process.argv[2]); const o = Number(process.argv[3]);
const world = makeWorld(5000 + w);
const rec = all.filter((r) => r.w === w).sort((a, b) => Math.abs((a.oracle[a.piece.truth ?? world.truths.length]) - o) - Math.abs((b.oracle[b.piece.truth ?? world.truths.length]) - o))[0];
const base = compileReference(world.contents, '1', dayOf(2026, 11, 1));
const index = { ...base, frequency: { ...base.frequency, weight: Float64Array.from(world.truths, (t) => t.met) } };
const a = identify(index, { observations: rec.piece.observations, found: rec.piece.found, limit: 400 } as any);
const truth = rec.piece.truth === undefined ? 'unlisted' : world.truths[rec.piece.truth]!.variant.id;
console.log('truth', truth, 'oracle unlisted', rec.oracle.at(-1), 'engine unlisted', a.unlisted);
const show = new Set([...a.candidates.slice(0, 3).map((c) => c.variant), truth, ...world.truths.map((t, i) => [t.variant.id, rec.oracle[i]] as const).sort((x, y) => y[1] - x[1]).slice(0, 2).map((x) => x[0])]);
for (const id of show) {
  const i = world.truths.findIndex((t) => t.variant.id === id);
  const c = a.candidates.find((x) => x.variant === id);
  if (!c) continue;
  const v = world.truths[i]!;
  console.log(id, v.variant.kind, v.variant.window, 'met', v.met.toFixed(1), 'oracle', rec.oracle[i], 'engine', c.probability.toFixed(4));
  for (const e of c.evidence) console.log('   ', e.feature ?? e.mark ?? e.code, e.part, e.observed, JSON.stringify(e.expected), e.verdict, e.weight);
}
console.log(JSON.stringify(rec.piece.observations));
for (const ob of rec.piece.observations) if (ob.feature) console.log(ob.feature, JSON.stringify(world.contents.windows.filter((x) => x.feature === ob.feature && x.maker === world.contents.patterns.find((p) => p.id === world.truths.find((t) => t.variant.id === [...show][0])!.variant.pattern)!.maker).map((x) => [x.value, x.window, x.carryOver, x.source])));
