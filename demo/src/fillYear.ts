/**
 * The year behind the shop: pieces bought, appraised before they were put up, offered for, and most of them sold, each on
 * its day. What was paid for them in the end comes from the demo's market and not from what the shop had said.
 */
import type { Random } from '@jutbank/core/random';
import type { PieceSheet } from '@jutbank/contract/pieces';
import type { Variant } from '@jutbank/core/reference';
import type { Client } from './client.ts';
import type { Clock } from './clock.ts';
import { addPictures } from './fill.ts';
import { bookAppraisal } from './fillAppraisals.ts';
import { inspectionOf } from './world/condition.ts';
import { DemoMarket, TASTES } from './world/market.ts';
import { sharedObservations } from './world/observe.ts';
import type { Story } from './world/pieces.ts';
import { demoPack } from './world/reference.ts';

const PIECES = 30;
const YEAR = 365;
/** Whoever appraises does it on one day of the month for all that came in. */
const EVERY = 60;
const LONGEST_UP = 150;
/** ln of what a shop gets above a fair */
const SHOP = 0.12;

export interface Appraiser {
  readonly client: Client;
  readonly name: string;
}

interface Happening {
  readonly daysAgo: number;
  readonly happens: () => Promise<void>;
}

const HOLDERS = [
  'Greta Sundholm',
  'Anselm Corrie',
  'Oskar Wynde',
  'Maren Tolleth',
  'Ruben Askel',
  'Ida Brask',
];
const BUYERS = [
  'P. Lindholm, Mereside',
  'the reading room at Skerry Bay',
  'H. Tern, Lunde Fold',
  'A. Collector, Norham Vale',
  'E. Marrable, Pell Harbour',
];
const SEEN = [
  [],
  [{ part: 'blade', defect: 'scratch', severity: 'trace' }],
  [
    { part: 'blade', defect: 'sharpened', severity: 'light' },
    { part: 'blade', defect: 'patina', severity: 'light' },
  ],
  [
    { part: 'blade', defect: 'sharpened', severity: 'moderate' },
    { part: 'blade', defect: 'patina', severity: 'moderate' },
  ],
] as const satisfies readonly Story['findings'][];

/** @param before called with the days ago of every happening, before it happens: prices come in as the year goes on */
export async function fillYear(
  clock: Clock,
  market: DemoMarket,
  luck: Random,
  appraisers: readonly Appraiser[],
  before: (daysAgo: number) => Promise<void>,
): Promise<void> {
  const sound = market.traded.filter((v) => !['counterfeit', 'reproduction', 'prototype'].includes(v.kind));
  const year: Happening[] = Array.from({ length: PIECES }, (_, i) => {
    const bought = YEAR - 2 - Math.floor((i * (YEAR - 60)) / PIECES);
    const appraiser = appraisers[luck.yes(0.7) ? 0 : 1] ?? appraisers[0];
    if (!appraiser) throw new Error('nobody appraises');
    return lifeOf(luck.pick(sound), bought, { clock, market, luck, appraiser });
  }).flat();
  for (const { daysAgo, happens } of year.sort((a, b) => b.daysAgo - a.daysAgo)) {
    await clock.set(daysAgo);
    await before(daysAgo);
    await happens();
  }
  await clock.set(0);
}

interface World {
  readonly clock: Clock;
  readonly market: DemoMarket;
  readonly luck: Random;
  readonly appraiser: Appraiser;
}

