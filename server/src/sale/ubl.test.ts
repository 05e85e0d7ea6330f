/** The invoice as data says to the cent what the paper says, whatever the scheme of its tax. */
import { describe, expect, test } from '@jest/globals';
import { Decimal } from 'decimal.js';
import { USUAL_PAPERS } from '@jutbank/contract/shop';
import type { StoredSale } from './queries.ts';
import { ublInvoice } from './ubl.ts';

const issuer = {
  letterhead: { shop: 'Hollin Quay Edge Room', lines: [] },
  settings: {
    ...USUAL_PAPERS,
    address: '1 Chandlers’ Steps\nHollin Quay',
    taxNumber: 'HQ 204',
    wording: { untaxed: '', onSale: '', onMargin: 'Sold under the scheme for second-hand goods.' },
  },
};
const sale = (more: object = {}) =>
  ({
    invoiceNumber: '2026-0042',
    soldAt: '2026-11-02T10:00:00.000Z',
    dueOn: '2026-11-16',
    stockNumber: 'HQ-0042',
    title: 'Harbour jack <horn> & brass',
    price: { amount: '121.00', currency: 'EUR' },
    sold: { postage: '8.30' },
    tax: { on: 'sales', pct: 21, paid: '60.00' },
    buyerName: 'Greta Sundholm',
    buyerAddress: '4 Ropewalk\n\nNorham Vale',
    ...more,
  }) as unknown as StoredSale;
const all = (xml: string, name: string) =>
  [...xml.matchAll(new RegExp(`<cbc:${name}[^>]*>([^<]*)<`, 'g'))].map((m) => m[1]);

describe('UBL', () => {
  test('taxed on the whole price: 121.00 holds 21.00; postage carries none', () => {
    const xml = ublInvoice(sale(), issuer);
    expect(all(xml, 'TaxAmount')).toEqual(['21.00', '21.00', '0.00']);
    expect(all(xml, 'LineExtensionAmount')).toEqual(['108.30', '100.00', '8.30']);
    expect(all(xml, 'PayableAmount')).toEqual(['129.30']);
    expect(all(xml, 'Percent')).toEqual(['21', '0', '21', '0']);
  });
  test.each([
    ['margin', 'Sold under the scheme for second-hand goods.'],
    ['none', undefined],
  ])('%s: no tax is told, in the shop’s words', (on, words) => {
    const xml = ublInvoice(sale({ tax: { on, pct: 21, paid: '60.00' } }), issuer);
    expect(all(xml, 'TaxAmount')).toEqual(['0.00', '0.00']);
    expect(all(xml, 'LineExtensionAmount')[0]).toBe('129.30');
    expect(all(xml, 'Note')[0]).toBe(words);
    expect(all(xml, 'ID')).toContain('E');
  });
  test('lines add up to the whole, whatever the price', () => {
    for (const amount of ['0.01', '99.99', '1234.57', '33.33']) {
      const xml = ublInvoice(sale({ price: { amount, currency: 'EUR' } }), issuer);
      const [whole = '', ...lines] = all(xml, 'LineExtensionAmount');
      expect(Decimal.sum(...lines.map((l) => l ?? '0')).toFixed(2)).toBe(whole);
      const [tax = '0'] = all(xml, 'TaxAmount');
      expect(new Decimal(whole).plus(tax).toFixed(2)).toBe(all(xml, 'TaxInclusiveAmount')[0]);
    }
  });
  test('what is typed is text, and stands in the order of the schema', () => {
    const xml = ublInvoice(sale(), issuer);
    expect(xml).toContain('<cbc:Name>Harbour jack &lt;horn&gt; &amp; brass</cbc:Name>');
    const order = [...xml.matchAll(/^ {2}<(c[ab]c:\w+)/gm)].map((m) => m[1]);
    expect(order).toEqual([
      'cbc:UBLVersionID',
      'cbc:ID',
      'cbc:IssueDate',
      'cbc:DueDate',
      'cbc:InvoiceTypeCode',
      'cbc:DocumentCurrencyCode',
      'cac:AccountingSupplierParty',
      'cac:AccountingCustomerParty',
      'cac:TaxTotal',
      'cac:LegalMonetaryTotal',
      'cac:InvoiceLine',
      'cac:InvoiceLine',
    ]);
  });
});
