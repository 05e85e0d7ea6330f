/** The engine's answers as they are sent. */
import type {
  FeatureReading,
  ImpliedFeature,
  Construction,
  ScarcityPart,
  Range,
  Scarcity,
} from '@jutbank/core/reference';
import { z } from 'zod';

export const featureReadingShape: z.ZodType<FeatureReading> = z.union([z.string(), z.number()]);

export const impliedFeatureShape: z.ZodType<ImpliedFeature> = z.union([
  z.object({
    feature: z.string(),
    value: featureReadingShape,
  }),
  z.object({
    feature: z.string(),
    values: z.array(featureReadingShape),
  }),
]);

export const constructionShape: z.ZodType<Construction> = z.enum([
  'slipjoint',
  'locking-folder',
  'fixed',
  'bayonet',
  'multi-tool',
  'automatic',
  'balisong',
]);

export const scarcityPartShape: z.ZodType<ScarcityPart> = z
  .object({
    low: z.number(),
    likely: z.number(),
    high: z.number(),
    restsOn: z.string(),
  })
  .meta({ id: 'ScarcityPart' });

export const rangeShape: z.ZodType<Range> = z
  .object({
    low: z.number(),
    likely: z.number(),
    high: z.number(),
  })
  .meta({ id: 'Range' });

export const scarcityShape: z.ZodType<Scarcity> = z
  .object({
    /** pieces; undefined where nothing lets one count */
    made: scarcityPartShape.optional(),
    /** share 0–1 */
    surviving: scarcityPartShape,
    /** pieces still about */
    left: rangeShape.optional(),
    /** share 0–1 of those in the condition asked for or better */
    inCondition: scarcityPartShape.optional(),
    leftSo: rangeShape.optional(),
  })
  .meta({ id: 'Scarcity' });
