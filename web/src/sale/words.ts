/** Words of sales that several of their screens use. */
import type { SaleTax } from '@jutbank/core/money';
import type { SaleState } from '@jutbank/contract/sale';

export const SCHEME_WORDS: Readonly<Record<SaleTax['on'], string>> = {
  none: 'without tax',
  sales: 'on the whole price',
  margin: 'on the margin',
};
export const STATE_WORDS: Readonly<Record<SaleState, string>> = {
  unpaid: 'To be paid',
  'to-send': 'To be sent',
  'to-settle': 'Owner to be paid',
  done: 'Done',
  returned: 'Came back',
};
