/** What a sale came to: every fee, the tax, what was given back, what is left. */
import type { SaleRecord } from '@jutbank/contract/sale';
import { moneyText } from '../parts/words.ts';
import { SCHEME_WORDS } from './words.ts';

const NET_LINES = [
  ['gross', 'Paid by the buyer', 1],
  ['commission', 'Commission', -1],
  ['fixedFee', 'Fixed fee', -1],
  ['paymentFee', 'Payment', -1],
  ['taxOnFees', 'Tax on fees', -1],
  ['postageCost', 'Postage', -1],
  ['packing', 'Packing', -1],
  ['insurance', 'Insurance', -1],
  ['tax', 'Tax that the price held', -1],
] as const;

export function Account({ sale }: { sale: SaleRecord }) {
  return (
    <section>
      <h2 className="sec">
        What is left{' '}
        {sale.net && (
          <small>
            {sale.net.channel}; taxed {SCHEME_WORDS[sale.taxScheme]}
          </small>
        )}
      </h2>
      {sale.net && sale.account ? (
        <NetTable sale={sale} net={sale.net} account={sale.account} />
      ) : (
        <p className="soft">The owner has not opened margins to readers.</p>
      )}
    </section>
  );
}

function NetTable({
  sale: s,
  net,
  account,
}: {
  sale: SaleRecord;
  net: NonNullable<SaleRecord['net']>;
  account: NonNullable<SaleRecord['account']>;
}) {
  const amount = (text: string) => moneyText({ amount: text, currency: s.price.currency });
  return (
    <>
      <table className="grid">
        <tbody>
          {NET_LINES.filter(([key]) => key === 'gross' || Number(net[key]) !== 0).map(
            ([key, label, sign]) => (
              <tr key={key}>
                <td>{label}</td>
                <td className="r num">
                  {sign < 0 ? '− ' : ''}
                  {amount(net[key])}
                </td>
              </tr>
            ),
          )}
          <Sum label="Left" text={amount(net.left)} />
          {s.credits.map((credit) => (
            <tr key={credit.id}>
              <td>Given back, {credit.number}</td>
              <td className="r num">− {moneyText(credit.refund)}</td>
            </tr>
          ))}
          {s.credits.length > 0 && (
            <Sum label="Left, with fees and tax put right" text={amount(account.left)} />
          )}
          {s.returnedOn === null && (
            <tr>
              <td>Cost{s.settlement && ', the owner’s part'}</td>
              <td className="r num">{s.cost ? `− ${moneyText(s.cost)}` : 'not recorded'}</td>
            </tr>
          )}
          <Sum
            label={s.returnedOn === null ? 'Margin' : 'What the sale brought'}
            text={s.margin ? moneyText(s.margin) : '–'}
          />
        </tbody>
      </table>
      <p className="soft" style={{ fontSize: 12, marginTop: 8 }}>
        {s.returnedOn === null
          ? 'The realised price stands among the comparables now.'
          : 'The piece is in stock again at its cost; its price no longer counts among the comparables.'}{' '}
        Fees and tax are those the shop reckoned with on that day; what is owed is for its books and its tax
        adviser to say.
      </p>
    </>
  );
}

const Sum = ({ label, text }: { label: string; text: string }) => (
  <tr className="on">
    <td>
      <b>{label}</b>
    </td>
    <td className="r num">
      <b>{text}</b>
    </td>
  </tr>
);
