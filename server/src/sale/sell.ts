/** A piece is sold: its price, what is left of it, the invoice, the certificate, the comparable, in one transaction. */
import { randomBytes } from 'node:crypto';
import type { Request } from 'express';
import { ulid } from 'ulid';
import { addMoney, convert, money, subtractMoney, type Money } from '@jutbank/core/money';
import { settlementOf, type Settlement } from '@jutbank/core/sale';
import { leftOf, netOf, type Channel, type Net } from '@jutbank/core/worth';
import { Decimal } from 'decimal.js';
import { saleRoutes, type NetOfSale, type SaleBody } from '@jutbank/contract/sale';
import type { PricingSettings } from '@jutbank/contract/shop';
import { addDays, todayIso } from '../clock/index.ts';
import { knownContact } from '../contacts/index.ts';
import { revisions, type Transaction } from '../db/index.ts';
import { answer, conflict, invalid, type Mount } from '../http/index.ts';
import { sha256 } from '../ledger/index.ts';
import type { Markets } from '../market/index.ts';
import { sendOut, type Outbox } from '../outside/index.ts';
import {
  changePiece,
  contextOf,
  costOf,
  costsOf,
  factsOf,
  COUNTER,
  ownPrice,
  withPostage,
  type PieceRecord,
  type Readers,
} from '../pieces/index.ts';
import { issuerOf, pricingSettingsOf, shopOf, takeNumber, usualChannel } from '../shop/index.ts';
import { drawnFor, fingerprintOf, newCode, signedFile, signingKey, snapshotOf } from './certificate.ts';
import { saleById, shown, type StoredTax } from './queries.ts';

type Rate = (currency: string) => string | undefined;

