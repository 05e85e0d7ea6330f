import { edtfInWords } from '@jutbank/core/dates';
import { letteringOf } from '@jutbank/core/drawing';
import type { Mark } from '@jutbank/core/reference';
import { inWords } from './words.ts';

/** Lettering, place and years of a stamp: what tells it from another of the same text. */
export const stampCaption = (mark: Pick<Mark, 'lettering' | 'place' | 'window' | 'lines'>): string =>
  [
    mark.lettering ? inWords(mark.lettering).toLowerCase() : letteringOf(mark),
    mark.place ? inWords(mark.place).toLowerCase() : undefined,
    mark.window ? edtfInWords(mark.window) : undefined,
  ]
    .filter(Boolean)
    .join(' · ');
