/** Whether a form can still be bought new, on any day, by what was noted of it. */
import { edtfInWords } from '../dates/index.ts';

export const AVAILABILITIES = ['in-production', 'in-shops', 'sold-out', 'discontinued'] as const;
export type Availability = (typeof AVAILABILITIES)[number];

export interface AvailabilityNote {
  readonly state: Availability;
  /** ISO day on which it was so */
  readonly on: string;
  /** where it was read or seen, in words */
  readonly source: string;
}

export interface AvailabilityOn {
  readonly note: AvailabilityNote;
  /** nobody sells it new any more: what is offered as new is to be looked at twice */
  readonly gone: boolean;
}

/** A form that was last seen in a shop so many days ago is taken to be gone from the shops. */
export const LAST_SEEN_DAYS = 365;

const DAY_MS = 86_400_000;

/**
 * What the latest note up to a day says of that day. The maker may have ended a form that shops still have: then it is
 * in the shops, until it was not seen there for a year.
 * @param day ISO day
 * @returns undefined where nothing was noted until then
 */
export function availabilityOn(notes: readonly AvailabilityNote[], day: string): AvailabilityOn | undefined {
  const note = notes
    .filter((n) => n.on <= day)
    .reduce<AvailabilityNote | undefined>((last, n) => (last && last.on > n.on ? last : n), undefined);
  if (!note) return undefined;
  const age = (Date.parse(day) - Date.parse(note.on)) / DAY_MS;
  return {
    note,
    gone:
      note.state === 'sold-out' ||
      note.state === 'discontinued' ||
      (note.state === 'in-shops' && age > LAST_SEEN_DAYS),
  };
}

export const AVAILABILITY_WORDS: Readonly<Record<Availability, string>> = {
  'in-production': 'in production',
  'in-shops': 'seen in the shops',
  'sold-out': 'sold out',
  discontinued: 'no longer made',
};
export const availabilityInWords = ({ state, on, source }: AvailabilityNote): string =>
  `${AVAILABILITY_WORDS[state]}, ${edtfInWords(on)} (${source})`;

/** The caution on a form that cannot be bought new. @param name undefined where it stands beside the form */
export const noLongerNew = (note: AvailabilityNote, name?: string): string =>
  `${name === undefined ? 'No' : `${name}: no`} longer in the shops (${availabilityInWords(note)}). What cannot be bought new is imitated: one that is offered as new is looked at twice.`;
