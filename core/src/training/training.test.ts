/** Every question that any reference gives has one right answer by that reference; what is learnt comes back by the library. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { createEmptyCard, fsrs, Rating } from 'ts-fsrs';
import { compileReference, type ReferenceIndex } from '../bench/index.ts';
import {
  dayOf,
  edtfInWords,
  hullOf,
  intersectAll,
  isEmpty,
  calendarOf,
  periodOf,
  type Span,
} from '../dates/index.ts';
import { money } from '../money/index.ts';
import {
  emptyContents,
  readDateCode,
  type DateCode,
  type PackContents,
  type PatternNumberCode,
  type Variant,
} from '../reference/index.ts';
import {
  afterAnswer,
  DRILL_KINDS,
  learntOf,
  nextQuestions,
  questionsOfPiece,
  questionsOfReference,
  type DrillCard,
  type DrillPiece,
  type DrillQuestion,
} from './index.ts';

const FEATURES = ['scales', 'bolster', 'bail', 'shield', 'steel', 'pull'];
const VALUES = ['one', 'two', 'three', 'four'];
const yearSpan = fc
  .tuple(fc.integer({ min: 1900, max: 1990 }), fc.integer({ min: 0, max: 70 }))
  .map(([from, years]) => (years === 0 ? String(from) : `${from}/${from + years}`));
const some = (max: number) => ({ minLength: 1, maxLength: max });

/** References of another shape each time: few values and many, windows that overlap or do not, doubtful codes. */
const reference: fc.Arbitrary<PackContents> = fc
  .record({
    variants: fc.array(
      fc.record({
        window: fc.option(yearSpan),
        kind: fc.constantFrom('production', 'limited', 'counterfeit', 'reproduction') as fc.Arbitrary<
          Variant['kind']
        >,
        features: fc.dictionary(
          fc.constantFrom(...FEATURES),
          fc.uniqueArray(fc.constantFrom(...VALUES), some(2)),
        ),
        mark: fc.integer({ min: 0, max: 4 }),
        quantity: fc.option(fc.integer({ min: 1, max: 9000 })),
      }),
      some(7),
    ),
    windows: fc.array(
      fc.record({
        feature: fc.constantFrom(...FEATURES),
        value: fc.constantFrom(...VALUES),
        window: yearSpan,
      }),
      { maxLength: 60 },
    ),
    marks: fc.array(
      fc.record({
        window: fc.option(yearSpan),
        lettering: fc.constantFrom('straight', 'arched', 'script'),
        text: fc.constantFrom('QUAY', 'BRACKEN'),
        coded: fc.boolean(),
      }),
      some(5),
    ),
    bases: fc.tuple(fc.integer({ min: 1900, max: 1950 }), fc.integer({ min: 1900, max: 1960 })),
    table: fc.dictionary(fc.constantFrom('1', '2', '3', '6', 'EO'), fc.constantFrom(...VALUES)),
  })
  .map(({ variants, windows, marks, bases, table }) => ({
    ...emptyContents(),
    makers: [{ id: 'bh', name: 'Brackenholt Cutlery' }],
    sources: [{ id: 's', title: 'Works ledger', kind: 'factory-record' as const }],
    features: FEATURES.map((id) => ({
      id,
      label: id,
      part: 'scales',
      kind: 'category' as const,
      values: VALUES.map((value) => ({ id: value, label: `${value} ${id}` })),
    })),
    patterns: [{ id: 'jack', maker: 'bh', name: 'Jack', construction: 'slipjoint' as const }],
    marks: marks.map((m, i) => ({
      id: `m${i}`,
      maker: 'bh',
      lines: [m.text],
      lettering: m.lettering,
      window: m.window,
      codes: m.coded ? ['ticks'] : [],
    })),
    codes: [
      {
        id: 'ticks',
        kind: 'date' as const,
        maker: 'bh',
        source: 's',
        page: '4',
        reads: [
          { id: 'row', label: 'Row', type: 'choice' as const, values: ['above', 'below'] },
          { id: 'ticks', label: 'Ticks', type: 'count' as const, min: 0, max: 9 },
        ],
        rules: [
          { when: { row: 'above' }, year: { base: bases[0], plus: 'ticks' } },
          { when: { row: 'below' }, year: { base: bases[1], plus: 'ticks' } },
        ],
      },
      {
        id: 'number',
        kind: 'pattern-number' as const,
        maker: 'bh',
        segments: [
          {
            id: 'first sign',
            table: Object.fromEntries(
              Object.entries(table).map(([sign, value]) => [sign, { feature: 'scales', value }]),
            ),
          },
        ],
      },
    ],
    windows: windows.map((w, i) => ({ ...w, id: `w${i}`, maker: 'bh', source: 's', page: String(i) })),
    variants: variants.map((v, i) => ({
      id: `v${i}`,
      pattern: 'jack',
      name: `Form ${i}`,
      kind: v.kind,
      window: v.window,
      features: v.features,
      marks: v.mark < marks.length ? [`m${v.mark}`] : [],
      ...(v.quantity === null ? {} : { made: { quantity: v.quantity, basis: 'documented' as const } }),
      ...(v.kind === 'counterfeit' || v.kind === 'reproduction' ? { twinOf: 'v0' } : {}),
    })),
  }));

