/** What was decided at the tables of the last fair: one to come back to, one left, one whose number was watched for. */
import { randomUUID } from 'node:crypto';
import type { FairAnswer, FairNote } from '@jutbank/contract/fair';
import type { Client } from './client.ts';

const DAY = 86_400_000;
const FAIR_DAYS_AGO = 6;
type Told = Pick<FairNote, 'title' | 'construction' | 'decision' | 'note'> & {
  readonly pattern: string;
  readonly asked: string;
  readonly minute: number;
  readonly observations?: FairNote['observations'];
};
const TABLES: readonly Told[] = [
  {
    title: 'Harbour jack',
    pattern: 'harbour-jack',
    construction: 'slipjoint',
    decision: 'left',
    asked: '240.00',
    note: 'Says it came straight from a ship’s chandler.',
    minute: 12,
  },
  {
    title: 'Petrel, numbered',
    pattern: 'petrel',
    construction: 'locking-folder',
    decision: 'thinking',
    asked: '165.00',
    note: 'Would take less on Sunday.',
    minute: 48,
    observations: [{ code: 'petrel-serial', text: 'PT-0088' }],
  },
  {
    title: 'Drover’s stock knife',
    pattern: 'drovers-stock',
    construction: 'slipjoint',
    decision: 'thinking',
    asked: '58.00',
    note: '',
    minute: 95,
  },
];

export async function fillFair(client: Client, today: Date): Promise<void> {
  const morning = new Date(today.getTime() - FAIR_DAYS_AGO * DAY);
  morning.setUTCHours(9, 0, 0, 0);
  for (const { pattern, asked, minute, observations = [], ...note } of TABLES) {
    const question = { pattern, alterations: [], asked: { amount: asked, currency: 'EUR' } };
    const { most } = await client.call<FairAnswer>('POST', '/fair/judge', question);
    await client.call('POST', '/fair/notes', {
      ...note,
      key: randomUUID(),
      notedAt: new Date(morning.getTime() + minute * 60_000).toISOString(),
      question,
      observations,
      ceiling: most.bid === null ? null : { amount: most.bid, currency: most.currency },
    } satisfies FairNote);
  }
}
