/**
 * What readers are told: costs, floors, margins and buyers are left out of every answer unless the owner has opened them.
 * By the names under which they stand in answers, so that no route can forget it; a test asks every route for them.
 */
import { SECRETS, type Secret } from '@jutbank/contract/http';

const NAMES: Readonly<Record<Secret, ReadonlySet<string>>> = {
  costs: new Set([
    'cost',
    'costs',
    'costOfValued',
    'withoutCost',
    'bound',
    'settlement',
    'consignment',
    'refundedCost',
  ]),
  floors: new Set(['floor']),
  margins: new Set(['margin', 'reprice', 'account', 'feesBack', 'taxDue']),
  buyers: new Set([
    'buyerName',
    'buyerAddress',
    'atMost',
    'bidder',
    'reservedFor',
    'reservationNote',
    'ownerName',
    'consignment',
    'settlement',
  ]),
};

const has = (value: object, name: string): boolean => Object.hasOwn(value, name);

/** The answer without what is not for these eyes: those places hold null. */
export function withheld(value: unknown, seen: readonly Secret[]): unknown {
  const hidden = SECRETS.filter((secret) => !seen.includes(secret));
  if (hidden.length === 0) return value;
  const hides = (secret: Secret) => hidden.includes(secret);
  const walk = (at: unknown): unknown => {
    if (Array.isArray(at)) return at.map(walk);
    if (typeof at !== 'object' || at === null) return at;
    const intake = has(at, 'sellerStatement') && has(at, 'sourceKind');
    const sale = has(at, 'invoiceNumber') && has(at, 'soldAt');
    const entry = has(at, 'seq') && has(at, 'hash');
    return Object.fromEntries(
      Object.entries(at).map(([name, inner]) => {
        const gone =
          // a date has a floor too, as a list of what gives it
          (hidden.some((secret) => NAMES[secret].has(name)) && !(name === 'floor' && Array.isArray(inner))) ||
          (intake && hides('costs') && name === 'price') ||
          (sale && hides('margins') && name === 'net') ||
          // what was written down at the time holds all of it
          (entry && name === 'body');
        if (intake && hidden.length > 0 && name === 'shopNote') return [name, ''];
        return [name, gone ? null : walk(inner)];
      }),
    );
  };
  return walk(value);
}
