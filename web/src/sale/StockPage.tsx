/** The stock at cost and at worth: how long it has stood, what no longer fits its price, how prices move. */
import { Button } from '@mui/material';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import { subtractMoney } from '@jutbank/core/money';
import type { RepriceReason } from '@jutbank/core/value';
import type { StockPiece, StockTotals, StockValuation } from '@jutbank/contract/sale';
import { ApiProblem, call, get } from '../app/api.ts';
import { useMay } from '../app/session.ts';
import { Failed, Loading } from '../app/states.tsx';
import { finished } from '../parts/task.ts';
import { counted, dayText, moneyText } from '../parts/words.ts';
import { StockCourse } from './StockCourse.tsx';
import './stock.css';

interface Stock {
  valuation: StockValuation | null;
  pieces: number;
  running: string | null;
}
const KEY = ['stock'];
const pieceCount = (n: number) => `${counted(n)} ${n === 1 ? 'piece' : 'pieces'}`;

export default function StockPage() {
  const stock = useQuery({ queryKey: KEY, queryFn: () => get<Stock>('/stock') });
  if (stock.isPending) return <Loading />;
  if (stock.isError) return <Failed error={stock.error} retry={() => void stock.refetch()} />;
  const { valuation, pieces, running } = stock.data;
  return (
    <div className="page">
      <div className="pagehead">
        <h1>Stock</h1>
        <span className="soft">
          {valuation
            ? `as valued on ${dayText(valuation.at)} by ${valuation.person}`
            : `${pieceCount(pieces)}, not valued yet`}
        </span>
        <span className="grow" />
        <Revalue running={running} pieces={pieces} />
      </div>
      {valuation ? (
        <Valued valuation={valuation} />
      ) : (
        <p className="soft">
          {pieces === 0
            ? 'There is nothing in stock. Pieces that are taken in and not sold stand here, at what they cost and at what they would bring.'
            : 'Value the stock to see what money is bound in it, what it would bring, what has stood too long and which asks no longer fit.'}
        </p>
      )}
    </div>
  );
}

