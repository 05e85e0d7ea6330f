import { describe, expect, test } from '@jest/globals';
import { TIERS } from '../bench/index.ts';
import type { Statement, StatementKind } from '../pieces/index.ts';
import { ENGLISH } from '../words/index.ts';
import { cautionsFor } from './cautions.ts';
import { checkWording, claimFor, PLAIN_STYLE, writeListing, type ListingFacts } from './write.ts';

const TOLD: readonly StatementKind[] = ['mark', 'feature', 'measure', 'refuted'];
const say = (kind: StatementKind, text: string): Statement => ({
  kind,
  text,
  basis: 'seen',
  strength: 'sure',
  source: null,
  disclose: !TOLD.includes(kind),
});
const facts: ListingFacts = {
  words: ENGLISH,
  tier: 'type-consistent',
  makerName: 'Brackenholt Cutlery',
  patternName: 'Harbour jack',
  variantName: 'Service issue, second form',
  issuedTo: 'the Coastal Service',
  construction: 'slipjoint',
  made: 'Sep 1934 – 1935',
  extent: 'whole',
  sealed: false,
  overruled: false,
  gradeLine: 'Condition: excellent.',
  statements: [
    say('measure', 'Closed length: 104.8 mm · 4 1/8 in'),
    say('finding', 'Blade 1: sharpened, light'),
    say('completeness', 'No box'),
    say('not-excluded', 'a commercial twin shares every observed feature'),
  ],
  refuted: [],
  included: [],
  provenance: undefined,
  isReplica: false,
  isLicensed: false,
};

describe('a listing', () => {
  test.each(TIERS)('as the rules write it, %s, nothing is dropped and nothing too strong', (tier) => {
    expect(checkWording({ ...facts, tier }, writeListing({ ...facts, tier }))).toEqual([]);
  });
  test('the verb follows the tier', () => {
    expect(writeListing(facts).body).toContain('of the type issued to the Coastal Service');
    expect(writeListing(facts).body).toContain('cannot be proved for this piece');
    expect(writeListing({ ...facts, tier: 'doubtful' }).body).toContain('not guaranteed');
    expect(writeListing({ ...facts, tier: 'confirmed' }).body).toContain(
      'This is Brackenholt Cutlery Harbour jack, Service issue, second form.',
    );
  });
  test('a dropped disclosure is flagged', () => {
    const text = writeListing(facts);
    const problems = checkWording(facts, {
      ...text,
      body: text.body.replace('– Blade 1: sharpened, light\n', ''),
    });
    expect(problems).toEqual([{ kind: 'disclosure-dropped', detail: expect.stringContaining('sharpened') }]);
  });
  test('a strengthened claim is flagged', () => {
    const text = writeListing(facts);
    expect(
      checkWording(facts, { ...text, body: `${text.body} Certainly the navy’s own.` }).map((p) => p.kind),
    ).toEqual(['claim-too-strong']);
    expect(
      checkWording(facts, {
        ...text,
        body: text.body.replace('this cannot be proved for this piece', 'issued'),
      }).map((p) => p.kind),
    ).toContain('claim-too-strong');
  });
  test('a replica stays one', () => {
    const replica = { ...facts, isReplica: true, tier: 'rejected' as const };
    expect(writeListing(replica).title).toContain('Replica');
    expect(
      checkWording(replica, { title: 'Harbour jack', body: writeListing(facts).body }).map((p) => p.detail),
    ).toContain('A replica must be called a replica.');
  });
  test('a replica is offered as one, whatever is known of it; a counterfeit’s story is no claim', () => {
    const replica = { ...facts, isReplica: true };
    for (const tier of ['confirmed', 'probable', 'rejected'] as const)
      expect(claimFor({ ...replica, tier })).toBe(
        'A replica, sold as a replica: Brackenholt Cutlery Harbour jack, Service issue, second form.',
      );
    expect(claimFor({ ...facts, makerName: undefined, patternName: undefined })).toMatch(/not been settled/);
  });
  test('what was decided against the evidence says so, and lets no strong word stand', () => {
    const overruled = { ...facts, tier: 'confirmed' as const, overruled: true };
    expect(claimFor(overruled)).toMatch(/^Attributed by the appraiser as .*; the marks speak against it\.$/);
    expect(writeListing(overruled).title).not.toContain('Service issue');
    const text = writeListing(overruled);
    expect(
      checkWording(overruled, { ...text, body: `${text.body} Certainly genuine.` }).map((p) => p.kind),
    ).toEqual(['claim-too-strong']);
  });
  test('the shop’s order comes first, what it does not name after it, and words it has none of make no line', () => {
    const style = {
      ...PLAIN_STYLE,
      order: ['cautions'] as const,
      reason: 'To make room.',
      postageAbroad: '€12',
    };
    const paragraphs = writeListing(facts, style).body.split('\n\n');
    expect(paragraphs[0]).toMatch(/^Sold to adults only/);
    expect(paragraphs).toContain('To make room.');
    expect(paragraphs).toContain('Postage abroad: €12');
    expect(paragraphs.join('\n')).not.toMatch(/Postage at home|Open to offers|price is fixed/);
    expect(writeListing(facts, { ...style, offers: 'fixed' }).body).toContain('The price is fixed.');
    expect(writeListing(facts).body).not.toContain('Postage');
  });
  test('cautions name the topic and defer to local law', () => {
    expect(cautionsFor({ construction: 'bayonet' }).join(' ')).toMatch(/local law.*regulated/);
  });
  test('what was done to it afterwards is said, and cannot be dropped', () => {
    const reworked = {
      ...facts,
      statements: [
        say('history', 'Re-worked 1946–1951'),
        say('history', 'Numbers on blade and scabbard differ'),
      ],
    };
    const text = writeListing(reworked);
    expect(text.body).toContain('History: Re-worked 1946–1951. Numbers on blade and scabbard differ.');
    const dropped = { ...text, body: text.body.replace('Numbers on blade and scabbard differ', '') };
    expect(checkWording(reworked, dropped).map((p) => p.detail)).toEqual([
      'The text no longer says: Numbers on blade and scabbard differ',
    ]);
  });
  test('a refuted story is not told again, unless to say that it is wrong', () => {
    const told = 'The maker went over to pressed fibre because horn had become too dear.';
    const withStory = { ...facts, refuted: [{ told, because: 'The horn store burnt.' }] };
    const text = writeListing(withStory);
    const say = (sentence: string) =>
      checkWording(withStory, { ...text, body: `${text.body}\n\n${sentence}` });
    expect(say('The works went over to fibre, pressed, as horn became far too dear in those years.')).toEqual(
      [{ kind: 'refuted-story', detail: `This story is refuted: “${told}” The horn store burnt.` }],
    );
    expect(say('That pressed fibre came because horn became too dear is wrong.')).toEqual([]);
    expect(say('Scales of pressed fibre.')).toEqual([]);
  });
  test('that nothing was found is said only of a piece that was inspected', () => {
    const clean = { ...facts, statements: [] };
    expect(writeListing(clean).body).toContain('No fault was found on inspection.');
    expect(writeListing({ ...clean, extent: 'none' as const }).body).not.toContain('No fault');
    expect(writeListing({ ...clean, extent: 'partly' as const }).body).not.toContain('No fault');
  });
});

