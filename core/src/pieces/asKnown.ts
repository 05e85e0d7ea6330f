/** What was known of a piece on a day, made again from what was written down as it happened, and what changed since. */

export interface Written {
  /** an instant, ISO 8601 */
  readonly at: string;
  readonly kind: string;
  readonly by: string;
  readonly body: unknown;
}
/** Parts of a record, each as it was last written; absent what was not written yet. */
export interface KnownThen {
  readonly intake?: Readonly<Record<string, unknown>>;
  readonly observations?: readonly unknown[];
  readonly attribution?: Readonly<Record<string, unknown>> | null;
  readonly condition?: Readonly<Record<string, unknown>>;
  readonly custody?: readonly unknown[];
  readonly pricing?: Readonly<Record<string, unknown>>;
  readonly listing?: Readonly<Record<string, unknown>>;
  readonly sold?: boolean;
}

const part = (body: unknown, name: string): unknown =>
  typeof body === 'object' && body !== null ? Reflect.get(body, name) : undefined;
const asRecord = (value: unknown): Readonly<Record<string, unknown>> | undefined =>
  typeof value === 'object' && value !== null && !Array.isArray(value)
    ? (value as Readonly<Record<string, unknown>>)
    : undefined;
const asList = (value: unknown): readonly unknown[] | undefined => (Array.isArray(value) ? value : undefined);

/** What an entry says of the record; an entry that changes nothing of it says nothing. */
function told({ kind, body }: Written): KnownThen {
  switch (kind) {
    case 'taken-in':
    case 'intake-changed': {
      const intake = asRecord(body);
      return intake ? { intake } : {};
    }
    case 'observed': {
      const observations = asList(part(body, 'observations'));
      return observations ? { observations } : {};
    }
    case 'attributed':
      return { attribution: asRecord(part(body, 'attribution')) ?? null };
    case 'inspected': {
      const condition = asRecord(body);
      return condition ? { condition } : {};
    }
    case 'custody-recorded': {
      const custody = asList(part(body, 'events'));
      return custody ? { custody } : {};
    }
    case 'priced': {
      const pricing = asRecord(body);
      return pricing ? { pricing } : {};
    }
    case 'listing-written': {
      const listing = asRecord(body);
      return listing ? { listing } : {};
    }
    case 'sold':
      return { sold: true };
    case 'came-back':
      return { sold: false };
    default:
      return {};
  }
}

/** The record as it stood at the end of a day (UTC). @param entries of its ledger, in any order */
export function asKnownOn(entries: readonly Written[], day: string): KnownThen {
  return [...entries]
    .filter((entry) => entry.at.slice(0, 10) <= day)
    .sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0))
    .reduce<KnownThen>((known, entry) => ({ ...known, ...told(entry) }), {});
}

export interface SinceThen {
  readonly at: string;
  readonly by: string;
  readonly kind: string;
  /** the parts of the record that it changed */
  readonly parts: readonly (keyof KnownThen)[];
}

/** Everything that was written after a day, oldest first, with what of the record it changed. */
export function changesSince(entries: readonly Written[], day: string): SinceThen[] {
  return [...entries]
    .filter((entry) => entry.at.slice(0, 10) > day)
    .sort((a, b) => (a.at < b.at ? -1 : 1))
    .map((entry) => ({
      at: entry.at,
      by: entry.by,
      kind: entry.kind,
      parts: Object.keys(told(entry)) as (keyof KnownThen)[],
    }));
}
