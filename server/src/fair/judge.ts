/** The ceiling for what lies on the table, by the shop's market of today. */
import { checkFairQuestion, fairSubject, judgeAsked } from '@jutbank/core/fair';
import { VENUE_OF_SHOP } from '@jutbank/core/market';
import type { FairAnswer, FairQuestion } from '@jutbank/contract/fair';
import { todayIso } from '../clock/index.ts';
import { invalid } from '../http/index.ts';
import { estimateIn, inBase } from '../market/index.ts';
import type { Readers } from '../pieces/index.ts';
import { pricingSettingsOf, tradeTermsOf } from '../shop/index.ts';

/** @throws 422 where the question names what the reference does not have, or a currency without a rate */
export async function judgeFair(readers: Readers, question: FairQuestion): Promise<FairAnswer> {
  const [index, on, { settings }] = await Promise.all([
    readers.library.index(),
    readers.markets.on(todayIso()),
    pricingSettingsOf(readers.database),
  ]);
  const problems = checkFairQuestion(index, question);
  if (problems.length > 0) throw invalid(problems);
  const asked = inBase(on, question.asked);
  if (question.asked && asked === undefined)
    throw invalid([
      { pointer: '/asked/currency', message: `no exchange rate for ${question.asked.currency} is known` },
    ]);
  const estimate = await estimateIn(on, fairSubject(index, question), VENUE_OF_SHOP);
  return judgeAsked(on.base, tradeTermsOf(settings), estimate, question.care ?? settings.care, asked);
}
