/** What comes with and after sales: letterhead, contacts, payments, a return, pieces kept for somebody and sold for somebody. */
import type { Contact } from '@jutbank/contract/contacts';
import type { PieceSheet } from '@jutbank/contract/pieces';
import type { SaleRecord, SalesPage } from '@jutbank/contract/sale';
import type { VersionedPapers } from '@jutbank/contract/shop';
import type { Client } from './client.ts';

const day = (today: Date, daysAgo: number): string =>
  new Date(today.getTime() - daysAgo * 86_400_000).toISOString().slice(0, 10);

export async function setLetterhead(client: Client): Promise<void> {
  const { settings, version } = await client.call<VersionedPapers>('GET', '/paper-settings');
  await client.call(
    'PUT',
    '/paper-settings',
    {
      ...settings,
      address: '1 Chandlers’ Steps\nHollin Quay',
      phone: '0100 555 21',
      email: 'desk@hollinquay.example',
      taxNumber: 'HQ 204 118 6',
      registration: 'Register of Hollin Quay, no. 88',
      paymentTerms: 'By transfer or at the counter; the piece leaves the shop when it is paid.',
      returnTerms: 'Within fourteen days, as it was sent, with its certificate.',
      listing: {
        order: [],
        reason: 'Sold to make room for what comes in.',
        postageHome: '€7.00, tracked and insured',
        postageAbroad: 'on request, where blades may be posted',
        terms: 'Payment within fourteen days; returns within fourteen days as it was sent.',
        offers: 'open',
        runsForDays: 120,
        second: {
          language: 'de',
          reason: 'Verkauft, um Platz zu schaffen.',
          postageHome: '',
          postageAbroad: 'auf Anfrage, wo Klingen versandt werden dürfen',
          terms: 'Zahlung innerhalb von vierzehn Tagen; Rückgabe innerhalb von vierzehn Tagen wie versandt.',
        },
      },
      cautions: {
        minimumAge: 18,
        longBlade: 120,
        own: [
          {
            text: 'Posted only to the address on the buyer’s paper of identity, against a signature.',
            second: 'Versand nur an die Adresse im Ausweis des Käufers, gegen Unterschrift.',
            construction: null,
            place: 'online',
          },
        ],
      },
      wording: {
        untaxed: 'No tax is charged on this sale.',
        onSale: '',
        onMargin: 'Sold under the scheme for second-hand goods; the tax on the margin is not shown.',
      },
    },
    version,
  );
}

const PEOPLE = [
  {
    name: 'Philippa Dunmere',
    address: '4 Slip Lane\nLunde Fold',
    email: 'p.dunmere@lundefold.example',
    note: 'Service pieces; pays on the day.',
    consentTo: 'new service pieces, by e-mail',
  },
  {
    name: 'Rosa Halvern',
    address: '12 Ferry Row\nSkerry Bay',
    phone: '0100 555 87',
    note: 'Her father’s drawer.',
  },
  { name: 'E. Marrable', address: '2 Netmakers’ Court\nPell Harbour', email: 'marrable@pellharbour.example' },
  {
    name: 'the reading room at Skerry Bay',
    address: 'Old Customs House\nSkerry Bay',
    taxNumber: 'SB 71 002',
  },
] as const;

const PLACES = ['Drawer 1', 'Drawer 2', 'Drawer 3', 'Drawer 4', 'Long drawer', 'Safe', 'Window'];

/** Where things lie: in the drawers by the order in which they came, some out of the house. */
export async function fillPlaces(client: Client): Promise<void> {
  const { items } = await client.call<{ items: { id: string; construction: string }[] }>(
    'GET',
    '/inventory?stage=here&limit=200&sort=oldest',
  );
  const move = (pieces: readonly { id: string }[], place: string) =>
    pieces.length > 0 && client.call('POST', '/inventory/place', { pieces: pieces.map((p) => p.id), place });
  for (const [i, place] of PLACES.entries())
    await move(
      items.filter((_, k) => k % (PLACES.length + 1) === i),
      place,
    );
  await move(items.slice(7, 9), 'At the grinder’s');
  await move(items.slice(15, 16), 'On approval with a customer');
  await client.call('PUT', '/inventory/views', {
    items: [
      { name: 'In the safe', asks: 'place=Safe&stage=here&sort=dearest' },
      { name: 'Dear ones to sell', asks: 'stage=listing&sort=dearest' },
      { name: 'Wants a look', asks: 'warned=1' },
    ],
  });
}

