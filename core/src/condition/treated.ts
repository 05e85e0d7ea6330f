/** Kinds of treatment, and what is told of one that was done. */
export const TREATMENT_KINDS = [
  'degrease',
  'oil',
  'remove-rust',
  'polish',
  'sharpen',
  'take-out-nicks',
  're-tip',
  'straighten',
  'tighten',
  'centre',
  'glue',
  'replace-part',
  'refinish',
  'stabilise',
  'supply-sheath',
  'open-package',
  'other',
] as const;
export type TreatmentKind = (typeof TREATMENT_KINDS)[number];

/** What is told of a treatment that was done. */
export interface TreatmentDone {
  readonly kind: TreatmentKind;
  /** what was done in words of one's own; empty: the kind says it */
  readonly title: string;
  /** ISO day */
  readonly doneOn: string;
  readonly product: string;
  readonly grit: string;
  readonly reversible: boolean;
}
