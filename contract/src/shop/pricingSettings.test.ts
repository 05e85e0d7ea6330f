import { describe, expect, test } from '@jest/globals';
import { fairNote } from '../fair/index.ts';
import { saleBody } from '../sale/index.ts';
import { USUAL_SETTINGS, pricingSettings } from './pricingSettings.ts';

const told = (body: unknown) => {
  const read = pricingSettings.safeParse(body);
  return read.success ? [] : read.error.issues.map((i) => [`/${i.path.join('/')}`, i.message]);
};

describe('how a shop reckons', () => {
  test('what was kept before there were tax, seals and percentages has their usual values', () => {
    const { tax: _t, sealed: _s, fixed: _f, dailyRates: _d, ...older } = USUAL_SETTINGS;
    expect(pricingSettings.parse(older)).toEqual(USUAL_SETTINGS);
  });
  test('rates are not fetched unless it is said', () => {
    expect(USUAL_SETTINGS.dailyRates).toBe(false);
  });
  test('each thing that is wrong is told at its place, in words', () => {
    const [channel] = USUAL_SETTINGS.channels;
    expect(
      told({
        ...USUAL_SETTINGS,
        channels: [{ ...channel, channel: { commissionPct: 'much', packing: '-1' } }],
        tax: { on: 'margin', pct: 90 },
        fixed: { ...USUAL_SETTINGS.fixed, altered: 5 },
        holdingPerMonth: '-0.50',
      }),
    ).toEqual([
      ['/channels/0/channel/commissionPct', 'write a number'],
      ['/channels/0/channel/packing', 'must not be below 0'],
      ['/holdingPerMonth', 'must not be below 0'],
      ['/tax/pct', 'at most 60 %'],
      ['/fixed/altered', 'at most 0 %'],
    ]);
  });
  test('two channels of one id, or none at all, are refused', () => {
    const [channel] = USUAL_SETTINGS.channels;
    expect(told({ ...USUAL_SETTINGS, channels: [channel, channel] })).toEqual([
      ['/channels', 'two channels have one id'],
    ]);
    expect(told({ ...USUAL_SETTINGS, channels: [] })).toEqual([['/channels', 'at least one channel']]);
  });
  test('a target is one of three, and a margin below the whole', () => {
    expect(told({ ...USUAL_SETTINGS, target: { profit: '20.00' } })).toEqual([]);
    expect(told({ ...USUAL_SETTINGS, target: { marginPct: 100 } })[0]?.[0]).toMatch(/^\/target/);
    expect(told({ ...USUAL_SETTINGS, target: { marginPct: 10, profit: '1' } })[0]?.[0]).toMatch(/^\/target/);
  });
});

describe('a note of the fair', () => {
  const note = {
    key: '3f0c1d2e-7a6b-4c5d-8e9f-000000000001',
    notedAt: '2026-11-21T10:12:00.000Z',
    title: 'Bone jack',
    construction: 'slipjoint',
    question: null,
    decision: 'bought',
  };
  test('needs no question, but a name and a key of its own', () => {
    expect(fairNote.safeParse(note).success).toBe(true);
    expect(fairNote.safeParse({ ...note, title: ' ' }).success).toBe(false);
    expect(fairNote.safeParse({ ...note, key: 'x' }).success).toBe(false);
  });
  test('pays nothing below zero', () => {
    expect(fairNote.safeParse({ ...note, paid: { amount: '-1.00', currency: 'EUR' } }).success).toBe(false);
    expect(fairNote.safeParse({ ...note, paid: { amount: '1.005', currency: 'EUR' } }).success).toBe(false);
  });
});

describe('a sale', () => {
  test('names a channel or none; the age of the buyer is confirmed', () => {
    const sale = { buyerName: 'Greta Sundholm', ageChecked: true };
    expect(saleBody.parse({ ...sale, channel: 'tollgate' }).channel).toBe('tollgate');
    expect(saleBody.safeParse(sale).success).toBe(true);
    expect(saleBody.safeParse({ ...sale, ageChecked: false }).success).toBe(false);
  });
});
