import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { dayOf, periodOf } from '../dates/index.ts';
import { emptyContents, type PackContents, type Variant } from '../reference/index.ts';
import { checkQuestion } from './checkObservations.ts';
import { compileReference } from './compile.ts';
import { identify } from './identify.ts';
import type { IdentifyAnswer, Observation } from './observation.ts';

const TODAY = dayOf(2026, 11, 1);

const yesNo = [
  { id: 'yes', label: 'Yes' },
  { id: 'no', label: 'No' },
];
const base = { scales: ['horn'], lanyard: ['ring'], stop: ['yes'] };
const form = (
  id: string,
  window: string,
  quantity: number,
  features: Record<string, string[]>,
  more: Partial<Variant> = {},
): Variant => ({
  id,
  pattern: 'jack',
  name: id,
  kind: 'production',
  window,
  made: { quantity, basis: 'documented' },
  features: { ...base, ...features },
  marks: ['three-line'],
  ...more,
});
const contents: PackContents = {
  ...emptyContents(),
  sources: [
    { id: 'ledger', title: 'Ledger', kind: 'factory-record', reliability: 0.95 },
    { id: 'list', title: 'List', kind: 'catalogue', reliability: 0.6 },
  ],
  makers: [
    { id: 'bh', name: 'BH', active: '1908/1994' },
    { id: 'cv', name: 'CV', active: '2006/..' },
  ],
  features: [
    {
      id: 'scales',
      label: 'Scales',
      part: 'scales',
      kind: 'category',
      values: [
        { id: 'horn', label: 'Horn' },
        { id: 'fibre', label: 'Fibre' },
        { id: 'bone', label: 'Bone' },
      ],
      swap: 'easy',
    },
    {
      id: 'lanyard',
      label: 'Lanyard',
      part: 'bolster',
      kind: 'category',
      values: [
        { id: 'ring', label: 'Ring' },
        { id: 'bar', label: 'Bar' },
      ],
      swap: 'hard',
    },
    { id: 'stop', label: 'Half stop', part: 'spring', kind: 'category', values: yesNo, swap: 'hard' },
    {
      id: 'liners',
      label: 'Liners',
      part: 'liner',
      kind: 'category',
      values: [
        { id: 'brass', label: 'Brass' },
        { id: 'steel', label: 'Steel' },
      ],
      swap: 'never',
    },
    {
      id: 'lock',
      label: 'Lock',
      part: 'lock',
      kind: 'category',
      values: yesNo,
      swap: 'never',
      constructions: ['locking-folder'],
    },
    { id: 'closed', label: 'Closed', part: 'frame', kind: 'measure', unit: 'mm' },
    { id: 'blade', label: 'Blade', part: 'blade', kind: 'measure', unit: 'mm', wear: 'shrinks' },
  ],
  patterns: [
    {
      id: 'jack',
      maker: 'bh',
      name: 'Jack',
      number: '62',
      construction: 'slipjoint',
      measures: { closed: { value: 105, tolerance: 1 }, blade: { value: 76, tolerance: 1 } },
    },
    {
      id: 'pen',
      maker: 'bh',
      name: 'Pen',
      number: '27',
      construction: 'slipjoint',
      measures: { closed: { value: 83, tolerance: 1 }, blade: { value: 57, tolerance: 1 } },
    },
    { id: 'petrel', maker: 'cv', name: 'Petrel', construction: 'locking-folder' },
  ],
  codes: [
    {
      id: 'ticks',
      maker: 'bh',
      kind: 'date',
      reads: [{ id: 'ticks', label: 'Ticks', type: 'count', min: 0, max: 9 }],
      rules: [{ year: { base: 1930, plus: 'ticks' } }],
    },
    { id: 'serial', maker: 'cv', kind: 'serial', pattern: 'petrel', format: '^PT-(\\d{4})$', number: 1 },
    {
      id: 'stamp',
      maker: 'bh',
      kind: 'pattern-number',
      segments: [
        {
          id: 'handle',
          table: { '3': { feature: 'scales', value: 'horn' }, '7': { feature: 'scales', value: 'fibre' } },
        },
        { id: 'pattern', digits: '2', pattern: true },
      ],
    },
  ],
  marks: [
    {
      id: 'three-line',
      maker: 'bh',
      place: 'tang',
      lines: ['BH', 'N'],
      window: '1919/1940',
      source: 'ledger',
      page: '41',
    },
    { id: 'late', maker: 'bh', place: 'tang', lines: ['BH'], window: '1941/1994' },
  ],
  windows: [
    {
      id: 'w1',
      maker: 'bh',
      feature: 'lanyard',
      value: 'ring',
      window: '1908/1934-08',
      source: 'ledger',
      page: '44',
      carryOver: 'P6M',
    },
    {
      id: 'w2',
      maker: 'bh',
      feature: 'lanyard',
      value: 'bar',
      window: '1934-09/1994',
      source: 'ledger',
      page: '44',
    },
    {
      id: 'w3',
      maker: 'bh',
      feature: 'scales',
      value: 'horn',
      window: '1908/1936-02',
      source: 'ledger',
      page: '49',
    },
    {
      id: 'w4',
      maker: 'bh',
      feature: 'scales',
      value: 'fibre',
      window: '1936-03/1958',
      source: 'ledger',
      page: '49',
    },
    {
      id: 'w5',
      maker: 'bh',
      feature: 'liners',
      value: 'steel',
      window: '1941/1948',
      source: 'ledger',
      page: '52',
    },
    {
      id: 'w6',
      maker: 'bh',
      feature: 'liners',
      value: 'steel',
      window: '1938/1948',
      source: 'list',
      page: '9',
    },
    {
      id: 'w7',
      maker: 'bh',
      feature: 'stop',
      value: 'yes',
      window: '1908/1935',
      source: 'ledger',
      page: '47',
    },
  ],
  variants: [
    form('first', '1919/1934-08', 80_000, {}),
    form('second', '1934-09/1936-02', 24_000, { lanyard: ['bar'] }, { kind: 'service' }),
    form(
      'twin',
      '1934-09/1936-02',
      15_000,
      { lanyard: ['bar'] },
      { kind: 'commercial-twin', twinOf: 'second' },
    ),
    form('third', '1936-03/1940', 50_000, { lanyard: ['bar'], scales: ['fibre'], stop: ['no'] }),
    {
      id: 'pen-1',
      pattern: 'pen',
      name: 'Pen',
      kind: 'production',
      window: '1919/1940',
      made: { quantity: 30_000, basis: 'documented' },
      features: { scales: ['bone'], lanyard: ['ring'] },
    },
    {
      id: 'storm',
      pattern: 'petrel',
      name: 'Storm',
      kind: 'limited',
      window: '2016',
      made: { quantity: 1200, basis: 'documented' },
      features: { lock: ['yes'] },
      edition: { run: 1200, firstNumber: 1 },
    },
    {
      id: 'fake',
      pattern: 'petrel',
      name: 'Fake',
      kind: 'counterfeit',
      twinOf: 'storm',
      window: '2018/..',
      features: { lock: ['no'] },
      tells: ['the lock'],
    },
  ],
};
const index = compileReference(contents, '1', TODAY);
const ask = (observations: Observation[], within = {}): IdentifyAnswer =>
  identify(index, { observations, within, limit: 100 });
