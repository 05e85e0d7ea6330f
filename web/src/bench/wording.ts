import type { Observation, Subject } from '@jutbank/core/bench';
import { dimensionOfUnit, formatQuantity } from '@jutbank/core/units';
import type { Vocabulary } from '@jutbank/contract/reference';
import { counted, inWords } from '../parts/words.ts';

/** A weight of evidence, in decibans, as people bet. */
export function oddsOf(decibans: number): string {
  const factor = 10 ** (Math.abs(decibans) / 10);
  const times = factor < 10 ? factor.toFixed(1) : counted(factor);
  return decibans > 0 ? `${times} times likelier` : `${times} times less likely`;
}

/** How much of what is open a reading would settle, in words; the bits stand behind them. */
export const gainWords = (bits: number): string =>
  bits >= 0.7 ? 'tells a great deal' : bits >= 0.25 ? 'tells something' : 'tells a little';

/** Ids of the reference in words. */
export class Wording {
  constructor(readonly vocabulary: Vocabulary) {}
  feature = (id: string) => this.vocabulary.features.find((f) => f.id === id)?.label ?? inWords(id);
  value = (feature: string | undefined, value: string | number): string => {
    const known = this.vocabulary.features.find((f) => f.id === feature);
    if (known?.kind === 'measure') return `${value} ${known.unit === 'deg' ? '°' : (known.unit ?? 'mm')}`;
    return known?.values?.find((v) => v.id === value)?.label.toLowerCase() ?? String(value);
  };
  mark = (id: string) => this.vocabulary.marks.find((m) => m.id === id)?.lines.join(' / ') ?? id;
  /** signs of a code as they were read: `Ticks 7, row below name` */
  reads(id: string, reads: Readonly<Record<string, string | number>>): string {
    const code = this.vocabulary.codes.find((c) => c.id === id);
    const label = (read: string) =>
      (code?.kind === 'date' ? code.reads.find((r) => r.id === read)?.label : undefined) ?? inWords(read);
    return Object.entries(reads)
      .map(([read, value]) => `${label(read).toLowerCase()} ${inWords(String(value))}`)
      .join(', ');
  }
  code = (id: string) => this.vocabulary.codes.find((c) => c.id === id)?.title ?? id;
  maker = (id: string) => this.vocabulary.makers.find((m) => m.id === id)?.name ?? id;
  pattern = (id: string) => this.vocabulary.patterns.find((p) => p.id === id)?.name ?? id;
  source(id: string, page: string | null): string {
    const title = this.vocabulary.sources.find((s) => s.id === id)?.title ?? inWords(id);
    return page === null ? title : `${title.length > 30 ? `${title.slice(0, 28)}…` : title} ${page}`;
  }
  /** What was read, as it is told beside what was looked at. */
  observed(o: Observation): string {
    if ('mark' in o) return this.mark(o.mark);
    if ('number' in o) return o.number;
    if ('state' in o) return o.state === 'not-there' ? 'not there' : 'cannot tell';
    if ('text' in o && 'code' in o) return o.text;
    if ('reads' in o) return this.reads(o.code, o.reads);
    if ('other' in o) return `${o.other} (not in the reference)`;
    if ('measure' in o) {
      const unit = this.vocabulary.features.find((f) => f.id === o.feature)?.unit;
      return formatQuantity(o.measure, dimensionOfUnit(unit), o.resolution ?? 0.1);
    }
    return this.value(o.feature, o.value);
  }
  subject(s: Subject): string {
    if ('feature' in s)
      return s.value === undefined
        ? `${this.feature(s.feature)} not there`
        : `${this.feature(s.feature)}: ${this.value(s.feature, s.value)}`;
    if ('mark' in s) return `Stamp ${this.mark(s.mark)}`;
    if ('code' in s) return this.code(s.code);
    if ('maker' in s) return `${this.maker(s.maker)}’s years`;
    if ('today' in s) return 'Today';
    return 'Variants still possible';
  }
}
