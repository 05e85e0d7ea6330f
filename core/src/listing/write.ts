/** The words of a listing, from stored facts by rule: the claim follows the tier, every disclosure appears. */
import type { Tier } from '../bench/index.ts';
import type { Statement, StatementKind } from '../pieces/index.ts';
import type { Construction } from '../reference/index.ts';
import { ENGLISH, type Language, type Words } from '../words/index.ts';
import { cautionsFor, PLAIN_RULES, type CautionRules } from './cautions.ts';

export const POSTAGE_ZONES = ['home', 'near', 'far', 'overseas'] as const;
export type PostageZone = (typeof POSTAGE_ZONES)[number];

export interface ListingFacts {
  /** the words that the facts are told in; the text that is written of them is in the same */
  readonly words: Words;
  readonly tier: Tier;
  readonly makerName: string | undefined;
  readonly patternName: string | undefined;
  readonly variantName: string | undefined;
  readonly issuedTo: string | undefined;
  readonly construction: Construction;
  /** mm, the longest that was measured */
  readonly bladeLength?: number | undefined;
  /** what it is made of, as the reference names it */
  readonly materials?: readonly string[];
  /** what a carrier asked for it, where the shop took the quote: the price in words */
  readonly postage?: readonly { readonly zone: PostageZone; readonly price: string; readonly by: string }[];
  /** in words: "Sep 1934 – Feb 1936" */
  readonly made: string | undefined;
  /** how much was looked at: only after a whole look may "no fault" be said */
  readonly extent: 'none' | 'partly' | 'whole';
  readonly sealed: boolean;
  readonly gradeLine: string | undefined;
  /** everything that is known: what must be told, and what a buyer may ask for */
  readonly statements: readonly Statement[];
  /** decided against evidence that speaks for an imitation */
  readonly overruled: boolean;
  /** told of its maker, pattern or variant and known to be wrong: never to be repeated */
  readonly refuted: readonly RefutedStory[];
  readonly included: readonly string[];
  readonly provenance: string | undefined;
  readonly isReplica: boolean;
  /** made under a licence of the first maker, and sold as that */
  readonly isLicensed: boolean;
}

export interface RefutedStory {
  readonly told: string;
  readonly because: string | undefined;
}

export interface ListingText {
  readonly title: string;
  readonly body: string;
}

/** The claim a tier allows, from the weakest to the strongest verb. */
export function claimFor(
  facts: Pick<
    ListingFacts,
    | 'tier'
    | 'variantName'
    | 'patternName'
    | 'makerName'
    | 'issuedTo'
    | 'isReplica'
    | 'isLicensed'
    | 'overruled'
  >,
  words = ENGLISH,
): string {
  const name = [facts.makerName, facts.patternName].filter(Boolean).join(' ');
  if (name === '') return words.say('claim.unsettled');
  const what = facts.variantName ? `${name}, ${facts.variantName}` : name;
  if (facts.isReplica) return words.say('claim.replica', { what });
  if (facts.isLicensed && (facts.tier === 'confirmed' || facts.tier === 'probable'))
    return words.say('claim.licensed', { what });
  if (facts.overruled) return words.say('claim.overruled', { what });
  switch (facts.tier) {
    case 'confirmed':
    case 'probable':
    case 'doubtful':
    case 'rejected':
      return words.say(`claim.${facts.tier}`, { what });
    case 'type-consistent':
      return words.say('claim.typeConsistent', {
        name,
        to: facts.issuedTo ? words.say('claim.to', { body: facts.issuedTo }) : '',
        variant: facts.variantName ?? words.say('claim.serviceIssue'),
      });
    case 'not-enough-seen':
      return words.say('claim.notEnough', { name });
  }
}

/** Statements that stand in a paragraph of their own, beside the list of what a buyer must note. */
const OWN_PARAGRAPH: readonly StatementKind[] = ['history', 'not-excluded'];
const sentences = (texts: readonly string[]) => (texts.length > 0 ? `${texts.join('. ')}.` : undefined);

/** The parts of a description, in the order in which it comes where the shop has not said another. */
export const LISTING_SECTIONS = [
  'claim',
  'made',
  'marks',
  'measures',
  'features',
  'condition',
  'history',
  'reason',
  'included',
  'provenance',
  'not-proved',
  'postage',
  'terms',
  'cautions',
] as const;
export type ListingSection = (typeof LISTING_SECTIONS)[number];

