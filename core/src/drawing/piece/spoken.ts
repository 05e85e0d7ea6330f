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

const PARTS: Readonly<Record<string, string>> = {
  ring: 'muzzle ring',
  'property-mark': 'property mark',
  'press-stud': 'press stud',
  mark: 'stamp',
  opener: 'opener',
};
/** A drawn part by its name: 'bolster:rear' is the rear bolster, 'blade:2' the second blade. */
export function partDrawnInWords(part: string): string {
  const [base = part, which] = part.split(':');
  const said = PARTS[base] ?? plain(base);
  if (which === undefined) return said;
  if (/^\d+$/.test(which)) return Number(which) === 1 ? said : `${ORDINALS[Number(which)] ?? which} ${said}`;
  return base === 'tool' ? plain(which) : `${plain(which)} ${said}`;
}
const ORDINALS = ['', 'first', 'second', 'third', 'fourth', 'fifth'];

/** Parts of the inspection that are drawn under another name. */
const FOUND_ON: Readonly<Record<string, string>> = {
  edge: 'blade',
  tip: 'blade',
  tang: 'blade',
  finish: 'blade',
  pin: 'pins',
};
/** Whether a finding on a part of the inspection ('edge:2', 'bolster') lies on a drawn part. */
export function foundOn(part: string, drawn: string): boolean {
  const [base = part, number] = part.split(':');
  const [drawnBase, which] = drawn.split(':');
  if ((FOUND_ON[base] ?? base) !== drawnBase) return false;
  return number === undefined || !/^\d+$/.test(which ?? '') || number === which;
}
