import { afterEach, describe, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { recipeOfRecords } from '@jutbank/core/drawing';
import type { Region } from '@jutbank/core/imaging';
import { serve, show, take } from '../testing/screen.tsx';
import { pictureOf, sheetOf } from '../testing/sheet.ts';
import { Beside } from './Beside.tsx';
import { BesideFigures } from './BesideFigures.tsx';
import { Photograph } from './Photograph.tsx';
import type { Scaled } from './scaled.ts';

afterEach(cleanup);

const whole: Scaled = { ...pictureOf(1, 'Mark side'), mmPerPixel: 0.1 };
const back: Scaled = { ...pictureOf(2, 'The back'), mmPerPixel: 0.05 };
const recipe = recipeOfRecords({
  pattern: { name: 'Harbour jack', construction: 'slipjoint' },
  features: [],
});
const wide = (name: string) => parseFloat(screen.getByAltText(name).parentElement?.style.width ?? '');

describe('a photograph and another', () => {
  const open = () => {
    serve({});
    show(<Beside sheet={{ ...sheetOf(), pictures: [whole, back] }} picture={whole} recipe={recipe} />);
  };
  test('are shown at one scale: what shows half as much of the world is half as wide', async () => {
    open();
    await take('Held against', 'The back');
    expect(wide('The back') / wide('Mark side')).toBeCloseTo(0.5);
    screen.getByText('One scale: the picture shows 160 mm · 6 5/16 in across; the other 80 mm · 3 1/8 in.');
  });
  test('are laid over each other and moved by the arrow keys', async () => {
    open();
    await take('Held against', 'The back');
    await userEvent.click(screen.getByRole('button', { name: 'Lay it over' }));
    const laid = screen.getByRole('group', { name: 'The other picture: arrow keys move it' });
    within(laid).getByAltText('The back');
    laid.focus();
    await userEvent.keyboard('{ArrowLeft}');
    expect(laid.style.transform).toContain('calc(-50% + -4px)');
  });
});

describe('their sizes', () => {
  const box = (width: number, height: number) => [
    { x: 100, y: 100 },
    { x: 100 + width, y: 100 },
    { x: 100 + width, y: 100 + height },
    { x: 100, y: 100 + height },
  ];
  test('are those of what is outlined, each by its own scale, with how far the other is off', () => {
    show(
      <BesideFigures
        one={whole}
        other={back}
        within={{}}
        // 100 × 20 mm and 110 × 20 mm
        outlines={{ [whole.id]: box(1000, 200), [back.id]: box(2200, 400) }}
        onOutlines={() => undefined}
      />,
    );
    const cells = (name: string) =>
      within(screen.getByRole('row', { name: new RegExp(`^${name}`) }))
        .getAllByRole('cell')
        .map((cell) => cell.textContent);
    expect(cells('Length')).toEqual(['100.0 mm · 3 15/16 in', '110.0 mm · 4 11/32 in', '+10.0 %']);
    expect(cells('Area')).toEqual(['20.0 cm²', '22.0 cm²', '+10.0 %']);
  });
});

describe('a box dragged on a photograph', () => {
  const drag = (to: { x: number; y: number }, onWithin?: (part: Region | undefined) => void) => {
    show(
      <Photograph
        picture={whole}
        perMm={5}
        within={undefined}
        outline={undefined}
        {...(onWithin && { onWithin })}
      />,
    );
    const box = screen.getByAltText('Mark side').parentElement ?? document.body;
    box.setPointerCapture = () => undefined;
    box.getBoundingClientRect = () => new DOMRect(0, 0, 800, 500);
    // the document of the tests knows no pointer, whose events are a mouse's with more
    const point = (type: string, clientX: number, clientY: number) =>
      fireEvent(box, new MouseEvent(type, { bubbles: true, clientX, clientY }));
    point('pointerdown', 100, 50);
    point('pointermove', to.x, to.y);
    point('pointerup', to.x, to.y);
  };
  test('is told in pixels of the picture, whichever way it was dragged', () => {
    const told: (Region | undefined)[] = [];
    drag({ x: 50, y: 200 }, (part) => told.push(part));
    expect(told).toEqual([{ x: 100, y: 100, width: 100, height: 300 }]);
  });
  test('is none where the hand only slipped', () => {
    const told: (Region | undefined)[] = [];
    drag({ x: 103, y: 200 }, (part) => told.push(part));
    expect(told).toEqual([undefined]);
  });
});
