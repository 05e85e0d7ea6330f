import { writeFileSync } from 'node:fs';
import { chance } from '@jutbank/core/chance';
import { Oracle } from './identify/oracle.ts';
import { drawPiece } from './identify/piece.ts';
import { makeWorld } from './identify/world.ts';
const out: unknown[] = [];
const first = Number(process.argv[2]), n = Number(process.argv[3]);
for (let w = first; w < first + n; w++) {
  const world = makeWorld(5000 + w);
  const oracle = new Oracle(world);
  const luck = chance(777 + w);
  for (let p = 0; p < 150; p++) {
    const piece = drawPiece(world, luck);
    out.push({ w, piece, oracle: [...oracle.posterior(piece.observations, piece.found)].map((x) => +x.toPrecision(6)) });
  }
}
writeFileSync(`/tmp/diag/p${first}.json`, JSON.stringify(out));
