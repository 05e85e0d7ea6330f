/** Message catalogues: what the shop says to a buyer, in the languages it ships. What the shop typed stays as typed. */
import i18next, { type i18n } from 'i18next';
import type { TellsDates } from '../dates/index.ts';
import { de } from './de.ts';
import { en, type Catalogue } from './en.ts';

export type { Catalogue } from './en.ts';

type Paths<T> = {
  [K in keyof T & (string | number)]: T[K] extends string ? `${K}` : `${K}.${Paths<T[K]>}`;
}[keyof T & (string | number)];
export type MessageKey = Paths<typeof en>;

export const LANGUAGES = ['en', 'de'] as const;
export type Language = (typeof LANGUAGES)[number];
/** A language by its own name. */
export const LANGUAGE_NAMES: Readonly<Record<Language, string>> = { en: 'English', de: 'Deutsch' };

type Values = Readonly<Record<string, string | number>>;
export interface Words extends TellsDates {
  readonly language: Language;
  say(key: MessageKey, values?: Values): string;
  /** For sets that a shop adds to (its own grades, free sides): the message, or the text itself where none is known. */
  name(set: 'part' | 'side' | 'place' | 'grade' | 'scale' | 'codeKind', id: string): string;
  /** The message of an item and its state, where anything is said of it. */
  ofState(set: 'tells' | 'included', item: string, state: string): string | undefined;
  /** `1,200`, `1.200` */
  number(n: number): string;
  /** Figures as text, with the decimal sign of the language. */
  figure(text: string): string;
  /** A sentence of the set that was kept in English, told again; one that no message has stays as it was kept. */
  retold(set: 'unproved', text: string): string;
}

const CATALOGUES: Readonly<Record<Language, Catalogue>> = { en, de };
const engine: i18n = i18next.createInstance();
void engine.init({
  initAsync: false,
  lng: 'en',
  fallbackLng: false,
  nsSeparator: false,
  interpolation: { escapeValue: false },
  resources: { en: { translation: en }, de: { translation: de } },
});

/** A message as a pattern of the sentences it makes, and the names of its values in their order. */
function patternOf(message: string): { readonly pattern: RegExp; readonly names: readonly string[] } {
  const pieces = message.split(/\{\{(\w+)\}\}/);
  const escaped = pieces.map((piece, i) =>
    i % 2 === 1 ? '(.+?)' : piece.replace(/[.*+?^${}()|[\]\\]/g, '\\$&'),
  );
  return { pattern: new RegExp(`^${escaped.join('')}$`, 's'), names: pieces.filter((_, i) => i % 2 === 1) };
}

/** The sentences that are kept in English. */
const KEPT = {
  unproved: Object.entries(en.unproved).map(([id, message]) => ({ id, ...patternOf(message) })),
};

function wordsOf(language: Language): Words {
  const t = engine.getFixedT(language);
  const known = (key: string): string | undefined =>
    engine.exists(key, { lng: language }) ? t(key) : undefined;
  const numbers = new Intl.NumberFormat(language === 'en' ? 'en-GB' : language);
  return {
    language,
    ofDates: CATALOGUES[language],
    say: (key, values) => t(key, { ...values }),
    name: (set, id) => known(`${set}.${id}`) ?? id,
    ofState: (set, item, state) => known(`${set}.${item}.${state}`),
    number: (n) => numbers.format(n),
    figure: (text) => (language === 'de' ? text.replace(/(\d)\.(\d)/g, '$1,$2') : text),
    retold: (set, text) => {
      for (const { id, pattern, names } of KEPT[set]) {
        const values = pattern.exec(text)?.slice(1);
        if (values)
          return t(`${set}.${id}`, Object.fromEntries(names.map((name, i) => [name, values[i] ?? ''])));
      }
      return text;
    },
  };
}

const WORDS: Readonly<Record<Language, Words>> = { en: wordsOf('en'), de: wordsOf('de') };
export const ENGLISH: Words = WORDS.en;
export const wordsIn = (language: Language): Words => WORDS[language];
