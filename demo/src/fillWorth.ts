/** Three lots – one half recovered –, notes from a fair, offers that were judged. */
import type { Page } from '@jutbank/contract/http';
import type { LotSheet } from '@jutbank/contract/intake';
import type { PieceSheet, PieceSlip } from '@jutbank/contract/pieces';
import { USUAL_SETTINGS, type PricingSettings } from '@jutbank/contract/shop';
import type { JobAnswer } from '@jutbank/contract/jobs';
import type { Client } from './client.ts';
import { appraiseForTheBooks } from './fillAppraisals.ts';

interface LotStory {
  readonly name: string;
  readonly source: 'estate' | 'private' | 'auction';
  readonly from: string;
  readonly acquired: string;
  readonly note: string;
  readonly costs: readonly (readonly [label: string, amount: string])[];
  readonly pieces: readonly {
    readonly title: string;
    readonly construction: string;
    readonly value: string;
    readonly keep?: boolean;
    /** sold over the counter: as which pattern, for how much */
    readonly sold?: readonly [pattern: string, price: string];
  }[];
}

const LOTS: readonly LotStory[] = [
  {
    name: 'Workbox of a rigger at Skerry Bay',
    source: 'estate',
    from: 'Household at Skerry Bay',
    acquired: '2026-08-14',
    note: 'A chest with its trays; the family kept the marlinspikes. Everything was photographed before the grease came off.',
    costs: [
      ['Price of the lot', '360.00'],
      ['Travel', '24.50'],
      ['Oil, paper, trays', '13.20'],
    ],
    pieces: [
      {
        title: 'Rigging knife with a shackle key',
        construction: 'fixed',
        value: '95.00',
        sold: ['rigger-two', '128.00'],
      },
      {
        title: 'Harbour jack with a ring, worn',
        construction: 'slipjoint',
        value: '88.00',
        sold: ['harbour-jack', '96.00'],
      },
      { title: 'Harbour jack, fibre scales', construction: 'slipjoint', value: '120.00' },
      { title: 'Orchard pruner, boxed', construction: 'slipjoint', value: '64.00', keep: true },
      { title: 'Deck knife without its sheath', construction: 'fixed', value: '70.00' },
      { title: 'Ferry pen knife, name on the bolster', construction: 'slipjoint', value: '42.00' },
    ],
  },
  {
    name: 'Ostrand collection, first part',
    source: 'private',
    from: 'Private collection, Lunde Fold',
    acquired: '2026-11-02',
    note: 'Eight of about forty. The rest follows when the owner has found the papers.',
    costs: [
      ['Agreed price', '940.00'],
      ['Carriage', '38.00'],
      ['Allowance for the missing papers', '-60.00'],
    ],
    pieces: [
      { title: 'Yearly knife 1991, numbered', construction: 'fixed', value: '240.00' },
      { title: 'Yearly knife 1996, numbered', construction: 'fixed', value: '210.00' },
      { title: 'Yearly knife 2004, box split', construction: 'fixed', value: '150.00' },
      { title: 'Petrel, first run', construction: 'locking-folder', value: '260.00' },
      { title: 'Petrel, dock shop exclusive', construction: 'locking-folder', value: '190.00' },
      { title: 'Three-hand whittler', construction: 'slipjoint', value: '85.00' },
      { title: 'Drover’s stock knife, long pull', construction: 'slipjoint', value: '110.00' },
      { title: 'Rigging knife, later fittings', construction: 'fixed', value: '75.00' },
    ],
  },
  {
    name: 'Box lot, Tollgate Rooms',
    source: 'auction',
    from: 'Tollgate Rooms',
    acquired: '2026-10-21',
    note: 'Bought for the bayonet; the others came along.',
    costs: [
      ['Hammer price', '180.00'],
      ['Buyer’s premium', '39.60'],
    ],
    pieces: [
      { title: 'Pattern 3 bayonet, scabbard differs', construction: 'bayonet', value: '165.00' },
      { title: 'Two frogs, one torn', construction: 'bayonet', value: '22.00' },
      { title: 'Multi-tool, early pliers', construction: 'multi-tool', value: '48.00' },
      { title: 'Reproduction deck knife', construction: 'fixed', value: '25.00' },
    ],
  },
];