describe('what the text says where there is little, and what it may never lose', () => {
  const body = (more: Partial<ListingFacts>) => writeListing({ ...facts, ...more }).body;
  test('a caution that an edit took out is named, for every construction that has one', () => {
    for (const construction of ['bayonet', 'automatic', 'balisong', 'fixed'] as const) {
      const own = { ...facts, construction };
      for (const caution of cautionsFor({ construction: construction })) {
        const text = writeListing(own);
        expect(checkWording(own, { ...text, body: text.body.replace(caution, '') })).toEqual([
          { kind: 'disclosure-dropped', detail: `The text no longer carries the caution: ${caution}` },
        ]);
      }
    }
  });
  test.each([
    ['confirmed', true],
    ['probable', true],
    ['type-consistent', false],
    ['doubtful', false],
    ['not-enough-seen', false],
  ] as const)('a licensed copy, %s: called one only where it is sure enough', (tier, told) => {
    expect(body({ tier, isLicensed: true }).startsWith('A licensed copy, sold as one:')).toBe(told);
    expect(body({ tier })).not.toContain('licensed copy');
  });
  test('no fault was found is said of a whole look without one, and of nothing less', () => {
    const said = 'No fault was found on inspection.';
    expect(body({ statements: [] })).toContain(said);
    expect(body({})).not.toContain(said);
    expect(body({ statements: [], extent: 'partly' })).not.toContain(said);
    expect(body({ statements: [], extent: 'none' })).toContain('It has not been inspected yet.');
    expect(body({ statements: [], extent: 'none', sealed: true })).not.toContain('inspected');
  });
  test('what there is none of makes no sentence', () => {
    const bare = body({ statements: [], included: [] });
    for (const word of ['Please note', 'History', 'Included', 'Not proved', 'Closed length', 'Marks'])
      expect(bare).not.toContain(word);
    expect(bare).not.toMatch(/^\.|\n\.|undefined|: \./m);
    expect(
      body({
        statements: [say('feature', 'Shield: oval'), say('history', 'Rehandled')],
        included: ['sheath'],
      }),
    ).toMatch(/Shield: oval\.[\s\S]*History: Rehandled\.[\s\S]*Included: sheath\./);
  });
  test('a story that is told again in other endings is found; one that is denied may be named', () => {
    const own = {
      ...facts,
      refuted: [{ told: 'Issued to divers of the harbour patrol', because: 'no order is known' }],
    };
    const text = writeListing(own);
    const kinds = (more: string) =>
      checkWording(own, { ...text, body: `${text.body} ${more}` }).map((p) => p.kind);
    expect(kinds('The diver issue of the harbour patrols.')).toContain('refuted-story');
    expect(kinds('It was never issued to divers of the harbour patrol.')).toEqual([]);
    expect(kinds('A harbour scene is etched on it.')).toEqual([]);
  });
});
