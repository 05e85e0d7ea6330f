import { afterEach, expect, test } from '@jest/globals';
import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { drawPiece, recipeOfRecords } from '@jutbank/core/drawing';
import { PieceDrawing } from './PieceDrawing.tsx';

afterEach(cleanup);

const recipe = recipeOfRecords({
  pattern: {
    name: 'Harbour jack',
    construction: 'slipjoint',
    drawing: { styles: { scales: 'horn', bolster: 'grooved' } },
  },
  features: [],
});
const drawing = drawPiece(recipe, 'mark-side');

test('says what it shows, and draws no texture where it is too small to be seen', () => {
  render(<PieceDrawing drawing={drawing} width={90} />);
  const small = screen.getByRole('img', { name: /^Harbour jack: one blade, grooved bolsters, horn scales/ });
  expect(small.querySelectorAll('.ink-texture')).toHaveLength(0);
  cleanup();
  const { container } = render(<PieceDrawing drawing={drawing} width={420} />);
  expect(container.querySelectorAll('.ink-texture').length).toBeGreaterThan(0);
  expect(container.querySelectorAll('*').length).toBeLessThan(90);
});

test('what is recorded is told from what is assumed; parts are taken by a click', async () => {
  const taken: string[] = [];
  const { container } = render(
    <PieceDrawing
      drawing={drawing}
      width={420}
      emphasis={(part) => (part === 'scales' ? 'lit' : undefined)}
      onPart={(part) => taken.push(part)}
      partLabel={(part) => `Look at the ${part}`}
    />,
  );
  expect(container.querySelector('[data-part="scales"]')?.getAttribute('class')).toBe(
    'part is-recorded is-lit takes',
  );
  expect(container.querySelector('[data-part="pins"]')?.getAttribute('class')).toContain('is-assumed');
  await userEvent.click(screen.getByRole('button', { name: 'Look at the bolster:rear' }));
  expect(taken).toEqual(['bolster:rear']);
});
