/** Sales, invoices, certificates. */
import { z } from 'zod';
import type { Net } from '@jutbank/core/worth';
import type { Money } from '@jutbank/core/money';
import {
  answers,
  byId,
  pageQuery,
  positiveMoney,
  required,
  route,
  slug,
  text,
  ulid,
  type Page,
} from '../http/index.ts';

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
export interface NetOfSale extends Net {
  channel: string;
  tax: string;
  left: string;
}
export interface SaleRecord {
  id: string;
  pieceId: string;
  stockNumber: string;
  title: string;
  invoiceNumber: string;
  soldAt: string;
  buyerName: string;
  price: Money;
  net: NetOfSale;
  cost: Money | null;
  /** what is left less cost, in the currency of the sale; null where the cost is unknown or no rate is known */
  margin: Money | null;
  certificateCode: string;
}

/** What the public check page shows, and nothing else. */
export interface PublicCertificate {
  code: string;
  shop: string;
  issuedAt: string;
  stockNumber: string;
  claim: string;
  made: string | null;
  grade: string | null;
  /** whether the inspection was finished before it was sold */
  inspected: boolean;
  /** nothing on the list was skipped; absent on certificates from before this was asked */
  whole?: boolean;
  findings: string[];
  provenance: string | null;
  notProvedBecause: string[];
  fingerprint: string;
  intact: boolean;
}

export const certificateCode = z.string().regex(/^[0-9A-HJKMNP-TV-Z]{12}$/);
export const saleRoutes = {
  sell: route({
    method: 'post',
    path: '/pieces/:id/sale',
    room: 'sale',
    access: 'appraise',
    summary: 'Sell it: invoice, certificate, comparable',
    params: byId,
    body: saleBody,
    answer: answers<SaleRecord>('The sale'),
    status: 201,
  }),
  list: route({
    method: 'get',
    path: '/sales',
    room: 'sale',
    access: 'read',
    summary: 'Sales, newest first',
    query: pageQuery,
    answer: answers<Page<SaleRecord>>('A page of sales'),
  }),
  one: route({
    method: 'get',
    path: '/sales/:id',
    room: 'sale',
    access: 'read',
    summary: 'One sale',
    params: byId,
    answer: answers<SaleRecord>('The sale'),
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
    answer: answers<PublicCertificate>('What is public of a certificate'),
  }),
};
