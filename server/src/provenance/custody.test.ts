/** Who had a piece when, as it is kept, told and checked. */
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { intake, serverForTest, testPack, type TestServer } from '../testing/index.ts';

let server: TestServer;
let piece: any;
beforeAll(async () => {
  server = await serverForTest();
  await server.owner.call('POST', '/reference-packs', testPack);
  piece = (await server.owner.call('POST', '/pieces', intake)).body;
});
afterAll(() => server.close());

const event = (more: object = {}) => ({
  holder: 'Elias Corrie',
  private: true,
  place: 'Norham Vale',
  period: '1934/1960',
  how: 'by inheritance',
  evidence: 'document',
  note: null,
  ...more,
});
const keep = async (events: object[], version = piece.version): Promise<any> => {
  const answer: any = await server.owner.call(
    'PUT',
    `/pieces/${piece.id}/custody`,
    { events },
    { 'if-match': `"v${version}"` },
  );
  if (answer.status === 200) piece = answer.body;
  return answer;
};

test('is kept in the order of its years, whatever the order it was told in', async () => {
  await keep([event({ holder: 'Greta Sundholm', period: '1970/1990' }), event()]);
  expect(piece.custody.map((e: any) => e.holder)).toEqual(['Elias Corrie', 'Greta Sundholm']);
  expect(piece.custody[0]).toEqual(event());
});
test('two who had it at one time are told, on the sheet, until it is settled', async () => {
  await keep([event(), event({ holder: 'Greta Sundholm', period: '1950/1990' })]);
  expect(piece.trail.problems.length).toBeGreaterThan(0);
  expect(piece.readings.trail.problems).toBe(piece.trail.problems.length);
  await keep([event({ period: '1934/1949' }), event({ holder: 'Greta Sundholm', period: '1950/1990' })]);
  expect(piece.trail.problems).toEqual([]);
});
test('what is wrong is told at its place, and nothing of it is kept', async () => {
  const before = piece.custody;
  const wrong = await keep([event(), event({ holder: '', period: 'soon' })]);
  expect(wrong.status).toBe(422);
  expect(wrong.body.errors.map((e: any) => e.pointer).sort()).toEqual([
    '/events/1/holder',
    '/events/1/period',
  ]);
  expect((await server.owner.call('GET', `/pieces/${piece.id}`)).body.custody).toEqual(before);
});
test('written upon what somebody else wrote meanwhile, it is refused', async () => {
  expect((await keep([event()], piece.version - 1)).status).toBe(412);
});
test('every change stands in the ledger with who made it, and the ledger is whole', async () => {
  const ledger: any = (await server.owner.call('GET', `/pieces/${piece.id}/ledger?limit=50`)).body;
  expect(ledger.items.filter((e: any) => e.kind === 'custody-recorded').length).toBeGreaterThanOrEqual(3);
  expect(ledger.items[0]).toMatchObject({ by: 'Ines Vadder', hash: expect.stringMatching(/^[0-9a-f]{64}$/) });
  expect((await server.owner.call('GET', '/ledger/verify')).body).toMatchObject({ intact: true });
});
describe('one page after the other', () => {
  test('the whole ledger is told once, each entry following from the one before', async () => {
    const seen: any[] = [];
    for (let cursor = ''; ;) {
      const page: any = (await server.owner.call('GET', `/ledger?limit=2${cursor && `&cursor=${cursor}`}`))
        .body;
      seen.push(...page.items);
      if (page.nextCursor === null) break;
      cursor = page.nextCursor;
    }
    const numbers = seen.map((e) => e.seq);
    expect(numbers).toEqual([...numbers].sort((a, b) => b - a));
    expect(new Set(numbers).size).toBe(numbers.length);
  });
  test('a cursor of somebody’s making is refused', async () => {
    expect((await server.owner.call('GET', '/ledger?cursor=nonsense')).status).toBe(422);
  });
});
test('an entry that was rewritten is found', async () => {
  await server.database.run("UPDATE ledger_entry SET kind = 'inspected' WHERE seq = 2");
  expect((await server.owner.call('GET', '/ledger/verify')).body).toMatchObject({
    intact: false,
    firstBroken: 2,
  });
});
