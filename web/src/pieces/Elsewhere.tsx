/** Where a piece is offered beside the marketplace, and, once it has left, where it is still to be taken down. */
import { Button } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { listingRoutes } from '@jutbank/contract/listing';
import type { PieceSheet } from '@jutbank/contract/pieces';
import { pricingSettingsRoutes } from '@jutbank/contract/shop';
import { useAnswer } from '../base/answers.ts';
import { send } from '../base/api.ts';
import { useMay } from '../base/session.ts';
import { MultiSelect } from '../parts/fields/index.ts';
import { dayText } from '../parts/words.ts';
import { inLine, isHere, useTakeSheet } from './usePiece.ts';

export function Elsewhere({ sheet }: { sheet: PieceSheet }) {
  const mayWork = useMay('work');
  const takeSheet = useTakeSheet();
  const settings = useAnswer(pricingSettingsRoutes.settings).data?.settings;
  const params = { id: sheet.id };
  const offer = useMutation({
    mutationFn: (channels: string[]) =>
      inLine(sheet.id, () =>
        send(listingRoutes.offerAt, { params, body: { channels }, version: sheet.version }),
      ),
    onSuccess: takeSheet,
  });
  const takeDown = useMutation({
    mutationFn: (channel: string) =>
      inLine(sheet.id, () => send(listingRoutes.takenDownAt, { params, body: { channel } })),
    onSuccess: takeSheet,
  });
  const error = offer.error ?? takeDown.error;
  const others = (settings?.channels ?? []).filter((c) => c.id !== settings?.usualChannel);
  if (!isHere(sheet))
    return (
      <>
        {sheet.offeredAt.map(({ channel, name, since }) => (
          <p key={channel} className="note bad" style={{ marginBottom: 8 }}>
            <b>It is still offered: {name}.</b>
            Since <span className="num">{dayText(since)}</span>; take it down there.{' '}
            {mayWork && (
              <Button
                variant="text"
                className="quiet"
                disabled={takeDown.isPending}
                onClick={() => takeDown.mutate(channel)}
              >
                It is taken down
              </Button>
            )}
          </p>
        ))}
        {error && <p className="problem">{error.message}</p>}
      </>
    );
  if (others.length === 0) return null;
  return (
    <div style={{ marginTop: 14 }}>
      <MultiSelect
        label="Offered elsewhere too"
        why="Sold in one place, it says where it is still to be taken down"
        disabled={!mayWork || offer.isPending}
        options={others.map((c) => ({ value: c.id, label: c.name }))}
        value={sheet.offeredAt.map((o) => o.channel)}
        problem={error?.message}
        onChange={(channels) => offer.mutate(channels ?? [])}
      />
    </div>
  );
}
