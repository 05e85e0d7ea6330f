/**
 * Pieces as a specialist would bring them to the bench, in the demo's world. Each says in one line what a specialist
 * would say and why; a fault found on a real piece becomes a case here before it is mended.
 */
import { describe, expect, test } from '@jest/globals';
import {
  compileReference,
  identify,
  withAlerts,
  withEncounters,
  NO_ENCOUNTERS,
  type FoundPlace,
  type IdentifyAnswer,
  type Observation,
} from '@jutbank/core/bench';
import { gradeCondition, SHIPPED_RULES, type Finding } from '@jutbank/core/condition';
import { dayOf, edtfInWords } from '@jutbank/core/dates';
import { claimFor } from '@jutbank/core/listing';
import { extentOfInspection, statementsOf, type KnownOfPiece } from '@jutbank/core/pieces';
import { allocateLot } from '@jutbank/core/intake';
import {
  checkPack,
  emptyContents,
  scarcityOf,
  type Code,
  type Construction,
  type PackContents,
  type ReferencePack,
  type Variant,
} from '@jutbank/core/reference';
import { demoPack } from './reference.ts';

const TODAY = dayOf(2026, 11, 27);
const demo: PackContents = { ...emptyContents(), ...demoPack };
const compiled = (more: Partial<PackContents> = {}) =>
  compileReference(
    Object.fromEntries(
      Object.entries(demo).map(([section, items]) => [
        section,
        [...items, ...(more[section as keyof PackContents] ?? [])],
      ]),
    ) as unknown as PackContents,
    '1',
    TODAY,
  );
const index = compiled();

interface Question {
  readonly seen: readonly Observation[];
  readonly construction?: Construction;
  readonly found?: FoundPlace;
  readonly decided?: string;
  readonly sealed?: boolean;
  readonly reference?: typeof index;
}
const ask = ({ seen, construction, found, decided, sealed, reference = index }: Question): IdentifyAnswer =>
  identify(reference, {
    observations: seen,
    within: { constructions: construction ? [construction] : [] },
    found: found ?? 'unknown',
    limit: 100,
    decided: decided === undefined ? null : { variant: decided },
    sealed: sealed ?? false,
  });
const chance = (answer: IdentifyAnswer, variant: string) =>
  answer.candidates.find((c) => c.variant === variant)?.probability ?? 0;
const leader = (answer: IdentifyAnswer) => answer.candidates[0]?.variant;
const f = (feature: string, value: string | number, certainty?: 'likely' | 'unsure'): Observation => ({
  feature,
  value,
  ...(certainty ? { certainty } : {}),
});
const size = (feature: string, measure: number): Observation => ({ feature, measure, resolution: 0.1 });
const mark = (id: string): Observation => ({ mark: id });
const text = (code: string, stamp: string): Observation => ({ code, text: stamp });
const ticks = (n: number, row: string): Observation => ({ code: 'bh-ticks', reads: { ticks: n, row } });
const letter = (sign: string): Observation => ({ code: 'tw-letter', reads: { letter: sign } });

/** Everything a variant of the demo records, as seen. */
function all(id: string, except: readonly string[] = []): Observation[] {
  const row = index.variants.get(id);
  return Object.entries(row?.variant.features ?? {}).flatMap(([feature, values]) =>
    except.includes(feature) || values[0] === undefined ? [] : [f(feature, values[0])],
  );
}

const jack = 'slipjoint';
const petrel = 'locking-folder';

