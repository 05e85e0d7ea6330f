/** One stock, several channels: the marketplace is told by itself, everything else is taken down by hand and ticked off. */
import { listingRoutes } from '@jutbank/contract/listing';
import { hasLeft } from '@jutbank/core/pieces';
import { todayIso } from '../clock/index.ts';
import { conflict, invalid, type Mount } from '../http/index.ts';
import { changeByCall, changePiece, mountChange, type Readers } from '../pieces/index.ts';
import { pricingSettingsOf } from '../shop/index.ts';

export function mountElsewhere(mount: Mount, readers: Readers): void {
  mountChange(mount, readers, listingRoutes.offerAt, (tx, call) =>
    changeByCall(tx, call, 'offered-at', async (before) => {
      const { settings } = await pricingSettingsOf(tx);
      const wanted = call.body.channels.map((id, i) => {
        const channel = settings.channels.find((c) => c.id === id);
        if (!channel)
          throw invalid([{ pointer: `/channels/${i}`, message: 'this is none of the shop’s channels' }]);
        if (id === settings.usualChannel)
          throw invalid([{ pointer: `/channels/${i}`, message: 'there it goes up by itself' }]);
        return channel;
      });
      await tx.run('DELETE FROM offered_at WHERE piece_id = ?', [call.params.id]);
      const since = (id: string) => before.offeredAt.find((o) => o.channel === id)?.since ?? todayIso();
      if (wanted.length > 0)
        await tx.insertMany('INSERT INTO offered_at (piece_id, channel_id, name, since) VALUES ?', [
          ...wanted.map((c) => [call.params.id, c.id, c.name, since(c.id)]),
        ]);
    }),
  );

  mountChange(mount, readers, listingRoutes.takenDownAt, async (tx, { params, body, person, ifMatch }) => {
    const { id } = await changePiece(
      tx,
      { pieceId: params.id, person, ifMatch, anyVersion: true, kind: 'taken-down-at', body, evenSold: true },
      async (before) => {
        if (!hasLeft(before.stage)) throw conflict('It is still here: say where it is offered instead.');
        const gone = await tx.run('DELETE FROM offered_at WHERE piece_id = ? AND channel_id = ?', [
          params.id,
          body.channel,
        ]);
        if (gone === 0) throw conflict('It is not offered there.');
      },
    );
    return { id };
  });
}
