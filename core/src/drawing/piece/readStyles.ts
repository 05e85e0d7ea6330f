/** What a value of a feature draws: as the pack says (`draws`), else as the words of feature and value tell. */
import type { Construction, Feature, FeatureReading } from '../../reference/index.ts';
import { drawsOn, SLOT_NAMES, stylesOf, type SlotName, type StyleOf } from './vocabulary.ts';

const wordsOf = (text: string): string[] =>
  text
    .toLowerCase()
    .split(/[^\p{L}\d]+/u)
    .filter(Boolean)
    .map((word) => (word.length > 3 ? word.replace(/s$/, '') : word));

/** Other words by which a slot is called. */
const CALLED: Partial<Record<SlotName, readonly string[]>> = {
  scales: ['scale', 'handle material', 'slab', 'cover'],
  grip: ['grip'],
  shield: ['shield', 'badge', 'emblem'],
  lanyard: ['lanyard', 'bail'],
  pull: ['nail', 'pull'],
  finish: ['coating', 'blade finish'],
  opener: ['opener', 'opening'],
  'half-stop': ['half stop'],
  'blade-form': ['blade form', 'blade shape', 'point'],
  rivets: ['rivet'],
  'muzzle-ring': ['muzzle'],
  'property-mark': ['property mark'],
};
/** Words for a style that is not called by its own name. */
const ALSO: readonly (readonly [SlotName | 'surface', string, RegExp])[] = [
  ['surface', 'jigged', /jig|^bone|\bbone/],
  ['surface', 'stag', /stag|antler|reindeer|hart/],
  ['surface', 'figured', /curl|figure|burl|burr|flame/],
  ['surface', 'wood', /walnut|beech|birch|oak|maple|rosewood|olive|wood|cocobolo|thuya/],
  ['surface', 'ebony', /ebony|black ?wood/],
  ['surface', 'fibre', /fibre|fiber|resin|compos|vulcan/],
  ['surface', 'celluloid', /celluloid|pearl|tortoise|shell/],
  ['surface', 'laminate', /laminate|pakka/],
  ['surface', 'carbon', /carbon/],
  ['surface', 'brushed', /steel|nickel|alumin|titan|brass|alloy|metal/],
  ['surface', 'leather', /leather/],
  ['surface', 'rings', /washer|rings|stacked/],
  ['surface', 'chequered', /chequer|checker|rubber/],
  ['surface', 'horn', /horn|buffalo/],
  ['surface', 'smooth', /smooth|plain|ivory|acryl/],
  ['spacer', 'posts', /stand.?off|post|pillar/],
  ['spacer', 'strip', /solid|strip|full|bar/],
  ['clip', 'spring-four', /four/],
  ['clip', 'spring', /two|three|tip.?(up|down)/],
  ['opener', 'hole', /hole/],
  ['finish', 'stonewashed', /stone/],
  ['finish', 'black', /black|coat/],
  ['finish', 'phosphated', /phosph|park/],
  ['pull', 'match', /match/],
  ['profile', 'equal-end', /equal|regular/],
];

/** Words are read once for each value: a page of forms asks for the same few again and again. */
const readOnce = new WeakMap<Feature, Map<string, Record<string, string>>>();

/** Slots and styles; empty where nothing tells how the value looks. */
export function readStyles(
  feature: Feature,
  value: FeatureReading,
  construction: Construction,
): Readonly<Record<string, string>> {
  const known = readOnce.get(feature) ?? new Map<string, Record<string, string>>();
  readOnce.set(feature, known);
  const key = `${construction} ${value}`;
  const read = known.get(key) ?? stylesRead(feature, value, construction);
  known.set(key, read);
  return read;
}
function stylesRead(
  feature: Feature,
  value: FeatureReading,
  construction: Construction,
): Record<string, string> {
  if (feature.kind !== 'category') return {};
  const record = feature.values?.find((v) => v.id === value);
  if (record?.draws)
    return Object.fromEntries(
      Object.entries(record.draws).flatMap(([slot, style]) => (style == null ? [] : [[slot, style]])),
    );
  // told by some of its values, a feature is not guessed at for the others
  if (feature.values?.some((v) => v.draws)) return {};
  const slot = slotCalled(feature, construction);
  const style = slot && styleCalled(slot, `${String(value)} ${record?.label ?? ''}`);
  if (!slot || style === undefined) return {};
  const tint =
    slot === 'scales' || slot === 'grip' ? tintCalled(`${String(value)} ${record?.label ?? ''}`) : undefined;
  return { [slot]: style, ...(tint && { tint }) };
}

/** Colours that are told of a material, apart from the material's own. */
const TINTS: readonly (readonly [StyleOf<'tint'>, RegExp])[] = [
  ['red', /\bred\b|rosewood|strawberr|cherry/],
  ['green', /green|olive/],
  ['orange', /orange|amber|honey|yellow/],
  ['dark', /black|dark|\bbog\b|smoke|brown/],
  ['pale', /white|ivory|cream|pale|beech|birch|maple|holly|\bash\b/],
];
const tintCalled = (value: string): StyleOf<'tint'> | undefined =>
  TINTS.find(([, pattern]) => pattern.test(value.toLowerCase()))?.[0];

function slotCalled(feature: Feature, construction: Construction): SlotName | undefined {
  const text = ` ${wordsOf(`${feature.id} ${feature.label}`).join(' ')} `;
  const called = (slot: SlotName) =>
    [slot.replaceAll('-', ' '), ...(CALLED[slot] ?? [])]
      .map((name) => wordsOf(name).join(' '))
      .filter((name) => text.includes(` ${name} `));
  const fitting = SLOT_NAMES.filter((slot) => drawsOn(slot, construction)).flatMap((slot) =>
    called(slot).map((name) => ({ slot, name })),
  );
  // the longest name is the most particular: a blade's form is not the blade
  return fitting.sort((a, b) => b.name.length - a.name.length)[0]?.slot;
}
function styleCalled(slot: SlotName, value: string): string | undefined {
  const said = wordsOf(value);
  const styles = stylesOf(slot);
  const surface = slot === 'scales' || slot === 'grip';
  const also = ALSO.find(
    ([of, style, pattern]) =>
      (of === slot || (surface && of === 'surface')) &&
      styles.includes(style) &&
      pattern.test(value.toLowerCase()),
  );
  const named = [...styles]
    .sort((a, b) => b.length - a.length)
    .find((style) => wordsOf(style).every((word) => said.includes(word)));
  return named ?? also?.[1];
}
