/** Of whatever is recorded of a piece, what must be told stands in its listing, and taking it out is named. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { compileReference, identify } from '../bench/index.ts';
import {
  COMPLETENESS,
  DEFECTS,
  freshInspection,
  ITEMS_OF,
  PARTS,
  SEVERITIES,
  TREATMENT_KINDS,
  type Finding,
  type TreatmentDone,
} from '../condition/index.ts';
import { dayOf } from '../dates/index.ts';
import { extentOfInspection, statementsOf, type KnownOfPiece } from '../pieces/index.ts';
import { EVIDENCE_KINDS, type CustodyEvent } from '../provenance/index.ts';
import { emptyContents } from '../reference/index.ts';
import { ENGLISH, LANGUAGES, wordsIn } from '../words/index.ts';
import { checkWording, writeListing, type ListingFacts } from './write.ts';

const index = compileReference(emptyContents(), '1', dayOf(2026, 11, 1));
const answer = identify(index, { observations: [] });

const note = fc.constantFrom('at the rear pin', 'seen under the glass', 'not the works’ own', '');
const finding: fc.Arbitrary<Finding> = fc.record({
  part: fc.constantFrom(...PARTS, 'blade:2'),
  defect: fc.constantFrom(...DEFECTS),
  severity: fc.option(fc.constantFrom(...SEVERITIES)),
  measure: fc.option(fc.integer({ min: 1, max: 60 })),
  count: fc.option(fc.integer({ min: 1, max: 4 })),
  byMaker: fc.boolean(),
  note,
});
const treatment: fc.Arbitrary<TreatmentDone> = fc.record({
  kind: fc.constantFrom(...TREATMENT_KINDS),
  title: fc.constant(''),
  product: fc.constantFrom('', 'mineral oil'),
  grit: fc.constantFrom('', '600'),
  doneOn: fc.constantFrom('2025-03-01', '2026-08-11'),
}) as fc.Arbitrary<TreatmentDone>;
const completeness = fc
  .tuple(
    ...ITEMS_OF['locking-folder'].map((item) =>
      fc.option(fc.constantFrom(...COMPLETENESS[item].states)).map((state) => [item, state] as const),
    ),
  )
  .map((entries) => Object.fromEntries(entries));
const owner: fc.Arbitrary<CustodyEvent> = fc.record({
  holder: fc.constantFrom('Elias Corrie', 'Quay museum'),
  private: fc.boolean(),
  place: fc.option(fc.constantFrom('Norham Vale', 'Hollin Quay')),
  period: fc.constantFrom('1930/1950', '1945/1970', '1960', '1980/1990'),
  how: fc.constant(null),
  evidence: fc.constantFrom(...EVIDENCE_KINDS),
  note: fc.constant(null),
});
const known: fc.Arbitrary<KnownOfPiece> = fc.record({
  index: fc.constant(index),
  construction: fc.constant('locking-folder'),
  observations: fc.constant([]),
  answer: fc.constant(answer),
  tier: fc.constantFrom('confirmed', 'probable', 'type-consistent', 'doubtful', 'not-enough-seen'),
  claimed: fc.constant(undefined),
  findings: fc.array(finding, { maxLength: 8 }),
  completeness,
  inspected: fc.boolean(),
  inspection: fc.constant(freshInspection('locking-folder')),
  treatments: fc.array(treatment, { maxLength: 4 }),
  takenInAs: fc.constantFrom(null, 'reissue', 'licensed-copy', 'reproduction'),
  asFound: fc.constantFrom(null, 'polished', 'cleaned', 'sealed', 'preserved-in-grease'),
  sealed: fc.boolean(),
  movedParts: fc.uniqueArray(
    fc.constantFrom('The clip comes from elsewhere', 'The pivot comes from another piece'),
  ),
  openQuestions: fc.uniqueArray(fc.constantFrom('a star on the spring', 'a second number under the scale')),
  custody: fc.array(owner, { maxLength: 4 }),
  trailContext: fc.constant({ contradicted: ['A letter of 1942 names another number.'] }),
  made: fc.constant({ from: dayOf(1940), to: dayOf(1944) }),
  today: fc.constant(dayOf(2026, 11, 1)),
  unproved: fc.uniqueArray(fc.constantFrom('a twin shares every feature', 'the tang was not read')),
  clash: fc.constant(null),
  madeByJudgement: fc.option(fc.constant({ made: '1942', reason: 'the works ledger' })),
  overruled: fc.option(fc.constant({ evidence: 'letter of the works, 1942' })),
}) as fc.Arbitrary<KnownOfPiece>;

const factsFor = (of: KnownOfPiece, words = ENGLISH): ListingFacts => ({
  words,
  tier: of.tier,
  makerName: 'Brackenholt Cutlery',
  patternName: 'Petrel',
  variantName: 'Second form',
  issuedTo: undefined,
  construction: of.construction,
  made: '1940 – 1944',
  extent: extentOfInspection(of),
  sealed: of.sealed,
  overruled: of.overruled !== null,
  statements: statementsOf(of, words),
  gradeLine: undefined,
  refuted: [],
  included: [],
  provenance: undefined,
  isReplica: false,
  isLicensed: false,
});

describe('whatever is recorded', () => {
  test('is told as the rules write it, each fact for itself', () =>
    fc.assert(
      fc.property(known, fc.constantFrom(...LANGUAGES), (of, language) => {
        const facts = factsFor(of, wordsIn(language));
        expect(checkWording(facts, writeListing(facts))).toEqual([]);
        // a fact for each thing that was found, done or left out
        const count = (kind: string) => facts.statements.filter((s) => s.kind === kind).length;
        expect(count('finding')).toBe(of.findings.length);
        expect(count('treatment')).toBe(of.treatments.length);
        expect(count('question')).toBe(of.openQuestions.length);
      }),
    ));
  test('and whichever is taken out of the text is named', () =>
    fc.assert(
      fc.property(known, fc.nat(), fc.constantFrom(...LANGUAGES), (of, pick, language) => {
        const facts = factsFor(of, wordsIn(language));
        const told = facts.statements.filter((s) => s.disclose);
        const dropped = told[pick % Math.max(1, told.length)];
        if (!dropped) return;
        // the line itself goes, not the beginning of a longer one
        const { title, body } = writeListing(facts);
        const lines = body.split('\n');
        const at = lines.indexOf(`– ${dropped.text}`);
        const without =
          at >= 0 ? lines.filter((_, i) => i !== at).join('\n') : body.replace(dropped.text, '');
        expect(checkWording(facts, { title, body: without })).toContainEqual({
          kind: 'disclosure-dropped',
          detail: `The text no longer says: ${dropped.text}`,
        });
      }),
    ));
  test('no private owner is named in what is told', () =>
    fc.assert(
      fc.property(known, (of) => {
        const hidden = of.custody.filter((e) => e.private).map((e) => e.holder);
        const open = of.custody.filter((e) => !e.private).map((e) => e.holder);
        const text = statementsOf(of)
          .map((s) => s.text)
          .join('\n');
        for (const name of hidden) if (!open.includes(name)) expect(text).not.toContain(name);
      }),
    ));
});
