/** One sale by itself: of a piece that came back there may be several. */
import { Link, useParams } from 'react-router';
import { saleRoutes } from '@jutbank/contract/sale';
import { useAnswer } from '../base/answers.ts';
import { Failed, Loading } from '../base/states.tsx';
import { PageTitle } from '../parts/PageTitle.tsx';
import { Sold } from './Sold.tsx';
import './sale.css';

export default function SalePage() {
  const { id = '' } = useParams();
  const sale = useAnswer(saleRoutes.sale, { params: { id } });
  if (sale.isPending) return <Loading />;
  if (sale.isError) return <Failed error={sale.error} retry={() => void sale.refetch()} />;
  return (
    <div className="page">
      <div className="pagehead">
        <PageTitle>{sale.data.title}</PageTitle>
        <Link className="mono" to={`/pieces/${sale.data.pieceId}`}>
          {sale.data.stockNumber}
        </Link>
        <span className="grow" />
        <Link to="/sales">All sales</Link>
      </div>
      <Sold saleId={id} />
    </div>
  );
}
