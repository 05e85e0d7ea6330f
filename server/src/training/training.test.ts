/** Drills of a shop: asked, answered, coming back; each person's own. */
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { intake, serverForTest, testPack, type TestServer, type Visitor } from '../testing/index.ts';

let server: TestServer;
let clerk: Visitor;
const asked = async (who: Visitor, query = ''): Promise<any[]> =>
  ((await who.call('GET', `/drills/next${query}`)) as any).body.items;
const answerWith = (who: Visitor, question: any, choice: string): Promise<any> =>
  who.call('POST', '/drills/answers', { question: question.id, basis: question.basis, choice, took: 3000 });
const progress = async (who: Visitor): Promise<any> => ((await who.call('GET', '/drills')) as any).body;

beforeAll(async () => {
  server = await serverForTest();
  await server.owner.call('POST', '/reference-packs', {
    ...testPack,
    codes: [
      {
        id: 'ticks',
        maker: 'bh',
        kind: 'date',
        source: 'ledger',
        page: '12',
        reads: [
          { id: 'row', label: 'Row', type: 'choice', values: ['above', 'below'] },
          { id: 'ticks', label: 'Ticks', type: 'count', min: 0, max: 9 },
        ],
        rules: [
          { when: { row: 'above' }, year: { base: 1920, plus: 'ticks' } },
          { when: { row: 'below' }, year: { base: 1930, plus: 'ticks' } },
        ],
      },
    ],
  });
  await server.owner.call('POST', '/people', {
    name: 'Tom Okell',
    email: 'tom@hollinquay.example',
    role: 'reader',
    password: 'quiet water 12',
  });
  clerk = server.nobody();
  await clerk.call('POST', '/session', { email: 'tom@hollinquay.example', password: 'quiet water 12' });
});
afterAll(() => server.close());

test('a question has choices and no answer; an answer says whether it was right, why, from which page, and when it comes back', async () => {
  const [question] = await asked(clerk, '?kind=code&limit=1');
  expect(Object.keys(question).sort()).toEqual(['ask', 'basis', 'choices', 'drawn', 'id', 'kind', 'learnt']);
  const [, row, ticks] = /Row (\w+), Ticks (\d)/.exec(question.ask) ?? [];
  const year = String((row === 'above' ? 1920 : 1930) + Number(ticks));
  // the same signs in the other row are among the mistakes
  expect(question.choices).toContain(String(Number(year) + (row === 'above' ? 10 : -10)));
  const { body } = await answerWith(clerk, question, year);
  expect(body).toMatchObject({ right: true, answer: year, source: { title: 'Works ledger', page: '12' } });
  expect(body.opens).toMatch(/^\/reference\//);
  expect(Date.parse(body.due)).toBeGreaterThan(Date.now());
});

test('what was missed comes back before what was known, and progress is one’s own', async () => {
  const [first] = await asked(clerk, '?kind=code&limit=1');
  const wrong = first.choices.find((c: string) => !first.ask.includes(c));
  const verdict = (await answerWith(clerk, first, wrong)).body;
  const mended = (await answerWith(clerk, first, verdict.answer)).body;
  expect(Date.parse(mended.due)).toBeGreaterThan(Date.parse(verdict.due) - 1);
  expect(await progress(clerk)).toMatchObject({ learning: 2, known: 0, days: [{ right: 2, wrong: 1 }] });
  expect(await progress(server.owner)).toMatchObject({ learning: 0, days: [] });
  // both were asked, and neither is new any more
  const fresh = (await asked(clerk, '?kind=code&limit=40')).map((q) => q.id);
  expect(fresh).not.toContain(first.id);
});

test('two answers at once are both counted', async () => {
  const [question] = await asked(server.owner, '?kind=code&limit=1');
  const replies = await Promise.all(
    question.choices.map((c: string) => answerWith(server.owner, question, c)),
  );
  expect(replies.map((r) => r.status)).toEqual(question.choices.map(() => 200));
  const [day] = (await progress(server.owner)).days;
  expect(day.right + day.wrong).toBe(question.choices.length);
});

test('a question of a reference that says something else by now is refused, and asked anew', async () => {
  const [question] = await asked(clerk, '?kind=code&limit=1');
  const code = ((await server.owner.call('GET', '/reference/items/codes/ticks')) as any).body;
  const rules = code.item.rules.map((rule: any) => ({
    ...rule,
    year: { ...rule.year, base: rule.year.base + 1 },
  }));
  const changed: any = await server.owner.call(
    'PUT',
    '/reference/items/codes/ticks',
    { ...code.item, rules },
    { 'if-match': `"v${code.version}"` },
  );
  expect(changed.status).toBe(200);
  expect((await answerWith(clerk, question, question.choices[0])).status).toBe(409);
  expect((await progress(clerk)).stale).toBe(2);
});

test('a piece the shop inspected is asked about; what is asked at the bench wrongly comes first', async () => {
  const put = async (piece: any, path: string, body: unknown): Promise<any> =>
    (
      (await server.owner.call('PUT', `/pieces/${piece.id}/${path}`, body, {
        'if-match': `"v${piece.version}"`,
      })) as any
    ).body;
  let piece = ((await server.owner.call('POST', '/pieces', intake)) as any).body;
  piece = await put(piece, 'attribution', {
    attribution: { pattern: 'jack', variant: 'second', tier: 'probable', reason: 'compared' },
  });
  piece = await put(piece, 'condition', {
    findings: [{ part: 'blade', defect: 'pitting', severity: 'heavy' }],
    completeness: {},
    inspected: true,
  });
  const [grade] = await asked(clerk, '?kind=grade');
  expect(grade.ask).toMatch(/Harbour jack, Second form.*pit/i);
  const sheet = ((await server.owner.call('GET', `/pieces/${piece.id}`)) as any).body;
  expect((await answerWith(clerk, grade, sheet.readings.condition.grade)).body).toMatchObject({
    right: true,
    opens: `/pieces/${piece.id}/condition`,
  });
});

test('an empty shop has nothing to ask', async () => {
  const empty = await serverForTest();
  try {
    expect(await progress(empty.owner)).toMatchObject({ known: 0, new: 0, makers: [], kinds: [] });
    expect(await asked(empty.owner)).toEqual([]);
  } finally {
    await empty.close();
  }
});
