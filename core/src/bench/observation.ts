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
}

/** What an observation is about, as `because` and `setAside` name it. */
export type Subject =
  | { feature: string; value?: FeatureReading }
  | { mark: string }
  | { code: string }
  | { maker: string }
  | { variants: number };

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
export interface Dating {
  core: string;
  outer: string;
  floor: Bound[];
  ceiling: Bound[];
  years: { year: number; probability: number }[];
  conflicts: Conflict[];
  disputed: Dispute[];
  claims: DatedClaim[];
}

export type Implied = ImpliedFeature | { pattern: string };
export interface CodeAnswer {
  code: string;
  readings: { window: string | null; implies: Implied[] }[];
  contradicts: { feature: string; value: FeatureReading; observed: FeatureReading }[];
  /** why nothing could be read, in words */
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
}

export interface Alert {
  kind:
    'serial-seen-before' | 'serial-beyond-run' | 'made-after-the-claimed-event' | 'known-counterfeit-tell';
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
}