/** How this shop reckons: three channels, tax on the margin, a third of what is left wanted. */
export const reckoning: PricingSettings = {
  ...USUAL_SETTINGS,
  channels: [
    ...USUAL_SETTINGS.channels,
    {
      id: 'tollgate',
      name: 'Consigned to Tollgate Rooms',
      channel: { commissionPct: 15, commissionMin: '12.00', taxOnFeesPct: 21, insurancePct: 1 },
    },
  ],
  buying: { otherCosts: '4.00' },
  target: { marginPct: 33 },
  tax: { on: 'margin', pct: 21 },
  dailyRates: true,
};

/** The stock as it stands once everything is in. */
export async function valueStock(client: Client): Promise<void> {
  const { job } = await client.call<{ job: string }>('POST', '/stock/valuations', {});
  for (;;) {
    const { state } = await client.call<JobAnswer>('GET', `/jobs/${job}`);
    if (state === 'done') return;
    if (state === 'failed' || state === 'cancelled') throw new Error(`the stock was not valued: ${state}`);
    await new Promise((resolve) => setTimeout(resolve, 200));
  }
}

export async function fillWorth(client: Client, patterns: ReadonlySet<string>): Promise<void> {
  for (const story of LOTS) {
    const lot = await client.call<LotSheet>('POST', '/lots', {
      name: story.name,
      sourceKind: story.source,
      sourceName: story.from,
      acquired: story.acquired,
      currency: 'EUR',
      method: 'relative-value',
      costs: story.costs.map(([label, amount]) => ({ label, amount })),
      note: story.note,
    });
    const filled = await client.call<LotSheet>('POST', `/lots/${lot.id}/pieces`, {
      pieces: story.pieces.map(({ title, construction, value, keep = false }) => ({
        title,
        construction,
        value,
        keep,
      })),
    });
    for (const [i, piece] of story.pieces.entries()) {
      const id = filled.list[i]?.id;
      const [pattern, price] = piece.sold ?? [];
      if (id === undefined || pattern === undefined || price === undefined) continue;
      const sheet = await client.call<PieceSheet>('GET', `/pieces/${id}`);
      await client.call(
        'PUT',
        `/pieces/${id}/attribution`,
        {
          attribution: {
            pattern: patterns.has(pattern) ? pattern : null,
            variant: null,
            tier: 'type-consistent',
            reason: 'Known by its shape; which form was not settled.',
          },
        },
        sheet.version,
      );
      await appraiseForTheBooks(client, id, 60);
      await client.call('POST', `/pieces/${id}/sale`, {
        price: { amount: price, currency: 'EUR' },
        buyerName: 'A. Collector, Norham Vale',
        buyerAddress: '',
        ageChecked: true,
      });
    }
  }
  await foundTogether(client);
  await offers(client);
}

/** The bayonet of the box lot and the frogs that lay with it. */
async function foundTogether(client: Client): Promise<void> {
  const one = async (q: string) =>
    (await client.call<Page<PieceSlip>>('GET', `/pieces?q=${encodeURIComponent(q)}&limit=1`)).items[0];
  const [bayonet, frogs] = [await one('Pattern 3 bayonet scabbard'), await one('Two frogs torn')];
  if (!bayonet || !frogs) return;
  const sheet = await client.call<PieceSheet>('GET', `/pieces/${bayonet.id}`);
  await client.call('PUT', `/pieces/${bayonet.id}/companions`, { companions: [frogs.id] }, sheet.version);
}

/** On the first two listed pieces: one counter, one refusal. */
async function offers(client: Client): Promise<void> {
  const { items } = await client.call<Page<PieceSlip>>('GET', '/pieces?stage=listed&limit=10');
  const [first, second] = items.filter((p) => p.ask !== null && p.readings.worth !== null);
  const share = (slip: PieceSlip, of: number) => (Number(slip.ask?.amount ?? 0) * of).toFixed(0);
  if (first)
    await client.call('POST', `/pieces/${first.id}/offers`, {
      amount: { amount: share(first, 0.82), currency: 'EUR' },
      bidder: 'M. Tallow',
      decision: 'countered',
      counter: { amount: share(first, 0.93), currency: 'EUR' },
      note: 'Will think about it until the end of the month.',
    });
  if (second)
    await client.call('POST', `/pieces/${second.id}/offers`, {
      amount: { amount: share(second, 0.45), currency: 'EUR' },
      bidder: 'a caller',
      decision: 'refused',
    });
}
