/** How far a piece was inspected: what was said of the steps that have no finding. */
import type { Construction } from '../reference/index.ts';

/** What was said of a step that has no finding. */
export const STEP_STATES = ['good', 'not-examined'] as const;
export type StepState = (typeof STEP_STATES)[number];
export interface Inspection {
  readonly blades: number;
  readonly tools: number;
  readonly steps: Readonly<Record<string, StepState>>;
}
export const freshInspection = (construction: Construction): Inspection => ({
  blades: 1,
  tools: construction === 'multi-tool' ? 2 : 0,
  steps: {},
});