describe('which: by number, stamp and features', () => {
  test('a number of the Ember run with all features agreeing is that run, though only 300 were made', () => {
    const answer = ask({
      seen: [...all('pt-ember'), text('petrel-serial', 'PT-0041')],
      construction: petrel,
    });
    expect(leader(answer)).toBe('pt-ember');
    expect(chance(answer, 'pt-ember')).toBeGreaterThan(0.9);
    expect(answer.unlisted).toBeLessThan(0.05);
  });
  test('a ten-made piece with its number and every feature agreeing is not “not in the reference”', () => {
    const ten: Variant = {
      id: 'pt-ten',
      pattern: 'petrel',
      name: 'Ten for the works',
      kind: 'limited',
      window: '2015',
      made: { quantity: 10, basis: 'documented' },
      edition: { run: 10, firstNumber: 1 },
      features: { ...index.variants.get('pt-2')?.variant.features, 'scale-material': ['horn'] },
      marks: ['cv-bird'],
    };
    const reference = compiled({ variants: [ten] });
    const seen = [
      ...Object.entries(ten.features ?? {}).map(([id, values]) => f(id, values[0] ?? '')),
      text('petrel-serial', 'PT-0007'),
    ];
    const answer = ask({ seen, construction: petrel, reference });
    expect(leader(answer)).toBe('pt-ten');
    expect(chance(answer, 'pt-ten')).toBeGreaterThan(0.8);
  });
  test('a run of twelve is as rare with “made” left empty: its size is how many were made', () => {
    const twelve = (made?: Variant['made']): Variant => ({
      id: 'pt-twelve',
      pattern: 'petrel',
      name: 'Twelve for the works',
      kind: 'limited',
      window: '2015',
      ...(made ? { made } : {}),
      edition: { run: 12, firstNumber: 1 },
    });
    const weight = (variant: Variant) => {
      const reference = compiled({ variants: [variant] });
      return reference.frequency.weight[reference.variants.get(variant.id)?.index ?? -1];
    };
    expect(weight(twelve())).toBeCloseTo(weight(twelve({ quantity: 12, basis: 'documented' })) ?? NaN, 6);
  });
  test('the number alone never makes its own run less likely than something unknown', () => {
    const answer = ask({ seen: [text('petrel-serial', 'PT-0041')], construction: petrel });
    const numbered = ['pt-quay', 'pt-storm', 'pt-ember', 'pt-storm-fake'];
    const runs = numbered.reduce((sum, id) => sum + chance(answer, id), 0);
    expect(runs).toBeGreaterThan(answer.unlisted);
  });
  test('a pattern stamp alone is its pattern, not something unknown', () => {
    const answer = ask({ seen: [text('bh-pattern', '3262')], construction: jack });
    expect(index.variants.get(leader(answer) ?? '')?.pattern.id).toBe('harbour-jack');
    expect(answer.unlisted).toBeLessThan(0.2);
  });
  test('a pattern stamp whose digits no pattern bears speaks for an undescribed pattern of that maker', () => {
    const known = ask({ seen: [text('bh-pattern', '3262')], construction: jack });
    const unknown = ask({ seen: [text('bh-pattern', '3288')], construction: jack });
    expect(unknown.unlisted).toBeGreaterThan(5 * known.unlisted);
  });
  test('an unknown suffix does not void the pattern stamp: the rest is read as likely', () => {
    const answer = ask({ seen: [text('bh-pattern', '3262QX')], construction: jack });
    expect(answer.codes[0]).toMatchObject({ readings: [], partly: { unread: 'QX' } });
    expect(answer.codes[0]?.partly?.implies).toContainEqual({ pattern: 'harbour-jack' });
    expect(index.variants.get(leader(answer) ?? '')?.pattern.id).toBe('harbour-jack');
  });
  test('hyphens and blanks in what is typed mean nothing', () => {
    expect(ask({ seen: [text('bh-pattern', '32-62 hs')] }).codes[0]?.readings).toEqual(
      ask({ seen: [text('bh-pattern', '3262HS')] }).codes[0]?.readings,
    );
  });
  test('a stamp that says horn on a knife with bone scales is told as a contradiction', () => {
    const answer = ask({
      seen: [text('bh-pattern', '3262'), f('scale-material', 'bone')],
      construction: jack,
    });
    expect(answer.codes[0]?.contradicts).toEqual([
      { feature: 'scale-material', value: 'horn', observed: 'bone' },
    ]);
  });
  test('a text that is no stamp of this code at all leaves the odds where they were', () => {
    const before = ask({ seen: [mark('bh-three-line')], construction: jack });
    const after = ask({ seen: [mark('bh-three-line'), text('bh-pattern', '???')], construction: jack });
    expect(after.unlisted).toBeCloseTo(before.unlisted, 6);
  });
  test('a number beyond every run is an alarm, and lowers every run', () => {
    const seen = all('pt-storm', ['pivot-engraving', 'blade-steel']);
    const without = ask({ seen, construction: petrel });
    const answer = ask({ seen: [...seen, text('petrel-serial', 'PT-9120')], construction: petrel });
    expect(answer.alerts.map((a) => a.kind)).toContain('serial-beyond-run');
    expect(chance(answer, 'pt-storm')).toBeLessThan(chance(without, 'pt-storm'));
  });
  test('an alarm on the number forbids “confirmed”, whatever else agrees', () => {
    const answer = ask({
      seen: [...all('pt-ember'), text('petrel-serial', 'PT-0041')],
      construction: petrel,
    });
    const alarmed = withAlerts({ ...answer, attribution: { ...answer.attribution, tier: 'confirmed' } }, [
      { kind: 'serial-seen-before', detail: 'Number 41 is also on HQ-0009' },
    ]);
    expect(alarmed.attribution.tier).toBe('probable');
    expect(alarmed.attribution.cannotBeProvedBecause).toContain('Number 41 is also on HQ-0009');
  });
  test('a yearly knife with its number, stamp and features is confirmed by what no other year bears together', () => {
    const answer = ask({
      seen: [...all('yk-1996'), mark('as-yearly'), text('askelund-number', '377/400')],
      construction: 'fixed',
    });
    expect(leader(answer)).toBe('yk-1996');
    expect(chance(answer, 'yk-1996')).toBeGreaterThan(0.8);
  });
  test('“borne by this variant only” is not said of a stamp that several variants carry', () => {
    const answer = ask({ seen: [...all('hj-naval-3'), mark('bh-three-line')], construction: jack });
    expect(answer.attribution.reasons.join(' ')).not.toMatch(/no other variant/);
    expect(answer.attribution.tier).not.toBe('confirmed');
  });
  test('a service knife without its property mark cannot be told from its trade twin: type-consistent', () => {
    const answer = ask({
      seen: [...all('hj-naval-2', ['property-mark']), mark('bh-three-line')],
      construction: jack,
    });
    expect(answer.attribution.tier).toBe('type-consistent');
    expect(answer.attribution.cannotBeProvedBecause.join(' ')).toContain('twin');
  });
  test('the crowned wave tells the issued one from its trade twin', () => {
    const answer = ask({
      seen: [
        ...all('hj-naval-2', ['property-mark']),
        f('property-mark', 'crowned-wave'),
        mark('bh-three-line'),
      ],
      construction: jack,
    });
    expect(chance(answer, 'hj-naval-2')).toBeGreaterThan(0.9);
  });
  test('the first form is told from the second by its stamp alone, for nothing else changed', () => {
    expect(leader(ask({ seen: [...all('hj-1'), mark('bh-first')], construction: jack }))).toBe('hj-1');
    expect(leader(ask({ seen: [...all('hj-2'), mark('bh-three-line')], construction: jack }))).toBe('hj-2');
  });
  test('the first run of the Petrel is told by its two-way clip', () => {
    expect(leader(ask({ seen: all('pt-1'), construction: petrel }))).toBe('pt-1');
    const { value } = index.patterns.get('petrel')?.measures?.['closed-length'] ?? { value: 0 };
    const second = ask({ seen: [...all('pt-2'), size('closed-length', value)], construction: petrel });
    expect(leader(second)).toBe('pt-2');
  });
  test('a reissue with a solid spacer under an old clip is the reissue, not the first run', () => {
    const answer = ask({ seen: all('pt-reissue'), construction: petrel });
    expect(leader(answer)).toBe('pt-reissue');
  });
  test('the prototype of 14 pieces is possible where all of it agrees, and not drowned by 21 000', () => {
    const answer = ask({ seen: all('pt-proto'), construction: petrel });
    expect(leader(answer)).toBe('pt-proto');
  });
  test('what a variant does not record is not against it', () => {
    const bare: Variant = {
      id: 'hj-bare',
      pattern: 'harbour-jack',
      name: 'Bare',
      kind: 'production',
      window: '1936/1940',
    };
    const reference = compiled({ variants: [bare] });
    const answer = ask({
      seen: [f('nail-pull', 'long'), f('shield', 'oval')],
      construction: jack,
      reference,
    });
    const line = answer.candidates.find((c) => c.variant === 'hj-bare')?.evidence ?? [];
    for (const e of line) expect(e.verdict).toBe('silent');
  });
  test('varieties said once of the pattern hold for every form that records nothing else', () => {
    const reference = compiled({
      patterns: [
        {
          id: 'varied',
          maker: 'brackenholt',
          name: 'Varied jack',
          construction: 'slipjoint',
          features: { 'scale-material': ['horn', 'bone', 'ebony'] },
        },
      ],
      variants: [
        { id: 'varied-1', pattern: 'varied', name: 'Only form', kind: 'production', window: '1920/1930' },
      ],
    });
    const column = reference.columns.get('bolster-form');
    expect(column).toBeDefined();
    const answer = identify(reference, {
      observations: [f('scale-material', 'horn')],
      within: { patterns: ['varied'] },
    });
    expect(answer.candidates[0]?.evidence[0]).toMatchObject({ verdict: 'silent' });
    const lock = identify(reference, {
      observations: [f('shield', 'oval')],
      within: { patterns: ['varied'] },
    });
    expect(lock.candidates[0]?.variant).toBe('varied-1');
  });
  test('a stamp read as sure narrows, and says to how many', () => {
    const answer = ask({ seen: [mark('bh-arch')] });
    const narrowed = answer.narrowedBy.find((n) => n.by === 'stamp');
    expect(narrowed?.left).toBeLessThan(5);
    expect(answer.candidates.slice(0, 1).map((c) => c.variant)).toEqual(['hj-7']);
  });
  test('a maker that one knows narrows at once, and something unknown stays possible', () => {
    const answer = identify(index, { observations: [], within: { makers: ['askelund'] }, limit: 100 });
    expect(answer.candidates.every((c) => index.variants.get(c.variant)?.maker.id === 'askelund')).toBe(true);
    expect(answer.unlisted).toBeGreaterThan(0);
    expect(answer.narrowedBy).toMatchObject([{ by: 'choice', what: 'maker', ids: ['askelund'] }]);
  });
  test('nothing of the reference fits a knife of another kind of making: perhaps not in the reference', () => {
    const answer = ask({
      seen: [
        f('scale-material', 'carbon'),
        f('bolster-form', 'ribbed'),
        f('lanyard-fitting', 'ring'),
        f('blade-count', 5),
        size('closed-length', 61),
      ],
      construction: jack,
    });
    expect(answer.unlisted).toBeGreaterThan(0.5);
  });
});

