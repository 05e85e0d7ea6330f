import { readFileSync, readdirSync } from 'node:fs';
import { compileReference, identify, withEncounters, BENCH_SETTINGS } from '@jutbank/core/bench';
import { dayOf } from '@jutbank/core/dates';
import { chance } from '@jutbank/core/chance';
import { makeWorld } from './identify/world.ts';
import { drawEncounters } from './identify/encounters.ts';
const settings = { ...BENCH_SETTINGS, ...JSON.parse(process.env['SET'] ?? '{}') };
type Rec = { w: number; piece: any; oracle: number[] };
const all: Rec[] = readdirSync('/tmp/diag').filter((f) => f.endsWith('.json')).flatMap((f) => JSON.parse(readFileSync(`/tmp/diag/${f}`, 'utf8')));
const byW = new Map<number, Rec[]>();
for (const r of all) byW.set(r.w, [...(byW.get(r.w) ?? []), r]);
const rows: { rec: Rec; e: number[]; o: number; kind: string }[] = [];
const worst: any[] = [];
const only = process.env['ONLY'];
for (const [w, recs] of byW) {
  const world = makeWorld(5000 + w);
  const index = compileReference(world.contents, '1', dayOf(2026, 11, 1), settings);
  const trueW = { ...index, frequency: { ...index.frequency, weight: Float64Array.from(world.truths, (t) => t.met) } };
  const indexes = [index, withEncounters(index, drawEncounters(world, chance(1 + w), { own: 500, sold: 0 }), settings), withEncounters(index, drawEncounters(world, chance(2 + w), { own: 0, sold: 3000 }), settings), trueW];
  for (const rec of recs) {
    const at = rec.piece.truth ?? world.truths.length;
    const id = world.truths[at]?.variant.id;
    const e = indexes.map((ix) => {
      const a = identify(ix, { observations: rec.piece.observations, found: rec.piece.found, limit: world.truths.length } as any, settings);
      return Math.max(1e-12, id === undefined ? a.unlisted : (a.candidates.find((c) => c.variant === id)?.probability ?? 0));
    });
    const o = Math.max(1e-12, rec.oracle[at] ?? 0);
    rows.push({ rec, e, o, kind: '' });
    if (!only || rec.piece.observations.some((o: any) => only in o)) worst.push({ d: Math.log(o / e[3]!), w, o, e: e.map((x) => +x.toFixed(4)), truth: id ?? 'unlisted', obs: rec.piece.observations });
  }
}
const mean = (x: number[]) => x.reduce((a, b) => a + b, 0) / x.length;
const show = (name: string, f: (r: (typeof rows)[0]) => boolean) => {
  const s = rows.filter(f);
  if (!s.length) return;
  const o = mean(s.map((r) => -Math.log(r.o)));
  console.log(name.padEnd(28), String(s.length).padEnd(5), [0, 1, 2, 3].map((k) => (mean(s.map((r) => -Math.log(r.e[k]!))) / o).toFixed(3)).join('  '), o.toFixed(3));
};
const has = (f: (o: any) => boolean) => (r: (typeof rows)[0]) => r.rec.piece.observations.some(f);
show('all (none, own, sold, true)', () => true);
show('unlisted', (r) => r.rec.piece.truth === undefined);
show('listed', (r) => r.rec.piece.truth !== undefined);
show('fakes', (r) => !r.rec.piece.genuine);
show('few', (r) => r.rec.piece.observations.length < 6);
show('many', (r) => r.rec.piece.observations.length >= 12);
show('stamped', has((o) => 'mark' in o));
show('year', has((o) => 'reads' in o));
show('number', has((o) => 'text' in o));
show('measure', has((o) => 'measure' in o));
const num = rows.filter((r) => r.rec.piece.asMade && r.rec.piece.genuine && has((o: any) => 'text' in o)(r));
console.log('numbered ok', [0,1,2,3].map((k) => num.filter((r) => r.e[k]! >= 0.8).length + '/' + num.length).join(' '), 'oracle', num.filter((r) => r.o >= 0.8).length);
if (process.env['WORST']) console.log(JSON.stringify(worst.sort((a, b) => b.d - a.d).slice(0, +process.env['WORST']!), null, 0).replace(/\},\{"d"/g, '},\n{"d"'));
