/**
 * What the record says to a buyer's question: by what it asks about, the stored statement that answers it. Where the
 * record is silent nothing is offered; “none was found” is said only after a whole look.
 */
import type { StatementKind } from '../pieces/index.ts';
import { claimFor, postageLines, type ListingFacts, type ListingStyle } from './write.ts';

interface Topic {
  /** answers only where nothing nearer does */
  readonly general?: true;
  /** words of the question that ask for it */
  readonly asks: RegExp;
  readonly answer: (facts: ListingFacts, style: ListingStyle) => string | undefined;
}

const sentence = (texts: readonly string[]): string | undefined =>
  texts.length > 0 ? `${texts.join('. ')}.` : undefined;
const said = (facts: ListingFacts, kinds: readonly StatementKind[], about: RegExp = /./) =>
  facts.statements.filter((s) => kinds.includes(s.kind) && about.test(s.text)).map((s) => s.text);

/** Whether all the parts that bear on it were looked at; a part that was left out is told as such. */
const looked = (facts: ListingFacts, parts: RegExp): boolean => {
  if (facts.sealed || facts.extent === 'none') return false;
  const left = said(facts, ['not-examined']);
  return facts.extent === 'whole' || (left.length > 0 && !left.some((text) => parts.test(text)));
};

/** What was found of a kind; that nothing was found only where everything that bears on it was looked at. */
const found =
  (about: RegExp, what: string, parts: RegExp): Topic['answer'] =>
  (facts) => {
    const there = said(facts, ['finding', 'treatment', 'part'], about);
    if (there.length > 0) return sentence(there);
    return looked(facts, parts)
      ? `On inspection no ${what} was found.`
      : 'That was not examined, so nothing can be said about it.';
  };

const TOPICS: readonly Topic[] = [
  {
    asks: /\b(play|wobbl\w*|blade moves?|lock ?up|lock rock)\b/i,
    answer: found(/\b(play|lock rock|loose)\b/i, 'play', /play|lock|pivot/i),
  },
  {
    asks: /\b(sharpen\w*|resharpen\w*|reground|re-?ground|full blade|blade loss|worn down)\b/i,
    answer: found(/\b(sharpened|reground|blade lost)\b/i, 'sign of sharpening', /blade|edge/i),
  },
  {
    asks: /\b(crack\w*|chip\w*|sound|pins?|gaps?|shrink\w*)\b/i,
    answer: found(
      /\b(crack|chip|gap|shrinkage|swelling|loose|^pin|^scales|^grip)/i,
      'crack, chip or gap',
      /handle|scales|grip|pin/i,
    ),
  },
  {
    asks: /\b(rust\w*|pit(?:s|ted|ting)?|corro\w*|stain\w*)\b/i,
    answer: found(/\b(rust|pitting|stain)\b/i, 'rust, pitting or stain', /blade|finish|spring/i),
  },
  {
    asks: /\b(polish\w*|buff\w*|clean\w*|refinish\w*|restor\w*|repair\w*|treated|replaced)\b/i,
    answer: found(
      /\b(polished|refinished|repaired|replaced|exchanged|treated|cleaned)\b/i,
      'polishing, repair or replacement',
      /./,
    ),
  },
  {
    asks: /\b(stamp\w*|tang|mark(?:s|ed|ings?)?|number(?:ed|s)?|serial|logo)\b/i,
    answer: (facts) => sentence(said(facts, ['mark', 'edition'])),
  },
  {
    asks: /\b(post(?:age|ed)?|ship\w*|deliver\w*|abroad|overseas|customs|courier)\b/i,
    answer: (facts, style) => sentence(postageLines(facts, style)),
  },
  {
    asks: /\b(weigh\w*|heavy|how long|lengths?|sizes?|dimensions?|thick\w*|wide|width|measure\w*)\b/i,
    answer: (facts) => sentence(said(facts, ['measure'])),
  },
  {
    general: true,
    asks: /\b(steel|material|scales?|handle|shape|lock|shield|bolsters?|clip)\b/i,
    answer: (facts) => sentence(said(facts, ['feature'])),
  },
  {
    asks: /\b(box|papers?|sheath|scabbard|frog|pouch|included?|comes? with|accessories)\b/i,
    answer: (facts) =>
      sentence([
        ...(facts.included.length > 0
          ? [
              `${facts.words.say('listing.included', { items: facts.included.join(', ') }).replace(/\.$/, '')}`,
            ]
          : []),
        ...said(facts, ['completeness']),
      ]),
  },
  {
    asks: /\b(when|year|how old|age|dat(?:e|ed|ing))\b/i,
    answer: (facts) => {
      const { words } = facts;
      const made = facts.made
        ? words.say('listing.made', { made: facts.made })
        : words.say('listing.madeUnknown');
      return [made, sentence(said(facts, ['date']))].filter(Boolean).join(' ');
    },
  },
  {
    asks: /\b(genuine|original|authentic|real|fake|replica|reproduction|counterfeit|sure)\b/i,
    answer: (facts) => {
      const { words } = facts;
      const reasons = said(facts, ['not-excluded']);
      return [
        claimFor(facts, words),
        reasons.length > 0 ? words.say('listing.notProved', { reasons: reasons.join('; ') }) : undefined,
      ]
        .filter(Boolean)
        .join(' ');
    },
  },
  {
    asks: /\b(owners?|owned|provenance|histor\w*|come from|came from|where did|belonged)\b/i,
    answer: (facts) =>
      facts.provenance
        ? facts.words.say('listing.provenance', { trail: facts.provenance })
        : facts.words.say('listing.ownersUnknown'),
  },
  {
    asks: /\b(offers?|lowest|best price|discount|negotia\w*|less|reduce\w*|flexib\w*)\b/i,
    answer: (facts, { offers }) => (offers === 'unsaid' ? undefined : facts.words.say(`listing.${offers}`)),
  },
  {
    asks: /\b(why .*sell\w*|reason)\b/i,
    answer: (_, { reason }) => (reason === '' ? undefined : reason),
  },
  {
    general: true,
    asks: /\b(condition|grade|fault|damage|defects?|wear)\b/i,
    answer: (facts) =>
      [facts.gradeLine, sentence(said(facts, ['finding']))].filter(Boolean).join(' ') || undefined,
  },
];

/** As many answers as a clerk chooses among with one key each. */
const MOST_ANSWERS = 3;

/** @returns answers from what is stored, the one to what is asked first standing first; none where it says nothing */
export function answersFrom(question: string, facts: ListingFacts, style: ListingStyle): string[] {
  const asked = TOPICS.flatMap((topic) => {
    const at = question.search(topic.asks);
    const text = at < 0 ? undefined : topic.answer(facts, style);
    return text === undefined ? [] : [{ at, text, general: topic.general ?? false }];
  });
  const near = asked.filter((a) => !a.general);
  return [...new Set((near.length > 0 ? near : asked).sort((a, b) => a.at - b.at).map((a) => a.text))].slice(
    0,
    MOST_ANSWERS,
  );
}
