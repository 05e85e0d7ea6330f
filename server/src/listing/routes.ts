import { ulid } from 'ulid';
import { cautionsFor, checkWording, writeListing } from '@jutbank/core/listing';
import { listingRoutes, type ListingDraft } from '@jutbank/contract/listing';
import { answer, conflict, invalid, type Answered, type Mount } from '../http/index.ts';
import {
  contextOf,
  changePiece,
  lockPiece,
  pieceRecord,
  type PieceRecord,
  type Readers,
  factsOf,
  ownPrice,
} from '../pieces/index.ts';
import { sendOut, type Marketplace, type Outbox } from '../outside/index.ts';
import { shopOf } from '../shop/index.ts';

export function mountListing(mount: Mount, readers: Readers, marketplace: Marketplace, outbox: Outbox): void {
  const { database } = mount;
  const { tellSheet } = readers;
  /** What was decided is told to the marketplace at once if it can be; if not, by and by. */
  const sendAndTell = async ({ id }: { id: string }): Promise<Answered<unknown>> => {
    await outbox.deliver(id);
    return tellSheet({ id });
  };

  mount.handle(listingRoutes.draft, async ({ params }) => {
    const record = await pieceRecord(database, params.id);
    const facts = factsOf(record, await readers.assess(record), await contextOf(database, record.id));
    const written = writeListing(facts);
    const text = record.listing ?? written;
    const draft: ListingDraft = {
      written,
      problems: checkWording(facts, text),
      cautions: cautionsFor(facts.construction),
      blocks: blocksOf(record),
    };
    return answer(draft);
  });

  mount.handleInTransaction(
    listingRoutes.putListing,
    async (tx, { params, body, person, ifMatch }) => {
      const { id } = await changePiece(
        tx,
        { pieceId: params.id, person, ifMatch, kind: 'listing-written', body },
        async (before) => {
          if (before.listing?.state === 'published')
            throw conflict('It is up already. Take it down to change its text.');
          await tx.run(
            "INSERT INTO listing (piece_id, state, title, body) VALUES (?, 'draft', ?, ?) ON DUPLICATE KEY UPDATE state = 'draft', title = VALUES(title), body = VALUES(body)",
            [params.id, body.title, body.body],
          );
        },
      );
      return { id };
    },
    tellSheet,
  );

  mount.handlePrepared(
    listingRoutes.publish,
    readers.ready,
    async (tx, { params, person, ifMatch }) => {
      const { id } = await changePiece(
        tx,
        { pieceId: params.id, person, ifMatch, kind: 'published', body: {} },
        async (before) => {
          if (before.listing?.state === 'published') throw conflict('It is up already.');
          const facts = factsOf(before, await readers.assessIn(tx, before), await contextOf(tx, before.id));
          const text = before.listing ?? writeListing(facts);
          const problems = [...blocksOf(before), ...checkWording(facts, text).map((p) => p.detail)];
          if (problems.length > 0)
            throw invalid(problems.map((message) => ({ pointer: '/listing', message })));
          const { ask } = before.pricing;
          if (!ask) throw conflict('It has no price yet.');
          const { title, body } = text;
          await tx.run(
            "INSERT INTO listing (piece_id, state, title, body, published_at) VALUES (?, 'published', ?, ?, UTC_TIMESTAMP(3)) ON DUPLICATE KEY UPDATE state = 'published', published_at = UTC_TIMESTAMP(3), marketplace_ref = NULL",
            [params.id, title, body],
          );
          await sendOut(tx, params.id, {
            kind: 'publish',
            listing: { stockNumber: before.stockNumber, title, body, price: ask },
          });
        },
      );
      return { id };
    },
    sendAndTell,
  );

  mount.handlePrepared(
    listingRoutes.fetchMessages,
    async ({ params }) => {
      const { listing } = await pieceRecord(database, params.id);
      if (listing?.state !== 'published') throw conflict('It is not up on the marketplace.');
      if (listing.marketplaceRef === null)
        throw conflict('The marketplace has not taken it yet: it is told again by itself.');
      return marketplace.messages(listing.marketplaceRef);
    },
    async (tx, { params, person }, arrived) => {
      // under the lock of the piece: two who fetch at once do not both keep a message
      await lockPiece(tx, params.id);
      const there = await tx.rows<{ outside_id: string }>(
        'SELECT outside_id FROM market_message WHERE piece_id = ?',
        [params.id],
      );
      const fresh = arrived.filter((m) => !there.some((t) => t.outside_id === m.id));
      if (fresh.length > 0)
        await changePiece(
          tx,
          {
            pieceId: params.id,
            person,
            ifMatch: undefined,
            anyVersion: true,
            kind: 'messages-received',
            body: fresh,
          },
          async () => {
            await tx.insertMany(
              'INSERT INTO market_message (id, piece_id, outside_id, kind, sender, words, amount, currency) VALUES ?',
              fresh.map((m) => [
                ulid(),
                params.id,
                m.id,
                m.kind,
                m.from,
                m.text,
                m.amount?.amount ?? null,
                m.amount?.currency ?? null,
              ]),
            );
          },
        );
      return { id: params.id };
    },
    tellSheet,
  );

  mount.handlePrepared(
    listingRoutes.answer,
    readers.ready,
    async (tx, { params, body, person, ifMatch }) => {
      const { id } = await changePiece(
        tx,
        {
          pieceId: params.id,
          person,
          ifMatch,
          anyVersion: ifMatch === undefined,
          kind: body.decline ? 'offer-declined' : 'question-answered',
          body: { message: params.message, ...body },
        },
        async (before) => {
          const message = before.listing?.messages.find((m) => m.id === params.message);
          if (!message || message.state !== 'open') throw conflict('This message has been dealt with.');
          if (message.kind === 'question' && body.text === '')
            throw invalid([{ pointer: '/text', message: 'Write an answer first.' }]);
          const row = await tx.row<{ outside_id: string }>(
            'SELECT outside_id FROM market_message WHERE id = ?',
            [params.message],
          );
          const text =
            body.decline && body.text === '' ? 'Thank you, but this is below what we can accept.' : body.text;
          await sendOut(tx, params.id, { kind: 'answer', message: row?.outside_id ?? '', text });
          await tx.run('UPDATE market_message SET state = ?, answer = ? WHERE id = ?', [
            message.kind === 'offer' ? 'declined' : 'answered',
            text,
            params.message,
          ]);
          if (message.kind === 'offer' && message.amount)
            await ownPrice(tx, readers, before, message.amount, {
              kind: 'offer',
              shop: (await shopOf(tx)).name,
              online: true,
            });
        },
      );
      return { id };
    },
    sendAndTell,
  );
}

/** What must be there before anything may go up. */
function blocksOf(record: PieceRecord): string[] {
  const blocks: string[] = [];
  if (!record.attribution) blocks.push('Decide what it is: the wording follows from it.');
  if (!record.inspected) blocks.push('Finish the inspection: every finding must be told.');
  if (!record.pricing.ask) blocks.push('Set a price.');
  if (record.pictures.length === 0) blocks.push('Add a picture.');
  return blocks;
}
