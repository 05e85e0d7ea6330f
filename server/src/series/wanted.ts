/** Who wants a piece: series of customers, and the shop's own, in which it is missing. */
import { fills, type SlotStanding } from '@jutbank/core/series';
import type { WantedBy } from '@jutbank/contract/series';
import type { PieceRecord, Readers } from '../pieces/index.ts';
import { allSeries } from './queries.ts';
import { goodEnough, standingsOf, type StoodSeries } from './tell.ts';

/** A form that the evidence makes at least so likely is one that the piece may be. */
const MAY_BE = 0.1;

/**
 * By what was decided; before that by what the evidence allows; before anything was looked at by the pattern that its
 * name speaks of: whoever takes it in should know that somebody waits.
 */
export async function wantedBy(readers: Readers, record: PieceRecord): Promise<WantedBy[]> {
  const index = await readers.library.index();
  const assessment = await readers.assess(record);
  const decided = record.attribution?.variant ?? null;
  const looked = record.observations.length > 0 || record.attribution !== null;
  const likely = looked
    ? assessment.answer.candidates.filter((c) => c.probability >= MAY_BE).map((c) => c.variant)
    : formsNamed(record.intake.title, index.rows);
  const forms = new Set(decided === null ? likely : [decided]);
  const series = await allSeries(readers.database);
  const stood = await standingsOf(readers.database, index, series);
  return stood.flatMap((of) => of.standings.flatMap((standing) => asWanted(of, standing)));

  function asWanted({ series: followed, pieces }: StoodSeries, standing: SlotStanding): WantedBy[] {
    const { slot, state, wish, best } = standing;
    // the piece itself may be what fills it
    if (best?.piece === record.id || (state !== 'missing' && state !== 'upgrade')) return [];
    // of the shop’s own only what was asked for: the rest of its stock is bought anyway
    if (followed.contactId === null && wish?.wish !== 'want') return [];
    if (!slot.variants.some((id) => forms.has(id))) return [];
    const own = pieces.get(record.id);
    const sure = own !== undefined && fills(slot, own);
    if (sure && !goodEnough(own, standing, followed.upgradeBelow)) return [];
    if (decided !== null && !sure) return [];
    return [
      {
        series: { id: followed.id, name: followed.name },
        buyerName: followed.buyerName,
        contactId: followed.contactId,
        slot: slot.name,
        sure,
        atMost: wish?.atMost ?? null,
        leastIndex: wish?.leastIndex ?? followed.upgradeBelow,
        upgrade: state === 'upgrade',
      },
    ];
  }
}

/** Forms whose pattern stands word by word in a name. */
function formsNamed(
  title: string,
  rows: readonly { readonly variant: { readonly id: string }; readonly pattern: { readonly name: string } }[],
): string[] {
  const words = wordsOf(title);
  return rows
    .filter(({ pattern }) => wordsOf(pattern.name).every((word) => words.includes(word)))
    .map(({ variant }) => variant.id);
}
const wordsOf = (text: string): string[] =>
  text
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean);