/** Which of a question's choices the reference bears out: reckoned anew, from nothing but what is asked. */
function rightBy(index: ReferenceIndex, q: DrillQuestion): string[] {
  const { contents } = index;
  const [, ...ids] = q.id.split(':');
  const [first = '', second = ''] = ids;
  const variant = index.variants.get(first)?.variant;
  const saysOf = (v: Variant | undefined) =>
    Object.entries(v?.features ?? {}).flatMap(([f, values]) => values.map((value) => `${f}: ${value} ${f}`));
  switch (q.kind) {
    case 'stamp': {
      const mark = index.marks.get(first);
      const alike = contents.marks.filter(
        (m) =>
          m.lines.join() === mark?.lines.join() &&
          m.lettering === mark.lettering &&
          !m.codes?.length === !mark.codes?.length,
      );
      return q.choices.filter((c) =>
        alike.some((m) => m.window != null && c === `Brackenholt Cutlery, ${edtfInWords(m.window)}`),
      );
    }
    case 'code': {
      const code = contents.codes.find((c): c is DateCode => c.id === first && c.kind === 'date');
      const [, row = '', ticks = ''] = /^Row (\w+), Ticks (\d+)$/.exec(second) ?? [];
      const read = code && readDateCode(code, { row, ticks: Number(ticks) });
      const years = read?.ok ? read.value.flatMap((r) => hullOf(periodOf(r.window).strict) ?? []) : [];
      return q.choices.filter((c) => years.some((y) => String(calendarOf(y.from).year) === c));
    }
    case 'number': {
      const code = contents.codes.find(
        (c): c is PatternNumberCode => c.id === first && c.kind === 'pattern-number',
      );
      const implied = code?.segments[0]?.table?.[ids[2] ?? ''];
      return q.choices.filter(
        (c) => implied && 'value' in implied && c === `scales: ${implied.value} scales`,
      );
    }
    case 'bracket': {
      const asked = [...q.ask.matchAll(/(\w+): (\w+) \w+ \(([^)]+)\)/g)].map(([, feature, value]) => ({
        feature,
        value,
      }));
      const spans = asked.map(({ feature, value }) => {
        const those = contents.windows.filter((w) => w.feature === feature && w.value === value);
        return those
          .filter((w) => q.ask.includes(`(${edtfInWords(w.window)})`))
          .flatMap((w) => periodOf(w.window).strict);
      });
      const together = spans.reduce<readonly Span[]>((all, s) => intersectAll(all, s), spans[0] ?? []);
      const hull = hullOf(together.filter((s) => !isEmpty(s)));
      const years = hull && [calendarOf(hull.from).year, calendarOf(hull.to).year];
      return q.choices.filter(
        (c) => c === (years?.[0] === years?.[1] ? String(years?.[0]) : years?.join(' to ')),
      );
    }
    case 'belongs':
      return q.choices.filter((c) => !saysOf(variant).includes(c));
    case 'imitation':
      return q.choices.filter(
        (c) => saysOf(variant).includes(c) && !saysOf(index.variants.get('v0')?.variant).includes(c),
      );
    case 'differ': {
      const after = index.variants.get(second)?.variant;
      const values = (v: Variant | undefined, f: string) => [...(v?.features?.[f] ?? [])].sort().join();
      return q.choices.filter((f) => values(variant, f) !== values(after, f));
    }
    case 'grade':
    case 'price':
      throw new Error(`the reference alone does not ask ${q.kind}`);
  }
}

