import { describe, expect, test } from '@jest/globals';
import { Validator } from '@seriousme/openapi-schema-validator';
import { z } from 'zod';
import { identifyQuestion } from '../bench/index.ts';
import { observation, conditionBody, finding, intakeBody, emptyIntake } from '../pieces/index.ts';
import { edtf, moneySchema, pageQuery, slug } from '../http/index.ts';
import { referencePack } from '../reference/index.ts';
import { saleBody } from '../sale/index.ts';
import { setupBody } from '../shop/index.ts';
import { estimateQuestion } from '../market/index.ts';
import { allRoutes, openApiDocument } from './index.ts';

const places = (schema: z.ZodType, input: unknown) => {
  const parsed = schema.safeParse(input);
  return parsed.success ? [] : parsed.error.issues.map((issue) => issue.path.join('/'));
};

describe('shared shapes', () => {
  test.each(['a', 'hj-naval-2', '9'])('“%s” is an id', (id) => expect(places(slug, id)).toEqual([]));
  test.each(['', 'Ab', '-a', 'a-', 'a b', 'ä', 'x'.repeat(81)])('“%s” is not', (id) =>
    expect(places(slug, id)).not.toEqual([]),
  );
  test('a malformed date names its text', () => {
    const parsed = edtf.safeParse('1940/1930');
    expect(parsed.success).toBe(false);
    expect(parsed.error?.issues[0]?.message).toContain('1940/1930');
  });
  test('money is a decimal string with no more decimals than its currency, never a float', () => {
    expect(places(moneySchema, { amount: '182.50', currency: 'EUR' })).toEqual([]);
    expect(places(moneySchema, { amount: 182.5, currency: 'EUR' })).toEqual(['amount']);
    expect(places(moneySchema, { amount: '182.505', currency: 'EUR' })).toEqual(['amount']);
    expect(places(moneySchema, { amount: '1', currency: 'ZZZZ' })).toEqual(['currency']);
  });
  test('pages have a limit, and one by default', () => {
    expect(pageQuery.parse({})).toEqual({ limit: 50 });
    expect(places(pageQuery, { limit: '0' })).toEqual(['limit']);
    expect(places(pageQuery, { limit: '5000' })).toEqual(['limit']);
  });
});

describe('bodies', () => {
  test('an observation is one of six kinds, and nothing else', () => {
    for (const good of [
      { feature: 'a', value: 'b' },
      { feature: 'a', value: 3, certainty: 'unsure' },
      { feature: 'a', measure: 97.6, resolution: 0.1 },
      { feature: 'a', state: 'cannot-tell' },
      { mark: 'm' },
      { code: 'c', reads: { ticks: 3 } },
      { code: 'c', text: '3262' },
    ])
      expect(places(observation, good)).toEqual([]);
    for (const bad of [
      {},
      { feature: 'a' },
      { feature: 'a', measure: -1 },
      { feature: 'a', value: 'b', certainty: 'maybe' },
      { mark: 'm', code: 'c' },
    ])
      expect(places(observation, bad)).not.toEqual([]);
  });
  test('empty narrowing and absent fields are fine', () =>
    expect(
      places(identifyQuestion, { observations: [], within: { makers: [], patterns: [], constructions: [] } }),
    ).toEqual([]));
  test('findings name their part and defect', () => {
    expect(places(finding, { part: 'blade:2', defect: 'chip', measure: 2 })).toEqual([]);
    expect(places(finding, { part: 'blade:two', defect: 'chip' })).toEqual(['part']);
    expect(places(finding, { part: 'sail', defect: 'torn' })).toEqual(['part', 'defect']);
    expect(places(conditionBody, { findings: [] })).toEqual(['inspected']);
  });
  test('intake needs only a name', () => {
    expect(places(intakeBody, { ...emptyIntake, title: 'x' })).toEqual([]);
    expect(places(intakeBody, emptyIntake)).toEqual(['title']);
    expect(
      places(intakeBody, { ...emptyIntake, title: 'x', price: { amount: '-5', currency: 'EUR' } }),
    ).toEqual(['price/amount']);
  });
  test('a sale needs a buyer of age', () =>
    expect(places(saleBody, { buyerName: '', ageChecked: false })).toEqual(['buyerName', 'ageChecked']));
  test('a shop needs its owner', () =>
    expect(places(setupBody, { shopName: 'x', baseCurrency: 'EUR' })).toEqual(['owner']));
  test('an estimate’s probabilities do not pass one', () =>
    expect(
      places(estimateQuestion, {
        subject: {
          pattern: 'p',
          variants: [
            { variant: 'a', probability: 0.6 },
            { variant: 'b', probability: 0.6 },
          ],
        },
        asOf: '2026-11-01',
        currency: 'EUR',
        venueKind: 'fair',
      }),
    ).toEqual(['subject/variants']));
  test('a pack keeps what it says beyond the contract', () => {
    const pack = {
      format: 'jutbank.reference/1',
      id: 'p',
      title: 'P',
      revision: '1',
      makers: [{ id: 'm', name: 'M', motto: 'Keen' }],
      colophon: 'x',
    };
    expect(referencePack.parse(pack)).toEqual(pack);
  });
});

describe('the description of the routes', () => {
  const document = JSON.parse(JSON.stringify(openApiDocument('0.1.0'))) as {
    paths: Record<
      string,
      Record<string, { operationId: string; security: unknown[]; requestBody?: unknown }>
    >;
  };
  test('every route once, with its access', () => {
    expect(new Set(allRoutes.map((r) => `${r.method} ${r.path}`)).size).toBe(allRoutes.length);
    const described = Object.values(document.paths).flatMap((path) => Object.keys(path)).length;
    expect(described).toBe(allRoutes.length);
    const open = allRoutes
      .filter((r) => r.access === 'public')
      .map((r) => r.path)
      .sort();
    expect(open).toEqual([
      '/certificates/:code',
      '/certificates/:code/certificate.json',
      '/certificates/:code/pictures/:hash',
      '/health',
      '/session',
      '/session',
      '/setup',
    ]);
    for (const route of allRoutes) {
      const told = document.paths[`/api/v1${route.path.replaceAll(/:(\w+)/g, '{$1}')}`]?.[route.method];
      expect(told?.security).toEqual(route.access === 'public' ? [] : [{ session: [] }]);
      if (route.method === 'post' || route.method === 'put') expect(told?.requestBody).toBeDefined();
    }
  });
  test('it is a valid OpenAPI document, each operation under a name of its own, each answer described', async () => {
    const checked = await new Validator().validate(structuredClone(document) as Record<string, unknown>);
    expect(checked).toMatchObject({ valid: true });
    const operations = Object.values(document.paths).flatMap((path) => Object.values(path));
    expect(new Set(operations.map((o) => o.operationId)).size).toBe(operations.length);
    for (const route of allRoutes.filter((r) => r.carries !== 'file' && r.status !== 204))
      expect([route.path, route.answer instanceof z.ZodUnknown]).toEqual([route.path, false]);
  });
});
