/** The stock at cost and at worth: how long it has stood, what no longer fits its price, how prices move. */
import { stockRoutes, type StockPiece, type StockValuation } from '@jutbank/contract/worth';
import { jobRoutes } from '@jutbank/contract/jobs';
import { Button } from '@mui/material';
import { useMutation } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import type { RepriceReason } from '@jutbank/core/worth';
import { useAnswer, useKeptAnswers } from '../base/answers.ts';
import { ApiProblem, send } from '../base/api.ts';
import { useMay } from '../base/session.ts';
import { Failed, Loading } from '../base/states.tsx';
import { awaitJob } from '../base/task.ts';
import { PageTitle } from '../parts/PageTitle.tsx';
import { counted, dayText, moneyText, signed } from '../parts/words.ts';
import { StockCourse } from './StockCourse.tsx';
import { Table, type Column } from '../parts/table/Table.tsx';
import { OpenedWorth } from './StockGrounds.tsx';
import { Ages, Oldest, TakenFor, Trends } from './StockTables.tsx';
import './stock.css';

const pieceCount = (n: number) => `${counted(n)} ${n === 1 ? 'piece' : 'pieces'}`;

export default function StockPage() {
  const stock = useAnswer(stockRoutes.stock);
  if (stock.isPending) return <Loading />;
  if (stock.isError) return <Failed error={stock.error} retry={() => void stock.refetch()} />;
  const { valuation, pieces, running } = stock.data;
  return (
    <div className="page">
      <div className="pagehead">
        <PageTitle>Stock</PageTitle>
        <span className="soft">
          {valuation
            ? `as valued on ${dayText(valuation.at)} by ${valuation.person}`
            : `${pieceCount(pieces)}, not valued yet`}
        </span>
        <span className="grow" />
        <Link className="soft" to="/track-record">
          How well we have done
        </Link>
        <Revalue running={running} pieces={pieces} />
      </div>
      {valuation ? (
        <Valued valuation={valuation} />
      ) : (
        <p className="soft">
          {pieces === 0 ? (
            <>
              There is nothing in stock. Pieces that are taken in and not sold stand here, at what they cost
              and at what they would bring. <Link to="/pieces/new">Take the first one in</Link>
            </>
          ) : (
            'Value the stock to see what money is bound in it, what it would bring, what has stood too long and which asks no longer fit.'
          )}
        </p>
      )}
    </div>
  );
}

function Revalue({ running, pieces }: { running: string | null; pieces: number }) {
  const answers = useKeptAnswers();
  const mayWork = useMay('work');
  const [task, setTask] = useState<{ id: string; share: number }>();
  const follow = useMutation({
    mutationFn: async (id: string) => {
      setTask({ id, share: 0 });
      await awaitJob(id, (share) => setTask({ id, share }));
    },
    onSettled: () => {
      setTask(undefined);
      void answers.invalidate(stockRoutes.stock);
    },
  });
  const begin = useMutation({
    mutationFn: () => send(stockRoutes.revalue),
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
        <Button onClick={() => void send(jobRoutes.cancelJob, { params: { id: task.id } })}>Cancel</Button>
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
      <Reprice valuation={valuation} />
      <div className="twocol" style={{ marginTop: 26 }}>
        <Oldest valuation={valuation} />
        <Trends valuation={valuation} />
      </div>
    </>
  );
}

const REASON_WORDS: Record<RepriceReason, (p: StockPiece) => string> = {
  above: () => 'asked above the range it would bring',
  below: () => 'asked below the range it would bring',
  'stood-long': (p) => `stands for ${p.listedWeeks ?? 0} weeks; at this ask it should have sold`,
  moved: (p) => `its estimate moved ${signed(p.moved ?? 0)} % since the last look`,
  'no-ask': () => 'listed without an ask',
};

const sum = (money: { readonly amount: string } | null | undefined) => money && Number(money.amount);
const repriceColumns = (valuation: string): readonly Column<StockPiece>[] => [
  {
    id: 'piece',
    head: 'Piece',
    lead: true,
    cell: (p) => (
      <>
        <Link to={`/pieces/${p.id}/worth`}>{p.title}</Link> <span className="soft mono">{p.stockNumber}</span>
        <TakenFor piece={p} />
      </>
    ),
    sortBy: (p) => p.title,
  },
  {
    id: 'why',
    head: 'Why',
    cell: (p) => p.reprice?.reasons.map((r) => REASON_WORDS[r](p)).join('; '),
    sortBy: (p) => p.reprice?.reasons[0],
  },
  {
    id: 'worth',
    head: 'Would bring',
    figure: true,
    cell: (p) => (
      <>
        <OpenedWorth valuation={valuation} piece={p} />{' '}
        <span className="soft">
          {moneyText(p.worth?.low, true)}–{moneyText(p.worth?.high, true)}
        </span>
      </>
    ),
    sortBy: (p) => sum(p.worth?.estimate),
  },
  {
    id: 'ask',
    head: 'Asked',
    figure: true,
    cell: (p) => (p.ask ? moneyText(p.ask, true) : '–'),
    sortBy: (p) => sum(p.ask),
  },
  {
    id: 'better',
    head: 'Better ask',
    figure: true,
    cell: (p) => <b>{moneyText(p.reprice?.ask, true)}</b>,
    sortBy: (p) => sum(p.reprice?.ask),
  },
];

function Reprice({ valuation: { id, pieces } }: { valuation: StockValuation }) {
  const navigate = useNavigate();
  const found = pieces.filter((p) => p.reprice !== null);
  return (
    <section>
      <h2 className="sec">
        To re-price{' '}
        <small>{found.length === 0 ? '' : `${counted(found.length)} of ${counted(pieces.length)}`}</small>
      </h2>
      {found.length === 0 ? (
        <p className="soft">Every ask fits what its piece would bring.</p>
      ) : (
        <Table
          label="Pieces to re-price"
          rows={found}
          columns={repriceColumns(id)}
          first={8}
          keyOf={(p) => p.id}
          onOpen={(p) => void navigate(`/pieces/${p.id}/worth`)}
        />
      )}
    </section>
  );
}
