/** Who had a piece, on what evidence, and what is told of a trail. */
export const EVIDENCE_KINDS = ['document', 'corroborated', 'owner-statement', 'tradition'] as const;
export type EvidenceKind = (typeof EVIDENCE_KINDS)[number];
export const EVIDENCE_STRENGTH: Readonly<Record<EvidenceKind, number>> = {
  document: 1,
  corroborated: 0.7,
  'owner-statement': 0.4,
  tradition: 0.15,
};

export interface CustodyEvent {
  readonly holder: string;
  /** a private person, whose name is not published */
  readonly private: boolean;
  readonly place: string | null;
  /** EDTF */
  readonly period: string;
  /** how it came to this holder */
  readonly how: string | null;
  readonly evidence: EvidenceKind;
  readonly note: string | null;
}

/** A museum, firm, service or unit, by the names it had and when it had them. */
export interface Body {
  readonly names: readonly { readonly name: string; /** EDTF */ readonly period: string }[];
}

export const TRAIL_PROBLEMS = [
  'before-it-was-made',
  'overlap',
  'gap',
  'sold-before-bought',
  'place',
  'body-not-yet',
  'name-of-the-day',
  'document',
] as const;
export interface TrailProblem {
  readonly kind: (typeof TRAIL_PROBLEMS)[number];
  readonly detail: string;
  /** indices of the events concerned */
  readonly events: readonly number[];
}
export interface TrailYear {
  readonly year: number;
  /** best evidence of any event covering the year, 0–1 */
  readonly strength: number;
}
export interface Trail {
  /** 0–1: the share of its life covered, each year at its best evidence */
  readonly share: number;
  readonly word: 'none' | 'thin' | 'partial' | 'good' | 'complete';
  readonly strip: readonly TrailYear[];
  readonly problems: readonly TrailProblem[];
}

/** What is missing, or could be said better; it contradicts nothing. */
export const NO_CONTRADICTION: ReadonlySet<TrailProblem['kind']> = new Set(['gap', 'name-of-the-day']);
