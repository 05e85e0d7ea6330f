import { saleRoutes, type SaleRecord } from '@jutbank/contract/sale';
import type { Money } from '@jutbank/core/money';
import { Link, useNavigate } from 'react-router';
import { useAnswer } from '../base/answers.ts';
import { Failed, Loading } from '../base/states.tsx';
import { Table, type Column } from '../parts/table/Table.tsx';
import { dayText, moneyText } from '../parts/words.ts';

const COLUMNS: readonly Column<SaleRecord>[] = [
  { id: 'day', head: 'Day', cell: (s) => dayText(s.soldAt), sortBy: (s) => s.soldAt, className: 'num' },
  {
    id: 'piece',
    head: 'Piece',
    lead: true,
    cell: (s) => (
      <Link to={`/pieces/${s.pieceId}/sale`}>
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
  money('price', 'Price', (s) => s.price),
  money('net', 'Net', (s) => s.net && { amount: s.net.left, currency: s.price.currency }),
  money('cost', 'Cost', (s) => s.cost),
  money('margin', 'Margin', (s) => s.margin),
];

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

export default function SalesPage() {
  const navigate = useNavigate();
  const sales = useAnswer(saleRoutes.listSales, { query: { limit: 200 } });
  if (sales.isPending) return <Loading />;
  if (sales.isError) return <Failed error={sales.error} retry={() => void sales.refetch()} />;
  return (
    <div className="page">
      <div className="pagehead">
        <h1>Sales</h1>
        <span className="soft num">{sales.data.total}</span>
      </div>
      {sales.data.items.length === 0 ? (
        <p className="soft">Nothing has been sold yet.</p>
      ) : (
        <Table
          label="List of sales"
          rows={sales.data.items}
          columns={COLUMNS}
          keyOf={(s) => s.id}
          onOpen={(s) => void navigate(`/pieces/${s.pieceId}/sale`)}
        />
      )}
    </div>
  );
}
