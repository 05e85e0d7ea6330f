/** Behind the lines of a grid: pairs of sales that differ in one thing only; and near sales that are in none of its lines. */
import { Button } from '@mui/material';
import { Fragment, useState } from 'react';
import type { Grounds as Shown, PairsShown } from '@jutbank/contract/worth';
import { dayText, moneyText, sentence, signed } from '../parts/words.ts';

const PAIRS_IN_LINE = 4;
const NEAR_SHOWN = 8;

export function Grounds({ grounds }: { grounds: Shown }) {
  return (
    <div className="twocol grounds">
      <Pairs pairs={grounds.pairs} />
      <Near near={grounds.near} />
    </div>
  );
}

function Pairs({ pairs }: { pairs: Shown['pairs'] }) {
  const [open, setOpen] = useState<string>();
  return (
    <section>
      <h2 className="sec">
        What buyers paid for one difference <small>same variant, all else alike, within two years</small>
      </h2>
      {pairs.length === 0 ? (
        <p className="soft">
          No two sales of one variant differ in a single thing: the lines rest on all sales together.
        </p>
      ) : (
        <div className="scroll" tabIndex={0} role="region" aria-label="Paired sales">
          <table className="grid">
            <thead>
              <tr>
                <th>Difference</th>
                <th>Pairs</th>
                <th className="r">Their middle</th>
                <th className="r">The engine says</th>
              </tr>
            </thead>
            <tbody>
              {pairs.map((line) => (
                <Fragment key={line.said}>
                  <tr>
                    <td>{sentence(line.said)}</td>
                    <td>
                      <Button
                        variant="text"
                        className="quiet"
                        aria-expanded={open === line.said}
                        onClick={() => setOpen(open === line.said ? undefined : line.said)}
                      >
                        <span className="num">
                          {line.pairs
                            .slice(0, PAIRS_IN_LINE)
                            .map((pair) => `${signed(pair.percent)} %`)
                            .join(', ')}
                        </span>
                        {line.count > PAIRS_IN_LINE && ` of ${line.count}`}
                      </Button>
                    </td>
                    <td className="r num">{signed(line.middle)} %</td>
                    <td className="r num">{signed(line.engine)} %</td>
                  </tr>
                  {open === line.said && <PairsOpened line={line} />}
                </Fragment>
              ))}
            </tbody>
          </table>
        </div>
      )}
    </section>
  );
}

function PairsOpened({ line }: { line: PairsShown }) {
  return line.pairs.map((pair) => (
    <tr key={`${pair.more.id} ${pair.less.id}`} className="soft">
      <td colSpan={2}>
        <span className="num">{moneyText(pair.more.paid)}</span> {pair.more.venue},{' '}
        {dayText(pair.more.saleDate)}
        {' against '}
        <span className="num">{moneyText(pair.less.paid)}</span> {pair.less.venue},{' '}
        {dayText(pair.less.saleDate)}
      </td>
      <td className="r num">{signed(pair.percent)} %</td>
      <td className="r num">{signed(pair.engine)} %</td>
    </tr>
  ));
}

function Near({ near }: { near: Shown['near'] }) {
  const [all, setAll] = useState(false);
  const shown = all ? near : near.slice(0, NEAR_SHOWN);
  return (
    <section>
      <h2 className="sec">
        Near, and not in the grid <small>of the same pattern</small>
      </h2>
      {near.length === 0 ? (
        <p className="soft">Every sale of the pattern that is known stands in the grid.</p>
      ) : (
        <div className="scroll" tabIndex={0} role="region" aria-label="Near sales">
          <table className="grid">
            <tbody>
              {shown.map((sale) => (
                <tr key={sale.id}>
                  <td className="num">{dayText(sale.saleDate)}</td>
                  <td className="r num">{moneyText(sale.price)}</td>
                  <td>
                    {sale.variant ?? 'form not told'}, {sale.venue}
                    <span className="soft" style={{ display: 'block' }}>
                      {sale.why}
                    </span>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      {near.length > shown.length && (
        <Button variant="text" className="quiet" onClick={() => setAll(true)}>
          all {near.length}
        </Button>
      )}
    </section>
  );
}