/** What the shop says in all its listings, and in which order; what it has no words for is left out. */
export interface ListingStyle {
  /** sections that are not named come after those that are, in their usual order: none can be left out */
  readonly order: readonly ListingSection[];
  readonly reason: string;
  readonly postageHome: string;
  readonly postageAbroad: string;
  readonly terms: string;
  readonly offers: 'open' | 'fixed' | 'unsaid';
  readonly rules: CautionRules;
}
export const PLAIN_STYLE: ListingStyle = {
  order: [],
  reason: '',
  postageHome: '',
  postageAbroad: '',
  terms: '',
  offers: 'unsaid',
  rules: PLAIN_RULES,
};

export const sectionsInOrder = (order: readonly ListingSection[]): ListingSection[] => [
  ...new Set([...order, ...LISTING_SECTIONS]),
];

/** Postage as it is told: in the shop’s own words, then what was taken from carriers for this piece. */
export const postageLines = (
  { words, postage }: Pick<ListingFacts, 'words' | 'postage'>,
  style: Pick<ListingStyle, 'postageHome' | 'postageAbroad'>,
): string[] => [
  ...(style.postageHome === '' ? [] : [words.say('listing.postageHome', { postage: style.postageHome })]),
  ...(style.postageAbroad === ''
    ? []
    : [words.say('listing.postageAbroad', { postage: style.postageAbroad })]),
  ...(postage ?? []).map(({ zone, price, by }) =>
    words.say('listing.postageQuote', { zone: words.say(`zone.${zone}`), price, by }),
  ),
];

export function writeListing(facts: ListingFacts, style: ListingStyle = PLAIN_STYLE): ListingText {
  const of = (kind: StatementKind) => facts.statements.filter((s) => s.kind === kind).map((s) => s.text);
  const disclosures = facts.statements
    .filter((s) => s.disclose && !OWN_PARAGRAPH.includes(s.kind))
    .map((s) => s.text);
  const { words } = facts;
  const name = [facts.makerName, facts.patternName].filter(Boolean).join(' ') || words.say('listing.knife');
  const certain = !facts.overruled && (facts.tier === 'confirmed' || facts.tier === 'probable');
  const title = [
    facts.isReplica ? words.say('listing.replicaTitle', { name }) : name,
    certain
      ? facts.variantName
      : facts.tier === 'type-consistent'
        ? words.say('listing.issuedType')
        : undefined,
    facts.made,
  ].filter(Boolean);
  const listed = (head: string, lines: readonly string[]) =>
    lines.length > 0 ? [head, ...lines.map((line) => `– ${line}`)].join('\n') : undefined;
  const postage = postageLines(facts, style);
  const paragraphs: Readonly<Record<ListingSection, readonly (string | undefined)[]>> = {
    claim: [claimFor(facts, words)],
    made: [facts.made ? words.say('listing.made', { made: facts.made }) : words.say('listing.madeUnknown')],
    marks: [listed(words.say('listing.marks'), of('mark'))],
    measures: [sentences(of('measure'))],
    features: [sentences(of('feature'))],
    condition: [
      facts.gradeLine,
      listed(words.say('listing.note'), disclosures),
      facts.extent === 'whole' && of('finding').length === 0
        ? words.say('listing.noFault')
        : facts.extent === 'none' && !facts.sealed
          ? words.say('listing.notInspected')
          : undefined,
    ],
    reason: [style.reason === '' ? undefined : style.reason],
    included: [
      facts.included.length > 0
        ? words.say('listing.included', { items: facts.included.join(', ') })
        : undefined,
    ],
    history: [
      of('history').length > 0
        ? words.say('listing.history', { events: of('history').join('. ') })
        : undefined,
    ],
    provenance: [
      facts.provenance
        ? words.say('listing.provenance', { trail: facts.provenance })
        : words.say('listing.ownersUnknown'),
    ],
    'not-proved': [
      of('not-excluded').length > 0
        ? words.say('listing.notProved', { reasons: of('not-excluded').join('; ') })
        : undefined,
    ],
    postage: [postage.length > 0 ? postage.join('\n') : undefined],
    terms: [
      style.offers === 'unsaid' ? undefined : words.say(`listing.${style.offers}`),
      style.terms === '' ? undefined : style.terms,
    ],
    cautions: cautionsFor(facts, style.rules, 'online', words),
  };
  return {
    title: title.join(', '),
    body: sectionsInOrder(style.order)
      .flatMap((section) => paragraphs[section])
      .filter((p): p is string => p !== undefined)
      .join('\n\n'),
  };
}

