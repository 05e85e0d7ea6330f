/**
 * An invoice as data: UBL 2.1 (ISO/IEC 19845), Invoice, in the order of its schema. The tax inside a price is taken out
 * where the sale is taxed on the whole price; of a margin the paper says no tax, and so does this.
 */
import { money } from '@jutbank/core/money';
import { taxLine } from '@jutbank/core/sale';
import { Decimal } from 'decimal.js';
import { create } from 'xmlbuilder2';
import type { Issuer } from '../shop/index.ts';
import type { StoredSale } from './queries.ts';
import { WORDING } from './taxWording.ts';

const UBL = 'urn:oasis:names:specification:ubl:schema:xsd';
/** UNCL 1001: a commercial invoice; UNCL 5305: standard rate, exempt from tax; UN/ECE 20: one piece. */
const COMMERCIAL_INVOICE = '380';
const STANDARD = 'S';
const EXEMPT = 'E';
const ONE = 'C62';

export function ublInvoice(sale: StoredSale, { letterhead, settings }: Issuer): string {
  const { currency } = sale.price;
  const at = (x: Decimal.Value) => ({ '@currencyID': currency, '#': money(x, currency).amount });
  const price = new Decimal(sale.price.amount);
  const postage = new Decimal(sale.sold.postage);
  const total = price.plus(postage);
  const tax = taxLine(currency, sale.tax, price.toString(), total.toString());
  const inside = new Decimal(tax.tax ?? 0);
  const net = price.minus(inside);
  const wording = settings.wording[WORDING[tax.scheme]];
  const category = (taxed: boolean) => ({
    'cbc:ID': taxed ? STANDARD : EXEMPT,
    'cbc:Percent': taxed ? String(tax.pct) : '0',
    ...(taxed || wording === '' ? {} : { 'cbc:TaxExemptionReason': wording }),
    'cac:TaxScheme': { 'cbc:ID': 'VAT' },
  });
  const isTaxed = tax.scheme === 'sales';
  const subtotal = (taxable: Decimal, amount: Decimal, taxed: boolean) => ({
    'cbc:TaxableAmount': at(taxable),
    'cbc:TaxAmount': at(amount),
    'cac:TaxCategory': category(taxed),
  });
  const line = (id: string, amount: Decimal, name: string, number: string | null, taxed: boolean) => ({
    'cbc:ID': id,
    'cbc:InvoicedQuantity': { '@unitCode': ONE, '#': '1' },
    'cbc:LineExtensionAmount': at(amount),
    'cac:Item': {
      'cbc:Name': name,
      ...(number === null ? {} : { 'cac:SellersItemIdentification': { 'cbc:ID': number } }),
      'cac:ClassifiedTaxCategory': category(taxed),
    },
    'cac:Price': { 'cbc:PriceAmount': at(amount) },
  });
  const party = (name: string, address: string, taxNumber: string) => ({
    'cac:Party': {
      'cac:PartyName': { 'cbc:Name': name },
      ...(address.trim() === ''
        ? {}
        : {
            'cac:PostalAddress': {
              'cac:AddressLine': address
                .split('\n')
                .filter((part) => part.trim() !== '')
                .map((part) => ({ 'cbc:Line': part.trim() })),
            },
          }),
      ...(taxNumber === ''
        ? {}
        : { 'cac:PartyTaxScheme': { 'cbc:CompanyID': taxNumber, 'cac:TaxScheme': { 'cbc:ID': 'VAT' } } }),
    },
  });
  return create({ version: '1.0', encoding: 'UTF-8' })
    .ele({
      Invoice: {
        '@xmlns': `${UBL}:Invoice-2`,
        '@xmlns:cac': `${UBL}:CommonAggregateComponents-2`,
        '@xmlns:cbc': `${UBL}:CommonBasicComponents-2`,
        'cbc:UBLVersionID': '2.1',
        'cbc:ID': sale.invoiceNumber,
        'cbc:IssueDate': sale.soldAt.slice(0, 10),
        ...(sale.dueOn === null ? {} : { 'cbc:DueDate': sale.dueOn }),
        'cbc:InvoiceTypeCode': COMMERCIAL_INVOICE,
        ...(wording === '' ? {} : { 'cbc:Note': wording }),
        'cbc:DocumentCurrencyCode': currency,
        'cac:AccountingSupplierParty': party(letterhead.shop, settings.address, settings.taxNumber),
        'cac:AccountingCustomerParty': party(sale.buyerName, sale.buyerAddress, ''),
        ...(settings.paymentTerms === ''
          ? {}
          : { 'cac:PaymentTerms': { 'cbc:Note': settings.paymentTerms } }),
        'cac:TaxTotal': {
          'cbc:TaxAmount': at(inside),
          'cac:TaxSubtotal': [
            subtotal(isTaxed ? net : total, inside, isTaxed),
            ...(isTaxed && postage.gt(0) ? [subtotal(postage, new Decimal(0), false)] : []),
          ],
        },
        'cac:LegalMonetaryTotal': {
          'cbc:LineExtensionAmount': at(net.plus(postage)),
          'cbc:TaxExclusiveAmount': at(net.plus(postage)),
          'cbc:TaxInclusiveAmount': at(total),
          'cbc:PayableAmount': at(total),
        },
        'cac:InvoiceLine': [
          line('1', net, sale.title, sale.stockNumber, isTaxed),
          ...(postage.gt(0) ? [line('2', postage, 'Postage', null, false)] : []),
        ],
      },
    })
    .end({ prettyPrint: true });
}
