/**
 * `npm run bench:imaging`: blades drawn with known truth, measured by the engine. Half by the two clicks on a rule,
 * straight from above; half by the four corners of a card, tilted up to ten degrees. All in uneven, noisy light.
 */
import { random } from '@jutbank/core/random';
import { BLADE_SHAPES } from '@jutbank/core/drawing';
import { measureDrawn, type Errors } from './imaging/measured.ts';

const PICTURES = Number(process.env['PICTURES'] ?? 40);
const SEED = 4711;
const luck = random(SEED);
const print = (label: string, text: string) => process.stdout.write(`${label.padEnd(44)} ${text}\n`);
const GROUNDS = [
  [232, 228, 219],
  [70, 92, 74],
  [34, 40, 52],
] as const;

const results: { by: 'rule' | 'card'; errors: Errors | undefined; ms: number; of: string }[] = [];
for (let i = 0; i < PICTURES; i++) {
  const by = i % 2 === 0 ? 'rule' : 'card';
  const size = {
    shape: BLADE_SHAPES[i % BLADE_SHAPES.length] ?? 'spear',
    length: luck.between(58, 105),
    height: luck.between(13, 24),
  };
  const wear = {
    tip: luck.between(0, 5),
    edge: luck.between(0, 2.2),
    spine: luck.yes(0.2) ? luck.between(0, 0.8) : 0,
  };
  const view = {
    width: 1400,
    height: 900,
    away: 420,
    pixelsPerMm: luck.between(7.5, 10),
    tilt: by === 'card' ? luck.between(-10, 10) : 0,
    turned: luck.between(-20, 20) + (luck.yes(0.5) ? 180 : 0),
    noise: luck.between(2, 8),
    uneven: luck.between(0.05, 0.3),
    ground: GROUNDS[i % GROUNDS.length] ?? GROUNDS[0],
    steel: [150, 154, 158] as const,
  };
  const start = performance.now();
  const errors = measureDrawn(size, wear, view, by, luck);
  const of = JSON.stringify({ ...size, ...wear, tilt: view.tilt, noise: view.noise, uneven: view.uneven });
  results.push({ by, errors, ms: performance.now() - start, of });
}

const found = results.flatMap((r) => (r.errors ? [{ ...r, errors: r.errors }] : []));
print('pictures, outlines found', `${results.length}, ${found.length}`);
for (const by of ['rule', 'card'] as const) {
  const some = found.filter((r) => r.by === by);
  const worst = (of: (e: Errors) => number) => Math.max(...some.map((r) => Math.abs(of(r.errors))));
  const rms = (of: (e: Errors) => number) =>
    Math.sqrt(some.reduce((sum, r) => sum + of(r.errors) ** 2, 0) / Math.max(1, some.length));
  const name = by === 'rule' ? 'two clicks on a rule' : 'corners of a card, tilted';
  print(
    `${name}: length, %`,
    `rms ${rms((e) => e.length).toFixed(3)}, worst ${worst((e) => e.length).toFixed(3)} (wanted 0.5)`,
  );
  print(`${name}: area, %`, `rms ${rms((e) => e.area).toFixed(3)}, worst ${worst((e) => e.area).toFixed(3)}`);
  print(
    `${name}: loss, points`,
    `rms ${rms((e) => e.loss).toFixed(3)}, worst ${worst((e) => e.loss).toFixed(3)} (wanted 1.5)`,
  );
}
print(
  'true loss of area, %',
  `${Math.min(...found.map((r) => r.errors.trueLoss)).toFixed(1)} to ${Math.max(...found.map((r) => r.errors.trueLoss)).toFixed(1)}`,
);
print(
  'time for a picture, drawing included, ms',
  (results.reduce((s, r) => s + r.ms, 0) / results.length).toFixed(0),
);
const odd = found.reduce((a, b) => (Math.abs(b.errors.loss) > Math.abs(a.errors.loss) ? b : a));
print('the picture with the worst loss', `${odd.errors.loss.toFixed(2)} points: ${odd.of}`);
