import { describe, expect, test } from '@jest/globals';
import { CONSTRUCTIONS } from '../reference/index.ts';
import {
  anyPattern,
  drawPiece,
  drawsOn,
  foundOn,
  recipeOfRecords,
  SLOT_NAMES,
  stylesOf,
} from '../drawing/index.ts';
import { drawnShot, shotList } from './shots.ts';

const pictures = (...captions: string[]) => captions.map((caption, i) => ({ id: `p${i}`, caption }));

describe('pictures a buyer looks for', () => {
  test('ticked off by their captions, the next one asked for', () => {
    const list = shotList({
      construction: 'slipjoint',
      pictures: pictures('Mark side', 'Pile side, open'),
      findings: [],
    });
    expect(list.shots.filter((s) => s.done).map((s) => s.id)).toEqual(['mark-side', 'pile-side']);
    expect(list.next?.id).toBe('closed');
  });
  test('one picture stands for one shot only', () => {
    const list = shotList({
      construction: 'bayonet',
      pictures: pictures('Scabbard and frog, mark side'),
      findings: [],
    });
    expect(list.shots.filter((s) => s.done)).toHaveLength(1);
  });
  test.each(CONSTRUCTIONS)('%s: something is asked for, and nothing where all are there', (construction) => {
    const none = shotList({ construction, pictures: [], findings: [] });
    expect(none.shots.length).toBeGreaterThan(3);
    const all = shotList({ construction, pictures: pictures(...none.shots.map((s) => s.ask)), findings: [] });
    expect(all.next).toBeUndefined();
  });
  test('a finding that is pinned on no picture, or on one that is gone, is told', () => {
    const pinned = { part: 'scales', defect: 'crack', pin: { picture: 'p0', x: 0.5, y: 0.5 } } as const;
    const of = (pictures: { id: string; caption: string }[]) =>
      shotList({ construction: 'fixed', pictures, findings: [pinned, { part: 'edge', defect: 'chip' }] })
        .unseen;
    expect(of(pictures('Mark side'))).toEqual(['Edge: chip']);
    expect(of([])).toEqual(['Scales: crack', 'Edge: chip']);
  });
});

describe('where to stand for a picture', () => {
  test.each(CONSTRUCTIONS)('every shot of a %s is drawn, with the part it is about', (construction) => {
    const bare = recipeOfRecords({ pattern: anyPattern(construction), features: [] });
    // a piece that has everything there is on its like
    const styles = Object.fromEntries(
      SLOT_NAMES.filter((slot) => drawsOn(slot, construction)).map((slot) => [
        slot,
        stylesOf(slot, construction).find((style) => style !== 'none'),
      ]),
    );
    const recipe = { ...bare, styles: { ...bare.styles, ...styles } };
    const { shots } = shotList({ construction, pictures: [], findings: [] });
    const missing = shots.flatMap(({ id }) => {
      const { view, parts } = drawnShot(id);
      const drawn = drawPiece(recipe, view).parts;
      const there =
        drawn.length > 0 &&
        (parts.length === 0 || drawn.some((p) => parts.some((part) => foundOn(part, p.part))));
      return there ? [] : [`${id}: ${drawn.map((p) => p.part).join(' ')}`];
    });
    expect(missing).toEqual([]);
  });
});