describe('which: imitations', () => {
  const tell = ['pivot-engraving', 'blade-steel'];
  test('a counterfeit whose tell was not looked at is not ruled out, and its tell is the first thing to look for', () => {
    const answer = ask({ seen: all('pt-storm', tell), construction: petrel, found: 'online' });
    expect(leader(answer)).toBe('pt-storm');
    expect(chance(answer, 'pt-storm-fake')).toBeGreaterThan(0.05);
    expect(answer.attribution.tier).not.toBe('confirmed');
    expect(answer.nextChecks.filter((c) => c.tellOf === 'pt-storm-fake').map((c) => c.feature)).toEqual(
      expect.arrayContaining(tell),
    );
    expect(answer.attribution.cannotBeProvedBecause.join(' ')).toContain('counterfeit');
  });
  test('with a milled pivot and powder steel it is the Storm itself', () => {
    const answer = ask({ seen: all('pt-storm'), construction: petrel, found: 'online' });
    expect(chance(answer, 'pt-storm')).toBeGreaterThan(20 * chance(answer, 'pt-storm-fake'));
  });
  test('with a cast pivot it is the counterfeit, and rejected', () => {
    const answer = ask({ seen: all('pt-storm-fake'), construction: petrel, found: 'online' });
    expect(leader(answer)).toBe('pt-storm-fake');
    expect(answer.attribution.tier).toBe('rejected');
  });
  test('a counterfeit turns up more often online than at a specialist’s', () => {
    const at = (found: FoundPlace) =>
      chance(ask({ seen: all('pt-storm', tell), construction: petrel, found }), 'pt-storm-fake');
    expect(at('online')).toBeGreaterThan(3 * at('specialist-dealer'));
  });
  test('a counterfeit is as rare as what it imitates: it does not take a share of everything', () => {
    const answer = ask({ seen: [], construction: petrel, found: 'online' });
    expect(chance(answer, 'pt-storm-fake')).toBeLessThan(chance(answer, 'pt-storm'));
  });
  test('a counterfeit is dated by its own making, not by what it imitates', () => {
    const answer = ask({ seen: [...all('pt-storm-fake'), mark('cv-bird')], construction: petrel });
    expect(answer.dating.made?.core.startsWith('2018')).toBe(true);
    const own = answer.dating.years.filter((y) => y.year >= 2018);
    expect(own.reduce((sum, y) => sum + y.probability, 0)).toBeGreaterThan(0.95);
  });
  test('a replica of the 2020s is dated to the 2020s, and rejected as the original', () => {
    const answer = ask({ seen: [...all('pp-copy'), mark('mp-pike')], construction: petrel });
    expect(leader(answer)).toBe('pp-copy');
    expect(answer.attribution.tier).toBe('rejected');
    expect(answer.dating.made).toMatchObject({ core: '2019/2023', clash: null });
  });
  test('a licensed copy is what it is: its own stamp, its own years, and no imitation', () => {
    const answer = ask({ seen: [...all('pp-licensed'), mark('mp-pike')], construction: petrel });
    expect(leader(answer)).toBe('pp-licensed');
    expect(answer.attribution.tier).not.toBe('rejected');
    expect(answer.dating.made?.core).toBe('2015/2021');
  });
  test('a decision over a rejected piece leaves the evidence as it is, and is seen to overrule it', () => {
    const answer = ask({ seen: all('pt-storm-fake'), construction: petrel, decided: 'pt-storm' });
    expect(answer.attribution.tier).toBe('rejected');
    expect(answer.dating.made?.core.startsWith('2016')).toBe(true);
  });
});

