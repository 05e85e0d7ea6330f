/** A series as a collector keeps it: figures made by hand. */
import { describe, expect, test } from '@jest/globals';
import { money } from '../money/index.ts';
import type { Variant } from '../reference/index.ts';
import {
  completionOf,
  fills,
  hardestFirst,
  slotsOf,
  standingOf,
  unknownInRule,
  type Holding,
  type SlotWish,
} from './index.ts';

const variant = (id: string, window: string | null, more: Partial<Variant> = {}): Variant => ({
  id,
  pattern: 'petrel',
  name: id,
  kind: 'production',
  window,
  ...more,
});
const reference = (...variants: Variant[]) => ({ variants, features: [] });
const holding = (piece: string, variantId: string, more: Partial<Holding> = {}): Holding => ({
  piece,
  variant: variantId,
  tier: 'confirmed',
  made: null,
  seen: {},
  sold: false,
  conditionIndex: 80,
  worth: null,
  days: 10,
  ...more,
});
const TODAY = 2026;
const eur = (amount: number) => money(amount, 'EUR');
const price = (low: number, likely: number, high: number) => ({
  low: eur(low),
  likely: eur(likely),
  high: eur(high),
});

describe('what a rule asks for', () => {
  test('every variant of a model in the order it was made, without what only imitates it', () => {
    const slots = slotsOf(
      { kind: 'patterns', patterns: ['petrel'] },
      reference(
        variant('third', '2018/..'),
        variant('fake', '2018/..', { kind: 'counterfeit' }),
        variant('first', '2008/2012'),
        variant('undated', null),
        variant('shop run', '2010', { kind: 'exclusive', edition: { run: 25, retailer: 'Lantern Row' } }),
        variant('elsewhere', '2009', { pattern: 'skua' }),
      ),
      TODAY,
    );
    expect(slots.map((s) => s.key)).toEqual(['first', 'shop run', 'third', 'undated']);
    expect(slots[1]).toMatchObject({ made: 25, edition: { retailer: 'Lantern Row' } });
  });

  test('a collector of counterfeits asks for them by name', () => {
    const rule = { kind: 'patterns', patterns: ['petrel'], kinds: ['counterfeit'] } as const;
    expect(
      slotsOf(
        rule,
        reference(variant('a', '2008'), variant('fake', null, { kind: 'counterfeit' })),
        TODAY,
      ).map((s) => s.key),
    ).toEqual(['fake']);
  });

  test('everything with a stamp, whichever pattern bears it', () => {
    const slots = slotsOf(
      { kind: 'stamp', mark: 'bird' },
      reference(
        variant('a', '2009', { marks: ['bird', 'licence'] }),
        variant('b', '2008', { pattern: 'skua', marks: ['bird'] }),
        variant('c', '2007', { marks: ['licence'] }),
      ),
      TODAY,
    );
    expect(slots.map((s) => s.key)).toEqual(['b', 'a']);
  });

  test('one of each handle is one slot for each material, filled by any form that has it', () => {
    const slots = slotsOf(
      { kind: 'values', patterns: ['petrel'], feature: 'handle' },
      {
        variants: [
          variant('a', '1930/1935', { features: { handle: ['bone'] } }),
          variant('b', '1936/1940', { features: { handle: ['bone', 'horn'] } }),
          variant('c', '1941', { features: { handle: ['fibre'] } }),
        ],
        features: [
          {
            id: 'handle',
            label: 'Handle',
            part: 'scales',
            kind: 'category',
            values: [{ id: 'bone', label: 'Bone' }],
          },
        ],
      },
      TODAY,
    );
    expect(slots.map((s) => [s.name, s.variants, s.window])).toEqual([
      ['Bone', ['a', 'b'], '1930/1940'],
      ['horn', ['b'], '1936/1940'],
      ['fibre', ['c'], '1941'],
    ]);
    // of the form that came in both, the one that was seen counts
    const bone = slots[0];
    const horn = slots[1];
    if (!bone || !horn) throw new Error('no slots');
    expect(fills(bone, holding('1', 'b', { seen: { handle: 'horn' } }))).toBe(false);
    expect(fills(horn, holding('1', 'b', { seen: { handle: 'horn' } }))).toBe(true);
  });

  test('an annual series of thirty years with one year left out has twenty-nine slots, and stops today', () => {
    const years = Array.from({ length: 30 }, (_, i) => 1998 + i).filter((year) => year !== 2003);
    const slots = slotsOf(
      { kind: 'years', patterns: ['petrel'] },
      reference(...years.map((y) => variant(`y${y}`, String(y), { edition: { index: y - 1997, run: 300 } }))),
      TODAY,
    );
    expect(slots).toHaveLength(28);
    expect(slots[0]).toMatchObject({ key: '1998', name: 'y1998', made: 300 });
    expect(slots.map((s) => s.key)).not.toContain('2003');
    expect(slots.at(-1)?.key).toBe('2026');
  });

  test('a year of a form that ran for many is filled only by a piece that is dated to it', () => {
    const [first] = slotsOf(
      { kind: 'years', patterns: ['petrel'] },
      reference(variant('a', '1950/1955')),
      TODAY,
    );
    if (!first) throw new Error('no slot');
    expect(fills(first, holding('1', 'a', { made: '1950' }))).toBe(true);
    expect(fills(first, holding('1', 'a', { made: '1950-03/1950-07' }))).toBe(true);
    expect(fills(first, holding('1', 'a', { made: '1950/1951' }))).toBe(false);
    expect(fills(first, holding('1', 'a'))).toBe(false);
  });

  test('what the reference does not have is told beside its field', () => {
    const known = { patterns: new Map(), marks: new Map(), features: new Map(), variants: new Map() };
    expect(
      unknownInRule({ kind: 'values', patterns: ['x'], feature: 'y' }, known).map((p) => p.pointer),
    ).toEqual(['/rule/patterns/0', '/rule/feature']);
    expect(unknownInRule({ kind: 'stamp', mark: 'z' }, known)).toHaveLength(1);
    expect(unknownInRule({ kind: 'picked', variants: ['z'] }, known)).toHaveLength(1);
  });
});

