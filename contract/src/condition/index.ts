
export { type ComparedTreatment, type ConditionFile, type ConditionState, type GradingSheet, type GradingSummary, MOVE_REASONS, type PartMove, type PricedTreatment, type QuarantineRecord, type RuleSummary, type RuleTrial, type RuleVersion, type TreatmentBody, type TreatmentRecord, conditionRoutes, ruleDocument } from './condition.ts';
