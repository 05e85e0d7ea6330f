/**
 * `npm run bench:identify`: how near the engine comes to the Bayes answer of simulated worlds. Pieces are drawn from
 * several worlds, looked at, and asked of the engine; the oracle knows how they were made. Every figure is of pieces
 * the engine had never seen, with the engine's shipped settings.
 */
import { compileReference, identify, type IdentifyAnswer } from '@jutbank/core/bench';
import { chance } from '@jutbank/core/chance';
import { checkPack, emptyContents, type ReferencePack } from '@jutbank/core/reference';
import { checksCompared } from './identify/checks.ts';
import { Oracle } from './identify/oracle.ts';
import { drawPiece, type Piece } from './identify/piece.ts';
import { calibrationError, detection, matchingAnswer, meanOf, type Scored } from './identify/score.ts';
import { makeWorld, PARAMETERS, type World } from './identify/world.ts';

const WORLDS = Number(process.env['WORLDS'] ?? 10);
const PIECES = Number(process.env['PIECES'] ?? 250);
const CHECKED = Number(process.env['CHECKED'] ?? 5);
const FIRST_SEED = 1000;

const print = (label: string, text: string) => process.stdout.write(`${label.padEnd(46)} ${text}\n`);

interface Answered {
  readonly piece: Piece;
  readonly engine: Scored;
  readonly oracle: Scored;
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
  const index = compileReference(world.contents, '1');
  const oracle = new Oracle(world);
  const luck = chance(FIRST_SEED + 7919 * (w + 1));
  variants += world.truths.length;
  for (let p = 0; p < PIECES; p++) {
    const piece = drawPiece(world, luck);
    const question = { observations: piece.observations, found: piece.found, limit: world.truths.length };
    const answer = identify(index, question);
    answered.push({
      piece,
      engine: scored(engineAnswer(world, answer), piece.truth),
      oracle: scored(oracle.posterior(piece.observations, piece.found), piece.truth),
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
const engine = (a: Answered) => a.engine;
const oracle = (a: Answered) => a.oracle;
const ratio = (a: number, b: number) => `${(a / b).toFixed(3)} × the best possible`;

const losses = { engine: logLoss(engine), oracle: logLoss(oracle) };
const simple = Math.min(...[0.3, 0.5, 0.8, 1.2, 1.8, 2.5].map((k) => logLoss((a) => a.matching(k))));
const tops = { engine: top(engine), oracle: top(oracle) };
print('worlds, variants, pieces', `${WORLDS}, ${variants}, ${answered.length}`);
print('log loss, best possible', losses.oracle.toFixed(4));
print('log loss, engine', `${losses.engine.toFixed(4)}  ${ratio(losses.engine, losses.oracle)}`);
print('log loss, matching by counting', `${simple.toFixed(4)}  ${ratio(simple, losses.oracle)}`);
print('top-1, best possible', tops.oracle.toFixed(4));
print('top-1, engine', `${tops.engine.toFixed(4)}  ${(100 * (tops.engine / tops.oracle - 1)).toFixed(1)} %`);
print('calibration error of the engine', calibrationError(answered.map(engine)).toFixed(4));
print('calibration error of the best possible', calibrationError(answered.map(oracle)).toFixed(4));
const unlisted = (of: (a: Answered) => Scored) =>
  detection(answered.map((a) => ({ p: of(a).probabilities.at(-1) ?? 0, is: a.piece.truth === undefined })));
print(
  'detection of unlisted (area under ROC)',
  `engine ${unlisted(engine).toFixed(4)}, best possible ${unlisted(oracle).toFixed(4)}`,
);
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
    print(`  ${name} (${some.length})`, `${loss(engine).toFixed(4)} against ${loss(oracle).toFixed(4)}`);
};
slice('few looked at (below 6)', (a) => a.piece.observations.length < 6);
slice('many looked at (12 and more)', (a) => a.piece.observations.length >= 12);
slice('unlisted', (a) => a.piece.truth === undefined);
slice('stamped', (a) => a.piece.observations.some((o) => 'mark' in o));
slice('with a year code', (a) => a.piece.observations.some((o) => 'reads' in o));
slice('with a number', (a) => a.piece.observations.some((o) => 'text' in o && 'code' in o));
slice('with a measure', (a) => a.piece.observations.some((o) => 'measure' in o));
slice('no measure, no stamp', (a) => a.piece.observations.every((o) => 'feature' in o && !('measure' in o)));
print('generator', JSON.stringify(PARAMETERS));
