import { afterEach, describe, expect, test } from '@jest/globals';
import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { MultiSelect } from './choices.tsx';

afterEach(cleanup);

const options = (n: number) => Array.from({ length: n }, (_, i) => ({ value: `v${i}`, label: `Form ${i}` }));
let last: string[] | undefined;
function Shown({ n, from }: { n: number; from?: string[] }) {
  const [value, setValue] = useState<string[] | undefined>(from);
  return (
    <MultiSelect
      label="Converted from"
      value={value}
      options={options(n)}
      onChange={(next) => {
        last = next;
        setValue(next);
      }}
    />
  );
}

describe('several of a list', () => {
  test('a short one is chips: in by one press, out by another, in the list’s order', async () => {
    render(<Shown n={3} />);
    await userEvent.click(screen.getByRole('button', { name: 'Form 2' }));
    await userEvent.click(screen.getByRole('button', { name: 'Form 0' }));
    expect(last).toEqual(['v0', 'v2']);
    await userEvent.click(screen.getByRole('button', { name: 'Form 2' }));
    await userEvent.click(screen.getByRole('button', { name: 'Form 0' }));
    expect(last).toBeUndefined();
  });
  test('of forty one is found by typing, and what is chosen stays in the list’s order', async () => {
    render(<Shown n={40} from={['v30']} />);
    expect(screen.queryByRole('button', { name: 'Form 7' })).toBeNull();
    await userEvent.type(screen.getByLabelText('Converted from'), 'form 7');
    await userEvent.click(await screen.findByRole('option', { name: 'Form 7' }));
    expect(last).toEqual(['v7', 'v30']);
  });
});
