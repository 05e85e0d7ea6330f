export { mountSale } from './routes.ts';
export { mountMoney } from './money.ts';
export { mountDecisions } from './decisions.ts';
