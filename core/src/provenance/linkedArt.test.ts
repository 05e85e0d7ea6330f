import { describe, expect, test } from '@jest/globals';
import { linkedArt, type ToExport } from './linkedArt.ts';
import type { CustodyEvent } from './custody.ts';

const event = (more: Partial<CustodyEvent>): CustodyEvent => ({
  holder: 'Quay museum',
  private: false,
  place: 'Hollin Quay',
  period: '1960/1980',
  how: 'by gift',
  evidence: 'document',
  note: null,
  ...more,
});
const piece: ToExport = {
  base: 'urn:jutbank:HQ-0001',
  stockNumber: 'HQ-0001',
  title: 'Harbour jack',
  maker: 'Brackenholt Cutlery',
  made: '1934-09/1936-02',
  sizes: [{ label: 'Blade length', value: 95.6, unit: 'mm' }],
  statements: [{ kind: 'finding', text: 'Scales: crack' }],
  custody: [
    event({ holder: 'Elias Corrie', private: true, place: 'Norham Vale', period: '1936/1960' }),
    event({}),
  ],
  documents: [{ id: 'd1', title: 'Letter', kind: 'letter', fingerprint: 'ab' }],
};
const graph = (more: Partial<ToExport> = {}) =>
  linkedArt({ ...piece, ...more })['@graph'] as Record<string, unknown>[];

describe('Linked Art', () => {
  test('the object: names, number, making with its bounds, sizes, what is said of it', () => {
    const [object] = graph();
    expect(object).toMatchObject({
      type: 'HumanMadeObject',
      identified_by: [
        { type: 'Name', content: 'Harbour jack' },
        { type: 'Identifier', content: 'HQ-0001' },
      ],
      produced_by: {
        type: 'Production',
        timespan: { begin_of_the_begin: '1934-09-01T00:00:00Z', end_of_the_end: '1936-02-29T23:59:59Z' },
      },
      dimension: [{ value: 95.6, unit: { _label: 'millimetres' } }],
      referred_to_by: [{ content: 'Scales: crack' }],
    });
  });
  test('custody passes from one to the next; a private person is a town', () => {
    const [, first, second] = graph();
    expect(first).toMatchObject({ type: 'Activity', _label: 'Private collection, Norham Vale, 1936 – 1960' });
    expect(second).toMatchObject({
      part: [
        {
          type: 'TransferOfCustody',
          transferred_custody_from: [{ _label: 'Private collection, Norham Vale' }],
          transferred_custody_to: [{ _label: 'Quay museum' }],
        },
      ],
    });
    expect(JSON.stringify(linkedArt(piece))).not.toContain('Corrie');
  });
  test('open ends have no bound; nothing known makes no empty parts', () => {
    const [, first] = graph({ custody: [event({ period: '1970/..' })] });
    expect(first?.['timespan']).toEqual({
      type: 'TimeSpan',
      identified_by: [{ type: 'Name', content: expect.any(String) }],
      begin_of_the_begin: '1970-01-01T00:00:00Z',
    });
    const [bare] = graph({ made: undefined, maker: undefined, sizes: [], documents: [] });
    for (const part of ['produced_by', 'dimension', 'subject_of']) expect(bare).not.toHaveProperty(part);
  });
  test('every id that is pointed to within the graph is there once', () => {
    const ids = graph().map((node) => node['id']);
    expect(new Set(ids).size).toBe(ids.length);
    expect(ids).toContain('urn:jutbank:HQ-0001/document/d1');
  });
});
