import { describe, expect, test } from '@jest/globals';
import type { Feature } from '@jutbank/core/reference';
import { readingOf } from './Gauges.tsx';

const length: Feature = { id: 'closed', label: 'Closed length', part: 'frame', kind: 'measure', unit: 'mm' };
const mass: Feature = { id: 'mass', label: 'Weight', part: 'frame', kind: 'measure', unit: 'g' };

describe('what a gauge says becomes an observation', () => {
  test.each([
    ['97.62 mm', 97.62, 0.01],
    ['3.8435 in', 97.6249, 0.0025],
    // a keyboard-wedge gauge types the figure alone
    ['97.6', 97.6, 0.1],
  ])('%s', (text, measure, resolution) => {
    expect(readingOf(length, text)).toEqual({ feature: 'closed', measure, resolution, text });
  });

  test('a weight is no length, and a state is no reading', () => {
    expect(readingOf(length, '62.5 g')).toBeUndefined();
    expect(readingOf(mass, '62.5 g')).toMatchObject({ measure: 62.5, resolution: 0.1 });
    expect(readingOf(length, 'hold on')).toBeUndefined();
  });
});
