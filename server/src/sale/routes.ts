import { randomInt } from 'node:crypto';
import { ulid } from 'ulid';
import { claimFor, type ListingFacts } from '@jutbank/core/listing';
import { money, subtractMoney, type Money } from '@jutbank/core/money';
import { leftOf, netOf, type Channel } from '@jutbank/core/worth';
import { saleRoutes, type NetOfSale, type PublicCertificate, type SaleBody } from '@jutbank/contract/sale';
import type { PricingSettings } from '@jutbank/contract/shop';
import { revisions } from '../db/index.ts';
import { answer, conflict, decodeCursor, invalid, notFound, pageOf, type Mount } from '../http/index.ts';
import {
  contextOf,
  changePiece,
  costOf,
  type PieceRecord,
  type Readers,
  factsOf,
  ownPrice,
} from '../pieces/index.ts';
import { sendOut, type Outbox } from '../outside/index.ts';
import { entryIntact } from '../ledger/index.ts';
import { shopOf, takeNumber, usualChannel, pricingSettingsOf } from '../shop/index.ts';
import { todayIso } from '../clock/index.ts';
import type { Markets } from '../market/index.ts';
import { certificatePdf, invoicePdf } from './pdf.ts';
import { countSales, listSales, saleByCode, saleById, shown, type StoredSale } from './queries.ts';

/** The channel of the shop's in which nothing is kept, where it has not taken it off its list. */
const COUNTER = 'counter';

type Snapshot = Omit<PublicCertificate, 'fingerprint' | 'intact' | 'code' | 'issuedAt'>;

