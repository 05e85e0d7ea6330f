/** The answers of the bench as they are sent. */
import { featureReadingShape, impliedFeatureShape } from '../reference/index.ts';
import {
  TIERS,
  CERTAINTIES,
  OBSERVATION_STATES,
  type Verdict,
  type Evidence,
  type Candidate,
  type Attribution,
  type Subject,
  type Bound,
  type ConflictExplanation,
  type Conflict,
  type Dispute,
  type DatedClaim,
  type MakingClash,
  type DateOfMaking,
  type Dating,
  type Implied,
  type CodeAnswer,
  type NextCheck,
  type Alert,
  type PutTogetherAnswer,
  type HistoryEvent,
  type NumbersAnswer,
  type Narrowing,
  type IdentifyAnswer,
  type Observation,
} from '@jutbank/core/bench';
import { EFFORTS, STAMPED_AFTERWARDS } from '@jutbank/core/reference';
import { z } from 'zod';

export const verdictShape: z.ZodType<Verdict> = z.enum(['agrees', 'disagrees', 'silent']);

export const evidenceShape: z.ZodType<Evidence> = z
  .object({
    feature: z.string().exactOptional(),
    mark: z.string().exactOptional(),
    code: z.string().exactOptional(),
    /** the part whose features are weighed together */
    part: z.string(),
    observed: featureReadingShape,
    expected: z.array(featureReadingShape),
    verdict: verdictShape,
    /** decibans for (+) or against (−) this candidate versus the rest */
    weight: z.number(),
  })
  .meta({ id: 'Evidence' });

export const candidateShape: z.ZodType<Candidate> = z
  .object({
    variant: z.string(),
    pattern: z.string(),
    probability: z.number(),
    evidence: z.array(evidenceShape),
    exchanged: z.array(z.string()),
  })
  .meta({ id: 'Candidate' });

export const attributionShape: z.ZodType<Attribution> = z
  .object({
    tier: z.enum(TIERS),
    reasons: z.array(z.string()),
    cannotBeProvedBecause: z.array(z.string()),
  })
  .meta({ id: 'Attribution' });

export const subjectShape: z.ZodType<Subject> = z.union([
  z.object({
    feature: z.string(),
    value: featureReadingShape.exactOptional(),
  }),
  z.object({
    mark: z.string(),
  }),
  z.object({
    code: z.string(),
  }),
  z.object({
    maker: z.string(),
  }),
  z.object({
    variants: z.number(),
  }),
  z.object({
    today: z.string(),
  }),
]);

export const boundShape: z.ZodType<Bound> = z
  .object({
    because: subjectShape,
    date: z.string(),
    source: z.string().nullable(),
    page: z.string().nullable(),
  })
  .meta({ id: 'Bound' });

export const conflictExplanationShape: z.ZodType<ConflictExplanation> = z.enum([
  'replaced-part',
  'misread',
  'source-wrong',
  'put-together',
]);

export const conflictShape: z.ZodType<Conflict> = z
  .object({
    setAside: z.array(subjectShape),
    leaves: z.string(),
    explanation: conflictExplanationShape,
    /** the same signs under the other arrangement of the code, with which everything agrees */
    insteadRead: z
      .object({
        code: z.string(),
        reads: z.record(z.string(), z.union([z.string(), z.number()])),
      })
      .exactOptional(),
  })
  .meta({ id: 'Conflict' });

export const disputeShape: z.ZodType<Dispute> = z
  .object({
    because: subjectShape,
    between: z.array(z.string()),
    strict: z.string(),
    lenient: z.string(),
  })
  .meta({ id: 'Dispute' });

export const datedClaimShape: z.ZodType<DatedClaim> = z
  .object({
    because: subjectShape,
    strict: z.array(z.string()),
    lenient: z.array(z.string()),
    sources: z.array(
      z.object({
        source: z.string(),
        page: z.string().nullable(),
      }),
    ),
    setAside: z.boolean(),
  })
  .meta({ id: 'DatedClaim' });

export const makingClashShape: z.ZodType<MakingClash> = z
  .object({
    variant: z.string(),
    /** when the form was made */
    window: z.string(),
    /** what the observations allow */
    bracket: z.string(),
    because: z.array(subjectShape),
    explanations: z.array(z.union([conflictExplanationShape, z.literal('wrong-variant')])),
  })
  .meta({ id: 'MakingClash' });

export const dateOfMakingShape: z.ZodType<DateOfMaking> = z
  .object({
    core: z.string(),
    outer: z.string(),
    basis: z.enum(['bracket', 'form', 'both', 'years']),
    clash: makingClashShape.nullable(),
  })
  .meta({ id: 'DateOfMaking' });

export const datingShape: z.ZodType<Dating> = z
  .object({
    core: z.string(),
    outer: z.string(),
    floor: z.array(boundShape),
    ceiling: z.array(boundShape),
    years: z.array(
      z.object({
        year: z.number(),
        probability: z.number(),
      }),
    ),
    conflicts: z.array(conflictShape),
    disputed: z.array(disputeShape),
    claims: z.array(datedClaimShape),
    /** one answer for the piece; null where nothing dates it */
    made: dateOfMakingShape.nullable(),
  })
  .meta({ id: 'Dating' });

export const impliedShape: z.ZodType<Implied> = z.union([
  impliedFeatureShape,
  z.object({
    pattern: z.string(),
  }),
]);

