import { afterEach, describe, expect, test } from '@jest/globals';
import { cleanup, render } from '@testing-library/react';
import { YearRule } from './YearRule.tsx';

afterEach(cleanup);

const bar = {
  label: 'Bolsters: grooved',
  source: 'works ledger 45',
  strict: ['1900/1980'],
  lenient: [],
  binds: 'both' as const,
};
/** Left and right ends of what spans the whole height of the rule. */
function spansDrawn(core: string, outer?: string) {
  const { container } = render(
    <YearRule core={core} {...(outer === undefined ? {} : { outer })} bars={[bar]} label="When" />,
  );
  return [...container.querySelectorAll('rect[y="2"]')].map((r) => {
    const x = Number(r.getAttribute('x'));
    return [x, x + Number(r.getAttribute('width'))] as const;
  });
}

describe('the bracket', () => {
  test('is drawn from the first day to the last, ten times as wide for ten times as long', () => {
    const [[from = 0, to = 0] = []] = spansDrawn('1935/1944');
    cleanup();
    const [[begin = 0, end = 0] = []] = spansDrawn('1935/1935');
    expect(begin).toBeCloseTo(from, 1);
    expect((to - from) / (end - begin)).toBeCloseTo(10, 0);
  });
  test('lies within the wider one around it', () => {
    const spans = spansDrawn('1936/1940', '1934/1944');
    expect(spans).toHaveLength(2);
    const [wide = [0, 0], narrow = [0, 0]] = [...spans].sort((a, b) => b[1] - b[0] - (a[1] - a[0]));
    expect(narrow[0]).toBeGreaterThan(wide[0]);
    expect(narrow[1]).toBeLessThan(wide[1]);
  });
});
