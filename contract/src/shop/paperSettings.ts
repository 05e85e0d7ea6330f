/** What stands on the shop's papers: letterhead, terms, and the words its tax adviser gave for each scheme. */
import { LISTING_SECTIONS, PLACES_OF_SALE, type ListingStyle } from '@jutbank/core/listing';
import { LANGUAGES, type Language } from '@jutbank/core/words';
import { z } from 'zod';
import { answers, required, route, text } from '../http/index.ts';
import { constructionShape } from '../reference/index.ts';

const days = (most: number) => z.number().int().min(0).max(most);
export const paperSettings = z.object({
  address: text(500).default(''),
  phone: text(60).default(''),
  email: text(200).default(''),
  taxNumber: text(60).default(''),
  registration: text(120).default(''),
  /** within how many days an invoice is to be paid */
  dueInDays: days(365).default(14),
  paymentTerms: text(1000).default(''),
  returnTerms: text(1000).default(''),
  /** said on an invoice by the scheme of its sale */
  wording: z
    .object({
      untaxed: text(500).default(''),
      onSale: text(500).default(''),
      onMargin: text(500).default(''),
    })
    .default({ untaxed: '', onSale: '', onMargin: '' }),
  /** what all listings say, and in which order */
  listing: z
    .object({
      order: z.array(z.enum(LISTING_SECTIONS)).max(LISTING_SECTIONS.length).default([]),
      reason: text(500).default(''),
      postageHome: text(300).default(''),
      postageAbroad: text(300).default(''),
      terms: text(1000).default(''),
      offers: z.enum(['open', 'fixed', 'unsaid']).default('unsaid'),
      /** a listing runs out after so many days; null: it stays until it is taken down */
      runsForDays: days(400).min(1, 'at least a day').nullable().default(null),
      /** the same words in a second language; null: listings are written in English alone */
      second: z
        .object({
          language: z.enum(LANGUAGES).exclude(['en']).nullable().default(null),
          reason: text(500).default(''),
          postageHome: text(300).default(''),
          postageAbroad: text(300).default(''),
          terms: text(1000).default(''),
        })
        .prefault({}),
    })
    .prefault({}),
  /** what buyers are told to think of, as the shop's adviser gave it */
  cautions: z
    .object({
      minimumAge: z.number().int().min(1).max(99).nullable().default(null),
      /** mm */
      longBlade: z.number().min(1).max(2000).nullable().default(null),
      own: z
        .array(
          z.object({
            text: required(500, 'Write what is to be said'),
            /** in the second language; empty: as it stands */
            second: text(500).default(''),
            construction: constructionShape.nullable().default(null),
            place: z.enum(PLACES_OF_SALE).nullable().default(null),
          }),
        )
        .max(30)
        .default([]),
    })
    .prefault({}),
  /** what a packed piece weighs beyond itself, and the box it goes in */
  packing: z
    .object({
      grams: z.number().min(0).max(20_000).default(180),
      length: z.number().min(10).max(3000).default(240),
      width: z.number().min(10).max(3000).default(160),
      height: z.number().min(10).max(3000).default(70),
    })
    .prefault({}),
  /** a piece whose custody has a gap longer than this is told of it */
  gapYears: days(200).default(15),
  /** how long names on invoices are kept after somebody asks to be forgotten, as the law asks */
  keepBuyersYears: days(100).default(10),
});
export type PaperSettings = z.infer<typeof paperSettings>;
export const USUAL_PAPERS: PaperSettings = paperSettings.parse({});

/** What all listings say, in one of the languages they are written in. */
export const listingStyleIn = ({ listing, cautions }: PaperSettings, language: Language): ListingStyle => ({
  ...listing,
  ...(language === 'en' ? {} : listing.second),
  rules:
    language === 'en'
      ? cautions
      : { ...cautions, own: cautions.own.map((own) => ({ ...own, text: own.second || own.text })) },
});

export const versionedPapers = z
  .object({ settings: paperSettings, version: z.number() })
  .meta({ id: 'VersionedPaperSettings' });
export type VersionedPapers = z.infer<typeof versionedPapers>;

export const paperSettingsRoutes = {
  papers: route({
    method: 'get',
    path: '/paper-settings',
    room: 'shop',
    access: 'read',
    summary: 'Letterhead, terms, wording of tax',
    answer: answers(versionedPapers, 'The settings'),
  }),
  putPapers: route({
    method: 'put',
    path: '/paper-settings',
    room: 'shop',
    access: 'own',
    summary: 'Change letterhead, terms, wording of tax',
    body: paperSettings,
    answer: answers(versionedPapers, 'The settings'),
  }),
};