function Revalue({ running, pieces }: { running: string | null; pieces: number }) {
  const queries = useQueryClient();
  const mayWork = useMay('work');
  const [task, setTask] = useState<{ id: string; share: number }>();
  const follow = useMutation({
    mutationFn: async (id: string) => {
      setTask({ id, share: 0 });
      await finished(id, (share) => setTask({ id, share }));
    },
    onSettled: () => {
      setTask(undefined);
      void queries.invalidateQueries({ queryKey: KEY });
    },
  });
  const begin = useMutation({
    mutationFn: () => call<{ job: string }>('POST', '/stock/valuations', { body: {} }),
    onSuccess: ({ job }) => follow.mutate(job),
  });
  // a task that somebody began before this page was opened
  const { mutate, isPending } = follow;
  useEffect(() => {
    if (running !== null && !isPending) mutate(running);
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [running]);
  const problem = [begin.error, follow.error].find((e) => e instanceof ApiProblem);
  if (task)
    return (
      <span role="status" className="stocktask">
        <progress value={task.share} max={1} aria-label="How far the valuation is" />{' '}
        <span className="num">{Math.round(task.share * 100)} %</span>
        <Button onClick={() => void call('DELETE', `/jobs/${task.id}`)}>Cancel</Button>
      </span>
    );
  return (
    <>
      {problem && <span className="problem">{problem.message}</span>}
      {mayWork && pieces > 0 && (
        <Button variant="contained" disabled={begin.isPending} onClick={() => begin.mutate()}>
          Value it now
        </Button>
      )}
    </>
  );
}

function Valued({ valuation }: { valuation: StockValuation }) {
  const { totals } = valuation;
  const open = totals.pieces - totals.valued;
  return (
    <>
      <div className="stocktop">
        <section>
          <dl className="stocktotals">
            <div>
              <dt>It cost</dt>
              <dd className="num">{moneyText(totals.cost, true)}</dd>
              <dd className="soft">
                {pieceCount(totals.pieces)}
                {totals.withoutCost > 0 && `, ${counted(totals.withoutCost)} without a cost in the books`}
              </dd>
            </div>
            <div>
              <dt>It would bring</dt>
              <dd className="num">{moneyText(totals.worth, true)}</dd>
              <dd className="soft">
                {totals.valued === totals.pieces
                  ? 'each at the middle of its estimate'
                  : `${pieceCount(totals.valued)}, which cost ${moneyText(totals.costOfValued, true)}; ${counted(open)} ${open === 1 ? 'is' : 'are'} not found out yet`}
              </dd>
            </div>
          </dl>
          <StockCourse history={valuation.history} />
        </section>
        <section>
          <h2 className="sec">
            How long it has stood <small>since it was bought</small>
          </h2>
          <Ages ages={valuation.ages} total={totals} />
        </section>
      </div>
      <Reprice pieces={valuation.pieces} />
      <div className="twocol" style={{ marginTop: 26 }}>
        <Oldest pieces={valuation.pieces} />
        <Trends valuation={valuation} />
      </div>
    </>
  );
}

/** A bar an age: at cost, and at worth beside it. */
function Ages({ ages, total }: { ages: StockValuation['ages']; total: StockTotals }) {
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

const REASON_WORDS: Record<RepriceReason, (p: StockPiece) => string> = {
  above: () => 'asked above the range it would bring',
  below: () => 'asked below the range it would bring',
  'stood-long': (p) => `stands for ${p.listedWeeks ?? 0} weeks; at this ask it should have sold`,
  moved: (p) => `its estimate moved ${signed(p.moved ?? 0)} % since the last look`,
  'no-ask': () => 'listed without an ask',
};
const signed = (x: number, digits = 0) => `${x < 0 ? '−' : '+'}${Math.abs(x).toFixed(digits)}`;

function Reprice({ pieces }: { pieces: readonly StockPiece[] }) {
  const [all, setAll] = useState(false);
  const found = pieces.filter((p) => p.reprice !== null);
  const shown = all ? found : found.slice(0, 8);
  return (
    <section>
      <h2 className="sec">
        To re-price{' '}
        <small>{found.length === 0 ? '' : `${counted(found.length)} of ${counted(pieces.length)}`}</small>
      </h2>
      {found.length === 0 ? (
        <p className="soft">Every ask fits what its piece would bring.</p>
      ) : (
        <div className="scroll" tabIndex={0} role="region" aria-label="Pieces to re-price">
          <table className="grid">
            <thead>
              <tr>
                <th>Piece</th>
                <th>Why</th>
                <th className="r">Would bring</th>
                <th className="r">Asked</th>
                <th className="r">Better ask</th>
              </tr>
            </thead>
            <tbody>
              {shown.map((p) => (
                <tr key={p.id}>
                  <td>
                    <Link to={`/pieces/${p.id}/worth`}>{p.title}</Link>{' '}
                    <span className="soft mono">{p.stockNumber}</span>
                  </td>
                  <td>{p.reprice?.reasons.map((r) => REASON_WORDS[r](p)).join('; ')}</td>
                  <td className="r num">
                    {moneyText(p.worth?.estimate, true)}{' '}
                    <span className="soft">
                      {moneyText(p.worth?.low, true)}–{moneyText(p.worth?.high, true)}
                    </span>
                  </td>
                  <td className="r num">{p.ask ? moneyText(p.ask, true) : '–'}</td>
                  <td className="r num">
                    <b>{moneyText(p.reprice?.ask, true)}</b>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      {shown.length < found.length && (
        <Button sx={{ mt: 1 }} onClick={() => setAll(true)}>
          Show all {counted(found.length)}
        </Button>
      )}
    </section>
  );
}

const OLDEST = 8;
function Oldest({ pieces }: { pieces: readonly StockPiece[] }) {
  const oldest = [...pieces].sort((a, b) => b.days - a.days).slice(0, OLDEST);
  return (
    <section>
      <h2 className="sec">Longest here</h2>
      <table className="grid">
        <thead>
          <tr>
            <th>Piece</th>
            <th className="r">For</th>
            <th className="r">Cost</th>
            <th className="r">Worth over cost</th>
          </tr>
        </thead>
        <tbody>
          {oldest.map((p) => (
            <tr key={p.id}>
              <td>
                <Link to={`/pieces/${p.id}`}>{p.title}</Link>
              </td>
              <td className="r num">{ageText(p.days)}</td>
              <td className="r num">
                {p.cost ? moneyText(p.cost, true) : <span className="soft">cost not known</span>}
              </td>
              <td className="r num">
                {p.cost && p.worth ? (
                  <Gain cost={p.cost} worth={p.worth.estimate} />
                ) : (
                  <span className="soft">not valued</span>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
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

function Trends({ valuation }: { valuation: StockValuation }) {
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