describe('which: altered pieces', () => {
  test('a clip from another form is an exchanged clip, not another variant', () => {
    const seen = [
      ...all('pt-ember', ['clip-place']),
      f('clip-place', 'two-way'),
      text('petrel-serial', 'PT-0041'),
    ];
    const answer = ask({ seen, construction: petrel });
    expect(leader(answer)).toBe('pt-ember');
    expect(answer.candidates[0]?.exchanged).toEqual(['clip']);
  });
  test('new scales on an old jack: the piece stays what it is, the scales are told', () => {
    const seen = [...all('hj-1', ['scale-material']), f('scale-material', 'fibre'), mark('bh-first')];
    const answer = ask({ seen, construction: jack });
    expect(leader(answer)).toBe('hj-1');
    expect(answer.candidates[0]?.exchanged).toContain('scales');
  });
  test('re-bladed: the stamp of a later blade in an early frame is told as a clash of times', () => {
    const seen = [
      ...all('hj-1', ['nail-pull']),
      f('nail-pull', 'crescent'),
      mark('bh-two-line'),
      ticks(3, 'above-name'),
    ];
    const answer = ask({ seen, construction: jack });
    expect(answer.dating.conflicts.length + (answer.dating.made?.clash ? 1 : 0)).toBeGreaterThan(0);
    expect(answer.attribution.tier).not.toBe('confirmed');
  });
  test('a shortened bayonet is a conversion: its stamp bounds the making from above only', () => {
    const answer = ask({ seen: [mark('vm-shortened')], construction: 'bayonet' });
    expect(answer.history.some((e) => e.what === 'conversion')).toBe(true);
    expect(answer.dating.floor.every((b) => !('mark' in b.because))).toBe(true);
  });
  test('numbers that differ are told, and the part is all but proved exchanged', () => {
    const answer = ask({
      seen: [
        { part: 'blade', number: '412' },
        { part: 'scabbard', number: '777' },
      ],
      construction: 'bayonet',
    });
    expect(answer.numbers?.verdict).toBe('differing');
  });
  test('numbers that match are told', () => {
    const answer = ask({
      seen: [
        { part: 'blade', number: 'A 412' },
        { part: 'scabbard', number: 'a412' },
      ],
      construction: 'bayonet',
    });
    expect(answer.numbers?.verdict).toBe('matching');
  });
});

describe('what to look at next', () => {
  test('nothing is asked that the construction does not have', () => {
    for (const construction of ['slipjoint', 'bayonet', 'fixed', 'multi-tool', 'locking-folder'] as const)
      for (const check of ask({ seen: [], construction }).nextChecks) {
        const applies = index.features.get(check.feature ?? '')?.constructions;
        if (applies) expect(applies).toContain(construction);
      }
  });
  test('of a sealed piece nothing is asked that its package hides', () => {
    const answer = ask({ seen: [f('coating', 'stonewash')], construction: petrel, sealed: true });
    expect(answer.nextChecks.every((c) => c.effort === 'glance')).toBe(true);
    expect(answer.nextChecks.length).toBeGreaterThan(0);
  });
  test('“cannot tell” is an answer: it is not asked again', () => {
    const answer = ask({ seen: [{ feature: 'nail-pull', state: 'cannot-tell' }], construction: jack });
    expect(answer.nextChecks.some((c) => c.feature === 'nail-pull')).toBe(false);
  });
});

