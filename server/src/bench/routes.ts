/** The stateless question, the same for a stored piece, and what stays open. */
import { checkQuestion, identify, withAlerts } from '@jutbank/core/bench';
import { benchRoutes } from '@jutbank/contract/bench';
import { answer, conflict, invalid, notFound, type Mount } from '../http/index.ts';
import { changePiece, pieceRecord, seenBefore, type Readers } from '../pieces/index.ts';
import { raiseRevision } from '../db/index.ts';
import { mountRecord } from './record.ts';
import { frequencyAnswer } from './frequency.ts';
import type { Gauges } from '../outside/index.ts';
import { answerQuestion, ask, listQuestions, listWatched, questionWith, unwatch, watchNumber } from './questions.ts';
export { Gauges, type GaugeAddress } from '../outside/index.ts';

export function mountBench(mount: Mount, readers: Readers, gauges: Gauges): void {
  const { database } = mount;
  mountRecord(mount, readers);
  const { library } = readers;
  mount.reads(benchRoutes.identify, async ({ body }) => {
    const index = await library.index();
    const problems = checkQuestion(index, body);
    if (problems.length > 0) throw invalid(problems);
    const asked = { id: body.piece ?? undefined, observations: body.observations };
    const [alerts = []] = await seenBefore(database, index, [asked]);
    return answer(withAlerts(identify(index, body), alerts));
  });
  mount.reads(benchRoutes.identifyPiece, async ({ params }) => {
    const record = await pieceRecord(database, params.id);
    return answer((await readers.assess(record)).answer);
  });
  mount.reads(benchRoutes.frequency, async () => answer(await frequencyAnswer(database, library)));
  mount.writes(benchRoutes.putFrequency, async (tx, { body }) => {
    await tx.run('UPDATE shop SET learns_frequency = ? WHERE id = 1', [body.learns]);
    await raiseRevision(tx, 'encounters');
    return answer({ learns: body.learns });
  });

  mount.reads(benchRoutes.questions, async ({ query }) => {
    const items = await listQuestions(database, query.piece);
    return answer({ items, nextCursor: null, total: items.length });
  });
  mount.writes(benchRoutes.askQuestion, async (tx, { params, body, person }) => {
    let id = '';
    await changePiece(
      tx,
      {
        pieceId: params.id,
        person,
        ifMatch: undefined,
        anyVersion: true,
        evenSold: true,
        kind: 'asked',
        body,
      },
      async () => {
        id = await ask(tx, params.id, body.asked, person.name);
      },
    );
    return answer(await question(tx, id), { status: 201 });
  });
  mount.writes(benchRoutes.answerQuestion, async (tx, { params, body, person }) => {
    const before = await question(tx, params.id);
    await changePiece(
      tx,
      {
        pieceId: before.piece.id,
        person,
        ifMatch: undefined,
        anyVersion: true,
        evenSold: true,
        kind: 'question-answered',
        body: { question: params.id, ...body },
      },
      () => answerQuestion(tx, params.id, body.answer, person.name),
    );
    return answer(await question(tx, params.id));
  });
  const question = async (db: typeof database | Parameters<typeof questionWith>[0], id: string) => {
    const found = await questionWith(db, id);
    if (!found) throw notFound('question');
    return found;
  };

  mount.reads(benchRoutes.gauges, async () => {
    const items = gauges.addresses.map(({ id, kind, simulated }) => ({ id, kind, simulated }));
    return answer({ items, nextCursor: null, total: items.length });
  });
  mount.reads(benchRoutes.followGauges, async ({ response }) => {
    gauges.follow(response);
    return undefined;
  });
  mount.reads(benchRoutes.pressGauge, async ({ params, body }) => {
    if (!gauges.addresses.some((g) => g.id === params.id)) throw notFound('gauge');
    if (!gauges.press(params.id, body.key, body.jaws ?? undefined))
      throw conflict('This gauge is not plugged in. Type the size instead.');
    return answer({ pressed: body.key });
  });

  mount.reads(benchRoutes.watchList, async () => {
    const items = await listWatched(database);
    return answer({ items, nextCursor: null, total: items.length });
  });
  mount.writes(benchRoutes.watch, async (tx, { body, person }) => {
    const code = (await library.atHand(tx)).codes.get(body.code);
    if (code?.kind !== 'serial')
      throw invalid([{ pointer: '/code', message: `“${body.code}” is no serial number of the reference` }]);
    if ((await listWatched(tx)).some((w) => w.code === body.code && w.text === body.text))
      throw conflict('This number is on the list already.');
    const id = await watchNumber(tx, body, person.name);
    await raiseRevision(tx, 'encounters');
    return answer({ id }, { status: 201 });
  });
  mount.writes(benchRoutes.unwatch, async (tx, { params }) => {
    await unwatch(tx, params.id);
    await raiseRevision(tx, 'encounters');
    return answer({ removed: params.id });
  });
}