const sound = (q: DrillQuestion) => {
  expect(q.choices.length).toBeGreaterThanOrEqual(3);
  expect(q.choices.length).toBeLessThanOrEqual(4);
  expect(new Set(q.choices).size).toBe(q.choices.length);
  expect(q.choices.every((c) => c.trim() !== '')).toBe(true);
  expect(q.choices[q.right]).toBeDefined();
};

describe('questions', () => {
  test('of any reference: each has one right answer by that reference, and says it', () => {
    fc.assert(
      fc.property(reference, (contents) => {
        const index = compileReference(contents, 'r', dayOf(2026, 12, 2));
        const questions = questionsOfReference(index);
        expect(new Set(questions.map((q) => q.id)).size).toBe(questions.length);
        for (const q of questions) {
          sound(q);
          expect({ id: q.id, ask: q.ask, right: rightBy(index, q) }).toEqual({
            id: q.id,
            ask: q.ask,
            right: [q.choices[q.right]],
          });
        }
      }),
      { numRuns: 150 },
    );
  });

  test('every kind that needs nothing but a reference is asked of some', () => {
    // a rare kind is not in every handful: this one is always the same
    const asked = fc
      .sample(reference, { numRuns: 600, seed: 17 })
      .flatMap((contents) => questionsOfReference(compileReference(contents, 'r', dayOf(2026, 12, 2))));
    expect([...new Set(asked.map((q) => q.kind))].sort()).toEqual(
      DRILL_KINDS.filter((k) => k !== 'grade' && k !== 'price').sort(),
    );
  });

  test('the right place is not always the same', () => {
    const contents = fc.sample(reference, { numRuns: 30, seed: 7 });
    const places = contents.flatMap((c) =>
      questionsOfReference(compileReference(c, 'r', dayOf(2026))).map((q) => q.right),
    );
    for (const place of [0, 1, 2])
      expect(places.filter((p) => p === place).length / places.length).toBeGreaterThan(0.12);
  });

  const piece: DrillPiece = {
    id: '01J',
    name: 'Harbour jack, First form',
    maker: 'bh',
    variant: 'first',
    findings: [{ part: 'blade', defect: 'pitting', severity: 'light' }],
    grade: 'very good',
    grades: ['mint', 'near mint', 'excellent', 'very good', 'good', 'poor'],
    capped: 'Pitting: not better than very good.',
    worth: { low: money('81.40', 'EUR'), estimate: money('104.10', 'EUR'), high: money('133.00', 'EUR') },
  };
  test('of an inspected piece its grade among the grades next to it, with what caps it', () => {
    const grade = questionsOfPiece(piece).find((q) => q.kind === 'grade');
    if (!grade) throw new Error('no question');
    sound(grade);
    expect(grade.choices[grade.right]).toBe('very good');
    expect(grade.choices).toEqual(expect.arrayContaining(['excellent', 'good']));
    expect(grade).toMatchObject({
      because: 'Pitting: not better than very good.',
      opens: '/pieces/01J/condition',
    });
  });
  test('of a priced piece one amount within its range and none else', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 4, max: 90_000 }),
        fc.double({ min: 1.05, max: 3, noNaN: true }),
        (estimate, spread) => {
          const worth = {
            low: money(estimate / spread, 'EUR'),
            estimate: money(estimate, 'EUR'),
            high: money(estimate * spread, 'EUR'),
          };
          for (const q of questionsOfPiece({ ...piece, worth }).filter((asked) => asked.kind === 'price')) {
            sound(q);
            const inside = q.choices.filter((c) => {
              const amount = Number(c.replaceAll(/[^\d.]/g, ''));
              return amount >= estimate / spread - 0.01 && amount <= estimate * spread + 0.01;
            });
            expect(inside).toEqual([q.choices[q.right]]);
          }
        },
      ),
    );
  });
  test('what nobody inspected or can price is not asked', () => {
    expect(questionsOfPiece({ ...piece, grade: null, worth: null })).toEqual([]);
  });
});

