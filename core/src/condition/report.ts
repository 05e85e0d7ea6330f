/** The order of a condition report: as people inspect, what was found, what was good, what nobody looked at. */
import type { Construction } from '../reference/index.ts';
import type { Finding } from './finding.ts';
import type { Inspection } from './inspected.ts';
import { partInWords } from './inWords.ts';
import { belongsTo, inspectionFor, notExamined, stepState } from './inspection.ts';

export interface ReportSection {
  readonly id: string;
  readonly title: string;
  readonly findings: readonly Finding[];
  /** parts in words, each once; a part with a finding is not among them, whatever else of it is good */
  readonly nothingFound: readonly string[];
}
export interface ReportOrder {
  /** only those of which something is to be told */
  readonly sections: readonly ReportSection[];
  /** what belongs to no section of this construction */
  readonly elsewhere: readonly Finding[];
  readonly notExamined: readonly { readonly section: string; readonly parts: readonly string[] }[];
}

/** Every finding stands in exactly one place: the first section that asks for it, else `elsewhere`. */
export function reportOrder(
  construction: Construction,
  inspection: Inspection,
  findings: readonly Finding[],
): ReportOrder {
  const template = inspectionFor(construction, inspection);
  const told = new Set<Finding>();
  const sections = template.flatMap((section): ReportSection[] => {
    const states = section.steps.map((step) => ({ step, state: stepState(step, inspection, findings) }));
    const here = findings.filter((f) => !told.has(f) && section.steps.some((step) => belongsTo(f, step)));
    for (const f of here) told.add(f);
    const faulty = new Set(here.map((f) => partInWords(f.part)));
    const good = states.filter((s) => s.state === 'good').map((s) => partInWords(s.step.part));
    const nothingFound = [...new Set(good)].filter((part) => !faulty.has(part));
    return here.length === 0 && nothingFound.length === 0
      ? []
      : [{ id: section.id, title: section.title, findings: here, nothingFound }];
  });
  return {
    sections,
    elsewhere: findings.filter((f) => !told.has(f)),
    notExamined: notExamined(template, inspection, findings).map((m) => ({
      section: m.section,
      parts: [...new Set(m.steps.map((step) => partInWords(step.part)))],
    })),
  };
}
