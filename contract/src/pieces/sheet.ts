/** A piece as it is shown: its slip, its five readings, its sheet, the tray. */
import { z } from 'zod';
import type { MakingClash, Observation, Tier } from '@jutbank/core/bench';
import type { Construction } from '@jutbank/core/reference';
import type { GradeAnswer } from '@jutbank/core/condition';
import type { Stage } from '@jutbank/core/pieces';
import type { Money } from '@jutbank/core/money';
import type { CustodyEvent, Trail } from '@jutbank/core/provenance';
import type { NarrowingBody, StoredAttribution } from './observations.ts';
import type { ConditionBody, QuotedScale } from './findings.ts';
import { moneySchema, positiveMoney, text } from '../http/index.ts';
import type { ListingRecord } from './listing.ts';
import type { IntakeBody } from './intake.ts';

export interface PictureRecord {
  id: string;
  hash: string;
  caption: string;
  width: number;
  height: number;
}

export interface Readings {
  which: { tier: Tier; label: string; probability: number | null; decided: boolean };
  when: { core: string; outer: string; conflict: boolean } | null;
  condition: { inspected: boolean; index: number; scale: string; grade: string; note: string } | null;
  /** null where no pattern is known, or no sale near it (`unsupported`) */
  worth: { estimate: Money; low: Money; high: Money; thin: boolean; comparables: number } | null;
  unsupported?: boolean;
  /** its market could not be reckoned just now: the fault is noted, and it is tried again */
  marketAway?: boolean;
  trail: { word: Trail['word']; share: number; problems: number };
}

export interface PieceSlip {
  id: string;
  stockNumber: string;
  title: string;
  construction: Construction;
  stage: Stage;
  missing: string;
  attention: string[];
  picture: string | null;
  cost: Money | null;
  ask: Money | null;
  readings: Readings;
}

export interface PieceSheet extends PieceSlip {
  version: number;
  createdAt: string;
  intake: IntakeBody;
  pictures: PictureRecord[];
  observations: Observation[];
  attribution: StoredAttribution | null;
  /** one date for every page and paper, and who says it */
  date: {
    core: string;
    outer: string;
    by: 'decision' | 'form' | 'bracket' | 'both' | 'years';
    reason: string | null;
    clash: MakingClash | null;
  } | null;
  /** decided against evidence that speaks for an imitation */
  overruled: boolean;
  /** in its package, and nobody opened it */
  sealed: boolean;
  narrowing: NarrowingBody;
  condition: ConditionBody;
  grade: GradeAnswer;
  /** in years, as the grade takes it; null where it is not dated on both sides */
  age: number | null;
  /** the scale it is quoted on, and why where that was chosen */
  quotedScale: QuotedScale['scale'];
  quoted: QuotedScale | null;
  custody: CustodyEvent[];
  trail: Trail;
  pricing: PricingBody;
  listing: ListingRecord | null;
  sale: { id: string; invoiceNumber: string; certificateCode: string } | null;
}

export const pricingBody = z.object({
  ask: positiveMoney.nullable(),
  floor: moneySchema.nullable(),
  note: text(1000).default(''),
});
export type PricingBody = z.infer<typeof pricingBody>;

export interface Tray {
  groups: { stage: Stage; count: number; bound: Money; slips: PieceSlip[] }[];
  attention: PieceSlip[];
  bound: Money;
  asking: Money;
}
