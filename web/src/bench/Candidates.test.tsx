/** What it may be, by the engine itself on a small reference: names and odds, what tells them apart, the decision. */
import { afterEach, describe, expect, test } from '@jest/globals';
import { cleanup, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { compileReference, identify, type Observation } from '@jutbank/core/bench';
import { asDay } from '@jutbank/core/dates';
import { emptyContents, type PackContents } from '@jutbank/core/reference';
import type { Vocabulary } from '@jutbank/contract/reference';
import type { Role } from '@jutbank/contract/shop';
import { shield } from '../testing/reference.ts';
import { serve, show } from '../testing/screen.tsx';
import { sheetOf } from '../testing/sheet.ts';
import { Candidates } from './Candidates.tsx';

afterEach(cleanup);

const contents: PackContents = {
  ...emptyContents(),
  makers: [{ id: 'bh', name: 'Brackenholt Cutlery', active: '1908/1994' }],
  features: [shield],
  patterns: [{ id: 'jack', maker: 'bh', name: 'Harbour jack', construction: 'slipjoint' }],
  variants: [
    {
      id: 'plain',
      pattern: 'jack',
      name: 'Trade',
      kind: 'production',
      window: '1908/1918',
      made: { quantity: 40000, basis: 'documented' },
      features: { shield: ['bar'] },
    },
    {
      id: 'naval',
      pattern: 'jack',
      name: 'Service issue',
      kind: 'service',
      window: '1934/1936',
      made: { quantity: 40000, basis: 'documented' },
      features: { shield: ['anchor'] },
    },
  ],
};
const index = compileReference(contents, '1', asDay(20_700));
const vocabulary: Vocabulary = {
  revision: '1',
  makers: [{ id: 'bh', name: 'Brackenholt Cutlery', patterns: 1, variants: 2 }],
  patterns: contents.patterns.map((p) => ({ ...p, variants: 2, form: null })),
  features: contents.features,
  marks: [],
  codes: [],
  sources: [],
};
const names = new Map(
  contents.variants.map((variant) => [
    variant.id,
    {
      variant,
      label: `Harbour jack, ${variant.name}`,
      window: variant.window ?? undefined,
      made: '40,000 made',
    },
  ]),
);
function open(observations: Observation[], role: Role = 'owner') {
  serve({});
  const chosen: string[] = [];
  const { container } = show(
    <Candidates
      sheet={sheetOf({ observations, attribution: null })}
      answer={identify(index, { observations })}
      vocabulary={vocabulary}
      chosen={undefined}
      onChoose={(variant) => chosen.push(variant)}
      saved
      names={names}
      onPoint={() => undefined}
    />,
    { role },
  );
  return { container, chosen };
}
const candidate = (name: RegExp) => screen.getByRole('button', { name });
const anchor: Observation = { feature: 'shield', value: 'anchor' };

describe('the candidates', () => {
  test('say before anything was seen that nothing was', () => {
    open([]);
    expect(screen.getAllByText('nothing seen yet')).toHaveLength(2);
  });
  test('stand by their odds, with when and how many were made; one that leads is taken for the one meant', () => {
    open([anchor]);
    const [first] = screen.getAllByRole('button', { pressed: true });
    expect(first?.textContent).toMatch(/^Harbour jack, Service issue/);
    expect(first?.textContent).toContain('1934 – 1936 · 40,000 made');
    expect(first?.textContent).toMatch(/\d+ in 100/);
    screen.getByText('Something not in the reference');
  });
  test('are chosen by a press', async () => {
    const { chosen } = open([]);
    await userEvent.click(candidate(/Service issue/));
    expect(chosen).toEqual(['naval']);
  });
  test('show enlarged, each on itself, the small thing in which they differ', () => {
    const { container } = open([]);
    const insets = [...container.querySelectorAll('.cand')].map((c) => c.querySelectorAll('.inset').length);
    // the last is what no reference has
    expect(insets).toEqual([1, 1, 0]);
    const drawn = [...container.querySelectorAll('.inset')].map((inset) => inset.innerHTML);
    expect(drawn[0]).not.toBe(drawn[1]);
  });
});

describe('the decision', () => {
  test('is an appraiser’s: whoever only reads is not offered it', () => {
    open([anchor], 'reader');
    expect(screen.queryByRole('button', { name: /^Decide/ })).toBeNull();
    cleanup();
    open([anchor]);
    expect(candidate(/^Decide/).hasAttribute('disabled')).toBe(false);
  });
  test('begins with what leads', async () => {
    open([anchor]);
    await userEvent.click(candidate(/^Decide/));
    const form = candidate(/^(Decide|Keep|Save)/).closest('form') ?? document.body;
    expect(within(form).getAllByText(/Harbour jack, Service issue/).length).toBeGreaterThan(0);
  });
});