describe('when', () => {
  test('the form and what was seen are one fact: where they meet is the date', () => {
    const answer = ask({
      seen: [
        ...all('hj-naval-2', ['property-mark']),
        f('property-mark', 'crowned-wave'),
        mark('bh-three-line'),
      ],
      construction: jack,
    });
    expect(answer.dating.made).toMatchObject({ basis: 'both', clash: null });
    expect(edtfInWords(answer.dating.made?.core ?? '')).toContain('1934');
  });
  test('a form told with near certainty is not shown with another form’s years', () => {
    const answer = ask({ seen: [...all('hj-6'), mark('bh-two-line')], construction: jack });
    expect(chance(answer, 'hj-6')).toBeGreaterThan(0.9);
    const [from = '', to = ''] = (answer.dating.made?.core ?? '').split('/');
    expect(Number(from.slice(0, 4))).toBeGreaterThanOrEqual(1959);
    expect(Number(to.slice(0, 4))).toBeLessThanOrEqual(1980);
  });
  test('a decided form whose years do not meet what was seen is told as a conflict, its own window first', () => {
    const answer = ask({ seen: [mark('bh-arch')], construction: jack, decided: 'hj-1' });
    expect(answer.dating.made).toMatchObject({ core: '1909/1918', basis: 'form' });
    expect(answer.dating.made?.clash?.because).toEqual([{ mark: 'bh-arch' }]);
    expect(answer.dating.made?.clash?.explanations).toContain('wrong-variant');
  });
  test('time ends today: an open window runs to today and no further', () => {
    const answer = ask({ seen: all('pt-3'), construction: petrel });
    expect(answer.dating.made?.core).toBe('2018/2026-11-27');
    expect(Math.max(...answer.dating.years.map((y) => y.year))).toBeLessThanOrEqual(2026);
  });
  test('a variant’s own record outweighs its maker’s custom: hj-naval-2 has its half stop into 1936', () => {
    const answer = ask({
      seen: [f('pen-half-stop', 'yes'), f('lanyard-fitting', 'bar')],
      construction: jack,
      decided: 'hj-naval-2',
    });
    expect(answer.dating.made?.clash).toBeNull();
  });
  test('three ticks above the name are 1954', () => {
    expect(ask({ seen: [ticks(3, 'above-name')] }).codes[0]?.readings).toMatchObject([{ window: '1954' }]);
  });
  test.each([
    [3, 'above-name', '1954'],
    [3, 'below-name', '1967'],
    [0, 'below-name', '1970'],
    [9, 'above-name', '1960'],
  ])('%i ticks %s are %s: the same count in another row is another decade', (n, row, year) => {
    expect(ask({ seen: [ticks(n, row)] }).codes[0]?.readings.map((r) => r.window)).toContain(year);
  });
  test('ticks under the wrong row are the commonest misreading: the other row is offered first, by name', () => {
    const early = ask({ seen: [f('bolster-form', 'grooved'), ticks(1, 'below-name')], construction: jack });
    expect(early.dating.conflicts[0]).toMatchObject({
      explanation: 'misread',
      insteadRead: { code: 'bh-ticks', reads: { ticks: 1, row: 'above-name' } },
      leaves: '1952',
    });
  });
  test('a year letter skips O, Q and I', () => {
    expect(ask({ seen: [letter('P')] }).codes[0]?.readings).toMatchObject([{ window: '1965' }]);
  });
  test('two sources that disagree give a strict and a lenient bracket, each named', () => {
    const answer = ask({ seen: [f('shackle', 'bow'), mark('tw-anchor')], construction: 'multi-tool' });
    expect(answer.dating.disputed[0]).toMatchObject({ strict: '1946/1959', lenient: '1946/1962' });
  });
  test('old stock was used up: a change-over has a soft edge', () => {
    const answer = ask({ seen: [f('lanyard-fitting', 'ring'), mark('bh-three-line')], construction: jack });
    expect(answer.dating.core).toBe('1919/1934-08');
    expect(answer.dating.outer).toBe('1919/1935-02');
  });
  test('the binding feature is named at each end with its source', () => {
    const answer = ask({
      seen: [f('lanyard-fitting', 'bar'), f('scale-material', 'horn')],
      construction: jack,
    });
    expect(answer.dating.floor[0]).toMatchObject({
      because: { feature: 'lanyard-fitting', value: 'bar' },
      source: 'works-ledger',
    });
    expect(answer.dating.ceiling[0]).toMatchObject({ because: { feature: 'scale-material', value: 'horn' } });
  });
  test('a bracket that the years all but rule out is never the headline', () => {
    const answer = ask({
      seen: [f('shield', 'oval'), f('bolster-form', 'ribbed'), f('blade-steel', 'stainless')],
      construction: jack,
    });
    const { made, years } = answer.dating;
    const [from = '', to = from] = (made?.outer ?? '').split('/');
    const held = years
      .filter((y) => y.year >= Number(from.slice(0, 4)) && y.year <= Number(to.slice(0, 4)))
      .reduce((sum, y) => sum + y.probability, 0);
    expect(held).toBeGreaterThanOrEqual(0.1);
  });
  test('“2026-01-01” is said as a day', () => {
    expect(edtfInWords('2026-01-01')).toBe('1 Jan 2026');
  });
});

const reads = (code: Code, given: Record<string, string | number>) =>
  identify(compiled({ codes: [code] }), {
    observations: [{ code: code.id, reads: given }],
  }).codes[0]?.readings.map((r) => r.window);

