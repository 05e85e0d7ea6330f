/**
 * Figures of speed of identification: `npm run bench`; those of prices are told by `npm run bench:value`. Worlds are made by a stated generator; times are of this machine, so
 * compare ratios (growth, share of a budget) rather than milliseconds across machines.
 */
import { dayOf } from '@jutbank/core/dates';
import {
  compileReference,
  identify,
  prepared,
  type Observation,
  type ReferenceIndex,
} from '@jutbank/core/bench';
import { random } from '@jutbank/core/random';
import { emptyContents, type PackContents } from '@jutbank/core/reference';

const TODAY = dayOf(2026, 11, 1);

const FEATURES = 29;
const VALUES = 6;

/** `count` variants over makers of 200 and patterns of 20, each with every feature, windows of one to thirty years. */
function world(count: number): PackContents {
  const { next } = random(7);
  const whole = (n: number) => Math.floor(next() * n);
  const makers = Math.ceil(count / 200);
  return {
    ...emptyContents(),
    makers: Array.from({ length: makers }, (_, m) => ({
      id: `m${m}`,
      name: `Maker ${m}`,
      active: '1900/1990',
    })),
    patterns: Array.from({ length: Math.ceil(count / 20) }, (_, p) => ({
      id: `p${p}`,
      maker: `m${p % makers}`,
      name: `Pattern ${p}`,
      construction: 'slipjoint' as const,
    })),
    features: Array.from({ length: FEATURES }, (_, f) => ({
      id: `f${f}`,
      label: `F${f}`,
      part: `part${f % 9}`,
      kind: 'category' as const,
      swap: 'hard' as const,
      values: Array.from({ length: VALUES }, (_, v) => ({ id: `v${v}`, label: `V${v}` })),
    })),
    marks: Array.from({ length: makers }, (_, m) => ({
      id: `k${m}`,
      maker: `m${m}`,
      place: 'tang',
      lines: [`MAKER ${m}`],
      window: '1920/1960',
    })),
    variants: Array.from({ length: count }, (_, i) => {
      const from = 1900 + whole(70);
      return {
        id: `x${i}`,
        pattern: `p${Math.floor(i / 20)}`,
        name: `Variant ${i}`,
        kind: 'production' as const,
        window: `${from}/${from + 1 + whole(29)}`,
        made: { quantity: 500 + whole(50_000), basis: 'documented' as const },
        features: Object.fromEntries(
          Array.from({ length: FEATURES }, (_, f) => [`f${f}`, [`v${whole(VALUES)}`]]),
        ),
      };
    }),
  };
}

const WARM_UP = 10;
const percentile = (times: readonly number[], share: number): number =>
  [...times].sort((a, b) => a - b)[Math.min(times.length - 1, Math.floor(times.length * share))] ?? NaN;

function timed(runs: number, work: (run: number) => void): { p50: number; p95: number } {
  // a server that has just started is not what people wait for
  for (let run = 0; run < WARM_UP; run++) work(run);
  const times = Array.from({ length: runs }, (_, run) => {
    const start = performance.now();
    work(run);
    return performance.now() - start;
  });
  return { p50: percentile(times, 0.5), p95: percentile(times, 0.95) };
}

function questions(index: ReferenceIndex, run: number): Observation[] {
  const row = index.rows[(run * 37) % index.rows.length];
  const features = Object.entries(row?.variant.features ?? {}).map(([feature, values]): Observation => ({
    feature,
    value: values[0] ?? 'v0',
  }));
  return [...features.slice(0, FEATURES), { mark: `k${run % index.marks.size}` }];
}

const ms = (x: number) => `${x.toFixed(1)} ms`;
const print = (label: string, text: string) => process.stdout.write(`${label.padEnd(58)} ${text}\n`);

/**
 * The least that any answer needs: one look at every row for every observation, in flat arrays. Times are compared with
 * this pass in the same run.
 */
function plainPass(index: ReferenceIndex, observations: readonly Observation[]): number {
  const product = new Float64Array(index.rows.length).fill(1);
  for (const o of observations) {
    if (!('value' in o)) continue;
    const column = index.columns.get(o.feature);
    if (!column) continue;
    const table = Float64Array.from(column.sets, (set) => (set.includes(o.value) ? 0.98 : 0.004));
    const { setOf } = column;
    for (let r = 0; r < product.length; r++) product[r] = (product[r] ?? 0) * (table[setOf[r] ?? 0] ?? 0.2);
  }
  let sum = 0;
  for (const p of product) sum += p;
  return sum;
}

let before: number | undefined;
for (const count of [600, 2500, 10_000]) {
  const contents = world(count);
  const start = performance.now();
  const index = compileReference(contents, '1', TODAY);
  const compiled = performance.now() - start;
  const first = performance.now();
  identify(index, { observations: questions(index, 1) });
  const firstAnswer = performance.now() - first;
  for (const step of prepared(index)) void step;
  const { p50, p95 } = timed(150, (run) => void identify(index, { observations: questions(index, run) }));
  const plain = timed(150, (run) => void plainPass(index, questions(index, run)));
  print(
    `identify, ${count} variants × ${FEATURES} features and a mark`,
    `p50 ${ms(p50)}, p95 ${ms(p95)}; a plain pass p95 ${ms(plain.p95)}, ${(p95 / plain.p95).toFixed(1)} × that${before === undefined ? '' : `; ${(p50 / before).toFixed(1)} × the one before`}`,
  );
  print('', `index built in ${ms(compiled)}, the first question after it ${ms(firstAnswer)}`);
  before = p50;
}