const p = (answer: IdentifyAnswer, variant: string) =>
  answer.candidates.find((c) => c.variant === variant)?.probability ?? 0;
const total = (answer: IdentifyAnswer) =>
  answer.unlisted + answer.candidates.reduce((sum, c) => sum + c.probability, 0);
const anyObservation = fc.constantFrom<Observation>(
  { feature: 'scales', value: 'horn' },
  { feature: 'scales', value: 'fibre', certainty: 'unsure' },
  { feature: 'lanyard', value: 'bar' },
  { feature: 'stop', value: 'no' },
  { feature: 'liners', value: 'steel' },
  { feature: 'closed', measure: 104.6, resolution: 0.1 },
  { feature: 'blade', measure: 71, resolution: 1 },
  { mark: 'three-line' },
  { mark: 'late' },
  { code: 'ticks', reads: { ticks: 5 } },
  { code: 'serial', text: 'PT-0412' },
  { code: 'stamp', text: '362' },
  { part: 'blade', number: 'A 17' },
  { part: 'scales', number: 'B 3' },
  { feature: 'lock', state: 'not-there' },
  { feature: 'stop', state: 'cannot-tell' },
);
const subject = (o: Observation) =>
  'mark' in o ? 'mark' : 'code' in o ? o.code : 'number' in o ? o.part : o.feature;
