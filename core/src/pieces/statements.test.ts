import { describe, expect, test } from '@jest/globals';
import { compileReference, identify, type IdentifyAnswer } from '../bench/index.ts';
import { freshInspection, inspectionFor, type Finding } from '../condition/index.ts';
import { dayOf } from '../dates/index.ts';
import { emptyContents, type PackContents } from '../reference/index.ts';
import { extentOfInspection, statementsOf, type KnownOfPiece } from './statements.ts';

const contents: PackContents = {
  ...emptyContents(),
  makers: [{ id: 'm', name: 'Maker', active: '1950/1990' }],
  patterns: [{ id: 'p', maker: 'm', name: 'Pattern', construction: 'slipjoint' }],
  features: [
    {
      id: 'shield',
      label: 'Shield',
      part: 'shield',
      kind: 'category',
      swap: 'easy',
      values: [
        { id: 'oval', label: 'Oval, inlaid' },
        { id: 'none', label: 'None' },
      ],
    },
    { id: 'blades', label: 'Blades', part: 'blade', kind: 'count', swap: 'hard' },
  ],
  codes: [
    { id: 'number', maker: 'm', kind: 'serial', title: 'Number', pattern: '^\\d+$', ranges: [] },
  ] as unknown as PackContents['codes'],
  variants: [
    {
      id: 'v',
      pattern: 'p',
      name: 'Anniversary',
      kind: 'limited',
      window: '1975',
      edition: { run: 1200, index: 4, retailer: 'Quay Cutlers', split: [{ run: 800, of: 'bone' }] },
    },
  ] as unknown as PackContents['variants'],
};
const index = compileReference(contents, '1', dayOf(2026, 11, 1));
const answer = identify(index, { observations: [] });
const looked = (): KnownOfPiece['inspection'] => {
  const fresh = freshInspection('slipjoint');
  const steps = inspectionFor('slipjoint', fresh).flatMap((section) => section.steps);
  return { ...fresh, steps: Object.fromEntries(steps.map((step) => [step.id, 'good'])) };
};
const known = (more: Partial<KnownOfPiece> = {}): KnownOfPiece => ({
  index,
  construction: 'slipjoint',
  observations: [],
  answer,
  tier: 'probable',
  claimed: index.variants.get('v'),
  findings: [],
  completeness: {},
  inspected: true,
  inspection: looked(),
  treatments: [],
  asFound: null,
  takenInAs: null,
  sealed: false,
  movedParts: [],
  openQuestions: [],
  custody: [],
  trailContext: {},
  made: undefined,
  today: dayOf(2026, 11, 1),
  unproved: [],
  clash: null,
  madeByJudgement: null,
  overruled: null,
  ...more,
});
const disclosed = (more: Partial<KnownOfPiece>) =>
  statementsOf(known({ claimed: undefined, ...more }))
    .filter((s) => s.disclose)
    .map((s) => s.text);
const crack: Finding = { part: 'scales', defect: 'crack', severity: 'light' };

describe('everything that is known is said', () => {
  test('of a piece with nothing against it, looked at as a whole, nothing need be told', () =>
    expect(disclosed({})).toEqual([]));
  test.each<[string, Partial<KnownOfPiece>, RegExp]>([
    ['a finding', { findings: [crack] }, /Scales: crack/i],
    ['a missing item', { completeness: { box: 'none' } }, /No box/],
    ['an open question', { openQuestions: ['a star on the spring'] }, /Not explained: a star on the spring/],
    [
      'a part from elsewhere',
      { movedParts: ['The clip comes from another piece'] },
      /clip comes from another/,
    ],
    ['what it was bought as', { takenInAs: 'reproduction' }, /bought as a reproduction, not as the original/],
    ['how it came in', { asFound: 'polished' }, /polished before it came here/],
    ['a seal', { sealed: true }, /sealed in its package and was not opened/],
    [
      'a date that the appraiser gave, with the reason',
      { madeByJudgement: { made: '1976', reason: 'the works ledger' } },
      /Dated 1976 by the appraiser: the works ledger/,
    ],
    [
      'a clash of form and signs',
      { clash: { window: '1975', bracket: '1980' } as KnownOfPiece['clash'] },
      /form was made 1975.*seen on it is of 1980/,
    ],
    [
      'evidence that was overruled, with what overrules it',
      { overruled: { evidence: 'letter of the works, 1976' } },
      /Attributed by the appraiser on the ground of: letter of the works, 1976; .* imitation/,
    ],
  ])('%s', (_, more, text) => expect(disclosed(more)).toEqual([expect.stringMatching(text)]));
  test('what contradicts itself in time is told', () => {
    const conflicting = {
      ...answer,
      dating: { ...answer.dating, conflicts: [{}] },
    } as unknown as IdentifyAnswer;
    expect(disclosed({ answer: conflicting })).toEqual(['What was seen on it cannot all be from one time']);
  });
  test('a piece decided to be an imitation needs no excuse for overruling', () =>
    expect(disclosed({ tier: 'rejected', overruled: { evidence: '' } })).toEqual([]));
});

