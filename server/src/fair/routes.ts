/** At the fair: what is asked at the table, what is carried there, and what was decided. */
import { checkLook, goneAlerts, lookAt, searchFair } from '@jutbank/core/fair';
import { fairRoutes } from '@jutbank/contract/fair';
import { answer, invalid, notFound, type Mount } from '../http/index.ts';
import {
  addPicture,
  duplicateSerials,
  uploadedPicture,
  type PictureStore,
  type Readers,
} from '../pieces/index.ts';
import { availabilityToday } from '../reference/index.ts';
import { packBag } from './bag.ts';
import { judgeFair } from './judge.ts';
import { keepNote, newestNotes, noteById } from './notes.ts';
import { sinceTheTable } from './since.ts';

export function mountFair(mount: Mount, readers: Readers, pictures: PictureStore): void {
  const { database } = mount;
  const { library } = readers;

  mount.handle(fairRoutes.fairBag, async ({ query }) =>
    answer({ ...(await packBag(readers, query.makers)) }),
  );

  mount.handle(fairRoutes.searchAtFair, async ({ query }) =>
    answer({ items: query.q.trim() === '' ? [] : searchFair(await library.index(), query.q) }),
  );

  mount.handle(fairRoutes.lookAtFair, async ({ body }) => {
    const index = await library.index();
    const problems = checkLook(index, body);
    if (problems.length > 0) throw invalid(problems);
    const sight = lookAt(index, body);
    const [alerts = []] = await duplicateSerials(database, index, [
      { id: undefined, observations: body.observations },
    ]);
    const today = await availabilityToday(
      database,
      sight.candidates.slice(0, 1).map((candidate) => candidate.variant),
    );
    const gone = goneAlerts(sight, (variant) => today.get(variant));
    return answer({
      ...sight,
      alerts: [...sight.alerts, ...alerts.map((alert) => alert.detail), ...gone],
    });
  });

  mount.handle(fairRoutes.judgeFair, async ({ body }) => {
    return answer(await judgeFair(readers, body));
  });

  mount.handlePrepared(
    fairRoutes.addFairNote,
    ({ body }) => sinceTheTable(readers, body),
    async (tx, { body, person }, since) =>
      answer(await keepNote(tx, await library.atHand(tx), body, since, person)),
  );

  mount.handlePrepared(
    fairRoutes.addFairPicture,
    async ({ params, request, response }) => {
      const uploaded = await uploadedPicture(request, response);
      if (!(await noteById(database, params.id))) throw notFound('note');
      return { stored: await pictures.keep(uploaded), print: uploaded.print };
    },
    async (tx, { params, person }, { stored }) => {
      const first = await tx.run('UPDATE fair_note SET picture = ? WHERE id = ? AND picture IS NULL', [
        stored.hash,
        params.id,
      ]);
      const note = await noteById(tx, params.id);
      if (!note) throw notFound('note');
      // sent again after a lost answer: it is there already
      if (first > 0 && note.pieceId !== null)
        await addPicture(tx, note.pieceId, stored, 'At the fair', person);
      return answer(note);
    },
  );

  mount.handle(fairRoutes.fairNotes, async () => answer({ items: await newestNotes(database) }));
}
