/** Reference packs and what the reference answers. */
import { z } from 'zod';
import {
  CONSTRUCTIONS,
  EFFORTS,
  SOURCE_KINDS,
  SWAP_CLASSES,
  VARIANT_KINDS,
  type Code,
  type DatedWindow,
  type Feature,
  type Maker,
  type Mark,
  type PackSection,
  type Pattern,
  type ReferencePack,
  type Source,
  type Variant,
} from '@jutbank/core/reference';
import { answers, route, slug, type Page } from '../http/index.ts';

const words = z.string().max(2000);
const reading = z.union([z.string().max(200), z.number()]);
const source = z.looseObject({
  id: slug,
  title: words.min(1),
  kind: z.enum(SOURCE_KINDS),
  published: z.string().max(120).nullish(),
  reliability: z.number().min(0).max(1).nullish(),
  note: words.nullish(),
});
const maker = z.looseObject({
  id: slug,
  name: words.min(1),
  place: words.nullish(),
  active: z.string().max(120).nullish(),
  aliases: z.array(words).nullish(),
});
const feature = z.looseObject({
  id: slug,
  label: words.min(1),
  part: z.string().min(1).max(80),
  kind: z.enum(['category', 'count', 'measure', 'text']),
  values: z.array(z.looseObject({ id: slug, label: words })).nullish(),
  unit: z.enum(['mm', 'g', 'deg']).nullish(),
  wear: z.enum(['none', 'shrinks', 'grows']).nullish(),
  swap: z.enum(SWAP_CLASSES).nullish(),
  effort: z.enum(EFFORTS).nullish(),
  constructions: z.array(z.enum(CONSTRUCTIONS)).nullish(),
  ask: words.nullish(),
});
const citation = { source: slug.nullish(), page: z.string().max(80).nullish() };
const datedWindow = z.looseObject({
  id: slug,
  maker: slug.nullish(),
  pattern: slug.nullish(),
  feature: slug,
  value: reading,
  window: z.string().max(120),
  ...citation,
  carryOver: z.string().max(40).nullish(),
  note: words.nullish(),
});
const mark = z.looseObject({
  id: slug,
  maker: slug.nullish(),
  place: z.string().max(80).nullish(),
  lines: z.array(z.string().max(200)).min(1),
  lettering: z.string().max(80).nullish(),
  window: z.string().max(120).nullish(),
  carryOver: z.string().max(40).nullish(),
  ...citation,
  codes: z.array(slug).nullish(),
});
const readSchema = z.looseObject({
  id: slug,
  label: words,
  type: z.enum(['count', 'choice']),
  min: z.number().int().nullish(),
  max: z.number().int().nullish(),
  values: z.array(z.string().max(80)).nullish(),
});
const year = z.union([
  z.strictObject({ base: z.number().int(), plus: z.string() }),
  z.strictObject({ base: z.number().int(), minus: z.string() }),
  z.strictObject({ letters: z.string().min(1), base: z.number().int(), read: z.string() }),
  z.strictObject({ digits: z.string(), century: z.number().int() }),
  z.strictObject({
    ranges: z.array(
      z.looseObject({ from: z.number().int(), to: z.number().int(), window: z.string().max(120) }),
    ),
    read: z.string(),
  }),
  z.strictObject({ table: z.record(z.string(), z.string().max(120)), read: z.string() }),
]);
const codeCommon = { id: slug, maker: slug.nullish(), title: words.nullish(), ...citation };
const code = z.discriminatedUnion('kind', [
  z.looseObject({
    ...codeCommon,
    kind: z.literal('date'),
    reads: z.array(readSchema).min(1),
    rules: z.array(
      z.looseObject({ when: z.record(z.string(), z.union([z.string(), z.number()])).nullish(), year }),
    ),
  }),
  z.looseObject({
    ...codeCommon,
    kind: z.literal('pattern-number'),
    segments: z
      .array(
        z.looseObject({
          id: z.string().min(1).max(80),
          table: z.record(z.string(), z.looseObject({ feature: slug, value: reading })).nullish(),
          digits: z.union([z.number().int().positive(), z.string().max(10)]).nullish(),
          feature: slug.nullish(),
          pattern: z.boolean().nullish(),
          repeat: z.boolean().nullish(),
          optional: z.boolean().nullish(),
        }),
      )
      .min(1),
  }),
  z.looseObject({
    ...codeCommon,
    kind: z.literal('serial'),
    pattern: slug.nullish(),
    format: z.string().min(1).max(200),
    number: z.number().int().min(0),
    runFromVariant: z.boolean().nullish(),
  }),
]);
const nominal = z.looseObject({ value: z.number().positive(), tolerance: z.number().min(0).nullish() });
const pattern = z.looseObject({
  id: slug,
  maker: slug,
  name: words.min(1),
  number: z.string().max(40).nullish(),
  construction: z.enum(CONSTRUCTIONS),
  measures: z.record(z.string(), nominal).nullish(),
});
const variant = z.looseObject({
  id: slug,
  pattern: slug,
  name: words.min(1),
  kind: z.enum(VARIANT_KINDS),
  window: z.string().max(120).nullish(),
  issuedTo: words.nullish(),
  twinOf: slug.nullish(),
  made: z
    .looseObject({
      quantity: z.number().min(0).nullish(),
      basis: z.enum(['documented', 'estimated', 'unknown']),
      byYear: z.record(z.string().regex(/^-?\d{1,4}$/, 'a year'), z.number().min(0)).nullish(),
    })
    .nullish(),
  features: z.record(z.string(), z.array(reading)).nullish(),
  measures: z.record(z.string(), nominal).nullish(),
  marks: z.array(slug).nullish(),
  edition: z
    .looseObject({
      run: z.number().int().min(1).nullish(),
      firstNumber: z.number().int().min(0).nullish(),
      retailer: words.nullish(),
      index: z.number().int().nullish(),
    })
    .nullish(),
  tells: z.array(words).nullish(),
  claims: z
    .array(z.looseObject({ about: z.string().max(80), source: slug, page: z.string().max(80).nullish() }))
    .nullish(),
});

