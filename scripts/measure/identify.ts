/**
 * `npm run bench:identify`: how near the engine comes to the Bayes answer of simulated worlds. Pieces are drawn from
 * several worlds, looked at, and asked of the engine; the oracle knows how they were made and how often each comes to a
 * bench. Every figure is of pieces the engine had never seen, with the engine's shipped settings: once with nothing
 * learnt, once with the shop's own decided pieces, once with sold comparables.
 */
import { dayOf } from '@jutbank/core/dates';
import { compileReference, identify, withEncounters, type IdentifyAnswer } from '@jutbank/core/bench';
import { random } from '@jutbank/core/random';
import { checkPack, emptyContents, type ReferencePack } from '@jutbank/core/reference';
import { checksCompared } from './identify/checks.ts';
import { drawEncounters } from './identify/encounters.ts';
import { Oracle } from './identify/oracle.ts';
import { drawPiece, type Piece } from './identify/piece.ts';
import { calibrationError, detection, matchingAnswer, meanOf, type Scored } from './identify/score.ts';
import { bySupply, makeWorld, PARAMETERS, type World } from './identify/world.ts';

const TODAY = dayOf(2026, 11, 1);

const WORLDS = Number(process.env['WORLDS'] ?? 10);
const PIECES = Number(process.env['PIECES'] ?? 150);
const CHECKED = Number(process.env['CHECKED'] ?? 5);
const FIRST_SEED = Number(process.env['SEED'] ?? 1000);
/** What the shop has met before: pieces it decided, or sales it was told of. */
const DECIDED = 500;
const SOLD = 3000;
const LEARNT = ['nothing learnt', `${DECIDED} decided`, `${SOLD} sales`] as const;

const print = (label: string, text: string) => process.stdout.write(`${label.padEnd(46)} ${text}\n`);

interface Answered {
  readonly piece: Piece;
  /** by what was learnt */
  readonly engine: readonly Scored[];
  readonly oracle: Scored;
  /** who knows every constant and quantity, but not what collectors bring */
  readonly unmet: Scored;
  readonly matching: (sharpness: number) => Scored;
}

function scored(probabilities: ArrayLike<number>, truth: number | undefined): Scored {
  const at = truth ?? probabilities.length - 1;
  return { probabilities: Float64Array.from(probabilities), at };
}

function engineAnswer(world: World, answer: IdentifyAnswer): Float64Array {
  const of = new Map(answer.candidates.map((c) => [c.variant, c.probability]));
  return Float64Array.from([...world.truths.map((t) => of.get(t.variant.id) ?? 0), answer.unlisted]);
}

const answered: Answered[] = [];
const gains: { suggested: number; best: number }[] = [];
let variants = 0;
for (let w = 0; w < WORLDS; w++) {
  const world = makeWorld(FIRST_SEED + w);
  const pack: ReferencePack = {
    format: 'jutbank.reference/1',
    id: `world-${w}`,
    title: `World ${w}`,
    revision: '1',
    ...world.contents,
  };
  const { errors: problems } = checkPack(pack, emptyContents());
  if (problems.length > 0) throw new Error(`world ${w}: ${JSON.stringify(problems.slice(0, 3))}`);
  const index = compileReference(world.contents, '1', TODAY);
  const oracle = new Oracle(world);
  const unmet = new Oracle(bySupply(world));
  const luck = random(FIRST_SEED + 7919 * (w + 1));
  const indexes = [
    index,
    withEncounters(index, drawEncounters(world, random(FIRST_SEED + 31 * w), { own: DECIDED, sold: 0 })),
    withEncounters(index, drawEncounters(world, random(FIRST_SEED + 37 * w), { own: 0, sold: SOLD })),
  ];
  variants += world.truths.length;
  for (let p = 0; p < PIECES; p++) {
    const piece = drawPiece(world, luck);
    const question = { observations: piece.observations, found: piece.found, limit: world.truths.length };
    const answers = indexes.map((of) => identify(of, question));
    const [answer] = answers;
    if (!answer) continue;
    answered.push({
      piece,
      engine: answers.map((a) => scored(engineAnswer(world, a), piece.truth)),
      oracle: scored(oracle.posterior(piece.observations, piece.found), piece.truth),
      unmet: scored(unmet.posterior(piece.observations, piece.found), piece.truth),
      matching: (sharpness) => scored(matchingAnswer(index, piece.observations, sharpness), piece.truth),
    });
    if (p < CHECKED) {
      const compared = checksCompared(world, oracle, piece, answer);
      if (compared) gains.push(compared);
    }
  }
}