function lifeOf(variant: Variant, bought: number, { clock, market, luck, appraiser }: World): Happening[] {
  const { client, name } = appraiser;
  const pattern = demoPack.patterns?.find((p) => p.id === variant.pattern);
  if (!pattern) throw new Error(`the demo has no pattern ${variant.pattern}`);
  const story: Story = {
    title: `${pattern.name}, ${variant.name.charAt(0).toLowerCase()}${variant.name.slice(1)}`,
    variant: variant.id,
    until: 'sold',
    source: luck.pick(['private', 'estate', 'fair', 'auction'] as const),
    from: luck.pick(HOLDERS),
    place: luck.pick(['Hollin Quay', 'Lunde Fold', 'Pell Harbour', 'Norham Vale']),
    acquired: clock.day(bought),
    price: '',
    currency: 'EUR',
    said: '',
    findings: [...luck.pick(SEEN)],
  };
  // what was looked at in a hurry leaves several forms open until the papers come
  const hurried = luck.yes(0.5);
  const observations = sharedObservations(story, luck).filter(
    (o) => !hurried || !('value' in o) || luck.yes(0.45),
  );
  const taste = () => luck.normal() * TASTES;
  const shareAsked = luck.between(1, 1.25);
  let sheet: PieceSheet;
  let worth = 0;
  const put = async (path: string, body: unknown) => {
    const { version } = await client.call<PieceSheet>('GET', `/pieces/${sheet.id}`);
    sheet = await client.call<PieceSheet>('PUT', `/pieces/${sheet.id}/${path}`, body, version);
  };
  const decide = (tier: 'probable' | 'confirmed', reason: string) =>
    put('attribution', { attribution: { variant: variant.id, pattern: pattern.id, tier, reason } });
  const decideProbable = () => decide('probable', 'By what was seen of it; the papers were not here yet.');
  const worthOf = (daysAgo: number) =>
    Math.exp(market.middle(variant, sheet.grade.conditionIndex, daysAgo / YEAR) + SHOP);

  const comesIn = async () => {
    const guess = Math.exp(market.middle(variant, 78, bought / YEAR)) * luck.between(0.42, 0.7);
    sheet = await client.call<PieceSheet>('POST', '/pieces', {
      title: story.title,
      construction: pattern.construction,
      sourceKind: story.source,
      sourceName: story.from,
      sourcePlace: story.place,
      acquired: story.acquired,
      price: { amount: guess.toFixed(0), currency: 'EUR' },
      sellerStatement: '',
      cameWith: '',
      asFound: 'untouched',
    });
    await addPictures(client, sheet.id, story, luck, [false]);
    await put('observations', { observations });
    if (!hurried) await decideProbable();
    await put('condition', {
      findings: story.findings,
      completeness: { box: 'none' },
      inspected: true,
      inspection: inspectionOf(pattern.construction, story.findings ?? [], observations),
    });
  };
  const appraisedOn = Math.floor((bought - 3) / EVERY) * EVERY;
  const isAppraised = async () => {
    worth = await bookAppraisal(client, sheet.id, clock.day(appraisedOn), name, luck.between(0.94, 1.06));
  };
  const goesUp = async () => {
    if (hurried) await decideProbable();
    const ask = 5 * Math.max(1, Math.round((worth * shareAsked) / 5));
    await put('pricing', { ask: { amount: ask.toFixed(2), currency: 'EUR' }, floor: null, note: '' });
    await client.call('POST', `/pieces/${sheet.id}/listing/publish`, {}, sheet.version);
  };
  const offered = Math.exp(taste() - 0.25);
  const isOfferedFor = (daysAgo: number) => async () => {
    await client.call('POST', `/pieces/${sheet.id}/offers`, {
      amount: { amount: Math.max(5, offered * worthOf(daysAgo)).toFixed(0), currency: 'EUR' },
      bidder: luck.pick(HOLDERS),
      decision: 'refused',
    });
  };
  const paidFor = Math.exp(taste());
  const isSold = (daysAgo: number) => async () => {
    if (hurried || luck.yes(0.4)) await decide('confirmed', 'The works’ card came, and names its form.');
    const asked = Number(sheet.pricing.ask?.amount ?? 0);
    const price = Math.max(5, Math.min(asked, paidFor * worthOf(daysAgo)));
    await client.call('POST', `/pieces/${sheet.id}/sale`, {
      price: { amount: price.toFixed(0), currency: 'EUR' },
      buyerName: luck.pick(BUYERS),
      buyerAddress: '4 Ropewalk, Norham Vale',
      ageChecked: true,
    });
  };
  const up = Math.max(1, appraisedOn - luck.whole(1, 4));
  // what is asked high waits longer
  const waits = Math.ceil(luck.between(8, 40) * (1 + 6 * (shareAsked - 1)));
  const sold = up - waits;
  const refused = up - Math.ceil(waits / 2);
  return [
    { daysAgo: bought, happens: comesIn },
    { daysAgo: appraisedOn, happens: isAppraised },
    { daysAgo: up, happens: goesUp },
    ...(luck.yes(0.4) && refused > 0 ? [{ daysAgo: refused, happens: isOfferedFor(refused) }] : []),
    ...(sold > 0 && waits < LONGEST_UP ? [{ daysAgo: sold, happens: isSold(sold) }] : []),
  ];
}
