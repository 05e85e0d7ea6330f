/** A reference nobody has seen before, written by program: five hundred variants and more, told apart by their features. */
import { random } from '@jutbank/core/random';
import type { Feature, Pattern, ReferencePack, Variant } from '@jutbank/core/reference';

const MAKERS = ['Orle', 'Tamsin Gate', 'Varrow', 'Quell & Sons', 'Brisk', 'Old Mole'];
const SIGHTS: readonly [label: string, part: string, values: readonly string[]][] = [
  ['Grip outline', 'grip', ['Straight', 'Swayed', 'Coffin', 'Serpent']],
  ['Grip colour', 'grip', ['Black', 'Brown', 'Green', 'White', 'Red']],
  ['Butt', 'butt', ['Round', 'Square', 'Pointed']],
  ['Guard', 'guard', ['None', 'Single', 'Double', 'Disc']],
  ['Point', 'blade', ['Spear', 'Clip', 'Sheepfoot', 'Spey']],
  ['Back', 'blade', ['Plain', 'Notched', 'Filed']],
  ['Rivets', 'rivets', ['Two', 'Three', 'Four', 'Five']],
  ['Plate', 'plate', ['Shield', 'Star', 'Crescent', 'Bare']],
  ['Lanyard hole', 'butt', ['Lined', 'Bare hole', 'No hole']],
  ['Polish', 'finish', ['Mirror', 'Satin', 'Crocus']],
  ['Cross hatch', 'grip', ['Fine', 'Coarse', 'Smooth']],
  ['Collar', 'guard', ['Brass', 'Steel', 'Silver']],
];
const slug = (text: string) =>
  text
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '');

export function strangePack(): ReferencePack {
  const luck = random(5);
  const features: Feature[] = SIGHTS.map(([label, part, values]) => ({
    id: slug(label),
    label,
    part,
    kind: 'category',
    swap: 'hard',
    effort: 'glance',
    constructions: ['fixed'],
    ask: `${label}: which of these?`,
    values: values.map((v) => ({ id: slug(v), label: v })),
  }));
  const any = (f: Feature) => luck.pick(f.values ?? []).id;
  const patterns: Pattern[] = [];
  const variants: Variant[] = [];
  MAKERS.forEach((maker) => {
    for (let p = 1; p <= 11; p++) {
      const id = `${slug(maker)}-${p}`;
      patterns.push({ id, maker: slug(maker), name: `${maker} No. ${p}`, construction: 'fixed' });
      const shown = new Map(features.map((f) => [f.id, any(f)]));
      const known = new Set<string>();
      for (let form = 1; form <= 8; form++) {
        // each form changes things against the one before, and no two are alike
        do {
          const f = luck.pick(features);
          shown.set(f.id, any(f));
        } while (known.has([...shown.values()].join()));
        known.add([...shown.values()].join());
        const from = 1900 + (form - 1) * 9;
        variants.push({
          id: `${id}-${form}`,
          pattern: id,
          name: `form ${form}`,
          kind: 'production',
          window: `${from}/${from + 8}`,
          made: { quantity: 4000, basis: 'estimated' },
          features: Object.fromEntries([...shown].map(([f, v]) => [f, [v]])),
          marks: [`${slug(maker)}-mark`],
        });
      }
    }
  });
  return {
    format: 'jutbank.reference/1',
    id: 'strange',
    title: 'A reference from far away',
    revision: '1',
    makers: MAKERS.map((name) => ({ id: slug(name), name, active: '1900/1975' })),
    features,
    patterns,
    marks: MAKERS.map((name) => ({
      id: `${slug(name)}-mark`,
      maker: slug(name),
      place: 'tang-front',
      lines: [name.toUpperCase()],
      window: '1900/1975',
    })),
    variants,
  };
}
