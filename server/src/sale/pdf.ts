/** The papers of a sale: invoice, credit note, packing slip, the owner's settlement, the certificate. */
import { markOf } from '../ledger/index.ts';
import type { Drawing } from '@jutbank/core/drawing';
import { lookedAt } from '@jutbank/core/certificate';
import { formatMoney, money } from '@jutbank/core/money';
import { taxLine } from '@jutbank/core/sale';
import type { PublicCertificate, CreditRecord } from '@jutbank/contract/sale';
import { Decimal } from 'decimal.js';
import { dayInWords, paper, type Paper, type PaperPicture, type Ring } from '../pdf/index.ts';
import type { Issuer } from '../shop/index.ts';
import type { StoredSale } from './queries.ts';
import { WORDING } from './taxWording.ts';

const LAW = 'Sold to an adult. Please keep to the law of the place where you own, carry or post a blade.';

function addressee(
  on: Paper,
  name: string,
  address: string,
  more: readonly (readonly [string, string])[],
): void {
  on.label('To');
  on.body(name, { voice: 'strong', size: 11 });
  if (address !== '') on.body(address);
  on.space(10);
  for (const [label, text] of more) on.pair(label, text);
}

/** The sum, its tax by the scheme of the sale, and the words the shop's adviser gave for it. */
function sums(
  on: Paper,
  sale: StoredSale,
  { settings }: Issuer,
  lines: readonly (readonly [string, Decimal])[],
  taxed: Decimal,
): void {
  const { currency } = sale.price;
  const shown = (x: Decimal.Value) => formatMoney(money(x, currency));
  const total = lines.reduce((sum, [, amount]) => sum.plus(amount), new Decimal(0));
  on.rule();
  for (const [label, amount] of lines) on.amount(label, shown(amount));
  on.rule();
  on.amount('Total', shown(total), 'strong');
  const tax = taxLine(currency, sale.tax, taxed.toString(), total.toString());
  if (tax.tax !== null && tax.net !== null) {
    on.amount(`of which tax at ${tax.pct} %`, shown(tax.tax));
    on.amount('without tax', shown(tax.net));
  }
  on.space(8);
  const wording = settings.wording[WORDING[tax.scheme]];
  if (wording !== '') on.body(wording);
}

export function invoicePdf(issuer: Issuer, sale: StoredSale, claim: string): Promise<Buffer> {
  return paper(
    {
      letterhead: issuer.letterhead,
      title: `Invoice ${sale.invoiceNumber}`,
      running: [sale.stockNumber, markOf(sale.recordHash)],
    },
    (on) => {
      addressee(on, sale.buyerName, sale.buyerAddress, [
        ['Date of invoice and of the sale', dayInWords(sale.soldAt)],
      ]);
      on.body(`${sale.stockNumber}  ${sale.title}`, { voice: 'strong', size: 11 });
      on.body(claim);
      on.space(8);
      sums(
        on,
        sale,
        issuer,
        [
          ['Price', new Decimal(sale.price.amount)],
          ...(Number(sale.sold.postage) === 0 ? [] : [['Postage', new Decimal(sale.sold.postage)] as const]),
        ],
        new Decimal(sale.price.amount),
      );
      for (const p of sale.payments)
        if (Number(p.amount.amount) > 0)
          on.amount(`Paid ${dayInWords(p.paidOn)}, ${p.way}`, formatMoney(p.amount));
      const open = Number(sale.open.amount);
      if (open > 0)
        on.amount(
          sale.dueOn === null ? 'To be paid' : `To be paid by ${dayInWords(sale.dueOn)}`,
          formatMoney(sale.open),
          'strong',
        );
      else if (sale.payments.length > 0) on.body('Paid. Thank you.');
      on.space(8);
      for (const terms of [issuer.settings.paymentTerms, issuer.settings.returnTerms])
        if (terms !== '') on.body(terms);
      on.space(6);
      on.small(
        `Whether tax is due on the margin or on the sale depends on where and how the shop trades; this paper is not tax advice. ${LAW}`,
      );
    },
  );
}

export function creditNotePdf(issuer: Issuer, sale: StoredSale, credit: CreditRecord): Promise<Buffer> {
  return paper(
    {
      letterhead: issuer.letterhead,
      title: `Credit note ${credit.number}`,
      running: [sale.stockNumber, markOf(sale.recordHash)],
    },
    (on) => {
      addressee(on, sale.buyerName, sale.buyerAddress, [
        ['Date', dayInWords(credit.on)],
        ['To invoice', `${sale.invoiceNumber} of ${dayInWords(sale.soldAt)}`],
      ]);
      on.body(`${sale.stockNumber}  ${sale.title}`, { voice: 'strong', size: 11 });
      on.pair(credit.pieceBack ? 'The piece came back' : 'Part of the price is given back', credit.reason);
      if (credit.cameBack !== '') on.pair('With it came', credit.cameBack);
      const refund = new Decimal(credit.refund.amount).negated();
      const taxed = Decimal.max(refund, new Decimal(sale.price.amount).negated());
      sums(on, sale, issuer, [['Given back', refund]], taxed);
      if (credit.pieceBack) on.body('The certificate of this piece is withdrawn; its check page says so.');
    },
  );
}

