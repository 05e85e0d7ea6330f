/** From a price to the most to bid, step by step. */
import type { MostToPay } from '@jutbank/core/worth';
import { moneyText, sentence } from './words.ts';

export function Steps({ steps, currency }: { steps: MostToPay['steps']; currency: string }) {
  return (
    <table className="steps">
      <tbody>
        {steps.map((step) => (
          <tr key={step.name}>
            <td>{sentence(step.name)}</td>
            <td className="num">{moneyText({ amount: step.amount, currency })}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