describe('what comes back, and when', () => {
  const question = (id: string, more: Partial<DrillQuestion> = {}): DrillQuestion => ({
    id,
    kind: 'stamp',
    maker: 'bh',
    ask: id,
    drawn: null,
    choices: ['a', 'b', 'c'],
    right: 0,
    because: '',
    source: null,
    opens: '/',
    commonness: 1,
    basis: 'b1',
    ...more,
  });
  const DAY = 86_400_000;
  const at = (days: number) => new Date(Date.parse('2026-12-02T09:00:00Z') + days * DAY).toISOString();

  test('the days are the library’s', () => {
    const library = fsrs({ enable_fuzz: false });
    let card = createEmptyCard(new Date(at(0)));
    let kept: DrillCard | undefined;
    for (const [days, right] of [
      [0, true],
      [1, true],
      [4, true],
      [20, false],
      [21, true],
    ] as const) {
      card = library.next(card, new Date(at(days)), right ? Rating.Good : Rating.Again).card;
      kept = afterAnswer(question('q'), kept, right, 4000, at(days));
      expect(kept).toMatchObject({ due: card.due.toISOString(), reps: card.reps, lapses: card.lapses });
      expect(kept.stability).toBeCloseTo(card.stability, 9);
    }
  });
  test('right after long thought comes sooner than right at once', () => {
    const first = afterAnswer(question('q'), undefined, true, 2000, at(0));
    const quick = afterAnswer(question('q'), first, true, 2000, at(3));
    const slow = afterAnswer(question('q'), first, true, 40_000, at(3));
    expect(slow.due < quick.due).toBe(true);
  });
  test('a question that says something else now is stale, and is learnt anew', () => {
    let card = afterAnswer(question('q'), undefined, true, 2000, at(0));
    for (const day of [2, 10, 40, 120]) card = afterAnswer(question('q'), card, true, 2000, at(day));
    expect(learntOf(card, 'b1')).toBe('known');
    expect(learntOf(card, 'b2')).toBe('stale');
    expect(learntOf(undefined, 'b1')).toBe('new');
    expect(afterAnswer(question('q', { basis: 'b2' }), card, true, 2000, at(121)).reps).toBe(1);
  });
  test('what is due first, the longest overdue at the head; then the commonest of what is new', () => {
    const cards = new Map(
      [
        ['late', 0],
        ['later', -3],
        ['not yet', 5],
      ].map(([id, day]) => [
        id as string,
        { ...afterAnswer(question(String(id)), undefined, true, 1000, at(-9)), due: at(Number(day)) },
      ]),
    );
    const questions = [
      question('late'),
      question('later'),
      question('not yet'),
      question('rare', { commonness: 3 }),
      question('common', { commonness: 9000 }),
      question('year of a code', { kind: 'code', commonness: 99_000 }),
    ];
    expect(nextQuestions(questions, cards, at(1), 5).map((q) => q.id)).toEqual([
      'later',
      'late',
      'common',
      'rare',
      'year of a code',
    ]);
  });
  test('what one gets wrong at the bench is asked before the rest', () => {
    const questions = [
      question('usual', { commonness: 9000 }),
      question('missed', { maker: 'cv', commonness: 2 }),
    ];
    expect(nextQuestions(questions, new Map(), at(0), 2, new Map([['cv', 2]])).map((q) => q.id)).toEqual([
      'missed',
      'usual',
    ]);
  });
  test('beside what is due only a few new things', () => {
    const due = new Map([['d', { ...afterAnswer(question('d'), undefined, true, 1, at(-9)), due: at(-1) }]]);
    const many = Array.from({ length: 40 }, (_, i) => question(`n${i}`));
    expect(nextQuestions([question('d'), ...many], due, at(0), 12)).toHaveLength(7);
  });
});
