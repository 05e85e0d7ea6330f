/** How scarce a variant is: a range for each part, and what it rests on. */
import type { Range, Scarcity } from '@jutbank/core/reference';
import { counted } from '../parts/words.ts';

/** As roughly as such a count is known. */
export const pieces = (n: number): string => {
  const step = n >= 1000 ? 100 : n >= 100 ? 10 : 1;
  return counted(Math.round(n / step) * step);
};
const inHundred = (n: number) => String(Math.round(n * 100));
const between = (r: Range, words: (n: number) => string) =>
  words(r.low) === words(r.high) ? words(r.likely) : `${words(r.low)} – ${words(r.high)}`;

export function ScarcityTable({
  scarcity,
}: {
  scarcity: Scarcity & { seen: { count: number; years: number } };
}) {
  const { made, surviving, left, inCondition, leftSo, seen } = scarcity;
  return (
    <>
      <h2 className="sec" style={{ marginTop: 18 }}>
        How scarce
      </h2>
      <table className="grid">
        <tbody>
          <Line
            what="Made"
            // what is documented is told as it is documented, what is reckoned as roughly as it is known
            value={
              made
                ? made.low === made.high
                  ? counted(made.likely)
                  : between(made, pieces)
                : 'cannot be told'
            }
            why={made?.restsOn ?? 'no quantity and no yearly figures'}
          />
          <Line what="Surviving, in 100" value={between(surviving, inHundred)} why={surviving.restsOn} />
          {left && <Line what="Still about" value={between(left, pieces)} why="made times surviving" />}
          {inCondition && (
            <Line
              what="Very good or better, in 100"
              value={between(inCondition, inHundred)}
              why={inCondition.restsOn}
            />
          )}
          {leftSo && <Line what="Still about so good" value={between(leftSo, pieces)} why="" />}
          <Line
            what="Seen sold"
            value={seen.count === 0 ? 'never' : `${seen.count} in ${seen.years} years`}
            why="comparables of this variant"
          />
        </tbody>
      </table>
    </>
  );
}

function Line({ what, value, why }: { what: string; value: string; why: string }) {
  return (
    <tr>
      <td className="soft">{what}</td>
      <td className="num">{value}</td>
      <td className="soft">{why}</td>
    </tr>
  );
}
