export { knownContact, mountContacts } from './routes.ts';
