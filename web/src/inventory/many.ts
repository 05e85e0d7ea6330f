/** Acts on many pieces, one after the other: each is its own change, and one that is refused holds nothing up. */
import { addMoney, type Money } from '@jutbank/core/money';
import { listingRoutes } from '@jutbank/contract/listing';
import { pieceRoutes } from '@jutbank/contract/pieces';
import { ApiProblem, send } from '../base/api.ts';

export interface Listed {
  readonly listed: number;
  readonly refused: readonly { readonly id: string; readonly name: string; readonly why: string }[];
}

/** Puts pieces up on the marketplace. @param told hears how many are done. @throws what is no refusal */
export async function putUp(ids: readonly string[], told: (done: number) => void): Promise<Listed> {
  const refused: { id: string; name: string; why: string }[] = [];
  for (const [at, id] of ids.entries()) {
    told(at);
    const { version, stockNumber, title } = await send(pieceRoutes.piece, { params: { id } });
    try {
      await send(listingRoutes.publish, { params: { id }, version });
    } catch (error) {
      if (!(error instanceof ApiProblem) || error.status === 0 || error.status >= 500) throw error;
      const why = error.errors.map(({ message }) => message).join(' ');
      refused.push({ id, name: `${stockNumber} ${title}`, why: why === '' ? error.message : why });
    }
  }
  return { listed: ids.length - refused.length, refused };
}

export interface Valued {
  /** by currency */
  readonly worth: readonly Money[];
  readonly asked: readonly Money[];
  readonly without: number;
}

/** What pieces are worth together, each reckoned as its sheet reckons it. @param told hears how many are done */
export async function valued(ids: readonly string[], told: (done: number) => void): Promise<Valued> {
  const worth: Money[] = [];
  const asked: Money[] = [];
  for (const [at, id] of ids.entries()) {
    told(at);
    const { readings, pricing } = await send(pieceRoutes.piece, { params: { id } });
    if (readings.worth) worth.push(readings.worth.estimate);
    if (pricing.ask) asked.push(pricing.ask);
  }
  return { worth: sums(worth), asked: sums(asked), without: ids.length - worth.length };
}

function sums(amounts: readonly Money[]): Money[] {
  const byCurrency = new Map<string, Money>();
  for (const amount of amounts) {
    const sum = byCurrency.get(amount.currency);
    byCurrency.set(amount.currency, sum ? addMoney(sum, amount) : amount);
  }
  return [...byCurrency.values()];
}
