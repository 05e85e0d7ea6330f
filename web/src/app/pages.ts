/** Pages and acts by their names and by what people call them, for the finder. */
import { SHOP_PAGES } from '../shop/pages.ts';

export interface Place {
  readonly to: string;
  readonly name: string;
  /** further words by which it is looked for */
  readonly words: string;
}
const place = (to: string, name: string, words: string): Place => ({ to, name, words });

/** What people call a page of the shop besides what stands beside it there. */
const MORE_WORDS: Readonly<Record<string, string>> = {
  '/drills': 'train practise course questions clerk exercise',
  '/backups': 'export restore save copy bag',
};

const PLACES: readonly Place[] = [
  place('/', 'Tray', 'work in hand start home wants a look'),
  place('/pieces', 'All pieces', 'list stock inventory drawer place search'),
  place('/pieces/new', 'Take in a piece', 'new add intake acquire'),
  place('/pieces/from-list', 'Move in with a list', 'import spreadsheet csv whole many pictures'),
  place('/lots', 'Lots', 'new lot take in several auction collection'),
  place('/fair', 'Fair', 'most to pay buying table'),
  place('/listing-desk', 'Listing desk', 'publish put up many ads descriptions'),
  place('/sales', 'Sales', 'sold invoices register returns unpaid'),
  place('/stock', 'Stock', 'valuation worth cost re-price'),
  place('/comparables', 'Comparables', 'prices import csv sales results'),
  place('/reference', 'Reference', 'makers patterns variants packs import pack'),
  place('/reference/write/maker', 'Write a maker', 'new maker reference'),
  place('/reference/write/pattern', 'Write a pattern', 'new pattern model reference'),
  place('/questions', 'Open questions', 'unexplained marks numbers to watch'),
  place('/series', 'Series', 'want list collectors missing doubles wanted follow completion'),
  place('/frequency', 'How often things come', 'frequency counted encounters rarity'),
  place('/gradings', 'Second gradings', 'blind grade agreement'),
  place('/bodies', 'Bodies and their names', 'services units names of the day'),
  place('/shop', 'Shop', 'settings people accounts roles ledger currency'),
  place('/audit', 'Who did what', 'ledger audit history people'),
  place('/account', 'Your account', 'password second factor sign out sessions'),
  ...SHOP_PAGES.map(([to, name, of]) => place(to, name, `${of} ${MORE_WORDS[to] ?? ''}`)),
  place('/condition-rules', 'Grading rules', 'scales grades caps index deductions'),
];

/** Every word of what is asked begins a word of the place; those whose name begins so come first. */
export function placesFor(q: string, most = 5): Place[] {
  const wanted = q.toLowerCase().split(/\s+/).filter(Boolean);
  if (wanted.length === 0) return [];
  const begins = (text: string, word: string) =>
    text
      .toLowerCase()
      .split(/[^\p{L}\p{N}]+/u)
      .some((part) => part.startsWith(word));
  const found = PLACES.filter(({ name, words }) => wanted.every((word) => begins(`${name} ${words}`, word)));
  const named = ({ name }: Place) => wanted.every((word) => begins(name, word));
  return [...found.filter(named), ...found.filter((p) => !named(p))].slice(0, most);
}
