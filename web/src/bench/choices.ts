/** What can be answered of a thing to look at, in the order of its numbers. */
import type { Observation } from '@jutbank/core/bench';
import { besideTheirLike } from '@jutbank/core/drawing';
import type { Mark } from '@jutbank/core/reference';
import { stampCaption } from '../parts/stampCaption.ts';
import type { Item } from './items.ts';

/** Chips hold at most so many counts; more are typed. */
export const COUNT_CHIPS = [1, 2, 3, 4, 5, 6];

export interface Choice {
  readonly label: string;
  readonly make: Observation;
  readonly mark?: Mark;
}

/** The numbered choices of an item; empty where it is typed. */
export function choicesOf(item: Item, filter = ''): Choice[] {
  if (item.kind === 'mark' || item.kind === 'afterwards') {
    const wanted = new RegExp(filter.replace(/[.*+^${}()|[\]\\]/g, '\\$&').replaceAll('?', '.'), 'i');
    return besideTheirLike(item.marks.filter((m) => wanted.test(m.lines.join(' ')))).map((mark) => ({
      label: `${mark.lines.join(' ')}, ${stampCaption(mark)}`,
      make: { mark: mark.id },
      mark,
    }));
  }
  if (item.kind !== 'feature') return [];
  if (item.feature.kind === 'count')
    return COUNT_CHIPS.map((n) => ({ label: String(n), make: { feature: item.feature.id, value: n } }));
  return (item.feature.values ?? []).map((v) => ({
    label: v.label,
    make: { feature: item.feature.id, value: v.id },
  }));
}
