/** What is followed: the shop's own series, a customer's want list, and what can still be bought new. */
import type { Contact } from '@jutbank/contract/contacts';
import type { SeriesBody, SeriesDetail, SlotWishBody } from '@jutbank/contract/series';
import type { Client } from './client.ts';

type Followed = Pick<SeriesBody, 'name' | 'rule'> &
  Partial<SeriesBody> & {
    readonly whose?: string;
    readonly wishes?: readonly Omit<SlotWishBody, 'atMost'>[];
  };
const VERY_GOOD = 75;

const FOLLOWED: readonly Followed[] = [
  {
    name: 'Every Petrel',
    rule: { kind: 'patterns', patterns: ['petrel'] },
    upgradeBelow: VERY_GOOD,
    note: 'For the long case by the door: one of each, none with a bent clip.',
    wishes: [{ key: 'pt-ember', wish: 'want', leastIndex: 85 }],
  },
  {
    name: 'Bayonets of the Coastal Service',
    rule: { kind: 'patterns', patterns: ['pattern-1-long', 'pattern-1-short', 'pattern-3'] },
    upgradeBelow: 55,
  },
  { name: 'Three-hand whittlers', rule: { kind: 'patterns', patterns: ['three-hand-whittler'] } },
  {
    name: 'The year knives',
    rule: { kind: 'years', patterns: ['yearly'] },
    wishes: [{ key: '1987', wish: 'have', leastIndex: null }],
  },
  {
    name: 'One Harbour jack of each handle',
    rule: { kind: 'values', patterns: ['harbour-jack'], feature: 'scale-material' },
  },
  {
    name: 'Harbour jacks for the sea service',
    rule: { kind: 'patterns', patterns: ['harbour-jack'], kinds: ['service', 'commercial-twin'] },
    whose: 'Philippa Dunmere',
    wishes: [{ key: 'hj-naval-1', wish: 'want', leastIndex: 60 }],
  },
];

const NEW_OR_NOT = [
  ['pt-3', 'in-production', 40, 'the maker’s list of this autumn'],
  ['pt-quay', 'in-shops', 4200, 'in the window at Lantern Row'],
  ['pt-quay', 'sold-out', 4100, 'Lantern Row, on the telephone'],
  ['pt-storm', 'sold-out', 3400, 'the maker’s letter to dealers'],
  ['pt-ember', 'in-shops', 2300, 'two left at the Norham blade fair'],
  ['pt-reissue', 'discontinued', 2600, 'the maker’s list no longer has it'],
] as const;

const DAY = 86_400_000;

export async function fillSeries(client: Client, today: Date): Promise<void> {
  const { items: contacts } = await client.call<{ items: Contact[] }>('GET', '/contacts?limit=200');
  for (const { whose, wishes = [], ...body } of FOLLOWED) {
    const contactId = contacts.find((contact) => contact.name === whose)?.id ?? null;
    let series = await client.call<SeriesDetail>('POST', '/series', { ...body, contactId });
    for (const wish of wishes) {
      const atMost = series.slots.find((slot) => slot.key === wish.key)?.price?.likely ?? null;
      series = await client.call<SeriesDetail>(
        'PUT',
        `/series/${series.id}/wishes`,
        { ...wish, atMost: wish.wish === 'want' ? atMost : null },
        series.version,
      );
    }
  }
  for (const [variant, state, daysAgo, source] of NEW_OR_NOT)
    await client.call('POST', `/reference/variants/${variant}/availability`, {
      state,
      on: new Date(today.getTime() - daysAgo * DAY).toISOString().slice(0, 10),
      source,
    });
}
