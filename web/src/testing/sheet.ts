/** A piece as the screens are given it, of the tests' own. */
import { freshInspection } from '@jutbank/core/condition';
import type { PieceSheet } from '@jutbank/contract/pieces';

export const eur = (amount: string) => ({ amount, currency: 'EUR' });

export const sheetOf = (more: Partial<PieceSheet> = {}): PieceSheet => ({
  id: '01ARZ3NDEKTSV4RRFFQ69G5FAV',
  stockNumber: 'HQ-0001',
  title: 'Harbour jack',
  construction: 'slipjoint',
  stage: 'worth',
  missing: '',
  attention: [],
  picture: null,
  cost: eur('80.00'),
  ask: null,
  readings: {
    which: { tier: 'probable', label: 'Harbour jack, Service issue', probability: 0.8, decided: true },
    when: null,
    condition: null,
    worth: null,
    trail: { word: 'none', share: 0, problems: 0 },
  },
  version: 7,
  createdAt: '2026-11-01T10:00:00Z',
  intake: {
    title: 'Harbour jack',
    construction: 'slipjoint',
    sourceKind: 'fair',
    sourceName: '',
    sourcePlace: '',
    acquired: '2026-10',
    price: eur('80.00'),
    sellerStatement: '',
    cameWith: '',
    asFound: null,
  },
  pictures: [],
  observations: [],
  attribution: null,
  date: null,
  overruled: false,
  age: null,
  quotedScale: 'collector',
  quoted: null,
  sealed: false,
  narrowing: { makers: [], patterns: [] },
  condition: {
    findings: [],
    completeness: {},
    inspected: true,
    inspection: freshInspection('slipjoint'),
  },
  grade: {
    conditionIndex: 88,
    grades: [
      { scale: 'collector', grade: 'excellent', would: 'excellent', caps: [], toNextUp: '' },
      { scale: 'user', grade: 'like-new', would: 'like-new', caps: [], toNextUp: '' },
    ],
    disclosures: [],
  } as unknown as PieceSheet['grade'],
  custody: [],
  trail: { word: 'none', share: 0, problems: [] } as unknown as PieceSheet['trail'],
  pricing: { ask: null, floor: null, note: '' },
  listing: null,
  sale: null,
  ...more,
});
