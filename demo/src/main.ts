/** Fills an empty installation with the demo shop, through the public routes. */
import { sharedObservations } from './world/observe.ts';
import { fillPiece } from './fill.ts';
import { appraise } from './fillAppraisals.ts';
import { fillCondition } from './fillCondition.ts';
import { fillWorth, reckoning, valueStock } from './fillWorth.ts';
import { Client } from './client.ts';
import { demoComparables, demoRates } from './world/market.ts';
import { stories } from './world/pieces.ts';
import { chance } from '@jutbank/core/chance';
import { demoPack } from './world/reference.ts';

const SEED = 20260412;
const COMPARABLES = 1500;
/** Of them those that came in after the shop had appraised. */
const AUTUMN = 120;

export const DEMO_PASSWORD = 'harbour light 12';
const people = [
  { name: 'Tom Okell', email: 'tom@hollinquay.example', role: 'clerk' },
  { name: 'Sanna Merrow', email: 'sanna@hollinquay.example', role: 'appraiser' },
  { name: 'Jens Abbot', email: 'jens@hollinquay.example', role: 'reader' },
];

const questions: readonly [stockNumber: string, asked: string, answer?: string][] = [
  ['HQ-0001', 'A small “T” struck on the rear tang, upside down: whose mark?'],
  ['HQ-0003', 'Two initials scratched under the bolster, A. V. or A. Y.'],
  [
    'HQ-0007',
    'The works list has a line “R.G.” beside this pattern. What does it stand for?',
    'Re-ground: returned pieces that were sold again, explained in the card of 1933.',
  ],
];

async function askAndWatch(client: Client): Promise<void> {
  const { items } = await client.call<{ items: { id: string; stockNumber: string }[] }>(
    'GET',
    '/pieces?limit=100',
  );
  for (const [stockNumber, asked, answer] of questions) {
    const piece = items.find((p) => p.stockNumber === stockNumber);
    if (!piece) continue;
    const question = await client.call<{ id: string }>('POST', `/pieces/${piece.id}/questions`, { asked });
    if (answer !== undefined) await client.call('PUT', `/questions/${question.id}`, { answer });
  }
  await client.call('POST', '/watch-list', {
    code: 'petrel-serial',
    text: 'PT-0088',
    note: 'sold here in 2023 and reported stolen since',
  });
}

export async function fillDemo(address: string): Promise<void> {
  const client = new Client(address);
  const luck = chance(SEED);
  const today = new Date();
  await client.call('POST', '/setup', {
    shopName: 'Hollin Quay Edge Room',
    baseCurrency: 'EUR',
    owner: { name: 'Ines Vadder', email: 'ines@hollinquay.example', password: DEMO_PASSWORD },
  });
  for (const person of people) await client.call('POST', '/people', { ...person, password: DEMO_PASSWORD });
  await client.call('POST', '/reference-packs', demoPack);
  await client.call('POST', '/exchange-rates', { base: 'EUR', rates: demoRates(luck, today) });
  await client.call('POST', '/exchange-rates/fetch', {});
  await client.call('PUT', '/worth-settings', reckoning, 0);
  const [header = '', ...prices] = demoComparables(luck, today, COMPARABLES).split('\n');
  const listed = (rows: readonly string[], name: string) => {
    const csv = new FormData();
    csv.set('file', new Blob([[header, ...rows].join('\n')], { type: 'text/csv' }), name);
    return client.call('POST', '/comparables/import', csv);
  };
  await listed(prices.slice(0, -AUTUMN), 'comparables.csv');
  for (const story of stories) await fillPiece(client, story, sharedObservations(story, luck), luck);
  await askAndWatch(client);
  const second = new Client(address);
  await second.call('POST', '/session', { email: people[1]?.email, password: DEMO_PASSWORD });
  await fillCondition(client, second);
  await fillWorth(client, new Set(demoPack.patterns?.map((p) => p.id)));
  await appraise(client, today);
  await listed(prices.slice(-AUTUMN), 'autumn-results.csv');
  await valueStock(client);
}

const address = process.argv[2];
if (address !== undefined && /^https?:/.test(address)) await fillDemo(address);