export function packingSlipPdf(
  { letterhead, settings }: Issuer,
  sale: StoredSale,
  certificate: PublicCertificate,
  included: readonly string[],
): Promise<Buffer> {
  return paper(
    {
      letterhead,
      title: `Packing slip ${sale.invoiceNumber}`,
      running: [sale.stockNumber, markOf(sale.recordHash)],
    },
    (on) => {
      addressee(on, sale.buyerName, sale.buyerAddress, [
        ...(sale.sent
          ? [
              [
                'Sent',
                `${dayInWords(sale.sent.on)}, ${[sale.sent.carrier, sale.sent.tracking].filter(Boolean).join(', ')}`,
              ] as const,
            ]
          : []),
      ]);
      on.section('In this parcel');
      on.list([
        `${sale.stockNumber}  ${sale.title}`,
        ...included,
        `Certificate ${certificate.code}, invoice ${sale.invoiceNumber}`,
      ]);
      on.section('Before it leaves');
      on.list([
        'The blade is closed or sheathed, its edge and tip covered.',
        'It is dry and lightly oiled; nothing rubs.',
        'The rules of the place it goes to were looked up; where in doubt a licensed adviser was asked.',
        'The parcel says nothing of what it holds, and is handed over to an adult.',
      ]);
      if (settings.returnTerms !== '') on.pair('If it is to come back', settings.returnTerms);
      on.space(4);
      on.small(LAW);
    },
  );
}

function stateOf({ returnedOn, settlement }: StoredSale): string {
  if (returnedOn !== null) return 'The piece came back: this settlement is void.';
  return settlement?.paidOn == null ? 'Not paid out yet.' : `Paid out ${dayInWords(settlement.paidOn)}.`;
}

export function settlementPdf({ letterhead }: Issuer, sale: StoredSale, address: string): Promise<Buffer> {
  const settlement = sale.settlement;
  if (!settlement) throw new Error('this sale has no settlement');
  const shown = (x: Decimal.Value) => formatMoney(money(x, sale.price.currency));
  return paper(
    {
      letterhead,
      title: `Settlement ${settlement.number}`,
      running: [sale.stockNumber, markOf(sale.recordHash)],
    },
    (on) => {
      addressee(on, settlement.ownerName, address, [['Sold', dayInWords(sale.soldAt)]]);
      on.body(`${sale.stockNumber}  ${sale.title}`, { voice: 'strong', size: 11 });
      on.space(6);
      on.rule();
      on.amount('Price it was sold for', shown(sale.price.amount));
      for (const [label, amount] of [
        ['Share of the shop', settlement.share],
        ['Fee', settlement.fee],
        ['Fees of the channel', settlement.channelFees],
      ] as const)
        if (Number(amount) !== 0) on.amount(label, shown(new Decimal(amount).negated()));
      on.rule();
      on.amount('Paid to you', shown(settlement.payout), 'strong');
      on.space(8);
      on.body(stateOf(sale));
      on.space(6);
      on.small('What tax the owner owes on this sum is for their own tax adviser to say.');
    },
  );
}

/** pt */
const DRAWN_HEIGHT = 150;

export function certificatePdf(
  { letterhead }: Issuer,
  certificate: PublicCertificate,
  checkUrl: string,
  code: Buffer,
  pictures: readonly (PaperPicture & { readonly caption: string; readonly rings: readonly Ring[] })[],
  /** of a piece that has no picture */
  drawing: Drawing | null,
): Promise<Buffer> {
  return paper(
    {
      letterhead,
      title: 'Certificate of examination',
      running: [certificate.stockNumber, certificate.code, markOf(certificate.fingerprint)],
    },
    (on) => {
      if (certificate.withdrawn)
        on.headline(`Withdrawn on ${dayInWords(certificate.withdrawn.on)}: ${certificate.withdrawn.because}`);
      on.label([certificate.stockNumber, certificate.title ?? ''].filter(Boolean).join(' · '));
      on.headline(certificate.claim);
      for (const reason of certificate.notProvedBecause) on.body(`Not proved, because ${reason}.`);
      on.space(6);
      on.pictures(pictures, 2);
      if (drawing) {
        on.drawing(drawing, DRAWN_HEIGHT);
        on.small('Drawn from what is recorded of it; no photograph was taken.');
      }
      on.pair('Made', certificate.made ?? 'not known');
      on.list(certificate.marks ?? [], 'Marks, codes and numbers as they were read');
      on.list(certificate.features ?? [], 'Seen of it');
      on.list(certificate.measures ?? [], 'Measured');
      on.newPage();
      on.section('Condition');
      on.pair('Grade', certificate.grade ?? 'not graded');
      on.body(lookedAt(certificate));
      on.space(4);
      on.list(certificate.findings, 'Found, and to be known');
      on.list(certificate.notExamined ?? [], 'What was not examined');
      on.section('Provenance');
      on.body(certificate.provenance ?? 'Earlier owners are not known.');
      on.space(10);
      if (certificate.examiner) on.signature(`${certificate.examiner}, for ${certificate.shop}`);
      on.rule();
      on.beside(code, `A code that leads to ${checkUrl}`, 96, (x, width) => {
        const at = { x, width };
        on.body('Check this certificate', { ...at, size: 8, soft: true });
        on.body(checkUrl, { ...at, voice: 'figures', size: 8.5 });
        on.body('Code, and fingerprint in the ledger', { ...at, size: 8, soft: true });
        on.body(`${certificate.code}\n${certificate.fingerprint}`, { ...at, voice: 'figures', size: 7.5 });
        if (certificate.issuer !== null)
          on.body(`Signed with ${certificate.issuer}`, { ...at, voice: 'figures', size: 6.5, soft: true });
      });
      on.small(
        `Issued ${dayInWords(certificate.issuedAt)}. This states what was examined and on what evidence; it is not an appraisal for tax, court or insurance, which may need a licensed appraiser.`,
      );
    },
  );
}
