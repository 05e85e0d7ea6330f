/** A worth of the valued stock, and behind it the sales it rested on that day. */
import { stockRoutes, type StockPiece } from '@jutbank/contract/worth';
import { Button, Dialog } from '@mui/material';
import { useId, useState } from 'react';
import { Link } from 'react-router';
import { useAnswer } from '../base/answers.ts';
import { Failed, Loading } from '../base/states.tsx';
import { counted, dayText, moneyText, signed } from '../parts/words.ts';

export function OpenedWorth({ valuation, piece }: { valuation: string; piece: StockPiece }) {
  const [open, setOpen] = useState(false);
  const heading = useId();
  if (!piece.worth) return <span className="soft">not valued</span>;
  return (
    <>
      <Button
        variant="text"
        className="quiet num"
        title="What it rested on"
        aria-haspopup="dialog"
        onClick={() => setOpen(true)}
      >
        {moneyText(piece.worth.estimate, true)}
      </Button>
      {open && (
        <Dialog open onClose={() => setOpen(false)} maxWidth="md" fullWidth aria-labelledby={heading}>
          <div className="stockgrounds">
            <h2 className="sec" id={heading}>
              {piece.title} <small className="mono">{piece.stockNumber}</small>
            </h2>
            <Rows valuation={valuation} piece={piece} />
          </div>
        </Dialog>
      )}
    </>
  );
}

function Rows({ valuation, piece }: { valuation: string; piece: StockPiece }) {
  const told = useAnswer(
    stockRoutes.stockGrounds,
    { params: { id: valuation, piece: piece.id } },
    { staleTime: Infinity },
  );
  if (told.isPending) return <Loading />;
  if (told.isError) return <Failed error={told.error} retry={() => void told.refetch()} />;
  const { at, person, worth, rows, rest, known } = told.data;
  return (
    <>
      <p>
        <span className="num appraisedfigure">{moneyText(worth?.estimate)}</span>{' '}
        <span className="soft num">
          {moneyText(worth?.low, true)} – {moneyText(worth?.high, true)}
        </span>
      </p>
      <p className="soft">
        As valued on {dayText(at)} by {person}. The sales as they stood then; they stay so whatever is entered
        since. <Link to={`/pieces/${piece.id}/worth`}>Its worth today</Link>
      </p>
      <div className="scroll" tabIndex={0} role="region" aria-label="Sales it rested on">
        <table className="grid">
          <thead>
            <tr>
              <th>Sold</th>
              <th>Where</th>
              <th className="r">Paid</th>
              <th className="r">Comes to</th>
              <th className="r">Weight</th>
              <th className="adjusted">Adjusted for</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => (
              <tr key={row.id}>
                <td className="num">{dayText(row.saleDate)}</td>
                <td>{row.venue}</td>
                <td className="r num">{moneyText(row.paid)}</td>
                <td className="r num">{moneyText(row.adjusted)}</td>
                <td className="r num">{weightText(row.weight)}</td>
                <td>
                  {row.adjustments
                    .filter((a) => Math.abs(a.percent) >= 0.5)
                    .map((a) => `${a.name} ${signed(a.percent)} %`)
                    .join(', ') || '–'}
                </td>
              </tr>
            ))}
            <tr>
              <td />
              <td colSpan={2}>
                What its pattern, maker and kind say
                {rest.count > 0 && `, and ${counted(rest.count)} more sales of it`}
              </td>
              <td className="r num">{moneyText(rest.adjusted)}</td>
              <td className="r num">{weightText(rest.weight)}</td>
              <td />
            </tr>
          </tbody>
        </table>
      </div>
      <p className="soft num">
        engine {known.engine} · sales {known.comparables} · rates {known.rates} · reference {known.reference}
      </p>
    </>
  );
}

const weightText = (weight: number) => `${(100 * weight).toFixed(1)} %`;
