export { listLook, listMapping, nameSaidShape, rowError, type RowError } from './lists.ts';
