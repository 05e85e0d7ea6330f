/** What a phone answers from its bag is what the whole shop answers; what it cannot know it says. */
import { describe, expect, test } from '@jest/globals';
import { compileReference, withEncounters, type Encounters } from '../bench/index.ts';
import { SHIPPED_RULES, gradeCondition } from '../condition/index.ts';
import { asDay, isoOf } from '../dates/index.ts';
import {
  estimateWorth,
  evidenceIn,
  fitMarket,
  Market,
  marketForMakers,
  marketReferenceOf,
  packMarket,
  VALUE_SETTINGS,
  type Comparable,
} from '../market/index.ts';
import { money } from '../money/index.ts';
import { random } from '../random/index.ts';
import { emptyContents, type PackContents, type Variant } from '../reference/index.ts';
import {
  BAG_VERSION,
  FairTable,
  fairSubject,
  isBag,
  judgeAsked,
  lookAt,
  packEncounters,
  packRates,
  searchFair,
  type FairBag,
  type FairQuestion,
} from './index.ts';

const TODAY = asDay(20_700);
const form = (id: string, pattern: string, more: Partial<Variant> = {}): Variant => ({
  id,
  pattern,
  name: id,
  kind: 'production',
  ...more,
});
const contents: PackContents = {
  ...emptyContents(),
  makers: [
    { id: 'bh', name: 'Brackenholt Cutlery', active: '1908/1994' },
    { id: 'tw', name: 'Tarnwick Works', active: '1920/1980' },
  ],
  features: [
    {
      id: 'scale-material',
      label: 'Scales',
      part: 'scales',
      kind: 'category',
      values: [
        { id: 'horn', label: 'Horn' },
        { id: 'wood', label: 'Wood' },
      ],
    },
    { id: 'blades', label: 'Blades', part: 'blade', kind: 'count' },
  ],
  patterns: [
    { id: 'jack', maker: 'bh', name: 'Harbour jack', number: '62', construction: 'slipjoint' },
    { id: 'petrel', maker: 'bh', name: 'Petrel', construction: 'slipjoint' },
    { id: 'pen', maker: 'tw', name: 'Office pen', number: '62', construction: 'slipjoint' },
  ],
  marks: [
    { id: 'two-line', maker: 'bh', lines: ['BRACKENHOLT', 'NORHAM'], window: '1908/1950' },
    { id: 'arched', maker: 'bh', lines: ['BRACKENHOLT', 'NORHAM'], lettering: 'arched', window: '1950/1994' },
  ],
  codes: [
    { id: 'numbers', kind: 'serial', title: 'Numbers', pattern: 'petrel', format: 'PT-(\\d+)', number: 1 },
  ],
  variants: [
    form('jack-early', 'jack', {
      window: '1930/1949',
      features: { 'scale-material': ['horn'], blades: [2] },
      marks: ['two-line'],
    }),
    form('jack-late', 'jack', {
      window: '1951/1970',
      features: { 'scale-material': ['wood'], blades: [2] },
      marks: ['arched'],
    }),
    form('jack-copy', 'jack', { kind: 'counterfeit', twinOf: 'jack-early', features: { blades: [1] } }),
    form('petrel-1', 'petrel', { window: '1960/1969', features: { 'scale-material': ['wood'] } }),
    form('pen-1', 'pen', { window: '1925/1975', features: { 'scale-material': ['horn'] } }),
  ],
};
const luck = random(5);
const PRICES: Record<string, number> = { 'jack-early': 160, 'jack-late': 80, 'petrel-1': 60, 'pen-1': 30 };
const sales = Array.from({ length: 400 }, (_, i): Comparable => {
  const variant = Object.keys(PRICES)[i % 4] ?? '';
  const abroad = i % 7 === 0;
  const paid = (PRICES[variant] ?? 1) * Math.exp(0.15 * luck.normal()) * (abroad ? 1.25 : 1);
  return {
    id: `s${i}`,
    day: TODAY - ((i * 11) % 1500),
    price: money(paid.toFixed(2), abroad ? 'USD' : 'EUR'),
    priceKind: i % 9 === 0 ? 'asking' : 'sold',
    venueKind: (['fair', 'online', 'auction', 'retail'] as const)[Math.floor(i / 4) % 4] ?? 'fair',
    venue: `House ${i % 3}`,
    pattern: variant.split('-')[0] ?? '',
    variant: i % 13 === 0 ? undefined : variant,
    conditionIndex: 50 + (i % 47),
    box: i % 5 === 0 ? 'original' : 'none',
    papers: 'none',
    sheath: undefined,
    alterations: i % 11 === 0 ? ['polished'] : [],
    buyerPremiumPct: Math.floor(i / 4) % 4 === 2 ? 20 : undefined,
    shippingIncluded: i % 3 === 0,
  };
});
const rateOn = (currency: string) => (currency === 'USD' ? 1.25 : currency === 'EUR' ? 1 : undefined);
const reference = marketReferenceOf(contents.patterns, contents.variants, contents.features);
const fitted = fitMarket(sales, reference, rateOn);
const whole = new Market(fitted, reference, rateOn);
const met: Encounters = {
  sold: new Map([['jack-late', 40]]),
  soldOfPattern: new Map(),
  own: new Map(),
  ownOfPattern: new Map(),
  unlisted: 0,
};
const index = withEncounters(compileReference(contents, '7', TODAY), met);
const terms = {
  buying: {},
  channel: { commissionPct: 8 },
  target: { marginPct: 30 },
  tax: { on: 'none' as const, pct: 0 },
};

