/** Small wordings shared by screens. */
import { edtfInWords } from '@jutbank/core/dates';
import { formatMoney, type Money } from '@jutbank/core/money';
import type { Stage } from '@jutbank/core/pieces';
import type { Construction } from '@jutbank/core/reference';

export const STAGE_WORDS: Record<Stage, string> = {
  intake: 'At intake',
  bench: 'On the bench',
  condition: 'To be inspected',
  worth: 'To be priced',
  trail: 'Paper trail to write',
  listing: 'Ready to list',
  listed: 'Listed',
  sold: 'Sold',
  'given-back': 'Given back',
};
export const inWords = (id: string): string => id.replaceAll('-', ' ');
export const sentence = (id: string): string => {
  const words = inWords(id);
  return words.charAt(0).toUpperCase() + words.slice(1);
};
export const moneyText = (money: Money | null | undefined, whole = false): string =>
  money ? formatMoney(money, { whole }) : '–';
/** A day as everything on the screen writes it, `2 Nov 2026`: of a point in time the reader's, of a day that day everywhere. */
export const dayText = (at: string): string =>
  edtfInWords(at.length === DAY_LENGTH ? at : localDay(new Date(at)));
const localDay = (at: Date): string =>
  [at.getFullYear(), at.getMonth() + 1, at.getDate()].map((n) => String(n).padStart(2, '0')).join('-');
/** A point in time by the reader's clock, `2 Nov 2026, 14:05`. */
export const momentText = (at: string): string =>
  `${dayText(at)}, ${new Date(at).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })}`;
const DAY_LENGTH = '2026-11-02'.length;
export const CONSTRUCTION_WORDS: Record<Construction, string> = {
  slipjoint: 'Slipjoint folder',
  'locking-folder': 'Locking folder',
  fixed: 'Fixed blade',
  bayonet: 'Bayonet',
  'multi-tool': 'Multi-tool',
  automatic: 'Automatic',
  balisong: 'Balisong',
};

/** By its id, as an answer names it. */
export const constructionInWords = (id: string): string =>
  new Map<string, string>(Object.entries(CONSTRUCTION_WORDS)).get(id) ?? id;

/** The day it is, as an ISO day. */
export const today = (): string => new Date().toISOString().slice(0, 10);

/** A number with its thousands set apart as they are in amounts: `12,400`. */
export const counted = (n: number): string => Math.round(n).toLocaleString('en-GB');

/** A change with its sign, `−2.3`; the unit is the reader's to add. */
export const signed = (x: number, digits = 0): string => `${x < 0 ? '−' : '+'}${Math.abs(x).toFixed(digits)}`;
/** Where a parcel goes, as the carriers reckon. */
export const ZONE_WORDS = {
  home: 'At home',
  near: 'Near abroad',
  far: 'Farther',
  overseas: 'Overseas',
} as const;
