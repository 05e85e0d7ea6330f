/** Sales of a period: what is still to be paid, sent, settled, what came back; totals; the registers for the books. */
import { Button, ButtonBase } from '@mui/material';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import type { Money } from '@jutbank/core/money';
import {
  SALE_STATES,
  saleRoutes,
  type SaleRecord,
  type SalesPage as Sales,
  type SaleState,
} from '@jutbank/contract/sale';
import { useAnswer } from '../base/answers.ts';
import { Failed, Loading } from '../base/states.tsx';
import { PageTitle } from '../parts/PageTitle.tsx';
import { Roving } from '../parts/Roving.tsx';
import { DayInput } from '../parts/fields/index.ts';
import { Table, type Column } from '../parts/table/Table.tsx';
import { counted, dayText, moneyText, today } from '../parts/words.ts';
import { STATE_WORDS } from './words.ts';
import './sale.css';

const COLUMNS: readonly Column<SaleRecord>[] = [
  { id: 'day', head: 'Day', cell: (s) => dayText(s.soldAt), sortBy: (s) => s.soldAt, className: 'num' },
  {
    id: 'piece',
    head: 'Piece',
    lead: true,
    cell: (s) => (
      <Link to={`/sales/${s.id}`}>
        <span className="mono">{s.stockNumber}</span> {s.title}
      </Link>
    ),
    sortBy: (s) => s.title,
  },
  { id: 'buyer', head: 'Buyer', cell: (s) => s.buyerName, sortBy: (s) => s.buyerName },
  {
    id: 'invoice',
    head: 'Invoice',
    className: 'num',
    cell: (s) => (
      <a href={`/api/v1/sales/${s.id}/invoice.pdf`} target="_blank" rel="noreferrer">
        {s.invoiceNumber}
      </a>
    ),
    sortBy: (s) => s.invoiceNumber,
  },
  { id: 'state', head: 'Waits for', cell: waitsFor, sortBy: waitsFor },
  money('price', 'Price', (s) => s.price),
  money('left', 'Left', (s) => s.account && { amount: s.account.left, currency: s.price.currency }),
  money('margin', 'Margin', (s) => s.margin),
];

/** The next thing a sale waits for; nothing where it is done. */
function waitsFor(s: SaleRecord): string {
  if (s.returnedOn !== null) return Number(s.open.amount) < 0 ? 'paying back' : 'came back';
  if (Number(s.open.amount) > 0) return 'payment';
  if (Number(s.open.amount) < 0) return 'paying back';
  if (s.sent === null) return 'sending';
  return s.settlement && s.settlement.paidOn === null ? 'the owner’s pay' : '';
}

function money(id: string, head: string, of: (sale: SaleRecord) => Money | null): Column<SaleRecord> {
  return {
    id,
    head,
    figure: true,
    cell: (s) => moneyText(of(s)),
    sortBy: (s) => {
      const sum = of(s);
      return sum && Number(sum.amount);
    },
  };
}

const yearOf = (year: string) => ({ from: `${year}-01-01`, to: `${year}-12-31` });

export default function SalesPage() {
  const navigate = useNavigate();
  const [state, setState] = useState<SaleState>();
  const [period, setPeriod] = useState<{ from: string; to: string }>();
  const whole = period && period.from !== '' && period.to !== '' ? period : undefined;
  const sales = useAnswer(
    saleRoutes.listSales,
    { query: { limit: 200, ...(state ? { state } : {}), ...whole } },
    { placeholderData: (before) => before },
  );
  if (sales.isPending) return <Loading />;
  if (sales.isError) return <Failed error={sales.error} retry={() => void sales.refetch()} />;
  const thisYear = today().slice(0, 4);
  const books = whole ?? yearOf(thisYear);
  const register = (name: string) => `/api/v1/registers/${name}?from=${books.from}&to=${books.to}`;
  const asked = state !== undefined || whole !== undefined;
  return (
    <div className="page">
      <div className="pagehead">
        <PageTitle>Sales</PageTitle>
        <span className="soft num">{counted(sales.data.total)}</span>
        <span className="grow" />
        <Link to="/contacts">Contacts</Link>
      </div>
      <Roving className="chips" style={{ marginBottom: 12 }} role="group" aria-label="Which sales">
        <ButtonBase className="chip" aria-pressed={state === undefined} onClick={() => setState(undefined)}>
          All
        </ButtonBase>
        {SALE_STATES.map((s) => (
          <ButtonBase key={s} className="chip" aria-pressed={state === s} onClick={() => setState(s)}>
            {STATE_WORDS[s]}
          </ButtonBase>
        ))}
      </Roving>
      <Totals totals={sales.data.totals} />
      {sales.data.items.length === 0 ? (
        <p className="soft">{asked ? 'None of the sales is like that.' : 'Nothing has been sold yet.'}</p>
      ) : (
        <Table
          label="List of sales"
          rows={sales.data.items}
          columns={COLUMNS}
          keyOf={(s) => s.id}
          onOpen={(s) => void navigate(`/sales/${s.id}`)}
        />
      )}
      {sales.data.total > sales.data.items.length && (
        <p className="soft">
          The newest {sales.data.items.length} are shown; narrow the period to see the others. The totals are
          of all.
        </p>
      )}
      <h2 className="sec" style={{ marginTop: 24 }}>
        For the books{' '}
        <small>
          {dayText(books.from)} – {dayText(books.to)}
        </small>
      </h2>
      <div className="fields across" style={{ maxWidth: 520, marginBottom: 10 }}>
        <DayInput
          label="From"
          edge="first"
          value={period?.from}
          onChange={(from, understood) => understood && setPeriod({ to: today(), ...period, from })}
        />
        <DayInput
          label="To"
          edge="last"
          value={period?.to}
          onChange={(to, understood) =>
            understood && setPeriod({ from: yearOf(thisYear).from, ...period, to })
          }
        />
      </div>
      <div className="acts">
        <Button href={register('sales.csv')}>Register of sales, CSV</Button>
        <Button href={register('sales.pdf')}>Register of sales, PDF</Button>
        <Button href={register('purchases.csv')}>Register of purchases, CSV</Button>
        <Button href={register('purchases.pdf')}>Register of purchases, PDF</Button>
      </div>
    </div>
  );
}

function Totals({ totals }: { totals: Sales['totals'] }) {
  return totals.map((t) => (
    <dl key={t.currency} className="totals">
      <Total name="Taken, less what was given back" sum={moneyText(t.revenue)} />
      {Number(t.open.amount) !== 0 && <Total name="Still open" sum={moneyText(t.open)} />}
      {t.taxDue && Number(t.taxDue.amount) !== 0 && <Total name="Of it tax" sum={moneyText(t.taxDue)} />}
      {t.margin && <Total name="Margin, where the cost is known" sum={moneyText(t.margin)} />}
      {t.returned > 0 && <Total name="Came back" sum={`${t.returned} of ${t.sales}`} />}
    </dl>
  ));
}

const Total = ({ name, sum }: { name: string; sum: string }) => (
  <div>
    <dt>{name}</dt>
    <dd>{sum}</dd>
  </div>
);
