export { ALLOCATION_METHODS, type Allocation, allocateLot } from './allocation.ts';
