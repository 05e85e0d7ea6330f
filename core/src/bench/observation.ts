/** What a person at the bench saw, and what the engine answers (formats.md, "Identify"). */
import type {
  Construction,
  Effort,
  FeatureReading,
  ImpliedFeature,
  MarkHistory,
} from '../reference/index.ts';

type Maybe<T> = T | null | undefined;

export const CERTAINTIES = ['sure', 'likely', 'unsure'] as const;
export type Certainty = (typeof CERTAINTIES)[number];

/** `cannot-tell`: looked and could not say. `not-there`: looked, and the part or sign is absent. */
export const OBSERVATION_STATES = ['cannot-tell', 'not-there'] as const;
export type ObservationState = (typeof OBSERVATION_STATES)[number];

export type Observation =
  | { feature: string; value: FeatureReading; certainty?: Maybe<Certainty> }
  | {
      feature: string;
      measure: number;
      resolution?: Maybe<number>;
      certainty?: Maybe<Certainty>;
      text?: Maybe<string>;
    }
  /** something the reference has no value for, as a person wrote it */
  | { feature: string; other: string; certainty?: Maybe<Certainty> }
  | { feature: string; state: ObservationState }
  | { mark: string; certainty?: Maybe<Certainty> }
  /** a number struck on a part, to be held against those on the others */
  | { part: string; number: string }
  | { code: string; reads: Record<string, string | number>; certainty?: Maybe<Certainty> }
  | { code: string; text: string; certainty?: Maybe<Certainty> };

export const FOUND_PLACES = ['specialist-dealer', 'estate', 'fair', 'online', 'unknown'] as const;
export type FoundPlace = (typeof FOUND_PLACES)[number];

export interface Within {
  makers?: Maybe<string[]>;
  patterns?: Maybe<string[]>;
  constructions?: Maybe<Construction[]>;
}

export interface IdentifyQuestion {
  observations: readonly Observation[];
  within?: Maybe<Within>;
  found?: Maybe<FoundPlace>;
  limit?: Maybe<number>;
  /** what an appraiser decided it is: does not move probabilities, but its making leads the date */
  decided?: Maybe<{ variant?: Maybe<string>; pattern?: Maybe<string> }>;
  /** in its package: only what shows through it can be looked at */
  sealed?: Maybe<boolean>;
}

/** What an observation is about, as `because` and `setAside` name it. */
export type Subject =
  | { feature: string; value?: FeatureReading }
  | { mark: string }
  | { code: string }
  | { maker: string }
  | { variants: number }
  /** nothing is made later */
  | { today: string };

/** Something done to the piece after it was made. */
export interface HistoryEvent {
  what: MarkHistory['what'];
  because: { mark: string } | { variant: string };
  /** EDTF, when it was done; null where the reference does not date it */
  window: string | null;
  /** features that were changed with it */
  changed: string[];
  /** variants it was made from */
  from: { variant: string; pattern: string }[];
  source: string | null;
  page: string | null;
}
export interface NumbersAnswer {
  verdict: 'matching' | 'differing' | 'one-only';
  /** the leading part first; `agrees` is with its number */
  parts: { part: string; number: string; agrees: boolean }[];
}

export type Verdict = 'agrees' | 'disagrees' | 'silent';
export interface Evidence {
  feature?: string;
  mark?: string;
  code?: string;
  /** the part whose features are weighed together */
  part: string;
  observed: FeatureReading;
  expected: FeatureReading[];
  verdict: Verdict;
  /** decibans for (+) or against (−) this candidate versus the rest */
  weight: number;
}

export interface Candidate {
  variant: string;
  pattern: string;
  probability: number;
  evidence: Evidence[];
  exchanged: string[];
}

export const TIERS = [
  'confirmed',
  'probable',
  'type-consistent',
  'doubtful',
  'rejected',
  'not-enough-seen',
] as const;
export type Tier = (typeof TIERS)[number];
export interface Attribution {
  tier: Tier;
  reasons: string[];
  cannotBeProvedBecause: string[];
}

export interface Bound {
  because: Subject;
  date: string;
  source: string | null;
  page: string | null;
}
export type ConflictExplanation = 'replaced-part' | 'misread' | 'source-wrong' | 'put-together';
export interface Conflict {
  setAside: Subject[];
  leaves: string;
  explanation: ConflictExplanation;
  /** the same signs under the other arrangement of the code, with which everything agrees */
  insteadRead?: { code: string; reads: Readonly<Record<string, string | number>> };
}
export interface Dispute {
  because: Subject;
  between: string[];
  strict: string;
  lenient: string;
}
/** One dated observation as a bar over the year rule. */
export interface DatedClaim {
  because: Subject;
  strict: string[];
  lenient: string[];
  sources: { source: string; page: string | null }[];
  setAside: boolean;
}
/** A form and what was seen are from different times: what speaks against the form, and what may explain it. */
export interface MakingClash {
  variant: string;
  /** when the form was made */
  window: string;
  /** what the observations allow */
  bracket: string;
  because: Subject[];
  explanations: (ConflictExplanation | 'wrong-variant')[];
}
/** The piece's date: where the bracket and the making of the leading or decided form meet. */
export interface DateOfMaking {
  core: string;
  outer: string;
  basis: 'bracket' | 'form' | 'both' | 'years';
  clash: MakingClash | null;
}
export interface Dating {
  core: string;
  outer: string;
  floor: Bound[];
  ceiling: Bound[];
  years: { year: number; probability: number }[];
  conflicts: Conflict[];
  disputed: Dispute[];
  claims: DatedClaim[];
  /** one answer for the piece; null where nothing dates it */
  made: DateOfMaking | null;
}

export type Implied = ImpliedFeature | { pattern: string };
export interface CodeAnswer {
  code: string;
  readings: { window: string | null; implies: Implied[] }[];
  contradicts: { feature: string; value: FeatureReading; observed: FeatureReading }[];
  /** of a number that is not read to its end: what its beginning says, and the rest as it stands */
  partly?: { implies: Implied[]; unread: string };
  /** why it could not be read, or not to its end, in words */
  unread?: string;
}

export interface NextCheck {
  feature?: string;
  mark?: true;
  code?: string;
  effort: Effort;
  bits: number;
  separates: string[];
  ask: string;
  /** a counterfeit in play that gives itself away here: the first thing to look for */
  tellOf?: string;
}

export interface Alert {
  kind:
    | 'serial-seen-before'
    | 'serial-beyond-run'
    | 'run-does-not-exist'
    | 'made-after-the-claimed-event'
    | 'known-counterfeit-tell';
  detail: string;
}

/** Two variants that explain the parts together better than any one does. */
export interface PutTogetherAnswer {
  pieces: { variant: string; parts: string[] }[];
  /** decibans by which the pair wins over the best single variant */
  weight: number;
}

export interface IdentifyAnswer {
  candidates: Candidate[];
  unlisted: number;
  attribution: Attribution;
  dating: Dating;
  codes: CodeAnswer[];
  nextChecks: NextCheck[];
  alerts: Alert[];
  putTogether: PutTogetherAnswer | null;
  history: HistoryEvent[];
  numbers: NumbersAnswer | null;
  narrowedBy: Narrowing[];
}

/** What leaves only a part of the reference to be asked about: a person's choice, or a stamp that was read as sure. */
export interface Narrowing {
  by: 'choice' | 'stamp';
  what: 'maker' | 'pattern' | 'construction' | 'mark';
  ids: string[];
  /** variants it leaves */
  left: number;
}
