/** The bag for the fair: packed while there is a connection, kept on this device, told with its age. */
import { BAG_VERSION } from '@jutbank/core/fair';
import { fairRoutes, type FairBagDocument } from '@jutbank/contract/fair';
import type { SessionAnswer } from '@jutbank/contract/shop';
import { send } from '../base/api.ts';
import { KEPT, keepDocument, keepProgram, keepSession } from '../base/kept.ts';

/** Under which the bag is kept (base/kept.ts). */
export const BAG = 'bag';

/** What is told of a bag without opening it. */
export interface BagLabel {
  readonly version: number;
  readonly packedAt: string;
  readonly makers: readonly string[];
  /** the program is on this device too: it starts without a connection */
  readonly program: boolean;
}
const LABEL = `${KEPT}bag`;

export function bagLabel(): BagLabel | undefined {
  try {
    const label = JSON.parse(localStorage.getItem(LABEL) ?? 'null') as BagLabel | null;
    return label?.version === BAG_VERSION ? label : undefined;
  } catch {
    return undefined;
  }
}

/** @param makers whose market is taken along; all where none is named. @throws ApiProblem where it cannot be packed */
export async function packBag(makers: readonly string[], session: SessionAnswer): Promise<BagLabel> {
  const bag: FairBagDocument = await send(fairRoutes.fairBag, {
    query: { makers: makers.length === 0 ? undefined : makers.join(',') },
    once: true,
  });
  await keepDocument(BAG, bag);
  keepSession(session);
  const label = {
    version: bag.version,
    packedAt: bag.packedAt,
    makers: makers.length === 0 ? [] : bag.makers,
    program: await keepProgram(),
  };
  localStorage.setItem(LABEL, JSON.stringify(label));
  return label;
}

/** A bag that was packed so long ago is packed again by itself where there is a connection. */
const STALE_MS = 6 * 3_600_000;
export const isStale = (label: BagLabel, now = Date.now()): boolean =>
  now - Date.parse(label.packedAt) > STALE_MS;

/** How long ago it was packed, in words. */
export function ageInWords(label: BagLabel, now = Date.now()): string {
  const minutes = Math.max(0, Math.round((now - Date.parse(label.packedAt)) / 60_000));
  if (minutes < 2) return 'just now';
  if (minutes < 90) return `${minutes} minutes ago`;
  const hours = Math.round(minutes / 60);
  if (hours < 36) return `${hours} hours ago`;
  return `${Math.round(hours / 24)} days ago`;
}
