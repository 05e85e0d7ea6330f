import { describe, expect, test } from '@jest/globals';
import type { Statement, StatementKind } from '../pieces/index.ts';
import { ENGLISH } from '../words/index.ts';
import { answersFrom } from './answers.ts';
import { PLAIN_STYLE, type ListingFacts } from './write.ts';

const say = (kind: StatementKind, text: string): Statement => ({
  kind,
  text,
  basis: 'seen',
  strength: 'sure',
  source: null,
  disclose: true,
});
const facts: ListingFacts = {
  words: ENGLISH,
  tier: 'probable',
  makerName: 'Brackenholt Cutlery',
  patternName: 'Harbour jack',
  variantName: undefined,
  issuedTo: undefined,
  construction: 'slipjoint',
  made: '1934 – 1936',
  extent: 'whole',
  sealed: false,
  overruled: false,
  gradeLine: 'Condition: very good.',
  statements: [
    say('mark', 'Stamp “BRACKENHOLT”, tang'),
    say('finding', 'Blade: sharpened, light'),
    say('finding', 'Scales: crack, light, 4 mm'),
    say('completeness', 'No box'),
    say('measure', 'Closed length: 104.8 mm · 4 1/8 in'),
    say('feature', 'Scales: jigged bone'),
    say('not-excluded', 'a commercial twin shares every observed feature'),
  ],
  refuted: [],
  included: ['its pouch'],
  provenance: undefined,
  isReplica: false,
  isLicensed: false,
};
const first = (question: string, more: Partial<ListingFacts> = {}, style = PLAIN_STYLE) =>
  answersFrom(question, { ...facts, ...more }, style)[0];

describe('a buyer asks, the record answers', () => {
  test.each([
    ['Has she ever been sharpened?', 'Blade: sharpened, light.'],
    ['any cracks in the handle?', 'Scales: crack, light, 4 mm.'],
    ['What does the tang stamp read?', 'Stamp “BRACKENHOLT”, tang.'],
    ['How long is it closed?', 'Closed length: 104.8 mm · 4 1/8 in.'],
    ['Does it come with the box?', 'Included: its pouch. No box.'],
    ['What year was it made?', 'Made: 1934 – 1936.'],
    ['What are the scales made of?', 'Scales: jigged bone.'],
  ])('%s', (question, answer) => expect(first(question)).toBe(answer));
  test('“none was found” only after a whole look', () => {
    expect(first('Is there any blade play?')).toBe('On inspection no play was found.');
    // of a part look what was left out is known: the blade was looked at, the inside was not
    const left = {
      extent: 'partly' as const,
      statements: [say('not-examined', 'Not examined, inside: liner')],
    };
    expect(first('Is there any blade play?', left)).toBe('On inspection no play was found.');
    expect(
      first('Is it sound around the pins?', {
        ...left,
        statements: [say('not-examined', 'Not examined, handle: scales, pin')],
      }),
    ).toMatch(/not examined/);
    for (const extent of ['partly', 'none'] as const)
      expect(first('Is there any blade play?', { extent })).toMatch(/not examined/);
    expect(first('Is there any blade play?', { sealed: true })).toMatch(/not examined/);
  });
  test('“is it genuine” gets the claim the evidence allows, with what is not proved', () =>
    expect(first('Is this a genuine one?')).toBe(
      'This is very likely Brackenholt Cutlery Harbour jack. Not proved, because a commercial twin shares every observed feature.',
    ));
  test('postage and offers as the shop says them; nothing where it says nothing', () => {
    expect(first('Do you ship to the islands?')).toBeUndefined();
    expect(first('Do you ship to the islands?', {}, { ...PLAIN_STYLE, postageAbroad: 'at cost' })).toBe(
      'Postage abroad: at cost.',
    );
    expect(first('Would you take less?', {}, { ...PLAIN_STYLE, offers: 'fixed' })).toBe(
      'The price is fixed.',
    );
  });
  test('what the record does not know is not made up', () =>
    expect(answersFrom('Which football team do you like?', facts, PLAIN_STYLE)).toEqual([]));
  test('what is asked of the condition of a part is not answered with its material', () =>
    expect(answersFrom('Is the handle sound around the pins?', facts, PLAIN_STYLE)).toEqual([
      'Scales: crack, light, 4 mm.',
    ]));
  test('two things asked, two answers, in the order in which they were asked', () =>
    expect(answersFrom('Is there rust, and was it sharpened?', facts, PLAIN_STYLE)).toEqual([
      'On inspection no rust, pitting or stain was found.',
      'Blade: sharpened, light.',
    ]));
});
