/** Pages that the shop goes by: address, name, what stands there. */
export const SHOP_PAGES = [
  ['/track-record', 'How well we have done', 'what was said, against what came of it'],
  ['/pricing-settings', 'Pricing settings', 'channels, tax, margins, what is wanted of a piece'],
  ['/listing-settings', 'Listings', 'languages, order, cautions, how long they run'],
  ['/paper-settings', 'Papers', 'letterhead, terms, what is said of the tax'],
  ['/contacts', 'Contacts', 'who buys, who sells, whose pieces are sold here'],
  ['/rates', 'Exchange rates', 'the last known of each currency, daily or from a list'],
  ['/backups', 'Backups and archive', 'how often, what is kept, everything in one open file'],
  ['/drills', 'Drills', 'learning the marks, five minutes at a time'],
  ['/condition-rules', 'Condition rules', 'what each scale and the index go by'],
] as const;
