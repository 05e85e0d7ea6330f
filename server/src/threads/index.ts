export { Thread } from './thread.ts';
export { answering, databaseOfThread } from './answering.ts';
