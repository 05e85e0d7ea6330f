export { type DateMessages, ENGLISH_DATES, type TellsDates } from './messages.ts';
export * from './day.ts';
export * from './period.ts';
export * from './spoken.ts';