export function mountSell(
  mount: Mount,
  readers: Readers,
  markets: Markets,
  outbox: Outbox,
  log: (error: unknown) => void,
  addressOf: (call: { readonly request: Request }, code: string) => string,
): void {
  mount.handlePrepared(
    saleRoutes.sell,
    async () => {
      await readers.ready();
      return markets.ratesOn(todayIso());
    },
    async (tx, call, { rateOf }) => {
      const { params, body, person } = call;
      const shop = await shopOf(tx);
      const id = ulid();
      const code = newCode();
      const soldAt = new Date().toISOString();
      const salt = randomBytes(16).toString('hex');
      // filled while the piece is changed, and read when its entry of the ledger is written
      const entry: Record<string, unknown> = { sale: id, ageChecked: body.ageChecked };
      await changePiece(
        tx,
        { pieceId: params.id, person, ifMatch: undefined, anyVersion: true, kind: 'sold', body: entry },
        async (record) => {
          if (!record.attribution)
            throw conflict('Decide what it is before it is sold: the certificate says so.');
          const price = priceOf(record, body);
          mayBeSold(record, body);
          if (body.contact != null) await knownContact(tx, body.contact);
          const assessment = await readers.assessIn(tx, record);
          const facts = factsOf(record, assessment, await contextOf(tx, record.id));
          const snapshot = snapshotOf(record, facts, shop.name);
          const drawing = drawnFor(record, assessment);
          if (record.listing?.state === 'published')
            await sendOut(tx, record.id, { kind: 'end', ref: record.listing.marketplaceRef });
          const { settings } = await pricingSettingsOf(tx);
          const books = bookedOf(
            record,
            price,
            withPostage(channelOfSale(settings, body), record, price.currency),
            settings,
            body,
            rateOf,
          );
          const known = await revisions(tx);
          const number = `${soldAt.slice(0, 4)}-${String(await takeNumber(tx, 'next_invoice')).padStart(4, '0')}`;
          const comparable = await ownPrice(tx, readers, record, price, {
            kind: 'sold',
            shop: shop.name,
            online: body.message != null,
          });
          const issuer = await issuerOf(tx);
          await tx.run(
            `INSERT INTO sale (id, piece_id, invoice_number, sold_at, buyer_name, buyer_address, buyer_salt, contact_id, price, currency, net,
               cost, cost_currency, margin, tax_scheme, condition_then, payout, due_on, sent, certificate_code, certificate, drawing, credential, issuer,
               known_comparables, known_rates, comparable_id, ledger_seq)
             VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, 0)`,
            [
              id,
              params.id,
              number,
              soldAt.slice(0, 23).replace('T', ' '),
              body.buyerName,
              body.buyerAddress,
              salt,
              body.contact ?? null,
              price.amount,
              price.currency,
              JSON.stringify(books.net),
              books.cost?.amount ?? null,
              books.cost?.currency ?? null,
              books.margin?.amount ?? null,
              JSON.stringify(books.tax),
              JSON.stringify({ findings: record.findings, completeness: record.completeness }),
              books.payout && JSON.stringify({ ...books.payout, owner: record.consignment?.ownerName ?? '' }),
              addDays(soldAt.slice(0, 10), issuer.settings.dueInDays),
              body.handedOver
                ? JSON.stringify({ on: soldAt.slice(0, 10), carrier: 'handed over', tracking: '' })
                : null,
              code,
              JSON.stringify(snapshot),
              drawing && JSON.stringify(drawing),
              signedFile(snapshot, code, addressOf(call, code), soldAt, await signingKey(tx)),
              JSON.stringify(issuer),
              known.comparables,
              known.rates,
              comparable ?? null,
            ],
          );
          if (books.payout)
            await tx.run('INSERT INTO settlement (sale_id, number) VALUES (?, ?)', [
              id,
              `S${soldAt.slice(0, 4)}-${String(await takeNumber(tx, 'next_settlement')).padStart(4, '0')}`,
            ]);
          await takePayments(tx, id, record, body, books.net.gross, price.currency, person.name);
          await tx.run('DELETE FROM reservation WHERE piece_id = ?', [params.id]);
          await tx.run("UPDATE listing SET state = 'ended' WHERE piece_id = ?", [params.id]);
          await tx.run(
            "UPDATE market_message SET state = CASE WHEN id = ? THEN 'accepted' WHEN kind = 'offer' THEN 'declined' ELSE 'answered' END WHERE piece_id = ? AND state = 'open'",
            [body.message ?? '', params.id],
          );
          // who bought is committed to, not told: a name can be forgotten, an entry never
          Object.assign(entry, {
            invoice: number,
            price,
            channel: books.net.channel,
            tax: books.tax,
            buyer: sha256([salt, body.buyerName, body.buyerAddress].join('\n')),
            certificate: fingerprintOf(snapshot),
            ...(body.message == null ? {} : { message: body.message }),
          });
        },
      );
      await tx.run(
        'UPDATE sale SET ledger_seq = (SELECT MAX(seq) FROM ledger_entry WHERE piece_id = ?) WHERE id = ?',
        [params.id, id],
      );
      const sale = await saleById(tx, id);
      if (!sale) throw new Error('the sale was not stored');
      return answer(shown(sale), {
        // a sale must not hang on the marketplace: what it did not hear is told again
        afterCommit: () => {
          outbox.deliver(params.id).catch(log);
          return Promise.resolve();
        },
      });
    },
  );
}

/** An offer came through the usual channel; by hand the one that is named, else over the counter. */
function channelOfSale(
  settings: PricingSettings,
  body: SaleBody,
): { id?: string; name: string; channel: Channel } {
  if (body.message != null) return usualChannel(settings);
  const found = settings.channels.find((c) => c.id === (body.channel ?? COUNTER));
  if (body.channel != null && !found)
    throw invalid([{ pointer: '/channel', message: 'this is none of the shop’s channels' }]);
  return found ?? { name: 'Over the counter', channel: {} };
}

function priceOf(record: PieceRecord, body: SaleBody): Money {
  if (body.message == null) {
    if (body.price == null) throw invalid([{ pointer: '/price', message: 'What does it sell for?' }]);
    return body.price;
  }
  const offer = record.listing?.messages.find((m) => m.id === body.message);
  if (offer?.kind !== 'offer' || offer.state !== 'open' || !offer.amount)
    throw conflict('This offer is no longer open.');
  return offer.amount;
}

