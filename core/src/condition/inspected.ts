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
/** @param counted how many there are, where that is known; else one blade, and of a multi-tool two tools */
export const freshInspection = (
  construction: Construction,
  counted?: Pick<Inspection, 'blades' | 'tools'>,
): Inspection => ({
  blades: counted?.blades ?? 1,
  tools: counted?.tools ?? (construction === 'multi-tool' ? 2 : 0),
  steps: {},
});
