import { describe, expect, test } from '@jest/globals';
import { fail, succeed } from '@jutbank/core/result';
import { ApiProblem } from '../base/api.ts';
import { withSeen, type Seen } from './table.ts';
import { orAsked } from './useBag.ts';

describe('what was seen', () => {
  const scales = (value: string): Seen => ({ label: value, make: { feature: 'scales', value } });
  const stamp = (mark: string, ofMaking = true): Seen => ({ label: mark, make: { mark }, ofMaking });
  test('another answer to one question takes the place of the first', () => {
    expect(withSeen([scales('horn'), stamp('a')], scales('wood'))).toEqual([stamp('a'), scales('wood')]);
  });
  test('a piece was made with one stamp; those struck later stand beside it', () => {
    const struckLater = stamp('re-issue', false);
    expect(withSeen([stamp('a'), struckLater], stamp('b'))).toEqual([struckLater, stamp('b')]);
    expect(withSeen([stamp('b')], struckLater)).toEqual([stamp('b'), struckLater]);
  });
});

describe('what the bag cannot answer', () => {
  const lacking = fail([{ pointer: '/pattern', message: 'The market of Tarnwick Works is not in the bag.' }]);
  const away = () => Promise.reject(new ApiProblem(0, 'The server does not answer', undefined, []));
  test('is asked of the server where there is a connection', async () => {
    expect(await orAsked(lacking, () => Promise.resolve('70.00'))).toBe('70.00');
  });
  test('is said in the bag’s own words where there is none', async () => {
    await expect(orAsked(lacking, away)).rejects.toThrow('The market of Tarnwick Works is not in the bag.');
  });
  test('what it can answer is asked of nobody else', async () => {
    expect(await orAsked(succeed('60.00'), away)).toBe('60.00');
  });
});
