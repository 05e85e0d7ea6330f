/** At the fair: what is asked at the table, what is carried there, and what was decided. */
import {
  checkFairQuestion,
  checkLook,
  fairSubject,
  judgeAsked,
  lookAt,
  searchFair,
} from '@jutbank/core/fair';
import { VENUE_OF_SHOP } from '@jutbank/core/market';
import { fairRoutes, type FairAnswer, type FairQuestion } from '@jutbank/contract/fair';
import type { PricingSettings } from '@jutbank/contract/shop';
import type { ReferenceIndex } from '@jutbank/core/bench';
import { answer, invalid, notFound, type Mount } from '../http/index.ts';
import {
  addPicture,
  duplicateSerials,
  uploadedPicture,
  type PictureStore,
  type Readers,
} from '../pieces/index.ts';
import { pricingSettingsOf, tradeTermsOf } from '../shop/index.ts';
import { todayIso } from '../clock/index.ts';
import { estimateIn, inBase, type MarketOnDay } from '../market/index.ts';
import { packBag } from './bag.ts';
import { keepNote, newestNotes, noteById } from './notes.ts';
import { sinceTheTable } from './since.ts';

export function mountFair(mount: Mount, readers: Readers, pictures: PictureStore): void {
  const { database } = mount;
  const { library, markets } = readers;

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
    return answer({ ...sight, alerts: [...sight.alerts, ...alerts.map((alert) => alert.detail)] });
  });

  mount.handle(fairRoutes.judgeFair, async ({ body }) => {
    const on = await markets.on(todayIso());
    return answer(
      await judgeFair(await library.index(), on, (await pricingSettingsOf(database)).settings, body),
    );
  });

  mount.handlePrepared(
    fairRoutes.addFairNote,
    ({ body }) => sinceTheTable(readers, body, judgeFair),
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

/** @throws 422 where the question names what the reference does not have, or a currency without a rate */
async function judgeFair(
  index: ReferenceIndex,
  on: MarketOnDay,
  settings: PricingSettings,
  question: FairQuestion,
): Promise<FairAnswer> {
  const problems = checkFairQuestion(index, question);
  if (problems.length > 0) throw invalid(problems);
  const asked = inBase(on, question.asked);
  if (question.asked && asked === undefined)
    throw invalid([
      { pointer: '/asked/currency', message: `no exchange rate for ${question.asked.currency} is known` },
    ]);
  const estimate = await estimateIn(on, fairSubject(index, question), VENUE_OF_SHOP);
  return judgeAsked(on.base, tradeTermsOf(settings), estimate, question.care ?? settings.care, asked);
}