/** @throws where it is kept for somebody else and that was not said to be known */
function mayBeSold({ reservation }: PieceRecord, body: SaleBody): void {
  if (!reservation || reservation.until < todayIso() || body.despiteReservation) return;
  const theirs =
    (body.contact != null && body.contact === reservation.contact) ||
    body.buyerName.trim().toLowerCase() === (reservation.reservedFor ?? '').trim().toLowerCase();
  if (!theirs)
    throw invalid([
      {
        pointer: '/despiteReservation',
        message: `It is kept for ${reservation.reservedFor ?? 'somebody'} until ${reservation.until}.`,
      },
    ]);
}

interface Booked {
  readonly net: NetOfSale;
  readonly tax: StoredTax;
  /** in the currency it was bought in */
  readonly cost: Money | null;
  readonly margin: Money | null;
  readonly payout: Settlement | null;
}

const channelFees = (net: Net): string =>
  [net.commission, net.fixedFee, net.paymentFee, net.taxOnFees]
    .reduce((sum, fee) => sum.plus(fee), new Decimal(0))
    .toString();

/** Every amount of the sale as it goes into the books. */
function bookedOf(
  record: PieceRecord,
  price: Money,
  { name, channel }: { readonly name: string; readonly channel: Channel },
  settings: PricingSettings,
  body: SaleBody,
  rateOf: Rate,
): Booked {
  const { currency, amount } = price;
  const terms = record.consignment?.terms;
  const payout = terms
    ? settlementOf(currency, amount, channelFees(netOf(currency, channel, amount)), terms)
    : null;
  // of a piece that is somebody else's, what they are paid is what it cost
  const goods = payout
    ? money(payout.payout, currency)
    : record.intake.price && convert(record.intake.price, currency, rateOf);
  const costHere = payout
    ? withTreatments(money(payout.payout, currency), record, rateOf)
    : costOf(record, currency, rateOf);
  const bought = record.intake.price;
  const cost = payout ? costHere : bought && costOf(record, bought.currency, rateOf);
  const on = body.taxScheme ?? settings.tax.on;
  const tax: StoredTax = { on, pct: on === 'none' ? 0 : settings.tax.pct, paid: goods?.amount ?? '0' };
  // where nobody knows what was paid, the whole price counts as margin
  const { tax: due, left } = leftOf(currency, channel, amount, tax, tax.paid ?? '0');
  const net: NetOfSale = { ...netOf(currency, channel, amount), channel: name, tax: due, left };
  return { net, tax, cost, margin: costHere && subtractMoney(money(left, currency), costHere), payout };
}

function withTreatments(paid: Money, record: PieceRecord, rateOf: Rate): Money | null {
  let sum: Money | null = paid;
  for (const spent of costsOf({ ...record, intake: { ...record.intake, price: null } })) {
    const here = convert(spent, paid.currency, rateOf);
    sum = sum && here ? addMoney(sum, here) : null;
  }
  return sum;
}

/** What was left as a deposit, and what is paid at once. */
async function takePayments(
  tx: Transaction,
  sale: string,
  { reservation }: PieceRecord,
  body: SaleBody,
  gross: string,
  currency: string,
  by: string,
): Promise<void> {
  const today = todayIso();
  const deposit =
    reservation?.deposit?.currency === currency && !body.despiteReservation
      ? reservation.deposit.amount
      : null;
  const rest = new Decimal(gross).minus(deposit ?? 0);
  const rows = [
    ...(deposit === null || Number(deposit) === 0
      ? []
      : [[deposit, reservation?.paidOn ?? today, reservation?.way || 'deposit', 'deposit']]),
    ...(body.paidBy == null || rest.lte(0) ? [] : [[rest.toString(), today, body.paidBy, '']]),
  ];
  if (rows.length > 0)
    await tx.insertMany('INSERT INTO payment (id, sale_id, amount, paid_on, way, note, noted_by) VALUES ?', [
      ...rows.map(([amount = '0', on = today, way = '', note = '']) => [
        ulid(),
        sale,
        amount,
        on,
        way,
        note,
        by,
      ]),
    ]);
}
