import { describe, expect, test } from '@jest/globals';
import { wordsIn } from '../words/index.ts';
import { cautionsFor, PLAIN_RULES, type CautionFacts } from './cautions.ts';

const knife: CautionFacts = { construction: 'slipjoint' };
const about = (
  facts: CautionFacts,
  word: RegExp,
  ...rules: Parameters<typeof cautionsFor> extends [unknown, ...infer R] ? R : never
) => cautionsFor(facts, ...rules).filter((c) => word.test(c));

describe('what a buyer is told to think of', () => {
  test('adults and the law first, whatever it is; the shop’s own age where it has one', () => {
    expect(cautionsFor(knife)[0]).toMatch(/^Sold to adults only\. Rules on owning/);
    expect(cautionsFor(knife, { ...PLAIN_RULES, minimumAge: 21 })[0]).toMatch(/persons of 21 years or more/);
  });
  test.each(['Ivory', 'Walrus tusk', 'Tortoise shell', 'Rosewood', 'Mother-of-pearl'])(
    '%s may be protected',
    (material) => expect(about({ ...knife, materials: [material] }, /protected/)).toHaveLength(1),
  );
  test.each(['Imitation ivory', 'Celluloid, tortoise shell style', 'Stag', 'Steel', 'Ivorine'])(
    '%s is not',
    (material) => expect(about({ ...knife, materials: [material] }, /protected/)).toEqual([]),
  );
  test('a long blade is named only beyond the shop’s length, and only if it was measured', () => {
    const rules = { ...PLAIN_RULES, longBlade: 120 };
    expect(about({ ...knife, bladeLength: 121 }, /121 mm long/, rules)).toHaveLength(1);
    expect(about({ ...knife, bladeLength: 120 }, /long blades/, rules)).toEqual([]);
    expect(about(knife, /long blades/, rules)).toEqual([]);
    expect(about({ ...knife, bladeLength: 300 }, /long blades/)).toEqual([]);
  });
  test('what leaves the country is told of online, not over the counter', () => {
    const bayonet: CautionFacts = { construction: 'bayonet' };
    expect(about(bayonet, /leave or enter a country/)).toHaveLength(1);
    expect(about(bayonet, /leave or enter a country/, PLAIN_RULES, 'counter')).toEqual([]);
    expect(
      about({ ...knife, issuedTo: 'the Coastal Service' }, /service property are regulated/),
    ).toHaveLength(1);
  });
  test('the shop’s own words where they apply', () => {
    const rules = {
      ...PLAIN_RULES,
      own: [
        { text: 'Posted to a checked address.', construction: null, place: 'online' as const },
        { text: 'Only with a licence.', construction: 'automatic' as const, place: null },
      ],
    };
    expect(cautionsFor(knife, rules)).toContain('Posted to a checked address.');
    expect(cautionsFor(knife, rules, 'counter')).not.toContain('Posted to a checked address.');
    expect(cautionsFor(knife, rules)).not.toContain('Only with a licence.');
    expect(cautionsFor({ construction: 'automatic' }, rules)).toContain('Only with a licence.');
  });
  test('in German', () =>
    expect(
      cautionsFor(
        { ...knife, bladeLength: 130 },
        { ...PLAIN_RULES, longBlade: 100 },
        'online',
        wordsIn('de'),
      )[1],
    ).toBe('Seine Klinge ist 130 mm lang: an manchen Orten gelten Regeln für lange Klingen.'));
});
