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
  test('is drawn from its first day to its last, to the scale of the wider one around it', () => {
    const spans = spansDrawn('1936/1940', '1934/1945');
    expect(spans).toHaveLength(2);
    const [wide = [0, 0], narrow = [0, 0]] = [...spans].sort((a, b) => b[1] - b[0] - (a[1] - a[0]));
    const years = (wide[1] - wide[0]) / 12;
    expect((narrow[1] - narrow[0]) / years).toBeCloseTo(5, 1);
    expect((narrow[0] - wide[0]) / years).toBeCloseTo(2, 1);
  });
});

describe('the years under the bars', () => {
  const rule = (n: number) =>
    render(
      <YearRule
        core={undefined}
        bars={Array.from({ length: n }, (_, i) => ({ ...bar, label: `Form ${i}` }))}
        label="Forms"
      />,
    ).container;
  test('stay at the window’s foot where the bars are more than fit', () => {
    expect(rule(40).querySelector('.year-rule.long .years text')?.textContent).toMatch(/^\d{4}$/);
    cleanup();
    expect(rule(4).querySelector('.year-rule.long')).toBeNull();
  });
  test('begin and end where the bars do', () => {
    const view = (css: string) => rule(2).querySelector(css)?.getAttribute('viewBox')?.split(' ')[2];
    expect(view('.years')).toBe(view('svg[role=img]'));
  });
});
