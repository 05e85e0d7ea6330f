/** Sales as they are listed and printed, and what anybody may check of them. */
import type { Request } from 'express';
import { included } from '@jutbank/core/condition';
import { afterSaleRoutes, saleRoutes, type PublicCertificate } from '@jutbank/contract/sale';
import { contactOfSale } from './owner.ts';
import { answer, decodeCursor, notFound, pageOf, type Mount } from '../http/index.ts';
import type { Markets } from '../market/index.ts';
import type { Carriers, Outbox } from '../outside/index.ts';
import { jpegOf, qrOf, type PaperPicture, type Ring } from '../pdf/index.ts';
import type { PictureStore, Readers } from '../pieces/index.ts';
import { issuerOf, type Issuer } from '../shop/index.ts';
import { findSale, mountAfterSale, saleShown } from './afterSale.ts';
import { certificateOf, type Snapshot } from './certificate.ts';
import { ublInvoice } from './ubl.ts';
import { certificatePdf, creditNotePdf, invoicePdf, packingSlipPdf, settlementPdf } from './pdf.ts';
import { listSales, saleByCode, shown, totalsOf, type StoredSale } from './queries.ts';
import { mountRegisters } from './registers.ts';
import { mountReservations } from './reservations.ts';
import { mountSell } from './sell.ts';

/** Pictures on a certificate for paper. */
const MOST_PICTURES = 6;

export function mountSale(
  mount: Mount,
  readers: Readers,
  markets: Markets,
  outbox: Outbox,
  carriers: Carriers,
  pictures: PictureStore,
  log: (error: unknown) => void,
  publicUrl: string | undefined,
): void {
  const { database } = mount;
  const addressOf = ({ request }: { readonly request: Request }, code: string) =>
    `${publicUrl ?? `${request.protocol}://${request.get('host') ?? 'localhost'}`}/c/${code}`;

  mountSell(mount, readers, markets, outbox, log, addressOf);
  mountReservations(mount, readers);
  mountAfterSale(mount, carriers);
  mountRegisters(mount);

  mount.handle(saleRoutes.listSales, async ({ query }) => {
    const before = decodeCursor(query.cursor, 1)?.[0];
    const rows = await listSales(
      database,
      query,
      before === undefined ? undefined : String(before),
      query.limit + 1,
    );
    const { total, totals } = await totalsOf(database, query);
    return answer({ ...pageOf(rows, query.limit, total, shown, (s) => [s.id]), totals });
  });
  mount.handle(saleRoutes.sale, async ({ params }) => answer(await saleShown(database, params.id)));

  /** Answers a paper of a sale. */
  const print = (
    route: typeof saleRoutes.invoice,
    name: (sale: StoredSale) => string,
    draw: (
      sale: StoredSale,
      issuer: Issuer,
      call: { request: Request; params: { id: string } },
    ) => Promise<Buffer>,
  ) => {
    mount.handle(route, async (call) => {
      const sale = await findSale(database, call.params.id);
      // as it went out, whatever stands on the shop’s papers by now
      const pdf = await draw(sale, sale.issuer ?? (await issuerOf(database)), call);
      call.response
        .type('application/pdf')
        .setHeader('Content-Disposition', `inline; filename="${name(sale)}.pdf"`)
        .send(pdf);
      return undefined;
    });
  };

  print(
    saleRoutes.invoice,
    (s) => `invoice-${s.invoiceNumber}`,
    async (sale, from) => invoicePdf(from, sale, (await certificateOf(database, sale)).claim),
  );
  print(
    saleRoutes.certificate,
    (s) => `certificate-${s.stockNumber}`,
    async (sale, from, call) => {
      const certificate = await certificateOf(database, sale);
      const address = addressOf(call, sale.certificateCode);
      return certificatePdf(
        from,
        certificate,
        address,
        await qrOf(address),
        await shotsOf(certificate),
        sale.drawing,
      );
    },
  );
  print(
    afterSaleRoutes.packingSlip,
    (s) => `packing-slip-${s.invoiceNumber}`,
    async (sale, from) =>
      packingSlipPdf(
        from,
        sale,
        await certificateOf(database, sale),
        included(sale.conditionThen?.completeness ?? {}),
      ),
  );
  print(
    afterSaleRoutes.settlement,
    (s) => `settlement-${s.settlement?.number ?? ''}`,
    async (sale, from) => {
      if (!sale.settlement) throw notFound('settlement');
      return settlementPdf(from, sale, await contactOfSale(database, sale));
    },
  );
  mount.handle(saleRoutes.invoiceData, async ({ params, response }) => {
    const sale = await findSale(database, params.id);
    response
      .type('application/xml')
      .setHeader('Content-Disposition', `attachment; filename="invoice-${sale.invoiceNumber}.xml"`)
      .send(ublInvoice(sale, sale.issuer ?? (await issuerOf(database))));
    return undefined;
  });
  mount.handle(afterSaleRoutes.creditNote, async ({ params, response }) => {
    const sale = await findSale(database, params.id);
    const credit = sale.credits.find((c) => c.id === params.credit);
    if (!credit) throw notFound('credit note');
    response
      .type('application/pdf')
      .setHeader('Content-Disposition', `inline; filename="credit-note-${credit.number}.pdf"`)
      .send(
        await creditNotePdf(sale.creditIssuers.get(credit.id) ?? (await issuerOf(database)), sale, credit),
      );
    return undefined;
  });

  const shotsOf = async (certificate: PublicCertificate) => {
    const shots: (PaperPicture & { caption: string; rings: readonly Ring[] })[] = [];
    for (const { hash, caption, pins = [] } of (certificate.pictures ?? []).slice(0, MOST_PICTURES)) {
      const bytes = await pictures.read(hash, 'thumb');
      if (bytes) shots.push({ ...(await jpegOf(bytes)), caption, rings: pins });
    }
    return shots;
  };

  const byCode = async (code: string): Promise<StoredSale> => {
    const sale = await saleByCode(database, code);
    if (!sale) throw notFound('certificate');
    return sale;
  };
  mount.handle(saleRoutes.check, async ({ params }) =>
    answer(await certificateOf(database, await byCode(params.code))),
  );
  mount.handle(saleRoutes.credential, async ({ params, response }) => {
    const { credential, stockNumber } = await byCode(params.code);
    if (credential === null) throw notFound('signed certificate');
    response
      .type('application/vc+json')
      .setHeader('Content-Disposition', `attachment; filename="certificate-${stockNumber}.json"`)
      .send(credential);
    return undefined;
  });
  mount.handle(saleRoutes.certificatePicture, async ({ params, response }) => {
    const { certificate } = await byCode(params.code);
    const shownOnIt = (JSON.parse(certificate) as Snapshot).pictures?.some((p) => p.hash === params.hash);
    const bytes = shownOnIt ? await pictures.read(params.hash, 'thumb') : undefined;
    if (!bytes) throw notFound('picture');
    response.setHeader('Cache-Control', 'public, max-age=86400').type('image/webp').send(bytes);
    return undefined;
  });
}
