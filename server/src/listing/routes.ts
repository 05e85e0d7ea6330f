import { ulid } from 'ulid';
import { answersFrom, cautionsFor, checkWording, shotList } from '@jutbank/core/listing';
import { formatMoney, type Money } from '@jutbank/core/money';
import { LANGUAGE_NAMES } from '@jutbank/core/words';
import { listingRoutes, type ListingDraft } from '@jutbank/contract/listing';
import { answer, conflict, invalid, notFound, type Answered, type Mount } from '../http/index.ts';
import { changePiece, lockPiece, pieceRecord, type Readers, ownPrice } from '../pieces/index.ts';
import { addDays, todayIso } from '../clock/index.ts';
import type { Markets } from '../market/index.ts';
import { sendOut, type Carriers, type Marketplace, type Outbox } from '../outside/index.ts';
import { mountPostage } from './postage.ts';
import { paperSettingsOf, shopOf } from '../shop/index.ts';
import { mountDesk } from './desk.ts';
import { mountElsewhere } from './elsewhere.ts';
import { blocksOf, isUp, thinReason } from './ready.ts';
import { keepSecond, secondText, tellingOf } from './telling.ts';

export function mountListing(
  mount: Mount,
  readers: Readers,
  markets: Markets,
  marketplace: Marketplace,
  outbox: Outbox,
  carriers: Carriers,
): void {
  mountPostage(mount, readers, markets, carriers);
  const { database } = mount;
  const { tellSheet } = readers;
  mountDesk(mount, readers);
  mountElsewhere(mount, readers);
  /** What was decided is told to the marketplace at once if it can be; if not, by and by. */
  const sendAndTell = async ({ id }: { id: string }): Promise<Answered<unknown>> => {
    await outbox.deliver(id);
    return tellSheet({ id });
  };

  mount.handle(listingRoutes.draft, async ({ params }) => {
    const record = await pieceRecord(database, params.id);
    const { settings } = await paperSettingsOf(database);
    const telling = await tellingOf(database, record, await readers.assess(record), settings);
    const { facts, style, written, text } = telling('en', record.listing);
    const { language } = settings.listing.second;
    const kept = language === null ? null : await secondText(database, record.id, language);
    const second = language === null ? null : telling(language, kept);
    const { shots, unseen } = shotList({ ...record, construction: record.intake.construction });
    const draft: ListingDraft = {
      written,
      problems: checkWording(facts, text, style),
      second: second && {
        language: second.facts.words.language,
        written: second.written,
        kept,
        problems: checkWording(second.facts, second.text, second.style),
      },
      postage: record.postage,
      cautions: cautionsFor(facts, style.rules),
      cautionsAtCounter: cautionsFor(facts, style.rules, 'counter'),
      shots: shots.map((shot) => ({ ...shot })),
      unseen: [...unseen],
      blocks: blocksOf(record),
    };
    return answer(draft);
  });

  mount.handle(listingRoutes.answers, async ({ params }) => {
    const record = await pieceRecord(database, params.id);
    const message = record.listing?.messages.find((m) => m.id === params.message);
    if (!message) throw notFound('message');
    const { settings } = await paperSettingsOf(database);
    const { facts, style } = (await tellingOf(database, record, await readers.assess(record), settings))(
      'en',
      null,
    );
    return answer({ items: message.kind === 'question' ? answersFrom(message.text, facts, style) : [] });
  });

  mount.handleInTransaction(
    listingRoutes.putListing,
    async (tx, { params, body, person, ifMatch }) => {
      const { id } = await changePiece(
        tx,
        { pieceId: params.id, person, ifMatch, kind: 'listing-written', body },
        async (before) => {
          if (isUp(before)) throw conflict('It is up already. Take it down to change its text.');
          if (body.language !== 'en') {
            await keepSecond(tx, params.id, body.language, body);
            return;
          }
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
          if (isUp(before)) throw conflict('It is up already.');
          const { settings } = await paperSettingsOf(tx);
          const telling = await tellingOf(tx, before, await readers.assessIn(tx, before), settings);
          const { facts, style, text } = telling('en', before.listing);
          const { language } = settings.listing.second;
          const second =
            language === null ? null : telling(language, await secondText(tx, before.id, language));
          const problems = [
            ...blocksOf(before).map((b) => b.text),
            ...thinReason(before, facts.overruled),
            ...checkWording(facts, text, style).map((p) => p.detail),
            ...(second === null
              ? []
              : checkWording(second.facts, second.text, second.style).map(
                  (p) => `${LANGUAGE_NAMES[second.facts.words.language]}: ${p.detail}`,
                )),
          ];
          if (problems.length > 0)
            throw invalid(problems.map((message) => ({ pointer: '/listing', message })));
          const { ask } = before.pricing;
          if (!ask) throw conflict('It has no price yet.');
          const { title, body } = text;
          const { runsForDays } = settings.listing;
          const until = runsForDays === null ? null : addDays(todayIso(), runsForDays);
          await tx.run(
            "INSERT INTO listing (piece_id, state, title, body, published_at, expires_on) VALUES (?, 'published', ?, ?, UTC_TIMESTAMP(3), ?) ON DUPLICATE KEY UPDATE state = 'published', published_at = UTC_TIMESTAMP(3), marketplace_ref = NULL, expires_on = VALUES(expires_on)",
            [params.id, title, body, until],
          );
          if (second) await keepSecond(tx, params.id, second.facts.words.language, second.text);
          await sendOut(tx, params.id, {
            kind: 'publish',
            listing: {
              stockNumber: before.stockNumber,
              title,
              body,
              price: ask,
              ...(until === null ? {} : { until }),
              ...(second === null
                ? {}
                : {
                    translations: [
                      {
                        language: second.facts.words.language,
                        title: second.text.title,
                        body: second.text.body,
                      },
                    ],
                  }),
            },
          });
        },
      );
      return { id };
    },
    sendAndTell,
  );

  mount.handleInTransaction(
    listingRoutes.takeDown,
    async (tx, { params, body, person, ifMatch }) => {
      const { id } = await changePiece(
        tx,
        { pieceId: params.id, person, ifMatch, kind: 'taken-down', body },
        async (before) => {
          if (before.listing?.state !== 'published') throw conflict('It is not up.');
          await sendOut(tx, params.id, { kind: 'end', ref: before.listing.marketplaceRef });
          await tx.run("UPDATE listing SET state = 'draft', published_at = NULL WHERE piece_id = ?", [
            params.id,
          ]);
          await tx.run(
            "UPDATE market_message SET state = IF(kind = 'offer', 'declined', 'answered') WHERE piece_id = ? AND state = 'open'",
            [params.id],
          );
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
          kind: body.decline
            ? 'offer-declined'
            : body.counter != null
              ? 'offer-countered'
              : 'question-answered',
          body: { message: params.message, ...body },
        },
        async (before) => {
          const message = before.listing?.messages.find((m) => m.id === params.message);
          if (!message || message.state !== 'open') throw conflict('This message has been dealt with.');
          if (body.counter != null && message.kind !== 'offer')
            throw invalid([{ pointer: '/counter', message: 'this was a question, not an offer' }]);
          if (message.kind === 'question' && body.text === '')
            throw invalid([{ pointer: '/text', message: 'Write an answer first.' }]);
          const row = await tx.row<{ outside_id: string }>(
            'SELECT outside_id FROM market_message WHERE id = ?',
            [params.message],
          );
          const text = body.text !== '' ? body.text : usualAnswer(body);
          await sendOut(tx, params.id, {
            kind: 'answer',
            message: row?.outside_id ?? '',
            text,
            ...(body.counter == null ? {} : { counter: body.counter }),
          });
          await tx.run('UPDATE market_message SET state = ?, answer = ? WHERE id = ?', [
            body.counter != null ? 'countered' : message.kind === 'offer' ? 'declined' : 'answered',
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

const usualAnswer = ({ counter }: { readonly counter?: Money | null | undefined }): string =>
  counter == null
    ? 'Thank you, but this is below what we can accept.'
    : `Thank you. We can let it go for ${formatMoney(counter)}.`;
