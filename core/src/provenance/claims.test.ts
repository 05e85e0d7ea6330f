import { describe, expect, test } from '@jest/globals';
import { dayOf } from '../dates/index.ts';
import { checkClaim, claimInWords, type DocumentClaim, type SeenOfPiece } from './claims.ts';
import type { CustodyEvent } from './custody.ts';
import { trailOf } from './trail.ts';

const corrie: CustodyEvent = {
  holder: 'Elias Corrie',
  private: true,
  place: 'Norham Vale',
  period: '1934/1960',
  how: null,
  evidence: 'document',
  note: null,
};
const seen: SeenOfPiece = {
  observations: [
    { feature: 'scales', value: 'horn' },
    { part: 'blade', number: '4 118' },
  ],
  custody: [corrie],
  made: { from: dayOf(1934), to: dayOf(1936) },
  featureInWords: (feature, value) => `${feature} ${String(value)}`,
};
const verdict = (claim: DocumentClaim, more: Partial<SeenOfPiece> = {}) =>
  checkClaim(claim, { ...seen, ...more }).verdict;

describe('what a document says, against the piece', () => {
  test.each<[string, DocumentClaim, string]>([
    [
      'a package that names the scales it has',
      { kind: 'feature', feature: 'scales', value: 'horn' },
      'agrees',
    ],
    ['one that names others', { kind: 'feature', feature: 'scales', value: 'bone' }, 'contradicts'],
    [
      'one that names what nobody looked at',
      { kind: 'feature', feature: 'steel', value: 'carbon' },
      'not-seen',
    ],
    ['its number, written otherwise', { kind: 'number', number: '4-118' }, 'agrees'],
    ['another number', { kind: 'number', number: '4119' }, 'contradicts'],
    ['a copyright line of its years', { kind: 'made', period: '1935' }, 'agrees'],
    ['a copyright line of later', { kind: 'made', period: '1948' }, 'contradicts'],
    ['its owner', { kind: 'owner', holder: 'elias corrie', period: '1950' }, 'agrees'],
    [
      'another owner in years that are known',
      { kind: 'owner', holder: 'Rosa Halvern', period: '1950' },
      'contradicts',
    ],
    ['another owner later', { kind: 'owner', holder: 'Rosa Halvern', period: '1970' }, 'open'],
    ['an owner at no time', { kind: 'owner', holder: 'Rosa Halvern', period: null }, 'open'],
    ['something else', { kind: 'other', says: 'carried on the pilot boat' }, 'open'],
  ])('%s', (_, claim, expected) => expect(verdict(claim)).toBe(expected));
  test('what dates nothing contradicts nothing; no number read, none contradicted', () => {
    expect(verdict({ kind: 'made', period: '1948' }, { made: undefined })).toBe('open');
    expect(verdict({ kind: 'number', number: '1' }, { observations: [] })).toBe('not-seen');
  });
  test('an owner of just those days speaks against another; one of fewer does not', () => {
    const days = '1934-01-01/1960-12-31';
    const claim: DocumentClaim = { kind: 'owner', holder: 'Rosa Halvern', period: days };
    expect(verdict(claim, { custody: [{ ...corrie, period: days }] })).toBe('contradicts');
    expect(verdict(claim, { custody: [{ ...corrie, period: '1934-01-01/1960-12-30' }] })).toBe('open');
    expect(verdict(claim, { custody: [{ ...corrie, period: '1934-01-02/1960-12-31' }] })).toBe('open');
  });
  test('a number that a code’s text holds counts as read; a size in words does not', () => {
    const claim: DocumentClaim = { kind: 'number', number: '118' };
    expect(verdict(claim, { observations: [{ code: 'serial', text: 'No. 118' }] })).toBe('contradicts');
    expect(verdict(claim, { observations: [{ code: 'serial', text: '118' }] })).toBe('agrees');
    expect(verdict(claim, { observations: [{ feature: 'length', measure: 118, text: '118' }] })).toBe(
      'not-seen',
    );
  });
  test('a private owner is not named in what stands against a claim', () =>
    expect(checkClaim({ kind: 'owner', holder: 'Rosa Halvern', period: '1950' }, seen).because).not.toContain(
      'Corrie',
    ));
  test('in words', () => {
    expect(claimInWords({ kind: 'made', period: '1935' }, seen.featureInWords)).toBe('made 1935');
    expect(claimInWords({ kind: 'owner', holder: 'R. H.', period: null }, seen.featureInWords)).toBe(
      'R. H. had it',
    );
  });
});

describe('further things that a trail is held against', () => {
  const TODAY = dayOf(2026, 11, 1);
  const open = (holder: string, period: string, place: string | null = null): CustodyEvent => ({
    ...corrie,
    private: false,
    holder,
    period,
    place,
  });
  const kinds = (events: CustodyEvent[], context: Parameters<typeof trailOf>[3]) =>
    trailOf(events, undefined, TODAY, context).problems.map((p) => p.kind);
  test('somebody who had it after the shop bought it', () => {
    expect(kinds([open('Quay museum', '2025')], { acquired: '2024-03' })).toEqual(['sold-before-bought']);
    expect(kinds([open('Quay museum', '2024')], { acquired: '2024-03' })).toEqual([]);
  });
  test('one holder in two places at one time', () => {
    const two = [
      open('Quay museum', '1950/1970', 'Hollin Quay'),
      open('quay  museum', '1955/1975', 'Skerry Bay'),
    ];
    expect(kinds(two, {})).toContain('place');
    expect(kinds([two[0] ?? corrie, open('Quay museum', '1971/1975', 'Skerry Bay')], {})).not.toContain(
      'place',
    );
  });
  test('a body before it existed, and by a name it did not have yet', () => {
    const bodies = [
      {
        names: [
          { name: 'Coastal Service', period: '1920/1946' },
          { name: 'Harbour Authority', period: '1947/1980' },
        ],
      },
    ];
    expect(kinds([open('Coastal Service', '1910')], { bodies })).toEqual(['body-not-yet']);
    const called = trailOf([open('Harbour Authority', '1938')], undefined, TODAY, { bodies }).problems[0];
    expect([called?.kind, called?.detail]).toEqual([
      'name-of-the-day',
      'In 1938 Harbour Authority was called Coastal Service.',
    ]);
    expect(kinds([open('Coastal Service', '1938')], { bodies })).toEqual([]);
  });
  test('a gap as long as the shop’s setting, and no longer', () => {
    const events = [open('A', '1936/1940'), open('B', '1950/2026')];
    expect(kinds(events, { gapYears: 8 })).toEqual(['gap']);
    expect(kinds(events, { gapYears: 12 })).toEqual([]);
  });
  test('what a document contradicts is told as it stands', () =>
    expect(kinds([], { contradicted: ['The letter of 1942 names number 7.'] })).toEqual(['document']));
});
