/** What a drawing shows, in words: for a screen reader, and where two are drawn alike. */
import type { DrawingRecipe, StampRecipe } from './recipe.ts';
import type { SlotName } from './vocabulary.ts';

const COUNTS = ['no', 'one', 'two', 'three', 'four', 'five', 'six'];
const plain = (style: string) => style.replaceAll('-', ' ');
/** Each as it is said, `%` the style; only what is known is said. */
const SAID: readonly (readonly [SlotName, string])[] = [
  ['bolster', '% bolsters'],
  ['scales', '% scales'],
  ['grip', '% grip'],
  ['shield', '% shield'],
  ['lanyard', '%'],
  ['opener', '% to open it'],
  ['clip', '% clip'],
  ['fuller', '% fuller'],
  ['muzzle-ring', '% muzzle ring'],
  ['quillon', '% quillon'],
  ['guard', '% guard'],
  ['spike', '% spike'],
  ['finish', '% blade'],
];

export function spokenName(recipe: DrawingRecipe): string {
  const n = recipe.blades.length;
  const blades = n === 1 ? 'one blade' : `${COUNTS[n] ?? String(n)} blades`;
  const shown = SAID.flatMap(([slot, said]) => {
    const style = recipe.styles[slot];
    const known = recipe.known[slot];
    if (style === undefined || known === undefined || known === 'assumed') return [];
    if (style === 'none') return slot === 'shield' || slot === 'muzzle-ring' ? [said.replace('%', 'no')] : [];
    return [said.replace('%', plain(style))];
  });
  return `${recipe.name}: ${[blades, ...shown].join(', ')}`;
}

export function spokenStamp(stamp: StampRecipe): string {
  const signs = stamp.signs ? `; ${String(stamp.signs.count)} signs ${stamp.signs.where}` : '';
  return `Stamp, ${stamp.lettering}: ${stamp.lines.join(', ')}${signs}`;
}
