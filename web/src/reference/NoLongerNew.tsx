/** The caution on a form that cannot be bought new any more: from then on it is imitated. */
import { referenceRoutes } from '@jutbank/contract/reference';
import { availabilityOn, noLongerNew } from '@jutbank/core/reference';
import { useAnswer } from '../base/answers.ts';
import { today } from '../parts/words.ts';

export function NoLongerNew({ variant }: { variant: string | null | undefined }) {
  const detail = useAnswer(
    referenceRoutes.variant,
    { params: { id: variant ?? '' } },
    { enabled: variant != null && variant !== '', staleTime: 60_000 },
  );
  const now = detail.data?.availability.gone
    ? availabilityOn(detail.data.availability.notes, today())
    : undefined;
  if (!now) return null;
  return <p className="note">{noLongerNew(now.note)}</p>;
}