const observations = fc.uniqueArray(anyObservation, { maxLength: 7, selector: subject });

describe('identification', () => {
  test('probabilities over what is left and unlisted add up to one, and nothing has probability zero', () => {
    fc.assert(
      fc.property(observations, (seen) => {
        const answer = ask(seen);
        expect(total(answer)).toBeCloseTo(1, 9);
        for (const c of answer.candidates) expect(c.probability).toBeGreaterThan(0);
      }),
    );
  });

  test('the order of observations never matters', () => {
    fc.assert(
      fc.property(observations, (seen) => {
        expect(ask([...seen].reverse())).toEqual(ask(seen));
      }),
      { numRuns: 50 },
    );
  });

  test('without anything seen, what was made most is likeliest', () => {
    const answer = ask([]);
    expect(answer.candidates[0]?.variant).toBe('first');
    expect(answer.attribution.tier).toBe('not-enough-seen');
  });

  test('features tell forms apart, and twins stay together', () => {
    const answer = ask([
      { feature: 'lanyard', value: 'bar' },
      { feature: 'scales', value: 'horn' },
      { feature: 'stop', value: 'yes' },
      { mark: 'three-line' },
    ]);
    expect(p(answer, 'second') + p(answer, 'twin')).toBeGreaterThan(0.85);
    expect(answer.attribution.tier).toBe('type-consistent');
    expect(answer.attribution.cannotBeProvedBecause.join()).toContain('twin');
  });

  test('an easily exchanged part costs less than a hard one, and is named', () => {
    const swappedScales = ask(
      [
        { feature: 'lanyard', value: 'ring' },
        { feature: 'stop', value: 'yes' },
        { feature: 'scales', value: 'fibre' },
        { mark: 'three-line' },
      ],
      { patterns: ['jack'] },
    );
    expect(swappedScales.candidates[0]?.variant).toBe('first');
    expect(swappedScales.candidates[0]?.exchanged).toEqual(['scales']);
  });

  test('certainty counts: an unsure reading moves less than a sure one', () => {
    const seen = (certainty: 'sure' | 'unsure') =>
      p(ask([{ feature: 'lanyard', value: 'bar', certainty }], { patterns: ['jack'] }), 'first');
    expect(seen('unsure')).toBeGreaterThan(seen('sure'));
  });

  test('a blade short by sharpening is not another pattern; one too long is', () => {
    const blade = (measure: number) => {
      const answer = ask([{ feature: 'blade', measure, resolution: 0.5 }]);
      return p(answer, 'first') / answer.unlisted;
    };
    expect(blade(72)).toBeGreaterThan(blade(80) * 3);
  });

  test('a feature that does not apply to a construction disagrees', () => {
    const answer = ask([{ feature: 'lock', value: 'yes' }]);
    const odds = (chance: number) => chance / (1 - chance);
    expect(odds(p(answer, 'storm'))).toBeGreaterThan(20 * odds(p(ask([]), 'storm')));
    expect(answer.candidates.find((c) => c.variant === 'first')?.evidence[0]?.verdict).toBe('disagrees');
  });

  test('a number beyond the run raises an alarm and points to the counterfeit', () => {
    const beyond = ask([{ code: 'serial', text: 'PT-1733' }]);
    expect(beyond.alerts.map((a) => a.kind)).toContain('serial-beyond-run');
    const inside = ask([{ code: 'serial', text: 'PT-0412' }]);
    expect(inside.alerts.map((a) => a.kind)).not.toContain('serial-beyond-run');
    expect(p(inside, 'storm')).toBeGreaterThan(p(beyond, 'storm'));
  });

  test('a stamp that disagrees with what is seen says so', () => {
    const answer = ask([
      { code: 'stamp', text: '362' },
      { feature: 'scales', value: 'fibre' },
    ]);
    expect(answer.codes[0]?.readings[0]?.implies).toEqual([
      { feature: 'scales', value: 'horn' },
      { pattern: 'jack' },
    ]);
    expect(answer.codes[0]?.contradicts).toEqual([{ feature: 'scales', value: 'horn', observed: 'fibre' }]);
  });

  test('the next check tells the leaders apart, and nothing already seen is asked again', () => {
    const answer = ask([{ mark: 'three-line' }], { patterns: ['jack'] });
    expect(answer.nextChecks[0]?.bits).toBeGreaterThan(0.3);
    expect(answer.nextChecks.some((c) => c.mark)).toBe(false);
    expect([...answer.nextChecks].sort((a, b) => b.bits - a.bits)).toEqual(answer.nextChecks);
    const cannot = ask([{ mark: 'three-line' }, { feature: 'scales', state: 'cannot-tell' }], {
      patterns: ['jack'],
    });
    expect(cannot.nextChecks.some((c) => c.feature === 'scales')).toBe(false);
  });

  test('narrowing never excludes what is not listed, and the limit only cuts the list', () => {
    expect(identify(index, { observations: [], within: { patterns: ['pen'] } }).unlisted).toBeGreaterThan(0);
    const few = identify(index, { observations: [], limit: 1 });
    expect(few.candidates).toHaveLength(1);
    expect(few.candidates[0]?.probability).toBeCloseTo(p(ask([]), 'first'), 12);
  });

  test('unknown ids and values are named at their place', () => {
    const pointers = checkQuestion(index, {
      observations: [
        { feature: 'nothing', value: 'x' },
        { feature: 'scales', value: 'gold' },
        { code: 'ticks', reads: { ticks: 12 } },
        { mark: 'no' },
      ],
    }).map((e) => e.pointer);
    expect(pointers).toEqual([
      '/observations/0/feature',
      '/observations/1/value',
      '/observations/2/reads/ticks',
      '/observations/3/mark',
    ]);
  });
});

