/** Findings, parts and treatments as they are told; in English where no other words are given. */
import { edtfInWords } from '../dates/index.ts';
import { ENGLISH } from '../words/index.ts';
import { measureUnit, type Defect, type Finding } from './finding.ts';
import type { TreatmentDone } from './treated.ts';

export const defectInWords = (defect: Defect, words = ENGLISH): string => words.say(`defect.${defect}`);

export function partInWords(part: string, words = ENGLISH): string {
  const [name = part, number] = part.split(':');
  const said = words.name('part', name);
  return number === undefined ? said : `${said} ${number}`;
}

/** One finding as a buyer should read it: `Scales: crack, light, 4 mm, rear side – at the front pin`. */
export function findingInWords(f: Finding, words = ENGLISH): string {
  const unit = measureUnit(f.defect);
  const details = [
    f.count != null && f.count > 1 ? words.say('finding.places', { count: f.count }) : undefined,
    f.severity ? words.say(`severity.${f.severity}`) : undefined,
    f.measure == null ? undefined : words.figure(`${f.measure} ${unit === 'percent' ? '%' : 'mm'}`),
    f.side ? words.name('side', f.side) : undefined,
    f.byMaker ? words.say('finding.byMaker') : undefined,
  ].filter((d): d is string => d !== undefined && d !== '');
  const part = partInWords(f.part, words);
  const head = `${part.charAt(0).toUpperCase()}${part.slice(1)}: ${[defectInWords(f.defect, words), ...details].join(', ')}`;
  return f.note ? `${head} – ${f.note}` : head;
}

/** A treatment as a buyer should read it: `Treated: polished, 2 Nov 2026, compound (3000 grit); cannot be undone`. */
export function treatmentInWords(t: TreatmentDone, words = ENGLISH): string {
  const means = [t.product, t.grit === '' ? '' : words.say('treatment.grit', { grit: t.grit })]
    .filter((x) => x !== '')
    .join(', ');
  return words.say('treatment.line', {
    what: t.title === '' ? words.say(`treated.${t.kind}`) : t.title,
    day: edtfInWords(t.doneOn, words),
    means: means === '' ? '' : ` (${means})`,
    undone: words.say(t.reversible ? 'treatment.reversible' : 'treatment.lasting'),
  });
}