const logLoss = (of: (a: Answered) => Scored) =>
  meanOf(answered.map((a) => -Math.log(Math.max(of(a).probabilities[of(a).at] ?? 0, 1e-12))));
const top = (of: (a: Answered) => Scored) =>
  meanOf(
    answered.map((a) => {
      const { probabilities, at } = of(a);
      return (probabilities[at] ?? 0) >= Math.max(...probabilities) - 1e-12 ? 1 : 0;
    }),
  );
const engine = (learnt: number) => (a: Answered) => a.engine[learnt] ?? a.oracle;
const oracle = (a: Answered) => a.oracle;
const ratio = (a: number, b: number) => `${(a / b).toFixed(3)} × the best possible`;

const best = logLoss(oracle);
const simple = Math.min(...[0.3, 0.5, 0.8, 1.2, 1.8, 2.5].map((k) => logLoss((a) => a.matching(k))));
print('worlds, variants, pieces', `${WORLDS}, ${variants}, ${answered.length}`);
print('log loss, best possible', best.toFixed(4));
const supplied = logLoss((a) => a.unmet);
print('log loss, best possible that has met nothing', `${supplied.toFixed(4)}  ${ratio(supplied, best)}`);
print('log loss, matching by counting', `${simple.toFixed(4)}  ${ratio(simple, best)}`);
print('top-1, best possible', top(oracle).toFixed(4));
print('calibration error of the best possible', calibrationError(answered.map(oracle)).toFixed(4));
const unlisted = (of: (a: Answered) => Scored) =>
  detection(answered.map((a) => ({ p: of(a).probabilities.at(-1) ?? 0, is: a.piece.truth === undefined })));
print('detection of unlisted, best possible', `${unlisted(oracle).toFixed(4)} (area under ROC)`);
/** A number of a run was read, nothing was exchanged or misread, and the piece is what it seems. */
const numbered = answered.filter(
  ({ piece }) => piece.asMade && piece.genuine && piece.observations.some((o) => 'text' in o && 'code' in o),
);
LEARNT.forEach((name, learnt) => {
  const of = engine(learnt);
  print(`with ${name}`, '');
  print('  log loss', `${logLoss(of).toFixed(4)}  ${ratio(logLoss(of), best)}`);
  print('  top-1', `${top(of).toFixed(4)}  ${(top(of) / top(oracle)).toFixed(3)} × the best possible`);
  print('  calibration error', calibrationError(answered.map(of)).toFixed(4));
  print('  detection of unlisted', unlisted(of).toFixed(4));
  const sure = numbered.filter((a) => (of(a).probabilities[of(a).at] ?? 0) >= 0.8);
  const most = numbered.filter((a) => (a.oracle.probabilities[a.oracle.at] ?? 0) >= 0.8);
  print(
    '  numbered and agreeing, at 0.8 or more',
    `${sure.length} of ${numbered.length}; the best possible ${most.length}`,
  );
});
if (gains.length > 0)
  print(
    'first suggested check, share of the best bits',
    `${(gains.reduce((a, g) => a + g.suggested, 0) / gains.reduce((a, g) => a + g.best, 0)).toFixed(3)} over ${gains.length} pieces`,
  );
const slice = (name: string, of: (a: Answered) => boolean) => {
  const some = answered.filter(of);
  const loss = (side: (a: Answered) => Scored) =>
    meanOf(some.map((a) => -Math.log(Math.max(side(a).probabilities[side(a).at] ?? 0, 1e-12))));
  if (some.length > 0)
    print(
      `  ${name} (${some.length})`,
      `${LEARNT.map((_, i) => `${(loss(engine(i)) / loss(oracle)).toFixed(3)} ×`).join('  ')}   of ${loss(oracle).toFixed(4)}`,
    );
};
print('slices', LEARNT.join(', '));
slice('few looked at (below 6)', (a) => a.piece.observations.length < 6);
slice('many looked at (12 and more)', (a) => a.piece.observations.length >= 12);
slice('unlisted', (a) => a.piece.truth === undefined);
slice('counterfeits', (a) => a.piece.truth !== undefined && !a.piece.genuine);
slice('stamped', (a) => a.piece.observations.some((o) => 'mark' in o));
slice('with a year code', (a) => a.piece.observations.some((o) => 'reads' in o));
slice('with a number', (a) => a.piece.observations.some((o) => 'text' in o && 'code' in o));
slice('with a measure', (a) => a.piece.observations.some((o) => 'measure' in o));
slice('no measure, no stamp', (a) => a.piece.observations.every((o) => 'feature' in o && !('measure' in o)));
print('generator', JSON.stringify(PARAMETERS));
