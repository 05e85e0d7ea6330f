/**
 * What no schema can see in a rule document: anything by which a further finding could raise an index or a grade.
 * A document that breaks this is refused with the rule named.
 */
import type { InputProblem } from '../result/index.ts';
import { SEVERITIES } from './finding.ts';
import type { BySeverity, IndexRules, RuleDocument, ScaleRules } from './rules.ts';

/** No single finding takes everything: an index of nothing could not be told apart any more. */
const MOST_SHARE = 0.98;
const MOST_PERCENT = 100;

type Report = (pointer: string, message: string) => void;

export function checkRules(document: RuleDocument): InputProblem[] {
  const problems: InputProblem[] = [];
  const report: Report = (pointer, message) => problems.push({ pointer, message });
  if (document.format === 'jutbank.condition-index/1') checkIndex(document, report);
  else checkScale(document, report);
  return problems;
}

function checkIndex(rules: IndexRules, report: Report): void {
  if (!(rules.repeats >= 0 && rules.repeats <= 1))
    report('/repeats', 'a further finding of the same kind counts between nothing (0) and fully (1)');
  const named = new Map<string, number>();
  rules.deductions.forEach((rule, i) => {
    const at = `/deductions/${i}`;
    const name = `“${rule.defect}”${rule.parts ? ` on ${rule.parts.join(', ')}` : ''}`;
    for (const part of rule.parts ?? ['every other part']) {
      const key = `${rule.defect} ${part}`;
      if (named.has(key)) report(at, `the rule for “${rule.defect}” on ${part} stands twice`);
      named.set(key, i);
    }
    rising(rule.bySeverity, MOST_SHARE, `${at}/bySeverity`, name, report);
    rule.byMeasure?.forEach(([measure, share], k, points) => {
      const before = points[k - 1];
      if (!(share >= 0 && share <= MOST_SHARE))
        report(`${at}/byMeasure/${k}/1`, `the rule for ${name} takes ${share}: between 0 and ${MOST_SHARE}`);
      if (before && measure <= before[0])
        report(`${at}/byMeasure/${k}/0`, `the rule for ${name} must name rising measures`);
      if (before && share < before[1])
        report(
          `${at}/byMeasure/${k}/1`,
          `by the rule for ${name} more (${measure}) would cost less than ${before[0]}`,
        );
    });
  });
}

function checkScale(scale: ScaleRules, report: Report): void {
  const grades = scale.grades.map((g) => g.grade);
  if (grades.length < 2) report('/grades', 'a scale needs two grades at least');
  scale.grades.forEach(({ grade, from }, i) => {
    if (grades.indexOf(grade) !== i) report(`/grades/${i}/grade`, `“${grade}” stands twice`);
    const better = scale.grades[i - 1];
    if (better && from >= better.from)
      report(`/grades/${i}/from`, `“${grade}” must begin below “${better.grade}”, best grade first`);
  });
  if (scale.grades.at(-1)?.from !== 0)
    report(`/grades/${Math.max(0, grades.length - 1)}/from`, 'the last grade begins at 0');
  for (const [list, caps] of [
    ['caps', scale.caps],
    ['completenessCaps', scale.completenessCaps],
  ] as const)
    caps.forEach((cap, i) => {
      if (!grades.includes(cap.to))
        report(
          `/${list}/${i}/to`,
          `the cap “${cap.id}” caps at “${cap.to}”, which is no grade of this scale`,
        );
    });
  scale.ageAllowance?.forEach(([years, kept], i, points) => {
    const before = points[i - 1];
    if (!(kept >= 0 && kept <= 1))
      report(`/ageAllowance/${i}/1`, 'age keeps between nothing (0) and all (1) of what wear costs');
    if (before && years <= before[0]) report(`/ageAllowance/${i}/0`, 'the years must rise');
    if (before && kept > before[1]) report(`/ageAllowance/${i}/1`, 'an older piece is not judged harder');
  });
  for (const [defect, table] of Object.entries(scale.finishLost ?? {}))
    rising(table, MOST_PERCENT, `/finishLost/${defect}`, `“${defect}”`, report);
}

/** Worse must never cost less, and nothing may give something back. */
function rising(table: BySeverity, most: number, at: string, name: string, report: Report): void {
  let before = { severity: '', cost: 0 };
  for (const severity of SEVERITIES) {
    const cost = table[severity];
    if (!(cost >= 0 && cost <= most))
      report(`${at}/${severity}`, `the rule for ${name}, ${severity}, takes ${cost}: between 0 and ${most}`);
    else if (cost < before.cost)
      report(
        `${at}/${severity}`,
        `by the rule for ${name} ${severity} (${cost}) would cost less than ${before.severity} (${before.cost})`,
      );
    before = { severity, cost };
  }
}
