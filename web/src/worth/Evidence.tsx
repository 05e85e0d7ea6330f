/** What a value rests on: figure and range, the ways side by side, the market, and each sale with what was found out about it. */
import { Button, ButtonBase } from '@mui/material';
import { Roving } from '../parts/Roving.tsx';
import { CellInput } from '../parts/fields/CellInput.tsx';
import { Fragment, useState } from 'react';
import type { AppraisalEvidence, AppraisedRow, SaleCheck } from '@jutbank/contract/worth';
import { dayText, moneyText, sentence, signed } from '../parts/words.ts';
import { Grounds } from './Grounds.tsx';
import { METHOD_WORDS } from './words.ts';

type Shown = Pick<
  AppraisalEvidence,
  | 'figure'
  | 'low'
  | 'high'
  | 'methods'
  | 'rows'
  | 'rest'
  | 'market'
  | 'notes'
  | 'corrected'
  | 'definition'
  | 'grounds'
>;
const SHOWN = 12;

export function Evidence({
  evidence,
  heading,
  checks,
  onCheck,
}: {
  evidence: Shown;
  heading: string;
  checks: ReadonlyMap<string, SaleCheck>;
  /** absent where the record stands */
  onCheck?: (check: SaleCheck) => void;
}) {
  const [all, setAll] = useState(false);
  const [open, setOpen] = useState<string>();
  const used = evidence.rows.filter((row) => row.excluded === null);
  const leftOut = evidence.rows.filter((row) => row.excluded !== null);
  const shown = all ? used : used.slice(0, SHOWN);
  const { market } = evidence;
  return (
    <>
      <h2 className="sec">{heading}</h2>
      <p className="num appraisedfigure">
        {moneyText(evidence.figure)}{' '}
        <span className="soft">
          {moneyText(evidence.low, true)} – {moneyText(evidence.high, true)}
        </span>
      </p>
      <p className="soft">{evidence.definition} Four of five such sales fall inside the range.</p>
      <table className="grid methods">
        <tbody>
          {evidence.methods.map((m) => (
            <tr key={m.name}>
              <td>{METHOD_WORDS[m.name] ?? sentence(m.name)}</td>
              <td className="r num">{moneyText(m.estimate)}</td>
            </tr>
          ))}
          {evidence.corrected && (
            <tr>
              <td>The grid with corrections by hand</td>
              <td className="r num">{moneyText(evidence.corrected)}</td>
            </tr>
          )}
        </tbody>
      </table>
      <p className={market.beyondLastSale ? 'note bad' : 'soft'}>
        {market.lastSale === null
          ? 'No sale is known up to this day.'
          : `How prices moved is carried by ${market.soldInTwoYears} sales of the two years before; the last of them is of ${dayText(market.lastSale)}.`}
        {market.beyondLastSale && ' The date lies beyond it: what happened to prices since is not known.'}
      </p>
      {evidence.notes.map((note) => (
        <p key={note} className="note">
          {note}
        </p>
      ))}
      <div className="scroll" tabIndex={0} role="region" aria-label="Sales that bear on it">
        <table className="grid">
          <thead>
            <tr>
              <th>Sold</th>
              <th>Where</th>
              <th className="r">Paid</th>
              <th className="r">Adjusted, net</th>
              <th className="r">Gross</th>
              <th className="r">Comes to</th>
              <th className="r">Weight</th>
              <th>Checked</th>
            </tr>
          </thead>
          <tbody>
            {shown.map((row) => (
              <Fragment key={row.id}>
                <tr>
                  <td className="num">{dayText(row.saleDate)}</td>
                  <td>{row.venue}</td>
                  <td className="r num">{moneyText(row.paid)}</td>
                  <td className="r num">{signed(row.net, 1)} %</td>
                  <td className={row.wide ? 'r num warn' : 'r num'}>{row.gross.toFixed(0)} %</td>
                  <td className="r num">{moneyText(row.adjusted)}</td>
                  <td className="r num">{(100 * row.weight).toFixed(1)} %</td>
                  <td>
                    {onCheck ? (
                      <Button
                        variant="text"
                        className="quiet"
                        aria-expanded={open === row.id}
                        onClick={() => setOpen(open === row.id ? undefined : row.id)}
                      >
                        {checkText(checks.get(row.id)) || 'not checked'}
                      </Button>
                    ) : (
                      <span className="soft">{checkText(checks.get(row.id)) || 'not checked'}</span>
                    )}
                  </td>
                </tr>
                {open === row.id && onCheck && (
                  <tr>
                    <td colSpan={8}>
                      <CheckForm row={row} check={checks.get(row.id)} onCheck={onCheck} />
                    </td>
                  </tr>
                )}
              </Fragment>
            ))}
            <tr>
              <td colSpan={5}>
                What pattern, maker and kind say{' '}
                <span className="soft">with {evidence.rest.count} other prices</span>
              </td>
              <td className="r num">{moneyText(evidence.rest.adjusted)}</td>
              <td className="r num">{(100 * evidence.rest.weight).toFixed(1)} %</td>
              <td />
            </tr>
          </tbody>
        </table>
      </div>
      {used.length > shown.length && (
        <Button variant="text" className="quiet" onClick={() => setAll(true)}>
          all {used.length} sales
        </Button>
      )}
      {leftOut.length > 0 && (
        <p className="soft">
          Left out: {leftOut.length} {leftOut.length === 1 ? 'price' : 'prices'} (
          {[...new Set(leftOut.map((row) => sentence(row.excluded ?? '').toLowerCase()))].join(', ')}).
        </p>
      )}
      {evidence.grounds && <Grounds grounds={evidence.grounds} />}
    </>
  );
}

