/** Text without case, accents and punctuation: how names and words of lists are compared. */
export const foldedText = (text: string): string =>
  text
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replaceAll('ß', 'ss')
    .replace(/[øœ]/g, (letter) => (letter === 'ø' ? 'o' : 'oe'))
    .replaceAll('æ', 'ae')
    .replace(/[^a-z0-9]+/g, ' ')
    .trim();

/** The languages of the currencies a shop mostly deals in: euro, pound and dollar, krona. */
export const LANGUAGES = ['en', 'de', 'fr', 'sv'] as const;
