/** Reference packs and what the reference answers. */
import { pageShape, answers, byId, required, route, slug } from '../http/index.ts';
import { featureReadingShape, scarcityShape } from './shapes.ts';
import { z } from 'zod';
import {
  AVAILABILITIES,
  type CodeRead,
  CONSTRUCTIONS,
  EFFORTS,
  PACK_SECTIONS,
  RUN_SPLITS,
  SOURCE_KINDS,
  STAMPED_AFTERWARDS,
  STORY_VERDICTS,
  SWAP_CLASSES,
  VARIANT_KINDS,
  type Code,
  type DatedWindow,
  type Edition,
  type Feature,
  type Maker,
  type Mark,
  type PackContents,
  type PackSection,
  type Pattern,
  type PatternDrawing,
  type ReferencePack,
  type Source,
  type Story,
  type StoryVerdict,
  type Variant,
} from '@jutbank/core/reference';

const words = z.string().max(2000);
const reading = z.union([z.string().max(200), z.number()]);
const varieties = z.record(z.string(), z.array(reading));
/** Slots of the drawing and their styles; those this version does not know are kept and not drawn. */
const styles = z.record(z.string().max(40), z.string().max(40).nullable());
export const sourceShape: z.ZodType<Source> = z.looseObject({
  id: slug,
  title: words.min(1),
  kind: z.enum(SOURCE_KINDS),
  published: z.string().max(120).nullish(),
  reliability: z.number().min(0).max(1).nullish(),
  note: words.nullish(),
});
export const makerShape: z.ZodType<Maker> = z.looseObject({
  id: slug,
  name: words.min(1),
  place: words.nullish(),
  active: z.string().max(120).nullish(),
  aliases: z.array(words).nullish(),
  features: varieties.nullish(),
});
export const featureShape: z.ZodType<Feature> = z.looseObject({
  id: slug,
  label: words.min(1),
  part: z.string().min(1).max(80),
  kind: z.enum(['category', 'count', 'measure', 'text']),
  values: z
    .array(z.looseObject({ id: slug, label: words, vapour: z.boolean().nullish(), draws: styles.nullish() }))
    .nullish(),
  unit: z.enum(['mm', 'g', 'deg']).nullish(),
  wear: z.enum(['none', 'shrinks', 'grows']).nullish(),
  swap: z.enum(SWAP_CLASSES).nullish(),
  effort: z.enum(EFFORTS).nullish(),
  constructions: z.array(z.enum(CONSTRUCTIONS)).nullish(),
  ask: words.nullish(),
});
const citation = { source: slug.nullish(), page: z.string().max(80).nullish() };
export const datedWindowShape: z.ZodType<DatedWindow> = z.looseObject({
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
export const markShape: z.ZodType<Mark> = z.looseObject({
  id: slug,
  maker: slug.nullish(),
  place: z.string().max(80).nullish(),
  lines: z.array(z.string().max(200)).min(1),
  lettering: z.string().max(80).nullish(),
  window: z.string().max(120).nullish(),
  carryOver: z.string().max(40).nullish(),
  ...citation,
  codes: z.array(slug).nullish(),
  history: z.looseObject({ what: z.enum(STAMPED_AFTERWARDS), changes: z.array(slug).nullish() }).nullish(),
});
export const codeReadShape: z.ZodType<CodeRead> = z.looseObject({
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
const month = z.union([
  z.strictObject({ letters: z.string().min(1).max(12), read: z.string() }),
  z.strictObject({ read: z.string() }),
]);
const implied = z.union([
  z.looseObject({ feature: slug, values: z.array(reading).min(1) }),
  z.looseObject({ feature: slug, value: reading }),
]);
const codeCommon = { id: slug, maker: slug.nullish(), title: words.nullish(), ...citation };
export const codeShape: z.ZodType<Code> = z.discriminatedUnion('kind', [
  z.looseObject({
    ...codeCommon,
    kind: z.literal('date'),
    reads: z.array(codeReadShape).min(1),
    rules: z.array(
      z.looseObject({
        when: z.record(z.string(), z.union([z.string(), z.number()])).nullish(),
        year,
        month: month.nullish(),
      }),
    ),
  }),
  z.looseObject({
    ...codeCommon,
    kind: z.literal('pattern-number'),
    segments: z
      .array(
        z.looseObject({
          id: z.string().min(1).max(80),
          table: z.record(z.string(), implied).nullish(),
          literal: z.string().min(1).max(40).nullish(),
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
    runGroup: z.number().int().min(1).nullish(),
    runFromVariant: z.boolean().nullish(),
  }),
]);
const nominal = z.looseObject({ value: z.number().positive(), tolerance: z.number().min(0).nullish() });
const byYear = z.record(z.string().regex(/^-?\d{1,4}$/, 'a year'), z.number().min(0));
const lengthOf = z.looseObject({ of: z.string().max(80), share: z.number().positive().max(4).nullish() });
const millimetres = z.number().positive().max(2000);
const outline = z.array(z.tuple([z.number(), z.number()])).max(2000);
const patternDrawing: z.ZodType<PatternDrawing> = z.looseObject({
  handle: z
    .looseObject({
      profile: z.string().max(40).nullish(),
      height: millimetres.nullish(),
      length: lengthOf.nullish(),
      outline: outline.nullish(),
    })
    .nullish(),
  blades: z
    .array(
      z.looseObject({
        role: z.string().min(1).max(40),
        end: z.string().max(20).nullish(),
        shape: z.string().max(40).nullish(),
        length: z.union([millimetres, lengthOf]).nullish(),
        height: millimetres.nullish(),
        layer: z.number().int().min(0).max(20).nullish(),
      }),
    )
    .max(20)
    .nullish(),
  styles: styles.nullish(),
});
export const patternShape: z.ZodType<Pattern> = z.looseObject({
  id: slug,
  maker: slug,
  name: words.min(1),
  number: z.string().max(40).nullish(),
  construction: z.enum(CONSTRUCTIONS),
  measures: z.record(z.string(), nominal).nullish(),
  features: varieties.nullish(),
  madeByYear: byYear.nullish(),
  outline: outline.nullish(),
  drawing: patternDrawing.nullish(),
});
export const editionShape: z.ZodType<Edition> = z.looseObject({
  run: z.number().int().min(1).nullish(),
  firstNumber: z.number().int().min(0).nullish(),
  retailer: words.nullish(),
  index: z.number().int().nullish(),
  split: z
    .array(
      z.looseObject({
        by: z.enum(RUN_SPLITS),
        of: words.min(1),
        run: z.number().int().min(1),
        firstNumber: z.number().int().min(0).nullish(),
      }),
    )
    .max(40)
    .nullish(),
});
export const variantShape: z.ZodType<Variant> = z.looseObject({
  id: slug,
  pattern: slug,
  name: words.min(1),
  kind: z.enum(VARIANT_KINDS),
  window: z.string().max(120).nullish(),
  issuedTo: words.nullish(),
  twinOf: slug.nullish(),
  convertedFrom: z.array(slug).max(20).nullish(),
  made: z
    .looseObject({
      quantity: z.number().min(0).nullish(),
      basis: z.enum(['documented', 'estimated', 'unknown']),
      byYear: byYear.nullish(),
    })
    .nullish(),
  features: varieties.nullish(),
  measures: z.record(z.string(), nominal).nullish(),
  marks: z.array(slug).nullish(),
  edition: editionShape.nullish(),
  tells: z.array(words).nullish(),
  claims: z
    .array(z.looseObject({ about: z.string().max(80), source: slug, page: z.string().max(80).nullish() }))
    .nullish(),
});

export const storyShape: z.ZodType<Story> = z.looseObject({
  id: slug,
  told: words.min(1),
  verdict: z.enum(STORY_VERDICTS),
  maker: slug.nullish(),
  pattern: slug.nullish(),
  variant: slug.nullish(),
  because: words.nullish(),
  ...citation,
});

const ITEMS = {
  sources: sourceShape,
  makers: makerShape,
  features: featureShape,
  patterns: patternShape,
  codes: codeShape,
  marks: markShape,
  windows: datedWindowShape,
  variants: variantShape,
  stories: storyShape,
} satisfies Record<PackSection, z.ZodType>;
export const itemSchema = (section: PackSection): z.ZodType => ITEMS[section];
export type Item = PackContents[PackSection][number];
export const itemShape: z.ZodType<Item> = z.union(Object.values(ITEMS));

export const referencePack: z.ZodType<ReferencePack> = z.looseObject({
  format: z.literal('jutbank.reference/1'),
  id: slug,
  title: words.min(1),
  revision: z.string().min(1).max(80),
  sources: z.array(sourceShape).exactOptional(),
  makers: z.array(makerShape).exactOptional(),
  features: z.array(featureShape).exactOptional(),
  windows: z.array(datedWindowShape).exactOptional(),
  marks: z.array(markShape).exactOptional(),
  codes: z.array(codeShape).exactOptional(),
  patterns: z.array(patternShape).exactOptional(),
  variants: z.array(variantShape).exactOptional(),
  stories: z.array(storyShape).exactOptional(),
});

export const counts = z.record(z.enum(PACK_SECTIONS), z.number());
export type Counts = z.infer<typeof counts>;
export const importAnswer = z
  .object({
    packId: z.string(),
    created: counts,
    updated: counts,
    unchanged: counts,
    warnings: z.array(z.string()),
  })
  .meta({ id: 'ImportAnswer' });
export type ImportAnswer = z.infer<typeof importAnswer>;
export const packSummary = z
  .object({
    id: z.string(),
    title: z.string(),
    revision: z.string(),
    importedAt: z.string(),
    counts: counts,
  })
  .meta({ id: 'PackSummary' });
export type PackSummary = z.infer<typeof packSummary>;
export const vocabulary = z
  .object({
    revision: z.string(),
    makers: z.array(
      z.intersection(
        makerShape,
        z.object({
          patterns: z.number(),
          variants: z.number(),
        }),
      ),
    ),
    patterns: z.array(
      z.intersection(
        patternShape,
        z.object({
          variants: z.number(),
          /** the variant of which most were made: what the pattern is drawn as; null where it has none */
          form: z.string().nullable(),
        }),
      ),
    ),
    features: z.array(featureShape),
    marks: z.array(markShape),
    codes: z.array(codeShape),
    sources: z.array(sourceShape),
  })
  .meta({ id: 'Vocabulary' });
export type Vocabulary = z.infer<typeof vocabulary>;
/** What a variant's drawing is made from. */
export type DrawnForm = Pick<Variant, 'id' | 'pattern' | 'name' | 'features' | 'measures' | 'marks'>;
const drawnForm: z.ZodType<DrawnForm> = z.object({
  id: z.string(),
  pattern: z.string(),
  name: z.string(),
  features: varieties.nullish(),
  measures: z.record(z.string(), nominal).nullish(),
  marks: z.array(z.string()).nullish(),
});
/** One thing of the reference as it is written, for whoever writes it. */
export const itemRecord = z
  .object({
    section: z.enum(PACK_SECTIONS),
    item: itemShape,
    version: z.number(),
    packs: z.array(
      z.object({
        id: z.string(),
        title: z.string(),
      }),
    ),
    warnings: z.array(z.string()),
  })
  .meta({ id: 'ItemRecord' });
export type ItemRecord = z.infer<typeof itemRecord>;
/** A dated statement of the pack that disagrees with one the shop has. */
export const contradiction = z
  .object({
    window: z.string(),
    feature: z.string(),
    value: featureReadingShape,
    says: z.string(),
    shopSays: z.string(),
    shopSource: z.string().nullable(),
  })
  .meta({ id: 'Contradiction' });
/** What an import would do, told before it is done. */
export const packReview = z
  .object({
    counts: z.object({
      created: counts,
      updated: counts,
      unchanged: counts,
    }),
    created: z.array(
      z.object({
        section: z.enum(PACK_SECTIONS),
        id: z.string(),
        name: z.string(),
      }),
    ),
    changed: z.array(
      z.object({
        section: z.enum(PACK_SECTIONS),
        id: z.string(),
        name: z.string(),
        fields: z.array(
          z.object({
            field: z.string(),
            before: z.unknown(),
            after: z.unknown(),
          }),
        ),
      }),
    ),
    contradicts: z.array(contradiction),
    warnings: z.array(z.string()),
  })
  .meta({ id: 'PackReview' });
export type PackReview = z.infer<typeof packReview>;
export type Contradiction = z.infer<typeof contradiction>;
export const makerDetail = z
  .object({
    maker: makerShape,
    patterns: z.array(patternShape),
    marks: z.array(markShape),
    codes: z.array(codeShape),
    windows: z.array(datedWindowShape),
    stories: z.array(storyShape),
  })
  .meta({ id: 'MakerDetail' });
export type MakerDetail = z.infer<typeof makerDetail>;
export interface Question {
  kind: 'story' | 'piece';
  id: string;
  text: string;
  about: string;
  verdict: StoryVerdict;
  because: string | null;
  source: string | null;
}
export const patternDetail = z
  .object({
    pattern: patternShape,
    maker: makerShape,
    variants: z.array(variantShape),
    windows: z.array(datedWindowShape),
    marks: z.array(markShape),
    stories: z.array(storyShape),
  })
  .meta({ id: 'PatternDetail' });
export type PatternDetail = z.infer<typeof patternDetail>;
export const availabilityBody = z.object({
  state: z.enum(AVAILABILITIES),
  on: z.iso.date('write a day'),
  source: required(300, 'Where was it read or seen?'),
});
export type AvailabilityBody = z.infer<typeof availabilityBody>;
export const availabilityNote = availabilityBody
  .extend({ id: z.string(), notedBy: z.string() })
  .meta({ id: 'AvailabilityNote' });
export const variantDetail = z
  .object({
    variant: variantShape,
    pattern: patternShape,
    maker: makerShape,
    marks: z.array(markShape),
    windows: z.array(datedWindowShape),
    sources: z.array(sourceShape),
    scarcity: z.intersection(
      scarcityShape,
      z.object({
        seen: z.object({
          count: z.number(),
          years: z.number(),
        }),
      }),
    ),
    /** whether it can be bought new: what was noted, the newest first, and what follows for today */
    availability: z.object({ notes: z.array(availabilityNote), gone: z.boolean() }),
  })
  .meta({ id: 'VariantDetail' });
export type VariantDetail = z.infer<typeof variantDetail>;

const MIB = 1 << 20;
const bySlug = z.object({ id: slug });
const byItem = z.object({ section: z.enum(PACK_SECTIONS), id: slug });
export const referenceRoutes = {
  importPack: route({
    method: 'post',
    path: '/reference-packs',
    room: 'reference',
    access: 'appraise',
    summary: 'Import a reference pack: all or nothing',
    body: referencePack,
    answer: answers(importAnswer, 'What was created, updated and left unchanged'),
    bodyLimit: 64 * MIB,
  }),
  listPacks: route({
    method: 'get',
    path: '/reference-packs',
    room: 'reference',
    access: 'read',
    summary: 'The packs this shop works with',
    answer: answers(pageShape(packSummary), 'A page of packs'),
  }),
  exportPack: route({
    method: 'get',
    path: '/reference-packs/:id',
    room: 'reference',
    access: 'read',
    summary: 'A pack as one document',
    params: bySlug,
    answer: answers(referencePack, 'The pack'),
  }),
  reviewPack: route({
    method: 'post',
    path: '/reference-packs/review',
    room: 'reference',
    access: 'appraise',
    summary: 'What importing this pack would do: new, changed, contradicting; nothing is written',
    body: referencePack,
    answer: answers(packReview, 'The review'),
    bodyLimit: 64 * MIB,
  }),
  item: route({
    method: 'get',
    path: '/reference/items/:section/:id',
    room: 'reference',
    access: 'read',
    summary: 'One thing of the reference as it is written',
    params: byItem,
    answer: answers(itemRecord, 'The thing, its version and its packs'),
  }),
  putItem: route({
    method: 'put',
    path: '/reference/items/:section/:id',
    room: 'reference',
    access: 'appraise',
    summary: 'Write one thing of the reference; If-Match to change it, none to add it',
    params: byItem,
    body: z.looseObject({}) as unknown as z.ZodType<Item>,
    answer: answers(itemRecord, 'The thing as it stands now'),
  }),
  removeItem: route({
    method: 'delete',
    path: '/reference/items/:section/:id',
    room: 'reference',
    access: 'appraise',
    summary: 'Take one thing out of the reference; refused while something refers to it',
    params: byItem,
    answer: answers(
      z.object({
        removed: z.string(),
      }),
      'Its id',
    ),
  }),
  maker: route({
    method: 'get',
    path: '/reference/makers/:id',
    room: 'reference',
    access: 'read',
    summary: 'A maker with patterns, stamps, codes, dated windows and stories',
    params: bySlug,
    answer: answers(makerDetail, 'The maker'),
  }),
  vocabulary: route({
    method: 'get',
    path: '/reference/vocabulary',
    room: 'reference',
    access: 'read',
    summary: 'Makers, patterns, features, marks, codes and sources',
    answer: answers(vocabulary, 'The vocabulary of the bench'),
  }),
  pattern: route({
    method: 'get',
    path: '/reference/patterns/:id',
    room: 'reference',
    access: 'read',
    summary: 'A pattern with its variants and windows',
    params: bySlug,
    answer: answers(patternDetail, 'The pattern'),
  }),
  forms: route({
    method: 'get',
    path: '/reference/forms',
    room: 'reference',
    access: 'read',
    summary: 'Variants by their ids, as far as they are drawn from them; unknown ids are left out',
    query: z.object({ ids: z.string().max(8000) }),
    answer: answers(z.object({ variants: z.array(drawnForm) }).meta({ id: 'DrawnForms' }), 'The variants'),
  }),
  variant: route({
    method: 'get',
    path: '/reference/variants/:id',
    room: 'reference',
    access: 'read',
    summary: 'A variant with its marks, windows and sources',
    params: bySlug,
    answer: answers(variantDetail, 'The variant'),
  }),
  noteAvailability: route({
    method: 'post',
    path: '/reference/variants/:id/availability',
    room: 'reference',
    access: 'work',
    summary: 'Note whether a form can be bought new',
    params: bySlug,
    body: availabilityBody,
    answer: answers(availabilityNote, 'The note'),
    status: 201,
  }),
  removeAvailability: route({
    method: 'delete',
    path: '/reference/availability/:id',
    room: 'reference',
    access: 'work',
    summary: 'Take a note of availability back',
    params: byId,
    answer: answers(z.object({ removed: z.string() }), 'What is gone'),
  }),
};
