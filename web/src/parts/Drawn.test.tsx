import { afterEach, describe, expect, test } from '@jest/globals';
import { cleanup, render, screen } from '@testing-library/react';
import { MarkDrawing } from './Drawn.tsx';
import { stampCaption } from './stampCaption.ts';
import { SmallRule } from './YearRule.tsx';

afterEach(cleanup);

const lines = ['BRACKENHOLT', 'NORHAM'];
const drawn = (lettering: string) => {
  const { container } = render(<MarkDrawing mark={{ lines, lettering }} />);
  const shapes = container.innerHTML
    .replace(/aria-label="[^"]*"/, '')
    .replace(/_?«?:?r[\w]*:?»?_?arc/g, 'arc');
  cleanup();
  return shapes;
};

describe('stamps that differ only in lettering', () => {
  test('never look alike', () => {
    const all = ['upright', 'slanted-block', 'arched', 'script'].map(drawn);
    expect(new Set(all).size).toBe(4);
  });
  test('are captioned with lettering, place and years', () => {
    expect(
      stampCaption({ lines, lettering: 'slanted-block', place: 'tang-front', window: '1919/1940' }),
    ).toBe('slanted block · tang front · 1919 – 1940');
    expect(stampCaption({ lines, place: 'tang-front' })).toBe('upright · tang front');
  });
  test('counted signs are drawn in their arrangement, and said', () => {
    const at = (where: string) => {
      render(<MarkDrawing mark={{ lines }} signs={{ count: 3, where }} />);
      const place = where.split('-')[0] ?? '';
      const drawing = screen.getByRole('img', { name: new RegExp(`3 signs ${place}`) });
      const path = drawing.querySelector('[data-part="mark"] .ink-heavy')?.getAttribute('d') ?? '';
      cleanup();
      return path;
    };
    const paths = ['above-name', 'below-name', 'beside-name'].map(at);
    expect(new Set(paths).size).toBe(3);
    for (const path of paths) expect(path.match(/M/g)).toHaveLength(3);
  });
});

test('a core that is closed and an outer bracket that is open draw without a gap', () => {
  const { container } = render(<SmallRule core="1934/1936" outer="1934/.." />);
  expect(container.innerHTML).not.toContain('NaN');
  expect(container.querySelector('svg')).not.toBeNull();
});
