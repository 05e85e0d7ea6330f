/** One sale worked through by what stands in the form, kept or not. */
import { useState } from 'react';
import { subtractMoney } from '@jutbank/core/money';
import { CARE, leftOf, netOf } from '@jutbank/core/worth';
import { pricingSettings, type PricingSettings } from '@jutbank/contract/shop';
import { AmountInput } from '../parts/fields/figures.tsx';
import { moneyText, sentence } from '../parts/words.ts';

export function WorkedSale({
  settings,
  at,
  currency,
}: {
  settings: PricingSettings;
  at: number;
  currency: string;
}) {
  const [price, setPrice] = useState('150.00');
  const [paid, setPaid] = useState('80.00');
  const channel = settings.channels[at] ?? settings.channels[0];
  const amount = /^\d{1,9}(\.\d{1,3})?$/;
  const whole = pricingSettings.safeParse({
    ...settings,
    channels: settings.channels.map((c) => ({ ...c, name: c.name || 'unnamed' })),
  });
  const text = (x: string) => moneyText({ amount: x, currency });
  const less = (a: string, b: string) =>
    subtractMoney({ amount: a, currency }, { amount: b, currency }).amount;
  const ready = whole.success && channel && amount.test(price) && amount.test(paid);
  const net = ready ? netOf(currency, channel.channel, price) : undefined;
  const left = ready ? leftOf(currency, channel.channel, price, settings.tax, paid) : undefined;
  const lines =
    net && left
      ? ([
          ['postage charged', less(net.gross, price)],
          ['commission', less('0', net.commission)],
          ['fixed fee', less('0', net.fixedFee)],
          ['payment', less('0', net.paymentFee)],
          ['tax on fees', less('0', net.taxOnFees)],
          ['postage', less('0', net.postageCost)],
          ['packing', less('0', net.packing)],
          ['insurance', less('0', net.insurance)],
          [settings.tax.on === 'margin' ? 'tax on the margin' : 'tax on the sale', less('0', left.tax)],
        ] as const)
      : [];
  return (
    <aside className="worked">
      <h2 className="sec">
        A sale worked through <small>{channel?.name}</small>
      </h2>
      <div className="fields across">
        <AmountInput label="Sold for" currency={currency} value={price} onChange={(x) => setPrice(x ?? '')} />
        <AmountInput label="Had cost" currency={currency} value={paid} onChange={(x) => setPaid(x ?? '')} />
      </div>
      {left ? (
        <table className="steps" style={{ marginTop: 12 }}>
          <tbody>
            {lines
              .filter(([, x]) => Number(x) !== 0)
              .map(([name, x]) => (
                <tr key={name}>
                  <td>{sentence(name)}</td>
                  <td className="num">{text(x)}</td>
                </tr>
              ))}
            <tr>
              <td>
                <b>Left</b>
              </td>
              <td className="num">
                <b>{text(left.left)}</b>
              </td>
            </tr>
            <tr>
              <td>Less what it cost</td>
              <td className="num">{text(less(left.left, paid))}</td>
            </tr>
          </tbody>
        </table>
      ) : (
        <p className="soft" style={{ marginTop: 10 }}>
          Something in the form or here is no number yet.
        </p>
      )}
      <p className="soft" style={{ marginTop: 10 }}>
        The point that is counted on: {Math.round(CARE[settings.care] * 100)} of 100 such pieces bring less.
      </p>
    </aside>
  );
}
