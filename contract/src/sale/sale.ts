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
import { TAX_BASES } from '@jutbank/core/money';
import { z } from 'zod';

export const saleBody = z.object({
  /** the offer that is accepted; otherwise price and buyer are given by hand */
  message: ulid.nullish(),
  price: positiveMoney.nullish(),
  /** a channel of the shop's, for a sale by hand; an offer comes through the usual one */
  channel: slug.nullish(),
  buyerName: required(200, 'Who buys it?'),
  contact: ulid.nullish(),
  buyerAddress: text(500).default(''),
  /** the scheme the sale is taxed by, where it is another than usual */
  taxScheme: z.enum(TAX_BASES).nullish(),
  /** sold although it is kept for somebody else */
  despiteReservation: z.boolean().default(false),
  /** paid at once, in this way: in cash, by card */
  paidBy: text(80).nullish(),
  /** it left over the counter and need not be sent */
  handedOver: z.boolean().default(false),
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

export const creditRecord = z
  .object({
    id: z.string(),
    number: z.string(),
    on: z.string(),
    pieceBack: z.boolean(),
    reason: z.string(),
    cameBack: z.string(),
    refund: moneyShape,
    feesBack: withheld(moneyShape),
  })
  .meta({ id: 'CreditRecord' });
export type CreditRecord = z.infer<typeof creditRecord>;
export const paymentRecord = z
  .object({
    id: z.string(),
    amount: moneyShape,
    paidOn: z.string(),
    way: z.string(),
    note: z.string(),
  })
  .meta({ id: 'PaymentRecord' });

/** What a sale comes to after everything that was given back. */
export const saleAccount = z
  .object({
    revenue: z.string(),
    fees: z.string(),
    tax: z.string(),
    left: z.string(),
    result: z.string().nullable(),
  })
  .meta({ id: 'SaleAccount' });

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
    taxScheme: z.enum(TAX_BASES),
    /** price and postage, as the invoice asks for them */
    total: moneyShape,
    dueOn: z.string().nullable(),
    payments: z.array(paymentRecord),
    paid: moneyShape,
    /** what is still to be paid; below nothing where money is to go back */
    open: moneyShape,
    sent: z.object({ on: z.string(), carrier: z.string(), tracking: z.string() }).nullable(),
    credits: z.array(creditRecord),
    /** the most that can still be given back */
    refundable: moneyShape,
    /** the day on which the piece came back */
    returnedOn: z.string().nullable(),
    /** how the piece stands now against how it was sold; while it is back */
    compared: z
      .object({
        worse: z.array(z.string()),
        better: z.array(z.string()),
        items: z.array(z.string()),
        unchanged: z.number(),
      })
      .nullable(),
    account: withheld(saleAccount),
    withdrawn: z.object({ on: z.string(), because: z.string() }).nullable(),
    /** of a consigned piece: what its owner gets */
    settlement: withheld(
      z.object({
        number: z.string(),
        ownerName: z.string(),
        payout: z.string(),
        share: z.string(),
        fee: z.string(),
        channelFees: z.string(),
        paidOn: z.string().nullable(),
      }),
    ),
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
    /** absent on certificates from before these stood on them */
    title: z.string().exactOptional(),
    examiner: z.string().exactOptional(),
    /** a whole look found no fault */
    faultless: z.boolean().exactOptional(),
    measures: z.array(z.string()).exactOptional(),
    marks: z.array(z.string()).exactOptional(),
    features: z.array(z.string()).exactOptional(),
    notExamined: z.array(z.string()).exactOptional(),
    /** addresses below this check page */
    pictures: z
      .array(
        z.object({
          hash: z.string(),
          caption: z.string(),
          width: z.number(),
          height: z.number(),
          /** places of what was found, 0–1 from the left and from the top, with its words */
          pins: z.array(z.object({ x: z.number(), y: z.number(), says: z.string() })).exactOptional(),
        }),
      )
      .exactOptional(),
    fingerprint: z.string(),
    intact: z.boolean(),
    withdrawn: z.object({ on: z.string(), because: z.string() }).nullable(),
    /** a file of it that anybody can check without the shop */
    signed: z.boolean(),
    /** the key the shop signs with, as a did:key; null before it had one */
    issuer: z.string().nullable(),
  })
  .meta({ id: 'PublicCertificate' });
export type PublicCertificate = z.infer<typeof publicCertificate>;

export const SALE_STATES = ['unpaid', 'to-send', 'to-settle', 'done', 'returned'] as const;
export type SaleState = (typeof SALE_STATES)[number];
const salesFilter = z.object({
  from: z.iso.date().optional(),
  to: z.iso.date().optional(),
  state: z.enum(SALE_STATES).optional(),
});
export const salesPage = pageShape(saleRecord).extend({
  /** of everything asked for, by currency */
  totals: z.array(
    z.object({
      currency: z.string(),
      sales: z.number().int(),
      returned: z.number().int(),
      revenue: moneyShape,
      open: moneyShape,
      taxDue: withheld(moneyShape),
      /** of those whose cost is known */
      margin: moneyShape.nullable(),
    }),
  ),
});
export type SalesPage = z.infer<typeof salesPage>;
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
    summary: 'Sales, newest first, and what they come to',
    query: pageQuery.extend(salesFilter.shape),
    answer: answers(salesPage, 'A page of sales, and the totals of all that were asked for'),
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
  invoiceData: route({
    method: 'get',
    path: '/sales/:id/invoice.xml',
    hides: ['buyers'],
    room: 'sale',
    access: 'read',
    summary: 'The invoice as data: UBL 2.1',
    params: byId,
    carries: 'file',
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
  credential: route({
    method: 'get',
    path: '/certificates/:code/certificate.json',
    room: 'sale',
    access: 'public',
    summary: 'The certificate as a W3C Verifiable Credential, signed by the shop',
    params: z.object({ code: certificateCode }),
    carries: 'file',
  }),
  certificatePicture: route({
    method: 'get',
    path: '/certificates/:code/pictures/:hash',
    room: 'sale',
    access: 'public',
    summary: 'A picture that stands on a certificate',
    params: z.object({ code: certificateCode, hash: z.string().regex(/^[0-9a-f]{64}$/) }),
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