describe('dating', () => {
  const within = { patterns: ['jack'] };
  test('floor and ceiling bind with their source and page', () => {
    const { dating } = ask(
      [
        { feature: 'lanyard', value: 'bar' },
        { feature: 'scales', value: 'horn' },
      ],
      within,
    );
    expect(dating.core).toBe('1934-09/1936-02');
    expect(dating.floor[0]).toMatchObject({
      because: { feature: 'lanyard', value: 'bar' },
      date: '1934-09',
      source: 'ledger',
      page: '44',
    });
    expect(dating.ceiling[0]).toMatchObject({
      because: { feature: 'scales', value: 'horn' },
      date: '1936-02',
    });
  });
  test('carry-over moves the end, and only in the outer bracket', () => {
    const { dating } = ask([{ feature: 'lanyard', value: 'ring' }], within);
    expect(dating.core.endsWith('1934-08')).toBe(true);
    expect(dating.outer.endsWith('1935-02')).toBe(true);
  });
  test('disputed sources: strict is what all allow, lenient what any allows', () => {
    const { dating } = ask([{ feature: 'liners', value: 'steel' }], within);
    expect(dating.disputed[0]).toMatchObject({
      between: ['ledger', 'list'],
      strict: '1941/1948',
      lenient: '1938/1948',
    });
  });
  test('when nothing overlaps, the cheapest explanation comes first', () => {
    const { dating, attribution } = ask(
      [
        { feature: 'lanyard', value: 'ring' },
        { feature: 'scales', value: 'fibre' },
      ],
      within,
    );
    expect(dating.conflicts[0]).toMatchObject({
      setAside: [{ feature: 'scales', value: 'fibre' }],
      explanation: 'replaced-part',
    });
    expect(dating.conflicts[1]).toMatchObject({ setAside: [{ feature: 'lanyard', value: 'ring' }] });
    expect(dating.core.endsWith('1934-08')).toBe(true);
    expect(attribution.reasons.length).toBeGreaterThan(0);
  });
  test('a date code is one year, with its probability', () => {
    const { dating } = ask([{ code: 'ticks', reads: { ticks: 5 } }], within);
    expect(dating.core).toBe('1935');
    expect(dating.years.find((y) => y.year === 1935)?.probability).toBeGreaterThan(0.8);
  });
  test('a bracket never widens when an observation is added, as long as nothing conflicts', () => {
    fc.assert(
      fc.property(observations, (seen) => {
        let before = periodOf(ask([], within).dating.outer).strict[0];
        for (let n = 1; n <= seen.length; n++) {
          const { dating } = ask(seen.slice(0, n), within);
          if (dating.conflicts.length > 0) return;
          const now = periodOf(dating.outer).strict[0];
          if (before && now) {
            expect(now.from).toBeGreaterThanOrEqual(before.from);
            expect(now.to).toBeLessThanOrEqual(before.to);
          }
          before = now;
        }
      }),
      { numRuns: 40 },
    );
  });
});

