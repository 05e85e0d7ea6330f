import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { EVIDENCE_KINDS, linkedArt, type CustodyEvent, type ToExport } from '@jutbank/core/provenance';
import { linkedArtFile } from './linkedArtShape.ts';

const event: fc.Arbitrary<CustodyEvent> = fc.record({
  holder: fc.string({ minLength: 1 }),
  private: fc.boolean(),
  place: fc.option(fc.string()),
  period: fc.constantFrom('1934', '1934-09/1936', '1970/..', '../1950', '196X', '1930~'),
  how: fc.option(fc.string()),
  evidence: fc.constantFrom(...EVIDENCE_KINDS),
  note: fc.option(fc.string()),
});
const piece: fc.Arbitrary<ToExport> = fc.record({
  base: fc.constant('urn:jutbank:x'),
  stockNumber: fc.string(),
  title: fc.string(),
  maker: fc.option(fc.string(), { nil: undefined }),
  made: fc.option(fc.constantFrom('1934', '1934-09/1936-02', '1940/..'), { nil: undefined }),
  sizes: fc.array(
    fc.record({
      label: fc.string(),
      value: fc.double({ noNaN: true, noDefaultInfinity: true }),
      unit: fc.constantFrom('mm', 'g', 'degree'),
    }),
  ),
  statements: fc.array(fc.record({ kind: fc.string(), text: fc.string() })),
  custody: fc.array(event, { maxLength: 5 }),
  documents: fc.array(
    fc.record({
      id: fc.string(),
      title: fc.string(),
      kind: fc.string(),
      fingerprint: fc.option(fc.string()),
    }),
    { maxLength: 3 },
  ),
});

test('whatever is recorded leaves in the shape that docs/schemas/linked-art.json describes', () =>
  fc.assert(
    fc.property(piece, (of) => {
      const read = linkedArtFile.safeParse(linkedArt(of));
      expect(read.success ? [] : read.error.issues).toEqual([]);
    }),
  ));
