export { Table, type Column } from './Table.tsx';
