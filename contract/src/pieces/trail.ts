/** Custody and the paper trail as they are sent. */
import {
  EVIDENCE_KINDS,
  TRAIL_PROBLEMS,
  type CustodyEvent,
  type TrailYear,
  type TrailProblem,
  type Trail,
} from '@jutbank/core/provenance';
import { z } from 'zod';

export const custodyEventShape: z.ZodType<CustodyEvent> = z
  .object({
    holder: z.string(),
    /** a private person, whose name is not published */
    private: z.boolean(),
    place: z.string().nullable(),
    /** EDTF */
    period: z.string(),
    /** how it came to this holder */
    how: z.string().nullable(),
    evidence: z.enum(EVIDENCE_KINDS),
    note: z.string().nullable(),
  })
  .meta({ id: 'CustodyEvent' });

export const trailYearShape: z.ZodType<TrailYear> = z
  .object({
    year: z.number(),
    /** best evidence of any event covering the year, 0–1 */
    strength: z.number(),
  })
  .meta({ id: 'TrailYear' });

export const trailProblemShape: z.ZodType<TrailProblem> = z
  .object({
    kind: z.enum(TRAIL_PROBLEMS),
    detail: z.string(),
    /** indices of the events concerned */
    events: z.array(z.number()),
  })
  .meta({ id: 'TrailProblem' });

export const trailShape: z.ZodType<Trail> = z
  .object({
    /** 0–1: the share of its life covered, each year at its best evidence */
    share: z.number(),
    word: z.enum(['none', 'thin', 'partial', 'good', 'complete']),
    strip: z.array(trailYearShape),
    problems: z.array(trailProblemShape),
  })
  .meta({ id: 'Trail' });
