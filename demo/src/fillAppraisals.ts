/** Appraisals of three pieces for three purposes; a list of autumn results came in after them. */
import type { AppraisalBody, AppraisalEvidence } from '@jutbank/contract/worth';
import type { Client } from './client.ts';

type Told = Pick<AppraisalBody, 'basis' | 'purpose' | 'intendedUser' | 'interest' | 'because'> &
  Partial<Pick<AppraisalBody, 'assumptions' | 'limiting'>> & {
    readonly stockNumber: string;
    readonly daysAgo: number;
    /** what was concluded, as a share of the figure */
    readonly share: number;
  };

const APPRAISALS: readonly Told[] = [
  {
    stockNumber: 'HQ-0001',
    daysAgo: 0,
    share: 1,
    basis: 'insurance-replacement',
    purpose: 'insurance',
    intendedUser: 'The owner of the loan collection and her insurer',
    interest: 'The shop owns the piece and lends it to the exhibition.',
    because:
      'The three ways agree within a tenth; the figure is that of finding an equal one from a dealer, which for this form takes a year.',
    assumptions: [
      {
        text: 'The bolsters are original: they were not taken off to look',
        extraordinary: true,
        effectPct: -35,
      },
      { text: 'It is kept dry and away from celluloid', extraordinary: false, effectPct: null },
    ],
    limiting: 'Without the cord it once had; nothing is said of a set.',
  },
  {
    stockNumber: 'HQ-0013',
    daysAgo: 45,
    share: 0.96,
    basis: 'market',
    purpose: 'division',
    intendedUser: 'Two heirs and their notary',
    interest: 'The appraiser bought the piece in before and has no share in what it brings.',
    because:
      'Just under the figure: the two last sales of this run were lower than the grid, both at arm’s length and seen.',
  },
  {
    stockNumber: 'HQ-0006',
    daysAgo: 200,
    share: 1.04,
    basis: 'market',
    purpose: 'own-records',
    intendedUser: 'The shop',
    interest: 'The shop owns the piece.',
    because: 'A little above the figure for the first stamp, which the grid does not price apart.',
  },
];

/** A piece of the shop's own, appraised for its books as of some time before it was sold. */
export async function appraiseForTheBooks(client: Client, id: string, daysAgo: number): Promise<void> {
  const asked = {
    basis: 'market',
    effectiveDate: new Date(Date.now() - daysAgo * 86_400_000).toISOString().slice(0, 10),
    currency: 'EUR',
  };
  const draft = await client.call<AppraisalEvidence>('POST', `/pieces/${id}/appraisals/draft`, asked);
  await client.call('POST', `/pieces/${id}/appraisals`, {
    ...asked,
    known: draft.known,
    purpose: 'own-records',
    intendedUser: 'The shop',
    interest: 'The shop owns the piece.',
    concluded: (5 * Math.max(1, Math.round(Number(draft.figure.amount) / 5))).toFixed(2),
    because: 'As the regression says, to the nearest five.',
    signature: 'Ines Vadder',
  });
}

export async function appraise(client: Client, today: Date): Promise<void> {
  const { items } = await client.call<{ items: { id: string; stockNumber: string }[] }>(
    'GET',
    '/pieces?limit=100',
  );
  for (const { stockNumber, daysAgo, share, ...told } of APPRAISALS) {
    const piece = items.find((p) => p.stockNumber === stockNumber);
    if (!piece) continue;
    const asked = {
      basis: told.basis,
      effectiveDate: new Date(today.getTime() - daysAgo * 86_400_000).toISOString().slice(0, 10),
      currency: 'EUR',
    };
    const draft = await client.call<AppraisalEvidence>('POST', `/pieces/${piece.id}/appraisals/draft`, asked);
    const rounded = 5 * Math.round((Number(draft.figure.amount) * share) / 5);
    const [first, second] = draft.rows;
    await client.call('POST', `/pieces/${piece.id}/appraisals`, {
      ...asked,
      ...told,
      known: draft.known,
      concluded: rounded.toFixed(2),
      signature: 'Ines Vadder',
      checks: [
        ...(first ? [{ comparable: first.id, seen: true, armsLength: 'yes', lot: 'single' }] : []),
        ...(second ? [{ comparable: second.id, confirmedWith: 'the house', armsLength: 'yes' }] : []),
      ],
    });
  }
}
