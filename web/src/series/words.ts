/** Series in words. */
import type { Vocabulary } from '@jutbank/contract/reference';
import type { SeriesBody, SeriesSlotAnswer } from '@jutbank/contract/series';
import { edtfInWords } from '@jutbank/core/dates';
import { counted, moneyText, sentence } from '../parts/words.ts';

export const RULE_WORDS: Readonly<Record<SeriesBody['rule']['kind'], string>> = {
  patterns: 'every form of a pattern',
  stamp: 'everything with a stamp',
  values: 'one of each kind of a feature',
  years: 'one of every year',
  picked: 'forms chosen one by one',
};

/** What a rule asks for, in a line. */
export function ruleInWords(rule: SeriesBody['rule'], words: Vocabulary | undefined): string {
  const named = (ids: readonly string[]) =>
    ids.map((id) => words?.patterns.find((p) => p.id === id)?.name ?? id).join(', ');
  switch (rule.kind) {
    case 'patterns':
      return `${rule.kinds?.length ? `${rule.kinds.map((k) => sentence(k).toLowerCase()).join(', ')} forms` : 'every form'} of ${named(rule.patterns)}`;
    case 'years':
      return `one of every year of ${named(rule.patterns)}`;
    case 'values': {
      const feature = words?.features.find((f) => f.id === rule.feature)?.label ?? rule.feature;
      return `one of each kind of ${feature.toLowerCase()} of ${named(rule.patterns)}`;
    }
    case 'stamp':
      return `everything stamped ${words?.marks.find((m) => m.id === rule.mark)?.lines.join(' ') ?? rule.mark}`;
    case 'picked':
      return `${rule.variants.length} forms chosen one by one`;
  }
}

export const STATE_WORDS: Readonly<Record<SeriesSlotAnswer['state'], string>> = {
  owned: 'here',
  upgrade: 'a better one wanted',
  elsewhere: 'owned, not here',
  missing: 'missing',
  skipped: 'not cared for',
};

/** Years, numbers and shops of a slot, in a line. */
export function editionInWords({ window, edition, made }: SeriesSlotAnswer): string {
  const first = edition?.firstNumber ?? 1;
  const numbers =
    edition?.run == null ? undefined : `no. ${counted(first)}–${counted(first + edition.run - 1)}`;
  return [
    window === null ? 'years not known' : edtfInWords(window),
    edition?.index == null ? undefined : `number ${edition.index} of the series`,
    numbers ?? (made === null ? undefined : `${counted(made)} made`),
    edition?.retailer == null ? undefined : `for ${edition.retailer}`,
    edition?.split?.map((share) => `${counted(share.run)} ${share.of}`).join(' + '),
  ]
    .filter(Boolean)
    .join(' · ');
}

type Double = SeriesSlotAnswer['doubles'][number];
export function whySellInWords({ why }: Double): string {
  const words = why.map((w) => {
    switch (w.why) {
      case 'worse':
        return `its condition is ${Math.round(w.by)} points worse`;
      case 'not-inspected':
        return 'nobody has inspected it';
      case 'less-sure':
        return 'it is less sure what it is';
      case 'dearer':
        return `it would bring more, ≈ ${moneyText(w.worth, true)}`;
      case 'longer':
        return `it has stood longer, ${counted(w.days)} days`;
    }
  });
  return words.length === 0 ? 'as good as the other' : words.join('; ');
}

type Range = SeriesSlotAnswer['price'];
export const rangeText = (range: NonNullable<Range>): string =>
  `${moneyText(range.low, true)} – ${moneyText(range.high, true)}`;