describe('codes as makers really stamp them', () => {
  const two: Code = {
    id: 'two-signs',
    maker: 'saltgate',
    kind: 'date',
    title: 'Dots and bars',
    reads: [
      { id: 'dots', label: 'Dots', type: 'count', min: 0, max: 9 },
      { id: 'bars', label: 'Bars', type: 'count', min: 0, max: 4 },
    ],
    rules: [0, 1, 2, 3, 4].map((bars) => ({
      when: { bars },
      year: { base: 1960 + 10 * bars, plus: 'dots' },
    })),
  };
  test('two kinds of counted signs on one stamp: bars the decade, dots the year', () => {
    expect(reads(two, { dots: 4, bars: 2 })).toEqual(['1984']);
  });
  test('a sign that was not read excludes nothing', () => {
    expect(reads(two, { dots: 4 })).toEqual(['1964', '1974', '1984', '1994', '2004']);
  });
  test('a serial range gives its year, and a count above twenty can be read', () => {
    const ranges: Code = {
      id: 'ranges',
      maker: 'saltgate',
      kind: 'date',
      reads: [{ id: 'n', label: 'Serial', type: 'count', min: 1, max: 99999 }],
      rules: [
        {
          year: {
            ranges: [
              { from: 1, to: 4200, window: '1961' },
              { from: 4201, to: 9000, window: '1962' },
            ],
            read: 'n',
          },
        },
      ],
    };
    expect(reads(ranges, { n: 4201 })).toEqual(['1962']);
    expect(reads(ranges, { n: 50000 })).toEqual([]);
  });
  test('a month letter narrows the year to a month', () => {
    const month: Code = {
      id: 'months',
      maker: 'saltgate',
      kind: 'date',
      reads: [
        { id: 'yy', label: 'Year', type: 'count', min: 0, max: 99 },
        { id: 'm', label: 'Month', type: 'choice', values: [...'ABCDEFGHJKLM'] },
      ],
      rules: [{ year: { digits: 'yy', century: 1900 }, month: { letters: 'ABCDEFGHJKLM', read: 'm' } }],
    };
    expect(reads(month, { yy: 71, m: 'J' })).toEqual(['1971-09']);
    expect(reads(month, { yy: 71 })).toEqual(['1971']);
  });
  test('the longest sign of a table wins, and a sign may stand for several values', () => {
    const stamp: Code = {
      id: 'signs',
      maker: 'saltgate',
      kind: 'pattern-number',
      segments: [
        {
          id: 'handle',
          table: {
            B: { feature: 'scale-material', value: 'bone' },
            BX: { feature: 'scale-material', values: ['horn', 'ebony'] },
          },
        },
        { id: 'dash', literal: '-' },
        { id: 'pattern', digits: 2, pattern: true },
      ],
    };
    const reference = compiled({ codes: [stamp] });
    const answer = identify(reference, {
      observations: [{ code: 'signs', text: 'bx-77' }, f('scale-material', 'ebony')],
    });
    expect(answer.codes[0]?.readings).toEqual([
      { window: null, implies: [{ feature: 'scale-material', values: ['horn', 'ebony'] }] },
    ]);
    expect(answer.codes[0]?.contradicts).toEqual([]);
  });
  test('a run that does not exist is told: “41/999” of a year that made 400', () => {
    const code = demo.codes.find((c) => c.id === 'askelund-number');
    const sized = compiled();
    expect(code?.kind).toBe('serial');
    const withRun = compileReference(
      {
        ...demo,
        codes: demo.codes.map((c) =>
          c.id === 'askelund-number' && c.kind === 'serial'
            ? { ...c, format: '^(\\d{1,4})(?:/(\\d{1,4}))?$', runGroup: 2 }
            : c,
        ),
      },
      '1',
      TODAY,
    );
    const answer = identify(withRun, { observations: [text('askelund-number', '41/999')] });
    expect(answer.alerts.map((a) => a.kind)).toEqual(['run-does-not-exist']);
    expect(identify(withRun, { observations: [text('askelund-number', '41/400')] }).alerts).toEqual([]);
    expect(sized.rows.length).toBe(withRun.rows.length);
  });
  test('a told run narrows to the years that made so many', () => {
    const withRun = compileReference(
      {
        ...demo,
        codes: demo.codes.map((c) =>
          c.id === 'askelund-number' && c.kind === 'serial'
            ? { ...c, format: '^(\\d{1,4})(?:/(\\d{1,4}))?$', runGroup: 2 }
            : c,
        ),
      },
      '1',
      TODAY,
    );
    const answer = identify(withRun, { observations: [text('askelund-number', '41/300')], limit: 100 });
    const of300 = answer.candidates.filter(
      (c) => withRun.variants.get(c.variant)?.variant.edition?.run === 300,
    );
    expect(of300.reduce((sum, c) => sum + c.probability, 0)).toBeGreaterThan(0.8);
  });
  test('a run split by hand: a number inside either share is inside', () => {
    const split: Variant = {
      id: 'pt-hands',
      pattern: 'petrel',
      name: 'Left and right',
      kind: 'limited',
      window: '2021',
      edition: {
        run: 250,
        split: [
          { by: 'hand', of: 'right hand', run: 200, firstNumber: 1 },
          { by: 'hand', of: 'left hand', run: 50, firstNumber: 201 },
        ],
      },
      features: { coating: ['blued'] },
    };
    const reference = compiled({ variants: [split] });
    const answer = identify(reference, {
      observations: [text('petrel-serial', 'PT-0230'), f('coating', 'blued')],
      within: { constructions: [petrel] },
    });
    expect(leader(answer)).toBe('pt-hands');
  });
  test('an annual edition whose number and year do not go together is warned of', () => {
    const pack: ReferencePack = {
      format: 'jutbank.reference/1',
      id: 'x',
      title: 'X',
      revision: '1',
      variants: [
        {
          id: 'yk-wrong',
          pattern: 'yearly',
          name: 'Wrong',
          kind: 'limited',
          window: '1995',
          edition: { run: 100, index: 3 },
        },
      ],
    };
    expect(checkPack(pack, demo).warnings.join(' ')).toContain('yk-wrong');
  });
  test('a serial format that would look back is refused on import', () => {
    const pack: ReferencePack = {
      format: 'jutbank.reference/1',
      id: 'x',
      title: 'X',
      revision: '1',
      codes: [{ id: 'evil', kind: 'serial', format: '^(a+)+(?=b)$', number: 1 }],
    };
    expect(checkPack(pack, demo).errors[0]?.pointer).toBe('/codes/0/format');
  });
  test('a format with nested repeats is matched in linear time', () => {
    const code: Code = { id: 'nested', kind: 'serial', format: '^(a+)+([0-9])$', number: 2 };
    const started = performance.now();
    identify(compiled({ codes: [code] }), { observations: [text('nested', 'a'.repeat(60))] });
    expect(performance.now() - started).toBeLessThan(10_000);
  });
});

