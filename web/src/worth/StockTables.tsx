/** Tables of a valued stock: how long it has stood, the oldest of it, how prices moved. */
import { Link } from 'react-router';
import { subtractMoney } from '@jutbank/core/money';
import type { StockPiece, StockTotals, StockValuation } from '@jutbank/contract/worth';
import { edtfInWords } from '@jutbank/core/dates';
import { OpenedWorth } from './StockGrounds.tsx';
import { TierBadge } from '../parts/TierBadge.tsx';
import { counted, moneyText, signed } from '../parts/words.ts';

/** A bar an age: at cost, and at worth beside it. */
export function Ages({ ages, total }: { ages: StockValuation['ages']; total: StockTotals }) {
  const most = Math.max(1, ...ages.flatMap((a) => [Number(a.cost.amount), Number(a.worth.amount)]));
  const share = (m: StockTotals['cost']) => `${(100 * Number(m.amount)) / most}%`;
  return (
    <table className="grid ages">
      <thead>
        <tr>
          <th>For</th>
          <th className="r">Pieces</th>
          <th>Cost (pale: not valued) over worth</th>
          <th className="r">Cost</th>
          <th className="r">Worth</th>
        </tr>
      </thead>
      <tbody>
        {ages.map((a) => (
          <tr key={a.age} className={a.pieces === 0 ? 'soft' : ''}>
            <td>{a.age}</td>
            <td className="r num">{a.pieces}</td>
            <td>
              <span className="agebars">
                <span className="agebar cost" style={{ width: share(a.costOfValued) }} />
                <span
                  className="agebar open"
                  style={{ width: share(subtractMoney(a.cost, a.costOfValued)) }}
                />
              </span>
              <span className="agebar worth" style={{ width: share(a.worth) }} />
            </td>
            <td className="r num">{moneyText(a.cost, true)}</td>
            <td className="r num">{moneyText(a.worth, true)}</td>
          </tr>
        ))}
      </tbody>
      <tfoot>
        <tr>
          <td>In all</td>
          <td className="r num">{total.pieces}</td>
          <td />
          <td className="r num">{moneyText(total.cost, true)}</td>
          <td className="r num">{moneyText(total.worth, true)}</td>
        </tr>
      </tfoot>
    </table>
  );
}

/** What the piece was taken for when it was valued, in a line. */
export function TakenFor({ piece: { which, when } }: { piece: StockPiece }) {
  if (!which) return null;
  return (
    <div className="takenfor soft">
      <TierBadge tier={which.tier} />
      <span>
        {which.label} · {when ? edtfInWords(when.core) : 'not dated'}
      </span>
    </div>
  );
}

const OLDEST = 8;
export function Oldest({ valuation: { id, pieces } }: { valuation: StockValuation }) {
  const oldest = [...pieces].sort((a, b) => b.days - a.days).slice(0, OLDEST);
  return (
    <section>
      <h2 className="sec">Longest here</h2>
      {/* a cost that is not known is said in words, which a phone has no room for */}
      <div className="scroll" tabIndex={0} role="region" aria-label="Longest here">
        <table className="grid">
          <thead>
            <tr>
              <th>Piece</th>
              <th className="r">For</th>
              <th className="r">Cost</th>
              <th className="r">Worth</th>
              <th className="r">Over cost</th>
            </tr>
          </thead>
          <tbody>
            {oldest.map((p) => (
              <tr key={p.id}>
                <td>
                  <Link to={`/pieces/${p.id}`}>{p.title}</Link>
                  <TakenFor piece={p} />
                </td>
                <td className="r num">{ageText(p.days)}</td>
                <td className="r num">
                  {p.cost ? moneyText(p.cost, true) : <span className="soft">cost not known</span>}
                </td>
                <td className="r num">
                  <OpenedWorth valuation={id} piece={p} />
                </td>
                <td className="r num">
                  {p.cost && p.worth ? <Gain cost={p.cost} worth={p.worth.estimate} /> : '–'}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}
const ageText = (days: number) =>
  days < 60
    ? `${days} days`
    : days < 700
      ? `${Math.round(days / 30.4)} months`
      : `${(days / 365).toFixed(1)} years`;

function Gain({ cost, worth }: { cost: StockTotals['cost']; worth: StockTotals['cost'] }) {
  if (cost.currency !== worth.currency) return <>{moneyText(worth, true)}</>;
  const gain = subtractMoney(worth, cost);
  const loss = Number(gain.amount) < 0;
  return (
    <span className={loss ? 'warn' : ''}>
      {loss ? '' : '+'}
      {moneyText(gain, true)}
    </span>
  );
}

export function Trends({ valuation }: { valuation: StockValuation }) {
  const { trends, untold } = valuation;
  return (
    <section>
      <h2 className="sec">
        How prices moved <small>four in five such ranges hold</small>
      </h2>
      {trends.length === 0 ? (
        <p className="soft">Too few sales are known of any maker or pattern to say how its prices move.</p>
      ) : (
        <table className="grid">
          <thead>
            <tr>
              <th>Of</th>
              <th className="r">Within a year</th>
              <th className="r">Range, %</th>
              <th className="r">Sales, and the year before</th>
            </tr>
          </thead>
          <tbody>
            {trends.map((t) => (
              <tr key={`${t.of} ${t.id ?? ''}`} className={t.of === 'market' ? 'on' : ''}>
                <td>
                  {t.of === 'market' ? <b>{t.name}</b> : t.name}{' '}
                  {t.of !== 'market' && <span className="soft">{t.of}</span>}
                </td>
                <td className="r num">
                  <b>{signed(t.percent, 1)} %</b>
                </td>
                <td className="r num soft">
                  {signed(t.low)} to {signed(t.high)}
                </td>
                <td className="r num soft">
                  {counted(t.sales[0])}, {counted(t.sales[1])}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {untold > 0 && (
        <p className="soft" style={{ marginTop: 6 }}>
          Of {counted(untold)} further makers and patterns too few sales are known to say.
        </p>
      )}
    </section>
  );
}
