/** The versions of the rules a shop grades by. */
import { documentOf, SHIPPED_RULES, type RuleDocument } from '@jutbank/core/condition';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { serverForTest, type TestServer } from '../testing/index.ts';

let server: TestServer;
beforeAll(async () => {
  server = await serverForTest();
});
afterAll(() => server.close());

const shipped = documentOf(SHIPPED_RULES, 'user');
if (!shipped) throw new Error('no rules are shipped for users');
const keep = (note: string, document: RuleDocument = shipped) =>
  server.owner.call<any>('POST', '/condition-rules', { document, note });
const versions = async (): Promise<{ version: string; inUse: boolean; madeBy: string | null }[]> =>
  (await server.owner.call<any>('GET', '/condition-rules')).body.items.find(
    (r: { id: string }) => r.id === 'user',
  ).versions;
const inUse = async () => (await versions()).filter((v) => v.inUse).map((v) => v.version);
const use = (version: string) => server.owner.call<any>('PUT', '/condition-rules/user/in-use', { version });

describe('the rules of a scale', () => {
  test('are those that are shipped, until the shop has its own', async () => {
    expect(await versions()).toMatchObject([{ version: shipped.version, inUse: true, madeBy: null }]);
  });
  test('of several kept at once each is a version, and one of them is graded by', async () => {
    const kept = await Promise.all(['a', 'b', 'c', 'd', 'e'].map((note) => keep(note)));
    expect(kept.map((reply) => reply.status)).toEqual([201, 201, 201, 201, 201]);
    const made = kept.map((reply) => reply.body.version as string).sort();
    expect(made).toEqual(['shop-1', 'shop-2', 'shop-3', 'shop-4', 'shop-5']);
    expect(await inUse()).toHaveLength(1);
    expect((await versions()).slice(1).every((v) => v.madeBy === 'Ines Vadder')).toBe(true);
  });
  test('a version that was kept before is taken again, and the shipped one by leaving all others', async () => {
    expect((await use('shop-2')).body.version).toBe('shop-2');
    expect(await inUse()).toEqual(['shop-2']);
    expect((await server.owner.call<any>('GET', '/condition-rules/user')).body.version).toBe('shop-2');
    expect((await use(shipped.version)).body).toEqual(shipped);
    expect(await inUse()).toEqual([shipped.version]);
  });
  test('a version nobody made is told, and nothing changes', async () => {
    const before = await inUse();
    expect((await use('shop-99')).status).toBeGreaterThanOrEqual(400);
    expect(await inUse()).toEqual(before);
    expect((await server.owner.call('GET', '/condition-rules/user?version=shop-99')).status).toBe(404);
  });
  test('what is graded says by which version, at once', async () => {
    const grade = async () =>
      (
        await server.owner.call<any>('POST', '/grade', {
          construction: 'slipjoint',
          findings: [],
          completeness: {},
          age: null,
        })
      ).body.grades.find((g: { scale: string }) => g.scale === 'user').rules as string;
    await use('shop-3');
    expect(await grade()).toBe('user/shop-3');
    await use(shipped.version);
    expect(await grade()).toBe(`user/${shipped.version}`);
  });
});
