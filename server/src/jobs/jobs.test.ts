/** Long work: claimed once, with progress, cancelled in the middle, taken over from a worker that died. */
import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import { migrate, type Database } from '../db/index.ts';
import { databaseForTest } from '../testing/index.ts';
import { cancelJob, findJob, JobRunner, queueJob, type JobWork } from './jobs.ts';

let database: Database;
let drop: () => Promise<void>;
beforeAll(async () => {
  ({ database, drop } = await databaseForTest());
  await migrate(database);
  await database.run(
    "INSERT INTO person (id, name, email, password_hash, role) VALUES ('01ARZ3NDEKTSV4RRFFQ69G5FAV', 'Ines Vadder', 'ines@hollinquay.example', 'x', 'owner')",
  );
});
afterAll(() => drop());
beforeEach(() => database.run('DELETE FROM job'));

const errors: unknown[] = [];
const runner = (count: JobWork) => new JobRunner(database, { count }, (error) => errors.push(error));
const queue = (payload: unknown = 3, kind = 'count') =>
  queueJob(database, kind, payload, '01ARZ3NDEKTSV4RRFFQ69G5FAV');

describe('a task', () => {
  test('is done once, whoever else looks for work at the same moment', async () => {
    const id = await queue();
    let worked = 0;
    const work: JobWork = (payload) => Promise.resolve({ counted: Number(payload), worked: ++worked });
    const ran = await Promise.all([runner(work).runOne(), runner(work).runOne(), runner(work).runOne()]);
    expect(ran.filter(Boolean)).toHaveLength(1);
    expect(await findJob(database, id)).toEqual({
      id,
      state: 'done',
      progress: 1,
      result: { counted: 3, worked: 1 },
    });
    expect(await runner(work).runOne()).toBe(false);
  });
  test('tells how far it is while it goes on', async () => {
    const id = await queue();
    await runner(async (_, progress) => {
      await progress(0.25);
      expect(await findJob(database, id)).toMatchObject({ state: 'running', progress: 0.25 });
      return null;
    }).runOne();
    expect(await findJob(database, id)).toMatchObject({ state: 'done', progress: 1 });
  });
  test('cancelled in the middle, it stops at its next word and stays cancelled', async () => {
    const id = await queue();
    let after = false;
    await runner(async (_, progress) => {
      await progress(0.5);
      await database.transaction((tx) => cancelJob(tx, id));
      await progress(0.6);
      after = true;
      return 'done after all';
    }).runOne();
    expect(after).toBe(false);
    expect(await findJob(database, id)).toMatchObject({ state: 'cancelled', result: null });
  });
  test('that fails is told as failed, without what is nobody’s business', async () => {
    const id = await queue();
    await runner(() => Promise.reject(new Error('password of the database: hunter2'))).runOne();
    const told = await findJob(database, id);
    expect(told?.state).toBe('failed');
    expect(JSON.stringify(told?.result)).not.toContain('hunter2');
    expect(errors.length).toBeGreaterThan(0);
  });
  test('of a kind nobody knows fails, and does not hold up the next one', async () => {
    await queue(1, 'unheard-of');
    const next = await queue(2);
    const some = runner(() => Promise.resolve('ok'));
    await some.runOne();
    await some.runOne();
    expect(await findJob(database, next)).toMatchObject({ state: 'done', result: 'ok' });
  });
  test('whose worker died is taken over; one that is still heard of is not', async () => {
    const id = await queue();
    await database.run("UPDATE job SET state = 'running', heartbeat = UTC_TIMESTAMP(3) WHERE id = ?", [id]);
    const other = runner(() => Promise.resolve('taken over'));
    expect(await other.runOne()).toBe(false);
    await database.run('UPDATE job SET heartbeat = UTC_TIMESTAMP(3) - INTERVAL 60 SECOND WHERE id = ?', [id]);
    expect(await other.runOne()).toBe(true);
    expect(await findJob(database, id)).toMatchObject({ state: 'done', result: 'taken over' });
  });
  test('what was asked of it is forgotten once it is over: it may be a whole list of prices', async () => {
    const id = await queue({ list: 'a great deal' });
    await runner(() => Promise.resolve(null)).runOne();
    expect(
      (await database.row<{ payload: string }>('SELECT payload FROM job WHERE id = ?', [id]))?.payload,
    ).toBe('');
  });
});
