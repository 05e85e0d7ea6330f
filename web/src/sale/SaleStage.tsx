/** The sale of a piece: what binds it before, the sale itself, and what comes after. */
import { Link } from 'react-router';
import { dayText } from '../parts/words.ts';
import { Elsewhere } from '../pieces/Elsewhere.tsx';
import { useSheet } from '../pieces/useSheet.ts';
import { Bound } from './Bound.tsx';
import { GivenBack } from './GiveBack.tsx';
import { Sell } from './Sell.tsx';
import { Sold } from './Sold.tsx';
import './sale.css';

export default function SaleStage() {
  const sheet = useSheet();
  if (sheet.sale)
    return (
      <div className="stage">
        <Elsewhere sheet={sheet} />
        <Sold saleId={sheet.sale.id} />
      </div>
    );
  return (
    <div className="stage twocol">
      <section>
        {sheet.givenBack && <Elsewhere sheet={sheet} />}
        {sheet.returnedSales.map((past) => (
          <p key={past.id} className="note" style={{ marginBottom: 10 }}>
            <b>It was sold before, and came back {dayText(past.returnedOn)}.</b>
            <Link to={`/sales/${past.id}`}>Invoice {past.invoiceNumber}, and how it compares</Link>
          </p>
        ))}
        {sheet.givenBack ? <GivenBack sheet={sheet} back={sheet.givenBack} /> : <Sell sheet={sheet} />}
      </section>
      {!sheet.givenBack && <Bound sheet={sheet} />}
    </div>
  );
}
