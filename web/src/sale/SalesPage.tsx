import { saleRoutes } from '@jutbank/contract/sale';
import { Link } from 'react-router';
import { useAnswer } from '../base/answers.ts';
import { Failed, Loading } from '../base/states.tsx';
import { dayText, moneyText } from '../parts/words.ts';

export default function SalesPage() {
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
        <div className="scroll" tabIndex={0} role="region" aria-label="List of sales">
          <table className="grid">
            <thead>
              <tr>
                <th>Day</th>
                <th>Piece</th>
                <th>Buyer</th>
                <th>Invoice</th>
                <th className="r">Price</th>
                <th className="r">Net</th>
                <th className="r">Cost</th>
                <th className="r">Margin</th>
              </tr>
            </thead>
            <tbody>
              {sales.data.items.map((s) => (
                <tr key={s.id}>
                  <td className="num">{dayText(s.soldAt)}</td>
                  <td>
                    <Link to={`/pieces/${s.pieceId}/sale`}>
                      <span className="mono">{s.stockNumber}</span> {s.title}
                    </Link>
                  </td>
                  <td>{s.buyerName}</td>
                  <td className="num">
                    <a href={`/api/v1/sales/${s.id}/invoice.pdf`} target="_blank" rel="noreferrer">
                      {s.invoiceNumber}
                    </a>
                  </td>
                  <td className="r num">{moneyText(s.price)}</td>
                  <td className="r num">
                    {moneyText(s.net && { amount: s.net.left, currency: s.price.currency })}
                  </td>
                  <td className="r num">{moneyText(s.cost)}</td>
                  <td className="r num">
                    <b>{moneyText(s.margin)}</b>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
    </div>
  );
}
