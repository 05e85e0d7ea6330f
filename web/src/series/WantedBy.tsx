/** Who waits for this piece: told where it is taken in, and where it is decided what it is. */
import { seriesRoutes } from '@jutbank/contract/series';
import { Link } from 'react-router';
import { useAnswer } from '../base/answers.ts';
import { moneyText } from '../parts/words.ts';

export function WantedBy({ piece }: { piece: string }) {
  const wanted = useAnswer(seriesRoutes.wantedBy, { params: { id: piece } });
  const items = wanted.data?.items ?? [];
  if (items.length === 0) return null;
  return (
    <div className="note good" role="status">
      <b>{items.some((w) => w.sure) ? 'Somebody waits for this.' : 'Somebody waits for one like this.'}</b>
      <ul>
        {items.map((w) => (
          <li key={`${w.series.id} ${w.slot}`}>
            {w.sure ? '' : 'If it is the '}
            {w.slot}: {w.buyerName ?? 'the shop itself'},{' '}
            <Link to={`/series/${w.series.id}`}>{w.series.name}</Link>
            {w.atMost && <span className="num">, at most {moneyText(w.atMost, true)}</span>}
            {w.leastIndex !== null && (
              <span className="num">, condition {Math.round(w.leastIndex)} or better</span>
            )}
            {w.upgrade && ', in place of one that is not good enough'}
          </li>
        ))}
      </ul>
    </div>
  );
}
