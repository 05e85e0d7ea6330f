/** The stateless question, the same for a stored piece, and what stays open. */
import { checkQuestion, identify, withAlerts } from '@jutbank/core/bench';
import { benchRoutes } from '@jutbank/contract/bench';
import { answer, conflict, invalid, notFound, type Mount } from '../http/index.ts';
import { changePiece, pieceRecord, duplicateSerials, type Readers } from '../pieces/index.ts';
import { raiseRevision } from '../db/index.ts';
import { mountObservations } from './record.ts';
import { frequencyAnswer } from './frequency.ts';
import type { Gauges } from '../outside/index.ts';
import {
  answerQuestion,
  ask,
  listQuestions,
  listUnlisted,
  listWatched,
  questionWith,
  unwatch,
  watchNumber,
} from './questions.ts';
export { Gauges, type GaugeAddress } from '../outside/index.ts';

export function mountBench(mount: Mount, readers: Readers, gauges: Gauges): void {
  const { database } = mount;
  mountObservations(mount, readers);
  const { library } = readers;
  mount.handle(benchRoutes.identify, async ({ body }) => {
    const index = await library.index();
    const problems = checkQuestion(index, body);
    if (problems.length > 0) throw invalid(problems);
    const asked = { id: body.piece ?? undefined, observations: body.observations };
    const [alerts = []] = await duplicateSerials(database, index, [asked]);
    return answer(withAlerts(identify(index, body), alerts));
  });
  mount.handle(benchRoutes.identifyPiece, async ({ params }) => {
    const record = await pieceRecord(database, params.id);
    return answer((await readers.assess(record)).answer);
  });
  mount.handle(benchRoutes.frequency, async () => answer(await frequencyAnswer(database, library)));
  mount.handleInTransaction(benchRoutes.putFrequency, async (tx, { body }) => {
    await tx.run('UPDATE shop SET learns_frequency = ? WHERE id = 1', [body.learns]);
    await raiseRevision(tx, 'encounters');
    return answer({ learns: body.learns });
  });

  mount.handle(benchRoutes.questions, async ({ query }) => {
    const items = await listQuestions(database, query.piece);
    return answer({ items, nextCursor: null, total: items.length });
  });
  mount.handleInTransaction(benchRoutes.askQuestion, async (tx, { params, body, person }) => {
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
  mount.handleInTransaction(benchRoutes.answerQuestion, async (tx, { params, body, person }) => {
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

  mount.handle(benchRoutes.gauges, async () => {
    const items = gauges.addresses.map(({ id, kind, simulated }) => ({ id, kind, simulated }));
    return answer({ items, nextCursor: null, total: items.length });
  });
  mount.handle(benchRoutes.followGauges, async ({ response }) => {
    gauges.follow(response);
    return undefined;
  });
  mount.handle(benchRoutes.pressGauge, async ({ params, body }) => {
    if (!gauges.addresses.some((g) => g.id === params.id)) throw notFound('gauge');
    if (!gauges.press(params.id, body.key, body.jaws ?? undefined))
      throw conflict('This gauge is not plugged in. Type the size instead.');
    return answer({ pressed: body.key });
  });

  mount.handle(benchRoutes.unlisted, async () => {
    const items = await listUnlisted(database);
    return answer({ items, nextCursor: null, total: items.length });
  });
  mount.handle(benchRoutes.watchList, async () => {
    const items = await listWatched(database);
    return answer({ items, nextCursor: null, total: items.length });
  });
  mount.handleInTransaction(benchRoutes.watch, async (tx, { body, person }) => {
    const code = (await library.atHand(tx)).codes.get(body.code);
    if (code?.kind !== 'serial')
      throw invalid([{ pointer: '/code', message: `“${body.code}” is no serial number of the reference` }]);
    if ((await listWatched(tx)).some((w) => w.code === body.code && w.text === body.text))
      throw conflict('This number is on the list already.');
    const id = await watchNumber(tx, body, person.name);
    await raiseRevision(tx, 'encounters');
    return answer({ id }, { status: 201 });
  });
  mount.handleInTransaction(benchRoutes.unwatch, async (tx, { params }) => {
    await unwatch(tx, params.id);
    await raiseRevision(tx, 'encounters');
    return answer({ removed: params.id });
  });
}