function packed(makers: readonly string[]): FairBag {
  const taken = sales.filter((s) => makers.includes(reference.patterns.get(s.pattern)?.maker ?? ''));
  const bag: FairBag = {
    version: BAG_VERSION,
    packedAt: '2026-09-04T07:00:00.000Z',
    day: isoOf(TODAY),
    base: 'EUR',
    makers: [...makers],
    revision: '7',
    reference: contents,
    encounters: packEncounters(met),
    rules: SHIPPED_RULES,
    market: packMarket(marketForMakers(fitted, reference, new Set(makers))),
    settings: VALUE_SETTINGS,
    sales: taken,
    rates: packRates(rateOn, 'EUR', taken, TODAY, ['USD']),
    terms,
    care: 'even',
    numbers: [{ code: 'numbers', text: 'PT-12', told: 'HQ-0004, Petrel', watched: false }],
    availability: {},
  };
  // as it comes over the line and lies on the phone
  return JSON.parse(JSON.stringify(bag)) as FairBag;
}
const table = new FairTable(packed(['bh']));

const ask = (more: Partial<FairQuestion> = {}): FairQuestion => ({
  pattern: 'jack',
  alterations: [],
  ...more,
});
const byTheShop = (question: FairQuestion, asked?: string) => {
  const subject = fairSubject(index, question);
  const estimate = estimateWorth(whole, evidenceIn(sales, whole, subject), subject, 'retail', TODAY);
  return judgeAsked('EUR', terms, estimate, question.care ?? 'even', asked);
};
const judged = (question: FairQuestion) => {
  const answer = table.judge(question);
  if (!answer.ok) throw new Error(answer.error[0]?.message);
  return answer.value;
};

describe('with a bag of one maker', () => {
  test.each<[string, FairQuestion]>([
    ['a pattern of which nothing more is known', ask()],
    ['a form that a person names', ask({ variant: 'jack-late', conditionIndex: 82 })],
    ['a form that leads by what was seen', ask({ observations: [{ mark: 'two-line' }], box: 'original' })],
    ['one in poor state, boldly', ask({ variant: 'jack-early', conditionIndex: 35, care: 'bold' })],
    ['a form of few sales', ask({ pattern: 'petrel', alterations: ['reground'] })],
  ])('the ceiling is the shop’s: %s', (_, question) => {
    const [phone, shop] = [judged(question), byTheShop(question)];
    expect(phone).toEqual(shop);
    expect(phone.supported).toBe(true);
  });
  test('what is asked in another currency is brought to the shop’s own', () => {
    expect(judged(ask({ asked: money('50.00', 'USD') }))).toEqual(byTheShop(ask(), '40.00'));
    expect(table.judge(ask({ asked: money('50.00', 'CHF') }))).toMatchObject({
      ok: false,
      error: [{ pointer: '/asked/currency' }],
    });
  });
  test('what speaks for the dear form raises the ceiling, what speaks for the cheap one lowers it', () => {
    const most = (mark: string, value: string) =>
      Number(judged(ask({ observations: [{ mark }, { feature: 'scale-material', value }] })).most.bid);
    expect(most('two-line', 'horn')).toBeGreaterThan(1.5 * most('arched', 'wood'));
  });
  test('for a maker left at home there is no ceiling, said by name', () => {
    expect(table.judge(ask({ pattern: 'pen' }))).toEqual({
      ok: false,
      error: [
        {
          pointer: '/pattern',
          message:
            'The market of Tarnwick Works is not in the bag: without a connection there is no ceiling for it.',
        },
      ],
    });
  });
  test('what the reference does not know is refused', () => {
    expect(table.judge(ask({ pattern: 'nothing' })).ok).toBe(false);
    expect(table.judge(ask({ variant: 'pen-1' })).ok).toBe(false);
    expect(table.judge(ask({ observations: [{ mark: 'nothing' }] })).ok).toBe(false);
    expect(table.look({ observations: [{ mark: 'nothing' }] }).ok).toBe(false);
  });
  test('it looks as the shop looks, and knows the numbers the shop knows', () => {
    const question = { observations: [{ mark: 'arched' }, { feature: 'blades', value: 2 }] };
    expect(table.look(question)).toEqual({ ok: true, value: lookAt(index, question) });
    const number = table.look({ observations: [{ code: 'numbers', text: 'PT-12' }] });
    expect(number.ok && number.value.alerts.join(' ')).toContain('HQ-0004, Petrel');
  });
  test('condition goes by the shop’s own rules', () => {
    const question = {
      construction: 'slipjoint' as const,
      findings: [{ part: 'blade' as const, defect: 'pitting' as const, severity: 'heavy' as const }],
      completeness: {},
    };
    expect(table.conditionIndex(question)).toBe(gradeCondition(question).conditionIndex);
  });
  test('a form is drawn', () => {
    expect(table.recipe({ construction: 'slipjoint', variant: 'jack-early' }).construction).toBe('slipjoint');
  });
});