describe('editions', () => {
  const editions = (more: Partial<KnownOfPiece>) =>
    statementsOf(known(more)).flatMap((s) => (s.kind === 'edition' ? [s.text] : []));
  test('the number in its run, the run’s shares, the index, and for whom', () =>
    expect(editions({ observations: [{ code: 'number', text: '88' }] })).toEqual([
      'Number 88 of a run of 1,200',
      'The run was made as 800 bone',
      'Number 4 of its annual series',
      'Made for Quay Cutlers',
    ]));
  test('a number on something unlisted is told as it stands', () =>
    expect(editions({ claimed: undefined, observations: [{ code: 'number', text: '88' }] })).toEqual([
      'Number 88',
    ]));
});

describe('parts', () => {
  const exchanged = {
    ...answer,
    candidates: [{ variant: 'v', exchanged: ['shield'] }],
  } as unknown as IdentifyAnswer;
  const parts = (more: Partial<KnownOfPiece>) =>
    statementsOf(known({ answer: exchanged, ...more })).flatMap((s) => (s.kind === 'part' ? [s.text] : []));
  test('what the form needs to have been exchanged is told, once', () => {
    expect(parts({})).toEqual(['The shield seems to have been exchanged']);
    expect(parts({ findings: [{ part: 'shield:1', defect: 'replaced' }] })).toEqual([]);
    expect(parts({ findings: [{ part: 'shield:1', defect: 'loose' }] })).toHaveLength(1);
  });
  test('of another form nothing is said', () => expect(parts({ claimed: undefined })).toEqual([]));
  test('a marriage names both', () => {
    const marriage = {
      ...answer,
      putTogether: { pieces: [{ parts: ['blade'] }, { parts: ['scales', 'shield'] }] },
    } as unknown as IdentifyAnswer;
    expect(disclosed({ answer: marriage })).toEqual([
      'Its parts seem to belong to two pieces: blade / scales, shield',
    ]);
  });
});

describe('how much was looked at', () => {
  test('only a whole look may say that nothing was found', () => {
    expect(extentOfInspection(known())).toBe('whole');
    expect(extentOfInspection(known({ inspection: freshInspection('slipjoint') }))).toBe('partly');
    expect(extentOfInspection(known({ inspected: false }))).toBe('none');
    expect(extentOfInspection(known({ inspected: false, findings: [crack] }))).toBe('partly');
    expect(extentOfInspection(known({ sealed: true }))).toBe('none');
    expect(extentOfInspection(known({ sealed: true, findings: [crack] }))).toBe('partly');
  });
  test('steps that were skipped are named by section; without an inspection nothing is', () => {
    const skipped = disclosed({ inspection: freshInspection('slipjoint') });
    expect(skipped.length).toBeGreaterThan(2);
    for (const line of skipped) expect(line).toMatch(/^Not examined, /);
    expect(disclosed({ inspected: false, inspection: freshInspection('slipjoint') })).toEqual([]);
  });
});

test('features are for whoever asks: in words, without what is not there, and never a disclosure', () => {
  const features = statementsOf(
    known({
      observations: [
        { feature: 'shield', value: 'oval' },
        { feature: 'blades', value: 2 },
        { feature: 'shield', value: 'none' },
        { feature: 'nowhere', value: 'x' },
      ],
    }),
  ).filter((s) => s.kind === 'feature');
  expect(features.map((s) => [s.text, s.disclose])).toEqual([
    ['Shield: Oval, inlaid', false],
    ['Blades: 2', false],
  ]);
});