export async function fillAfterSale(client: Client, today: Date): Promise<void> {
  const contacts = new Map<string, Contact>();
  for (const { ...person } of PEOPLE)
    contacts.set(
      person.name,
      await client.call<Contact>('POST', '/contacts', {
        ...person,
        ...('consentTo' in person ? { consentOn: day(today, 120) } : {}),
      }),
    );
  const { items: sales } = await client.call<SalesPage>('GET', '/sales?limit=200');
  await payAndSend(client, sales, today);
  await takeBack(client, sales, today);
  const { items: pieces } = await client.call<{ items: PieceSheet[] }>('GET', '/pieces?limit=200');
  const owner = contacts.get('Rosa Halvern');
  const waiting = pieces
    .filter((p) => p.stage === 'listed' || p.stage === 'listing')
    .filter((p) => Number(p.ask?.amount ?? 0) >= 90 && p.readings.which.tier !== 'rejected');
  for (const [i, { id }] of waiting.slice(0, 3).entries()) {
    const sheet = await client.call<PieceSheet>('GET', `/pieces/${id}`);
    if (i === 0)
      await client.call(
        'PUT',
        `/pieces/${id}/reservation`,
        {
          name: 'Philippa Dunmere',
          contact: contacts.get('Philippa Dunmere')?.id ?? null,
          until: day(today, -9),
          deposit: { amount: '40.00', currency: 'EUR' },
          way: 'cash',
          paidOn: day(today, 2),
          note: 'Comes on Saturday.',
        },
        sheet.version,
      );
    else if (owner)
      await consign(client, sheet, owner, today, i === 1 ? contacts.get('E. Marrable') : undefined);
  }
}

async function consign(
  client: Client,
  sheet: PieceSheet,
  owner: Contact,
  today: Date,
  /** undefined while it waits to be sold */
  buyer: Contact | undefined,
): Promise<void> {
  const unpaid = await client.call<PieceSheet>(
    'PUT',
    `/pieces/${sheet.id}/intake`,
    {
      ...sheet.intake,
      price: null,
      sourceKind: 'private',
      sourceName: owner.name,
      sourcePlace: 'Skerry Bay',
    },
    sheet.version,
  );
  await client.call(
    'PUT',
    `/pieces/${sheet.id}/consignment`,
    {
      contact: owner.id,
      agreedOn: day(today, 60),
      until: day(today, -120),
      terms: { sharePct: 25, fee: '8.00', least: '20.00', channelFeesBy: 'owner' },
      note: '',
    },
    unpaid.version,
  );
  if (!buyer) return;
  await client.call('POST', `/pieces/${sheet.id}/sale`, {
    price: sheet.pricing.ask,
    buyerName: 'E. Marrable',
    contact: buyer.id,
    buyerAddress: '2 Netmakers’ Court\nPell Harbour',
    ageChecked: true,
    paidBy: 'transfer',
  });
}

/** All that is older than a fortnight is paid and gone; of the rest some wait. */
async function payAndSend(client: Client, sales: readonly SaleRecord[], today: Date): Promise<void> {
  for (const [i, sale] of sales.entries()) {
    if (i < 2) continue;
    const on = sale.soldAt.slice(0, 10);
    const paid = day(new Date(on), -3) < day(today, 0) ? day(new Date(on), -3) : day(today, 0);
    const whole = Number(sale.total.amount);
    const parts = i % 5 === 2 ? [whole * 0.4, whole * 0.6] : [whole];
    for (const part of parts)
      await client.call('POST', `/sales/${sale.id}/payments`, {
        amount: part.toFixed(2),
        paidOn: paid,
        way: i % 3 === 0 ? 'cash' : 'transfer',
      });
    if (i !== 3)
      await client.call('PUT', `/sales/${sale.id}/sent`, {
        on: paid,
        carrier: i % 4 === 0 ? 'handed over' : 'Coast carrier',
        tracking: i % 4 === 0 ? '' : `CC ${4410 + i}`,
      });
  }
}

/** One that came back, worse than it went; one that a part of the price was given back for. */
async function takeBack(client: Client, sales: readonly SaleRecord[], today: Date): Promise<void> {
  const earlier = sales.filter((s) => s.soldAt.slice(0, 10) <= day(today, 10));
  const [back, scratched] = [earlier[0], earlier[3]];
  if (back) {
    await client.call('POST', `/sales/${back.id}/credits`, {
      pieceBack: true,
      on: day(today, 1),
      reason: 'The buyer had looked for another year.',
      cameBack: 'the piece, its certificate, no packing',
      refund: back.refundable.amount,
    });
    await client.call('POST', `/sales/${back.id}/payments`, {
      amount: `-${back.refundable.amount}`,
      paidOn: day(today, 0),
      way: 'transfer',
    });
    const sheet = await client.call<PieceSheet>('GET', `/pieces/${back.pieceId}`);
    await client.call(
      'PUT',
      `/pieces/${back.pieceId}/condition`,
      {
        ...sheet.condition,
        findings: [
          ...sheet.condition.findings,
          { part: 'scales', defect: 'dent', severity: 'trace', note: 'not there when it left' },
        ],
      },
      sheet.version,
    );
  }
  if (scratched)
    await client.call('POST', `/sales/${scratched.id}/credits`, {
      pieceBack: false,
      on: day(today, 0),
      reason: 'A scratch on the shield that the description had not told.',
      refund: '10.00',
    });
}