describe('searching at the table', () => {
  const found = (words: string) => searchFair(index, words);
  test('words in any order find patterns with what kind of thing they are', () => {
    expect(found('jack harb')[0]).toMatchObject({
      kind: 'pattern',
      pattern: { id: 'jack', name: 'Harbour jack', construction: 'slipjoint' },
    });
  });
  test('stamps of one text are two finds, each something seen', () => {
    const stamps = found('brackenholt norham').filter((hit) => hit.kind === 'mark');
    expect(stamps.map((hit) => hit.make)).toEqual([{ mark: 'two-line' }, { mark: 'arched' }]);
    expect(stamps.map((hit) => hit.mark?.lettering)).toEqual([undefined, 'arched']);
  });
  test('a number leads to all that bear it; a running number is something seen', () => {
    expect(found('62').map((hit) => hit.id)).toEqual(expect.arrayContaining(['jack', 'pen']));
    expect(found('PT-31')[0]).toMatchObject({ id: 'petrel', make: { code: 'numbers', text: 'PT-31' } });
  });
});

describe('what to look at next', () => {
  test('nothing seen: no candidate leads and nothing is dated', () => {
    const sight = lookAt(index, { observations: [] });
    expect(sight).toMatchObject({ candidates: [], made: null, forms: [] });
  });
  test('a picked pattern asks what tells its forms apart, each answered by a tap', () => {
    const { checks, forms } = lookAt(index, { observations: [], pattern: 'jack' });
    expect(forms.map((f) => f.id).sort()).toEqual(['jack-copy', 'jack-early', 'jack-late']);
    const scales = checks.find((check) => check.ask === 'Scales?');
    expect(scales?.choices.map((choice) => choice.label)).toEqual([
      'Horn',
      'Wood',
      'Not there',
      'Cannot tell',
    ]);
    expect(checks.some((check) => check.choices.some((choice) => choice.mark?.id === 'arched'))).toBe(true);
    // what the list has not is written
    expect(scales?.other).toBe('scale-material');
  });
  test('a size that tells forms apart is asked for with its unit', () => {
    const sized = compileReference(
      {
        ...contents,
        features: [{ id: 'closed', label: 'Closed length', part: 'frame', kind: 'measure', unit: 'mm' }],
        marks: [],
        variants: [
          form('short', 'jack', { measures: { closed: { value: 86, tolerance: 1 } } }),
          form('long', 'jack', { measures: { closed: { value: 98, tolerance: 1 } } }),
        ],
      },
      '7',
      TODAY,
    );
    const { checks } = lookAt(sized, { observations: [], pattern: 'jack' });
    expect(checks.find((check) => check.measure)).toMatchObject({
      measure: { feature: 'closed', label: 'Closed length', unit: 'mm' },
      choices: [{ label: 'Cannot tell' }],
    });
    const { candidates } = lookAt(sized, {
      observations: [{ feature: 'closed', measure: 98.2, resolution: 0.1 }],
      pattern: 'jack',
    });
    expect(candidates[0]).toMatchObject({ variant: 'long' });
  });
});

test('a bag of another version is packed again, not opened', () => {
  expect(isBag(packed(['bh']))).toBe(true);
  expect(isBag({ ...packed(['bh']), version: BAG_VERSION + 1 })).toBe(false);
  expect(isBag({})).toBe(false);
});

test('the bag of an empty shop opens, finds nothing and names no price', () => {
  const nothing = fitMarket([], marketReferenceOf([], [], []), rateOn);
  const empty = new FairTable({
    ...packed([]),
    reference: emptyContents(),
    market: packMarket(nothing),
    sales: [],
    numbers: [],
    availability: {},
  });
  expect(empty.search('jack')).toEqual([]);
  expect(empty.look({ observations: [] })).toMatchObject({ ok: true, value: { candidates: [], checks: [] } });
  expect(empty.judge(ask()).ok).toBe(false);
});

test('the market of one maker is smaller than the whole', () => {
  const one = marketForMakers(fitted, reference, new Set(['tw']));
  expect(one.plan.columns.length).toBeLessThan(fitted.plan.columns.length);
  expect(one.plan.variants).toEqual(['pen-1']);
});