function checkText(check: SaleCheck | undefined | null): string {
  if (!check) return '';
  if (check.rejected !== '') return `not relied on: ${check.rejected}`;
  return [
    check.seen ? 'seen' : '',
    check.confirmedWith === '' ? '' : `confirmed with ${check.confirmedWith}`,
    check.armsLength === 'no' ? 'not at arm’s length' : check.armsLength === 'yes' ? 'at arm’s length' : '',
    check.lot === 'in-a-lot' ? 'in a lot' : check.lot === 'single' ? 'single' : '',
  ]
    .filter((mark) => mark !== '')
    .join(', ');
}

const UNCHECKED = {
  seen: false,
  confirmedWith: '',
  armsLength: 'unknown',
  lot: 'unknown',
  rejected: '',
} as const;

function CheckForm({
  row,
  check,
  onCheck,
}: {
  row: AppraisedRow;
  check: SaleCheck | undefined;
  onCheck: (check: SaleCheck) => void;
}) {
  const now: SaleCheck = check ?? { comparable: row.id, ...UNCHECKED };
  const chip = (name: string, on: boolean, to: Partial<SaleCheck>) => (
    <ButtonBase key={name} className="chip" aria-pressed={on} onClick={() => onCheck({ ...now, ...to })}>
      {name}
    </ButtonBase>
  );
  return (
    <div className="salecheck">
      <Roving className="chips" role="group" aria-label="What was found out about this sale">
        {chip('seen', now.seen, { seen: !now.seen })}
        {chip('at arm’s length', now.armsLength === 'yes', { armsLength: 'yes' })}
        {chip('not at arm’s length', now.armsLength === 'no', { armsLength: 'no' })}
        {chip('sold singly', now.lot === 'single', { lot: 'single' })}
        {chip('in a lot', now.lot === 'in-a-lot', { lot: 'in-a-lot' })}
      </Roving>
      <CellInput
        text
        label="Confirmed with"
        hint="confirmed with"
        maxLength={160}
        value={now.confirmedWith}
        onType={(confirmedWith) => onCheck({ ...now, confirmedWith })}
      />
      <CellInput
        text
        label="Not relied on, because"
        hint="not relied on, because"
        maxLength={300}
        value={now.rejected}
        onType={(rejected) => onCheck({ ...now, rejected })}
      />
    </div>
  );
}
