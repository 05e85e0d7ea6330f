/** Prices that are more likely an error than a price: looked at by a person, never dropped by themselves. */
import { marketRoutes } from '@jutbank/contract/market';
import { useAnswer } from '../base/answers.ts';
import { dayText, moneyText } from '../parts/words.ts';

const SHOWN = 8;
export function Suspects({ patternName }: { patternName: (id: string) => string }) {
  const suspects = useAnswer(marketRoutes.suspects);
  const items = suspects.data?.items ?? [];
  if (items.length === 0) return null;
  return (
    <details className="note" style={{ marginBottom: 14 }}>
      <summary>
        {items.length === 1 ? 'One price looks like an error' : `${items.length} prices look like errors`};
        they hardly count as they stand.
      </summary>
      <table className="grid">
        <tbody>
          {items.slice(0, SHOWN).map(({ comparable, reason }) => (
            <tr key={comparable.id}>
              <td className="num">{dayText(comparable.saleDate)}</td>
              <td>
                {patternName(comparable.pattern)} <span className="soft">{comparable.variantName}</span>
              </td>
              <td className="r num">{moneyText(comparable.price)}</td>
              <td>{reason}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </details>
  );
}
