/** Stamps on offer that read the same: what to look at. */
import { stampsOfOneText } from '@jutbank/core/drawing';
import type { Code, Mark } from '@jutbank/core/reference';
import { counted, inWords } from '../parts/words.ts';

const TOLD_BY = { lettering: 'lettering', place: 'place', signs: 'the signs beside them' } as const;

/** What to look at where several of the stamps on offer read the same. */
export function ToldApart({
  marks,
  codes,
}: {
  marks: readonly Mark[];
  codes: readonly Pick<Code, 'id' | 'title'>[];
}) {
  const alike = stampsOfOneText(marks, (id) => codes.find((code) => code.id === id)?.title ?? undefined);
  return alike.map(({ lines, marks: ids, by }) => (
    <p key={lines.join(' ')} className="soft toldapart">
      {counted(ids.length)} stamps read “{lines.join(' ')}”:{' '}
      {by.length > 0
        ? `told apart by ${by.map(({ what, shown }) => `${TOLD_BY[what]} (${[...new Set(shown)].map((s) => inWords(s).toLowerCase()).join(', ')})`).join(', and ')}.`
        : 'nothing to be seen tells them apart, only their years; take either as unsure.'}
    </p>
  ));
}
