/** How a piece stands against how it stood: what is new on it, what is gone, what got worse or better. */
import { completenessDisclosures, included } from './completeness.ts';
import { findingInWords } from './inWords.ts';
import { SEVERITIES, type Completeness, type Finding } from './finding.ts';

export interface ConditionSeen {
  readonly findings: readonly Finding[];
  readonly completeness: Completeness;
}
export interface ConditionChanges {
  /** new findings, and those that are graver than they were */
  readonly worse: readonly string[];
  /** findings that are gone or lighter: looked at otherwise, or worked on */
  readonly better: readonly string[];
  /** what came along and is missing now, or the other way round */
  readonly items: readonly string[];
  readonly unchanged: number;
}

const placeOf = (f: Finding) => `${f.part} ${f.defect} ${f.side ?? ''}`;

/** The weight of a finding, for telling graver from lighter at one place. */
const weightOf = (f: Finding): number =>
  (f.severity ? SEVERITIES.indexOf(f.severity) + 1 : 0) * 1e6 + (f.count ?? 1) * 1e3 + (f.measure ?? 0);

/** Findings are matched by part, defect and side; several at one place in the order of their weight. */
export function compareConditions(before: ConditionSeen, now: ConditionSeen): ConditionChanges {
  const [worse, better]: [string[], string[]] = [[], []];
  let unchanged = 0;
  const places = new Set([...before.findings, ...now.findings].map(placeOf));
  for (const place of places) {
    const heaviest = (findings: readonly Finding[]) =>
      findings.filter((f) => placeOf(f) === place).sort((a, b) => weightOf(b) - weightOf(a));
    const [was, is] = [heaviest(before.findings), heaviest(now.findings)];
    for (let i = 0; i < Math.max(was.length, is.length); i++) {
      const [a, b] = [was[i], is[i]];
      if (a && b) {
        const change = weightOf(b) - weightOf(a);
        if (change === 0) unchanged++;
        else (change > 0 ? worse : better).push(`${findingInWords(b)} (was: ${findingInWords(a)})`);
      } else if (b) worse.push(findingInWords(b));
      else if (a) better.push(`${findingInWords(a)}: not found any more`);
    }
  }
  const items = Object.keys({ ...before.completeness, ...now.completeness }).flatMap((item) => {
    const [was, is] = [before.completeness[item], now.completeness[item]];
    return was === is ? [] : [`${capital(item)}: ${stateOf(item, was)}, now ${stateOf(item, is)}`];
  });
  return { worse, better, items, unchanged };
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1).replaceAll('-', ' ');
const stateOf = (item: string, state: string | null | undefined): string =>
  state == null
    ? 'not looked at'
    : (included({ [item]: state })[0] ??
      completenessDisclosures({ [item]: state })[0]?.toLowerCase() ??
      state);
