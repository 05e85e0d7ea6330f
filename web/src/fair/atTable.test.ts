import { describe, expect, test } from '@jest/globals';
import { fairNote } from '@jutbank/contract/fair';
import type { FairJudgement } from '@jutbank/core/fair';
import { noteOf, NOTHING_YET, questionOf, type OnTable } from './atTable.ts';

const jack = { id: 'harbour-jack', name: 'Harbour jack', construction: 'slipjoint' as const };
const eur = (amount: string) => ({ amount, currency: 'EUR' });
const on: OnTable & { pattern: typeof jack } = {
  ...NOTHING_YET,
  pattern: jack,
  seen: [{ label: 'Stamp', make: { mark: 'arched' } }],
  look: { engraved: 1, polished: 1, crack: 2 },
  withIt: { box: true, papers: false, sheath: true },
  asked: eur('58.00'),
  said: ' from a cellar ',
};
const told = (bid: string | null) => ({ most: { bid, currency: 'EUR' } }) as FairJudgement;

describe('the question of what lies on the table', () => {
  test('holds what was seen, what is with it and what was done to it', () => {
    expect(questionOf(on, 71)).toMatchObject({
      pattern: 'harbour-jack',
      variant: null,
      observations: [{ mark: 'arched' }],
      conditionIndex: 71,
      box: 'original',
      papers: 'none',
      // a folder has none, whatever was tapped before
      sheath: null,
      alterations: ['polished', 'named'],
    });
  });
  test('there is none while nobody says which pattern it is', () => {
    expect(questionOf({ ...on, pattern: undefined }, 71)).toBeUndefined();
    expect(questionOf({ ...on, pattern: { ...jack, id: null } }, 71)).toBeUndefined();
  });
});

describe('the note of a decision', () => {
  test('is what the server takes: what was seen once, the ceiling as it was told', () => {
    const note = noteOf(on, 'bought', questionOf(on, 71), told('60.00'), undefined);
    expect(fairNote.parse(note)).toEqual(note);
    expect(note).toMatchObject({
      title: 'Harbour jack',
      paid: eur('58.00'),
      note: 'from a cellar',
      observations: [{ mark: 'arched' }],
      ceiling: eur('60.00'),
    });
    expect(note.question?.observations).toBeNull();
  });
  test('nothing is paid for what was left; a ceiling that allows nothing is none; one nobody told is not there', () => {
    const question = questionOf(on, 71);
    expect(noteOf(on, 'left', question, told(null), undefined)).toMatchObject({ paid: null, ceiling: null });
    expect(noteOf(on, 'left', question, undefined, undefined)).not.toHaveProperty('ceiling');
  });
});
