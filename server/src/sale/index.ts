export { mountSale } from './routes.ts';
export { mountMoney } from './money.ts';
export { mountEnds } from './ends.ts';
export { mountFair } from './fair.ts';
export { mountOffers } from './offers.ts';
export { piecePrices, shopPrices } from './prices.ts';
export { mountStock, revalueStock } from './stock.ts';
