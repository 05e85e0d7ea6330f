import { counted } from '../parts/words.ts';

const SEPARATOR_WORDS: Record<string, string> = { ',': 'commas', ';': 'semicolons', '\t': 'tabs' };

/** What a file turned out to be. */
export const fileInWords = (look: {
  readonly rows: number;
  readonly separator: string;
  readonly encoding: string;
  readonly remembered: boolean;
}): string =>
  `${counted(look.rows)} rows, parted by ${SEPARATOR_WORDS[look.separator] ?? look.separator}, in ${look.encoding}.${
    look.remembered ? ' Its columns are read as last time.' : ''
  }`;
