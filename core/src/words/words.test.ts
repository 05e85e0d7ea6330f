import { describe, expect, test } from '@jest/globals';
import { DEFECTS, findingInWords, PARTS, treatmentInWords, type Finding } from '../condition/index.ts';
import { edtfInWords } from '../dates/index.ts';
import { en } from './en.ts';
import { de } from './de.ts';
import { ENGLISH, wordsIn } from './index.ts';

const german = wordsIn('de');
const values = (message: string) => [...message.matchAll(/\{\{(\w+)\}\}/g)].map((m) => m[1]).sort();
function* messages(tree: object, path = ''): Generator<[string, string]> {
  for (const [key, value] of Object.entries(tree))
    if (typeof value === 'string') yield [path + key, value];
    else yield* messages(value as object, `${path}${key}.`);
}

describe('the catalogues', () => {
  test('a message takes the same values in every language', () => {
    const other = new Map(messages(de));
    for (const [key, message] of messages(en))
      expect([key, values(other.get(key) ?? '')]).toEqual([key, values(message)]);
  });
  test('nothing of what was put in is taken for a message or a value', () => {
    const odd = 'a {{day}} $t(claim.adults) <b>';
    expect(ENGLISH.say('listing.included', { items: odd })).toBe(`Included: ${odd}.`);
  });
});

describe('what is said in German', () => {
  const finding: Finding = {
    part: 'blade:2',
    defect: 'play-side',
    severity: 'light',
    measure: 0.4,
    note: 'am Erl',
  };
  test('a finding: its words, its number, its decimal sign, and the note as it was typed', () =>
    expect(findingInWords(finding, german)).toBe('Klinge 2: seitliches Spiel, leicht, 0,4 mm – am Erl'));
  test('a date', () => {
    expect(edtfInWords('1934-09/1936-02', german)).toBe('Sept. 1934 – Feb. 1936');
    expect(edtfInWords('1952~', german)).toBe('etwa 1952');
    expect(edtfInWords('2026-01-01', german)).toBe('1. Jan. 2026');
  });
  test('a treatment', () =>
    expect(
      treatmentInWords(
        {
          kind: 'polish',
          title: '',
          doneOn: '2026-11-02',
          product: 'Paste',
          grit: '3000',
          reversible: false,
        },
        german,
      ),
    ).toBe('Behandelt: poliert, 2. Nov. 2026 (Paste, Körnung 3000); nicht umkehrbar'));
  test('no part and no defect is left in English', () => {
    for (const part of PARTS) expect([part, german.name('part', part)]).not.toEqual([part, part]);
    for (const defect of DEFECTS) expect(german.say(`defect.${defect}`)).not.toBe('');
  });
  test('what a shop added to its own grades stays as the shop named it', () =>
    expect(german.name('grade', 'harbour-fine')).toBe('harbour-fine'));
  test('a sentence that was kept in English is told again, with what it names', () => {
    expect(german.retold('unproved', 'a commercial twin shares every observed feature')).toMatch(/Zwilling/);
    expect(
      german.retold(
        'unproved',
        ENGLISH.say('unproved.counterfeitTells', { name: 'Fish-scale copy', tells: 'soft edge; wrong font' }),
      ),
    ).toBe(
      'eine Fälschung ist bekannt (Fish-scale copy), und was sie verrät, wurde nicht gesucht: soft edge; wrong font',
    );
    expect(german.retold('unproved', 'something of its own')).toBe('something of its own');
  });
});