describe('how it stands', () => {
  const slots = slotsOf(
    { kind: 'patterns', patterns: ['petrel'] },
    reference(
      variant('a', '2008'),
      variant('b', '2009'),
      variant('c', '2010'),
      variant('d', '2011'),
      variant('e', '2012'),
    ),
    TODAY,
  );
  const none = new Map<string, SlotWish>();

  test('the best example is kept; the worst is the first to sell, and it is said why', () => {
    const [a] = standingOf(
      slots,
      [
        holding('fair', 'a', { conditionIndex: 55, days: 700, worth: eur(90) }),
        holding('best', 'a', { conditionIndex: 92, days: 30, worth: eur(140) }),
        holding('dear', 'a', { conditionIndex: 85, days: 5, worth: eur(150), tier: 'probable' }),
        holding('unseen', 'a', { conditionIndex: null }),
      ],
      none,
      null,
    );
    expect(a?.best?.piece).toBe('best');
    expect(a?.doubles.map((d) => d.holding.piece)).toEqual(['unseen', 'fair', 'dear']);
    expect(a?.doubles.map((d) => d.why)).toEqual([
      [{ why: 'not-inspected' }],
      [
        { why: 'worse', by: 37 },
        { why: 'longer', days: 700 },
      ],
      [{ why: 'worse', by: 7 }, { why: 'less-sure' }, { why: 'dearer', worth: eur(150) }],
    ]);
  });

  test('of two alike the one that stood longer goes', () => {
    const [a] = standingOf(
      slots,
      [holding('old', 'a', { days: 500 }), holding('new', 'a', { days: 3 })],
      none,
      null,
    );
    expect(a?.best?.piece).toBe('new');
    expect(a?.doubles[0]?.why).toEqual([{ why: 'longer', days: 500 }]);
  });

  test('owned, to be bettered, sold, owned elsewhere, not cared for', () => {
    const states = standingOf(
      slots,
      [
        holding('1', 'a', { conditionIndex: 60 }),
        holding('2', 'b', { conditionIndex: 60 }),
        holding('3', 'c', { sold: true }),
        // a form that was refuted fills nothing
        holding('4', 'd', { tier: 'doubtful' }),
      ],
      new Map<string, SlotWish>([
        ['b', { wish: 'want', atMost: null, leastIndex: 50 }],
        ['d', { wish: 'have', atMost: null, leastIndex: null }],
        ['e', { wish: 'skip', atMost: null, leastIndex: null }],
      ]),
      75,
    );
    expect(states.map((s) => s.state)).toEqual(['upgrade', 'owned', 'missing', 'elsewhere', 'skipped']);
    expect(states[2]?.sold.map((h) => h.piece)).toEqual(['3']);
  });

  test('what nobody inspected is not said to be too bad', () => {
    const [a] = standingOf(slots, [holding('1', 'a', { conditionIndex: null })], none, 75);
    expect(a?.state).toBe('owned');
  });

  test('completion in number and in money, with its range', () => {
    const states = standingOf(
      slots,
      [holding('1', 'a'), holding('2', 'b')],
      new Map<string, SlotWish>([['e', { wish: 'skip', atMost: null, leastIndex: null }]]),
      null,
    );
    const prices = new Map([
      ['a', price(80, 100, 130)],
      ['b', price(40, 50, 70)],
      ['c', price(200, 300, 500)],
      ['e', price(1, 1, 1)],
    ]);
    const done = completionOf(states, (key) => prices.get(key), 'EUR');
    expect(done).toMatchObject({ filled: 2, of: 4, unpriced: 1 });
    expect(done.owned).toEqual(price(120, 150, 200));
    expect(done.missing).toEqual(price(200, 300, 500));
    expect(done.share?.likely).toBeCloseTo(150 / 450);
    expect(done.share?.low).toBeCloseTo(120 / 620);
    expect(done.share?.high).toBeCloseTo(200 / 400);
  });

  test('nothing priced is no share', () => {
    expect(completionOf(standingOf(slots, [], none, null), () => undefined, 'EUR')).toMatchObject({
      filled: 0,
      of: 5,
      share: null,
      unpriced: 5,
    });
  });

  test('what never comes up is harder than what is merely few', () => {
    const states = standingOf(slots, [holding('1', 'a')], none, null);
    const left = (likely: number) => ({ low: likely, likely, high: likely });
    const rarity = new Map([
      ['b', { left: left(10), seen: { count: 9, years: 9 } }],
      ['c', { left: left(4000), seen: { count: 0, years: 9 } }],
      ['d', { left: left(12), seen: { count: 0, years: 9 } }],
    ]);
    expect(hardestFirst(states, (key) => rarity.get(key)).map((s) => s.slot.key)).toEqual([
      'd',
      'c',
      'e',
      'b',
    ]);
  });
});
