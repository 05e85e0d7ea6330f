/** The shape of what leaves as Linked Art: the classes and properties of its model that are used here, no others. */
import { z } from 'zod';

const ref = z.strictObject({ id: z.string(), type: z.string(), _label: z.string() });
const type = z.strictObject({ id: z.string().optional(), type: z.literal('Type'), _label: z.string() });
const name = z.strictObject({
  type: z.literal('Name'),
  content: z.string(),
  classified_as: z.array(type).optional(),
});
const identifier = z.strictObject({
  type: z.literal('Identifier'),
  content: z.string(),
  classified_as: z.array(type).optional(),
});
const instant = z.string().regex(/^-?\d{4,}-\d{2}-\d{2}T\d{2}:\d{2}:\d{2}Z$/);
const timespan = z.strictObject({
  type: z.literal('TimeSpan'),
  identified_by: z.array(name),
  begin_of_the_begin: instant.optional(),
  end_of_the_end: instant.optional(),
});
const said = z.strictObject({
  type: z.literal('LinguisticObject'),
  content: z.string(),
  classified_as: z.array(type),
});
const object = z.strictObject({
  id: z.string(),
  type: z.literal('HumanMadeObject'),
  _label: z.string(),
  classified_as: z.array(type),
  identified_by: z.array(z.union([name, identifier])).min(2),
  produced_by: z
    .strictObject({
      id: z.string(),
      type: z.literal('Production'),
      timespan: timespan.optional(),
      carried_out_by: z.array(ref).optional(),
    })
    .optional(),
  dimension: z
    .array(
      z.strictObject({
        type: z.literal('Dimension'),
        _label: z.string(),
        value: z.number(),
        unit: z.strictObject({
          id: z.string().optional(),
          type: z.literal('MeasurementUnit'),
          _label: z.string(),
        }),
      }),
    )
    .optional(),
  referred_to_by: z.array(said),
  subject_of: z.array(ref).optional(),
});
const provenance = z.strictObject({
  id: z.string(),
  type: z.literal('Activity'),
  _label: z.string(),
  classified_as: z.array(type),
  timespan,
  took_place_at: z.array(ref).optional(),
  part: z.array(
    z.strictObject({
      type: z.literal('TransferOfCustody'),
      transferred_custody_of: z.array(ref),
      transferred_custody_to: z.array(ref),
      transferred_custody_from: z.array(ref).optional(),
      technique: z.array(type).optional(),
    }),
  ),
  referred_to_by: z.array(said),
});
const document = z.strictObject({
  id: z.string(),
  type: z.literal('LinguisticObject'),
  _label: z.string(),
  classified_as: z.array(type),
  about: z.array(ref),
  identified_by: z.array(identifier).optional(),
});
export const linkedArtFile = z.strictObject({
  '@context': z.literal('https://linked.art/ns/v1/linked-art.json'),
  '@graph': z.array(z.union([object, provenance, document])).min(1),
});
