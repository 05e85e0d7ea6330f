/** The engine's answers as they are sent. */
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
import {
  SCALE_IDS,
  DEFECTS,
  SEVERITIES,
  STEP_STATES,
  TREATMENT_KINDS,
  PARTS,
  type AppliedCap,
  type ScaleGrade,
  type Deduction,
  type GradeAnswer,
  type Pin,
  type Finding,
  type Completeness,
  type Inspection,
  type TreatmentPlan,
  type Agreement,
  type DefectDifference,
} from '@jutbank/core/condition';
import {
  EVIDENCE_KINDS,
  type CustodyEvent,
  type TrailYear,
  type TrailProblem,
  type Trail,
} from '@jutbank/core/provenance';
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

export const appliedCapShape: z.ZodType<AppliedCap> = z
  .object({
    /** index of the finding, null where completeness caps */
    findingIndex: z.number().nullable(),
    rule: z.string(),
    says: z.string(),
    to: z.string(),
  })
  .meta({ id: 'AppliedCap' });

export const scaleGradeShape: z.ZodType<ScaleGrade> = z
  .object({
    scale: z.enum(SCALE_IDS),
    grade: z.string(),
    /** what it would be without caps */
    would: z.string(),
    caps: z.array(appliedCapShape),
    toNextUp: z.string(),
    /** the number the grade was read from: condition index (age allowed for) or percent of original finish */
    from: z.number(),
    rules: z.string(),
  })
  .meta({ id: 'ScaleGrade' });

export const deductionShape: z.ZodType<Deduction> = z
  .object({
    findingIndex: z.number(),
    /** share of the condition lost by this finding's part and defect together */
    share: z.number(),
  })
  .meta({ id: 'Deduction' });

export const gradeAnswerShape: z.ZodType<GradeAnswer> = z
  .object({
    conditionIndex: z.number(),
    grades: z.array(scaleGradeShape),
    disclosures: z.array(z.string()),
    deductions: z.array(deductionShape),
  })
  .meta({ id: 'GradeAnswer' });

export const pinShape: z.ZodType<Pin> = z
  .object({
    picture: z.string().nullish().exactOptional(),
    /** 0–1 from the left and from the top */
    x: z.number(),
    y: z.number(),
  })
  .meta({ id: 'Pin' });

export const findingShape: z.ZodType<Finding> = z
  .object({
    /** a part, with a number where there are several: `blade:2` */
    part: z.string(),
    defect: z.enum(DEFECTS),
    severity: z.enum(SEVERITIES).nullish().exactOptional(),
    /** millimetres or percent, as the defect says */
    measure: z.number().nullish().exactOptional(),
    count: z.number().nullish().exactOptional(),
    side: z.string().nullish().exactOptional(),
    note: z.string().nullish().exactOptional(),
    /** done by the maker, under warranty or in its own workshop: apart from aftermarket work */
    byMaker: z.boolean().nullish().exactOptional(),
    /** where it is: on a picture, or on the drawn outline when no picture is named */
    pin: pinShape.nullish().exactOptional(),
  })
  .meta({ id: 'Finding' });

export const completenessShape: z.ZodType<Completeness> = z.record(
  z.string(),
  z.string().nullable().optional(),
);

export const inspectionShape: z.ZodType<Inspection> = z
  .object({
    blades: z.number(),
    tools: z.number(),
    steps: z.record(z.string(), z.enum(STEP_STATES)),
  })
  .meta({ id: 'Inspection' });

export const treatmentPlanShape: z.ZodType<TreatmentPlan> = z
  .object({
    kind: z.enum(TREATMENT_KINDS),
    title: z.string(),
    /** what it is for */
    treats: z.array(
      z.object({
        defects: z.array(z.enum(DEFECTS)),
        parts: z.array(z.enum(PARTS)).exactOptional(),
      }),
    ),
    /** what it leaves behind on each part it was done to */
    leaves: z.array(
      z.object({
        defect: z.enum(DEFECTS),
        severity: z.enum(SEVERITIES).nullish().exactOptional(),
      }),
    ),
    /** an item it supplies, where that is missing */
    supplies: z
      .object({
        item: z.string(),
        from: z.string(),
        state: z.string(),
      })
      .exactOptional(),
    /** in the shop's currency, without the shop's own hours: a start to be changed */
    cost: z.string(),
    /** how often it goes wrong, 0–1, and what is added then */
    failure: z.number(),
    failing: z.array(
      z.object({
        defect: z.enum(DEFECTS),
        severity: z.enum(SEVERITIES).nullish().exactOptional(),
      }),
    ),
    reversible: z.boolean(),
    cautions: z.array(z.string()),
  })
  .meta({ id: 'TreatmentPlan' });

export const agreementShape: z.ZodType<Agreement> = z
  .object({
    pieces: z.number(),
    /** share of pieces with the same grade */
    same: z.number(),
    /**
     * Cohen's kappa with quadratic weights over the grades in their order: 1 agreement, 0 what chance alone would
     * give; undefined with fewer than two pieces or where both used one grade only.
     */
    kappa: z.number().optional(),
  })
  .meta({ id: 'Agreement' });

export const defectDifferenceShape: z.ZodType<DefectDifference> = z
  .object({
    part: z.string(),
    defect: z.enum(DEFECTS),
    /** pieces on which only the first, only the second, or both noted it */
    onlyFirst: z.number(),
    onlySecond: z.number(),
    both: z.number(),
  })
  .meta({ id: 'DefectDifference' });

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
    kind: z.enum(['before-it-was-made', 'overlap', 'gap', 'sold-before-bought']),
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
