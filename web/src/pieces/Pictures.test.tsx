import { afterEach, describe, expect, test } from '@jest/globals';
import { cleanup, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { PieceSheet, PictureRecord, PicturesBody } from '@jutbank/contract/pieces';
import { referenceAnswers } from '../testing/reference.ts';
import { serve, show, type Request } from '../testing/screen.tsx';
import { pictureOf, sheetOf } from '../testing/sheet.ts';
import { Pictures } from './Pictures.tsx';

afterEach(cleanup);

const [whole, tang, back] = [pictureOf(1, 'Mark side'), pictureOf(2, ''), pictureOf(3, 'The back')];
const path = `/pieces/${sheetOf().id}/pictures`;

function open(pictures: PictureRecord[] = [whole, tang, back]): {
  came: Request[];
  sent: () => PicturesBody['pictures'];
} {
  const sheet: PieceSheet = { ...sheetOf(), pictures };
  const came = serve({ [`PUT ${path}`]: () => ({ body: { ...sheet, version: 8 } }) });
  show(<Pictures sheet={sheet} disabled={false} />);
  return {
    came,
    sent: () => (came.filter((r) => r.method === 'PUT').at(-1)?.body as PicturesBody).pictures,
  };
}
const put = (came: readonly Request[], times = 1) =>
  waitFor(() => expect(came.filter((r) => r.method === 'PUT')).toHaveLength(times));

describe('pictures of a piece', () => {
  test('a caption is typed where it stands, and kept once it is left', async () => {
    const { came, sent } = open();
    await userEvent.type(screen.getByRole('textbox', { name: 'Caption of picture 2' }), 'Tang stamp');
    expect(came).toEqual([]);
    await userEvent.tab();
    await put(came);
    expect(sent().map((p) => p.caption)).toEqual(['Mark side', 'Tang stamp', 'The back']);
    expect(came[0]?.headers['if-match']).toBe('"v7"');
  });
  test('one is put earlier; the first cannot be', async () => {
    const { came, sent } = open();
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Earlier: Mark side' }).disabled).toBe(true);
    await userEvent.click(screen.getByRole('button', { name: 'Earlier: The back' }));
    await put(came);
    expect(sent().map((p) => p.id)).toEqual([whole.id, back.id, tang.id]);
  });
  test('one that was taken away is put back as it was', async () => {
    const { came, sent } = open();
    await userEvent.click(screen.getByRole('button', { name: 'Take away Mark side' }));
    await put(came);
    expect(sent().map((p) => p.id)).toEqual([tang.id, back.id]);
    await userEvent.click(await screen.findByRole('button', { name: 'Put it back' }));
    await put(came, 2);
    expect(sent().map((p) => p.id)).toEqual([whole.id, tang.id, back.id]);
  });
  test('looked at large it is turned by the arrow keys, and framed by them', async () => {
    const { came, sent } = open();
    await userEvent.click(screen.getByRole('button', { name: 'Look at Mark side' }));
    const dialog = await screen.findByRole('dialog', { name: 'Mark side' });
    await waitFor(() =>
      expect(document.activeElement?.getAttribute('aria-label')).toBe('Arrow keys turn to the next picture'),
    );
    await userEvent.keyboard('{ArrowRight}{ArrowLeft}');
    await screen.findByRole('dialog', { name: 'Mark side' });
    expect(dialog.textContent).toContain('1600 × 1000');
    await userEvent.click(screen.getByRole('button', { name: 'Frame it' }));
    screen.getByRole('group', { name: /The frame/ }).focus();
    await userEvent.keyboard('{ArrowRight}{ArrowRight}');
    await userEvent.click(screen.getByRole('button', { name: 'Keep the frame' }));
    await put(came);
    // the largest frame of 4:3 in 16:10 is 5/6 wide and lies in the middle; two steps to the right of it
    const { frame } = sent()[0] ?? {};
    expect(frame?.width).toBeCloseTo(5 / 6);
    expect(frame?.x).toBeCloseTo(1 / 12 + 0.02);
  });
  test('beside the form it is, drawn to the picture’s own scale; laid over it, moved and flipped', async () => {
    const scaled = { ...whole, mmPerPixel: 0.1 };
    serve(referenceAnswers);
    show(<Pictures sheet={{ ...sheetOf(), pictures: [scaled] }} disabled={false} />);
    await userEvent.click(screen.getByRole('button', { name: 'Look at Mark side' }));
    await userEvent.click(await screen.findByRole('button', { name: 'Beside its form, or another' }));
    // 1600 px of 0.1 mm are 160 mm, shown 900 px wide
    const drawn = screen.getByRole('img', { name: /^A piece|^Harbour jack/ });
    const [, , mm] = (drawn.getAttribute('viewBox') ?? '').split(' ').map(Number);
    expect(Number(drawn.getAttribute('width')) / (mm ?? 1)).toBeCloseTo(900 / 160, 1);
    screen.getByText(/the picture shows 160 mm/);
    await userEvent.click(screen.getByRole('button', { name: 'Lay it over' }));
    const laid = screen.getByRole('group', { name: 'The drawing: arrow keys move it' });
    laid.focus();
    await userEvent.keyboard('{ArrowRight}{ArrowRight}{ArrowDown}');
    expect(laid.style.transform).toContain('calc(-50% + 8px), calc(-50% + 4px)');
    await userEvent.click(screen.getByRole('button', { name: 'Flip it' }));
    expect(laid.style.transform).toContain('scaleX(-1)');
  });
});