export function mountSale(
  mount: Mount,
  readers: Readers,
  markets: Markets,
  outbox: Outbox,
  log: (error: unknown) => void,
  publicUrl: string | undefined,
): void {
  const { database } = mount;

  mount.handlePrepared(
    saleRoutes.sell,
    async () => {
      await readers.ready();
      return markets.ratesOn(todayIso());
    },
    async (tx, { params, body, person }, { rateOf }) => {
      const shop = await shopOf(tx);
      const id = ulid();
      await changePiece(
        tx,
        {
          pieceId: params.id,
          person,
          ifMatch: undefined,
          anyVersion: true,
          kind: 'sold',
          body: { ...body, sale: id },
        },
        async (record) => {
          if (!record.attribution)
            throw conflict('Decide what it is before it is sold: the certificate says so.');
          const facts = factsOf(record, await readers.assessIn(tx, record), await contextOf(tx, record.id));
          const price = priceOf(record, body);
          if (record.listing?.state === 'published') await sendOut(tx, record.id, { kind: 'end' });
          const { settings } = await pricingSettingsOf(tx);
          const channel = channelOfSale(settings, body);
          const costHere = costOf(record, price.currency, rateOf);
          const bought = record.intake.price;
          const cost = bought && costOf(record, bought.currency, rateOf);
          // where nobody knows what was paid, the whole price counts as margin
          const { tax, left } = leftOf(
            price.currency,
            channel.channel,
            price.amount,
            settings.tax,
            costHere?.amount ?? '0',
          );
          const net: NetOfSale = {
            ...netOf(price.currency, channel.channel, price.amount),
            channel: channel.name,
            tax,
            left,
          };
          const margin = costHere ? subtractMoney(money(left, price.currency), costHere) : null;
          const known = await revisions(tx);
          const number = `${new Date().getUTCFullYear()}-${String(await takeNumber(tx, 'next_invoice')).padStart(4, '0')}`;
          await tx.run(
            'INSERT INTO sale (id, piece_id, invoice_number, sold_at, buyer_name, buyer_address, price, currency, net, cost, cost_currency, margin, certificate_code, certificate, known_comparables, known_rates, ledger_seq) VALUES (?, ?, ?, UTC_TIMESTAMP(3), ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, 0)',
            [
              id,
              params.id,
              number,
              body.buyerName,
              body.buyerAddress,
              price.amount,
              price.currency,
              JSON.stringify(net),
              cost?.amount ?? null,
              cost?.currency ?? null,
              margin?.amount ?? null,
              newCode(),
              JSON.stringify(snapshotOf(record, facts, shop.name)),
              known.comparables,
              known.rates,
            ],
          );
          await tx.run("UPDATE listing SET state = 'ended' WHERE piece_id = ?", [params.id]);
          await tx.run(
            "UPDATE market_message SET state = CASE WHEN id = ? THEN 'accepted' WHEN kind = 'offer' THEN 'declined' ELSE 'answered' END WHERE piece_id = ? AND state = 'open'",
            [body.message ?? '', params.id],
          );
          await ownPrice(tx, readers, record, price, {
            kind: 'sold',
            shop: shop.name,
            online: body.message != null,
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

  mount.handle(saleRoutes.listSales, async ({ query }) => {
    const before = decodeCursor(query.cursor, 1)?.[0];
    const rows = await listSales(
      database,
      before === undefined ? undefined : String(before),
      query.limit + 1,
    );
    return answer(pageOf(rows, query.limit, await countSales(database), shown, (s) => [s.id]));
  });

  const find = async (id: string): Promise<StoredSale> => {
    const sale = await saleById(database, id);
    if (!sale) throw notFound('sale');
    return sale;
  };
  const certificateOf = async (sale: StoredSale): Promise<PublicCertificate> => {
    const snapshot = JSON.parse(sale.certificate) as Snapshot;
    const { hash, intact } = await entryIntact(database, sale.ledgerSeq);
    return { ...snapshot, code: sale.certificateCode, issuedAt: sale.soldAt, fingerprint: hash, intact };
  };

  mount.handle(saleRoutes.sale, async ({ params }) => answer(shown(await find(params.id))));

  mount.handle(saleRoutes.invoice, async ({ params, response }) => {
    const sale = await find(params.id);
    const shop = await shopOf(database);
    const pdf = await invoicePdf(shop.name, sale, (await certificateOf(sale)).claim);
    response
      .type('application/pdf')
      .setHeader('Content-Disposition', `inline; filename="invoice-${sale.invoiceNumber}.pdf"`)
      .send(pdf);
    return undefined;
  });

  mount.handle(saleRoutes.certificate, async ({ params, request, response }) => {
    const sale = await find(params.id);
    const base = publicUrl ?? `${request.protocol}://${request.get('host') ?? 'localhost'}`;
    const pdf = await certificatePdf(await certificateOf(sale), `${base}/c/${sale.certificateCode}`);
    response
      .type('application/pdf')
      .setHeader('Content-Disposition', `inline; filename="certificate-${sale.stockNumber}.pdf"`)
      .send(pdf);
    return undefined;
  });

  mount.handle(saleRoutes.check, async ({ params }) => {
    const sale = await saleByCode(database, params.code);
    if (!sale) throw notFound('certificate');
    return answer(await certificateOf(sale));
  });
}

/** An offer came through the usual channel; by hand the one that is named, else over the counter. */
function channelOfSale(settings: PricingSettings, body: SaleBody): { name: string; channel: Channel } {
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

const CODE_SIGNS = '0123456789ABCDEFGHJKMNPQRSTVWXYZ';
const newCode = () => Array.from({ length: 12 }, () => CODE_SIGNS[randomInt(CODE_SIGNS.length)]).join('');

/** What is public of the piece, frozen on the day of the sale. Private owners are named by town only. */
function snapshotOf(record: PieceRecord, facts: ListingFacts, shop: string): Snapshot {
  return {
    shop,
    stockNumber: record.stockNumber,
    claim: claimFor(facts),
    made: facts.made ?? null,
    grade: facts.gradeLine?.replace(/^Condition: /, '') ?? null,
    inspected: facts.extent !== 'none',
    whole: facts.extent === 'whole',
    findings: [...facts.disclosures, ...facts.history],
    provenance: facts.provenance ?? null,
    notProvedBecause: [...facts.unproved],
  };
}
