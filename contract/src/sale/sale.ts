/** Sales, invoices, certificates. */
import { netFields } from '../worth/index.ts';
import {
  moneyShape,
  pageShape,
  answers,
  byId,
  pageQuery,
  positiveMoney,
  required,
  route,
  slug,
  text,
  ulid,
  withheld,
} from '../http/index.ts';
import { z } from 'zod';

export const saleBody = z.object({
  /** the offer that is accepted; otherwise price and buyer are given by hand */
  message: ulid.nullish(),
  price: positiveMoney.nullish(),
  /** a channel of the shop's, for a sale by hand; an offer comes through the usual one */
  channel: slug.nullish(),
  buyerName: required(200, 'Who buys it?'),
  buyerAddress: text(500).default(''),
  /** the buyer was of the age the shop asks for */
  ageChecked: z.boolean().refine((checked) => checked, 'Confirm the buyer’s age before selling a blade'),
});
export type SaleBody = z.infer<typeof saleBody>;

/** Every fee of the channel, the tax that the price held, and what was left after both. */
export const netOfSale = z
  .object({
    ...netFields,
    channel: z.string(),
    tax: z.string(),
    left: z.string(),
  })
  .meta({ id: 'NetOfSale' });
export type NetOfSale = z.infer<typeof netOfSale>;

export const certificateCode = z.string().regex(/^[0-9A-HJKMNP-TV-Z]{12}$/);
export const saleRecord = z
  .object({
    id: z.string(),
    pieceId: z.string(),
    stockNumber: z.string(),
    title: z.string(),
    invoiceNumber: z.string(),
    soldAt: z.string(),
    buyerName: withheld(z.string()),
    price: moneyShape,
    net: withheld(netOfSale),
    cost: moneyShape.nullable(),
    /** what is left less cost, in the currency of the sale; null where the cost is unknown or no rate is known */
    margin: moneyShape.nullable(),
    certificateCode: z.string(),
  })
  .meta({ id: 'SaleRecord' });
export type SaleRecord = z.infer<typeof saleRecord>;

/** What the public check page shows, and nothing else. */
export const publicCertificate = z
  .object({
    code: z.string(),
    shop: z.string(),
    issuedAt: z.string(),
    stockNumber: z.string(),
    claim: z.string(),
    made: z.string().nullable(),
    grade: z.string().nullable(),
    /** whether the inspection was finished before it was sold */
    inspected: z.boolean(),
    /** nothing on the list was skipped; absent on certificates from before this was asked */
    whole: z.boolean().exactOptional(),
    findings: z.array(z.string()),
    provenance: z.string().nullable(),
    notProvedBecause: z.array(z.string()),
    fingerprint: z.string(),
    intact: z.boolean(),
  })
  .meta({ id: 'PublicCertificate' });
export type PublicCertificate = z.infer<typeof publicCertificate>;
export const saleRoutes = {
  sell: route({
    method: 'post',
    path: '/pieces/:id/sale',
    room: 'sale',
    access: 'appraise',
    summary: 'Sell it: invoice, certificate, comparable',
    params: byId,
    body: saleBody,
    answer: answers(saleRecord, 'The sale'),
    status: 201,
  }),
  listSales: route({
    method: 'get',
    path: '/sales',
    room: 'sale',
    access: 'read',
    summary: 'Sales, newest first',
    query: pageQuery,
    answer: answers(pageShape(saleRecord), 'A page of sales'),
  }),
  sale: route({
    method: 'get',
    path: '/sales/:id',
    room: 'sale',
    access: 'read',
    summary: 'One sale',
    params: byId,
    answer: answers(saleRecord, 'The sale'),
  }),
  invoice: route({
    method: 'get',
    path: '/sales/:id/invoice.pdf',
    hides: ['buyers'],
    room: 'sale',
    access: 'read',
    summary: 'The invoice for paper',
    params: byId,
    carries: 'file',
  }),
  certificate: route({
    method: 'get',
    path: '/sales/:id/certificate.pdf',
    room: 'sale',
    access: 'read',
    summary: 'The certificate for paper',
    params: byId,
    carries: 'file',
  }),
  check: route({
    method: 'get',
    path: '/certificates/:code',
    room: 'sale',
    access: 'public',
    summary: 'Check a certificate',
    params: z.object({ code: certificateCode }),
    answer: answers(publicCertificate, 'What is public of a certificate'),
  }),
};