export interface WordingProblem {
  readonly kind: 'disclosure-dropped' | 'claim-too-strong' | 'refuted-story';
  readonly detail: string;
}

/** Words that claim more than a tier allows. */
const STRONG_WORDS: Readonly<Record<Language, RegExp>> = {
  en: /\b(guaranteed (?:genuine|authentic|original)|certainly|definitely|undoubtedly|without (?:a |any )?doubt|proven|100 ?% (?:genuine|authentic|original))\b/i,
  de: /(?<!\p{L})(garantiert (?:echt|original)|echtheit garantiert|zweifellos|zweifelsfrei|ohne (?:jeden )?zweifel|mit sicherheit|(?<!nicht )bewiesen|100 ?% (?:echt|original))(?!\p{L})/iu,
};

const folded = (text: string) =>
  text
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();

/** Words that carry a story: long enough to mean something, cut short so that their endings do not matter. */
const carrying = (text: string): Set<string> =>
  new Set(
    folded(text)
      .split(' ')
      .filter((word) => word.length > 3)
      .map((word) => word.slice(0, 5)),
  );
/** A story counts as told again when one sentence has so much of it. */
const MUCH_OF_IT = 0.6;
/** A sentence that says the story is wrong may well name it. */
const DENIES =
  /\b(not|never|wrong(?:ly)?|refuted|untrue|mistaken|no (?:truth|evidence)|contrary|nicht|nie|widerlegt|falsch|kein(?:e|en)?)\b/i;

function repeats(body: string, told: string): boolean {
  const story = carrying(told);
  if (story.size === 0) return false;
  return body.split(/(?<=[.!?])\s+|\n+/).some((sentence) => {
    const words = carrying(sentence);
    const shared = [...story].filter((word) => words.has(word)).length;
    return shared / story.size >= MUCH_OF_IT && !DENIES.test(sentence);
  });
}

/**
 * Which of the texts a body does not say. Each must stand there for itself: the longest are looked for first, and what
 * was found is used up, so that “Scales: crack” is not taken for said because “Scales: crack, heavy” is.
 */
function notSaid(body: string, texts: readonly string[]): string[] {
  let left = ` ${body} `;
  const missing = new Set<number>();
  const longestFirst = texts.map((text, i) => ({ i, words: ` ${folded(text)} ` }));
  longestFirst.sort((a, b) => b.words.length - a.words.length);
  for (const { i, words } of longestFirst) {
    const at = left.indexOf(words);
    if (at < 0) missing.add(i);
    else left = `${left.slice(0, at)} | ${left.slice(at + words.length)}`;
  }
  return texts.filter((_, i) => missing.has(i));
}

/** What an edit by hand took away or made stronger than the evidence; publishing waits until it is mended. */
export function checkWording(
  facts: ListingFacts,
  text: ListingText,
  { rules }: Pick<ListingStyle, 'rules'> = PLAIN_STYLE,
): WordingProblem[] {
  const { words } = facts;
  const problems: WordingProblem[] = [];
  const body = folded(`${text.title} ${text.body}`);
  const told = facts.statements.filter((s) => s.disclose).map((s) => s.text);
  for (const text of notSaid(body, told))
    problems.push({ kind: 'disclosure-dropped', detail: `The text no longer says: ${text}` });
  for (const caution of cautionsFor(facts, rules, 'online', words))
    if (!body.includes(folded(caution)))
      problems.push({
        kind: 'disclosure-dropped',
        detail: `The text no longer carries the caution: ${caution}`,
      });
  if (facts.isReplica && !body.includes(folded(words.say('claim.replicaWord'))))
    problems.push({ kind: 'disclosure-dropped', detail: 'A replica must be called a replica.' });
  for (const story of facts.refuted)
    if (repeats(text.body, story.told))
      problems.push({
        kind: 'refuted-story',
        detail: `This story is refuted: “${story.told}”${story.because === undefined ? '' : ` ${story.because}`}`,
      });
  if (facts.tier !== 'confirmed' || facts.overruled) {
    const strong = STRONG_WORDS[words.language].exec(`${text.title} ${text.body}`);
    if (strong)
      problems.push({
        kind: 'claim-too-strong',
        detail: `“${strong[0]}” says more than the evidence: it is ${facts.tier}.`,
      });
    if (!body.includes(folded(claimFor(facts, words))))
      problems.push({
        kind: 'claim-too-strong',
        detail: `The claim must stay as it is supported: “${claimFor(facts, words)}”`,
      });
  }
  return problems;
}
