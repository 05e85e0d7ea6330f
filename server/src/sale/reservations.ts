/** What binds a piece before it is sold: kept for somebody, or sold for somebody. */
import { parseAmount } from '@jutbank/core/money';
import { afterSaleRoutes } from '@jutbank/contract/sale';
import { todayIso } from '../clock/index.ts';
import { knownContact } from '../contacts/index.ts';
import { conflict, invalid, type Mount } from '../http/index.ts';
import { changeByCall, changePiece, mountChange, type Readers } from '../pieces/index.ts';
import { shopOf } from '../shop/index.ts';

export function mountReservations(mount: Mount, readers: Readers): void {
  mountChange(mount, readers, afterSaleRoutes.reserve, (tx, call) =>
    changeByCall(tx, withoutNames(call), 'reserved', async (before) => {
      const { body } = call;
      if (body.until < todayIso()) throw invalid([{ pointer: '/until', message: 'this day is past' }]);
      if (body.deposit && body.paidOn === null)
        throw invalid([{ pointer: '/paidOn', message: 'When was it paid?' }]);
      if (
        before.reservation &&
        before.reservation.until >= todayIso() &&
        before.reservation.reservedFor !== body.name
      )
        throw conflict(
          `It is kept for ${before.reservation.reservedFor ?? 'somebody'} until ${before.reservation.until}.`,
        );
      if (body.contact !== null) await knownContact(tx, body.contact);
      await tx.run(
        'REPLACE INTO reservation (piece_id, contact_id, name, until_day, deposit, currency, way, paid_on, note) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)',
        [
          call.params.id,
          body.contact,
          body.name,
          body.until,
          body.deposit?.amount ?? null,
          body.deposit?.currency ?? null,
          body.way,
          body.deposit ? body.paidOn : null,
          body.note,
        ],
      );
    }),
  );

  mountChange(mount, readers, afterSaleRoutes.endReservation, (tx, call) =>
    changeByCall(tx, call, 'reservation-ended', async (before) => {
      if (!before.reservation) throw conflict('It is kept for nobody.');
      await tx.run('DELETE FROM reservation WHERE piece_id = ?', [call.params.id]);
    }),
  );

  mountChange(mount, readers, afterSaleRoutes.consign, (tx, call) =>
    changeByCall(tx, call, 'consigned', async (before) => {
      const { body } = call;
      if (before.intake.price && Number(before.intake.price.amount) > 0)
        throw conflict('It was bought: what it cost stands at its intake. Take that away first.');
      await knownContact(tx, body.contact);
      const { baseCurrency } = await shopOf(tx);
      for (const name of ['fee', 'least'] as const) {
        const amount = body.terms[name];
        const parsed = amount === null ? undefined : parseAmount(amount, baseCurrency, `/terms/${name}`);
        if (parsed && !parsed.ok) throw invalid([parsed.error]);
      }
      await tx.run(
        'REPLACE INTO consignment (piece_id, contact_id, agreed_on, until_day, terms, note) VALUES (?, ?, ?, ?, ?, ?)',
        [call.params.id, body.contact, body.agreedOn, body.until, JSON.stringify(body.terms), body.note],
      );
    }),
  );

  mountChange(mount, readers, afterSaleRoutes.endConsignment, (tx, call) =>
    changeByCall(tx, call, 'consignment-ended', async (before) => {
      if (!before.consignment) throw conflict('It is the shop’s own.');
      await tx.run('DELETE FROM consignment WHERE piece_id = ?', [call.params.id]);
    }),
  );

  mountChange(mount, readers, afterSaleRoutes.giveBack, async (tx, call) => {
    const { on, to, because, refund } = call.body;
    if (on > todayIso()) throw invalid([{ pointer: '/on', message: 'this day is still to come' }]);
    // to whom is not written into the ledger, which is for ever
    return changeByCall(tx, { ...call, body: { on, because, refund } }, 'given-back', async (before) => {
      if (before.listing?.state === 'published') throw conflict('It is listed. Take it down first.');
      if (before.reservation && before.reservation.until >= todayIso())
        throw conflict('It is kept for somebody. Let it go first.');
      if (refund !== null && !before.intake.price)
        throw invalid([{ pointer: '/refund', message: 'nothing was paid for it' }]);
      await tx.run(
        'INSERT INTO given_back (piece_id, given_on, to_whom, because, refund, currency) VALUES (?, ?, ?, ?, ?, ?)',
        [call.params.id, on, to, because, refund?.amount ?? null, refund?.currency ?? null],
      );
    });
  });

  mountChange(mount, readers, afterSaleRoutes.takeBack, async (tx, { params, person, ifMatch }) => {
    const { id } = await changePiece(
      tx,
      { pieceId: params.id, person, ifMatch, kind: 'not-given-back', body: {}, evenSold: true },
      async (before) => {
        if (!before.givenBack) throw conflict('It was not given back.');
        await tx.run('DELETE FROM given_back WHERE piece_id = ?', [params.id]);
      },
    );
    return { id };
  });
}

/** The ledger is for ever, a name may be asked to be forgotten: it is not written there. */
function withoutNames<C extends { readonly body: { readonly name: string; readonly note: string } }>(
  call: C,
): C {
  return { ...call, body: { ...call.body, name: '', note: '' } };
}
