export { demoPack } from './reference.ts';
