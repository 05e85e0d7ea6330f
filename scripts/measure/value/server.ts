/**
 * A whole server over a market of any size: what an import takes, how soon the first estimate is there, how fast the
 * next are, and how fast one is that follows a single new price.
 */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { isoOf, asDay } from '@jutbank/core/dates';
import type { Comparable } from '@jutbank/core/market';
import { serverForTest } from '../../../server/src/testing/index.ts';
import { startMariaDb } from '../../setup/mariadb.mjs';
import { makeWorld, TODAY, type World } from './world.ts';

export interface ServerFigures {
  readonly imported: number;
  readonly importMs: number;
  readonly firstMs: number;
  readonly p50: number;
  readonly p95: number;
  readonly afterOneP50: number;
  readonly afterOneP95: number;
  readonly searchP95: number;
}

const iso = (day: number) => isoOf(asDay(day));
const cells = (s: Comparable): string =>
  [
    iso(s.day),
    s.price.amount,
    s.price.currency,
    s.priceKind,
    s.venue ?? '',
    s.venueKind,
    s.pattern,
    s.variant ?? '',
    s.conditionIndex?.toFixed(1) ?? '',
    s.box ?? '',
    s.papers ?? '',
    s.sheath ?? '',
    s.alterations.join('|'),
    s.buyerPremiumPct ?? '',
    s.shippingIncluded ? 'yes' : 'no',
    s.id,
  ].join(',');
const HEADER =
  'sale_date,price,currency,price_kind,venue,venue_kind,pattern,variant,condition_index,box,papers,sheath,alterations,buyer_premium_pct,shipping_included,note';

function packOf({ reference }: World): object {
  const makers = [...new Set([...reference.patterns.values()].map((p) => p.maker))];
  const materials = [...new Set([...reference.variants.values()].flatMap((v) => v.materials ?? []))];
  const features = new Map<string, string[]>();
  for (const material of materials) {
    const [feature = '', value = ''] = material.split(' ');
    features.set(feature, [...(features.get(feature) ?? []), value]);
  }
  return {
    format: 'jutbank.reference/1',
    id: 'market',
    title: 'A simulated market',
    revision: '1',
    makers: makers.map((id) => ({ id, name: id })),
    features: [...features].map(([id, values]) => ({
      id,
      label: id,
      part: 'scales',
      kind: 'category',
      values: values.map((v) => ({ id: v, label: v })),
    })),
    patterns: [...reference.patterns.values()].map((p) => ({ ...p, name: p.id })),
    variants: [...reference.variants.values()].map((v) => ({
      id: v.id,
      pattern: v.pattern,
      name: v.id,
      kind: v.kind,
      ...(v.year === undefined ? {} : { window: `${v.year}/${v.year + 4}` }),
      ...(v.quantity === undefined ? {} : { made: { quantity: v.quantity, basis: 'documented' } }),
      features: Object.fromEntries((v.materials ?? []).map((m) => m.split(' ')).map(([f, x]) => [f, [x]])),
    })),
  };
}

const percentile = (times: number[], share: number) =>
  times.sort((a, b) => a - b)[Math.min(times.length - 1, Math.floor(times.length * share))] ?? NaN;

export async function measureServer(size: number, seed: number): Promise<ServerFigures> {
  const folder = mkdtempSync(join(tmpdir(), 'jutbank-measure-'));
  const mariadb = await startMariaDb(folder, { durable: true });
  process.env.JUTBANK_TEST_DATABASE = mariadb.url('');
  const server = await serverForTest();
  server.app.jobs.start();
  try {
    const world = makeWorld(seed, size, size >= 50_000 ? 40 : 9);
    const must = async (method: string, path: string, body?: unknown) => {
      const reply = await server.owner.call(method, path, body);
      if (reply.status >= 300)
        throw new Error(`${path}: ${reply.status} ${JSON.stringify(reply.body).slice(0, 400)}`);
      return reply;
    };
    await must('POST', '/reference-packs', packOf(world));
    const rates = ['GBP', 'SEK', 'USD'].flatMap((currency) =>
      Array.from({ length: 3301 }, (_, d) => ({
        date: iso(TODAY - 3300 + d),
        currency,
        rate: (world.rateOn(currency, TODAY - 3300 + d) ?? 1).toFixed(6),
      })),
    );
    await must('POST', '/exchange-rates', { base: 'EUR', rates });
    const form = new FormData();
    form.set('file', new Blob([[HEADER, ...world.sales.map(cells)].join('\n')]), 'market.csv');
    let start = performance.now();
    const reply = await must('POST', '/comparables/import', form);
    let added = (reply.body as { added?: number }).added;
    while (added === undefined) {
      const job = await must('GET', `/jobs/${(reply.body as { job: string }).job}`);
      if (job.body.state === 'failed') throw new Error('the import failed');
      if (job.body.state === 'done') added = job.body.result.added as number;
      else await new Promise((resolve) => setTimeout(resolve, 50));
    }
    const importMs = performance.now() - start;
    const ask = async (): Promise<number> => {
      const { subject, venueKind } = world.ask();
      const from = performance.now();
      await must('POST', '/valuations/estimate', { subject, venueKind, asOf: iso(TODAY), currency: 'EUR' });
      return performance.now() - from;
    };
    start = performance.now();
    await ask();
    const firstMs = performance.now() - start;
    const times: number[] = [];
    for (let k = 0; k < 300; k++) times.push(await ask());
    const afterOne: number[] = [];
    for (let k = 0; k < 40; k++) {
      const some = world.sales[k * 7];
      if (some)
        await must('POST', '/comparables/import', {
          rows: [
            Object.fromEntries(
              HEADER.split(',').map((name, i) => [
                name,
                cells({ ...some, id: `more-${k}` }).split(',')[i] ?? '',
              ]),
            ),
          ],
        });
      afterOne.push(await ask());
    }
    const searches: number[] = [];
    for (let k = 0; k < 60; k++) {
      const from = performance.now();
      await must('GET', `/comparables?limit=50&q=s00001${k}&venueKind=${k % 2 ? 'auction' : 'online'}`);
      searches.push(performance.now() - from);
    }
    return {
      imported: added,
      importMs,
      firstMs,
      p50: percentile(times, 0.5),
      p95: percentile(times, 0.95),
      afterOneP50: percentile(afterOne, 0.5),
      afterOneP95: percentile(afterOne, 0.95),
      searchP95: percentile(searches, 0.95),
    };
  } finally {
    await server.app.jobs.stop();
    await server.close();
    await mariadb.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}
