export { caller, Unanswered, type Call } from './caller.ts';
export { httpMarketplace, type Marketplace, type OutsideMessage } from './marketplace.ts';
export { Outbox, OutboxRounds, sendOut, type Errand } from './outbox.ts';