describe('something else than any value of the list', () => {
  const seen: Observation[] = [{ mark: 'three-line' }, { feature: 'lanyard', value: 'ring' }];
  const other: Observation = { feature: 'stop', other: 'A half step' };

  test('speaks for what is in no reference, and against every form that records something there', () => {
    const [before, after] = [ask(seen), ask([...seen, other])];
    expect(after.unlisted).toBeGreaterThan(1.3 * before.unlisted);
    // several of them are hardly misread and hardly exchanged
    const many = ask([
      { mark: 'three-line' },
      other,
      { feature: 'lanyard', other: 'A swivel' },
      { feature: 'scales', other: 'Celluloid' },
    ]);
    expect(many.unlisted).toBeGreaterThan(0.5);
    for (const candidate of after.candidates)
      for (const line of candidate.evidence)
        if ('feature' in line && line.feature === 'stop') expect(line.verdict).not.toBe('agrees');
  });
  test('an unsure one speaks less', () => {
    const sure = ask([...seen, other]).unlisted;
    const unsure = ask([...seen, { ...other, certainty: 'unsure' }]).unlisted;
    expect(unsure).toBeLessThan(sure);
    expect(unsure).toBeGreaterThan(ask(seen).unlisted * 0.9);
  });
  test('the same words are the same, however they are written', () => {
    expect(ask([...seen, { feature: 'stop', other: ' a HALF step ' }]).unlisted).toBe(
      ask([...seen, other]).unlisted,
    );
  });
  test.each<[string, Observation]>([
    ['what the list has is chosen from it', { feature: 'scales', other: 'horn ' }],
    ['so is what it has by its id', { feature: 'scales', other: 'FIBRE' }],
    ['signs alone say nothing', { feature: 'scales', other: '??' }],
    ['a measure has no list', { feature: 'closed', other: 'long' }],
  ])('%s', (_, observation) => {
    expect(checkQuestion(index, { observations: [observation] })).toHaveLength(1);
  });
});
