import { describe, expect, test } from '@jest/globals';
import type { FairNote } from '@jutbank/contract/fair';
import { ApiProblem } from '../base/api.ts';
import {
  keep,
  sendWaiting,
  throwAway,
  tryAgain,
  waiting,
  type Photographs,
  type Sender,
  type Store,
} from './outbox.ts';

const store = (): Store => {
  const kept = new Map<string, string>();
  return { getItem: (k) => kept.get(k) ?? null, setItem: (k, v) => void kept.set(k, v) };
};
const album = (of: Record<string, Blob> = {}): Photographs & { kept: Map<string, Blob> } => {
  const kept = new Map(Object.entries(of));
  return {
    kept,
    get: (key) => Promise.resolve(kept.get(key)),
    set: (key, picture) => Promise.resolve(void kept.set(key, picture)),
    delete: (key) => Promise.resolve(void kept.delete(key)),
  };
};
const sender = (
  note: (n: FairNote) => Promise<unknown>,
  picture: Sender['picture'] = () => Promise.resolve(),
): Sender => ({ note: (n) => note(n).then(() => ({ id: `id of ${n.title}`, told: [] })), picture });
const INES = '01ARZ3NDEKTSV4RRFFQ69G5FAV';
const note = (n: number): FairNote => ({
  key: `00000000-0000-4000-8000-00000000000${n}`,
  notedAt: '2026-11-21T10:12:00.000Z',
  title: `Jack ${n}`,
  construction: 'slipjoint',
  question: { pattern: 'jack', alterations: [] },
  decision: 'left',
  note: '',
  observations: [],
});
const away = () => Promise.reject(new ApiProblem(0, 'The server does not answer', undefined, []));

describe('notes made at a fair', () => {
  test('wait while there is no connection, and go out in order once there is', async () => {
    const here = store();
    keep(here, note(1), INES);
    keep(here, note(2), INES);
    expect(await sendWaiting(here, INES, album(), sender(away))).toEqual({ sent: 0, told: [] });
    expect(waiting(here)).toHaveLength(2);
    const gone: string[] = [];
    const result = await sendWaiting(
      here,
      INES,
      album(),
      sender((n) => Promise.resolve(gone.push(n.title))),
    );
    expect(result.sent).toBe(2);
    expect(gone).toEqual(['Jack 1', 'Jack 2']);
    expect(waiting(here)).toEqual([]);
  });
  test('what was sent before the connection dropped is not sent again', async () => {
    const here = store();
    keep(here, note(1), INES);
    keep(here, note(2), INES);
    await sendWaiting(
      here,
      INES,
      album(),
      sender((n) => (n.title === 'Jack 1' ? Promise.resolve() : away())),
    );
    expect(waiting(here).map(({ note }) => note.title)).toEqual(['Jack 2']);
  });
  test('one the server will never take is told with its reason and holds nothing up', async () => {
    const here = store();
    keep(here, note(1), INES);
    keep(here, note(2), INES);
    const result = await sendWaiting(
      here,
      INES,
      album(),
      sender((n) =>
        n.title === 'Jack 1'
          ? Promise.reject(new ApiProblem(422, 'x', 'there is no pattern “jack”', []))
          : Promise.resolve(),
      ),
    );
    expect(result.sent).toBe(1);
    expect(waiting(here)).toMatchObject([{ note: note(1), refused: 'there is no pattern “jack”' }]);
    // it is not sent over and over, until a person says so
    expect(
      (
        await sendWaiting(
          here,
          INES,
          album(),
          sender(() => Promise.resolve()),
        )
      ).sent,
    ).toBe(0);
    tryAgain(here);
    expect(
      (
        await sendWaiting(
          here,
          INES,
          album(),
          sender(() => Promise.resolve()),
        )
      ).sent,
    ).toBe(1);
    expect(waiting(here)).toEqual([]);
  });
  test('one that was refused is thrown away by a person, with its photograph', async () => {
    const here = store();
    keep(here, note(1), INES);
    const kept = album({ [note(1).key]: new Blob(['x']) });
    await throwAway(here, note(1).key, kept);
    expect(waiting(here)).toEqual([]);
    expect(kept.kept.size).toBe(0);
  });
  test.each([401, 409, 429, 500, 503])('status %i goes by waiting', async (status) => {
    const here = store();
    keep(here, note(1), INES);
    const out = sender(() => Promise.reject(new ApiProblem(status, 'x', undefined, [])));
    await sendWaiting(here, INES, album(), out);
    expect(waiting(here)).toEqual([{ note: note(1), person: INES }]);
  });
  test('what one person decided is not sent under the name of another', async () => {
    const here = store();
    keep(here, note(1), 'another');
    expect(
      (
        await sendWaiting(
          here,
          INES,
          album(),
          sender(() => Promise.resolve()),
        )
      ).sent,
    ).toBe(0);
    expect(waiting(here)).toHaveLength(1);
  });
  test('what no longer held is told with the name of the piece', async () => {
    const here = store();
    keep(here, note(1), INES);
    const told = { note: () => Promise.resolve({ id: 'x', told: ['Number 12 is known.'] }), picture: away };
    expect((await sendWaiting(here, INES, album(), told)).told).toEqual([
      { title: 'Jack 1', what: 'Number 12 is known.' },
    ]);
  });
});

describe('a photograph', () => {
  const picture = new Blob(['x'], { type: 'image/jpeg' });
  test('goes with its note, and is forgotten with it', async () => {
    const here = store();
    keep(here, note(1), INES);
    const kept = album({ [note(1).key]: picture });
    const gone: string[] = [];
    await sendWaiting(
      here,
      INES,
      kept,
      sender(
        () => Promise.resolve(),
        (id) => Promise.resolve(gone.push(id)),
      ),
    );
    expect(gone).toEqual(['id of Jack 1']);
    expect(kept.kept.size).toBe(0);
  });
  test('that did not get through keeps its note waiting', async () => {
    const here = store();
    keep(here, note(1), INES);
    const kept = album({ [note(1).key]: picture });
    expect(
      await sendWaiting(
        here,
        INES,
        kept,
        sender(() => Promise.resolve(), away),
      ),
    ).toEqual({
      sent: 0,
      told: [],
    });
    expect(waiting(here)).toHaveLength(1);
    expect(kept.kept.size).toBe(1);
  });
});
