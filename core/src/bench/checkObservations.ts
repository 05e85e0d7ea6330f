/** What is wrong with a question before any mathematics: unknown ids, values outside their feature, bad reads. */
import { readDateCode, whyNotAValue, type Feature } from '../reference/index.ts';
import type { InputProblem } from '../result/index.ts';
import type { ReferenceIndex } from './compile.ts';
import type { IdentifyQuestion, Observation } from './observation.ts';

export function checkQuestion(index: ReferenceIndex, question: IdentifyQuestion): InputProblem[] {
  const problems = question.observations.flatMap((o, i) =>
    checkObservation(index, o).map((p) => ({
      pointer: `/observations/${i}${p.pointer}`,
      message: p.message,
    })),
  );
  const seen = new Map<string, number>();
  question.observations.forEach((o, i) => {
    const key = subjectKey(o);
    const first = seen.get(key);
    if (first !== undefined && /^(feature|number) /.test(key))
      problems.push({
        pointer: `/observations/${i}/${'part' in o ? 'part' : 'feature'}`,
        message: `already observed at ${first}`,
      });
    else seen.set(key, i);
  });
  question.within?.makers?.forEach((id, i) => {
    if (!index.makers.has(id))
      problems.push({ pointer: `/within/makers/${i}`, message: `there is no maker “${id}”` });
  });
  question.within?.patterns?.forEach((id, i) => {
    if (!index.patterns.has(id))
      problems.push({ pointer: `/within/patterns/${i}`, message: `there is no pattern “${id}”` });
  });
  return problems;
}

/** What an observation is about; one piece has one observation of each. */
export function subjectKey(o: Observation): string {
  if ('mark' in o) return `mark ${o.mark}`;
  if ('code' in o) return `code ${o.code}`;
  if ('number' in o) return `number ${o.part}`;
  return `feature ${o.feature}`;
}

/** Something else can be written of what is chosen from a list, as long as the list does not have it. */
function whyNotOther(feature: Feature, other: string): string | undefined {
  if (feature.kind !== 'category') return `${feature.id} is not chosen from a list: write its value`;
  if (!/[\p{L}\p{N}]/u.test(other)) return 'write what was seen';
  const said = other.trim().toLowerCase();
  const listed = feature.values?.find((v) => v.id === said || v.label.toLowerCase() === said);
  return listed && `“${listed.label}” is in the list: choose it`;
}

export function checkObservation(index: ReferenceIndex, o: Observation): InputProblem[] {
  if ('mark' in o)
    return index.marks.has(o.mark) ? [] : [{ pointer: '/mark', message: `there is no mark “${o.mark}”` }];
  if ('code' in o) {
    const code = index.codes.get(o.code);
    if (!code) return [{ pointer: '/code', message: `there is no code “${o.code}”` }];
    if (code.kind === 'date') {
      if (!('reads' in o))
        return [{ pointer: '/reads', message: `${o.code} is read by its signs: give reads` }];
      const read = readDateCode(code, o.reads);
      return read.ok ? [] : [read.error];
    }
    return 'text' in o ? [] : [{ pointer: '/text', message: `${o.code} is read from its text` }];
  }
  if ('number' in o)
    return /[\p{L}\p{N}]/u.test(o.number)
      ? []
      : [{ pointer: '/number', message: 'a number needs letters or digits' }];
  const feature = index.features.get(o.feature);
  if (!feature) return [{ pointer: '/feature', message: `there is no feature “${o.feature}”` }];
  if ('state' in o) return [];
  if ('measure' in o)
    return feature.kind === 'measure'
      ? []
      : [{ pointer: '/measure', message: `${o.feature} is not measured` }];
  if ('other' in o) {
    const wrong = whyNotOther(feature, o.other);
    return wrong === undefined ? [] : [{ pointer: '/other', message: wrong }];
  }
  const wrong = whyNotAValue(feature, o.value);
  return wrong ? [{ pointer: '/value', message: wrong }] : [];
}