describe('how often things turn up', () => {
  const counts = (variants: Record<string, number>) => new Map(Object.entries(variants));
  const base = ask({ seen: [], construction: jack });
  test('what the shop has met raises what it met, within its pattern', () => {
    const met = withEncounters(index, { ...NO_ENCOUNTERS, own: counts({ 'hj-4': 30 }) });
    expect(chance(ask({ seen: [], construction: jack, reference: met }), 'hj-4')).toBeGreaterThan(
      2 * chance(base, 'hj-4'),
    );
  });
  test('a sale that names its pattern only moves the pattern, not one of its forms', () => {
    const met = withEncounters(index, { ...NO_ENCOUNTERS, soldOfPattern: counts({ 'ferry-pen': 60 }) });
    const after = ask({ seen: [], construction: jack, reference: met });
    const ratio = (a: IdentifyAnswer) => chance(a, 'fp-2') / chance(a, 'fp-3');
    expect(chance(after, 'fp-2')).toBeGreaterThan(chance(base, 'fp-2'));
    expect(ratio(after)).toBeCloseTo(ratio(base), 6);
  });
  test('sold counterfeits count among counterfeits only', () => {
    const met = withEncounters(index, { ...NO_ENCOUNTERS, sold: counts({ 'pt-storm-fake': 50 }) });
    const after = ask({ seen: [], construction: petrel, reference: met });
    const before = ask({ seen: [], construction: petrel });
    expect(chance(after, 'pt-storm')).toBeCloseTo(chance(before, 'pt-storm'), 2);
  });
  test('the share of unlisted pieces is learnt from decisions', () => {
    const met = withEncounters(index, { ...NO_ENCOUNTERS, own: counts({ 'hj-2': 60 }), unlisted: 40 });
    expect(met.frequency.unlisted).toBeCloseTo((5 + 40) / (100 + 100), 6);
  });
  test('a shop that sells one maker only does not make the others rare: it is believed less', () => {
    const met = withEncounters(index, { ...NO_ENCOUNTERS, sold: counts({ 'hj-2': 900, 'hj-3': 600 }) });
    const makers = met.frequency.learnt[0]?.levels.find((l) => l.level === 'maker');
    expect(makers?.trust).toBeLessThan(0.3);
  });
});

