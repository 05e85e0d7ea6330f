/** What the carriers ask for a piece: the cheapest tracked way by zone, and all of them on demand. */
import { listingRoutes } from '@jutbank/contract/listing';
import { useAnswer } from '../base/answers.ts';
import { Failed, Loading } from '../base/states.tsx';
import { moneyText, ZONE_WORDS } from '../parts/words.ts';

export function Postage({ id }: { id: string }) {
  const postage = useAnswer(listingRoutes.postage, { params: { id } });
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
    </>
  );
}
