/** Which of the shop's words stand on a paper of a sale, by the scheme of its tax. */
export const WORDING = { none: 'untaxed', sales: 'onSale', margin: 'onMargin' } as const;
