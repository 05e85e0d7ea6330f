import { afterEach, expect, test } from '@jest/globals';
import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { Candidate, Observation } from '@jutbank/core/bench';
import type { Feature, Pattern, Variant } from '@jutbank/core/reference';
import type { Vocabulary } from '@jutbank/contract/reference';
import { PieceSeen } from './PieceSeen.tsx';

afterEach(cleanup);

const features: Feature[] = [
  {
    id: 'bolsters',
    label: 'Bolsters',
    part: 'bolster',
    kind: 'category',
    values: [
      { id: 'plain', label: 'Plain' },
      { id: 'grooved', label: 'Grooved' },
    ],
  },
  {
    id: 'lanyard',
    label: 'Lanyard',
    part: 'bolster',
    kind: 'category',
    values: [
      { id: 'ring', label: 'Ring' },
      { id: 'bar', label: 'Bar' },
    ],
  },
];
const pattern: Pattern = { id: 'jack', maker: 'bh', name: 'Jack', construction: 'slipjoint' };
const variant: Variant = {
  id: 'second',
  pattern: 'jack',
  name: 'Second form',
  kind: 'production',
  features: { bolsters: ['grooved'], lanyard: ['bar'] },
};
const vocabulary: Vocabulary = {
  revision: '1',
  makers: [],
  patterns: [{ ...pattern, variants: 1, form: 'second' }],
  features,
  marks: [],
  codes: [],
  sources: [],
};
const names = new Map([
  ['second', { variant, label: 'Jack, Second form', window: undefined, made: undefined }],
]);
const lead = (disagrees: boolean): Candidate => ({
  variant: 'second',
  pattern: 'jack',
  probability: 0.8,
  exchanged: [],
  evidence: [
    {
      feature: 'lanyard',
      part: 'bolster',
      verdict: disagrees ? 'disagrees' : 'agrees',
    } as Candidate['evidence'][number],
  ],
});
const show = (observations: Observation[], taken: string[] = [], disagrees = false) =>
  render(
    <PieceSeen
      construction="slipjoint"
      observations={observations}
      lead={lead(disagrees)}
      under={undefined}
      inHand={undefined}
      vocabulary={vocabulary}
      names={names}
      onTake={(feature) => taken.push(feature.id)}
    />,
  );
const stateOf = (part: string) =>
  document.querySelector(`[data-part="${part}"]`)?.getAttribute('class') ?? 'not drawn';

test('begins dashed, as the likeliest form is, and fills in as one looks', () => {
  show([]);
  screen.getByText('nothing seen yet: all of it is dashed');
  expect(stateOf('bolster:rear')).toContain('is-assumed');
  cleanup();
  show([{ feature: 'bolsters', value: 'grooved' }]);
  expect(stateOf('bolster:rear')).toContain('is-recorded');
  expect(stateOf('lanyard')).toContain('is-assumed');
  screen.getByText('grooved');
});

test('what speaks against the leading form is drawn both ways, and said', () => {
  show([{ feature: 'lanyard', value: 'ring' }], [], true);
  expect(stateOf('lanyard')).toContain('is-differs');
  screen.getByText('ring seen, not expected');
  expect(document.querySelectorAll('.expected [data-part="lanyard"]').length).toBeGreaterThan(0);
});

test('a click on a part takes its feature in hand', async () => {
  const taken: string[] = [];
  show([], taken);
  const [closed] = screen.getAllByRole('button', { name: 'Look at the rear bolster' });
  if (closed) await userEvent.click(closed);
  expect(taken).toEqual(['bolsters']);
});
