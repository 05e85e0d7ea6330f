/**
 * `npm run bench:value`: how near the estimate comes to the best possible in simulated markets, whether its range
 * holds what it says, and what a fit takes. Every asked-for sale is of the day after the last known price and was never
 * among the sales; the engine has its shipped settings.
 */
import { estimateWorth, evidenceIn, fitMarket, Market, type Estimate } from '@jutbank/core/value';
import { Oracle, type Prediction } from './value/oracle.ts';
import { measureServer } from './value/server.ts';
import { makeWorld, TODAY, type Question, type World } from './value/world.ts';

const WORLDS = Number(process.env['WORLDS'] ?? 12);
const SALES = (process.env['SALES'] ?? '600,1500,4000').split(',').map(Number);
const ASKED = Number(process.env['ASKED'] ?? 250);
const SIZES = (process.env['SIZES'] ?? '1000,10000,100000').split(',').map(Number);
const FIRST_SEED = 5000;

const print = (label: string, text: string) => process.stdout.write(`${label.padEnd(52)} ${text}\n`);
const mean = (values: readonly number[]) =>
  values.reduce((sum, x) => sum + x, 0) / Math.max(1, values.length);

interface Answered {
  readonly question: Question;
  readonly estimate: Estimate;
  readonly best: Prediction;
  readonly own: number;
}
const error = (a: Answered) => Math.abs(Math.log(a.estimate.estimate) - a.question.outcome);
const bestError = (a: Answered) => Math.abs(a.best.location - a.question.outcome);
const holds = (a: Answered) =>
  a.question.outcome >= Math.log(a.estimate.low) && a.question.outcome <= Math.log(a.estimate.high);
const width = (a: Answered) => Math.log(a.estimate.high / a.estimate.low);
const method = (name: string) => (a: Answered) =>
  Math.abs(
    Math.log(a.estimate.methods.find((m) => m.name === name)?.estimate ?? a.estimate.estimate) -
      a.question.outcome,
  );

function marketOf(world: World): Market {
  return new Market(fitMarket(world.sales, world.reference, world.rateOn), world.reference, world.rateOn);
}

const answered: Answered[] = [];
for (const sales of SALES)
  for (let w = 0; w < WORLDS; w++) {
    const world = makeWorld(FIRST_SEED + 97 * w + sales, sales);
    const market = marketOf(world);
    const oracle = new Oracle(world);
    const own = new Map<string, number>();
    for (const s of world.sales)
      if (s.variant !== undefined && s.priceKind === 'sold')
        own.set(s.variant, (own.get(s.variant) ?? 0) + 1);
    for (let k = 0; k < ASKED; k++) {
      const question = world.ask();
      const evidence = evidenceIn(world.sales, market, question.subject);
      answered.push({
        question,
        estimate: estimateWorth(market, evidence, question.subject, question.venueKind, TODAY),
        best: oracle.predict(question),
        own: own.get(question.variant.id) ?? 0,
      });
    }
  }

print('markets, sales in each, asked', `${WORLDS * SALES.length}, ${SALES.join(' / ')}, ${answered.length}`);
function tell(name: string, some: readonly Answered[]): void {
  if (some.length === 0) return;
  const best = mean(some.map(bestError));
  const ratio = (of: (a: Answered) => number) => (mean(some.map(of)) / best).toFixed(3);
  print(
    `${name} (${some.length})`,
    `error ${mean(some.map(error)).toFixed(4)} = ${ratio(error)} × best; ` +
      `median of raw ${ratio(method('median-of-raw'))}, fixed percentages ${ratio(method('fixed-percentages'))}; ` +
      `80 % range holds ${mean(some.map((a) => (holds(a) ? 1 : 0))).toFixed(3)}, ` +
      `best’s ${mean(some.map((a) => (Math.abs(a.best.location - a.question.outcome) <= a.best.half ? 1 : 0))).toFixed(3)}; ` +
      `width ${(mean(some.map(width)) / mean(some.map((a) => 2 * a.best.half))).toFixed(3)} × best’s`,
  );
}
tell('all', answered);
tell(
  'never sold',
  answered.filter((a) => a.own === 0),
);
tell(
  '1–3 own sales',
  answered.filter((a) => a.own >= 1 && a.own <= 3),
);
tell(
  '4–15 own sales',
  answered.filter((a) => a.own >= 4 && a.own <= 15),
);
tell(
  '16 and more',
  answered.filter((a) => a.own >= 16),
);

for (const size of SIZES) {
  const world = makeWorld(FIRST_SEED + size, size, size >= 50_000 ? 40 : 9);
  let start = performance.now();
  const fitted = fitMarket(world.sales, world.reference, world.rateOn);
  const full = performance.now() - start;
  start = performance.now();
  fitMarket(world.sales, world.reference, world.rateOn, { start: fitted });
  const warm = performance.now() - start;
  const market = new Market(fitted, world.reference, world.rateOn);
  const questions = Array.from({ length: 100 }, () => world.ask());
  const evidence = questions.map((q) => evidenceIn(world.sales, market, q.subject));
  const times = questions.map((q, k) => {
    const from = performance.now();
    estimateWorth(market, evidence[k] ?? evidenceIn([], market, q.subject), q.subject, q.venueKind, TODAY);
    return performance.now() - from;
  });
  times.sort((a, b) => a - b);
  print(
    `${size} prices, ${fitted.plan.columns.length} columns, ${fitted.plan.variants.length} variants`,
    `fit ${full.toFixed(0)} ms, from the last solution ${warm.toFixed(0)} ms; estimate p50 ${(times[50] ?? 0).toFixed(1)} ms, p95 ${(times[95] ?? 0).toFixed(1)} ms`,
  );
}

for (const size of (process.env['SERVED'] ?? '1000,10000,100000').split(',').map(Number).filter(Boolean)) {
  const f = await measureServer(size, FIRST_SEED + size);
  const ms = (x: number) => `${x.toFixed(0)} ms`;
  print(
    `served: ${f.imported} prices`,
    `import ${(f.importMs / 1000).toFixed(1)} s; first estimate after it ${(f.firstMs / 1000).toFixed(1)} s, then p50 ${ms(f.p50)}, p95 ${ms(f.p95)}; ` +
      `each after one new price p50 ${ms(f.afterOneP50)}, p95 ${ms(f.afterOneP95)}; search p95 ${ms(f.searchP95)}`,
  );
}