export const referencePack = z.looseObject({
  format: z.literal('jutbank.reference/1'),
  id: slug,
  title: words.min(1),
  revision: z.string().min(1).max(80),
  sources: z.array(source).optional(),
  makers: z.array(maker).optional(),
  features: z.array(feature).optional(),
  windows: z.array(datedWindow).optional(),
  marks: z.array(mark).optional(),
  codes: z.array(code).optional(),
  patterns: z.array(pattern).optional(),
  variants: z.array(variant).optional(),
}) as unknown as z.ZodType<ReferencePack>;

export type Counts = Record<PackSection, number>;
export interface ImportAnswer {
  packId: string;
  created: Counts;
  updated: Counts;
  unchanged: Counts;
  warnings: string[];
}
export interface PackSummary {
  id: string;
  title: string;
  revision: string;
  importedAt: string;
  counts: Counts;
}
export interface Vocabulary {
  revision: string;
  makers: (Maker & { patterns: number; variants: number })[];
  patterns: (Pattern & { variants: number })[];
  features: Feature[];
  marks: Mark[];
  codes: Code[];
  sources: Source[];
}
export interface PatternDetail {
  pattern: Pattern;
  maker: Maker;
  variants: Variant[];
  windows: DatedWindow[];
  marks: Mark[];
}
export interface VariantDetail {
  variant: Variant;
  pattern: Pattern;
  maker: Maker;
  marks: Mark[];
  windows: DatedWindow[];
  sources: Source[];
}

const MIB = 1 << 20;
const bySlug = z.object({ id: slug });
export const referenceRoutes = {
  importPack: route({
    method: 'post',
    path: '/reference-packs',
    room: 'reference',
    access: 'appraise',
    summary: 'Import a reference pack: all or nothing',
    body: referencePack,
    answer: answers<ImportAnswer>('What was created, updated and left unchanged'),
    bodyLimit: 64 * MIB,
  }),
  listPacks: route({
    method: 'get',
    path: '/reference-packs',
    room: 'reference',
    access: 'read',
    summary: 'The packs this shop works with',
    answer: answers<Page<PackSummary>>('A page of packs'),
  }),
  exportPack: route({
    method: 'get',
    path: '/reference-packs/:id',
    room: 'reference',
    access: 'read',
    summary: 'A pack as one document',
    params: bySlug,
    answer: answers<ReferencePack>('The pack'),
  }),
  vocabulary: route({
    method: 'get',
    path: '/reference/vocabulary',
    room: 'reference',
    access: 'read',
    summary: 'Makers, patterns, features, marks, codes and sources',
    answer: answers<Vocabulary>('The vocabulary of the bench'),
  }),
  pattern: route({
    method: 'get',
    path: '/reference/patterns/:id',
    room: 'reference',
    access: 'read',
    summary: 'A pattern with its variants and windows',
    params: bySlug,
    answer: answers<PatternDetail>('The pattern'),
  }),
  variant: route({
    method: 'get',
    path: '/reference/variants/:id',
    room: 'reference',
    access: 'read',
    summary: 'A variant with its marks, windows and sources',
    params: bySlug,
    answer: answers<VariantDetail>('The variant'),
  }),
};
