/** What the carriers ask for a piece: the cheapest tracked way by zone, and all of them on demand. */
import { Button } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { listingRoutes } from '@jutbank/contract/listing';
import type { PieceSheet, TakenPostage } from '@jutbank/contract/pieces';
import { useAnswer } from '../base/answers.ts';
import { send } from '../base/api.ts';
import { useMay } from '../base/session.ts';
import { Failed, Loading } from '../base/states.tsx';
import { inLine, useTakeSheet } from '../pieces/usePiece.ts';
import { dayText, moneyText, ZONE_WORDS } from '../parts/words.ts';

export function Postage({ sheet }: { sheet: PieceSheet }) {
  const params = { id: sheet.id };
  const mayWork = useMay('work');
  const takeSheet = useTakeSheet();
  const postage = useAnswer(listingRoutes.postage, { params });
  const taking = useMutation({
    mutationFn: () =>
      inLine(sheet.id, () => send(listingRoutes.takePostage, { params, version: sheet.version })),
    onSuccess: takeSheet,
  });
  if (postage.isPending) return <Loading />;
  if (postage.isError) return <Failed error={postage.error} retry={() => void postage.refetch()} />;
  const { grams, weighed, size, insuredFor, zones } = postage.data;
  return (
    <>
      <p className="soft" style={{ marginBottom: 6 }}>
        <span className="num">{grams} g</span> packed{!weighed && ' (nobody weighed it)'},{' '}
        <span className="num">{size.join(' × ')} mm</span>, insured for{' '}
        <span className="num">{moneyText(insuredFor)}</span>
      </p>
      <table className="grid">
        <tbody>
          {zones.flatMap(({ zone, quotes }) =>
            quotes.map((q, i) => (
              <tr key={`${zone} ${q.carrier} ${q.service}`}>
                <td>{i === 0 ? ZONE_WORDS[zone] : ''}</td>
                <td>
                  {q.carrier}, {q.service.toLowerCase()}
                  {!q.tracked && <span className="soft"> not tracked</span>}
                </td>
                <td className="num soft">{q.days.join('–')} days</td>
                <td className="r num">{moneyText(q.price)}</td>
              </tr>
            )),
          )}
        </tbody>
      </table>
      {mayWork && (
        <Button disabled={taking.isPending} onClick={() => taking.mutate()} style={{ marginTop: 8 }}>
          Take the cheapest tracked of each zone
        </Button>
      )}
      {taking.isError && <p className="problem">{taking.error.message}</p>}
    </>
  );
}

/** What was taken for this piece: it is printed on the listing and reckoned with in what is left. */
export function TakenQuotes({ postage }: { postage: TakenPostage | null }) {
  if (postage === null) return null;
  return (
    <div style={{ marginBottom: 8 }}>
      {postage.quotes.map((q) => (
        <p key={q.zone}>
          {ZONE_WORDS[q.zone]} <span className="num">{moneyText(q.price)}</span>{' '}
          <span className="soft">
            {q.carrier}, {q.service.toLowerCase()}
          </span>
        </p>
      ))}
      <p className="soft">Asked {dayText(postage.askedOn)}; printed on the listing; the buyer pays it.</p>
    </div>
  );
}
