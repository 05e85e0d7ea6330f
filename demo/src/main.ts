/** Fills an empty installation with the demo shop, through the public routes. */
import { sharedObservations } from './world/observe.ts';
import { fillPiece } from './fill.ts';
import { Client } from './client.ts';
import { demoComparables, demoRates } from './world/market.ts';
import { stories } from './world/pieces.ts';
import { chance } from '@jutbank/core/chance';
import { demoPack } from './world/reference.ts';

const SEED = 20260412;
const COMPARABLES = 420;

export const DEMO_PASSWORD = 'harbour light 12';
const people = [
  { name: 'Tom Okell', email: 'tom@hollinquay.example', role: 'clerk' },
  { name: 'Sanna Merrow', email: 'sanna@hollinquay.example', role: 'appraiser' },
  { name: 'Jens Abbot', email: 'jens@hollinquay.example', role: 'reader' },
];

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
  const csv = new FormData();
  csv.set(
    'file',
    new Blob([demoComparables(luck, today, COMPARABLES)], { type: 'text/csv' }),
    'comparables.csv',
  );
  await client.call('POST', '/comparables/import', csv);
  for (const story of stories) await fillPiece(client, story, sharedObservations(story, luck), luck);
}

const address = process.argv[2];
if (address !== undefined && /^https?:/.test(address)) await fillDemo(address);
