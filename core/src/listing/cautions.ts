/** Topics to think of before a blade changes hands, never a verdict: local law and licensed advice decide. */
import type { Construction } from '../reference/index.ts';
import { ENGLISH, type Words } from '../words/index.ts';

export const PLACES_OF_SALE = ['online', 'counter'] as const;
export type PlaceOfSale = (typeof PLACES_OF_SALE)[number];

/** What the shop’s own rules ask for, as its adviser gave them. */
export interface CautionRules {
  /** years; null: the shop asks no age of its own, and says “adults” */
  readonly minimumAge: number | null;
  /** mm; a blade longer than this is named; null: none is */
  readonly longBlade: number | null;
  /** the shop’s own words, where they apply */
  readonly own: readonly {
    readonly text: string;
    readonly construction: Construction | null;
    readonly place: PlaceOfSale | null;
  }[];
}
export const PLAIN_RULES: CautionRules = { minimumAge: null, longBlade: null, own: [] };

export interface CautionFacts {
  readonly construction: Construction;
  /** mm, the longest blade that was measured */
  readonly bladeLength?: number | undefined;
  /** what its handle and fittings are made of, as named by the reference */
  readonly materials?: readonly string[];
  readonly issuedTo?: string | undefined;
}

/** Natural materials that are protected in many places; what only imitates them is not meant. */
const PROTECTED =
  /\b(ivory|tusk|tortoise[ -]?shell|turtle|baleen|whale ?bone|walrus|narwhal|elephant|rhinoceros|hippopotamus|mammoth|rosewood|ebony|coral|shagreen|ray ?skin|shark ?skin|snake ?skin|crocodile|lizard|seal ?skin|mother[ -]of[ -]pearl|abalone)\b/i;
const IMITATION = /\b(imitation|faux|mock|synthetic|celluloid|plastic|resin|dyed wood|style)\b/i;

export const protectedMaterials = (materials: readonly string[]): string[] => [
  ...new Set(materials.filter((m) => PROTECTED.test(m) && !IMITATION.test(m))),
];

/** In the order in which they are told: whom it is sold to and the law first, the shop’s own words last. */
export function cautionsFor(
  facts: CautionFacts,
  rules: CautionRules = PLAIN_RULES,
  place: PlaceOfSale = 'online',
  words: Words = ENGLISH,
): string[] {
  const { construction, bladeLength, materials = [] } = facts;
  const whom =
    rules.minimumAge === null
      ? words.say('caution.adults')
      : words.say('caution.age', { age: rules.minimumAge });
  const natural = protectedMaterials(materials);
  const service = construction === 'bayonet' || facts.issuedTo !== undefined;
  return [
    `${whom} ${words.say('caution.law')}`,
    ...(construction === 'automatic' || construction === 'balisong' ? [words.say('caution.opening')] : []),
    ...(rules.longBlade !== null && bladeLength !== undefined && bladeLength > rules.longBlade
      ? [words.say('caution.longBlade', { length: words.figure(`${Math.round(bladeLength)} mm`) })]
      : []),
    ...(natural.length > 0 ? [words.say('caution.material', { materials: natural.join(', ') })] : []),
    ...(service ? [words.say('caution.service')] : []),
    ...(place === 'online' && (service || natural.length > 0) ? [words.say('caution.abroad')] : []),
    ...rules.own
      .filter(
        (own) =>
          (own.construction === null || own.construction === construction) &&
          (own.place === null || own.place === place),
      )
      .map((own) => own.text),
  ];
}
