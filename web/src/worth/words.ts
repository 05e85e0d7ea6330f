/** The words of appraisals: purposes, bases, and what moved a figure. */
import type { Basis, Cause } from '@jutbank/core/worth';
import type { Purpose } from '@jutbank/contract/worth';

export const PURPOSE_WORDS: Record<Purpose, string> = {
  insurance: 'Insurance',
  sale: 'A sale',
  estate: 'An estate',
  division: 'A division of property',
  gift: 'A gift',
  loan: 'A loan to an exhibition',
  'own-records': 'The owner’s own records',
};
export const BASIS_WORDS: Record<Basis, string> = {
  market: 'Market value',
  'retail-ask': 'Asked in a shop',
  'insurance-replacement': 'Replacement for insurance',
  'quick-sale': 'Quick sale to the trade',
};
export const CAUSE_WORDS: Record<Cause, string> = {
  sales: 'Sales',
  rates: 'Exchange rates',
  reference: 'The reference',
  engine: 'The way it is reckoned',
  piece: 'The piece itself',
};
export const METHOD_WORDS: Readonly<Record<string, string>> = {
  'adjustment-grid': 'The grid',
  'fixed-percentages': 'Fixed percentages',
  'median-of-raw': 'Middle of raw prices',
};
