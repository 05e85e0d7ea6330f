import { afterEach, expect, test } from '@jest/globals';
import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Roving } from './Roving.tsx';

afterEach(cleanup);

const group = (pressed?: string) => (
  <>
    <button type="button">Before</button>
    <Roving role="group" aria-label="Scales">
      {['Horn', 'Bone', 'Fibre'].map((name) => (
        <button key={name} type="button" aria-pressed={name === pressed}>
          {name}
        </button>
      ))}
    </Roving>
    <button type="button">After</button>
  </>
);
const focused = () => document.activeElement?.textContent;

test('is one stop of the Tab key, and the arrows go along it', async () => {
  const user = userEvent.setup();
  render(group());
  await user.tab();
  await user.tab();
  expect(focused()).toBe('Horn');
  await user.keyboard('{ArrowRight}{ArrowDown}');
  expect(focused()).toBe('Fibre');
  await user.keyboard('{ArrowRight}');
  expect(focused()).toBe('Horn');
  await user.keyboard('{End}');
  await user.tab();
  expect(focused()).toBe('After');
  await user.tab({ shift: true });
  expect(focused()).toBe('Fibre');
});

test('is entered where something is pressed', async () => {
  const user = userEvent.setup();
  render(group('Bone'));
  screen.getByRole('button', { name: 'Before' }).focus();
  await user.tab();
  expect(focused()).toBe('Bone');
});
