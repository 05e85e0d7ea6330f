import { afterEach, describe, expect, test } from '@jest/globals';
import { cleanup, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { Observation } from '@jutbank/core/bench';
import type { Feature, Mark } from '@jutbank/core/reference';
import type { Vocabulary } from '@jutbank/contract/reference';
import { show } from '../testing/screen.tsx';
import { Answering } from './Answering.tsx';
import type { Item } from './items.ts';

afterEach(cleanup);

const scales: Feature = {
  id: 'scales',
  label: 'Scales',
  part: 'scales',
  kind: 'category',
  values: [
    { id: 'horn', label: 'Horn' },
    { id: 'wood', label: 'Wood' },
  ],
};
const marks: Mark[] = [
  { id: 'upright', lines: ['BRACKENHOLT', 'NORHAM'] },
  { id: 'pike', lines: ['MARLOW PIKE'] },
];
const vocabulary: Vocabulary = {
  revision: '1',
  makers: [],
  patterns: [],
  features: [scales],
  marks,
  codes: [],
  sources: [],
};
const looked = { label: 'Scales', ask: 'Which scales?', effort: 'glance' } as const;
function answering(item: Item): (Observation | undefined)[] {
  const heard: (Observation | undefined)[] = [];
  show(
    <Answering
      item={item}
      vocabulary={vocabulary}
      observed={undefined}
      onObserve={(o) => heard.push(o)}
      inHand
    />,
  );
  return heard;
}

describe('what no value of the list says', () => {
  const box = () => screen.getByRole('textbox', { name: 'Scales, something else' });
  test('is written as it is', async () => {
    const heard = answering({ ...looked, id: 'feature scales', kind: 'feature', feature: scales });
    await userEvent.type(box(), 'Celluloid, marbled{Enter}');
    expect(heard).toEqual([{ feature: 'scales', other: 'Celluloid, marbled' }]);
  });
  test('is the list’s own where the list has it', async () => {
    const heard = answering({ ...looked, id: 'feature scales', kind: 'feature', feature: scales });
    await userEvent.type(box(), 'horn{Enter}');
    expect(heard).toEqual([{ feature: 'scales', value: 'horn' }]);
  });
});

describe('a stamp', () => {
  test('is taken by Enter once its letters leave it first; Enter alone takes none', async () => {
    const heard = answering({ ...looked, label: 'Stamp', id: 'mark', kind: 'mark', marks });
    const letters = screen.getByRole('textbox', { name: 'Letters you can read' });
    await userEvent.type(letters, '{Enter}');
    expect(heard).toEqual([]);
    await userEvent.type(letters, 'p?ke{Enter}');
    expect(heard).toEqual([{ mark: 'pike' }]);
  });
});