const known = (more: Partial<KnownOfPiece>): KnownOfPiece => ({
  index,
  construction: petrel,
  observations: [],
  answer: ask({ seen: [], construction: petrel }),
  tier: 'probable',
  claimed: index.variants.get('pt-2'),
  findings: [],
  completeness: {},
  inspected: true,
  inspection: { blades: 1, tools: 0, steps: {} },
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
  statementsOf(known(more)).flatMap((s) => (s.disclose ? [s.text] : []));

describe('what is said', () => {
  test('an inspection with skipped steps never allows “no fault was found”, and says what was skipped', () => {
    expect(extentOfInspection(known({}))).toBe('partly');
    expect(disclosed({}).join(' ')).toContain('Not examined, handle');
  });
  test('a piece nobody inspected was not examined', () => {
    expect(extentOfInspection(known({ inspected: false }))).toBe('none');
  });
  test.each([
    ['opening-mechanism', 'changed', 'The opening mechanism was changed'],
    ['removed-parts', 'included', 'Parts that were taken off come along with it'],
    ['pouch', 'none', 'No pouch'],
    ['box', 'service', 'In a service box, not the factory’s'],
    ['sheath', 'reproduction', 'Reproduction sheath'],
    ['frog', 'reproduction', 'Reproduction frog'],
    ['papers', 'later', 'The papers are later ones'],
  ])('%s %s is told', (item, state, words) => {
    expect(disclosed({ completeness: { [item]: state } })).toContain(words);
  });
  test('sealed: nothing inside was examined, and that is said', () => {
    expect(disclosed({ sealed: true }).join(' ')).toContain('was not opened');
  });
  test('that it came polished matters to a buyer', () => {
    expect(disclosed({ asFound: 'polished' })).toContain('It was polished before it came here');
    expect(disclosed({ asFound: 'untouched' })).not.toContain('It was polished before it came here');
  });
  test('the number of an edition is said with its run', () => {
    expect(
      disclosed({
        claimed: index.variants.get('pt-ember'),
        observations: [text('petrel-serial', 'PT-0041')],
      }),
    ).toContain('Number PT-0041 of a run of 300');
  });
  test('an exchanged part is said, unless the findings say it already', () => {
    const seen = [
      ...all('pt-ember', ['clip-place']),
      f('clip-place', 'two-way'),
      text('petrel-serial', 'PT-0041'),
    ];
    const answer = ask({ seen, construction: petrel });
    const claimed = index.variants.get('pt-ember');
    expect(disclosed({ answer, claimed })).toContain('The clip seems to have been exchanged');
    const replaced: Finding = { part: 'clip', defect: 'replaced' };
    expect(disclosed({ answer, claimed, findings: [replaced] })).not.toContain(
      'The clip seems to have been exchanged',
    );
  });
  test('a date conflict is said, with both times', () => {
    const answer = ask({ seen: [mark('bh-arch')], construction: jack, decided: 'hj-1' });
    expect(disclosed({ answer, clash: answer.dating.made?.clash ?? null }).join(' ')).toMatch(
      /1909.*1918.*1981/,
    );
  });
  test('the appraiser’s own date is said with its reason', () => {
    expect(disclosed({ madeByJudgement: { made: '1931', reason: 'dated invoice' } })).toContain(
      'Dated 1931 by the appraiser: dated invoice',
    );
  });
  test('overruled evidence is said and weakens the claim', () => {
    expect(disclosed({ overruled: { evidence: 'letter of the works' } }).join(' ')).toMatch(
      /letter of the works.*speaks for an imitation/,
    );
    const claim = claimFor({
      tier: 'confirmed',
      makerName: 'Corvane Knifeworks',
      patternName: 'Petrel',
      variantName: 'Storm run',
      issuedTo: undefined,
      isReplica: false,
      isLicensed: false,
      overruled: true,
    });
    expect(claim).toBe(
      'Attributed by the appraiser as Corvane Knifeworks Petrel, Storm run; the marks speak against it.',
    );
  });
  test('an open question is said, not dropped', () => {
    expect(disclosed({ openQuestions: ['Initials on the liner: whose?'] })).toContain(
      'Not explained: Initials on the liner: whose?',
    );
  });
  test('features a buyer asks for are there, as seen', () => {
    const lines = statementsOf(known({ observations: [f('blade-steel', 'powder')] }));
    expect(lines).toContainEqual(expect.objectContaining({ kind: 'feature', disclose: false }));
  });
});

describe('condition, as practice has it', () => {
  const grade = (construction: Construction, findings: Finding[], scale: string, age?: number) =>
    gradeCondition({ construction, findings, age: age ?? null }, SHIPPED_RULES).grades.find(
      (g) => g.scale === scale,
    )?.grade;
  test('mint means unused: a carried folder is not new on the user scale', () => {
    expect(grade(petrel, [{ part: 'clip', defect: 'wear', severity: 'light' }], 'user')).not.toBe('new');
  });
  test('coating that is worn is capped below new', () => {
    expect(grade(petrel, [{ part: 'finish', defect: 'finish-loss', measure: 2 }], 'user')).not.toBe('new');
  });
  test('age forgives wear but never lifts into the top grade', () => {
    expect(grade(jack, [{ part: 'blade', defect: 'wear', severity: 'trace' }], 'collector', 110)).not.toBe(
      'mint',
    );
  });
  test('adding a finding never raises a grade', () => {
    const one: Finding[] = [{ part: 'blade', defect: 'scratch', severity: 'light' }];
    const index1 = gradeCondition({ construction: jack, findings: one }, SHIPPED_RULES).conditionIndex;
    const two = [...one, { part: 'tip', defect: 'reground', severity: 'light' } as Finding];
    expect(
      gradeCondition({ construction: jack, findings: two }, SHIPPED_RULES).conditionIndex,
    ).toBeLessThanOrEqual(index1);
  });
});

describe('lots and scarcity', () => {
  test('a lot of thirty: shares add up to the cent', () => {
    const shared = allocateLot({
      currency: 'EUR',
      method: 'relative-value',
      costs: ['1000.00', '37.45'],
      pieces: Array.from({ length: 30 }, (_, i) => ({ value: String(10 + 7 * i) })),
    });
    expect(shared.ok).toBe(true);
    if (!shared.ok) return;
    const cents = shared.value.shares.reduce((sum, s) => sum + Math.round(Number(s) * 100), 0);
    expect(cents).toBe(103_745);
  });
  const pattern = index.patterns.get('harbour-jack');
  const variants = demo.variants.filter((v) => v.pattern === 'harbour-jack');
  test('a documented 24 000 is 24 000, not a rounded range', () => {
    const naval = variants.find((v) => v.id === 'hj-naval-2');
    if (!naval || !pattern) throw new Error('the demo lost its naval jack');
    expect(scarcityOf({ variant: naval, pattern, variants, year: 2026 }).made).toMatchObject({
      low: 24000,
      likely: 24000,
      high: 24000,
    });
  });
  test('forms that overlap share one yearly production: together they are not more than was made', () => {
    const yearly = { '1950': 1000, '1951': 1000 };
    const p = {
      id: 'p',
      maker: 'brackenholt',
      name: 'P',
      construction: 'slipjoint' as const,
      madeByYear: yearly,
    };
    const forms: Variant[] = ['a', 'b', 'c'].map((id) => ({
      id,
      pattern: 'p',
      name: id,
      kind: 'production',
      window: '1950/1951',
    }));
    const made = forms.map(
      (variant) => scarcityOf({ variant, pattern: p, variants: forms, year: 2026 }).made?.likely ?? 0,
    );
    expect(made.reduce((a, b) => a + b, 0)).toBeCloseTo(2000, 0);
  });
  test('a form still made is aged from what has been made, not from a window that never ends', () => {
    const open: Variant = {
      id: 'o',
      pattern: 'p',
      name: 'O',
      kind: 'production',
      window: '2020/..',
      made: { quantity: 500, basis: 'documented' },
    };
    const p = { id: 'p', maker: 'corvane', name: 'P', construction: 'locking-folder' as const };
    const { surviving } = scarcityOf({ variant: open, pattern: p, variants: [open], year: 2026 });
    expect(surviving.likely).toBeGreaterThan(0.9);
  });
});
