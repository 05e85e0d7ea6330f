/** Fills an empty installation with the demo shop, through the public routes. */
import { sharedObservations } from './world/observe.ts';
import { fillPiece } from './fill.ts';
import { appraise } from './fillAppraisals.ts';
import { fillAfterSale, fillPlaces, setLetterhead } from './fillAfterSale.ts';
import { fillCondition } from './fillCondition.ts';
import { fillDrills } from './fillDrills.ts';
import { fillFair } from './fillFair.ts';
import { fillSeries } from './fillSeries.ts';
import { fillTrail } from './fillTrail.ts';
import { fillWorth, reckoning, valueStock } from './fillWorth.ts';
import { fillYear } from './fillYear.ts';
import { Client } from './client.ts';
import { Clock } from './clock.ts';
import { DemoMarket, demoComparables, demoRates } from './world/market.ts';
import { stories } from './world/pieces.ts';
import { random } from '@jutbank/core/random';
import { demoPack } from './world/reference.ts';

const SEED = 20260412;
const COMPARABLES = 1500;
/** Of them those that came in after the shop had appraised. */
const AUTUMN = 120;
const YEAR = 366;
/** Days after which the next list of prices comes in. */
const QUARTER = 90;

export const DEMO_PASSWORD = 'harbour light 12';
const people = [
  { name: 'Tom Okell', email: 'tom@hollinquay.example', role: 'clerk' },
  { name: 'Sanna Merrow', email: 'sanna@hollinquay.example', role: 'appraiser' },
  { name: 'Jens Abbot', email: 'jens@hollinquay.example', role: 'reader' },
];

const questions: readonly [title: string, asked: string, answer?: string][] = [
  ['Harbour jack, service issue?', 'A small “T” struck on the rear tang, upside down: whose mark?'],
  ['Harbour jack, horn, grooved, ring', 'Two initials scratched under the bolster, A. V. or A. Y.'],
  [
    'Orchard pruner, ebony',
    'The works list has a line “R.G.” beside this pattern. What does it stand for?',
    'Re-ground: returned pieces that were sold again, explained in the card of 1933.',
  ],
];

async function askAndWatch(client: Client): Promise<void> {
  const { items } = await client.call<{ items: { id: string; title: string }[] }>('GET', '/pieces?limit=200');
  for (const [title, asked, answer] of questions) {
    const piece = items.find((p) => p.title === title);
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

/** Prices sorted by the day they fell on, from the top of the list as far as they are known by then. */
class PriceLists {
  readonly #rows: string[];
  constructor(
    readonly client: Client,
    readonly header: string,
    rows: readonly string[],
  ) {
    this.#rows = [...rows].sort();
  }

  async bringUpTo(day: string): Promise<void> {
    // a month told without its day is known when it is over
    const later = this.#rows.findIndex((row) => row.slice(0, 7) >= day.slice(0, 7));
    const rows = this.#rows.splice(0, later < 0 ? this.#rows.length : later);
    if (rows.length > 0) await this.bring(rows, `prices-to-${day}.csv`);
  }

  bring(rows: readonly string[], name: string): Promise<unknown> {
    const csv = new FormData();
    csv.set('file', new Blob([[this.header, ...rows].join('\n')], { type: 'text/csv' }), name);
    return this.client.call('POST', '/comparables/import', csv);
  }
}

/** @param clockFile how the clock of that server is set; without it the shop has no past of its own */
export async function fillDemo(address: string, clockFile: string | undefined): Promise<void> {
  const client = new Client(address);
  const luck = random(SEED);
  const today = new Date();
  const clock = clockFile === undefined ? undefined : new Clock(clockFile, today);
  await clock?.set(YEAR);
  const owner = { name: 'Ines Vadder', email: 'ines@hollinquay.example', password: DEMO_PASSWORD };
  await client.call('POST', '/setup', { shopName: 'Hollin Quay Edge Room', baseCurrency: 'EUR', owner });
  for (const person of people) await client.call('POST', '/people', { ...person, password: DEMO_PASSWORD });
  await client.call('POST', '/reference-packs', demoPack);
  await client.call('POST', '/exchange-rates', { base: 'EUR', rates: demoRates(luck, today) });
  await client.call('PUT', '/pricing-settings', reckoning, 0);
  await setLetterhead(client);
  const market = new DemoMarket(luck);
  const [header = '', ...prices] = demoComparables(market, luck, today, COMPARABLES).split('\n');
  const lists = new PriceLists(client, header, prices.slice(0, -AUTUMN));
  const second = new Client(address);
  await second.signIn({ email: 'sanna@hollinquay.example', password: DEMO_PASSWORD });
  if (clock) {
    await client.signIn(owner);
    const appraisers = [
      { client, name: owner.name },
      { client: second, name: 'Sanna Merrow' },
    ];
    let quarter = Infinity;
    await fillYear(clock, market, random(SEED + 1), appraisers, async (daysAgo) => {
      if (quarter - daysAgo < QUARTER) return;
      quarter = daysAgo;
      await lists.bringUpTo(clock.day(daysAgo));
      await valueStock(client);
    });
  }
  await fillDrills(address, DEMO_PASSWORD, clock);
  await client.call('POST', '/exchange-rates/fetch', {});
  await lists.bringUpTo('9999');
  for (const story of stories) await fillPiece(client, story, sharedObservations(story, luck), luck);
  await askAndWatch(client);
  await fillCondition(client, second);
  await fillWorth(client, new Set(demoPack.patterns?.map((p) => p.id)));
  await appraise(client, today);
  await fillTrail(client);
  await fillAfterSale(client, today);
  await fillPlaces(client);
  await fillFair(client, today);
  await fillSeries(client, today);
  await lists.bring(prices.slice(-AUTUMN), 'autumn-results.csv');
  await valueStock(client);
}

const address = process.argv[2];
if (address !== undefined && /^https?:/.test(address)) await fillDemo(address, process.env.JUTBANK_CLOCK);
