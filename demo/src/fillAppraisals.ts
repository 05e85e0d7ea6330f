/** Appraisals of three pieces for three purposes; a list of autumn results came in after them. */
import type { AppraisalBody, AppraisalEvidence } from '@jutbank/contract/worth';
import type { Client } from './client.ts';

type Told = Pick<AppraisalBody, 'basis' | 'purpose' | 'intendedUser' | 'interest' | 'because'> &
  Partial<Pick<AppraisalBody, 'assumptions' | 'limiting'>> & {
    readonly title: string;
    readonly daysAgo: number;
    /** what was concluded, as a share of the figure */
    readonly share: number;
  };

const APPRAISALS: readonly Told[] = [
  {
    title: 'Harbour jack, service issue?',
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
    title: 'Petrel, Storm run 0412',
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
    title: 'Three-hand whittler, first stamp',
    daysAgo: 200,
    share: 1.04,
    basis: 'market',
    purpose: 'own-records',
    intendedUser: 'The shop',
    interest: 'The shop owns the piece.',
    because: 'A little above the figure for the first stamp, which the grid does not price apart.',
  },
];

/** A piece of the shop's own, appraised for its books. @returns what was concluded */
export async function bookAppraisal(
  client: Client,
  id: string,
  effectiveDate: string,
  signature: string,
  share = 1,
): Promise<number> {
  const asked = { basis: 'market', effectiveDate, currency: 'EUR' };
  const draft = await client.call<AppraisalEvidence>('POST', `/pieces/${id}/appraisals/draft`, asked);
  const concluded = 5 * Math.max(1, Math.round((Number(draft.figure.amount) * share) / 5));
  await client.call('POST', `/pieces/${id}/appraisals`, {
    ...asked,
    known: draft.known,
    purpose: 'own-records',
    intendedUser: 'The shop',
    interest: 'The shop owns the piece.',
    concluded: concluded.toFixed(2),
    because:
      share === 1
        ? 'As the regression says, to the nearest five.'
        : `${share > 1 ? 'Above' : 'Below'} the regression, by how it looks beside those that were sold here.`,
    signature,
  });
  return concluded;
}
/** The same as of some days ago. */
export const appraiseForTheBooks = (client: Client, id: string, daysAgo: number): Promise<number> =>
  bookAppraisal(
    client,
    id,
    new Date(Date.now() - daysAgo * 86_400_000).toISOString().slice(0, 10),
    'Ines Vadder',
  );

export async function appraise(client: Client, today: Date): Promise<void> {
  const { items } = await client.call<{ items: { id: string; title: string }[] }>('GET', '/pieces?limit=200');
  for (const { title, daysAgo, share, ...told } of APPRAISALS) {
    const piece = items.find((p) => p.title === title);
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
