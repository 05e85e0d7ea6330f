/** What a clerk in a hurry, or a stranger, sends when pieces are taken in, and where it is told to be wrong. */
import { describe, expect, test } from '@jest/globals';
import type { z } from 'zod';
import { emptyIntake, intakeBody } from '../pieces/index.ts';
import { lotPiecesBody, lotRoutes, MOST_AT_ONCE } from './index.ts';

const wrongIn = (schema: z.ZodType, value: unknown): string[] =>
  schema.safeParse(value).error?.issues.map((issue) => `/${issue.path.join('/')}`) ?? [];

describe('a piece that is taken in', () => {
  const piece = { ...emptyIntake, title: 'Harbour jack' };
  test('wants a name and nothing else', () => {
    expect(wrongIn(intakeBody, piece)).toEqual([]);
    expect(wrongIn(intakeBody, emptyIntake)).toEqual(['/title']);
    expect(wrongIn(intakeBody, { ...piece, title: '   ' })).toEqual(['/title']);
  });
  test.each([
    ['a name longer than a label', { title: 'k'.repeat(161) }, '/title'],
    ['a construction nobody makes', { construction: 'sword' }, '/construction'],
    ['a date as it is spoken', { acquired: 'last spring' }, '/acquired'],
    ['a date that ends before it begins', { acquired: '1940/1930' }, '/acquired'],
    ['a price below nothing', { price: { amount: '-5.00', currency: 'EUR' } }, '/price/amount'],
    ['a price as a number', { price: { amount: 5, currency: 'EUR' } }, '/price/amount'],
    ['a currency nobody has', { price: { amount: '5.00', currency: 'eur' } }, '/price/currency'],
    ['a state nobody wrote down', { asFound: 'shiny' }, '/asFound'],
    ['a counterfeit as a thing one buys as one', { takenInAs: 'counterfeit' }, '/takenInAs'],
  ])('%s is told at its field', (_, wrong, pointer) => {
    expect(wrongIn(intakeBody, { ...piece, ...wrong })).toEqual([pointer]);
  });
  test('is the original as far as anybody said, where nothing was said', () => {
    const { takenInAs: _, ...older } = piece;
    expect(intakeBody.parse(older).takenInAs).toBeNull();
  });
  test('keeps what the seller said as it was typed, but for the blanks around it', () => {
    expect(intakeBody.parse({ ...piece, sellerStatement: '  <b>from 1933</b> ' }).sellerStatement).toBe(
      '<b>from 1933</b>',
    );
  });
});

describe('pieces of a lot', () => {
  const piece = { title: 'Pruner', construction: 'slipjoint' };
  test('come at least one and at most a hundred at once', () => {
    const many = (n: number) => ({ pieces: Array.from({ length: n }, () => piece) });
    expect(wrongIn(lotPiecesBody, many(0))).toEqual(['/pieces']);
    expect(wrongIn(lotPiecesBody, many(MOST_AT_ONCE))).toEqual([]);
    expect(wrongIn(lotPiecesBody, many(MOST_AT_ONCE + 1))).toEqual(['/pieces']);
  });
  test('the one that is wrong is named, and no other', () => {
    expect(
      wrongIn(lotPiecesBody, { pieces: [piece, { ...piece, title: '' }, { ...piece, value: '-1' }] }),
    ).toEqual(['/pieces/1/title', '/pieces/2/value']);
  });
  test('a share may be below zero, a worth may not', () => {
    const share = (value: string | null, of: string | null) => ({
      pieces: [{ id: '01ARZ3NDEKTSV4RRFFQ69G5FAV', value, share: of, keep: false }],
    });
    expect(wrongIn(lotRoutes.putShares.body, share('12.50', '-3.00'))).toEqual([]);
    expect(wrongIn(lotRoutes.putShares.body, share('-12.50', null))).toEqual(['/pieces/0/value']);
  });
});

describe('a lot', () => {
  const lot = { name: 'Workbox', currency: 'EUR' };
  test('wants a name and the currency it is kept in', () => {
    expect(lotRoutes.create.body.parse(lot)).toEqual({
      ...lot,
      sourceKind: null,
      sourceName: '',
      acquired: null,
      method: 'relative-value',
      costs: [],
      note: '',
    });
    expect(wrongIn(lotRoutes.create.body, { ...lot, name: '' })).toEqual(['/name']);
  });
  test('a credit is a cost below zero; one that says nothing of what it was for is not', () => {
    const costs = (label: string, amount: string) => ({ ...lot, costs: [{ label, amount }] });
    expect(wrongIn(lotRoutes.create.body, costs('Credit of the house', '-12.00'))).toEqual([]);
    expect(wrongIn(lotRoutes.create.body, costs('', '12.00'))).toEqual(['/costs/0/label']);
    expect(wrongIn(lotRoutes.create.body, costs('Travel', '12,00'))).toEqual(['/costs/0/amount']);
  });
});
