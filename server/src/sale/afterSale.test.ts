/** A sale and what comes after it: payments, what is given back, books to the cent, papers, the certificate’s file. */
import { spawnSync } from 'node:child_process';
import { mkdtemp, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { verifyCredential } from '@jutbank/core/certificate';
import { credentialFile } from '@jutbank/contract/sale';
import { intake, readyToSell, serverForTest, testPack, type TestServer } from '../testing/index.ts';

let server: TestServer;
const TODAY = new Date().toISOString().slice(0, 10);
const TOMORROW = new Date(Date.now() + 2 * 86_400_000).toISOString().slice(0, 10);
const eur = (amount: string) => ({ amount, currency: 'EUR' });
const call = (method: string, path: string, body?: unknown, headers?: Record<string, string>): Promise<any> =>
  server.owner.call(method as 'GET', path, body, headers);
const put = async (piece: any, path: string, body: unknown) =>
  call('PUT', `/pieces/${piece.id}/${path}`, body, { 'if-match': `"v${piece.version}"` });
const sell = (piece: any, more: object = {}) =>
  call('POST', `/pieces/${piece.id}/sale`, {
    ageChecked: true,
    buyerName: 'Greta Sundholm',
    buyerAddress: '4 Ropewalk, Norham Vale',
    price: eur('101.50'),
    channel: 'quayside',
    ...more,
  });
const contact = async (name: string): Promise<any> => (await call('POST', '/contacts', { name })).body;
const line = (csv: string, number: string) =>
  csv
    .split('\n')
    .find((l) => l.split(',')[1] === number)
    ?.split(',');

beforeAll(async () => {
  server = await serverForTest();
  await call('POST', '/reference-packs', testPack);
  const { body, etag } = await call('GET', '/pricing-settings');
  const channels = body.settings.channels.map((c: any) =>
    c.id === 'quayside'
      ? { ...c, channel: { ...c.channel, postageCharged: '6.00', postageCost: '5.20' } }
      : c,
  );
  await call(
    'PUT',
    '/pricing-settings',
    { ...body.settings, channels, tax: { on: 'margin', pct: 21 } },
    { 'If-Match': etag },
  );
  const papers = await call('GET', '/paper-settings');
  await call(
    'PUT',
    '/paper-settings',
    {
      ...papers.body.settings,
      address: '1 Chandlers’ Steps\nHollin Quay',
      taxNumber: 'HQ 000 111',
      dueInDays: 10,
      wording: { untaxed: '', onSale: '', onMargin: 'Sold under a scheme on the margin.' },
    },
    { 'If-Match': papers.etag },
  );
});
afterAll(() => server.close());

describe('sold, given back, sold again', () => {
  let piece: any;
  let first: any;
  test('what the invoice asks for is price and postage; it is open until it is paid', async () => {
    piece = await readyToSell(server);
    first = (await sell(piece)).body;
    // 8 % of 101.50 = 8.12; 2.5 % of 107.50 = 2.69 and 0.30; 43.50 gained · 21/121 = 7.55
    expect(first).toMatchObject({
      total: eur('107.50'),
      paid: eur('0.00'),
      open: eur('107.50'),
      taxScheme: 'margin',
      account: { revenue: '107.50', fees: '16.31', tax: '7.55', left: '83.64', result: '25.64' },
      margin: eur('25.64'),
    });
    expect((await call('GET', '/sales?state=unpaid')).body.items.map((s: any) => s.id)).toEqual([first.id]);
    const pay = (body: object) =>
      call('POST', `/sales/${first.id}/payments`, { way: 'transfer', paidOn: TODAY, ...body });
    expect((await pay({ amount: '0' })).body.errors[0].pointer).toBe('/amount');
    expect((await pay({ amount: '5.005' })).body.errors[0].pointer).toBe('/amount');
    expect((await pay({ amount: '50.00', paidOn: TOMORROW })).body.errors[0].pointer).toBe('/paidOn');
    expect((await pay({ amount: '50.00' })).body).toMatchObject({ paid: eur('50.00'), open: eur('57.50') });
    expect((await pay({ amount: '57.50' })).body.open).toEqual(eur('0.00'));
    expect((await call('GET', '/sales?state=to-send')).body.total).toBe(1);
    const sent = await call('PUT', `/sales/${first.id}/sent`, {
      on: TODAY,
      carrier: 'Coast carrier',
      tracking: 'CC 12',
    });
    expect(sent.body.sent).toEqual({ on: TODAY, carrier: 'Coast carrier', tracking: 'CC 12' });
    expect((await call('GET', '/sales?state=done')).body.total).toBe(1);
  });

  test('no more is given back than was paid for, nor before it was sold, nor without a reason', async () => {
    const credit = (body: object) =>
      call('POST', `/sales/${first.id}/credits`, {
        pieceBack: false,
        on: TODAY,
        reason: 'A scratch.',
        refund: '10',
        ...body,
      });
    expect((await credit({ refund: '107.51' })).body.errors[0].pointer).toBe('/refund');
    expect((await credit({ on: '2020-01-01' })).body.errors[0].pointer).toBe('/on');
    expect((await credit({ reason: ' ' })).body.errors[0].pointer).toBe('/reason');
    expect((await credit({ feesBack: '16.32' })).body.errors[0].pointer).toBe('/feesBack');
    expect((await credit({ refund: '0' })).body.errors[0].pointer).toBe('/refund');
    expect((await call('GET', `/sales/${first.id}`)).body.credits).toEqual([]);
  });

  test('part of the price back lowers tax and margin; the sale stands', async () => {
    const after = (
      await call('POST', `/sales/${first.id}/credits`, {
        pieceBack: false,
        on: TODAY,
        reason: 'A scratch.',
        refund: '10.00',
      })
    ).body;
    // 33.50 gained · 21/121 = 5.81; 97.50 − 16.31 − 5.81 − 58.00
    expect(after).toMatchObject({
      account: { revenue: '97.50', tax: '5.81', result: '17.38' },
      open: eur('-10.00'),
      returnedOn: null,
      refundable: eur('97.50'),
    });
    expect((await sell(piece)).status).toBe(409);
  });

  test('brought back, the piece stands in stock again; certificate, comparable, tax and margin are put right', async () => {
    const code = first.certificateCode;
    const before = (await call('GET', '/comparables?limit=200')).body.items.filter(
      (c: any) => c.cells.source === 'own sale',
    );
    expect(before.map((c: any) => c.state)).toEqual(['kept']);
    const back = await call('POST', `/sales/${first.id}/credits`, {
      pieceBack: true,
      on: TODAY,
      reason: 'It was not what the buyer looked for.',
      cameBack: 'the piece and its box',
      refund: '91.50',
      feesBack: '8.12',
    });
    expect(back.status).toBe(201);
    // 6.00 kept of the price... all of the postage: 107.50 − 10.00 − 91.50 = 6.00; nothing of the price is left to tax
    expect(back.body).toMatchObject({
      returnedOn: TODAY,
      account: { revenue: '6.00', fees: '8.19', tax: '0.00', result: '-2.19' },
      open: eur('-101.50'),
      withdrawn: { because: 'The piece came back to the shop.' },
      compared: { worse: [], better: [], items: [], unchanged: 1 },
    });
    piece = (await call('GET', `/pieces/${piece.id}`)).body;
    expect(piece).toMatchObject({ sale: null, returnedSales: [{ id: first.id, returnedOn: TODAY }] });
    expect(piece.stage).not.toBe('sold');
    const check = (await server.nobody().call('GET', `/certificates/${code}`)).body;
    expect(check).toMatchObject({ intact: true, withdrawn: { on: TODAY } });
    const after = (await call('GET', '/comparables?limit=200&state=set-aside')).body.items.filter(
      (c: any) => c.cells.source === 'own sale',
    );
    expect(after.map((c: any) => [c.state, c.stateReason])).toEqual([
      ['set-aside', `the piece came back on ${TODAY}`],
    ]);
    expect(
      (
        await call('POST', `/sales/${first.id}/credits`, {
          pieceBack: true,
          on: TODAY,
          reason: 'again',
          refund: '0',
        })
      ).status,
    ).toBe(409);
  });

  test('a second look at it says what changed while it was away', async () => {
    const looked = await put(piece, 'condition', {
      findings: [
        { part: 'blade', defect: 'reground', severity: 'light' },
        { part: 'scales', defect: 'crack', severity: 'light' },
      ],
      completeness: { box: 'none' },
      inspected: true,
    });
    expect(looked.body).toMatchObject({ id: piece.id });
    piece = looked.body;
    expect((await call('GET', `/sales/${first.id}`)).body.compared).toEqual({
      worse: ['Scales: crack, light'],
      better: [],
      items: ['Box: not looked at, now no box'],
      unchanged: 1,
    });
  });

  test('sold again, invoices and credit notes run without a gap, and the books sum to the cent', async () => {
    const second = (
      await sell(piece, { buyerName: 'Maren Tolleth', price: eur('90.00'), paidBy: 'card', handedOver: true })
    ).body;
    expect(second).toMatchObject({ open: eur('0.00'), payments: [{ way: 'card', amount: eur('96.00') }] });
    const year = TODAY.slice(0, 4);
    expect([first.invoiceNumber, second.invoiceNumber]).toEqual([`${year}-0001`, `${year}-0002`]);
    const csv = (await call('GET', `/registers/sales.csv?from=${TODAY}&to=${TODAY}`)).body as string;
    expect(csv.split('\n')[0]).toContain('day,number,kind');
    expect(line(csv, `${year}-0001`)?.slice(9, 12)).toEqual(['107.50', '7.55', '58.00']);
    expect(line(csv, `C${year}-0001`)?.slice(9, 11)).toEqual(['-10.00', '-1.74']);
    expect(line(csv, `C${year}-0002`)?.slice(9, 12)).toEqual(['-91.50', '-5.81', '-58.00']);
    // 32.00 gained · 21/121 = 5.55
    expect(line(csv, `${year}-0002`)?.slice(9, 11)).toEqual(['96.00', '5.55']);
    const { totals, total } = (await call('GET', '/sales')).body;
    expect(total).toBe(2);
    // 6.00 + 96.00; −2.19 + (96.00 − (7.20 + 2.70 + 5.20) − 5.55 − 58.00)
    expect(totals).toEqual([
      expect.objectContaining({
        currency: 'EUR',
        sales: 2,
        returned: 1,
        revenue: eur('102.00'),
        taxDue: eur('5.55'),
        margin: eur('15.16'),
      }),
    ]);
    expect((await call('GET', '/sales?state=returned')).body.items.map((s: any) => s.id)).toEqual([first.id]);
    const comparables = (await call('GET', '/comparables?limit=200')).body.items;
    expect(comparables.filter((c: any) => c.cells.source === 'own sale' && c.state === 'kept')).toHaveLength(
      1,
    );
  });

  test('the ledger tells all of it, is whole, and names nobody who may ask to be forgotten', async () => {
    const entries = (await call('GET', `/pieces/${piece.id}/ledger?limit=200`)).body.items;
    const kinds = entries.map((e: any) => e.kind);
    for (const kind of ['sold', 'payment-noted', 'sent', 'refunded', 'came-back'])
      expect(kinds).toContain(kind);
    expect(JSON.stringify(entries)).not.toContain('Sundholm');
    expect((await call('GET', '/ledger/verify')).body.intact).toBe(true);
  });

  test('what went out is printed again as it was, whatever the letterhead is by now', async () => {
    const print = async () =>
      String((await call('GET', `/sales/${first.id}/invoice.pdf`)).body).replace(
        /\/(CreationDate|ModDate|ID) ?[^\n]*/g,
        '',
      ).length;
    const before = await print();
    const papers = await call('GET', '/paper-settings');
    const keep = (address: string, etag: string) =>
      call('PUT', '/paper-settings', { ...papers.body.settings, address }, { 'If-Match': etag });
    const moved = await keep(
      'Somewhere else altogether, on another coast, with a far longer address than before',
      papers.etag,
    );
    expect(moved.status).toBe(200);
    expect(await print()).toBe(before);
    await keep(papers.body.settings.address, moved.etag);
  });

  test('every paper of it is a PDF, tagged, with the shop’s letterhead', async () => {
    const { credits } = (await call('GET', `/sales/${first.id}`)).body;
    for (const path of [
      `/sales/${first.id}/invoice.pdf`,
      `/sales/${first.id}/certificate.pdf`,
      `/sales/${first.id}/packing-slip.pdf`,
      `/sales/${first.id}/credits/${credits[0].id}/credit-note.pdf`,
      `/registers/sales.pdf?from=${TODAY}&to=${TODAY}`,
      `/registers/purchases.pdf?from=2000-01-01&to=${TODAY}`,
    ]) {
      const { status, body } = await call('GET', path);
      expect([path, status, String(body).slice(0, 5)]).toEqual([path, 200, '%PDF-']);
      expect(String(body)).toContain('/MarkInfo');
    }
    const [kept] = await server.database.rows<any>('SELECT issuer FROM sale WHERE id = ?', [first.id]);
    expect(kept.issuer).toMatchObject({
      letterhead: { shop: 'Hollin Quay Edge Room', lines: expect.arrayContaining(['Tax number HQ 000 111']) },
      settings: { wording: { onMargin: 'Sold under a scheme on the margin.' } },
    });
    expect((await call('GET', `/sales/${first.id}/settlement.pdf`)).status).toBe(404);
    expect((await call('GET', `/registers/sales.csv?from=${TOMORROW}&to=${TODAY}`)).status).toBe(422);
  });
});

describe('the certificate’s file', () => {
  let text: string;
  let code: string;
  beforeAll(async () => {
    const sale = (await sell(await readyToSell(server))).body;
    code = sale.certificateCode;
    text = (await server.nobody().call<string>('GET', `/certificates/${code}/certificate.json`)).body;
    text = typeof text === 'string' ? text : JSON.stringify(text);
  });
  const script = async (content: string) => {
    const file = join(await mkdtemp(join(tmpdir(), 'jutbank-vc-')), 'certificate.json');
    await writeFile(file, content);
    return spawnSync(process.execPath, ['scripts/verify-certificate.mjs', file], { encoding: 'utf8' });
  };
  test('anybody can check it without the shop; a changed byte is told', async () => {
    const good = await script(text);
    expect([good.status, good.stdout]).toEqual([0, expect.stringContaining('As it was issued')]);
    expect(verifyCredential(JSON.parse(text)).intact).toBe(true);
    expect(credentialFile.safeParse(JSON.parse(text)).error?.issues ?? []).toEqual([]);
    const changed = text.replace('reground', 'rEground');
    expect(changed).not.toBe(text);
    expect((await script(changed)).status).toBe(1);
    expect((await script('no JSON')).status).toBe(1);
  });
  test('the check page knows the key, shows the pictures that stand on it and no others', async () => {
    const nobody = server.nobody();
    const check = (await nobody.call('GET', `/certificates/${code}`)).body;
    expect(check).toMatchObject({
      signed: true,
      issuer: JSON.parse(text).issuer.id,
      withdrawn: null,
      intact: true,
    });
    const [picture] = check.pictures;
    expect((await nobody.call('GET', `/certificates/${code}/pictures/${picture.hash}`)).status).toBe(200);
    expect((await nobody.call('GET', `/certificates/${code}/pictures/${'0'.repeat(64)}`)).status).toBe(404);
  });
  test('all certificates of the shop are signed with one key', async () => {
    const two = await Promise.all([readyToSell(server), readyToSell(server)]);
    const sales = await Promise.all(two.map((piece) => sell(piece)));
    const issuers = await Promise.all(
      sales.map(
        async (s) =>
          (await server.nobody().call('GET', `/certificates/${s.body.certificateCode}`)).body.issuer,
      ),
    );
    expect(new Set([...issuers, JSON.parse(text).issuer.id]).size).toBe(1);
  });
  test('a certificate rewritten where it lies is found', async () => {
    await server.database.run(
      "UPDATE sale SET certificate = REPLACE(certificate, 'reground', 'polished') WHERE certificate_code = ?",
      [code],
    );
    expect((await server.nobody().call('GET', `/certificates/${code}`)).body.intact).toBe(false);
  });
});

describe('sent by a carrier', () => {
  test('quotes by zone for what it weighs packed; the label makes it sent, once', async () => {
    const piece = await readyToSell(server);
    const postage = (await call('GET', `/pieces/${piece.id}/postage`)).body;
    expect(postage).toMatchObject({ weighed: false, grams: 400, insuredFor: { amount: '120.00' } });
    expect(postage.zones.map((z: any) => z.zone)).toEqual(['home', 'near', 'far', 'overseas']);
    // 6.40 + 4 · 0.30 + 120 · 0.6 %
    expect(postage.zones[0].quotes.find((q: any) => q.service === 'Tracked parcel').price).toEqual(
      eur('8.30'),
    );
    const sale = (await sell(piece)).body;
    const order = (more: object = {}) =>
      call('POST', `/sales/${sale.id}/carriage-label`, {
        carrier: 'Coast carrier',
        service: 'Tracked parcel',
        on: TODAY,
        ...more,
      });
    expect((await order({ service: 'Pigeon' })).status).toBe(502);
    const sent = (await order()).body.sent;
    expect(sent).toMatchObject({
      carrier: 'Coast carrier, tracked parcel',
      tracking: expect.stringMatching(/^CO \d+$/),
    });
    expect((await order()).status).toBe(409);
  });
});

describe('kept for somebody', () => {
  test('nobody else is sold it, unless that is said; a deposit counts towards the price', async () => {
    let piece = await readyToSell(server);
    const reserve = (more: object = {}) =>
      put(piece, 'reservation', {
        name: 'Maren Tolleth',
        until: TOMORROW,
        deposit: eur('20.00'),
        way: 'cash',
        paidOn: TODAY,
        ...more,
      });
    expect((await reserve({ until: '2020-01-01' })).body.errors[0].pointer).toBe('/until');
    expect((await reserve({ paidOn: null })).body.errors[0].pointer).toBe('/paidOn');
    piece = (await reserve()).body;
    expect(piece.reservation).toMatchObject({ reservedFor: 'Maren Tolleth', until: TOMORROW });
    expect((await reserve({ name: 'Somebody else' })).status).toBe(409);
    expect((await sell(piece)).body.errors[0].pointer).toBe('/despiteReservation');
    const sold = (await sell(piece, { buyerName: 'maren tolleth' })).body;
    expect(sold).toMatchObject({ paid: eur('20.00'), payments: [{ way: 'cash', paidOn: TODAY }] });
  });
  test('released, it is anybody’s', async () => {
    let piece = await readyToSell(server);
    piece = (await put(piece, 'reservation', { name: 'Maren Tolleth', until: TOMORROW })).body;
    const release = await call('DELETE', `/pieces/${piece.id}/reservation`, undefined, {
      'if-match': `"v${piece.version}"`,
    });
    expect(release.body.reservation).toBeNull();
    expect((await sell(piece)).status).toBe(201);
  });
});

describe('sold for its owner', () => {
  test('share and fees come off, the owner is paid the rest, the shop’s margin is its share', async () => {
    const owner = await contact('Rosa Halvern');
    let piece = await readyToSell(server, { price: null });
    const consign = (terms: object) =>
      put(piece, 'consignment', { contact: owner.id, agreedOn: TODAY, terms });
    expect((await consign({ sharePct: 120 })).body.errors[0].pointer).toBe('/terms/sharePct');
    piece = (await consign({ sharePct: 25, fee: '5.00', channelFeesBy: 'owner' })).body;
    expect(piece.consignment).toMatchObject({ ownerName: 'Rosa Halvern' });
    // nothing was paid for it, and nothing waits to be written down of that
    expect(piece.stage).not.toBe('intake');
    const sold = (await sell(piece, { price: eur('160.00'), paidBy: 'transfer' })).body;
    // share 40.00, fee 5.00, channel 8 % = 12.80 and 2.5 % of 166.00 = 4.15 and 0.30
    expect(sold.settlement).toMatchObject({
      ownerName: 'Rosa Halvern',
      share: '40.00',
      fee: '5.00',
      channelFees: '17.25',
      payout: '97.75',
      paidOn: null,
    });
    // 62.25 over what the owner gets · 21/121 = 10.80; 166.00 − 17.25 − 5.20 − 10.80 − 97.75
    expect(sold.margin).toEqual(eur('35.00'));
    expect((await call('GET', '/sales?state=to-settle')).body.total).toBe(1);
    const settled = await call('PUT', `/sales/${sold.id}/settlement`, { paidOn: TODAY, way: 'transfer' });
    expect(settled.body.settlement.paidOn).toBe(TODAY);
    expect(
      (await call('PUT', `/sales/${sold.id}/settlement`, { paidOn: TODAY, way: 'transfer' })).status,
    ).toBe(409);
    expect(String((await call('GET', `/sales/${sold.id}/settlement.pdf`)).body).slice(0, 5)).toBe('%PDF-');
    expect(
      (
        await call('POST', `/sales/${sold.id}/credits`, {
          pieceBack: true,
          on: TODAY,
          reason: 'x',
          refund: '10',
        })
      ).status,
    ).toBe(409);
    // nothing of that try is left
    expect((await call('GET', `/sales/${sold.id}`)).body.credits).toEqual([]);
  });
  test('brought back, nothing is due to its owner; the number stays in its series', async () => {
    const owner = await contact('Rosa Halvern');
    const own = await readyToSell(server, { price: null });
    const consigned = (
      await put(own, 'consignment', { contact: owner.id, agreedOn: TODAY, terms: { sharePct: 25 } })
    ).body;
    const sold = (await sell(consigned, { price: eur('160.00') })).body;
    await call('POST', `/sales/${sold.id}/credits`, {
      pieceBack: true,
      on: TODAY,
      reason: 'x',
      refund: sold.total.amount,
    });
    expect(
      (await call('PUT', `/sales/${sold.id}/settlement`, { paidOn: TODAY, way: 'transfer' })).status,
    ).toBe(409);
    expect((await call('GET', `/sales/${sold.id}`)).body.settlement.number).toBe(sold.settlement.number);
    expect((await call('GET', '/sales?state=to-settle')).body.items.map((s: any) => s.id)).not.toContain(
      sold.id,
    );
  });
  test('a piece that was bought cannot belong to somebody else', async () => {
    const owner = await contact('Rosa Halvern');
    const piece = await readyToSell(server);
    expect(
      (await put(piece, 'consignment', { contact: owner.id, agreedOn: TODAY, terms: { sharePct: 20 } }))
        .status,
    ).toBe(409);
  });
});

describe('contacts', () => {
  test('are noted, changed upon the version that was seen, found by name', async () => {
    const made = await call('POST', '/contacts', { name: 'Tobias Fenwick', email: 'not one' });
    expect(made.body.errors[0].pointer).toBe('/email');
    const fenwick = await contact('Tobias Fenwick');
    const change = (body: object, version: number) =>
      call('PUT', `/contacts/${fenwick.id}`, body, { 'if-match': `"v${version}"` });
    expect((await change({ name: 'Tobias Fenwick', phone: '12' }, 1)).body).toMatchObject({
      phone: '12',
      version: 2,
    });
    expect((await change({ name: 'T' }, 1)).status).toBe(412);
    expect((await call('GET', '/contacts?q=fenwi')).body.items.map((c: any) => c.name)).toEqual([
      'Tobias Fenwick',
    ]);
    expect((await call('GET', '/contacts?q=%25')).body.items).toEqual([]);
  });
  test('one who asks to be forgotten is, but for invoices that the law asks to keep', async () => {
    const greta = await contact('Greta Sundholm');
    const sale = (await sell(await readyToSell(server), { contact: greta.id })).body;
    const kept = (await call('DELETE', `/contacts/${greta.id}`)).body;
    expect(kept).toMatchObject({ erased: true, kept: [{ invoiceNumber: sale.invoiceNumber }] });
    expect((await call('GET', '/contacts?q=Greta')).body.items).toEqual([]);
    expect((await call('GET', `/sales/${sale.id}`)).body.buyerName).toBe('Greta Sundholm');
    // ten years on nothing names her any more
    await server.database.run('UPDATE sale SET sold_at = DATE_SUB(sold_at, INTERVAL 11 YEAR) WHERE id = ?', [
      sale.id,
    ]);
    expect((await call('DELETE', `/contacts/${greta.id}`)).body.kept).toEqual([]);
    expect((await call('GET', `/sales/${sale.id}`)).body.buyerName).toBe('forgotten on request');
    expect((await sell(await readyToSell(server), { contact: greta.id })).status).toBe(409);
  });
  test('who still has pieces here to be sold is not forgotten before they are settled', async () => {
    const owner = await contact('Rosa Halvern');
    const piece = (await call('POST', '/pieces', { ...intake, price: null })).body;
    await put(piece, 'consignment', { contact: owner.id, agreedOn: TODAY, terms: { sharePct: 20 } });
    expect((await call('DELETE', `/contacts/${owner.id}`)).status).toBe(409);
  });
});

describe('given back unsold', () => {
  const back = (piece: any, body: object) =>
    call('POST', `/pieces/${piece.id}/give-back`, body, { 'if-match': `"v${piece.version}"` });
  const usual = { on: TODAY, to: 'Rosa Halvern', because: 'Her brother wants it after all.' };

  test('a piece that is sold for its owner goes home: it stands still, and is nobody’s stock', async () => {
    const owner = await contact('Rosa Halvern');
    let piece = (await call('POST', '/pieces', { ...intake, price: null })).body;
    piece = (await put(piece, 'consignment', { contact: owner.id, agreedOn: TODAY, terms: { sharePct: 20 } }))
      .body;
    expect((await back(piece, { ...usual, because: '' })).body.errors[0].pointer).toBe('/because');
    expect((await back(piece, { ...usual, on: TOMORROW })).body.errors[0].pointer).toBe('/on');
    expect((await back(piece, { ...usual, refund: eur('5.00') })).body.errors[0].pointer).toBe('/refund');
    const gone = (await back(piece, usual)).body;
    expect(gone).toMatchObject({ stage: 'given-back', givenBack: { ownerName: 'Rosa Halvern', on: TODAY } });
    expect((await sell(gone)).status).toBe(409);
    expect((await put(gone, 'intake', gone.intake)).status).toBe(409);
    // the ledger is for ever: it says that it went, not to whom
    const ledger = (await call('GET', `/pieces/${piece.id}/ledger?limit=50`)).body.items;
    expect(ledger[0].kind).toBe('given-back');
    expect(JSON.stringify(ledger)).not.toContain('Rosa');
    const again = await call('DELETE', `/pieces/${piece.id}/give-back`, undefined, {
      'if-match': `"v${gone.version}"`,
    });
    expect(again.body).toMatchObject({ givenBack: null });
    expect(again.body.stage).not.toBe('given-back');
  });

  test('what is listed or kept for somebody does not go back behind their backs', async () => {
    let piece = await readyToSell(server);
    piece = (
      await call('POST', `/pieces/${piece.id}/listing/publish`, {}, { 'if-match': `"v${piece.version}"` })
    ).body;
    expect((await back(piece, usual)).status).toBe(409);
    let kept = await readyToSell(server);
    kept = (await put(kept, 'reservation', { name: 'Oskar Wynde', until: TOMORROW })).body;
    expect((await back(kept, usual)).status).toBe(409);
  });

  test('a part of a lot: what comes back of its price is what the lot has brought back', async () => {
    const lot = (
      await call('POST', '/lots', {
        name: 'Household at Fernhithe',
        sourceKind: 'private',
        sourceName: 'Rosa Halvern',
        acquired: '2026-09-01',
        currency: 'EUR',
        method: 'equal',
        costs: [{ label: 'Price', amount: '90.00' }],
        note: '',
      })
    ).body;
    const filled = (
      await call('POST', `/lots/${lot.id}/pieces`, {
        pieces: ['One', 'Two', 'Three'].map((title) => ({
          title,
          construction: 'slipjoint',
          value: '1',
          keep: false,
        })),
      })
    ).body;
    const piece = (await call('GET', `/pieces/${filled.list[0].id}`)).body;
    expect((await back(piece, { ...usual, refund: eur('28.50') })).status).toBe(200);
    const after = (await call('GET', `/lots/${lot.id}`)).body;
    expect(after).toMatchObject({ recovered: '28.50', sold: 0, pieces: 3 });
    // the others cost what they cost, whatever the lot’s cost is spread by from now on
    expect(after.list.map((p: any) => p.cost)).toEqual(['30.00', '30.00', '30.00']);
  });
});