export const codeAnswerShape: z.ZodType<CodeAnswer> = z
  .object({
    code: z.string(),
    readings: z.array(
      z.object({
        window: z.string().nullable(),
        implies: z.array(impliedShape),
      }),
    ),
    contradicts: z.array(
      z.object({
        feature: z.string(),
        value: featureReadingShape,
        observed: featureReadingShape,
      }),
    ),
    /** of a number that is not read to its end: what its beginning says, and the rest as it stands */
    partly: z
      .object({
        implies: z.array(impliedShape),
        unread: z.string(),
      })
      .exactOptional(),
    /** why it could not be read, or not to its end, in words */
    unread: z.string().exactOptional(),
  })
  .meta({ id: 'CodeAnswer' });

export const nextCheckShape: z.ZodType<NextCheck> = z
  .object({
    feature: z.string().exactOptional(),
    mark: z.literal(true).exactOptional(),
    code: z.string().exactOptional(),
    effort: z.enum(EFFORTS),
    bits: z.number(),
    separates: z.array(z.string()),
    ask: z.string(),
    /** a counterfeit in play that gives itself away here: the first thing to look for */
    tellOf: z.string().exactOptional(),
  })
  .meta({ id: 'NextCheck' });

export const alertShape: z.ZodType<Alert> = z
  .object({
    kind: z.enum([
      'serial-seen-before',
      'serial-beyond-run',
      'run-does-not-exist',
      'made-after-the-claimed-event',
      'known-counterfeit-tell',
    ]),
    detail: z.string(),
  })
  .meta({ id: 'Alert' });

export const putTogetherAnswerShape: z.ZodType<PutTogetherAnswer> = z
  .object({
    pieces: z.array(
      z.object({
        variant: z.string(),
        parts: z.array(z.string()),
      }),
    ),
    /** decibans by which the pair wins over the best single variant */
    weight: z.number(),
  })
  .meta({ id: 'PutTogetherAnswer' });

export const historyEventShape: z.ZodType<HistoryEvent> = z
  .object({
    what: z.enum(STAMPED_AFTERWARDS),
    because: z.union([
      z.object({
        mark: z.string(),
      }),
      z.object({
        variant: z.string(),
      }),
    ]),
    /** EDTF, when it was done; null where the reference does not date it */
    window: z.string().nullable(),
    /** features that were changed with it */
    changed: z.array(z.string()),
    /** variants it was made from */
    from: z.array(
      z.object({
        variant: z.string(),
        pattern: z.string(),
      }),
    ),
    source: z.string().nullable(),
    page: z.string().nullable(),
  })
  .meta({ id: 'HistoryEvent' });

export const numbersAnswerShape: z.ZodType<NumbersAnswer> = z
  .object({
    verdict: z.enum(['matching', 'differing', 'one-only']),
    /** the leading part first; `agrees` is with its number */
    parts: z.array(
      z.object({
        part: z.string(),
        number: z.string(),
        agrees: z.boolean(),
      }),
    ),
  })
  .meta({ id: 'NumbersAnswer' });

export const narrowingShape: z.ZodType<Narrowing> = z
  .object({
    by: z.enum(['choice', 'stamp']),
    what: z.enum(['maker', 'pattern', 'construction', 'mark']),
    ids: z.array(z.string()),
    /** variants it leaves */
    left: z.number(),
  })
  .meta({ id: 'Narrowing' });

export const identifyAnswerShape: z.ZodType<IdentifyAnswer> = z
  .object({
    candidates: z.array(candidateShape),
    unlisted: z.number(),
    attribution: attributionShape,
    dating: datingShape,
    codes: z.array(codeAnswerShape),
    nextChecks: z.array(nextCheckShape),
    alerts: z.array(alertShape),
    putTogether: putTogetherAnswerShape.nullable(),
    history: z.array(historyEventShape),
    numbers: numbersAnswerShape.nullable(),
    narrowedBy: z.array(narrowingShape),
  })
  .meta({ id: 'IdentifyAnswer' });

export const observationShape: z.ZodType<Observation> = z.union([
  z.object({
    feature: z.string(),
    value: featureReadingShape,
    certainty: z.enum(CERTAINTIES).nullish().exactOptional(),
  }),
  z.object({
    feature: z.string(),
    measure: z.number(),
    resolution: z.number().nullish().exactOptional(),
    certainty: z.enum(CERTAINTIES).nullish().exactOptional(),
    text: z.string().nullish().exactOptional(),
  }),
  z.object({
    feature: z.string(),
    other: z.string(),
    certainty: z.enum(CERTAINTIES).nullish().exactOptional(),
  }),
  z.object({
    feature: z.string(),
    state: z.enum(OBSERVATION_STATES),
  }),
  z.object({
    mark: z.string(),
    certainty: z.enum(CERTAINTIES).nullish().exactOptional(),
  }),
  z.object({
    part: z.string(),
    number: z.string(),
  }),
  z.object({
    code: z.string(),
    reads: z.record(z.string(), z.union([z.string(), z.number()])),
    certainty: z.enum(CERTAINTIES).nullish().exactOptional(),
  }),
  z.object({
    code: z.string(),
    text: z.string(),
    certainty: z.enum(CERTAINTIES).nullish().exactOptional(),
  }),
]);
