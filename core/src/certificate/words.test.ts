import { expect, test } from '@jest/globals';
import { lookedAt } from './words.ts';

test.each([
  [{ inspected: false, whole: true, findings: [] }, 'It was not inspected.'],
  [{ inspected: true, whole: false, findings: [] }, 'Not everything was examined.'],
  [
    { inspected: true, whole: true, faultless: true, findings: ['Number 88 of 300'] },
    'Everything on the list was examined; no fault was found.',
  ],
  [
    { inspected: true, whole: true, faultless: false, findings: ['Scales: crack'] },
    'Everything on the list was examined.',
  ],
  // from before it was asked how much was looked at
  [{ inspected: true, findings: [] }, 'Everything on the list was examined; no fault was found.'],
  [{ inspected: true, findings: ['Scales: crack'] }, 'Everything on the list was examined.'],
])('of %j it says %s', (certificate, words) => expect(lookedAt(certificate)).toBe(words));
